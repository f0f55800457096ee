// Package standin is vehicles that are not there: drawn as real ones turn out, with a meter that is off by its own
// error, and, if wanted, with something wrong that nobody sees. It speaks what meters, loggers and chargers speak, so that a
// proof can be tried, learned and tested.
package standin

import (
	"math"
	"math/rand/v2"
	"slices"

	"epitrope/core/circuit"
	"epitrope/core/design"
	"epitrope/core/fault"
	"epitrope/core/network"
	"epitrope/core/prove"
	"epitrope/core/system"
)

// Vehicle stands in for a real one. It is drawn otherwise than the bands of a proof are, and wider: lengths ±15 % even,
// joints by powers, charge, ambient, the meter's own error for a whole proof, and a drift while it is read.
//
// Source: from memory, as are the spreads below.
type Vehicle struct {
	Design *design.Design
	Proof  *prove.Proof

	sys     system.System
	r       *rand.Rand
	meter   float64 // its error on volts, as a share
	clamp   float64 // … on amps
	zero    float64 // of the clamp, in A
	leads   float64 // of the meter, in Ω
	heat    float64 // how warm joints get, over what is usual
	shiftV  float64 // of the regulation, at 12 V
	machine float64
	draws   float64
	aux     float64 // charge
	start   float64
	ohm     float64
	wrong   *fault.Fault
	also    []prove.Sized
	odd     func(*circuit.State)
	size    float64
	sound   system.System // without a fault that comes and goes
	often   float64       // that such a one is there
	accepts float64
}

func (v *Vehicle) even(low, high float64) float64 { return low + (high-low)*v.r.Float64() }

func (v *Vehicle) power(spread float64) float64 { return math.Exp(spread * v.r.NormFloat64()) }

// Build draws a vehicle with nothing wrong, the same for the same seed.
func Build(d *design.Design, p *prove.Proof, seed uint64) *Vehicle {
	v := &Vehicle{Design: d, Proof: p, r: rand.New(rand.NewPCG(seed, 4242))}
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
		v.built(&v.sys.Components[i])
	}
	v.leads, v.heat, v.accepts = v.even(0, 0.3), v.power(0.3), 1
	return v
}

// built draws a component's device.
func (v *Vehicle) built(c *system.Component) {
	switch of := c.Device.(type) {
	case system.Fuse:
		of.Ohm *= v.power(0.25)
		c.Device = of
	case system.Contact:
		of.Ohm *= v.power(0.3)
		of.Senses.CutOutV += v.even(-0.08, 0.08)
		c.Device = of
	case system.Plug:
		of.Card.Ohm *= v.power(0.3)
		c.Device = of
	case system.Charger:
		of.Card.OutputA *= v.even(0.96, 1.04)
		c.Device = of
	}
}

// With gives a vehicle a fault, of a size.
func (v *Vehicle) With(f fault.Fault, size float64) *Vehicle {
	v.wrong, v.size, v.sound = &f, size, v.sys
	if f.When == fault.ByHand {
		v.often = v.even(0.15, 0.65)
	}
	v.sys = f.On(v.sys, size)
	return v
}

// Also gives a vehicle a second fault.
func (v *Vehicle) Also(f fault.Fault, size float64) *Vehicle {
	v.also = append(v.also, prove.Sized{Fault: f, Size: size})
	v.sys = f.On(v.sys, size)
	return v
}

// Changed is a vehicle that was changed otherwise than any known fault changes it.
func (v *Vehicle) Changed(sys func(system.System) system.System, world func(*circuit.State)) *Vehicle {
	if sys != nil {
		v.sys = sys(v.sys)
	}
	v.odd = world
	return v
}

// Fault is what is wrong with it; nil for nothing.
func (v *Vehicle) Fault() *fault.Fault { return v.wrong }

// Size is how large its fault is.
func (v *Vehicle) Size() float64 { return v.size }

// at is the vehicle as a station asks for it: what it is made of then, and the world around it.
func (v *Vehicle) at(station string) (sys system.System, s circuit.State) {
	there := v.there(station)
	s, _, as, full := v.Proof.Situation(station)
	d, n := v.Design, v.Design.Facts.N
	if s.SetV > 0 {
		s.SetV += v.shiftV * n
	} else {
		s.StartV = d.StartChemistry().RestV(v.start) * n
	}
	s.AuxOwnV = d.Facts.Chemistry.RestV(v.aux) * d.Facts.AuxN
	if full {
		s.AuxOwnV, s.AcceptsA = d.Facts.Chemistry.RestV(0.98)*d.Facts.AuxN, d.Trickle()
	}
	s.MachineA, s.SecondA, s.VehicleA, s.StartOhm = s.MachineA*v.machine, s.SecondA*v.machine, s.VehicleA*v.draws, s.StartOhm*v.ohm
	s.AcceptsA *= v.accepts
	if v.wrong != nil && there {
		s = v.wrong.In(s, n, v.size)
	}
	for _, f := range v.also {
		s = f.In(s, n, f.Size)
	}
	if v.odd != nil {
		v.odd(&s)
	}
	if sys = v.sys; !there {
		sys = v.sound
	}
	if as != nil {
		sys = as(sys)
	}
	return sys, s
}

