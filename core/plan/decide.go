package plan

import (
	"maps"
	"math"

	"epitrope/core/alternator"
	"epitrope/core/circuit"
	"epitrope/core/coupling"
	"epitrope/core/job"
	"epitrope/core/method"
	"epitrope/core/parts"
	"epitrope/core/profile"
	"epitrope/core/system"
)

// design is a plan in the making.
type design struct {
	doc     job.Document
	facts   job.Facts
	book    parts.Book
	kind    coupling.Kind
	methods []method.Candidate
	profile profile.Profile // at the system's voltage

	right        profile.Setting // for this battery
	setting      profile.Setting // that holds
	charger      parts.Charger
	contact      parts.Contact
	changeover   parts.Changeover
	plugCard     parts.Plug
	second       alternator.Label // the machine of a run of its own
	rates        rates
	cycleAh      float64 // to put back on a drive
	needA        float64 // charging that holds the balance
	limitA       float64 // charger output that half the label allows
	autoChargerA float64
	idleA        float64 // what the alternator has for charging at idle
	cruiseA      float64 // and at cruise

	start, aux leg // the two stretches of the run
	back       way // the return of the start side
	trigger    leg
	button     leg // what S1 works a coil by
	house      leg // the feed to what is used, where it is part of the design
	states     []state
	worst      int

	system system.System
	laid   *circuit.Circuit // the system as a circuit; nil until it is asked for
}

// Decide turns a job into a plan with the parts of a book. It always gives a
// plan: where a job cannot work, the notes say so. Same document, same book: same
// plan.
func Decide(doc job.Document, book parts.Book) Plan {
	return newDesign(doc, book).plan()
}

// newDesign decides everything but how it is told.
func newDesign(doc job.Document, book parts.Book) *design {
	d := chosen(doc, book)
	d.rate()
	d.layOut()
	d.size()
	return d
}

// KindOf is the coupling of a job: the pinned one, or the best of the rules.
func KindOf(doc job.Document, book parts.Book) coupling.Kind { return chosen(doc, book).kind }

// chosen decides no more than which coupling it is.
func chosen(doc job.Document, book parts.Book) *design {
	d := &design{doc: doc, book: book}
	if card, ok := doc.Card.Charger(); ok {
		d.book = book.With(card)
	}
	d.choose()
	return d
}

// choose picks the coupling: the pinned one, or the best of the methods.
func (d *design) choose() {
	d.facts = d.doc.Resolve(coupling.DCDC) // lengths do not matter yet
	n := d.facts.N
	d.profile = profile.For(d.facts.Chemistry)
	d.profile.AbsorptionLow *= n
	d.profile.AbsorptionHigh *= n
	d.kind = coupling.DCDC
	d.setCharger()
	d.rateNeed()
	d.methods = method.Judge(d.methodCase())
	for _, m := range d.methods {
		if m.Chosen {
			d.kind = m.Kind
		}
	}
	if pin := d.doc.Pins.Coupling; pin != nil {
		d.kind = coupling.Kind(*pin)
	}
	d.facts = d.doc.Resolve(d.kind)
}

// methodCase is the job as the rules of choosing look at it.
func (d *design) methodCase() method.Case {
	f, n, v := d.facts, d.facts.N, d.facts.Survey
	charger := d.pickCharger(min(d.limitA, d.rates.accepts.Unrounded))
	card, _ := d.book.Charger(charger)
	c := method.Case{
		Varies: f.Varies(), Known: f.Regulation == "variable", Suspect: f.Suspect(), Chemistry: f.Chemistry,
		RouteM: d.routeM(), Trailer: f.Place.Trailer, Hot: f.Place.Hot,
		RegulatedV: f.RegulatedV.Value / n, WantedV: d.profile.AbsorptionLow / n, MostV: d.profile.AbsorptionHigh / n,
		HalfA: d.rates.half.Unrounded, IdleA: d.idleA, NeedA: d.needA, WithinA: d.withinA(),
		ChargerA: charger, ChargerIn: d.inputA(card), LargestA: d.book.Chargers[len(d.book.Chargers)-1].OutputA,
		AcceptsA: d.rates.accepts.Unrounded, RestA: d.book.Changeovers[len(d.book.Changeovers)-1].Relay.BreakA, CrankA: f.CrankA.Value,
		Emergency: v.EmergencyStart == job.Yes, FactoryFeed: f.FactoryFeed(), Solar: f.Day.SolarW.Value > 0, Winch: v.Winch == job.Yes,
		LowBudget: v.Budget == "low", Idling: v.Idling == job.Yes, Alternators: v.Alternators.Value, Room: string(v.SecondRoom)}
	if v.Year != nil {
		c.Year = *v.Year
	}
	if d.doc.Routes.StartM != nil && d.doc.Pins.Coupling != nil {
		c.SensingM = *d.doc.Routes.StartM
	}
	return c
}

