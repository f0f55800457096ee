package network

import "math"

// Where several ports feed or starve each other so that raising their draws by turns finds
// no point, what happens is followed in time: a capacitance at every unknown, and implicit
// steps that grow while nothing moves and shrink where something falls.
const (
	nodeFarad    = 1.0
	firstStepS   = 0.1
	calmStepS    = 1e4
	longestStepS = 1e9
	shortestS    = 1e-12
	mostHappens  = 4000
	jumpV        = 0.5  // more than this in a step is a fall, and followed closely
	calmV        = 1e-9 // less than this in a long step is rest
	upSteps      = 40
	againSteps   = 12
	mostStarts   = 12
)

// happening is a circuit on its way through time.
type happening struct {
	s       *Solver
	a       []float64 // equations of a step, the right side in the last column
	from    []float64
	restart []bool // by port: rests until it sees enough to start
}

// happen switches on from rest and lets happen what does. Afterwards ports are on, off or
// hunting as they came to be; it returns one that has no volts to work at.
func (s *Solver) happen() (short *port) {
	n := s.g.m.n
	h := &happening{s: s, a: make([]float64, n*(n+1)), from: make([]float64, n+1), restart: make([]bool, len(s.ports))}
	clear(s.g.x)
	for i := range s.ports {
		p := &s.ports[i]
		p.on, p.dropped, p.hunts, p.with, p.share, p.drawA, p.bestW = true, false, false, nil, 0, 0, 0
	}
	h.hold()
	for i := range s.ports {
		p := &s.ports[i]
		h.restart[i] = s.terminals(p).inV < p.startsV()
		p.on = !h.restart[i]
	}
	h.climb(upSteps, func(p *port) bool { return p.on })
	for range mostStarts {
		again := h.starts()
		if again == nil {
			break
		}
		again.on, again.share = true, 0
		h.climb(againSteps, func(p *port) bool { return p == again })
	}
	for i := range s.ports {
		p := &s.ports[i]
		if t := s.terminals(p); p.on && p.asks(t) > 0 && t.inV < LeastV && t.inV > dead*LeastV {
			short = p
		}
	}
	s.nameRivals(h)
	for i := range s.g.devices {
		d := &s.g.devices[i]
		s.g.put(d, d.law.piece(d.volts(s.g.x)))
	}
	return short
}

// nameRivals gives those that hunt the names of those beside which they cannot stay on: the
// others with a cut-out that stopped too, or without which they run.
func (s *Solver) nameRivals(h *happening) {
	copy(h.from, s.g.x)
	shares := make([]float64, len(s.ports))
	for i := range s.ports {
		shares[i] = s.ports[i].share
	}
	for i := range s.ports {
		p := &s.ports[i]
		if !p.hunts {
			continue
		}
		for j := range s.ports {
			if q := &s.ports[j]; i != j && q.cutOut() > 0 && (q.hunts || q.on) && s.runsWithout(p, q) {
				p.with = append(p.with, q.converter.Name)
			}
		}
	}
	copy(s.g.x, h.from)
	for i := range s.ports {
		s.ports[i].share = shares[i]
		h.follow(&s.ports[i])
	}
}

// runsWithout says whether one port can stay on when another is off.
func (s *Solver) runsWithout(p, other *port) bool {
	was := make([]bool, len(s.ports))
	for i := range s.ports {
		q := &s.ports[i]
		was[i] = q.on
		q.on = (q.on || q == p) && q != other
	}
	short, err := s.ramp()
	runs := err == nil && short == nil && p.on && s.terminals(p).inV >= p.cutOut()
	for i := range s.ports {
		s.ports[i].on = was[i]
	}
	return runs
}

// starts is a port that rests and sees enough to start.
func (h *happening) starts() *port {
	for i := range h.s.ports {
		p := &h.s.ports[i]
		if h.restart[i] && !p.on && !p.hunts && h.s.terminals(p).inV >= p.startsV() {
			return p
		}
	}
	return nil
}

// climb ramps ports up.
func (h *happening) climb(steps int, which func(*port) bool) {
	for i := 1; i <= steps; i++ {
		for j := range h.s.ports {
			if p := &h.s.ports[j]; which(p) {
				p.share = float64(i) / float64(steps)
			}
		}
		h.hold()
	}
}

// hold waits until nothing moves.
func (h *happening) hold() {
	g := h.s.g
	step := firstStepS
	for range mostHappens {
		copy(h.from, g.x)
		rounds, ok := h.step(step)
		moved := 0.0
		for i := range g.x {
			moved = math.Max(moved, math.Abs(g.x[i]-h.from[i]))
		}
		if !ok || moved > jumpV && step > 1e-9 {
			copy(g.x, h.from)
			if step /= 4; step < shortestS {
				return
			}
			continue
		}
		if h.drop() {
			step = firstStepS
			continue
		}
		if moved < calmV && step >= calmStepS {
			return
		}
		if rounds < 8 {
			step = math.Min(step*10, longestStepS)
		}
	}
}

// drop stops the converter that is furthest below its cut-out, if any is.
func (h *happening) drop() bool {
	worst, most := -1, 0.0
	for i := range h.s.ports {
		p := &h.s.ports[i]
		if lack := p.cutOut() - h.s.terminals(p).inV; p.on && p.share > 0 && p.cutOut() > 0 && lack > most {
			worst, most = i, lack
		}
	}
	if worst < 0 {
		return false
	}
	p := &h.s.ports[worst]
	p.hunts = p.dropped // a second time
	p.on, p.dropped, h.restart[worst] = false, true, true
	return true
}

// step takes one implicit step, and says in how many rounds it settled.
func (h *happening) step(seconds float64) (rounds int, ok bool) {
	g := h.s.g
	for rounds = range 25 {
		h.assemble(seconds)
		n := g.m.n
		if !eliminate(h.a, n) {
			return rounds, false
		}
		moved := 0.0
		for i := range n {
			by := h.a[i*(n+1)+n]
			g.x[i+1] += by
			moved = math.Max(moved, math.Abs(by))
		}
		if math.IsNaN(moved) || moved > mostValue {
			return rounds, false
		}
		if moved < 1e-10 {
			return rounds, true
		}
	}
	return rounds, false
}
