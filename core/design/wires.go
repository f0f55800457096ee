package design

import (
	"epitrope/core/cable"
	"epitrope/core/job"
	"epitrope/core/run"
	"epitrope/core/system"
	"epitrope/core/unit"
	"strings"
)

// lugs are a power wire's two ends, crimped and bolted.
var lugs = system.Joints{From: run.JointOhm, To: run.JointOhm}

// wire joins two terminals by a leg's cable, as warm as it runs.
func (d *Design) wire(id, of string, role system.Role, from, to system.Terminal, l *run.Sized, lengthM float64, joints system.Joints) {
	size, warmC, bay := l.Trial.Size, l.Trial.ConductorC, l.Bay
	if role == system.Return {
		warmC, bay = l.Trial.BackC, l.ReturnBay()
	}
	d.System.Join(system.Wire{ID: id, Name: d.wireName(id), Run: of, Role: role, From: from, To: to, LengthM: unit.Round(lengthM, 2),
		Size: size.Label, CopperMM2: unit.Round(size.CopperMM2(), 2), Joint: joints, Conduit: bay.Laying.Conduit,
		Ohm: cable.Resistance.Value(size.OhmPerM(), lengthM, cable.Alpha, warmC)})
}

// wireNames are what people call the wires that their number does not tell.
var wireNames = map[string]string{
	"c1a": "C1 before F1", "c2c": "C2 past F2", "c1t": "C1 in the trailer", "c2t": "C2 in the trailer",
	"n1t": "N1 in the trailer", "n2t": "N2 in the trailer", "n1td": "N1 at the drawbar", "n2td": "N2 at the drawbar",
	"frame": "the trailer's frame",
	"t1":    "T1 before F3", "t1b": "T1", "t1c": "T1 past its switch", "t1d": "T1 past both switches", "t2": "T2 before F6", "t2b": "T2",
	"s1a": "S1 before F5", "s1b": "S1 past F5", "s1c": "S1 to the coil", "s1d": "S1 past K3", "t3": "T1 to K3", "la1a": "LA1",
	"k1a": "link K1 to charger", "k1b": "link charger to K1", "k1c": "K1's control", "q1a": "link at Q1", "k2a": "link at K2",
	"h1a": "H1 before F4", "h1b": "H1 past Q3",
}

// wireName is a wire as people know it: by its number, unless it has a name.
func (d *Design) wireName(id string) string {
	if strings.HasSuffix(id, "t") && d.Behind() == system.Box {
		return strings.ToUpper(strings.TrimSuffix(id, "t")) + " past X1"
	}
	if name, ok := wireNames[id]; ok {
		return name
	}
	return strings.ToUpper(id)
}

// lead joins two terminals by a short feed wire beside a part.
func (d *Design) lead(part, id, of string, from, to system.Terminal, l *run.Sized, lengthM float64, joints system.Joints) {
	d.wire(id, of, system.Feed, from, to, l, lengthM, joints)
	d.System.Wires[len(d.System.Wires)-1].Beside = part
}

