package network

import (
	"errors"
	"fmt"
	"math"
	"slices"
)

// equations are the nodal equations G·v = i of a circuit, about a point. Ground
// has no row: its stamps are dropped.
type equations struct {
	n   int
	g   []float64 // (n−1)×(n−1), by rows
	i   []float64
	off map[string]bool // converters that have stopped
	// bare leaves constant powers out: what is found then is above any solution.
	bare bool
}

func (e *equations) reset() {
	clear(e.g)
	clear(e.i)
}

// entry adds to the row of one node and the column of another.
func (e *equations) entry(row, column Node, value float64) {
	if row != Ground && column != Ground {
		e.g[(int(row)-1)*(e.n-1)+int(column)-1] += value
	}
}

// inject adds a current into a node.
func (e *equations) inject(n Node, amps float64) {
	if n != Ground {
		e.i[n-1] += amps
	}
}

func (e *equations) conductance(a, b Node, s float64) {
	e.entry(a, a, s)
	e.entry(b, b, s)
	e.entry(a, b, -s)
	e.entry(b, a, -s)
}

// source stamps an element that gives amps at plus, with a slope by its own
// voltage, linear about v.
func (e *equations) source(plus, minus Node, amps, slope float64, v []float64) {
	e.conductance(plus, minus, -slope)
	constant := amps - slope*(v[plus]-v[minus])
	e.inject(plus, constant)
	e.inject(minus, -constant)
}

// depend lets the current out of a node grow with the voltage between two others.
func (e *equations) depend(at, plus, minus Node, s float64) {
	e.entry(at, plus, s)
	e.entry(at, minus, -s)
}

// Solution is a circuit's steady state.
type Solution struct {
	Volts   []float64       // by node
	Off     map[string]bool // converters that stopped at their under-voltage cut-out
	Limited map[string]bool // converters at their input limit
	circuit *Circuit
	modes   []mode
}

// Solver solves one circuit again and again without allocating. It works on the
// circuit without its inner nodes.
type Solver struct {
	whole   *Circuit
	compact *compact
	circuit *Circuit // the compact one
	volts   []float64
	eq      equations
	v, next []float64
	modes   []mode // by element
	bends   bool   // some element draws constant power, so that one step is not enough
	limits  []int  // elements other than batteries that have modes
	banks   []int  // batteries
	warm    bool   // v and modes are a solution with every converter running
}

// NewSolver checks a circuit and makes room for its equations. It returns *Error
// where a value is impossible or a part floats.
func NewSolver(c *Circuit) (*Solver, error) {
	if err := c.check(); err != nil {
		return nil, err
	}
	if err := c.grounded(); err != nil {
		return nil, err
	}
	small := reduce(c)
	bends := slices.ContainsFunc(c.Elements, func(e Element) bool {
		switch e.(type) {
		case Converter, PowerLoad:
			return true
		}
		return false
	})
	n := len(small.circuit.names)
	s := &Solver{whole: c, compact: small, bends: bends, circuit: small.circuit, volts: make([]float64, len(c.names)),
		v: make([]float64, n), next: make([]float64, n), modes: make([]mode, len(small.circuit.Elements)),
		eq: equations{n: n, g: make([]float64, (n-1)*(n-1)), i: make([]float64, n-1), off: map[string]bool{}}}
	for i, e := range small.circuit.Elements {
		switch e.(type) {
		case *Battery:
			s.banks = append(s.banks, i)
		case *Alternator, *Converter, *Diode:
			s.limits = append(s.limits, i)
		}
	}
	return s, nil
}

// Newton's method stops when no voltage moves by more than settled volts, as its next
// move would be about the square of that, and gives up after rounds. Modes are tried at most changes times; after the first few
// only one element changes at a time, so that they cannot chase each other.
const (
	settled  = 1e-6
	rounds   = 50
	changes  = 400
	together = 12
)

// Solve returns the steady state of a circuit. Where a constant-power element has
// two, it is the stable one, with the higher voltage. It returns *Error, naming
// the element, where there is none.
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

// Solve finds the steady state, starting from the last one where there is one.
// Converters that see less than their cut-out stop, one at a time, the worst fed
// first.
func (s *Solver) Solve() error {
	clear(s.eq.off)
	if s.warm && s.again() {
		return nil
	}
	s.warm = false
	for {
		err := s.cold()
		stop := s.worstFed(err != nil)
		switch {
		case stop != "":
			s.eq.off[stop] = true
		case err != nil:
			return s.blame(err)
		default:
			s.warm = len(s.eq.off) == 0
			return nil
		}
	}
}

// cold finds the modes from nothing: first with converters at their full current;
// where the line cannot carry that, with what they give by their voltage; at last with
// batteries that take, as one that takes next to nothing leaves a converter little to do.
func (s *Solver) cold() error {
	var err error
	for _, begin := range []struct{ converters, batteries mode }{{saturated, regulating}, {regulating, regulating}, {regulating, idle}} {
		s.first(begin.converters, begin.batteries)
		failed := s.settle(false)
		if failed == nil {
			return nil
		}
		if err == nil {
			err = failed
		}
	}
	return err
}

