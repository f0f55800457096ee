package judge

import (
	"slices"

	"epitrope/core/belief"
	"epitrope/core/charging"
	"epitrope/core/design"
	"epitrope/core/unit"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// Check is something that is looked at on the vehicle, held against this design. Its
// level is open where nobody has looked yet.
type Check struct {
	ID     string         `json:"id"`
	Group  string         `json:"group" enum:"place,fit,bank,rest,join,drill,extras,charging,beliefs,answers"`
	Column string         `json:"column" doc:"The column it belongs to"`
	Level  verdict.Level  `json:"level" enum:"good,caution,bad,open"`
	Text   string         `json:"text"`
	Mark   working.Origin `json:"mark" enum:"standard,practice,physics,memory"`
	Fields []string       `json:"fields" doc:"Paths that answer it"`
	Figure string         `json:"figure,omitempty" doc:"Key of the figure behind it"`

	Work     working.Figure `json:"-"` // that figure
	Cures    []verdict.Cure `json:"-"` // as a note
	Severity string         `json:"-"` // as a note, where that is not as its level has it
}

// look is one sentence of a check: its level where the finding has none of its own, where its
// rule comes from, the answers that settle it, and where a design has it.
type look struct {
	id     string
	level  verdict.Level
	mark   working.Origin
	fields []string
	text   string
	finds  func(d *design.Design) []finding
}

// lookGroup is the looks of one subject.
type lookGroup struct {
	id    string
	looks []look
}

// lookGroups are all checks that there are: its places, whether the battery fits, how a bank
// shares, what the batteries rest at, what happens when the batteries are joined, what is fitted besides, how all that
// charges is set, what is taken for granted, and answers that contradict.
var lookGroups = []lookGroup{{"place", placeLooks}, {"fit", fitLooks}, {"bank", bankLooks}, {"rest", restLooks},
	{"join", joinLooks}, {"drill", drillLooks},
	{"extras", slices.Concat(isolatorLooks, shuntLooks, disconnectLooks, bondLooks, winchLooks, managementLooks, socketLooks)}, answers}

// Checks are the checks of a design.
func Checks(d *design.Design) []Check { return checksOf(d, true) }

// checksOf are they, with those sentences that take a run through time, or without.
func checksOf(d *design.Design, told bool) []Check {
	list := []Check{}
	for _, g := range lookGroups {
		list = append(list, g.checks(d, told)...)
	}
	for _, a := range charging.Answers(d) {
		list = append(list, Check{ID: a.ID, Group: "charging", Column: a.Column, Level: a.Level, Text: a.Text, Mark: a.Mark, Fields: a.Fields,
			Cures: a.Cures, Severity: a.Severity})
	}
	return append(list, taken(d, told)...)
}

// taken is what is taken for granted: a remark where it is not so.
func taken(d *design.Design, told bool) []Check {
	var list []Check
	for _, b := range belief.Answers(d, told) {
		c := Check{ID: "belief." + b.ID, Group: "beliefs", Column: b.Column, Level: verdict.Good, Text: b.Text, Mark: b.Mark,
			Fields: []string{b.Path}}
		if !b.So {
			c.Level, c.Severity = verdict.Caution, verdict.Remark
		}
		list = append(list, c)
	}
	return list
}

// AnswerChecks are answers that contradict each other, or speak of danger.
func AnswerChecks(d *design.Design) []Check { return answers.checks(d, true) }

func (g lookGroup) checks(d *design.Design, told bool) []Check {
	var list []Check
	for _, l := range g.looks {
		for _, f := range l.finds(d) {
			if f.told != nil && told {
				f.text = f.told()
			}
			level := l.level
			if f.level != "" {
				level = f.level
			}
			list = append(list, Check{ID: l.id, Group: g.id, Column: f.column, Level: level, Text: unit.Say(l.text, f.text...), Mark: l.mark,
				Fields: append([]string{}, l.fields...), Figure: f.figure, Work: f.work, Cures: f.cures, Severity: f.severity})
		}
	}
	return list
}

// says finds a thing in a column where it holds.
func says(holds bool, column string, text ...any) []finding {
	return where(holds, func() finding { return at(column, text...) })
}
