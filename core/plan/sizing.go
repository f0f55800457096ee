package plan

import (
	"fmt"

	"epitrope/core/coupling"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/working"
)

// Sizing is a way to fill the coupling's place with chargers: one, two, one with a
// high-current stage, or one with a feed beside it.
type Sizing struct {
	Label    string         `json:"label"`
	Changes  map[string]any `json:"changes" doc:"What to pin for it"`
	OutA     float64        `json:"outA"`
	InA      float64        `json:"inA" doc:"Drawn at worst"`
	Share    float64        `json:"share" doc:"Of the alternator's label, in %"`
	IdleA    float64        `json:"idleA" doc:"What idle, hot, lamps on, leaves of it: negative is taken from the start battery"`
	CruiseA  float64        `json:"cruiseA" doc:"What cruise leaves"`
	Cable    string         `json:"cable"`
	FuseA    float64        `json:"fuseA"`
	DropV    float64        `json:"dropV" doc:"Lost in the start run"`
	BackH    float64        `json:"backH" doc:"Driving that puts back a cycle's use; 0 where it never does"`
	GivesA   float64        `json:"givesA" doc:"What it settles at in the heat of its place, or of its box"`
	Now      bool           `json:"now" doc:"What the plan has"`
	Advised  bool           `json:"advised" doc:"The smallest that holds the balance within every limit"`
	Level    Level          `json:"level" enum:"good,caution,bad"`
	Against  []string       `json:"against" doc:"What speaks against it"`
	CopperKg float64        `json:"copperKg"`
	Cost     float64        `json:"cost" doc:"In % of the price of a 30 A charger"`
}

// Sizings lists the ways to choose a charger's size on a job, smallest first.
func Sizings(doc job.Document, book parts.Book) []Sizing {
	now := newDesign(doc, book)
	kind := now.kind
	if !kind.Charger() {
		kind = coupling.DCDC
		if now.facts.Place.Trailer {
			kind = coupling.TrailerCharger
		}
	}
	list := []Sizing{}
	add := func(label string, changes map[string]any) {
		changes["pins.coupling"] = string(kind)
		if k, ok := changes["kind"]; ok {
			changes["pins.coupling"] = k
			delete(changes, "kind")
		}
		changed, problems := job.With(doc, changes)
		if len(problems) > 0 {
			return
		}
		list = append(list, sizing(label, changes, newDesign(changed, book), now))
	}
	one := kind
	if one == coupling.DCDCHighCurrent {
		one = coupling.DCDC
	}
	for _, c := range now.book.Chargers {
		add(working.Plain(c.OutputA, "A", 0), map[string]any{"pins.chargerA": now.pinOf(c.OutputA), "pins.chargerCount": nil, "kind": string(one)})
	}
	for _, c := range now.book.Chargers {
		if c.OutputA >= twoFromA {
			add("two of "+working.Plain(c.OutputA, "A", 0), map[string]any{"pins.chargerA": now.pinOf(c.OutputA), "pins.chargerCount": 2.0, "kind": string(one)})
		}
	}
	if !now.facts.Place.Trailer {
		best := now.autoChargerA
		if best == 0 {
			best = now.withinA()
		}
		if card, ok := now.book.Charger(best); ok {
			add(working.Plain(card.OutputA, "A", 0)+" with high-current stage", map[string]any{"pins.chargerA": now.pinOf(best), "pins.chargerCount": nil, "kind": string(coupling.DCDCHighCurrent)})
		}
	}
	advise(list)
	return list
}

// twoFromA is the charger from which two side by side are looked at.
const twoFromA = 30.0

func sizing(label string, changes map[string]any, d, now *design) Sizing {
	worst := d.hardest()
	o := Sizing{Label: label, Changes: changes, OutA: d.charger.OutputA, InA: working.Round(d.start.amps, 0), Share: working.Round(100*d.start.amps/d.facts.LabelA.Value, 0),
		IdleA: working.Round(d.idleA-d.idleState().inA, 0), CruiseA: working.Round(d.cruiseA-worst.inA, 0),
		Cable: d.start.trial.Size.Copper(), FuseA: d.start.fuse.RatingA, DropV: working.Round(d.start.trial.DropV, 2), GivesA: d.charger.OutputA,
		Now: d.kind == now.kind && d.charger.OutputA == now.charger.OutputA && d.charger.Label == now.charger.Label, Level: Good, Against: []string{}}
	if d.kind == coupling.DCDCHighCurrent {
		o.OutA = working.Round(worst.outA, 0)
	}
	bill := d.bill()
	o.CopperKg, o.Cost = bill.CopperKg, bill.Cost
	against := func(level Level, text string, args ...any) {
		o.Against = append(o.Against, fmt.Sprintf(text, args...))
		if o.Level != Bad {
			o.Level = level
		}
	}
	share := coupling.Derate(d.aux.bay.AmbientC, d.charger.MaxAmbientC)
	if box, ok := d.inBox(); ok {
		share = min(share, coupling.Derate(box.work.Unrounded, d.charger.MaxAmbientC))
	}
	if share < 1 {
		o.GivesA = working.Round(share*d.charger.OutputA, 0)
		against(Caution, "in the heat of its place it gives %s", working.Text(o.GivesA, "A", 0))
	}
	if fails := d.fails(); fails != "" {
		against(Bad, "%s", fails)
	}
	if d.start.noCable != nil || d.start.noFuse != nil {
		against(Bad, "no cable on the reels with a fuse that saves it")
	}
	if half := d.rates.half.Unrounded; d.start.amps > half {
		against(Caution, "draws %s, over half of the label (%s)", working.Text(d.start.amps, "A", 0), working.Text(half, "A", 0))
	}
	if accepts := d.rates.accepts.Unrounded; d.charger.OutputA > accepts {
		against(Caution, "the battery accepts %s", working.Text(accepts, "A", 0))
	}
	gives := min(o.GivesA, d.rates.accepts.Unrounded)
	if d.kind == coupling.DCDCHighCurrent {
		gives = o.OutA
	}
	if gives < d.needA {
		against(Caution, "%s would hold the balance", working.Text(d.needA, "A", 0))
	}
	if gives > 0 && d.cycleAh > 0 {
		o.BackH = working.Round(d.cycleAh/(gives*d.facts.Chemistry.Efficiency), 1)
	}
	if d.facts.Survey.Idling == job.Yes && o.IdleA < 0 {
		against(Caution, "at idle the start battery gives %s", working.Text(-o.IdleA, "A", 0))
	}
	return o
}

// fails is the first state while charging that has no solution, in words; "" for none.
func (d *design) fails() string {
	for _, s := range d.states {
		if s.kind == charging && s.err != nil && !s.sags {
			return "in the state “" + s.label + "” " + s.err.Error()
		}
	}
	return ""
}

// advise marks the smallest that holds the balance and has nothing against it.
func advise(list []Sizing) {
	for i, o := range list {
		if o.Level == Good {
			list[i].Advised = true
			return
		}
	}
}
