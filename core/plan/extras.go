package plan

import (
	"fmt"
	"math"

	"epitrope/core/cable"
	"epitrope/core/circuit"
	"epitrope/core/coupling"
	"epitrope/core/day"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/protect"
	"epitrope/core/system"
	"epitrope/core/working"
)

// Extras as parts of the circuit: Q1 the isolator, R1 the shunt, B1 the bonding lead, Q3 the
// low-voltage disconnect with its fuse F4 and its feed H1, W1 the winch.

// linkM is the short cable that an isolator adds, or that joins K1 to its charger. Source: common practice, no source.
const linkM = 0.2

// houseM is the feed from the battery to what is used off it, one way, and houseDrop what
// it may lose in % of the system voltage. Source: common practice, no source.
const (
	houseM    = 1.0
	houseDrop = 3.0
)

// isolator is Q1: as entered, or the smallest that bears its run's worst current.
func (d *design) isolator() parts.Isolator {
	if a := d.facts.Extras.IsolatorA; a != nil {
		return parts.IsolatorOf(*a)
	}
	l := d.isolatedLeg()
	return parts.IsolatorFor(l.amps / parts.ContactFactor(l.bay.AmbientC))
}

// isolatedLeg is the run that Q1 is in.
func (d *design) isolatedLeg() *leg {
	if d.facts.Extras.Isolator == job.FrontIsolator {
		return &d.start
	}
	return &d.aux
}

// isolate puts Q1 with its link before, or behind, a terminal of a run, and returns the
// terminal and the length that are left for the run.
func (d *design) isolate(of string, l *leg, at system.Terminal, lengthM float64) (system.Terminal, float64) {
	link := math.Min(linkM, lengthM/3)
	near, far := term("q1", "1"), term("q1", "2")
	if at.Component != "f1" { // seen from the battery at the back
		near, far = far, near
	}
	from, to := at, near
	if at.Component != "f1" {
		from, to = near, at
	}
	d.wire("q1a", of, system.Feed, from, to, l, link, lugs)
	return far, lengthM - link
}

// auxBus is the plus that everything on the aux side but the battery hangs on.
func (d *design) auxBus() system.Terminal {
	if d.facts.Extras.Isolator == job.MasterSwitch {
		return term("q1", "1")
	}
	return term("aux", "30")
}

// auxMinus is the minus that everything but the battery comes back to: behind the shunt.
func (d *design) auxMinus() system.Terminal {
	if d.facts.Extras.Monitor {
		return term("r1", "load")
	}
	return term("aux", "31")
}

// shuntOhm is R1 with the two bolts that put it there.
func (d *design) shuntOhm() float64 {
	e := d.facts.Extras
	return e.ShuntMV.Value/1000/e.ShuntA.Value + 2*jointOhm
}

// addExtras counts what extras add in series to the runs.
func (d *design) addExtras() {
	if d.facts.Extras.Isolator != job.NoIsolator {
		d.isolatedLeg().jointsOhm += d.isolator().Ohm + 2*jointOhm
	}
	if d.facts.Extras.Monitor {
		d.aux.jointsOhm += d.shuntOhm()
	}
}

// bondedBack says whether the return goes by a bonding lead.
func (d *design) bondedBack() bool { return d.facts.Extras.Bond && d.back.byChassis }

// bondSize is the bonding lead: as pinned, or as the return's own lead.
func (d *design) bondSize() cable.Size {
	if text := d.facts.Extras.BondSize; text != nil {
		size, _ := cable.Parse(*text) // a document holds only sizes that read
		return size
	}
	if size := d.returnLeg().trial.Size; size.CopperMM2() > 0 {
		return size
	}
	return cable.Square(16)
}

func (d *design) bondBearsA() float64 {
	return d.facts.Insulation.Carries(d.bondSize(), d.returnLeg().bay).Amps
}

// bondOhm is the bonding lead with its two ends; 0 where there is none.
func (d *design) bondOhm() float64 {
	if !d.facts.Extras.Bond {
		return 0
	}
	return cable.Resistance.Value(d.bondSize().OhmPerM(), d.facts.Extras.BondM.Value, cable.Alpha, warmC) + 2*jointOhm
}

// bonded puts the bonding lead between a body's earth point and the chassis, and returns
// the point that the chassis begins at.
func (d *design) bonded(earth system.Terminal) system.Terminal {
	if !d.facts.Extras.Bond {
		return earth
	}
	size, chassis := d.bondSize(), term("e3", "")
	d.system.Join(system.Wire{ID: "b1", Run: "return", Role: system.Return, From: earth, To: chassis, LengthM: working.Round(d.facts.Extras.BondM.Value, 2),
		Size: size.Label, CopperMM2: working.Round(size.CopperMM2(), 2), Joint: lugs, Ohm: d.bondOhm() - 2*jointOhm})
	return chassis
}

