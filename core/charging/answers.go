package charging

import (
	"epitrope/core/design"
	"epitrope/core/profile"
	"epitrope/core/unit"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// Answer is one thing that is so with what charges: a check, with its cures.
type Answer struct {
	ID, Column string
	Level      verdict.Level
	Severity   string // as a note, where that is not as its level has it
	Text       string
	Mark       working.Origin
	Fields     []string
	Cures      []verdict.Cure

	source string
}

// rule is one sentence: its level, where it comes from, what settles it, and where a design has it.
type rule struct {
	id     string
	level  verdict.Level
	mark   working.Origin
	fields []string
	text   string
	finds  func(d *design.Design) []finding
}

// finding is one place in which a rule speaks, with what fills its sentence.
type finding struct {
	column, source, severity string
	text                     []any
	cures                    []verdict.Cure
}

func at(column string, text ...any) finding { return finding{column: column, text: text} }

// cure adds what would cure it.
func (f finding) cure(c verdict.Cure) finding { f.cures = append(f.cures, c); return f }

// remark is the finding as a remark.
func (f finding) remark() finding { f.severity = verdict.Remark; return f }

// where is the finding where something holds.
func where(holds bool, f func() finding) []finding {
	if !holds {
		return nil
	}
	return []finding{f()}
}

func says(holds bool, column string, text ...any) []finding {
	return where(holds, func() finding { return at(column, text...) })
}

// Answers are all that is so with what charges a design's aux battery, and with its monitor.
func Answers(d *design.Design) []Answer {
	list := []Answer{}
	for _, rules := range [][]rule{sourceRules, monitorRules} {
		for _, r := range rules {
			for _, f := range r.finds(d) {
				list = append(list, Answer{r.id, f.column, r.level, f.severity, unit.Say(r.text, f.text...), r.mark,
					append([]string{}, r.fields...), append([]verdict.Cure{}, f.cures...), f.source})
			}
		}
	}
	return list
}

// IDs are all that may be said.
func IDs() []string {
	var list []string
	for _, rules := range [][]rule{sourceRules, monitorRules} {
		for _, r := range rules {
			list = append(list, r.id)
		}
	}
	return list
}

// Beyond these a lead battery wants its charge compensated. Source: from memory.
const (
	ColdOutC = 5.0
	HotOutC  = 35.0
)

// Ways are what a charger is set by, by its card.
var Ways = map[string]string{"leads": "joined sense wires", "button": "a mode button held", "switches": "switches",
	"link": "a link to battery or ground", "": "configuration leads"}

// GetsV is what stands across the battery at the end of the charger's absorption: the current has
// fallen to its tail, and with it what the aux run loses.
func GetsV(d *design.Design) float64 {
	return d.SetV() - d.UsualStages().TailShare*max(0, d.SetV()-d.CruiseState().AuxV)
}

func profileOf(d *design.Design) profile.Profile { return profile.For(d.Facts.Chemistry) }

func away(a, b float64) float64 { return max(a-b, b-a) }