// settled is what a circuit comes to from rest, wherever a proof begins, and whether it goes on and off there.
func settled(laid *circuit.Circuit, s circuit.State) (at circuit.Settled, jumps bool) {
	at, err := laid.Settle(s, circuit.Position{Stopped: true})
	if err != nil {
		at.Stopped, at.Joined = true, false
		at.Solution, _ = laid.Solve(s, at.Position)
	}
	return at, err != nil || len(at.Hunts) > 0
}

// Exact is what a reading is, without a meter; ok is false where it comes to no stand, or never about.
func (v *Vehicle) Exact(r prove.Reading) (value float64, ok bool) {
	return v.exact(r, Hands{Station: r.Station})
}

func (v *Vehicle) exact(r prove.Reading, h Hands) (value float64, ok bool) {
	if v.wrong != nil && v.wrong.When == fault.ByHand && r.Moved != "" && slices.Contains(v.Proof.MovedWith(*v.wrong), r.Moved) {
		return math.NaN(), false // it comes and goes under the hand
	}
	sys, s := v.world(h)
	laid := circuit.Lay(&sys, v.Design.Facts.N)
	at, jumps := settled(laid, s)
	if r.Unit == prove.Seen {
		return v.seen(r, at, jumps), true
	}
	value, never, ok := v.Proof.Shows(r, prove.Moment{Sys: &sys, Laid: laid, Solved: at.Solution, State: s, N: v.Design.Facts.N})
	return value, ok && !never && (!jumps || h.Station != prove.FastIdle && (h.Station != prove.Warm || !r.Extra))
}

// seen is what is looked at: 1 where it is as asked. What the circuit does not know is as it should be.
func (v *Vehicle) seen(r prove.Reading, at circuit.Settled, jumps bool) float64 {
	switch r.ID {
	case "engages":
		if jumps || at.Stopped && !at.Joined {
			return 0
		}
	case "delay":
		if of, there := v.Proof.Reading("lets-go"); there {
			if _, goes := v.Exact(of); !goes {
				return 0
			}
		}
	}
	return 1
}

// Reads is what a meter shows of a reading.
func (v *Vehicle) Reads(r prove.Reading) (value float64, ok bool) {
	value, ok = v.Exact(r)
	return v.metered(r, value), ok
}

// metered is a value as the vehicle's meter shows it.
func (v *Vehicle) metered(r prove.Reading, value float64) float64 {
	if r.Unit == prove.Seen {
		return value
	}
	value *= 1 + 0.003*(2*v.r.Float64()-1) // drift
	rounded := func(value, digit float64) float64 { return math.Round(value/digit) * digit }
	switch {
	case r.Unit == prove.Amps:
		return rounded(value*(1+v.clamp)+v.zero, 0.1)
	case r.Unit == prove.Ohms:
		return rounded(value+v.leads, 0.1)
	case r.Unit == prove.Kelvin:
		return rounded(value*v.heat+v.even(-2, 2), 1)
	case r.Drop:
		return rounded(value*(1+v.meter), 0.001)
	}
	return rounded(value*(1+v.meter), 0.01)
}

// Circuit is the circuit of a station, with its devices in a position: for a solver of another kind.
func (v *Vehicle) Circuit(station string, at circuit.Position) *network.Circuit {
	sys, s := v.at(station)
	laid := circuit.Lay(&sys, v.Design.Facts.N)
	_, _ = laid.Solve(s, at) // it sets the circuit's values, whether or not it finds them to hold
	return laid.Now()
}

// Position is where the vehicle's devices come to stand at a station.
func (v *Vehicle) Position(station string) circuit.Position {
	sys, s := v.at(station)
	at, _ := settled(circuit.Lay(&sys, v.Design.Facts.N), s)
	return at.Position
}

// Metered is what the vehicle's meter shows of a value that another solver found.
func (v *Vehicle) Metered(r prove.Reading, value float64) float64 { return v.metered(r, value) }

// Ohm is what a wire of the vehicle resists, without its joints.
func (v *Vehicle) Ohm(wire string) float64 {
	w, _ := v.sys.Wire(wire)
	return w.Ohm
}
