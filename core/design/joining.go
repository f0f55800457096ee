package design

import (
	"strings"

	"epitrope/core/cable"
	"epitrope/core/coupling"
	"epitrope/core/job"
	"epitrope/core/protect"
	"epitrope/core/run"
	"epitrope/core/system"
)

// reachM is the wire from the feed point's fuse to what a person works, on the same
// dashboard. Source: common practice, no source.
const reachM = 0.5

// Relayed says whether a relay of its own, K1, stands beside the charger.
func (d *Design) Relayed() bool {
	return d.Is.Beside != NoRelay
}

// arrives is the terminal at which the run from the start side ends.
func (d *Design) arrives() system.Terminal {
	if d.Relayed() {
		return term("k1", "30")
	}
	if d.Is.Splits {
		return term("coupling", splitterStart)
	}
	return term("coupling", "30")
}

// leaves is the terminal at which the run to the aux battery begins.
func (d *Design) leaves() system.Terminal {
	if d.Relayed() {
		return term("k1", "87")
	}
	return d.Gives()
}

// Gives is the coupling's own terminal on the aux side.
func (d *Design) Gives() system.Terminal {
	if d.Kind.Charger() {
		return term("coupling", "out")
	}
	if d.Is.Splits {
		return term("coupling", splitterAux)
	}
	return term("coupling", "87")
}

// coil is the coil's plus and minus.
func (d *Design) coil() (plus, minus system.Terminal) {
	if d.Relayed() {
		return term("k1", "86"), term("k1", "85")
	}
	return term("coupling", "86"), term("coupling", "31")
}

// signalTo is where the wire that tells the coupling what to do ends.
func (d *Design) signalTo() system.Terminal {
	if d.Ahead() {
		return term("k2", "86")
	}
	if d.Kind.Coil() {
		plus, _ := d.coil()
		return plus
	}
	return term("coupling", "15")
}

// Selector is what S1 stands at: with the ignition, where there is no selector.
func (d *Design) Selector() coupling.Selector {
	if d.Is.ByHand != Selector {
		return coupling.WithIgnition
	}
	return d.Facts.Schools.Selector
}

// WorkedByHand is how a person joins the batteries, on this job.
func (d *Design) WorkedByHand() ByHand {
	if d.Is.ByHand == ButtonIfWanted && d.Facts.Survey.EmergencyStart != job.Yes {
		return NoHand
	}
	return d.Is.ByHand
}

// takesOver says whether S1 takes a coil that the signal works over to a feed of its own.
func (d *Design) takesOver() bool { h := d.WorkedByHand(); return h == ButtonIfWanted || h == Selector }

// seriesSwitch is the switch in the signal's wire: S1, or S2 where that works the coil; ""
// where there is none.
func (d *Design) seriesSwitch() string {
	if !d.Wired() || !d.Facts.Schools.InSeries && d.Facts.Day.Trigger != "switch" {
		return ""
	}
	if d.WorkedByHand() != NoHand {
		return "s2"
	}
	return "s1"
}

// inSignal are what the signal's wire goes through by hand, in turn.
func (d *Design) inSignal() []string {
	list := []string{}
	if id := d.seriesSwitch(); id != "" {
		list = append(list, id)
	}
	if d.takesOver() {
		list = append(list, "s1")
	}
	return list
}

// OwnFeed is the terminal that S1 takes the coil's current from, by way of F5: from the
// battery that still has some.
func (d *Design) OwnFeed() (from system.Terminal, ok bool) {
	switch {
	case d.WorkedByHand() == NoHand:
		return system.Terminal{}, false
	case d.Is.ByHand == Selector:
		return d.arrives(), true
	}
	return d.leaves(), true
}

