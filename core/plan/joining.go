package plan

import (
	"math"
	"strings"

	"epitrope/core/cable"
	"epitrope/core/coupling"
	"epitrope/core/job"
	"epitrope/core/protect"
	"epitrope/core/system"
	"epitrope/core/working"
)

// reachM is the wire from the feed point's fuse to what a person works, on the same
// dashboard. Source: common practice, no source.
const reachM = 0.5

// relayed says whether a relay of its own, K1, stands beside the charger.
func (d *design) relayed() bool {
	return d.kind == coupling.DCDCChangeover || d.kind == coupling.DCDCHighCurrent
}

// arrives is the terminal at which the run from the start side ends.
func (d *design) arrives() system.Terminal {
	if d.relayed() {
		return term("k1", "30")
	}
	return term("coupling", "30")
}

// leaves is the terminal at which the run to the aux battery begins.
func (d *design) leaves() system.Terminal {
	if d.relayed() {
		return term("k1", "87")
	}
	return d.gives()
}

// gives is the coupling's own terminal on the aux side.
func (d *design) gives() system.Terminal {
	if d.kind.Charger() {
		return term("coupling", "out")
	}
	return term("coupling", "87")
}

// joinOhm is the contact that joins the batteries.
func (d *design) joinOhm() float64 {
	if d.kind == coupling.DCDCChangeover {
		return d.changeover.ContactOhm
	}
	return d.contact.ContactOhm
}

// coilA is what the coil of that contact takes.
func (d *design) coilA() float64 {
	if d.kind == coupling.DCDCChangeover {
		return d.changeover.Relay.CoilA
	}
	return d.contact.CoilA
}

// coil is the coil's plus and minus.
func (d *design) coil() (plus, minus system.Terminal) {
	if d.relayed() {
		return term("k1", "86"), term("k1", "85")
	}
	return term("coupling", "86"), term("coupling", "31")
}

// signalTo is where the wire that tells the coupling what to do ends.
func (d *design) signalTo() system.Terminal {
	if d.kind.Coil() {
		plus, _ := d.coil()
		return plus
	}
	return term("coupling", "15")
}

// control is how a person works the coil that joins the batteries, by S1.
type control int

const (
	noControl control = iota
	takesOver         // from the signal to a feed of its own
	alone             // by the button only
)

func (d *design) control() control {
	switch {
	case d.kind == coupling.DCDCChangeover:
		return alone
	case d.kind == coupling.ManualSelector, d.kind == coupling.SwitchedContactor && d.facts.Survey.EmergencyStart == job.Yes:
		return takesOver
	}
	return noControl
}

// seriesSwitch is the switch in the signal's wire: S1, or S2 where that works the coil; ""
// where there is none.
func (d *design) seriesSwitch() string {
	if !d.wired() || !d.facts.Schools.InSeries && d.facts.Day.Trigger != "switch" {
		return ""
	}
	if d.control() != noControl {
		return "s2"
	}
	return "s1"
}

// inSignal are what the signal's wire goes through by hand, in turn.
func (d *design) inSignal() []string {
	list := []string{}
	if id := d.seriesSwitch(); id != "" {
		list = append(list, id)
	}
	if d.control() == takesOver {
		list = append(list, "s1")
	}
	return list
}

// ownFeed is the terminal that S1 takes the coil's current from, by way of F5: from the
// battery that still has some.
func (d *design) ownFeed() (from system.Terminal, ok bool) {
	switch {
	case d.control() == noControl:
		return system.Terminal{}, false
	case d.kind == coupling.ManualSelector:
		return d.arrives(), true
	}
	return d.leaves(), true
}

