package plan

import (
	"fmt"
	"strings"

	"epitrope/core/working"
)

// title is what the title block says of this job.
func (d *design) title() []Tile {
	back := Tile{Label: "A day's use back after", Text: "not by driving", Level: Bad}
	if fig, ok := d.backUse(); ok {
		back = Tile{Label: "A day's use back after", Text: duration(fig.Unrounded) + " driving", Figure: "back", Level: Good}
		if d.facts.Chemistry.Lead {
			back.Text += " or more" // the last fifth tapers for hours
		}
		if fig.Unrounded > d.facts.DrivenHours.Value {
			back.Level = Caution
		}
	}
	lasts := d.autonomy()
	settled, all := 0, d.facts.Questions()
	for _, q := range all {
		if q.Settled {
			settled++
		}
	}
	tile := Tile{Label: "Lasts without driving", Text: lasts.Text, Figure: "autonomy", Level: Good}
	if lasts.Unrounded < 1 {
		tile.Level = Caution
	}
	answers := Tile{Label: "Settled", Text: fmt.Sprintf("%d of %d answers", settled, len(all)), Level: Good}
	if settled < len(all) {
		answers.Level = Caution
	}
	return []Tile{back, tile, answers}
}

// duration is hours as people say them.
func duration(hours float64) string {
	minutes := int(working.Round(hours*12, 0)) * 5
	if minutes < 60 {
		return fmt.Sprintf("%d min", minutes)
	}
	return fmt.Sprintf("%d h %02d", minutes/60, minutes%60)
}

// summary is the plan in one sentence.
func (d *design) summary() string {
	what := d.kind.Label()
	if d.kind.Charger() {
		what = strings.ReplaceAll(d.kind.Label(), "charger", "charger, "+working.Plain(d.charger.OutputA, "A", 0)+",")
		what = strings.TrimSuffix(what, ",")
	}
	back := map[[2]bool]string{{true, false}: "the chassis", {false, true}: "cable", {true, true}: "chassis and cable"}[[2]bool{d.back.byChassis, d.back.byCable}]
	amps := func(l *leg) string { return working.Plain(l.fuse.RatingA, "A", 1) }
	return fmt.Sprintf("%s%s. Start run %s, fuse %s; aux run %s, fuse %s; return by %s. %s at the aux battery at cruise.",
		strings.ToUpper(what[:1]), what[1:], d.start.trial.Size.Label, amps(&d.start), d.aux.trial.Size.Label, amps(&d.aux), back,
		working.Text(d.cruiseState().auxV, "V", 1))
}