// fedHouse says whether the feed to what is used is part of the design: with a disconnect,
// once it is known what it carries.
func (d *design) fedHouse() bool { return d.facts.Extras.Disconnect && d.facts.Extras.PeakA != nil }

// sizeHouse sizes the feed by way of the disconnect, with its own fuse at the battery.
func (d *design) sizeHouse() {
	if !d.fedHouse() {
		return
	}
	f := d.facts
	a := stretch{id: "h1", fuseID: "f4", amps: *f.Extras.PeakA, lengthM: job.Num{Value: houseM, Origin: working.Assumed, Why: "beside the battery"}, returnM: houseM,
		bay: f.AuxBay, sourceV: f.Chemistry.RestV(1) * f.N, sourceOhm: d.auxOhm(), device: protect.Devices[0], contactOhm: parts.DisconnectOhm,
		jointsOhm: fuseJoints * jointOhm, budgetV: houseDrop / 100 * 12 * f.N}
	d.house = Size(a, cable.Shelf(f.CableSystem), f.Insulation, 12*f.N)
}

// houseWires are the feed to what is used, and its return: past the shunt where not every
// negative is on its far side.
func (d *design) houseWires() {
	if !d.fedHouse() {
		return
	}
	l := &d.house
	d.wire("h1a", "h1", system.Feed, d.auxBus(), term("f4", "in"), l, l.bare(), lugs)
	d.wire("h1", "h1", system.Feed, term("f4", "out"), term("q3", "1"), l, l.lengthM.Value-2*l.bare(), lugs)
	d.wire("h1b", "h1", system.Feed, term("q3", "2"), term("house", "30"), l, l.bare(), lugs)
	d.wire("h1n", "h1", system.Return, term("house", "31"), d.houseMinus(), l, l.returnM, lugs)
}

func (d *design) houseMinus() system.Terminal {
	if d.facts.Extras.ShuntAll == job.No {
		return term("aux", "31")
	}
	return d.auxMinus()
}

// houseEnds are the terminals between which what is used hangs.
func (d *design) houseEnds() (plus, minus system.Terminal) {
	if d.fedHouse() {
		return term("house", "30"), term("house", "31")
	}
	return d.auxBus(), d.houseMinus()
}

// attach hangs on the system what is no part of it.
func (d *design) attach() {
	bus, ground := term("start", "30"), term("start", "31")
	housePlus, houseMinus := d.houseEnds()
	d.system.Attached = []system.Attached{
		{Name: circuit.Vehicle, Plus: bus, Minus: ground, Device: system.Load{}},
		{Name: circuit.Starter, Plus: bus, Minus: ground, Device: system.Load{Ohm: d.starterOhm()}},
		{Name: circuit.House, Plus: housePlus, Minus: houseMinus, Device: system.Load{}},
		{Name: circuit.Sun, Plus: d.auxBus(), Minus: d.auxMinus(), Device: system.Panel{Volts: d.profile.AbsorptionHigh, Watts: d.facts.Day.SolarW.Value}},
	}
	if d.facts.Extras.Winch {
		d.system.Attached = append(d.system.Attached, system.Attached{Name: circuit.Winch, Plus: term("w1", "30"), Minus: d.winchMinus(), Device: system.Load{Ohm: d.winchOhm()}})
	}
	d.system.Soldered = d.facts.Schools.Termination == "solder"
	d.system.Ends = system.Ends{Start: d.arrives(), Aux: d.leaves(), Minus: d.minusAtCoupling()}
}

// winchWire is the winch's own lead, as it was found.
func (d *design) winchWire() {
	if !d.facts.Extras.Winch {
		return
	}
	from := term("start", "30")
	if d.facts.Extras.WinchFrom == job.WinchAtAux {
		from = d.auxBus()
	}
	d.system.Join(system.Wire{ID: "w1", Run: "winch", Role: system.Feed, From: from, To: term("w1", "30"), LengthM: 1, Ohm: leadOhm, Existing: true})
}

// winchMinus is the terminal that the winch comes back to.
func (d *design) winchMinus() system.Terminal {
	if d.facts.Extras.WinchFrom == job.WinchAtAux {
		return d.auxMinus()
	}
	return term("start", "31")
}