func (d *Design) feedWires() {
	d.System.Join(system.Wire{ID: "lead", Run: "lead", Role: system.Feed, From: term("alternator", "B+"), To: d.LeadTo(), LengthM: 1,
		Ohm: run.LeadOhm, Existing: true})
	first := lugs
	if d.Facts.Schools.Takeoff == "stud" && !d.FromStud() {
		first.From += run.LeadOhm
	}
	d.outletLead()
	behindF1, c1M := d.takenFrom(), d.Start.LengthM.Value
	if !d.Start.Unfused {
		d.lead("f1", "c1a", "c1", behindF1, term("f1", "in"), &d.Start, d.Start.Bare(), first)
		behindF1, c1M = term("f1", "out"), c1M-d.Start.Bare()
	}
	post := term("aux", "30")
	beforeF2, c2M := post, d.Aux.LengthM.Value-d.Aux.Bare()
	if !d.Aux.Unfused {
		beforeF2 = term("f2", "in")
	}
	switch d.Facts.Extras.Isolator {
	case job.FrontIsolator:
		behindF1, c1M = d.isolate("c1", &d.Start, behindF1, c1M)
	case job.AuxIsolator:
		beforeF2, c2M = d.isolate("c2", &d.Aux, beforeF2, c2M)
	case job.MasterSwitch:
		if post, _ = d.isolate("c2", &d.Aux, post, c2M); d.Aux.Unfused {
			beforeF2 = post
		}
	}
	behindF1, c1M = d.ahead(behindF1, c1M)
	if d.Relayed() {
		c1M, c2M = c1M-d.Start.Link(), c2M-d.Aux.Link()
	}
	d.through("c1", &d.Start, behindF1, d.arrives(), c1M)
	d.through("c2", &d.Aux, d.leaves(), beforeF2, c2M)
	if !d.Aux.Unfused {
		d.lead("f2", "c2c", "c2", term("f2", "out"), post, &d.Aux, d.Aux.Bare(), lugs)
	}
}

// through joins two terminals, by way of the trailer plug where the run crosses it. The
// plug's own contacts are the plug's.
func (d *Design) through(of string, l *run.Sized, from, to system.Terminal, lengthM float64) {
	if !d.Crosses(l) {
		d.wire(of, of, system.Feed, from, to, l, lengthM, lugs)
		return
	}
	hitch := d.plugShare()
	d.wire(of, of, system.Feed, from, term("x1", "+"), l, lengthM*hitch, system.Joints{From: run.JointOhm})
	d.wire(of+"t", of, system.Feed, term("x1", "+t"), to, l, lengthM*(1-hitch), system.Joints{To: run.JointOhm})
}

func (d *Design) returnWires() {
	l := d.ReturnLeg()
	minus := d.AuxMinus()
	if d.Kind.Charger() {
		d.auxReturn(minus, term("coupling", "31"))
		minus = term("coupling", "31")
	}
	e1 := term(system.StartEarth, "")
	switch {
	case d.Back.ByChassis && d.Back.ByCable:
		d.wire("n3", l.ID, system.Return, minus, e1, l, d.Back.AlongM, system.Joints{From: run.JointOhm, To: run.JointOhm + run.EarthOhm})
		fallthrough
	case d.Back.ByChassis:
		d.wire("n1", l.ID, system.Return, minus, term("e2", ""), l, d.Back.CableM, lugs)
		steel := system.Wire{ID: "chassis", Run: "return", Role: system.Chassis, From: d.bonded(term("e2", "")), To: e1,
			LengthM: unit.Round(d.Back.ChassisM, 2), Ohm: d.SteelOhm(d.Back.ChassisM), Existing: true}
		if _, whole := d.Doc.Joints["chassis"].Ohm(); !whole {
			steel.Ohm, steel.Joint = max(leastPathOhm, steel.Ohm-2*run.EarthOhm), system.Joints{From: run.EarthOhm, To: run.EarthOhm}
		}
		d.System.Join(steel)
	case d.BackCrosses():
		before, behind := d.parted(d.Back.CableM, d.backShare())
		d.behindPlug("n1t", l, minus, behind)
		d.wire("n1", l.ID, system.Return, term("x1", "-"), e1, l, before, system.Joints{To: run.JointOhm + run.EarthOhm})
	default:
		d.wire("n1", l.ID, system.Return, minus, e1, l, d.Back.CableM, system.Joints{From: run.JointOhm, To: run.JointOhm + run.EarthOhm})
	}
}

