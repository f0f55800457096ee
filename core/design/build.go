package design

import (
	"cmp"

	"epitrope/core/cable"
	"epitrope/core/feed"
	"epitrope/core/job"
	"epitrope/core/protect"
	"epitrope/core/run"
	"epitrope/core/system"
	"epitrope/core/unit"
)

// build makes the system: every component, and every wire from terminal to
// terminal with what it resists.
func (d *Design) build() {
	d.System = system.System{AuxN: d.Facts.AuxN}
	d.components(d.Facts.Body, d.Facts.Place.At)
	d.feedWires()
	d.returnWires()
	d.bankWires()
	d.linkWires()
	d.thinWires()
	d.selfSignal()
	d.coilWires()
	d.houseWires()
	d.winchWire()
	d.attach()
	d.tapWires()
	d.measure()
	d.bench.laid = nil
}

// CouplingAt is where the coupling sits: where the measured routes meet; without
// both of them, a charger beside the battery it charges,
// a relay at the start battery whose voltage it senses.
func (d *Design) CouplingAt() job.Point {
	b, place := d.Facts.Body, d.Facts.Place.At
	if d.Doc.Routes.StartM != nil && d.Doc.Routes.AuxM != nil {
		share := d.Facts.StartM.Value / (d.Facts.StartM.Value + d.Facts.AuxM.Value)
		return job.Point{X: b.Start.X + share*(place.X-b.Start.X), Y: b.Start.Y + share*(place.Y-b.Start.Y)}
	}
	if d.AtStart() {
		return job.Point{X: b.Start.X + 0.25, Y: b.Start.Y}
	}
	if place.X-b.Start.X < 1.2 {
		return job.Point{X: (b.Start.X + place.X) / 2, Y: place.Y}
	}
	return job.Point{X: place.X - 0.6, Y: place.Y}
}

// AtStart says whether the coupling sits at the start battery, with the long run behind
// it: what has no charger, and a charger that stays in the tow vehicle.
func (d *Design) AtStart() bool {
	return d.Kind.AtStart(d.Facts.Place.Trailer)
}

// CouplingBay is the place that the coupling sits in.
func (d *Design) CouplingBay() cable.Bay {
	if d.AtStart() {
		return d.Start.Bay
	}
	return d.Aux.Bay
}

// Crosses says whether a run goes over the trailer's plug.
func (d *Design) Crosses(l *run.Sized) bool {
	switch {
	case d.Facts.Place.Trailer:
		return (l.ID == "c2") == d.AtStart()
	case d.Is.Splits && l.ID == "c1":
		return false // the vehicle's own charge cable is not plugged
	}
	return d.Facts.Arranged.Plug == map[string]string{"c1": job.PlugStart, "c2": job.PlugAux}[l.ID]
}

// Plugged says whether a plug lies in the run: a trailer's, or that of what comes out of the vehicle.
func (d *Design) Plugged() bool { return d.Crosses(&d.Start) || d.Crosses(&d.Aux) }

// source is the terminal that the run begins at: the start battery's plus, or a machine
// of the run's own.
func (d *Design) source() system.Terminal {
	if d.Is.OwnMachine {
		return term("second", "B+")
	}
	return term("start", "30")
}

// HitchAt is where the plug is: at the tow coupling, or beside what comes out.
func (d *Design) HitchAt() job.Point {
	if d.Facts.Place.Trailer {
		return job.Point{X: 5.2, Y: 0.6}
	}
	near, far := d.Facts.Body.Start, d.CouplingAt()
	if d.Crosses(&d.Aux) {
		near, far = far, d.Facts.Place.At
	}
	return job.Point{X: near.X + outerShare*(far.X-near.X), Y: near.Y + outerShare*(far.Y-near.Y)}
}

// BackCrosses says whether the return has to go over the plug: with all that stands behind it.
func (d *Design) BackCrosses() bool {
	return d.Crosses(d.ReturnLeg()) || !d.Facts.Place.Trailer && d.Crosses(&d.Start)
}

// Behind is what comes away with the other half of the plug.
func (d *Design) Behind() string {
	if d.Facts.Place.Trailer {
		return system.Trailer
	}
	return system.Box
}

// outerShare is the part of a run that stays in the vehicle where what is behind its plug comes out. Source:
// common practice, no source.
const outerShare = 0.8

// plugShare is the part of a run, or of its return, that lies before the plug.
func (d *Design) plugShare() float64 {
	if d.Facts.Place.Trailer {
		return d.HitchAt().X / d.Facts.Place.At.X
	}
	return outerShare
}

// backShare is the part of the return cable that lies before the plug.
func (d *Design) backShare() float64 {
	if d.Facts.Place.Trailer || d.Kind.Charger() {
		return d.plugShare()
	}
	startM, auxM := d.Facts.StartM.Value, d.Facts.AuxM.Value
	before := outerShare * startM
	if d.Crosses(&d.Aux) {
		before = startM + outerShare*auxM
	}
	return before / (startM + auxM)
}

