package plan

import (
	"epitrope/core/cable"
	"epitrope/core/coupling"
	"epitrope/core/job"
	"epitrope/core/protect"
	"epitrope/core/system"
	"epitrope/core/working"
)

// build makes the system: every component, and every wire from terminal to
// terminal with what it resists.
func (d *design) build() {
	d.system = system.System{}
	d.components(d.facts.Body, d.facts.Place.At)
	d.feedWires()
	d.returnWires()
	d.linkWires()
	d.thinWires()
	d.coilWires()
	d.houseWires()
	d.winchWire()
	d.attach()
	d.laid = nil
}

// couplingAt is where the coupling sits: where the measured routes meet; without
// both of them, a charger beside the battery it charges,
// a relay at the start battery whose voltage it senses.
func (d *design) couplingAt() job.Point {
	b, place := d.facts.Body, d.facts.Place.At
	if d.doc.Routes.StartM != nil && d.doc.Routes.AuxM != nil {
		share := d.facts.StartM.Value / (d.facts.StartM.Value + d.facts.AuxM.Value)
		return job.Point{X: b.Start.X + share*(place.X-b.Start.X), Y: b.Start.Y + share*(place.Y-b.Start.Y)}
	}
	if d.atStart() {
		return job.Point{X: b.Start.X + 0.25, Y: b.Start.Y}
	}
	if place.X-b.Start.X < 1.2 {
		return job.Point{X: (b.Start.X + place.X) / 2, Y: place.Y}
	}
	return job.Point{X: place.X - 0.6, Y: place.Y}
}

// atStart says whether the coupling sits at the start battery, with the long run behind
// it: what has no charger, and a charger that stays in the tow vehicle.
func (d *design) atStart() bool {
	return d.kind.AtStart() || d.kind == coupling.DCDC && d.facts.Place.Trailer
}

// crosses says whether a run goes over the trailer's plug.
func (d *design) crosses(l *leg) bool {
	return d.facts.Place.Trailer && (l.id == "c2") == d.atStart()
}

// source is the terminal that the run begins at: the start battery's plus, or a machine
// of the run's own.
func (d *design) source() system.Terminal {
	if d.kind == coupling.SecondAlternator {
		return term("second", "B+")
	}
	return term("start", "30")
}

// hitchAt is the tow coupling's socket.
func (d *design) hitchAt() job.Point { return job.Point{X: 5.2, Y: 0.6} }

func (d *design) components(b job.Body, place job.Point) {
	s := &d.system
	s.Add(system.Component{ID: "alternator", Kind: system.KindAlternator, Name: "Alternator", Rating: d.facts.Label.String(), Existing: true, At: b.Alternator, Device: system.Machine{Label: d.facts.Label}})
	s.Add(system.Component{ID: "start", Kind: system.KindBattery, Name: "Start battery", Rating: working.Plain(d.facts.StartAh.Value, "Ah", 0), Existing: true, At: b.Start, Device: system.Bank{Ohm: d.startOhm(), Start: true}})
	s.Add(system.Component{ID: "f1", Kind: system.KindFuse, Name: "F1", Rating: d.start.fuse.Label(), At: b.Start, Device: d.start.fuseDevice()})
	if d.kind == coupling.SecondAlternator {
		s.Add(system.Component{ID: "second", Kind: system.KindAlternator, Name: "Second alternator", Rating: d.second.String(), At: b.Alternator, Device: system.Machine{Label: d.second, Volts: d.secondV(), Own: true}})
	}
	s.Add(system.Component{ID: "coupling", Kind: d.couplingKind(), Name: d.couplingName(), Rating: d.couplingRating(), At: d.couplingAt(), Device: d.couplingDevice()})
	d.joinComponents()
	if d.facts.Place.Trailer {
		byCable := d.kind.Charger() && d.crosses(&d.aux) || !d.back.byChassis && d.crosses(d.returnLeg())
		s.Add(system.Component{ID: "x1", Kind: system.KindPlug, Name: "X1", Rating: d.plugCard.Label, At: d.hitchAt(), Device: system.Plug{Card: d.plugCard, Plus: true, Minus: byCable}})
	}
	s.Add(system.Component{ID: "f2", Kind: system.KindFuse, Name: "F2", Rating: d.aux.fuse.Label(), At: place, Device: d.aux.fuseDevice()})
	s.Add(system.Component{ID: "aux", Kind: system.KindBattery, Name: "Aux battery", Rating: d.auxRating(), At: place, Device: system.Bank{Ohm: d.auxOhm()}})
	s.Add(system.Component{ID: "e1", Kind: system.KindEarth, Name: "E1", Rating: "start battery's earth, chassis side of any sensor", Existing: true, At: b.Start})
	if d.back.byChassis {
		earthAt := d.couplingAt()
		if !d.kind.Charger() {
			earthAt = place
		}
		s.Add(system.Component{ID: "e2", Kind: system.KindEarth, Name: "E2", Rating: "earth point, bare metal", At: earthAt})
	}
	d.extraComponents(place)
	if d.wired() {
		s.Add(system.Component{ID: "feed", Kind: system.KindFeedPoint, Name: "Feed point", Rating: d.feedRating(), Existing: true, At: feedAt, Device: system.FeedPoint{LoomOhm: loomOhm}})
		s.Add(system.Component{ID: "f3", Kind: system.KindFuse, Name: "F3", Rating: d.trigger.fuse.Label(), At: feedAt,
			Device: system.Fuse{Fuse: d.trigger.fuse, Ohm: protect.Resistance.Value(d.trigger.fuse.RatingA)}})
	}
}

