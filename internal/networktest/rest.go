package networktest

import (
	"math"

	"epitrope/core/network"
)

// Outcome is what becomes of a circuit that is switched on from rest.
type Outcome int

// The outcomes.
const (
	Works     Outcome = iota
	Collapses         // something gets no voltage to work at
	Hunts             // a converter starts and stops again and again
)

// Rested is where a circuit came to.
type Rested struct {
	Outcome Outcome
	Volts   []float64 // by node
	// Unfed are those that get next to nothing.
	Unfed []string
	Stops map[string]int // how often each converter stopped
}

// FromRest finds where a circuit comes to by letting it happen: a capacitance at every
// node, sources up first, then all converters and constant-power loads ramped up by one
// factor, in implicit steps that shrink wherever something moves fast. What gets no volts
// from sources alone waits, and is ramped up when others have brought it some. It takes from the
// circuit nothing but its elements and their values; each element's current is worked
// out here.
func FromRest(c *network.Circuit) Rested { return fromRest(c, rampSteps) }

// FromRestSlowly is FromRest with a ramp of so many steps that what charges the capacitances
// on the way up asks for next to nothing besides.
func FromRestSlowly(c *network.Circuit) Rested { return fromRest(c, slowSteps) }

func fromRest(c *network.Circuit, steps int) Rested {
	r := newRester(c)
	r.steps = steps
	r.hold(0) // sources alone
	r.wait()
	for i := 1; i <= steps; i++ {
		r.hold(float64(i) / float64(steps))
	}
	for range huntChecks {
		if !r.restart() {
			break
		}
	}
	return r.outcome()
}

const (
	farad      = 1.0
	rampSteps  = 32
	againSteps = 10 // when one starts again alone
	slowSteps  = 1000
	huntChecks = 12
	longest    = 1e9
	firstStep  = 30.0
	opened     = 1e-8 // S, an open switch
	tie        = 1e-10
	nothing    = 0.5
	unfed      = 1e-3 // of that: its line is as good as open, and it asks too much of nobody
	slope      = 1e-4
)

type rester struct {
	c     *network.Circuit
	n     int // nodes and sources
	v     []float64
	ramp  map[string]float64 // of converters that have stopped: their own
	off   map[string]bool
	stops map[string]int
	now   float64
	steps int

	a, rhs  []float64
	x, next []float64
	some    []int // columns of a row that are not nothing
}

func newRester(c *network.Circuit) *rester {
	r := &rester{c: c, off: map[string]bool{}, stops: map[string]int{}, ramp: map[string]float64{}}
	r.n = len(c.Names())
	for _, e := range c.Elements {
		if _, ok := e.(network.Source); ok {
			r.n++
		}
	}
	r.v = make([]float64, r.n)
	r.a, r.rhs = make([]float64, r.n*r.n), make([]float64, r.n)
	r.x, r.next = make([]float64, r.n), make([]float64, r.n)
	return r
}

// step takes one implicit step of h; nil where it does not settle.
func (r *rester) step(h float64) (next []float64, rounds int) {
	v := r.next
	copy(v, r.v)
	for rounds = range 16 {
		r.assemble(v, r.v, h)
		x := r.gauss()
		if x == nil {
			return nil, rounds
		}
		moved := 0.0
		for i := 1; i < len(r.c.Names()); i++ {
			moved = math.Max(moved, math.Abs(x[i]-v[i]))
		}
		copy(v, x)
		if math.IsNaN(moved) || moved > 1e6 {
			return nil, rounds
		}
		if moved < 1e-10 {
			return v, rounds
		}
	}
	return nil, rounds
}

