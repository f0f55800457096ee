package networktest

import (
	"math"

	"epitrope/core/network"
)

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
