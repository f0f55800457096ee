package section

import (
	"fmt"

	"epitrope/core/design"
	"epitrope/core/unit"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// Title is what the title block says of this job.
func Title(d *design.Design) []Tile {
	back := Tile{Label: "A day's use back after", Text: "not by driving", Level: verdict.Bad}
	if fig, ok := d.BackUse(); ok {
		back = Tile{Label: "A day's use back after", Text: duration(fig.Unrounded) + " driving", Figure: "back", Level: verdict.Good}
		if d.Facts.Chemistry.Lead {
			back.Text += " or more" // the last fifth tapers for hours
		}
		if fig.Unrounded > d.Facts.DrivenHours.Value {
			back.Level = verdict.Caution
		}
	}
	lasts := d.Autonomy()
	settled, all := settled(d)
	tile := Tile{Label: "Lasts without driving", Text: lasts.Text, Figure: "autonomy", Level: verdict.Good}
	if lasts.Unrounded < 1 {
		tile.Level = verdict.Caution
	}
	answers := Tile{Label: "Settled", Text: fmt.Sprintf("%d of %d answers", settled, all), Level: verdict.Good}
	if settled < all {
		answers.Level = verdict.Caution
	}
	return []Tile{back, tile, answers}
}

// duration is hours as people say them.
func duration(hours float64) string {
	minutes := int(unit.Round(hours*12, 0)) * 5
	if minutes < 60 {
		return fmt.Sprintf("%d min", minutes)
	}
	return fmt.Sprintf("%d h %02d", minutes/60, minutes%60)
}

// settled counts what is asked, and what of it was answered.
func settled(d *design.Design) (settled, all int) {
	list := d.Facts.Questions()
	for _, q := range list {
		if q.Settled {
			settled++
		}
	}
	return settled, len(list)
}

// StandIns are what stands in for answers that nobody gave, as the sizes rest on it.
func StandIns(d *design.Design) []string {
	list := []string{}
	for _, q := range d.Facts.Questions() {
		for _, path := range q.Fields {
			for _, f := range d.Facts.List {
				if f.Path == path && f.Origin == working.Assumed {
					list = append(list, f.Label+": "+f.Text)
				}
			}
		}
	}
	return list
}

// Summary is the plan in one sentence, and how much of it rests on what nobody answered.
func Summary(d *design.Design) string {
	what := d.Kind.Label()
	if d.Kind.Charger() {
		what = d.Kind.Detailed(unit.Plain(d.Charger.OutputA, "A", 0))
	}
	back := map[[2]bool]string{{true, false}: "the chassis", {false, true}: "cable",
		{true, true}: "chassis and cable"}[[2]bool{d.Back.ByChassis, d.Back.ByCable}]
	said := fmt.Sprintf("%s. Start run %s, %s; aux run %s, %s; return by %s. %s at the aux battery at cruise.",
		unit.Capital(what), d.Start.Trial.Size.Label, d.Start.Label(), d.Aux.Trial.Size.Label, d.Aux.Label(), back,
		unit.Text(d.CruiseState().AuxV, "V", 1))
	if settled, all := settled(d); settled < all {
		said += fmt.Sprintf(" So far: %d of %d answers are stand-ins.", all-settled, all)
	}
	return said
}
