package network

// Solver solves one circuit again and again, while values and switches change, without
// allocating. It works on the circuit without its inner nodes. What it finds depends on
// the values alone, never on what was found before.
type Solver struct {
	whole   *Circuit
	compact *compact
	circuit *Circuit // the compact one
	g       *grid
	ports   ports
	solved  bool  // what is there holds for the values as they are
	failed  error // …and came to this
	v       []float64
	volts   []float64

	mayFeed  bool // with every switch closed, a converter would give to what a port draws from
	running  []*port
	up       []*port // those that are ramped up
	one      [1]*port
	jacobian []float64
	nearby   place
	bare     []float64 // voltages with nothing drawn, of the last time
}

// NewSolver checks a circuit and makes room for its equations. It returns *Error
// where a value is impossible, a part floats, or sources without resistance contradict
// each other.
func NewSolver(c *Circuit) (*Solver, error) {
	if err := c.check(); err != nil {
		return nil, err
	}
	zeros, err := c.grounded()
	if err != nil {
		return nil, err
	}
	small := reduce(c, zeros)
	for i, zero := range zeros {
		zeros[i] = small.node[zero]
	}
	g, err := newGrid(small.circuit, zeros)
	if err != nil {
		return nil, err
	}
	s := &Solver{whole: c, compact: small, circuit: small.circuit, g: g,
		v: make([]float64, len(small.circuit.names)), volts: make([]float64, len(c.names))}
	for i := range g.devices {
		switch e := small.circuit.Elements[g.devices[i].element].(type) {
		case *Converter:
			s.ports = append(s.ports, port{converter: e, plus: e.InPlus, minus: e.InMinus, stage: i})
		case *PowerLoad:
			s.ports = append(s.ports, port{power: e, plus: e.A, minus: e.B})
		}
	}
	s.findDepths()
	return s, nil
}

// Solve returns the point at which a circuit comes to work when it is switched on from
// rest. It returns *Error, naming what asks too much, where there is none.
func Solve(c *Circuit) (Solution, error) {
	s, err := NewSolver(c)
	if err != nil {
		return Solution{}, err
	}
	if err := s.Solve(); err != nil {
		return Solution{}, err
	}
	return s.Solution(), nil
}

// Solve finds the point for the values as they are now.
func (s *Solver) Solve() error {
	changed := s.g.load()
	for i := range s.ports {
		changed = s.ports[i].load() || changed
	}
	if s.solved && !changed {
		return s.failed
	}
	s.solved = true
	s.failed = s.settleRunning()
	for n := range s.v {
		s.v[n] = s.g.x[s.g.unknown[n]] + s.g.lift[n]
	}
	return s.failed
}

// findDepths finds which ports other converters may feed, or may give to what others give
// to, with every switch closed.
func (s *Solver) findDepths() {
	for range s.ports {
		for i := range s.ports {
			from := &s.ports[i]
			if from.converter == nil {
				continue
			}
			s.g.reach(from.converter.OutPlus, -1)
			for j := range s.ports {
				to := &s.ports[j]
				if s.g.reached(to.plus) {
					s.mayFeed = true
					to.depth = max(to.depth, min(from.depth+1, len(s.ports)))
				}
				if i != j && to.converter != nil && s.g.reached(to.converter.OutPlus) {
					s.mayFeed = true
				}
			}
		}
	}
}
