package study

import (
	"fmt"

	"epitrope/core/coupling"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/judge"
	"epitrope/core/unit"
	"epitrope/core/verdict"
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
	Level    verdict.Level  `json:"level" enum:"good,open,caution,bad"`
	Against  []string       `json:"against" doc:"What speaks against it"`
	CopperKg float64        `json:"copperKg"`
	Cost     float64        `json:"cost" doc:"In % of the price of a 30 A charger"`
}

// Sizings lists the ways to choose a charger's size on a job, smallest first.
func Sizings(now *design.Design) []Sizing {
	kind := now.Kind
	if !kind.Charger() {
		kind = coupling.DCDC
		if now.Facts.Place.Trailer {
			kind = coupling.TrailerCharger
		}
	}
	list := []Sizing{}
	add := func(label string, changes map[string]any) {
		if _, beside := changes["arranged.besideA"]; !beside {
			changes["arranged.besideA"] = nil
		}
		changes["pins.coupling"] = string(kind)
		if k, ok := changes["kind"]; ok {
			changes["pins.coupling"] = k
			delete(changes, "kind")
		}
		changed, problems := job.With(now.Doc, changes)
		if len(problems) > 0 {
			return
		}
		list = append(list, sizing(label, changes, now.With(changed), now))
	}
	one := oneCharger(now)
	for _, c := range now.Book.Chargers {
		add(unit.Plain(c.OutputA, "A", 0), map[string]any{"pins.chargerA": now.PinOf(c.OutputA), "pins.chargerCount": nil,
			"kind": string(one)})
	}
	for _, c := range now.Book.Chargers {
		if c.OutputA >= twoFromA {
			add("two of "+unit.Plain(c.OutputA, "A", 0), map[string]any{"pins.chargerA": now.PinOf(c.OutputA), "pins.chargerCount": 2.0,
				"kind": string(one)})
		}
	}
	if beside := now.Facts.Arranged.BesideA; beside != nil && len(now.Charger.Parts) > 0 {
		add(now.Charger.Label, map[string]any{"arranged.besideA": *beside, "kind": string(one)})
	}
	if !now.Facts.Place.Trailer {
		best := now.AutoChargerA
		if best == 0 {
			best = now.WithinA()
		}
		if card, ok := now.Book.Charger(best); ok {
			add(unit.Plain(card.OutputA, "A", 0)+" with high-current stage",
				map[string]any{"pins.chargerA": now.PinOf(best), "pins.chargerCount": nil, "kind": string(coupling.DCDCHighCurrent)})
		}
	}
	advise(list)
	return list
}

// oneCharger is the coupling of a single charger on a job.
func oneCharger(now *design.Design) coupling.Kind {
	kind := now.Kind
	switch {
	case kind == coupling.DCDCHighCurrent || !kind.Charger() && !now.Facts.Place.Trailer:
		return coupling.DCDC
	case !kind.Charger():
		return coupling.TrailerCharger
	}
	return kind
}

// twoFromA is the charger from which two side by side are looked at.
const twoFromA = 30.0

func sizing(label string, changes map[string]any, d, now *design.Design) Sizing {
	worst := d.Hardest()
	o := Sizing{Label: label, Changes: changes, OutA: d.Charger.OutputA, InA: unit.Round(d.DrawsA(), 0),
		Share: unit.Round(100*d.DrawsA()/d.Facts.LabelA.Value, 0),
		IdleA: unit.Round(d.IdleA-d.IdleState().InA, 0), CruiseA: unit.Round(d.CruiseA-worst.InA, 0),
		Cable: d.Start.Trial.Size.Copper(), FuseA: d.Start.Fuse.RatingA, DropV: unit.Round(d.Start.Trial.DropV, 2), GivesA: d.Charger.OutputA,
		Now: d.Kind == now.Kind && d.Charger.OutputA == now.Charger.OutputA && d.Charger.Label == now.Charger.Label, Level: verdict.Good,
		Against: []string{}}
	if d.Is.Beside == design.Bypass {
		o.OutA = unit.Round(worst.OutA, 0)
	}
	bill := bill(d)
	o.CopperKg, o.Cost = bill.CopperKg, bill.Cost
	against := func(level verdict.Level, text string, args ...any) {
		o.Against = append(o.Against, fmt.Sprintf(text, args...))
		if o.Level != verdict.Bad {
			o.Level = level
		}
	}
	for _, m := range d.Methods {
		if m.Kind == d.Kind && m.RuledOut {
			against(verdict.Bad, "among the couplings the %s is ruled out", m.Label)
		}
	}
	share := coupling.Derate(d.Aux.Bay.AmbientC, d.Charger.MaxAmbientC)
	if box, ok := judge.InBox(d); ok {
		share = min(share, coupling.Derate(box.Work.Unrounded, d.Charger.MaxAmbientC))
	}
	if share < 1 {
		o.GivesA = unit.Round(share*d.Charger.OutputA, 0)
		against(verdict.Caution, "in the heat of its place it gives %s", unit.Text(o.GivesA, "A", 0))
	}
	if fails := fails(d); fails != "" {
		against(verdict.Bad, "%s", fails)
	}
	if d.Start.NoCable != nil || d.Start.NoFuse != nil {
		against(verdict.Bad, "no cable on the reels with a fuse that saves it")
	}
	if sheet := d.Start.SheetA; sheet > 0 && d.Start.Fuse.RatingA > sheet {
		against(verdict.Caution, "F1 is %s, its sheet allows %s", unit.Plain(d.Start.Fuse.RatingA, "A", 1), unit.Plain(sheet, "A", 1))
	}
	if half := d.Rates.Half.Unrounded; d.DrawsA() > half {
		against(verdict.Caution, "draws %s, over half of the label (%s)", unit.Text(d.DrawsA(), "A", 0), unit.Text(half, "A", 0))
	}
	if accepts := d.Rates.Accepts.Unrounded; d.Charger.OutputA > accepts {
		against(verdict.Caution, "the battery accepts %s", unit.Text(accepts, "A", 0))
	}
	gives := min(o.GivesA, d.Rates.Accepts.Unrounded)
	if d.Is.Beside == design.Bypass {
		gives = o.OutA
	}
	if gives < d.NeedA {
		against(verdict.Caution, "less than the %s that hold the balance of a day", unit.Text(d.NeedA, "A", 0))
	}
	if gives > 0 && d.CycleAh > 0 {
		o.BackH = unit.Round(d.CycleAh/(gives*d.Facts.Chemistry.Efficiency), 1)
	}
	if d.Facts.Survey.Idling == job.Yes && o.IdleA < 0 {
		against(verdict.Caution, "at idle the start battery gives %s", unit.Text(-o.IdleA, "A", 0))
	}
	return o
}

// fails is the first state while charging that has no solution, in words; "" for none.
func fails(d *design.Design) string {
	if s, fails := d.Starved(); fails {
		return "in the state “" + s.Label + "” " + s.Err.Error()
	}
	return ""
}

// advise marks the smallest that holds the balance and has nothing against it.
func advise(list []Sizing) {
	for i, o := range list {
		if o.Level == verdict.Good {
			list[i].Advised = true
			return
		}
	}
}
