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

// put adds a current from one node to another, linear in the voltages given with their
// slopes, about v.
func (r *rester) put(from, to network.Node, amps float64, v []float64, by ...pull) {
	constant := amps
	for _, p := range by {
		constant -= p.slope * v[p.node]
	}
	for _, at := range []struct {
		node network.Node
		sign float64
	}{{from, 1}, {to, -1}} {
		// out of the node: row·v = −constant
		for _, p := range by {
			r.a[int(at.node)*r.n+int(p.node)] += at.sign * p.slope
		}
		r.rhs[at.node] -= at.sign * constant
	}
}

type pull struct {
	node  network.Node
	slope float64
}

// across is a current that depends on one voltage.
func (r *rester) across(from, to, plus, minus network.Node, v []float64, f func(u float64) (amps, slope float64)) {
	amps, s := f(v[plus] - v[minus])
	r.put(from, to, amps, v, pull{plus, s}, pull{minus, -s})
}

// held is what is given to hold a voltage.
func held(set, most, ohm, u float64) (amps, s float64) {
	switch amps = (set - u) / ohm; {
	case amps >= most:
		return most, 0
	case amps <= 0:
		return 0, 0
	}
	return amps, -1 / ohm
}

// assemble writes the equations of one step of h from begin, about v.
func (r *rester) assemble(v, begin []float64, h float64) {
	clear(r.a)
	clear(r.rhs)
	nodes := len(r.c.Names())
	for i := 1; i < nodes; i++ {
		r.a[i*r.n+i] += farad/h + tie
		r.rhs[i] += farad / h * begin[i]
	}
	branch := nodes
	for _, e := range r.c.Elements {
		switch e := e.(type) {
		case network.Resistance:
			r.across(e.A, e.B, e.A, e.B, v, func(u float64) (float64, float64) { return u / e.Ohm, 1 / e.Ohm })
		case network.Switch:
			s := opened
			if e.Closed {
				s = 1 / e.Ohm
			}
			r.across(e.A, e.B, e.A, e.B, v, func(u float64) (float64, float64) { return u * s, s })
		case network.Source:
			r.a[int(e.Plus)*r.n+branch]--
			r.a[int(e.Minus)*r.n+branch]++
			r.a[branch*r.n+int(e.Plus)]++
			r.a[branch*r.n+int(e.Minus)]--
			r.rhs[branch] = e.Volts
			branch++
		case network.Battery:
			r.across(e.Minus, e.Plus, e.Plus, e.Minus, v, func(u float64) (float64, float64) {
				ohm := e.Ohm
				if u > e.Volts && e.ChargeOhm > 0 {
					ohm = e.ChargeOhm
				}
				amps := (e.Volts - u) / ohm
				if e.MaxChargeA > 0 && amps < -e.MaxChargeA {
					return -e.MaxChargeA, 0
				}
				return amps, -1 / ohm
			})
		case network.Alternator:
			ohm, at := slope, e.Sense
			if e.SlopeOhm > 0 {
				ohm = e.SlopeOhm
			}
			if at == network.Ground {
				at = e.Plus
			}
			r.across(e.Minus, e.Plus, at, e.Minus, v, func(u float64) (float64, float64) { return held(e.Volts, e.MaxA, ohm, u) })
		case network.Diode:
			r.across(e.A, e.K, e.A, e.K, v, func(u float64) (float64, float64) {
				if u > e.ForwardV {
					return (u - e.ForwardV) / e.Ohm, 1 / e.Ohm
				}
				return 0, 0
			})
		case network.CurrentLoad:
			r.across(e.A, e.B, e.A, e.B, v, func(u float64) (float64, float64) {
				if u > nothing {
					return e.Amps, 0
				}
				return e.Amps * u / nothing, e.Amps / nothing
			})
		case network.PowerLoad:
			r.across(e.A, e.B, e.A, e.B, v, func(u float64) (float64, float64) { return taken(e.Watts*r.share(e.Name), u) })
		case network.Converter:
			r.converter(e, v)
		}
	}
}

// taken is what a power draws at a voltage.
func taken(watts, u float64) (amps, s float64) {
	if u > nothing {
		return watts / u, -watts / (u * u)
	}
	return watts * u / (nothing * nothing), watts / (nothing * nothing)
}

// share is how far an element is ramped up.
func (r *rester) share(name string) float64 {
	if r.off[name] {
		return 0
	}
	if own, ok := r.ramp[name]; ok {
		return own
	}
	return r.now
}

// given is what a converter gives, and how that follows its input and output.
func (r *rester) given(c network.Converter, in, out float64) (amps, byIn, byOut float64) {
	share := r.share(c.Name)
	most, byIn, bent := c.MaxOutA*share, 0.0, 0.0
	if c.MaxInA > 0 {
		low := math.Max(out, nothing)
		if carried := c.MaxInA * math.Max(in, 0) * c.Efficiency / low; carried < most {
			most = carried
			if in > 0 {
				byIn = c.MaxInA * c.Efficiency / low
			}
			if out > nothing {
				bent = -carried / low
			}
		}
	}
	amps, byOut = held(c.OutV, most, slope, out)
	if amps < most {
		return amps, 0, byOut
	}
	return most, byIn, bent
}

func (r *rester) converter(c network.Converter, v []float64) {
	in, out := v[c.InPlus]-v[c.InMinus], v[c.OutPlus]-v[c.OutMinus]
	amps, byIn, byOut := r.given(c, in, out)
	r.put(c.OutMinus, c.OutPlus, amps, v, pull{c.InPlus, byIn}, pull{c.InMinus, -byIn}, pull{c.OutPlus, byOut}, pull{c.OutMinus, -byOut})
	watts := amps * out / c.Efficiency
	draw, s := taken(watts, in)
	perWatt, _ := taken(1, in)
	s += perWatt * byIn * out / c.Efficiency
	o := perWatt * (byOut*out + amps) / c.Efficiency
	r.put(c.InPlus, c.InMinus, draw, v, pull{c.InPlus, s}, pull{c.InMinus, -s}, pull{c.OutPlus, o}, pull{c.OutMinus, -o})
}

// hold waits at a share of the ramp until nothing moves.
func (r *rester) hold(share float64) {
	r.now = share
	h := firstStep
	for range 500 {
		next, rounds := r.step(h)
		if next == nil {
			h /= 4
			if h < 1e-12 {
				return
			}
			continue
		}
		moved := 0.0
		for i := 1; i < len(r.c.Names()); i++ {
			moved = math.Max(moved, math.Abs(next[i]-r.v[i]))
		}
		if moved > 0.5 && h > 1e-9 {
			h /= 4 // a jump is followed closely
			continue
		}
		copy(r.v, next)
		if r.drop() {
			h = firstStep
			continue
		}
		if moved < 1e-9 && h >= 1e4 {
			return
		}
		if rounds < 8 {
			h = math.Min(h*10, longest)
		}
	}
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
