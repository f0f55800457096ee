package study

import (
	"cmp"
	"slices"
	"strings"

	"epitrope/core/coupling"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/judge"
	"epitrope/core/method"
	"epitrope/core/parts"
	"epitrope/core/unit"
	"epitrope/core/verdict"
)

// Offered is a relay, a contactor, a selector, a changeover, a breaker or a battery of the workshop's parts book held against a job:
// the job decided with its card.
type Offered struct {
	Key     string         `json:"key"`
	Item    parts.Item     `json:"item"`
	Changes map[string]any `json:"changes" doc:"What to answer to take it"`
	Now     bool           `json:"now" doc:"What the job has"`
	Level   verdict.Level  `json:"level" enum:"good,open,caution,bad"`
	Does    string         `json:"does" doc:"What it would do here, in figures"`
	Against []string       `json:"against" doc:"What speaks against it"`
	Unsaid  []string       `json:"unsaid" doc:"What neither its card nor the job says, and the plan reckons with in its stead"`
	Comes   string         `json:"comes" doc:"In stock, or when it comes; empty where the book does not say"`
	grave
}

// joins are the couplings that a part of a kind makes.
var joins = map[string]coupling.Kind{"relay": coupling.VSR, "contactor": coupling.SwitchedContactor, "selector": coupling.ManualSelector,
	"changeover": coupling.DCDCChangeover}

// offers says whether a part of the book is one of those that Offered is about, with what it takes to be held against a job.
func offers(i parts.Item) bool {
	_, join := joins[i.Kind]
	return (join || i.Kind == "breaker") && i.RatingA != nil || i.Kind == "battery" && i.CapacityAh != nil
}

// offered holds a part against a job whose plan says already what is named.
func offered(now *design.Design, already map[string]bool, item parts.Item) Offered {
	o := Offered{Key: item.Key(), Item: item, Changes: job.OfPart(item), Level: verdict.Good, Against: []string{}, Unsaid: []string{},
		Comes: comes(item)}
	if kind, join := joins[item.Kind]; join {
		o.Changes["pins.coupling"] = string(kind)
	}
	doc, problems := job.With(now.Doc, o.Changes)
	if len(problems) > 0 { // a book may hold what a job may not
		o.Changes = map[string]any{}
		o.is(verdict.Bad, problems.Error())
		return o
	}
	d := now.With(doc)
	switch item.Kind {
	case "battery":
		o.battery(now, d, already)
	case "breaker":
		o.breaker(now, d, already)
	default:
		o.join(now, d, already)
	}
	if item.Stock != nil && *item.Stock < 1 {
		o.is(verdict.Caution, "none in stock")
	}
	if o.Level == verdict.Good && len(o.Unsaid) > 0 {
		o.Level = verdict.Open
	}
	return o
}

// is adds what speaks against it, once.
func (o *Offered) is(level verdict.Level, text string) {
	o.Level, text = verdict.Worst(o.Level, level), strings.TrimSuffix(text, ".")
	o.Against = o.put(o.Against, level, text)
}

func (o *Offered) unsaid(missing bool, text string) {
	if missing {
		o.Unsaid = append(o.Unsaid, text)
	}
}

// notes adds what the plan with it says at some columns: what stops, and what the job's own plan does not say as well.
func (o *Offered) notes(d *design.Design, already map[string]bool, columns ...string) {
	for _, n := range judge.Notes(d) {
		switch {
		case !slices.Contains(columns, n.Column) || n.ID == "method.pinned": // the reasons are told
		case n.Severity == verdict.Stop:
			o.is(verdict.Bad, n.Text)
		case n.Severity == verdict.Beware && !already[n.ID]:
			o.is(verdict.Caution, n.Text)
		}
	}
}

