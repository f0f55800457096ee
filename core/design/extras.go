package design

import (
	"fmt"
	"math"

	"epitrope/core/cable"
	"epitrope/core/circuit"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/protect"
	"epitrope/core/run"
	"epitrope/core/system"
	"epitrope/core/unit"
	"epitrope/core/working"
)

// houseM is the feed from the battery to what is used off it, one way, and houseDrop what
// it may lose in % of the system voltage. Source: common practice, no source.
const (
	houseM    = 1.0
	houseDrop = 3.0
)

// Isolator is Q1: as entered, or the smallest that bears its run's worst current.
func (d *Design) Isolator() parts.Isolator {
	if a := d.Facts.Extras.IsolatorA; a != nil {
		return parts.IsolatorOf(*a)
	}
	l := d.isolatedLeg()
	return parts.IsolatorFor(l.Amps / parts.ContactFactor(l.Bay.AmbientC))
}

// isolatedLeg is the run that Q1 is in.
func (d *Design) isolatedLeg() *run.Sized {
	if d.Facts.Extras.Isolator == job.FrontIsolator {
		return &d.Start
	}
	return &d.Aux
}

// isolate puts Q1 with its link before, or behind, a terminal of a run, and returns the
// terminal and the length that are left for the run.
func (d *Design) isolate(of string, l *run.Sized, at system.Terminal, lengthM float64) (system.Terminal, float64) {
	link := math.Min(run.LinkM, lengthM/3)
	near, far := term("q1", "1"), term("q1", "2")
	if l == &d.Aux { // seen from the battery at the back
		near, far = far, near
	}
	from, to := at, near
	if l == &d.Aux {
		from, to = near, at
	}
	d.lead("q1", "q1a", of, from, to, l, link, lugs)
	return far, lengthM - link
}

// AuxBus is the plus that everything on the aux side but the battery hangs on.
func (d *Design) AuxBus() system.Terminal {
	if d.Facts.Extras.Isolator == job.MasterSwitch {
		return term("q1", "1")
	}
	return term("aux", "30")
}

// AuxMinus is the minus that everything but the battery comes back to: behind the shunt.
func (d *Design) AuxMinus() system.Terminal {
	if d.Facts.Extras.Monitor {
		return term("r1", "load")
	}
	return d.bankMinus()
}

// bankMinus is the post that a bank's minus is taken from: the last battery's, where it is fed by opposite
// corners.
func (d *Design) bankMinus() system.Terminal {
	if of := d.members(); len(of) > 0 && d.Facts.Survey.AuxFeed == "corners" {
		return term(of[len(of)-1], "31")
	}
	return term("aux", "31")
}

// shuntOhm is R1 with the two bolts that put it there.
func (d *Design) shuntOhm() float64 {
	e := d.Facts.Extras
	return e.ShuntMV.Value/1000/e.ShuntA.Value + 2*run.JointOhm
}

// addExtras counts what extras add in series to the runs.
func (d *Design) addExtras() {
	if d.Facts.Extras.Isolator != job.NoIsolator {
		d.isolatedLeg().JointsOhm += d.Isolator().Ohm + 2*run.JointOhm
	}
	if d.Facts.Extras.Monitor {
		d.Aux.JointsOhm += d.shuntOhm()
	}
}

// BondedBack says whether the return goes by a bonding lead.
func (d *Design) BondedBack() bool { return d.Facts.Extras.Bond && d.Back.ByChassis }

// BondSize is the bonding lead: as pinned, or as the return's own lead.
func (d *Design) BondSize() cable.Size {
	if text := d.Facts.Extras.BondSize; text != nil {
		size, _ := cable.Parse(*text) // a document holds only sizes that read
		return size
	}
	if size := d.ReturnLeg().Trial.Size; size.CopperMM2() > 0 {
		return size
	}
	return cable.Square(16)
}

// BondBearsA is what the bonding lead carries where it lies.
func (d *Design) BondBearsA() float64 {
	return d.Facts.Insulation.Carries(d.BondSize(), d.ReturnLeg().Bay).Amps
}

// BondOhm is the bonding lead with its two ends; 0 where there is none.
func (d *Design) BondOhm() float64 {
	if !d.Facts.Extras.Bond {
		return 0
	}
	return cable.Resistance.Value(d.BondSize().OhmPerM(), d.Facts.Extras.BondM.Value, cable.Alpha, WarmC) + 2*run.JointOhm
}

