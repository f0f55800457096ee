package design

import (
	"strings"

	"epitrope/core/job"
	"epitrope/core/protect"
	"epitrope/core/run"
	"epitrope/core/system"
	"epitrope/core/unit"
)

// Tap is what hangs on the run at the coupling, with the lead and the fuse sized for it.
type Tap struct {
	job.TapFact
	ID string
	run.Sized
}

// Element is its name in the circuit.
func (t Tap) Element() string { return t.ID + " " + t.TapFact.Label }

// tapDrop is what its lead may lose, in % of the system voltage. Source: common practice, no source.
const tapDrop = 3.0

// tapAt is the terminal that something hangs on.
func (d *Design) tapAt(t Tap) system.Terminal {
	if t.Aux {
		return d.leaves()
	}
	return d.arrives()
}

// tapMinus is where it comes back to.
func (d *Design) tapMinus(t Tap) system.Terminal {
	switch {
	case d.Kind.Charger():
		return term("coupling", "31")
	case t.Aux:
		return d.AuxMinus()
	}
	return term(system.StartEarth, "")
}

// sizeTaps sizes the leads of what hangs on the run.
func (d *Design) sizeTaps() {
	d.Taps = nil
	for i, fact := range d.Facts.Taps {
		id := unit.Say("p%.0f", float64(i+1))
		n := d.Facts.N
		bay, volts, ohm := d.Start.Bay, d.Facts.RegulatedV.Value, d.StartOhm()
		if fact.Aux {
			n = d.Facts.AuxN
			bay, volts, ohm = d.Facts.AuxBay, d.Facts.Chemistry.RestV(1)*d.Facts.AuxN, d.AuxOhm()
		}
		a := run.Ask{ID: id, FuseID: "f" + id, Amps: fact.Amps.Value, LengthM: fact.LongM, ReturnM: fact.LongM.Value, Bay: bay,
			SourceV: volts, SourceOhm: ohm, Device: protect.Devices[0], JointsOhm: run.FuseJoints * run.JointOhm,
			BudgetV: tapDrop / 100 * 12 * n, Unfused: fact.Unfused}
		d.Taps = append(d.Taps, Tap{fact, id, run.Size(a, shelfOf(d), d.Facts.Insulation, 12*n)})
	}
}

// tapsA is what all that hangs on a side of the run draws at once.
func (d *Design) tapsA(aux bool) (amps float64) {
	for _, t := range d.Facts.Taps {
		if t.Aux == aux {
			amps += t.Amps.Value
		}
	}
	return amps
}

// tapComponents are what hangs on the run, each with its fuse.
func (d *Design) tapComponents() {
	for _, t := range d.Taps {
		if !t.Unfused {
			d.System.Add(system.Component{ID: t.FuseID, Kind: system.KindFuse, Name: strings.ToUpper(t.FuseID), Rating: t.Fuse.Label(),
				At: d.CouplingAt(), Device: t.FuseDevice()})
		}
		d.System.Add(system.Component{ID: t.ID, Kind: system.KindTap, Name: strings.ToUpper(t.ID), At: d.CouplingAt(), Existing: true,
			Rating: t.TapFact.Label + ", " + unit.Plain(t.Amps.Value, "A", 1), Device: d.tapLoad(t)})
	}
}

// tapLoad is what it draws: all of it while that is looked at, and on average what the start side gives it with
// the engine off. What the aux side gives it then is a part of what is used.
func (d *Design) tapLoad(t Tap) system.Load {
	load := system.Load{FullA: t.Amps.Value, OnAux: t.Aux}
	if !t.Aux && !t.Running {
		load.MeanA = t.DayAh() / 24
	}
	return load
}

// tapWires are their leads, out and back.
func (d *Design) tapWires() {
	for i := range d.Taps {
		t := &d.Taps[i]
		from, lengthM := d.tapAt(*t), t.LengthM.Value
		if !t.Unfused {
			d.lead(t.FuseID, t.ID+"a", t.ID, from, term(t.FuseID, "in"), &t.Sized, t.Bare(), lugs)
			from, lengthM = term(t.FuseID, "out"), lengthM-t.Bare()
		}
		d.wire(t.ID, t.ID, system.Feed, from, term(t.ID, "30"), &t.Sized, lengthM, lugs)
		d.wire(t.ID+"n", t.ID, system.Return, term(t.ID, "31"), d.tapMinus(*t), &t.Sized, t.ReturnM, lugs)
		d.System.Attached = append(d.System.Attached, system.Attached{Name: t.Element(), Plus: term(t.ID, "30"),
			Minus: term(t.ID, "31"), Device: d.tapLoad(*t)})
	}
}