// join holds what joins two batteries against the job.
func (o *Offered) join(now, d *design.Design, already map[string]bool) {
	item, bears, flows := o.Item, d.Contact.ContinuousA, d.Start.Amps
	if item.Kind == "changeover" {
		bears = d.Changeover.Relay.MakeA
	}
	carry, of := unit.Apart(flows, bears, "A", 0)
	o.Does = "carries " + carry + " of " + of
	o.Now = now.Kind == d.Kind && now.Doc.Relay.Name == item.Name
	if flows > bears {
		o.is(verdict.Bad, "it bears "+of+" for hours and "+carry+" flow")
	}
	for _, m := range d.Methods {
		if m.Kind != d.Kind || !m.RuledOut {
			continue
		}
		for _, r := range m.Reasons {
			if r.Effect == method.RulesOut {
				o.is(verdict.Bad, r.Text)
			}
		}
	}
	o.notes(d, already, atTheRun...)
	if item.Kind == "relay" {
		o.unsaid(item.CutInV == nil, "when it joins: "+unit.Text(d.Contact.Sensing.CutInV*now.Facts.N, "V", 1)+" reckoned")
		o.unsaid(item.CutOutV == nil, "when it parts: "+unit.Text(d.Contact.Sensing.CutOutV*now.Facts.N, "V", 1)+" reckoned")
	}
	o.unsaid(item.Kind == "contactor" && item.StandbyA == nil, "what its coil takes: "+unit.Text(d.Contact.CoilA, "A", 1)+" reckoned")
	o.unsaid(item.Kind == "changeover" && item.RestA == nil, "what its rest contact bears: "+unit.Text(d.Changeover.Relay.BreakA, "A",
		0)+" reckoned")
	o.unsaid(item.CrankA == nil, "what it bears in a start")
	if text := otherVolts(item.VoltsIn, now.Facts.SystemV.Value, forSystem); text != "" {
		o.is(verdict.Bad, text)
	}
	for _, text := range tooThick(d, item, largest(item)) {
		o.is(verdict.Caution, text)
	}
	o.unsaid(now.Facts.N != 1 && len(item.VoltsIn) == 0, "whether it is made for "+unit.Text(now.Facts.SystemV.Value, "V", 0))
	o.unsaid(item.Terminals == "", "what its cables go on")
}

// breaker holds a breaker against the place of F1.
func (o *Offered) breaker(now, d *design.Design, already map[string]bool) {
	item, flows := o.Item, d.Start.Amps
	carry, of := unit.Apart(flows, d.Start.Fuse.Carries(d.Start.Bay.AmbientC), "A", 0)
	o.Does = "at F1: carries " + carry + " of " + of
	o.Now = job.Str(now.Doc.Pins.Device) == "breaker" && now.Start.Fuse.RatingA == *item.RatingA
	o.notes(d, already, "f1", "c1")
	if item.BreaksA != nil && *item.BreaksA < d.Start.NearFault {
		o.is(verdict.Bad, "a short behind it draws "+unit.Kilo(d.Start.NearFault)+" and it breaks "+unit.Kilo(*item.BreaksA))
	}
	o.unsaid(item.BreaksA == nil, "what it breaks: a short behind it draws "+unit.Kilo(d.Start.NearFault))
}

// ofBattery are the checks that a battery in its place is held against.
var ofBattery = []string{"fit", "place", "bank", "drill"}

// battery holds a battery against the job: its place, its use, what charges it.
func (o *Offered) battery(now, d *design.Design, already map[string]bool) {
	item := o.Item
	o.Does = unit.Text(*item.CapacityAh, "Ah", 0) + ", " + unit.Text(d.Autonomy().Value, "days", 1) + " without driving"
	o.Now = now.Facts.AuxAh.Value == *item.CapacityAh && len(item.Profiles) == 1 && now.Facts.ChemistryKnown &&
		now.Facts.Chemistry.ID == item.Profiles[0]
	if d.Autonomy().Value < 1 {
		o.is(verdict.Bad, "it does not last a day without driving")
	}
	for _, c := range judge.Checks(d) {
		if c.Column == "aux" && slices.Contains(ofBattery, c.Group) && (c.Level == verdict.Bad || c.Level == verdict.Caution) {
			o.is(c.Level, c.Text)
		}
	}
	o.notes(d, already, "aux", "coupling")
	if text := otherVolts(item.VoltsIn, now.Facts.AuxV.Value, "it is of %s, and the aux side has %s"); text != "" {
		o.is(verdict.Bad, text)
	}
	o.unsaid(now.Facts.AuxN != 1 && len(item.VoltsIn) == 0, "whether it is of "+unit.Text(now.Facts.AuxV.Value, "V", 0))
	for _, c := range judge.Checks(d) {
		o.unsaid(c.ID == "fit.open" && item.LengthMM != nil, "whether it goes in: not all of battery, recess and opening is measured")
	}
	o.unsaid(len(item.Profiles) != 1, "what it is made of: "+d.Facts.Chemistry.Label+" reckoned")
	o.unsaid(item.LengthMM == nil || item.WidthMM == nil || item.HeightMM == nil, "how large it is")
	o.unsaid(item.WeightKg == nil, "what it weighs")
}

// sortOffered puts those that fit first, of a kind, and of them the cheapest.
func sortOffered(list []Offered) {
	kind := func(o Offered) int { return slices.Index(parts.ItemKinds, o.Item.Kind) }
	slices.SortStableFunc(list, func(a, b Offered) int {
		return cmp.Or(cmp.Compare(kind(a), kind(b)), cmp.Compare(rank(a.Level), rank(b.Level)), cmp.Compare(a.Item.Currency, b.Item.Currency),
			cmp.Compare(asks(a.Item), asks(b.Item)), cmp.Compare(a.Key, b.Key))
	})
}
