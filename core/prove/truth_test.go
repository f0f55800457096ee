package prove_test

import (
	"math"
	"math/rand/v2"
	"slices"

	"epitrope/core/circuit"
	"epitrope/core/design"
	"epitrope/core/prove"
	"epitrope/core/system"
	"epitrope/core/trace"
)

// A vehicle that stands in for a real one: drawn otherwise than the bands are, and wider. Lengths ±15 % even, joints by
// powers, charge, ambient, the meter's own error for a whole proof, and a drift while it is read.
type vehicle struct {
	d       *design.Design
	sys     system.System
	r       *rand.Rand
	meter   float64 // its error on volts, as a share
	clamp   float64 // … on amps
	zero    float64 // of the clamp, in A
	shiftV  float64
	machine float64
	draws   float64
	aux     float64
	start   float64
	ohm     float64
	fault   trace.Fault
	size    float64
	faulty  bool
}

func (v *vehicle) even(low, high float64) float64 { return low + (high-low)*v.r.Float64() }

func (v *vehicle) power(spread float64) float64 { return math.Exp(spread * v.r.NormFloat64()) }

// build draws a vehicle with nothing wrong.
func build(d *design.Design, seed uint64) *vehicle {
	v := &vehicle{d: d, r: rand.New(rand.NewPCG(seed, 4242))}
	v.meter, v.clamp, v.zero = v.even(-0.005, 0.005), v.even(-0.015, 0.015), v.even(-0.2, 0.2)
	v.shiftV, v.machine, v.draws = v.even(-0.2, 0.2), v.even(0.82, 1.12), v.power(0.3)
	v.aux, v.start, v.ohm = v.even(0.3, 0.75), v.even(0.65, 1), v.power(0.3)
	v.sys = d.System
	v.sys.Components, v.sys.Wires = slices.Clone(v.sys.Components), slices.Clone(v.sys.Wires)
	airK := v.even(-15, 15)
	for i := range v.sys.Wires {
		w := &v.sys.Wires[i]
		w.Ohm *= v.even(0.85, 1.15) * (1 + 0.00393*airK)
		w.Joint.From *= v.power(0.5)
		w.Joint.To *= v.power(0.5)
	}
	for i := range v.sys.Components {
		c := &v.sys.Components[i]
		switch of := c.Device.(type) {
		case system.Fuse:
			of.Ohm *= v.power(0.25)
			c.Device = of
		case system.Contact:
			of.Ohm *= v.power(0.3)
			c.Device = of
		case system.Plug:
			of.Card.Ohm *= v.power(0.3)
			c.Device = of
		case system.Charger:
			of.Card.OutputA *= v.even(0.96, 1.04)
			c.Device = of
		}
	}
	return v
}

// with gives a vehicle a fault.
func (v *vehicle) with(f trace.Fault, size float64) *vehicle {
	v.fault, v.size, v.faulty = f, size, true
	v.sys = f.On(v.sys, size)
	return v
}

// exact is what a reading is in a vehicle, without a meter; ok is false where it comes to no stand.
func (v *vehicle) exact(p *prove.Proof, r prove.Reading) (float64, bool) {
	s, _, bare := p.Situation(r.Station)
	n := v.d.Facts.N
	if s.SetV > 0 {
		s.SetV += v.shiftV * n
	} else {
		s.StartV = v.d.StartChemistry().RestV(v.start) * n
	}
	s.AuxOwnV = v.d.Facts.Chemistry.RestV(v.aux) * v.d.Facts.AuxN
	s.MachineA, s.SecondA, s.VehicleA, s.StartOhm = s.MachineA*v.machine, s.SecondA*v.machine, s.VehicleA*v.draws, s.StartOhm*v.ohm
	if v.faulty {
		s = v.fault.In(s, n, v.size)
	}
	sys := v.sys
	if bare {
		sys = prove.Bare(sys)
	}
	laid := circuit.Lay(&sys, n)
	settled, err := laid.Settle(s, circuit.Position{Stopped: true}) // from rest, wherever the proof begins
	jumps := err != nil || len(settled.Hunts) > 0
	if err != nil {
		settled.Solution, _ = laid.Solve(s, circuit.Position{Stopped: true})
	}
	value, ok := r.In(settled.Solution, &sys)
	return value, ok && (!jumps || r.Station != prove.FastIdle)
}

// reads is what a meter shows of it.
func (v *vehicle) reads(p *prove.Proof, r prove.Reading) (float64, bool) {
	value, ok := v.exact(p, r)
	value *= 1 + 0.003*(2*v.r.Float64()-1) // drift
	if r.Unit == prove.Amps {
		return math.Round(10*(value*(1+v.clamp)+v.zero)) / 10, ok
	}
	digit := 0.01
	if r.Drop {
		digit = 0.001
	}
	return math.Round((value*(1+v.meter))/digit) * digit, ok
}