// joinComponents are K1, S1, S2 and F5, where they are.
func (d *design) joinComponents() {
	s, at := &d.system, d.couplingAt()
	switch d.kind {
	case coupling.DCDCChangeover:
		s.Add(system.Component{ID: "k1", Kind: system.KindChangeover, Name: "K1", Rating: d.changeover.Label, At: at, Device: d.contactDevice("87a")})
	case coupling.DCDCHighCurrent:
		s.Add(system.Component{ID: "k1", Kind: system.KindContactor, Name: "K1", Rating: d.contact.Label, At: at, Device: d.contactDevice("")})
	}
	works := func(id, rating string, throws ...system.Throw) {
		s.Add(system.Component{ID: id, Kind: system.KindControl, Name: strings.ToUpper(id), Rating: rating, At: feedAt, Device: system.Control{Throws: throws}})
	}
	byHand := []system.Throw{{Name: "s1", From: "2", To: "0", When: system.WhileJoined}}
	if d.control() == takesOver {
		byHand[0].When = system.WhileJoinedAlone
		if d.wired() {
			byHand = append(byHand, system.Throw{Name: "s1 with the signal", From: "1", To: "0", When: system.WhileBoth})
		}
	}
	if d.kind == coupling.ManualSelector {
		works("s1", "selector: off, with ignition, always", byHand...)
	} else if d.control() != noControl {
		works("s1", "push-button, momentary, labelled", byHand...)
	}
	if id := d.seriesSwitch(); id != "" {
		works(id, "switch in the signal's wire", system.Throw{Name: id + " in series", From: "1", To: "0", When: system.WhileLive})
	}
	if _, ok := d.ownFeed(); ok {
		s.Add(system.Component{ID: "f5", Kind: system.KindFuse, Name: "F5", Rating: d.button.fuse.Label(), At: at, Device: d.button.fuseDevice()})
	}
}

// contactDevice is what joins the batteries, with its coil where that is wired, or its own
// eye on the voltage.
func (d *design) contactDevice(rest string) system.Contact {
	n := d.facts.N
	c := system.Contact{From: "30", To: "87", Rest: rest, Ohm: d.joinOhm(), PlugIn: rest != "" && d.changeover.PlugIn}
	if d.kind == coupling.VSR {
		c.WatchOhm, c.HoldOhm = 12*n/relaySensesA, 12*n/d.contact.Sensing.CoilA
	}
	if d.relayed() || d.kind.Coil() && (d.wired() || d.control() == takesOver) {
		c.CoilPlus, c.CoilMinus = d.coil()
		c.CoilOhm = 12 * n / d.coilA()
	}
	return c
}

// fuseDevice is a leg's fuse in its holder.
func (l *leg) fuseDevice() system.Fuse { return system.Fuse{Fuse: l.fuse, Ohm: l.fuseOhm()} }

// chargerDevice is the charger as it is set and wired.
func (d *design) chargerDevice() system.Charger {
	c := system.Charger{Card: d.charger, OutV: d.setV() + taperV, RestOhm: d.standbyOhm(), BesideA: d.facts.Survey.FeedA.Value}
	if d.wired() && !d.kind.Coil() {
		c.SignalOhm = 12 * d.facts.N / triggerA
	}
	if d.kind == coupling.DCDCHighCurrent {
		c.Works = "K1"
	}
	return c
}

// standbyOhm is a charger's input at rest; one that takes nothing is as good as open.
func (d *design) standbyOhm() float64 {
	return 12 * d.facts.N / max(d.charger.StandbyA, coilOffA)
}

// link is how much of a leg is the link between K1 and the charger.
func (l *leg) link() float64 { return min(linkM, l.lengthM.Value/4) }

// linkWires join K1 and the charger beside it: in the size of the run that they belong to,
// as its fuse has to save them too.
func (d *design) linkWires() {
	if !d.relayed() {
		return
	}
	from := d.arrives()
	if d.kind == coupling.DCDCChangeover {
		from = term("k1", "87a")
	}
	d.wire("k1a", "c1", system.Feed, from, term("coupling", "30"), &d.start, d.start.link(), lugs)
	d.wire("k1b", "c2", system.Feed, term("coupling", "out"), d.leaves(), &d.aux, d.aux.link(), lugs)
}

