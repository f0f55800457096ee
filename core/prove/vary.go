package prove

import (
	"math"
	"math/rand/v2"
	"slices"

	"epitrope/core/cable"
	"epitrope/core/circuit"
	"epitrope/core/design"
	"epitrope/core/system"
)

// How an installation may really have turned out, and what the vehicle is really in. Lengths are even over ±12 %, what
// resists is spread by powers, the rest by the bell curve. Source: lengths ±10 %, contacts and alternator ±0.2 V common
// practice, no source; the others from memory.
const (
	lengthShare  = 0.12 // even, each wire for itself
	jointPower   = 0.42 // a joint is off by e to this, one time in three by more
	contactPower = 0.24 // contacts, fuses, plugs
	steelPower   = 0.4
	wireK        = 12.0 // a wire is warmer or colder
	regulationV  = 0.12 // at 12 V
	machineLow   = 0.8  // of what the machine is reckoned to give, even up to machineHigh
	machineHigh  = 1.15
	vehiclePower = 0.35
	surfaceSpan  = 0.15 // of a start battery in use, at 12 V
	ohmPower     = 0.35 // batteries' resistance
	acceptsPower = 0.4
	sensesV      = 0.05 // a relay's threshold, at 12 V
	outputShare  = 0.03 // a charger's output
	socLow       = 0.25 // of an aux battery that is part discharged, even up to socHigh
	socHigh      = 0.8
	healthyLow   = 0.6 // of a start battery at rest, even up to full
)

// draw is one installation as it may be, in a world as it may be.
type draw struct {
	sys     system.System
	laid    *laid   // … laid out
	shiftV  float64 // regulation, at 12 V
	machine float64
	vehicle float64
	surface float64
	start   float64 // charge of the start battery
	aux     float64 // … and of the aux battery
	ohm     float64
	accepts float64
}

// drawn is a draw of a design, the same for the same source.
func drawn(d *design.Design, r *rand.Rand) draw {
	power := func(spread float64) float64 { return math.Exp(spread * r.NormFloat64()) }
	out := draw{shiftV: regulationV * r.NormFloat64(), machine: machineLow + (machineHigh-machineLow)*r.Float64(),
		vehicle: power(vehiclePower),
		surface: surfaceSpan * r.NormFloat64(), start: healthyLow + (1-healthyLow)*r.Float64(), aux: socLow + (socHigh-socLow)*r.Float64(),
		ohm: power(ohmPower), accepts: power(acceptsPower)}
	sys := d.System
	sys.Components, sys.Wires = slices.Clone(sys.Components), slices.Clone(sys.Wires)
	for i := range sys.Wires {
		w := &sys.Wires[i]
		w.Ohm *= 1 + lengthShare*(2*r.Float64()-1)
		if w.Role == system.Chassis {
			w.Ohm *= power(steelPower)
		} else {
			w.Ohm *= 1 + cable.Alpha*wireK*r.NormFloat64()
		}
		w.Joint.From *= power(jointPower)
		w.Joint.To *= power(jointPower)
	}
	bank := power(ohmPower)
	for i := range sys.Components {
		switch of := sys.Components[i].Device.(type) {
		case system.Fuse:
			of.Ohm *= power(contactPower)
			sys.Components[i].Device = of
		case system.Contact:
			of.Ohm *= power(contactPower)
			of.Senses.CutOutV += sensesV * r.NormFloat64()
			sys.Components[i].Device = of
		case system.Plug:
			of.Card.Ohm *= power(contactPower)
			sys.Components[i].Device = of
		case system.Charger:
			of.Card.OutputA *= 1 + outputShare*r.NormFloat64()
			sys.Components[i].Device = of
		case system.Bank:
			if !of.Start {
				of.Ohm *= bank
				sys.Components[i].Device = of
			}
		}
	}
	out.sys, out.laid = sys, &laid{sys: &sys, n: d.Facts.N}
	return out
}

// world is the state of a station as it really is.
func (w draw) world(d *design.Design, s design.State, full bool) circuit.State {
	n, auxN := d.Facts.N, d.Facts.AuxN
	if s.SetV > 0 {
		s.SetV += w.shiftV * n
		s.StartV += w.surface * n
	} else {
		s.StartV = d.StartChemistry().RestV(w.start) * n
	}
	s.AuxOwnV = d.Facts.Chemistry.RestV(w.aux) * auxN
	if full {
		s.AuxOwnV, s.AcceptsA = d.Facts.Chemistry.RestV(1)*auxN, d.Trickle()
	}
	s.MachineA *= w.machine
	s.SecondA *= w.machine
	s.VehicleA *= w.vehicle
	s.StartOhm *= w.ohm
	s.AcceptsA *= w.accepts
	return s.State
}
