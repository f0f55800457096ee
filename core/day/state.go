package day

import (
	"math"

	"epitrope/core/alternator"
	"epitrope/core/cable"
)

// The slow states, by place in a vector.
const (
	startQ      = iota // all the charge of the start battery, as a share of its capacity
	auxQ               // … of the aux battery
	startOver          // overvoltage of the start battery, V
	auxOver            //
	winding            // alternator windings, °C
	space              // air of the engine space, °C
	chargerCase        // °C
	wire0              // conductors, °C
	fuse0       = wire0 + maxWires
	states      = fuse0 + maxFuses
)

// How many cables and fuses a rig may have.
const (
	maxWires = 4
	maxFuses = 3
)

// slow is the slow states at a moment.
type slow [states]float64

// moving is how slow states change: rate − pull·x, each its own.
type moving struct{ rate, pull slow }

// How fast things warm and cool. Source: from memory: windings ten minutes, an engine
// space a quarter of an hour and twice that to cool, a charger's case ten minutes, a
// fuse a minute or two.
const (
	windingS   = 600.0
	spaceUpS   = 900.0
	spaceDownS = 2400.0
	caseS      = 600.0
	fuseCoolS  = 120.0
	kelvinPerW = 5.0 // a joint over its cable
)

// move works out how the slow states change at what was seen.
func (r *runner) move(x *slow, s *sight, m *moving) {
	rig, n := r.rig, r.rig.N
	r.moveBank(&rig.Start, &s.start, x, m, startQ, startOver, s.startGivesA, r.follow[0])
	r.moveBank(&rig.Aux, &s.aux, x, m, auxQ, auxOver, s.auxGivesA, r.follow[1])

	hot := rig.Machine.Label.WindingC(s.machineA, s.machineV/n, r.now.rpm*alternator.Ratio, x[space])
	m.rate[winding], m.pull[winding] = hot/windingS, 1/windingS
	air, over := r.now.airC, spaceDownS
	if r.now.running {
		air, over = air+rig.EngineSpaceK, spaceUpS
	}
	m.rate[space], m.pull[space] = air/over, 1/over
	if c := rig.Charger; c != nil {
		to := r.now.airC + c.PlaceOverK + c.CaseKPerW*s.chargerLossW
		m.rate[chargerCase], m.pull[chargerCase] = to/caseS, 1/caseS
	}
	for i := range rig.Wires {
		w := &rig.Wires[i]
		gives, heat := r.gives[i], w.Thermal.HeatCapacity()
		joule := s.wireA[i] * s.wireA[i] / w.Thermal.Count() * w.Thermal.OhmPerM / w.Thermal.Count()
		m.rate[wire0+i] = (joule*(1-20*cable.Alpha) + gives*r.wirePlaceC(x, w)) / heat
		m.pull[wire0+i] = (gives - joule*cable.Alpha) / heat
	}
	for i := range rig.Fuses {
		f := &rig.Fuses[i]
		least, most := f.Fuse.Family.Opens(math.Abs(s.fuseA[i]) / f.Fuse.RatingA)
		m.rate[fuse0+i], m.pull[fuse0+i] = 0, 1/fuseCoolS
		if !math.IsInf(most, 1) {
			m.rate[fuse0+i], m.pull[fuse0+i] = 1/math.Sqrt(least*most), 0
		}
	}
}

// moveBank works out how a bank changes while it gives amps. The circuit lets the
// overvoltage go faster than the battery alone would, by as much as current follows it:
// siemens.
func (r *runner) moveBank(b *Bank, c *cell, x *slow, m *moving, q, over int, gives, siemens float64) {
	turned := c.turns(x[over])
	lost := math.Max(0, turned) * (1 - b.Chemistry.Efficiency)
	if c.soc >= 1 && turned > 0 || c.soc <= 0 && turned < 0 {
		lost = turned // full: what goes in is lost as gas and heat; empty: nothing is left
	}
	m.rate[q], m.pull[q] = -(gives+lost)/(b.CapacityAh*hour), 0
	// About to give, it is taken as giving: at the bend between the two a step would
	// otherwise swing to and fro.
	ohm := c.giveOhm
	if x[over] > bendV {
		ohm = c.takeOhm
	}
	m.pull[over] = (1/ohm + siemens) / c.farad
	m.rate[over] = (-gives-turned)/c.farad + m.pull[over]*x[over]
}

// bendV is an overvoltage that makes no difference.
const bendV = 0.005

func (r *runner) startC(x *slow) float64 { return r.bankC(x, &r.rig.Start) }
func (r *runner) auxC(x *slow) float64   { return r.bankC(x, &r.rig.Aux) }

// bankC is a battery's temperature: that of the air where it sits.
func (r *runner) bankC(x *slow, b *Bank) float64 {
	if b.EngineSpace {
		return x[space]
	}
	return r.now.airC
}

// wirePlaceC is the air round a cable: warmer than outside as the engine space is.
func (r *runner) wirePlaceC(x *slow, w *Wire) float64 {
	share := 0.0
	if r.rig.EngineSpaceK > 0 {
		share = (x[space] - r.now.airC) / r.rig.EngineSpaceK
	}
	return r.now.airC + share*w.PlaceK
}

// scale is by how much a state may be wrong in a step, at a tolerance of 1.
func scale(i int) float64 {
	switch {
	case i == startQ || i == auxQ:
		return 6e-5
	case i <= auxOver:
		return 0.01
	case i >= fuse0:
		return 0.01
	}
	return 0.5
}

// step advances the states by h, exactly where they move at a constant rate and pull,
// otherwise to second order with the movement at the step's end: the exponential
// Heun method. With end nil it is the first-order predictor.
//
// Source: Cox and Matthews, exponential time differencing (from memory).
func step(x *slow, begin, end *moving, predicted *slow, h float64, out *slow) (wrong float64) {
	for i := range x {
		z := begin.pull[i] * h
		e, first, second := 1-z+z*z/2, 1-z/2, 0.5-z/6
		if math.Abs(z) > 1e-5 {
			e = math.Exp(-z)
			first = (1 - e) / z
			second = (e - 1 + z) / (z * z)
		}
		out[i] = x[i]*e + begin.rate[i]*first*h
		if end == nil {
			continue
		}
		change := end.rate[i] - (end.pull[i]-begin.pull[i])*predicted[i] - begin.rate[i]
		correct := second * h * change
		out[i] += correct
		wrong = math.Max(wrong, math.Abs(correct)/scale(i))
	}
	return wrong
}