// joinComponents are K1, S1, S2 and F5, where they are.
func (d *Design) joinComponents() {
	s, at := &d.System, d.CouplingAt()
	switch d.Is.Beside {
	case RestContact:
		s.Add(system.Component{ID: "k1", Kind: system.KindChangeover, Name: "K1", Rating: d.Changeover.Label, At: at,
			Device: d.contactDevice("87a")})
	case Bypass:
		s.Add(system.Component{ID: "k1", Kind: system.KindContactor, Name: "K1", Rating: d.Contact.Label, At: at, Device: d.contactDevice("")})
	}
	works := func(id, rating string, usual system.Hand, throws ...system.Throw) {
		s.Add(system.Component{ID: id, Kind: system.KindControl, Name: strings.ToUpper(id), Rating: rating, At: feedAt,
			Device: system.Control{Throws: throws, Usual: usual}})
	}
	own := system.Throw{Name: "s1", From: "2", To: "0", At: []system.Hand{system.Held, system.Always}}
	signal := system.Throw{Name: "s1 with the signal", From: "1", To: "0", At: []system.Hand{system.Released, system.WithSignal}}
	byHand := []system.Throw{own}
	if d.takesOver() && d.Wired() {
		byHand = append(byHand, signal)
	}
	if d.Is.ByHand == Selector {
		works("s1", "selector: off, with ignition, always", selectorHands[d.Selector()], byHand...)
	} else if d.WorkedByHand() != NoHand {
		rating := "push-button, momentary, labelled"
		if d.Toggles() {
			rating = "toggle switch, guarded, labelled"
		}
		works("s1", rating, system.Released, byHand...)
	}
	if id := d.seriesSwitch(); id != "" {
		works(id, "switch in the signal's wire", system.On,
			system.Throw{Name: id + " in series", From: "1", To: "0", At: []system.Hand{system.On}})
	}
	if _, ok := d.OwnFeed(); ok {
		s.Add(system.Component{ID: "f5", Kind: system.KindFuse, Name: "F5", Rating: d.Button.Fuse.Label(), At: at, Device: d.Button.FuseDevice()})
	}
}

// contactDevice is what joins the batteries, with its coil where that is wired, or its own
// eye on the voltage.
func (d *Design) contactDevice(rest string) system.Contact {
	n := d.Facts.N
	c := system.Contact{From: "30", To: "87", Rest: rest, Ohm: d.joinOhm(), RatingA: d.contactRatingA(), PlugIn: rest != "" &&
		d.Changeover.PlugIn, Stud: d.Contact.Stud}
	if rest != "" {
		c.Stud = d.Changeover.Stud
	}
	if d.Is.Senses {
		c.WatchOhm, c.HoldOhm, c.Senses = 12*n/RelaySensesA, 12*n/d.Contact.Sensing.CoilA, d.Contact.Sensing
	}
	if d.Relayed() || d.Kind.Coil() && (d.Wired() || d.takesOver()) {
		c.CoilPlus, c.CoilMinus = d.coil()
		c.CoilOhm = 12 * n / d.coilA()
		c.PullA, c.DropA = coilPull*d.coilA(), coilDrop*d.coilA()
	}
	c.ByHand = d.Isolates()
	return c
}

// A coil pulls its contact in, and lets it go, at these shares of its current at 12 V. Source:
// from memory: 8 V and 3 V.
const (
	coilPull = 8.0 / 12
	coilDrop = 3.0 / 12
)

// selectorHands is where a selector stands, as a hand has it.
var selectorHands = map[coupling.Selector]system.Hand{coupling.Off: system.Off, coupling.WithIgnition: system.WithSignal,
	coupling.JoinedForGood: system.Always}

// chargerDevice is the charger as it is set and wired.
func (d *Design) chargerDevice() system.Charger {
	c := system.Charger{Card: d.Charger, OutV: d.SetV() + taperV, RestOhm: d.standbyOhm(), BesideA: d.Facts.Survey.FeedA.Value,
		LiveV: d.Facts.Signal.LiveV.Value * d.Facts.N, RestartV: d.Charger.RestartV * d.Facts.N}
	if d.ByVoltage() {
		c.Detects = d.Facts.Detects
	}
	if !d.ByVoltage() {
		c.SignalOhm = d.Facts.Signal.Ohm.Value * d.Facts.N
	}
	if d.Is.Beside == Bypass {
		c.Works, c.Bypass = "K1", coupling.UsualHighCurrent
	}
	return c
}