func (d *design) extraComponents(place job.Point) {
	e, s := d.facts.Extras, &d.system
	if e.Isolator != job.NoIsolator {
		at := place
		if e.Isolator == job.FrontIsolator {
			at = d.facts.Body.Start
		}
		s.Add(system.Component{ID: "q1", Kind: system.KindSwitch, Name: "Q1", Rating: d.isolator().Label, At: at,
			Device: system.Link{From: term("q1", "1"), To: term("q1", "2"), Ohm: d.isolator().Ohm, ByHand: true}})
	}
	if e.Monitor {
		s.Add(system.Component{ID: "r1", Kind: system.KindShunt, Name: "R1", Rating: fmt.Sprintf("shunt, %s at %s", working.Plain(e.ShuntMV.Value, "mV", 0), working.Plain(e.ShuntA.Value, "A", 0)), At: place,
			Device: system.Link{From: term("aux", "31"), To: term("r1", "load"), Ohm: d.shuntOhm()}})
	}
	if d.bondedBack() {
		s.Add(system.Component{ID: "e3", Kind: system.KindEarth, Name: "E3", Rating: "chassis end of the bonding lead", At: d.couplingAt()})
	}
	if d.fedHouse() {
		rating := "low-voltage disconnect"
		if e.DisconnectA != nil {
			rating += ", " + working.Plain(*e.DisconnectA, "A", 0)
		}
		s.Add(system.Component{ID: "f4", Kind: system.KindFuse, Name: "F4", Rating: d.house.fuse.Label(), At: place, Device: d.house.fuseDevice()})
		s.Add(system.Component{ID: "q3", Kind: system.KindDisconnect, Name: "Q3", Rating: rating, At: place,
			Device: system.Link{From: term("q3", "1"), To: term("q3", "2"), Ohm: parts.DisconnectOhm}})
		s.Add(system.Component{ID: "house", Kind: system.KindLoads, Name: "Loads", Rating: working.Plain(*e.PeakA, "A at most", 0), Existing: true, At: place})
	}
	if e.Winch {
		s.Add(system.Component{ID: "w1", Kind: system.KindWinch, Name: "Winch", Rating: working.Plain(e.WinchA.Value, "A", 0), Existing: true, At: d.facts.Body.Start})
	}
}

// winchOhm is a winch as a resistance that takes its current at 12 V.
func (d *design) winchOhm() float64 { return 12 * d.facts.N / d.facts.Extras.WinchA.Value }

// disconnectHoldS is how long the voltage is low, or back, before a disconnect acts.
// Source: from memory.
const disconnectHoldS = 10.0

// disconnect is the low-voltage disconnect as a day runs it; nil where there is none.
func (d *design) disconnect() *day.Disconnect {
	e, n := d.facts.Extras, d.facts.N
	if !e.Disconnect {
		return nil
	}
	return &day.Disconnect{OpensV: e.OpensV.Value / n, ClosesV: e.ClosesV.Value / n, HoldS: disconnectHoldS}
}

// isolatorColumn is Q1 on the section.
func (d *design) isolatorColumn(l *leg, at job.Point) Column {
	card := d.isolator()
	bears := card.ContinuousA * parts.ContactFactor(l.bay.AmbientC)
	level, lost := Good, l.amps*(card.Ohm+2*jointOhm)
	if l.amps > bears {
		level = Bad
	}
	auto := parts.IsolatorFor(l.amps / parts.ContactFactor(l.bay.AmbientC))
	return Column{ID: "q1", Kind: "switch", Name: "Q1", At: at, Part: Cell{Text: working.Plain(card.ContinuousA, "A", 0), Level: Good},
		Carries: Cell{Text: fmt.Sprintf("%s of %s", working.Text(l.amps, "", 0), working.Text(bears, "A", 0)), Level: level},
		Loses:   Cell{Text: fmt.Sprintf("%s, %s", working.Text(lost, "V", 2), working.Text(lost*l.amps, "W", 0)), Level: Good}, Heat: none(), Figures: []string{},
		Fields: []string{"extras.isolator", "extras.isolatorFirst"},
		Choice: &Choice{Path: "extras.isolatorA", Label: "Isolator", Auto: working.Plain(auto.ContinuousA, "A", 0), Now: working.Plain(card.ContinuousA, "A", 0),
			Pinned: d.doc.Extras.IsolatorA != nil, DecidedBy: "the smallest that bears the worst current where it sits"}}
}

// winchState is a pull with the engine running a little above idle.
func (d *design) winchState(rest state) state {
	e, n := d.facts.Extras, d.facts.N
	s := rest
	s.id, s.label, s.kind = "winch", "winch pulling", cranking
	s.rpm, s.SetV, s.MachineA, s.StartV = idleRPM, d.facts.RegulatedV.Value, d.machineA(idleRPM), surfaceV*n
	s.VehicleA, s.HouseA = d.facts.LoadA.Value*byDay, 0
	s.Winches = true
	s.Joined = e.WinchFrom == job.WinchAtJoined && d.canJoin()
	return s
}

// canJoin says whether this coupling can join the batteries at all.
func (d *design) canJoin() bool {
	return d.kind == coupling.DCDCChangeover || d.kind.Joins() && d.kind != coupling.SecondAlternator
}