// worstFed is the running converter that is furthest below its cut-out; none where
// all are above. Where nothing came to rest, one that cannot be fed pulls its input
// down until it stops, so it is the one closest to stopping; one without a cut-out
// never stops.
func (s *Solver) worstFed(restless bool) string {
	name, most := "", 0.0
	if restless {
		most = math.Inf(-1)
	}
	for _, e := range s.circuit.Elements {
		c, ok := e.(*Converter)
		if !ok || s.stopped(c) || c.CutOutV <= 0 {
			continue
		}
		if lack := c.CutOutV - (s.v[c.InPlus] - s.v[c.Minus]); lack > most || math.IsNaN(lack) {
			name, most = c.Name, lack
		}
	}
	return name
}

// first puts every element in its first mode, converters and batteries in one of theirs.
func (s *Solver) first(converters, batteries mode) {
	clear(s.modes)
	for i, e := range s.circuit.Elements {
		switch e.(type) {
		case *Converter:
			s.modes[i] = converters
		case *Battery:
			s.modes[i] = batteries
		}
	}
}

// again tries the last modes from the last solution, which is close when little
// has changed.
func (s *Solver) again() bool { return s.settle(true) == nil && s.worstFed(false) == "" }

type noRest struct{}

func (noRest) Error() string { return "no steady state" }

type singular struct{ row int }

func (singular) Error() string { return "nothing sets its voltage" }

// settle finds the modes that agree with the voltages they lead to. Each set of
// modes is walked from above, or, warm, from the last solution.
func (s *Solver) settle(warm bool) error {
	for change := range changes {
		s.eq.bare = change > 0 || !warm
		if err := s.newton(); err != nil {
			return err
		}
		// What can be at a limit moves first; batteries take up what is left.
		if !s.move(change > together, false) && !s.move(change > together, true) {
			return s.collapsed()
		}
	}
	return noRest{}
}

// move puts the batteries, or everything else, into the modes that the voltages ask
// for: all of them, or one alone. It says whether any moved.
func (s *Solver) move(alone, batteries bool) bool {
	moved := false
	list := s.limits
	if batteries {
		list = s.banks
	}
	for _, i := range list {
		e := s.circuit.Elements[i]
		if s.stopped(e) {
			continue
		}
		if to := e.next(s.v, s.modes[i]); to != s.modes[i] {
			s.modes[i], moved = to, true
			if alone {
				return true
			}
		}
	}
	return moved
}

// stopped says whether a converter has stopped.
func (s *Solver) stopped(e Element) bool {
	return len(s.eq.off) > 0 && s.eq.off[e.ElementName()]
}

// collapsed refuses a rest in which a constant power sees next to no voltage: it
// was not followed that far.
func (s *Solver) collapsed() error {
	for _, e := range s.circuit.Elements {
		switch e := e.(type) {
		case *PowerLoad:
			if s.v[e.A]-s.v[e.B] <= least && e.Watts > 0 {
				return noRest{}
			}
		case *Converter:
			if s.v[e.InPlus]-s.v[e.Minus] <= least && !s.eq.off[e.Name] {
				return noRest{}
			}
		}
	}
	return nil
}

// newton walks to the voltages of the modes as they are. Its first step may leave
// constant powers out; from above it then comes to their upper branch and never
// crosses to the lower.
func (s *Solver) newton() error {
	for range rounds {
		s.eq.reset()
		for i, e := range s.circuit.Elements {
			e.stamp(&s.eq, s.v, s.modes[i])
		}
		if err := s.eq.eliminate(s.next[1:]); err != nil {
			return err
		}
		moved := 0.0
		for i := range s.v {
			moved = math.Max(moved, math.Abs(s.next[i]-s.v[i]))
		}
		if math.IsNaN(moved) || math.IsInf(moved, 0) {
			return noRest{}
		}
		s.v, s.next = s.next, s.v
		if (moved < settled || !s.bends) && !s.eq.bare {
			return nil
		}
		s.eq.bare = false
	}
	return noRest{}
}

// eliminate solves the equations by Gauss's method with partial pivoting. Rows
// that have nothing to eliminate are passed over, so that a circuit that is one
// long run costs little more than its length.
func (e *equations) eliminate(x []float64) error {
	n := e.n - 1
	for k := range n {
		pivot := k
		for r := k + 1; r < n; r++ {
			if math.Abs(e.g[r*n+k]) > math.Abs(e.g[pivot*n+k]) {
				pivot = r
			}
		}
		if math.Abs(e.g[pivot*n+k]) < 1e-15 {
			return singular{k}
		}
		if pivot != k {
			for c := k; c < n; c++ {
				e.g[k*n+c], e.g[pivot*n+c] = e.g[pivot*n+c], e.g[k*n+c]
			}
			e.i[k], e.i[pivot] = e.i[pivot], e.i[k]
		}
		top := e.g[k*n : k*n+n]
		for r := k + 1; r < n; r++ {
			row := e.g[r*n : r*n+n]
			if row[k] == 0 {
				continue
			}
			f := row[k] / top[k]
			for c := k; c < n; c++ {
				if top[c] != 0 {
					row[c] -= f * top[c]
				}
			}
			e.i[r] -= f * e.i[k]
		}
	}
	for k := n - 1; k >= 0; k-- {
		sum := e.i[k]
		for c := k + 1; c < n; c++ {
			sum -= e.g[k*n+c] * x[c]
		}
		x[k] = sum / e.g[k*n+k]
	}
	return nil
}