func (d *Design) components(b job.Body, place job.Point) {
	s := &d.System
	s.Add(system.Component{ID: "alternator", Kind: system.KindAlternator, Name: d.MachineName(), Rating: d.Facts.Label.String(),
		Existing: true,
		At:       b.Alternator, Device: system.Machine{Label: d.Facts.Label, SensesOwn: d.SensesOwn()}})
	s.Add(system.Component{ID: "start", Kind: system.KindBattery, Name: "Start battery", Rating: unit.Plain(d.Facts.StartAh.Value, "Ah", 0),
		Existing: true, At: b.Start, Device: system.Bank{Ohm: d.StartOhm(), Start: true}})
	if !d.Start.Unfused {
		s.Add(system.Component{ID: "f1", Kind: system.KindFuse, Name: "F1", Rating: d.Start.Fuse.Label(), At: b.Start,
			Device: d.Start.FuseDevice()})
	}
	if d.FromStud() {
		s.Add(d.outlet())
	}
	if d.Is.OwnMachine {
		s.Add(system.Component{ID: "second", Kind: system.KindAlternator, Name: "Second alternator", Rating: d.Second.String(), At: b.Alternator,
			Device: system.Machine{Label: d.Second, Volts: d.secondV(), Own: true}})
	}
	s.Add(system.Component{ID: "coupling", Kind: d.Is.Part, Name: d.Is.Name, Rating: d.CouplingRating(), At: d.CouplingAt(),
		Device: d.couplingDevice()})
	d.joinComponents()
	d.aheadComponent()
	d.handComponents()
	if d.Plugged() {
		byCable := d.Kind.Charger() && d.Crosses(&d.Aux) || !d.Back.ByChassis && d.BackCrosses()
		s.Add(system.Component{ID: "x1", Kind: system.KindPlug, Name: "X1", Rating: d.PlugCard.Label, At: d.HitchAt(),
			Device: system.Plug{Card: d.PlugCard, Plus: true, Minus: byCable, Behind: d.Behind()}})
	}
	if !d.Aux.Unfused {
		s.Add(system.Component{ID: "f2", Kind: system.KindFuse, Name: "F2", Rating: d.Aux.Fuse.Label(), At: place, Device: d.Aux.FuseDevice()})
	}
	s.Add(system.Component{ID: "aux", Kind: system.KindBattery, Name: "Aux battery", Rating: cmp.Or(d.eachRating(), d.AuxRating()), At: place,
		Device: system.Bank{Ohm: d.AuxOhm(), Each: d.eachRating()}})
	for i, id := range d.members() {
		s.Add(system.Component{ID: id, Kind: system.KindBattery, Name: "Aux battery " + id[len("aux"):], Rating: d.ratingOf(i + 1), At: place,
			Device: system.Member{}})
	}
	s.Add(system.Component{ID: "e1", Kind: system.KindEarth, Name: "E1", Rating: "start battery's earth, chassis side of any sensor",
		Existing: true, At: b.Start})
	if d.Back.ByChassis {
		earthAt := d.CouplingAt()
		if !d.Kind.Charger() {
			earthAt = place
		}
		s.Add(system.Component{ID: "e2", Kind: system.KindEarth, Name: "E2", Rating: "earth point, bare metal", At: earthAt})
	}
	d.extraComponents(place)
	d.tapComponents()
	if d.Wired() {
		s.Add(system.Component{ID: "feed", Kind: system.KindFeedPoint, Name: "Feed point", Rating: d.FeedRating(), Existing: true, At: feedAt,
			Device: d.feedPoint()})
		s.Add(system.Component{ID: "f3", Kind: system.KindFuse, Name: "F3", Rating: d.Trigger.Fuse.Label(), At: feedAt,
			Device: system.Fuse{Fuse: d.Trigger.Fuse, Ohm: protect.Resistance.Value(d.Trigger.Fuse.RatingA)}})
	}
}

// feedAt is where feed points are: at the dashboard's fuses.
var feedAt = job.Point{X: 1.6, Y: 1.1}

// couplingDevice is what is fitted as the coupling.
func (d *Design) couplingDevice() system.Device {
	if d.Kind.Charger() {
		return d.chargerDevice()
	}
	if d.Is.Splits {
		return d.splitterDevice()
	}
	return d.contactDevice("")
}

// CouplingRating is what is fitted as the coupling.
func (d *Design) CouplingRating() string {
	if d.Kind.Charger() {
		return d.Charger.Label
	}
	return d.Contact.Label
}

// FeedRating says what the feed point is.
func (d *Design) FeedRating() string {
	if p, ok := d.tested(); ok {
		return feedRatings[p.Judge().Behaviour]
	}
	switch d.Facts.Day.Trigger {
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

// feedRatings are what a feed point that was tested turned out to be.
var feedRatings = map[feed.Behaviour]string{feed.RunningOnly: "live only while the engine runs", feed.Ignition: "live with the ignition",
	feed.Key: "live with the key at accessory", feed.Consumer: "live with a consumer only", feed.Permanent: "always live",
	feed.Never: "dead while the engine runs", feed.Unknown: "not tested enough"}

// AuxRating is the aux battery as it is labelled.
func (d *Design) AuxRating() string {
	return d.Facts.Chemistry.Label + " " + unit.Plain(d.Facts.AuxAh.Value, "Ah", 0)
}

// eachRating is one battery of a bank as it is labelled; "" where there is one alone.
func (d *Design) eachRating() string {
	count := d.Facts.Survey.AuxCount.Value
	if count < 2 {
		return ""
	}
	return d.ratingOf(0)
}

// ratingOf is a battery of a bank as it is labelled.
func (d *Design) ratingOf(i int) string {
	if i < len(d.Facts.Bank) {
		b := d.Facts.Bank[i]
		return b.Chemistry.Label + " " + unit.Plain(b.Ah, "Ah", 0)
	}
	return d.Facts.Chemistry.Label + " " + unit.Plain(d.Facts.AuxAh.Value/d.Facts.Survey.AuxCount.Value, "Ah", 0)
}

// members are the batteries of a bank beside the first.
func (d *Design) members() []string {
	var list []string
	for i := 2.0; i <= d.Facts.Survey.AuxCount.Value; i++ {
		list = append(list, unit.Say("aux%.0f", i))
	}
	return list
}

func term(component, terminal string) system.Terminal {
	return system.Terminal{Component: component, Terminal: terminal}
}