// gauss solves the equations; ground is held at nothing.
func (r *rester) gauss() []float64 {
	n := r.n
	a, b := r.a, r.rhs
	for i := range n {
		a[i] = 0
	}
	a[0], b[0] = 1, 0
	for k := range n {
		p := k
		for i := k + 1; i < n; i++ {
			if math.Abs(a[i*n+k]) > math.Abs(a[p*n+k]) {
				p = i
			}
		}
		if math.Abs(a[p*n+k]) < 1e-18 {
			return nil
		}
		if p != k {
			for j := range n {
				a[p*n+j], a[k*n+j] = a[k*n+j], a[p*n+j]
			}
			b[p], b[k] = b[k], b[p]
		}
		r.some = r.some[:0]
		for j := k; j < n; j++ {
			if a[k*n+j] != 0 {
				r.some = append(r.some, j)
			}
		}
		for i := k + 1; i < n; i++ {
			if a[i*n+k] == 0 {
				continue
			}
			f := a[i*n+k] / a[k*n+k]
			for _, j := range r.some {
				a[i*n+j] -= f * a[k*n+j]
			}
			b[i] -= f * b[k]
		}
	}
	x := r.x
	for k := n - 1; k >= 0; k-- {
		sum := b[k]
		for j := k + 1; j < n; j++ {
			sum -= a[k*n+j] * x[j]
		}
		x[k] = sum / a[k*n+k]
	}
	return x
}

// wait makes those that see no volts yet wait.
func (r *rester) wait() {
	for _, e := range r.c.Elements {
		starts := nothing
		if c, ok := e.(network.Converter); ok {
			starts = math.Max(starts, math.Max(c.RestartV, c.CutOutV))
		}
		if plus, minus, ok := r.asks(e); ok && r.v[plus]-r.v[minus] < starts {
			r.off[e.ElementName()] = true
		}
	}
}

// asks are the terminals at which an element draws a power.
func (r *rester) asks(e network.Element) (plus, minus network.Node, ok bool) {
	switch e := e.(type) {
	case network.Converter:
		return e.InPlus, e.InMinus, true
	case network.PowerLoad:
		return e.A, e.B, true
	}
	return 0, 0, false
}

func (r *rester) inputs(c network.Converter) (in, out float64) {
	return r.v[c.InPlus] - r.v[c.InMinus], r.v[c.OutPlus] - r.v[c.OutMinus]
}

// drop stops the converter that is furthest below its cut-out, if any runs below it.
func (r *rester) drop() bool {
	name, most := "", 0.0
	if r.now == 0 {
		return false
	}
	for _, e := range r.c.Elements {
		c, ok := e.(network.Converter)
		if !ok || r.off[c.Name] || c.CutOutV <= 0 {
			continue
		}
		if in, _ := r.inputs(c); c.CutOutV-in > most {
			name, most = c.Name, c.CutOutV-in
		}
	}
	if name != "" {
		r.off[name] = true
		r.stops[name]++
	}
	return name != ""
}

// restart lets one that stopped, or waits, and sees enough ramp up; false where none does.
func (r *rester) restart() bool {
	for _, e := range r.c.Elements {
		plus, minus, ok := r.asks(e)
		name := e.ElementName()
		if !ok || !r.off[name] {
			continue
		}
		starts := 2 * nothing
		if c, ok := e.(network.Converter); ok {
			starts = math.Max(starts, math.Max(c.RestartV, c.CutOutV))
		}
		if r.v[plus]-r.v[minus] < starts {
			continue
		}
		r.off[name] = false
		again := r.steps * againSteps / rampSteps
		for i := 0; i <= again; i++ {
			r.ramp[name] = float64(i) / float64(again)
			r.hold(1)
		}
		return true
	}
	return false
}

// outcome reads what became of it.
func (r *rester) outcome() Rested {
	out := Rested{Volts: r.v[:len(r.c.Names())], Stops: r.stops}
	for _, e := range r.c.Elements {
		plus, minus, asks := network.Ground, network.Ground, 0.0
		switch e := e.(type) {
		case network.PowerLoad:
			plus, minus, asks = e.A, e.B, e.Watts*r.share(e.Name)
		case network.CurrentLoad:
			plus, minus, asks = e.A, e.B, e.Amps
		case network.Converter:
			if r.off[e.Name] {
				continue
			}
			_, out := r.inputs(e)
			plus, minus = e.InPlus, e.InMinus
			if out < e.OutV-1e-9 {
				asks = e.MaxOutA
			}
		}
		if u := r.v[plus] - r.v[minus]; asks > 0 && u < nothing && u > unfed*nothing {
			out.Unfed = append(out.Unfed, e.ElementName())
		}
	}
	if len(out.Unfed) > 0 {
		out.Outcome = Collapses
	}
	for _, count := range r.stops {
		if count > 1 {
			out.Outcome = Hunts
		}
	}
	return out
}