// bonded puts the bonding lead between a body's earth point and the chassis, and returns
// the point that the chassis begins at.
func (d *Design) bonded(earth system.Terminal) system.Terminal {
	chassis := term("e3", "")
	if d.ByBody() {
		d.System.Join(system.Wire{ID: "body", Run: "return", Role: system.Chassis, From: earth, To: chassis, Ohm: d.BodyOhm(), Existing: true})
		return chassis
	}
	if !d.Facts.Extras.Bond {
		return earth
	}
	size := d.BondSize()
	d.System.Join(system.Wire{ID: "b1", Run: "return", Role: system.Return, From: earth, To: chassis,
		LengthM: unit.Round(d.Facts.Extras.BondM.Value, 2),
		Size:    size.Label, CopperMM2: unit.Round(size.CopperMM2(), 2), Joint: lugs, Ohm: d.BondOhm() - 2*run.JointOhm})
	return chassis
}

// FedHouse says whether the feed to what is used is part of the design: with a disconnect,
// once it is known what it carries.
func (d *Design) FedHouse() bool { return d.Facts.Extras.Disconnect && d.Facts.Extras.PeakA != nil }

// sizeHouse sizes the feed by way of the disconnect, with its own fuse at the battery.
func (d *Design) sizeHouse() {
	if !d.FedHouse() {
		return
	}
	f := d.Facts
	a := run.Ask{ID: "h1", FuseID: "f4", Amps: *f.Extras.PeakA, LengthM: job.Num{Value: houseM, Origin: working.Assumed,
		Why: "beside the battery"}, ReturnM: houseM,
		Bay: f.AuxBay, SourceV: f.Chemistry.RestV(1) * f.AuxN, SourceOhm: d.AuxOhm(), Device: protect.Devices[0], ContactOhm: parts.DisconnectOhm,
		JointsOhm: run.FuseJoints * run.JointOhm, BudgetV: houseDrop / 100 * 12 * f.AuxN}
	d.House = run.Size(a, shelfOf(d), f.Insulation, 12*f.AuxN)
}

// shelfOf are the cables on the reels.
func shelfOf(d *Design) []cable.Size { return d.Facts.Reels }

// houseWires are the feed to what is used, and its return: past the shunt where not every
// negative is on its far side.
func (d *Design) houseWires() {
	if !d.FedHouse() {
		return
	}
	l := &d.House
	d.lead("f4", "h1a", "h1", d.AuxBus(), term("f4", "in"), l, l.Bare(), lugs)
	d.wire("h1", "h1", system.Feed, term("f4", "out"), term("q3", "1"), l, l.LengthM.Value-2*l.Bare(), lugs)
	d.lead("q3", "h1b", "h1", term("q3", "2"), term("house", "30"), l, l.Bare(), lugs)
	d.wire("h1n", "h1", system.Return, term("house", "31"), d.houseMinus(), l, l.ReturnM, lugs)
}

func (d *Design) houseMinus() system.Terminal {
	if d.Facts.Extras.ShuntAll == job.No {
		return d.bankMinus()
	}
	return d.AuxMinus()
}

// HouseEnds are the terminals between which what is used hangs.
func (d *Design) HouseEnds() (plus, minus system.Terminal) {
	if d.FedHouse() {
		return term("house", "30"), term("house", "31")
	}
	return d.AuxBus(), d.houseMinus()
}

// attach hangs on the system what is no part of it.
func (d *Design) attach() {
	bus, ground := term("start", "30"), term("start", "31")
	housePlus, houseMinus := d.HouseEnds()
	sunPlus, sunMinus := d.SunEnds()
	d.System.Attached = []system.Attached{
		{Name: circuit.Vehicle, Plus: bus, Minus: ground, Device: system.Load{}},
		{Name: circuit.Starter, Plus: bus, Minus: ground, Device: system.Load{Ohm: d.StarterOhm()}},
		{Name: circuit.House, Plus: housePlus, Minus: houseMinus, Device: system.Load{}},
		{Name: circuit.Sun, Plus: sunPlus, Minus: sunMinus, Device: system.Panel{Volts: d.Profile.AbsorptionHigh,
			Watts: d.Facts.Day.SolarW.Value}},
	}
	if s, ok := d.Mains(); ok {
		d.System.Attached = append(d.System.Attached, system.Attached{Name: circuit.Mains, Plus: d.AuxBus(), Minus: d.AuxMinus(),
			Device: system.Panel{Volts: d.MainsV(s), Watts: *s.OutputA * d.MainsV(s)}})
	}
	if d.Facts.Extras.Winch {
		d.System.Attached = append(d.System.Attached, system.Attached{Name: circuit.Winch, Plus: term("w1", "30"), Minus: d.winchMinus(),
			Device: system.Load{Ohm: d.WinchOhm()}})
	}
	d.System.Lugs = d.Facts.Lugs
	d.System.Soldered = d.Facts.Schools.Termination == "solder"
	d.System.Ends = system.Ends{Source: d.source(), Bank: term("aux", "30"), Coupling: "coupling", Start: d.arrives(), Aux: d.leaves(),
		Minus: d.minusAtCoupling()}
}

