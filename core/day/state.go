package day

import (
	"math"

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
	soft               // share of its output that a charger has come to
	seen               // what a relay, or a charger without a signal, sees of its side, V
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

// moving is how slow states change: rate − pull·x, each its own; and how the rate of each
// battery's charge follows its overvoltage.
type moving struct {
	rate, pull slow
	byOver     [2]float64
}

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

	hot := x[space] + r.now.windingK*math.Max(s.machineA, 0)*s.machineV/n // in proportion: alternator.Winding
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
	m.rate[soft], m.pull[soft] = 0, 0
	if c := rig.Charger; c != nil && c.SoftS > 0 && r.on.charging && x[soft] < 1 {
		m.rate[soft] = 1 / c.SoftS
	}
	m.rate[seen], m.pull[seen] = 0, 0
	if follow := r.followS(); follow > 0 {
		m.rate[seen], m.pull[seen] = r.side(s)/follow, 1/follow
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

// followS is within what time what is sensed follows its side; 0 where it does at once.
func (r *runner) followS() float64 {
	switch {
	case r.rig.Join != nil && r.rig.Join.By == BySensing:
		return r.rig.Join.Sensing.FollowS
	case r.rig.Charger != nil && r.rig.Charger.By == Sensed:
		return r.rig.Charger.Senses.FollowS
	}
	return 0
}

// side is the voltage of what is sensed: of both sides the higher, where both are.
func (r *runner) side(s *sight) float64 {
	if r.rig.Join != nil && r.rig.Join.By == BySensing && r.rig.Join.Sensing.TwoWay {
		return math.Max(s.sensedV, s.outV)
	}
	return s.sensedV
}

// senses is what a relay, or a charger without a signal, goes by, at 12 V: its side, or what has
// come through of it.
func (r *runner) senses(x *slow, s *sight) float64 {
	if r.followS() > 0 {
		return x[seen] / r.rig.N
	}
	return r.side(s) / r.rig.N
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
	m.byOver[q-startQ] = -siemens / (b.CapacityAh * hour)
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
		return 2e-5
	case i <= auxOver || i == soft || i == seen:
		return 0.01
	case i >= fuse0:
		return 0.01
	}
	return 0.5
}

// early is how much of a step a current counts for as it was at its beginning, the rest as
// it is at its end: half, where it moves evenly; another share where it moves as what it
// follows goes to rest, at z of its distance in a step.
func early(z float64) float64 {
	if z < 1e-3 {
		return 0.5 - z/12
	}
	gone := math.Exp(-z)
	return ((1-gone)/z - gone) / (1 - gone)
}

// pace is how far each state goes to rest in a step: the shares of an exponential method.
type pace struct{ stays, first, second slow }

// paceOf works a step of h out from how the states move at its beginning.
func paceOf(begin *moving, h float64, out *pace) {
	for i, pull := range begin.pull {
		z := pull * h
		if math.Abs(z) <= 1e-5 {
			out.stays[i], out.first[i], out.second[i] = 1-z+z*z/2, 1-z/2, 0.5-z/6
			continue
		}
		e := math.Exp(-z)
		out.stays[i], out.first[i], out.second[i] = e, (1-e)/z, (e-1+z)/(z*z)
	}
}

// predict advances the states by h, exactly where they move at a constant rate and pull.
func predict(x *slow, begin *moving, p *pace, h float64, out *slow) {
	for i := range x {
		out[i] = x[i]*p.stays[i] + begin.rate[i]*p.first[i]*h
	}
}

// correct advances the states by h to second order with the movement at the step's end:
// the exponential Heun method. Charge is counted exactly where its current follows an
// overvoltage that goes to rest. It returns how wrong the step may be.
//
// Source: Cox and Matthews, exponential time differencing (from memory).
func correct(x *slow, begin, end *moving, predicted *slow, p *pace, h float64, out *slow) (wrong float64) {
	for i := range x {
		change := end.rate[i] - (end.pull[i]-begin.pull[i])*predicted[i] - begin.rate[i]
		second, unforeseen := p.second[i], change
		if i <= auxQ {
			over := startOver + i - startQ
			second = 1 - early(begin.pull[over]*h)
			unforeseen -= begin.byOver[i-startQ] * (predicted[over] - x[over])
		}
		out[i] = predicted[i] + second*h*change
		if off := math.Abs(second*h*unforeseen) / scale(i); off > wrong {
			wrong = off
		}
	}
	return wrong
}