// blame names the element that a failure turns on: a constant power that its line
// cannot carry, with what it could.
func (s *Solver) blame(err error) error {
	var bad singular
	if errors.As(err, &bad) {
		return &Error{s.circuit.at(Node(bad.row + 1)), bad.Error()}
	}
	for _, e := range s.whole.Elements {
		switch e := e.(type) {
		case PowerLoad:
			if most := s.most(e.Name, e.A, e.B); most < e.Watts {
				return &Error{e.Name, fmt.Sprintf("wants %.0f W and its line can carry at most %.0f W (U²/4R)", e.Watts, most)}
			}
		case Converter:
			want := e.OutV * e.MaxOutA / e.Efficiency
			if most := s.most(e.Name, e.InPlus, e.Minus); !s.eq.off[e.Name] && most < want {
				return &Error{e.Name, fmt.Sprintf("wants up to %.0f W and its line can carry at most %.0f W (U²/4R)", want, most)}
			}
		}
	}
	return &Error{s.whole.Elements[0].ElementName(), "the circuit has no steady state"}
}

// most is the greatest power, in W, that the rest of the circuit can bring to two
// nodes: U²/4R of its open voltage and its resistance, without the element named.
func (s *Solver) most(without string, plus, minus Node) float64 {
	rest := &Circuit{names: s.whole.names}
	for _, e := range s.whole.Elements {
		if e.ElementName() != without {
			rest.Add(e)
		}
	}
	// A tiny load keeps nodes that only the element joined from floating.
	rest.Add(Resistance{Name: "probe " + without, A: plus, B: minus, Ohm: 1e6})
	open, err := Solve(rest)
	if err != nil {
		return math.Inf(1)
	}
	const draw = 1.0
	rest.Add(CurrentLoad{Name: "draw " + without, A: plus, B: minus, Amps: draw})
	loaded, err := Solve(rest)
	if err != nil {
		return math.Inf(1)
	}
	u := open.Volts[plus] - open.Volts[minus]
	r := (u - (loaded.Volts[plus] - loaded.Volts[minus])) / draw
	return u * u / (4 * r)
}

// Volts are the voltages of the last solution, by node of the whole circuit. They hold
// until the next one.
func (s *Solver) Volts() []float64 {
	s.compact.expand(s.v, s.volts)
	return s.volts
}

// Solution is the last solution, copied.
func (s *Solver) Solution() Solution {
	out := Solution{Volts: slices.Clone(s.Volts()), Off: map[string]bool{}, Limited: map[string]bool{}, circuit: s.whole, modes: make([]mode, len(s.whole.Elements))}
	for i, e := range s.whole.Elements {
		if at := s.compact.place[i]; at >= 0 {
			out.modes[i] = s.modes[at]
		}
		if c, ok := e.(Converter); ok {
			out.Off[c.Name] = s.eq.off[c.Name]
			out.Limited[c.Name] = !s.eq.off[c.Name] && out.modes[i] == throttled
		}
	}
	return out
}

// At is the voltage of a node by its name.
func (s Solution) At(name string) float64 { return s.Volts[s.circuit.Node(name)] }

// Across is the voltage between two nodes.
func (s Solution) Across(plus, minus string) float64 { return s.At(plus) - s.At(minus) }

// Flow is a converter's currents, in A: drawn at its input and given at its output.
func (s Solution) Flow(c Converter) (in, out float64) {
	if s.Off[c.Name] {
		return 0, 0
	}
	inV, outV := c.terminals(s.Volts)
	f := c.flow(inV, outV, s.modeOf(c.Name))
	return f.in, f.out
}

// modeOf is the mode that an element came to rest in.
func (s Solution) modeOf(name string) mode {
	for i, e := range s.circuit.Elements {
		if e.ElementName() == name {
			return s.modes[i]
		}
	}
	return regulating
}

// Through is what flows through a resistance or a switch by its name, from A to B
// or what a battery gives, in A; zero where there is none such, or no
// solution.
func (s Solution) Through(name string) float64 {
	if s.circuit == nil {
		return 0
	}
	for _, e := range s.circuit.Elements {
		switch e := e.(type) {
		case Resistance:
			if e.Name == name {
				return e.Current(s.Volts)
			}
		case Switch:
			if e.Name == name {
				return e.Current(s.Volts)
			}
		case Battery:
			if e.Name == name {
				return e.Current(s.Volts)
			}
		}
	}
	return 0
}
