package plan

import (
	"fmt"

	"epitrope/core/coupling"
	"epitrope/core/working"
)

// title is what the title block says of this job.
func (d *design) title() []Tile {
	back := Tile{Label: "A day's use back after", Text: "not by driving", Level: Bad}
	if fig, ok := d.figures["back"]; ok {
		back = Tile{Label: "A day's use back after", Text: duration(fig.Unrounded) + " driving", Figure: "back", Level: Good}
		if fig.Unrounded > d.facts.DrivenHours.Value {
			back.Level = Caution
		}
	}
	lasts := d.figures["autonomy"]
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
	if d.kind == coupling.DCDC {
		what = d.charger.Label
	}
	back := "the chassis"
	if d.back.byCable {
		back = "cable"
	}
	return fmt.Sprintf("%s; %s from the start battery behind %s, %s to the aux battery behind %s, return by %s; %s at the aux battery at cruise.",
		what, d.start.trial.Size.Label, d.start.fuse.Label(), d.aux.trial.Size.Label, d.aux.fuse.Label(), back,
		working.Text(d.cruiseState().auxV, "V", 1))
}