// routeM is the way from the start battery to the aux battery: as measured, where both
// of its stretches were, or from the drawing.
func (d *design) routeM() float64 {
	if r := d.doc.Routes; r.StartM != nil && r.AuxM != nil {
		return *r.StartM + *r.AuxM
	}
	return job.Route(d.facts.Body.Start, d.facts.Place.At)
}

// withinA is the largest charger that half the alternators' label feeds; 0 where it feeds
// none.
func (d *design) withinA() float64 {
	best := 0.0
	for _, c := range d.book.Chargers {
		if c.OutputA <= d.limitA {
			best = c.OutputA
		}
	}
	return best
}

// size finds cables and fuses. What the coupling draws depends on what the cable
// loses, so it is settled by repetition: a few rounds, never without end.
func (d *design) size() {
	d.sizeTrigger()
	d.sizeHouse()
	for range 8 {
		d.sizeLegs()
		fitted := d.fitContacts() // before anything is built of them
		d.sizeButton()
		d.build()
		d.solve()
		if moved := d.redraw(); !moved && !fitted {
			break
		}
	}
	d.solveOthers()
}

// redraw takes what the states draw as the legs' current and says whether that
// changed it. A charger's current never falls below what it was sized for; a
// relay's is what the circuit drives.
func (d *design) redraw() bool {
	inA, outA := 0.0, 0.0
	for _, s := range d.states {
		if !s.sags && s.kind == charging && s.Joined && d.kind == coupling.DCDCHighCurrent {
			// Both stages at once: what the bypass carries, and the charger beside it.
			inA, outA = max(inA, s.inA+d.inputA(d.charger)), max(outA, s.outA+d.charger.OutputA)
		} else if !s.sags && s.kind == charging {
			inA, outA = max(inA, s.inA), max(outA, s.outA)
		}
	}
	if d.kind.Charger() && !d.kind.Joins() || inA == 0 {
		inA, outA = max(inA, d.start.amps), max(outA, d.aux.amps)
	}
	passA := 0.0
	if d.joinedCranking() {
		passA = d.crankShare()
	}
	passed := math.Abs(passA-d.start.passA) <= 0.02*passA
	d.start.passA, d.aux.passA = passA, passA
	changed := !passed || math.Abs(inA-d.start.amps) > settledWithin*inA || math.Abs(outA-d.aux.amps) > settledWithin*outA
	d.start.amps, d.aux.amps = inA, outA
	return changed
}

// crankShare is what goes through the join while the engine is cranked.
func (d *design) crankShare() float64 {
	s := d.crankState(d.restState())
	d.settle(&s)
	return math.Abs(had(s.solved.Through("contact")))
}

// settledWithin is the share by which a current may move in a round for the sizes to stay.
const settledWithin = 0.002

// fuseShare is what a part in series is rated at over its continuous current, as
// its fuse is. Source: common practice, no source.
const fuseShare = 1.25

func (d *design) plan() Plan {
	b := d.facts.Body
	figures := d.workings()
	if fig, _, ok := d.winding(); ok {
		figures["winding"] = fig
	}
	if fig, ok := d.caseHeat(); ok {
		figures["case"] = fig
	}
	checks, needs := d.checks(), d.needs()
	maps.Copy(figures, needs.Work)
	for _, c := range checks {
		if c.Figure != "" {
			figures[c.Figure] = c.Work
		}
	}
	return Plan{
		Format: Format, Version: Version, Job: d.doc.Digest(),
		Coupling: string(d.kind), Summary: d.summary(),
		Methods: d.methods,
		Vehicle: Scene{Kind: b.Kind, Label: b.Label, LengthM: b.LengthM, HeightM: b.HeightM, Outlines: b.Outlines, Wheels: b.Wheels},
		System:  d.system,
		Columns: d.columns(figures), Covers: d.covers(), Returns: d.segments(),
		Joints: d.joints(), Curves: d.curves(), States: d.shownStates(), Marks: d.marks(), Notes: d.notes(),
		Chain: d.chain(), Bank: d.bank(), Checks: checks, Needs: needs, Signal: d.signal(), Settings: d.settings(),
		Questions: d.facts.Questions(), Facts: d.facts.List, Title: d.title(),
		Cautions: cautions, Figures: figures,
	}
}