// addLinks counts the links' four ends in series with the runs.
func (d *design) addLinks() {
	if d.relayed() {
		d.start.jointsOhm += 2 * jointOhm
		d.aux.jointsOhm += 2 * jointOhm
	}
}

// sizeButton sizes the thin wires by which S1 works the coil from a feed of its own.
func (d *design) sizeButton() {
	from, ok := d.ownFeed()
	if !ok {
		return
	}
	volts, ohm := d.facts.Chemistry.RestV(1)*d.facts.N, d.auxOhm()+d.aux.totalOhm()
	if from == d.arrives() {
		volts, ohm = d.facts.RegulatedV.Value, d.startOhm()+d.start.totalOhm()
	}
	ohm += bareM * cable.Square(triggerMM2).OhmPerM() // a short behind F5 is fed over the run and its own wire
	a := stretch{id: "s1", fuseID: "f5", amps: d.coilA(), lengthM: d.facts.TriggerM, bay: cable.Ambient(triggerBayC),
		device: protect.Device{Families: protect.Small}, sourceV: volts, sourceOhm: ohm, budgetV: 1}
	thin := []cable.Size{cable.Square(triggerMM2)}
	d.button = Size(a, thin, d.facts.Insulation, 12*d.facts.N)
	if d.button.noFuse != nil { // none breaks such a short, which a note says
		d.button.fuse, _ = protect.Choose(protect.Need{ContinuousA: d.button.amps, AmbientC: triggerBayC, CableA: d.button.trial.AmpacityA}, protect.Small)
	}
}

// noteButton says where no small fuse breaks a short behind F5.
func (d *design) noteButton(n *noted) {
	if _, ok := d.ownFeed(); ok && d.button.nearFault > d.button.fuse.Family.BreaksA {
		n.add("button.breaks", "coupling", caution, with(working.Text(d.button.nearFault/1000, "kA", 1), d.button.fuse.Label(), working.Text(d.button.fuse.Family.BreaksA/1000, "kA", 0)), nil)
	}
}

// sharingS is a join to share charge. Source: common practice, no source: ten to fifteen
// minutes.
const sharingS = 15 * 60.0

// noteEmergency says what the fuses would do in the emergency start that was chosen.
func (d *design) noteEmergency(n *noted) {
	if d.control() == noControl {
		return
	}
	note := func(id, in string, lasts float64) {
		amps := math.Abs(had(d.stateBy(in).solved.Through("contact")))
		if fuse, after := d.soonest(amps); after <= lasts {
			n.add(id, "coupling", caution, with(working.Text(amps, "A", 0), fuse, working.Seconds(after)), nil, set("Join ten seconds, part, crank", "schools.emergency", "precharge"))
		}
	}
	switch d.facts.Schools.Emergency {
	case "crank":
		note("emergency.crank", "joined", longStartS)
	case "share":
		note("emergency.share", "precharge", sharingS)
	}
}

// coilWires work the coil: from S1's own feed, or from the charger that decides, and back to
// the coupling's minus.
func (d *design) coilWires() {
	plus, minus := d.coil()
	t := &d.trigger
	if from, ok := d.ownFeed(); ok {
		t = &d.button
		d.wire("s1a", "s1", system.Signal, from, term("f5", "in"), t, bareM, lugs)
		d.wire("s1b", "s1", system.Signal, term("f5", "out"), term("s1", "2"), t, t.lengthM.Value, system.Joints{})
		if d.control() == alone {
			d.wire("s1c", "s1", system.Signal, term("s1", "0"), plus, t, t.lengthM.Value, system.Joints{})
		}
	}
	if d.kind == coupling.DCDCHighCurrent {
		d.wire("k1c", "k1", system.Signal, term("coupling", "K1"), plus, t, linkM, system.Joints{})
	}
	if d.relayed() {
		d.wire("g2", "g1", system.Signal, minus, term("coupling", "31"), t, linkM, system.Joints{})
	}
}
