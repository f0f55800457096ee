// Package design decides a job. Of turns a document into a Design: its method, ratings, sized
// runs, the system of parts and wires that they make, and that system solved in every state of
// the vehicle. All that is told of a job asks the one design, which is not changed after.
//
// In turn: choose the coupling (design.go), rate it (ratings.go), lay the runs out (routes.go),
// size them and solve what they draw until neither changes (size.go), building the system anew
// each time (build.go, wires.go, extras.go, joining.go).
package design

import (
	"sync"

	"epitrope/core/alternator"
	"epitrope/core/circuit"
	"epitrope/core/coupling"
	"epitrope/core/job"
	"epitrope/core/method"
	"epitrope/core/parts"
	"epitrope/core/profile"
	"epitrope/core/run"
	"epitrope/core/system"
)

// Design is a decided job: its method, ratings, sized runs and system, and the states that
// it was solved in. It is not changed after, and may be asked by many at once.
type Design struct {
	Doc     job.Document
	Facts   job.Facts
	Book    parts.Book
	Kind    coupling.Kind
	Is      Arrangement // of that kind
	Methods []method.Candidate
	Profile profile.Profile // at the system's voltage

	Right        profile.Setting // for this battery
	Setting      profile.Setting // that holds
	Charger      parts.Charger
	Contact      parts.Contact
	Changeover   parts.Changeover
	PlugCard     parts.Plug
	Second       alternator.Label // the machine of a run of its own
	Rates        Rates
	CycleAh      float64 // to put back on a drive
	NeedA        float64 // charging that holds the balance
	LimitA       float64 // charger output that half the label allows
	AutoChargerA float64
	IdleA        float64 // what the alternator has for charging at idle
	CruiseA      float64 // and at cruise

	Start, Aux run.Sized // the two stretches of the run
	Back       WayBack   // the return of the start side
	Trigger    run.Sized
	Button     run.Sized     // what S1 works a coil by
	Taps       []Tap         // what hangs on the run at the coupling
	AheadCard  parts.Contact // K2 ahead of the charger, where there is one
	House      run.Sized     // the feed to what is used, where it is part of the design
	States     []State
	Worst      int

	System   system.System
	Measured []Measured // pieces of it that somebody measured …
	Nowhere  []string   // … and rows of what it does not have
	given    parts.Book // before the job's own card

	bench *bench
	known *sync.Map // what was run through time of it, by what was asked
}

// bench is the system laid out as a circuit. A state sets the values of the one circuit that
// all share, so that one is solved at a time.
type bench struct {
	solving sync.Mutex
	laid    *circuit.Circuit // nil until it is asked for
}

// Of decides a job with the parts of a book. It always gives a design: where a job cannot
// work, its answers say so. Same document, same book: same design.
func Of(doc job.Document, book parts.Book) *Design {
	d := &Design{Doc: doc.Under(book.Habits), Book: book, given: book, bench: &bench{}, known: &sync.Map{}}
	if card, ok := doc.Card.Charger(); ok {
		d.Book = book.With(card)
	}
	d.choose()
	d.rate()
	d.layOut()
	d.size()
	return d
}

// With is another document decided with the same parts: the same job with an answer changed.
func (d *Design) With(doc job.Document) *Design { return Of(doc, d.given) }

// choose picks the coupling: the pinned one, or the best of the methods.
func (d *Design) choose() {
	d.Facts = d.Doc.Resolve(coupling.DCDC) // lengths do not matter yet
	n := d.Facts.AuxN
	d.Profile = profile.For(d.Facts.Chemistry)
	d.Profile.AbsorptionLow *= n
	d.Profile.AbsorptionHigh *= n
	d.Kind = coupling.DCDC
	d.setCharger()
	d.rateNeed()
	d.Methods = method.Judge(d.methodCase())
	for _, m := range d.Methods {
		if m.Chosen {
			d.Kind = m.Kind
		}
	}
	if pin := d.Doc.Pins.Coupling; pin != nil {
		d.Kind = coupling.Kind(*pin)
	}
	d.Is, d.Facts = arranged(d.Kind), d.Doc.Resolve(d.Kind)
	if d.FromSecond() {
		d.Is.OwnMachine = true
		d.rateSecond()
	}
}

// methodCase is the job as the rules of choosing look at it.
func (d *Design) methodCase() method.Case {
	f, n, v := d.Facts, d.Facts.N, d.Facts.Survey
	charger := d.pickCharger(min(d.LimitA, d.Rates.Accepts.Unrounded))
	card, _ := d.Book.Charger(charger)
	c := method.Case{
		Varies: f.Varies(), Known: f.Regulation == "variable", Suspect: f.Suspect(), Chemistry: f.Chemistry, Unnamed: !f.ChemistryKnown,
		RouteM: d.routeM(), Trailer: f.Place.Trailer, Hot: f.Place.Hot,
		RegulatedV: f.RegulatedV.Value / n, WantedV: d.Profile.AbsorptionLow / f.AuxN, MostV: d.Profile.AbsorptionHigh / f.AuxN,
		Apart: f.AuxN != f.N,
		HalfA: d.Rates.Half.Unrounded, IdleA: d.IdleA, NeedA: d.NeedA, WithinA: d.WithinA(),
		ChargerA: charger, ChargerIn: d.InputA(card), LargestA: d.Book.Chargers[len(d.Book.Chargers)-1].OutputA,
		AcceptsA: d.Rates.Accepts.Unrounded, CrankA: f.CrankA.Value,
		RestA:     f.Relay.OnChangeover(d.Book.Changeovers[len(d.Book.Changeovers)-1]).Relay.BreakA,
		Emergency: v.EmergencyStart == job.Yes, FactoryFeed: f.FactoryFeed(), Solar: f.Day.SolarW.Value > 0, Winch: v.Winch == job.Yes,
		LowBudget: v.Budget == "low", Idling: v.Idling == job.Yes, Alternators: v.Alternators.Value, Room: string(v.SecondRoom)}
	if v.Senses != "battery" {
		c.SplitV = parts.SplitterV(d.Doc.Pins.Splitter)
	}
	if v.Year != nil {
		c.Year = *v.Year
	}
	if d.Doc.Routes.StartM != nil && d.Doc.Pins.Coupling != nil {
		c.SensingM = *d.Doc.Routes.StartM
	}
	return c
}

// routeM is the way from the start battery to the aux battery: as measured, where both
// of its stretches were, or from the drawing.
func (d *Design) routeM() float64 {
	if r := d.Doc.Routes; r.StartM != nil && r.AuxM != nil {
		return *r.StartM + *r.AuxM
	}
	return job.Route(d.Facts.Body.Start, d.Facts.Place.At)
}

// WithinA is the largest charger that half the alternators' label feeds; 0 where it feeds
// none.
func (d *Design) WithinA() float64 {
	best := 0.0
	for _, c := range d.Book.Chargers {
		if c.OutputA <= d.LimitA {
			best = c.OutputA
		}
	}
	return best
}