// feedAt is where feed points are: at the dashboard's fuses.
var feedAt = job.Point{X: 1.6, Y: 1.1}

// couplingNames are what the coupling is called on the run.
var couplingNames = map[coupling.Kind]string{
	coupling.VSR: "Relay", coupling.SwitchedContactor: "Contactor", coupling.ManualSelector: "Selector", coupling.SecondAlternator: "Isolator"}

func (d *design) couplingName() string {
	if name, ok := couplingNames[d.kind]; ok {
		return name
	}
	return "DC-DC"
}

func (d *design) couplingKind() system.ComponentKind {
	switch d.kind {
	case coupling.VSR:
		return system.KindRelay
	case coupling.SwitchedContactor, coupling.ManualSelector:
		return system.KindContactor
	case coupling.SecondAlternator:
		return system.KindIsolator
	}
	return system.KindCharger
}

// couplingDevice is what is fitted as the coupling.
func (d *design) couplingDevice() system.Device {
	if d.kind.Charger() {
		return d.chargerDevice()
	}
	return d.contactDevice("")
}

// couplingRating is what is fitted as the coupling.
func (d *design) couplingRating() string {
	if d.kind.Charger() {
		return d.charger.Label
	}
	return d.contact.Label
}

// feedRating says what the feed point is.
func (d *design) feedRating() string {
	switch d.facts.Day.Trigger {
	case "ignition":
		return "live with the ignition"
	case "accessory":
		return "live with the key at accessory"
	case "switch":
		return "by a switch"
	case "voltage":
		return "none: the charger watches its input"
	}
	return "live only while the engine runs"
}

func (d *design) auxRating() string {
	return d.facts.Chemistry.Label + " " + working.Plain(d.facts.AuxAh.Value, "Ah", 0)
}

func term(component, terminal string) system.Terminal {
	return system.Terminal{Component: component, Terminal: terminal}
}

// lugs are a power wire's two ends, crimped and bolted.
var lugs = system.Joints{From: jointOhm, To: jointOhm}

// wire joins two terminals by a leg's cable, as warm as it runs.
func (d *design) wire(id, of string, role system.Role, from, to system.Terminal, l *leg, lengthM float64, joints system.Joints) {
	size := l.trial.Size
	d.system.Join(system.Wire{ID: id, Run: of, Role: role, From: from, To: to, LengthM: working.Round(lengthM, 2),
		Size: size.Label, CopperMM2: working.Round(size.CopperMM2(), 2), Joint: joints,
		Ohm: cable.Resistance.Value(size.OhmPerM(), lengthM, cable.Alpha, l.trial.ConductorC)})
}

func (d *design) feedWires() {
	d.system.Join(system.Wire{ID: "lead", Run: "lead", Role: system.Feed, From: term("alternator", "B+"), To: term("start", "30"), LengthM: 1, Ohm: leadOhm, Existing: true})
	first := lugs
	if d.facts.Schools.Takeoff == "stud" {
		first.From += leadOhm
	}
	d.wire("c1a", "c1", system.Feed, d.source(), term("f1", "in"), &d.start, d.start.bare(), first)
	behindF1, c1M := term("f1", "out"), d.start.lengthM.Value-d.start.bare()
	beforeF2, c2M := term("f2", "in"), d.aux.lengthM.Value-d.aux.bare()
	post := term("aux", "30")
	switch d.facts.Extras.Isolator {
	case job.FrontIsolator:
		behindF1, c1M = d.isolate("c1", &d.start, behindF1, c1M)
	case job.AuxIsolator:
		beforeF2, c2M = d.isolate("c2", &d.aux, beforeF2, c2M)
	case job.MasterSwitch:
		post, _ = d.isolate("c2", &d.aux, post, c2M)
	}
	if d.relayed() {
		c1M, c2M = c1M-d.start.link(), c2M-d.aux.link()
	}
	d.through("c1", &d.start, behindF1, d.arrives(), c1M)
	d.through("c2", &d.aux, d.leaves(), beforeF2, c2M)
	d.wire("c2c", "c2", system.Feed, term("f2", "out"), post, &d.aux, d.aux.bare(), lugs)
}