// auxReturn is the aux battery's minus to a charger, by way of the trailer plug where
// the charger stays in the tow vehicle.
func (d *Design) auxReturn(from, to system.Terminal) {
	l := &d.Aux
	if !d.Crosses(l) {
		d.wire("n2", "c2", system.Return, from, to, l, l.ReturnM, lugs)
		return
	}
	before, behind := d.parted(l.ReturnM, d.plugShare())
	d.behindPlug("n2t", l, from, behind)
	d.wire("n2", "c2", system.Return, term("x1", "-"), to, l, before, system.Joints{To: run.JointOhm})
}

// behindPlug is the return between a minus behind the plug and the plug: a cable, or the trailer's frame.
func (d *Design) behindPlug(id string, l *run.Sized, minus system.Terminal, lengthM float64) {
	if d.Framed() {
		d.frameWires(id, l, minus)
		return
	}
	d.wire(id, l.ID, system.Return, minus, term("x1", "-t"), l, lengthM, system.Joints{From: run.JointOhm})
}

// bankWires link the batteries of a bank. What the links resist counts in how the bank shares; in the circuit
// the first battery stands for all.
func (d *Design) bankWires() {
	before := "aux"
	for _, id := range d.members() {
		nth := id[len("aux"):]
		d.wire("l"+nth, "bank", system.Feed, term(before, "30"), term(id, "30"), &d.Aux, d.Facts.Survey.AuxLinkM.Value, system.Joints{})
		d.System.Wires[len(d.System.Wires)-1].Ohm = leastPathOhm
		d.wire("m"+nth, "bank", system.Return, term(before, "31"), term(id, "31"), &d.Aux, d.Facts.Survey.AuxLinkM.Value, system.Joints{})
		d.System.Wires[len(d.System.Wires)-1].Ohm = leastPathOhm
		before = id
	}
}

// sensingEarthM is the least that a relay's own earth lead is long: it goes to the earth point of the battery
// that the relay senses against.
const sensingEarthM = 0.5

// groundM is how long a coupling's own earth lead is: as the way to its earth point.
func (d *Design) groundM(to system.Terminal) float64 {
	way := d.Facts.StartM.Value
	switch to.Component {
	case system.StartEarth:
	case "x1":
		way *= 1 - d.plugShare()
	default:
		way = d.Facts.AuxM.Value + d.Facts.EarthM.Value
	}
	return max(sensingEarthM, way)
}

// thinWires are what tells a coupling what to do: a charger's trigger, a relay's own
// earth.
func (d *Design) thinWires() {
	t := d.Trigger
	if !d.Wired() && !d.Is.Senses {
		return
	}
	if d.Ahead() {
		d.wire("g3", "g1", system.Signal, term("k2", "85"), term(system.StartEarth, ""), &t, sensingEarthM, lugs)
	}
	if !d.Kind.Charger() {
		t.Trial.Size, t.Bay = d.thin(), d.Start.Bay
		to := term(system.StartEarth, "")
		switch {
		case d.BackCrosses() && d.Crosses(&d.Start): // it comes out with the box, and so does its ground
			to = term("x1", "-t")
		case d.Facts.Relay.AtAuxEarth && d.Back.ByChassis:
			to = term("e2", "")
		}
		d.wire("g1", "g1", system.Signal, term("coupling", "31"), to, &t, d.groundM(to), lugs)
	}
	if !d.Wired() {
		return
	}
	d.wire("t1", "t1", system.Signal, term("feed", "15"), term("f3", "in"), &t, run.BareM, system.Joints{})
	d.System.Wires[len(d.System.Wires)-1].Existing = d.System.Tapped() // it comes with the tap holder
	ids := []string{"t1b", "t1c", "t1d"}
	at, restM := term("f3", "out"), t.LengthM.Value
	for _, switched := range d.inSignal() {
		near := min(reachM, t.LengthM.Value/4)
		d.wire(ids[0], "t1", system.Signal, at, term(switched, "1"), &t, near, system.Joints{})
		at, restM, ids = term(switched, "0"), restM-near, ids[1:]
	}
	d.wire(ids[0], "t1", system.Signal, at, d.signalTo(), &t, restM, system.Joints{})
}