// winchWire is the winch's own lead, as it was found.
func (d *Design) winchWire() {
	if !d.Facts.Extras.Winch {
		return
	}
	from := term("start", "30")
	if d.Facts.Extras.WinchFrom == job.WinchAtAux {
		from = d.AuxBus()
	}
	d.System.Join(system.Wire{ID: "w1", Run: "winch", Beside: "w1", Role: system.Feed, From: from, To: term("w1", "30"), LengthM: 1,
		Ohm:      run.LeadOhm,
		Existing: true})
}

// winchMinus is the terminal that the winch comes back to.
func (d *Design) winchMinus() system.Terminal {
	if d.Facts.Extras.WinchFrom == job.WinchAtAux {
		return d.AuxMinus()
	}
	return term("start", "31")
}

func (d *Design) extraComponents(place job.Point) {
	e, s := d.Facts.Extras, &d.System
	if e.Isolator != job.NoIsolator {
		at := place
		if e.Isolator == job.FrontIsolator {
			at = d.Facts.Body.Start
		}
		s.Add(system.Component{ID: "q1", Kind: system.KindSwitch, Name: "Q1", Rating: d.Isolator().Label, At: at,
			Device: system.Link{From: term("q1", "1"), To: term("q1", "2"), Ohm: d.Isolator().Ohm, RatingA: d.Isolator().ContinuousA, ByHand: true,
				Breaks: e.IsolatorFirst == job.Yes}})
	}
	if e.Monitor {
		s.Add(system.Component{ID: "r1", Kind: system.KindShunt, Name: "R1",
			Rating: fmt.Sprintf("shunt, %s at %s", unit.Plain(e.ShuntMV.Value, "mV", 0), unit.Plain(e.ShuntA.Value, "A", 0)), At: place,
			Device: system.Link{From: d.bankMinus(), To: term("r1", "load"), Ohm: d.shuntOhm(), RatingA: e.ShuntA.Value}})
	}
	if d.Framed() {
		s.Add(system.Component{ID: "e4", Kind: system.KindEarth, Name: "E4", Rating: "trailer's frame, at the battery", At: place})
		s.Add(system.Component{ID: "e5", Kind: system.KindEarth, Name: "E5", Rating: "trailer's frame, at the drawbar", At: d.HitchAt()})
	}
	switch {
	case d.BondedBack():
		s.Add(system.Component{ID: "e3", Kind: system.KindEarth, Name: "E3", Rating: "chassis end of the bonding lead", At: d.CouplingAt()})
	case d.ByBody():
		s.Add(system.Component{ID: "e3", Kind: system.KindEarth, Name: "E3", Rating: "where tray, canopy or body meets the chassis",
			Existing: true, At: d.CouplingAt()})
	}
	if d.FedHouse() {
		rating := "low-voltage disconnect"
		if e.DisconnectA != nil {
			rating += ", " + unit.Plain(*e.DisconnectA, "A", 0)
		}
		s.Add(system.Component{ID: "f4", Kind: system.KindFuse, Name: "F4", Rating: d.House.Fuse.Label(), At: place,
			Device: d.House.FuseDevice()})
		opens := system.Link{From: term("q3", "1"), To: term("q3", "2"), Ohm: parts.DisconnectOhm}
		if e.DisconnectA != nil {
			opens.RatingA = *e.DisconnectA
		}
		s.Add(system.Component{ID: "q3", Kind: system.KindDisconnect, Name: "Q3", Rating: rating, At: place, Device: opens})
		s.Add(system.Component{ID: "house", Kind: system.KindLoads, Name: "Loads", Rating: unit.Plain(*e.PeakA, "A at most", 0),
			Existing: true, At: place})
	}
	if e.Winch {
		s.Add(system.Component{ID: "w1", Kind: system.KindWinch, Name: "Winch", Rating: unit.Plain(e.WinchA.Value, "A", 0), Existing: true,
			At: d.Facts.Body.Start})
	}
}
