package section

import (
	"fmt"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/run"
	"epitrope/core/unit"
	"epitrope/core/verdict"
)

// isolatorColumn is Q1 on the section.
func isolatorColumn(d *design.Design, l *run.Sized, at job.Point) Column {
	card := d.Isolator()
	bears := card.ContinuousA * parts.ContactFactor(l.Bay.AmbientC)
	level, lost := verdict.Good, l.Amps*(card.Ohm+2*run.JointOhm)
	if l.Amps > bears {
		level = verdict.Bad
	}
	auto := parts.IsolatorFor(l.Amps / parts.ContactFactor(l.Bay.AmbientC))
	return Column{ID: "q1", Kind: "switch", Name: "Q1", At: at, Part: Cell{Text: unit.Plain(card.ContinuousA, "A", 0), Level: verdict.Good},
		Carries: Cell{Text: fmt.Sprintf("%s of %s", unit.Text(l.Amps, "", 0), unit.Text(bears, "A", 0)), Level: level},
		Loses:   Cell{Text: fmt.Sprintf("%s, %s", unit.Text(lost, "V", 2), unit.Text(lost*l.Amps, "W", 0)), Level: verdict.Good},
		Heat:    none(), Figures: []string{},
		Fields: []string{"extras.isolator", "extras.isolatorFirst"},
		Choice: &Choice{Path: "extras.isolatorA", Label: "Isolator", Auto: unit.Plain(auto.ContinuousA, "A", 0),
			Now:    unit.Plain(card.ContinuousA, "A", 0),
			Pinned: d.Doc.Extras.IsolatorA != nil, DecidedBy: "the smallest that bears the worst current where it sits"}}
}