// through joins two terminals, by way of the trailer plug where the run crosses it. The
// plug's own contacts are the plug's.
func (d *design) through(of string, l *leg, from, to system.Terminal, lengthM float64) {
	if !d.crosses(l) {
		d.wire(of, of, system.Feed, from, to, l, lengthM, lugs)
		return
	}
	hitch := d.hitchAt().X / d.facts.Place.At.X
	d.wire(of, of, system.Feed, from, term("x1", "+"), l, lengthM*hitch, system.Joints{From: jointOhm})
	d.wire(of+"t", of, system.Feed, term("x1", "+t"), to, l, lengthM*(1-hitch), system.Joints{To: jointOhm})
}

func (d *design) returnWires() {
	l := d.returnLeg()
	minus := d.auxMinus()
	if d.kind.Charger() {
		d.auxReturn(minus, term("coupling", "31"))
		minus = term("coupling", "31")
	}
	e1 := term(system.StartEarth, "")
	switch {
	case d.back.byChassis && d.back.byCable:
		d.wire("n3", l.id, system.Return, minus, e1, l, d.back.alongM, system.Joints{From: jointOhm, To: jointOhm + earthOhm})
		fallthrough
	case d.back.byChassis:
		d.wire("n1", l.id, system.Return, minus, term("e2", ""), l, d.back.cableM, lugs)
		d.system.Join(system.Wire{ID: "chassis", Run: "return", Role: system.Chassis, From: d.bonded(term("e2", "")), To: e1, LengthM: working.Round(d.back.chassisM, 2),
			Ohm: chassisOhmPer * d.back.chassisM, Joint: system.Joints{From: earthOhm, To: earthOhm}, Existing: true})
	case d.crosses(l):
		hitch := d.hitchAt().X / d.facts.Place.At.X
		d.wire("n1t", l.id, system.Return, minus, term("x1", "-t"), l, d.back.cableM*(1-hitch), system.Joints{From: jointOhm})
		d.wire("n1", l.id, system.Return, term("x1", "-"), e1, l, d.back.cableM*hitch, system.Joints{To: jointOhm + earthOhm})
	default:
		d.wire("n1", l.id, system.Return, minus, e1, l, d.back.cableM, system.Joints{From: jointOhm, To: jointOhm + earthOhm})
	}
}

// auxReturn is the aux battery's minus to a charger, by way of the trailer plug where
// the charger stays in the tow vehicle.
func (d *design) auxReturn(from, to system.Terminal) {
	l := &d.aux
	if !d.crosses(l) {
		d.wire("n2", "c2", system.Return, from, to, l, l.returnM, lugs)
		return
	}
	hitch := d.hitchAt().X / d.facts.Place.At.X
	d.wire("n2t", "c2", system.Return, from, term("x1", "-t"), l, l.returnM*(1-hitch), system.Joints{From: jointOhm})
	d.wire("n2", "c2", system.Return, term("x1", "-"), to, l, l.returnM*hitch, system.Joints{To: jointOhm})
}

// sensingEarthM is a relay's own earth lead: short, as it sets what it measures.
const sensingEarthM = 0.5

// thinWires are what tells a coupling what to do: a charger's trigger, a relay's own
// earth.
func (d *design) thinWires() {
	t := d.trigger
	if !d.wired() && d.kind != coupling.VSR {
		return
	}
	if !d.kind.Charger() {
		t.trial.Size = cable.Square(triggerMM2)
		d.wire("g1", "g1", system.Signal, term("coupling", "31"), term(system.StartEarth, ""), &t, sensingEarthM, lugs)
	}
	if !d.wired() {
		return
	}
	d.wire("t1", "t1", system.Signal, term("feed", "15"), term("f3", "in"), &t, bareM, system.Joints{})
	ids := []string{"t1b", "t1c", "t1d"}
	at, restM := term("f3", "out"), t.lengthM.Value
	for _, switched := range d.inSignal() {
		near := min(reachM, t.lengthM.Value/4)
		d.wire(ids[0], "t1", system.Signal, at, term(switched, "1"), &t, near, system.Joints{})
		at, restM, ids = term(switched, "0"), restM-near, ids[1:]
	}
	d.wire(ids[0], "t1", system.Signal, at, d.signalTo(), &t, restM, system.Joints{})
}
