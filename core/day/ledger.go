package day

import "epitrope/core/network"

// Energy is where energy came from and went, in J (or, of a moment, in W). What
// batteries give counts positive, what they take negative.
type Energy struct {
	Machine float64 // from the alternator
	Solar   float64
	Mains   float64 // from a charger that mains or a generator feed
	Start   float64 // at the start battery's posts
	Aux     float64 // at the aux battery's posts
	Vehicle float64 // used by the vehicle, its starter among it
	House   float64 // used off the aux battery
	Coils   float64 // coils, triggers, resting devices
	Charger float64 // lost in the charger
	Lines   float64 // lost in cables, joints, fuses, contacts and chassis
	StartIn float64 // lost inside the start battery
	AuxIn   float64 // lost inside the aux battery
}

func (e *Energy) add(of *Energy, times float64) {
	e.Machine += of.Machine * times
	e.Solar += of.Solar * times
	e.Mains += of.Mains * times
	e.Start += of.Start * times
	e.Aux += of.Aux * times
	e.Vehicle += of.Vehicle * times
	e.House += of.House * times
	e.Coils += of.Coils * times
	e.Charger += of.Charger * times
	e.Lines += of.Lines * times
	e.StartIn += of.StartIn * times
	e.AuxIn += of.AuxIn * times
}

// account fills in the powers of a moment.
func (r *runner) account(x *slow, s *sight) {
	p, h := &s.power, &r.h
	p.Machine = s.machineA*s.machineV + s.secondA*s.secondV
	p.Start = s.startGivesA * s.busV
	p.Aux = s.auxGivesA * s.auxV
	p.Vehicle = h.vehicle.Amps * s.busV
	if h.beside != nil {
		p.Vehicle += h.beside.Amps * s.sensedV
	}
	p.House = h.house.Amps * s.auxV
	for _, t := range h.taps {
		p.House += t.load.Amps * (r.solver.At(t.plus) - r.solver.At(t.minus))
	}
	for _, w := range []*network.Wire{h.coil, h.standby, h.signal} {
		if w != nil {
			p.Coils += s.sensedV * s.sensedV / w.Ohm()
		}
	}
	if h.aheadCoil != nil {
		p.Coils += s.busV * s.busV / h.aheadCoil.Ohm()
	}
	p.Charger = s.chargerLossW
	p.StartIn = inside(&r.rig.Start, &s.start, x[startOver], s.startGivesA)
	p.AuxIn = inside(&r.rig.Aux, &s.aux, x[auxOver], s.auxGivesA)
	if h.starter.Closed {
		p.Vehicle += s.starterA * s.busV
	}
	p.Lines = r.solver.Heat() - p.Coils // coils and the starter are resistances too, but no lines
	if h.starter.Closed {
		p.Lines -= s.starterA * s.busV
	}
	for _, diode := range h.splits {
		if diode != nil {
			p.Lines += r.solver.Drop(diode) * r.solver.Gives(diode)
		}
	}
}

// inside is what a bank that gives amps turns into heat: in its resistance, in turning
// its overvoltage into charge, and where more goes in than comes out again.
func inside(b *Bank, c *cell, over, gives float64) float64 {
	turned := c.turns(over)
	ohm := c.ohm
	if gives < 0 {
		ohm = c.inOhm
	}
	lost := gives*gives*ohm + over*turned
	if turned > 0 {
		share := 1 - b.Chemistry.Efficiency
		if c.soc >= 1 {
			share = 1
		}
		lost += share * c.own * turned
	}
	return lost
}