// standbyOhm is a charger's input at rest; one that takes nothing is as good as open.
func (d *Design) standbyOhm() float64 {
	return 12 * d.Facts.N / max(d.Charger.StandbyA, CoilOffA)
}

// linkWires join K1 and the charger beside it: in the size of the run that they belong to,
// as its fuse has to save them too.
func (d *Design) linkWires() {
	if !d.Relayed() {
		return
	}
	from := d.arrives()
	if d.Is.Beside == RestContact {
		from = term("k1", "87a")
	}
	d.lead("k1", "k1a", "c1", from, term("coupling", "30"), &d.Start, d.Start.Link(), lugs)
	d.lead("k1", "k1b", "c2", term("coupling", "out"), d.leaves(), &d.Aux, d.Aux.Link(), lugs)
}

// addLinks counts the links' four ends in series with the runs.
func (d *Design) addLinks() {
	if d.Relayed() {
		d.Start.JointsOhm += 2 * run.JointOhm
		d.Aux.JointsOhm += 2 * run.JointOhm
	}
}

// sizeButton sizes the thin wires by which S1 works the coil from a feed of its own.
func (d *Design) sizeButton() {
	from, ok := d.OwnFeed()
	if !ok {
		return
	}
	volts, ohm := d.Facts.Chemistry.RestV(1)*d.Facts.AuxN, d.AuxOhm()+d.Aux.TotalOhm()
	if from == d.arrives() {
		volts, ohm = d.Facts.RegulatedV.Value, d.StartOhm()+d.Start.TotalOhm()
	}
	ohm += run.BareM * d.thin().OhmPerM() // a short behind F5 is fed over the run and its own wire
	a := run.Ask{ID: "s1", FuseID: "f5", Amps: d.coilA(), LengthM: d.Facts.TriggerM, Bay: cable.Ambient(triggerBayC).Laid(cable.Conduit),
		Device: protect.Device{Families: protect.Small}, SourceV: volts, SourceOhm: ohm, BudgetV: 1}
	thin := []cable.Size{d.thin()}
	d.Button = run.Size(a, thin, d.Facts.Insulation, 12*d.Facts.N)
	if d.Button.NoFuse != nil { // none breaks such a short, which a note says
		d.Button.Fuse, _ = protect.Choose(protect.Need{ContinuousA: d.Button.Amps, AmbientC: triggerBayC, CableA: d.Button.Trial.AmpacityA},
			protect.Small)
	}
}

// coilWires work the coil: from S1's own feed, or from the charger that decides, and back to
// the coupling's minus.
func (d *Design) coilWires() {
	plus, minus := d.coil()
	t := &d.Trigger
	if from, ok := d.OwnFeed(); ok {
		t = &d.Button
		d.wire("s1a", "s1", system.Signal, from, term("f5", "in"), t, run.BareM, lugs)
		d.wire("s1b", "s1", system.Signal, term("f5", "out"), d.handWires(term("s1", "2")), t, t.LengthM.Value, system.Joints{})
		if d.WorkedByHand() == Button {
			d.wire("s1c", "s1", system.Signal, term("s1", "0"), plus, t, t.LengthM.Value, system.Joints{})
		}
	}
	if d.Is.Beside == Bypass {
		d.wire("k1c", "k1", system.Signal, term("coupling", "K1"), plus, t, run.LinkM, system.Joints{})
	}
	if d.Relayed() {
		d.wire("g2", "g1", system.Signal, minus, term("coupling", "31"), t, run.LinkM, system.Joints{})
	}
}
