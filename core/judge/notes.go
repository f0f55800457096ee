// Package judge holds a design against what is right: notes with their cures, the chain in
// series, what is looked at on the vehicle, the balance of a day, the signal, the settings.
package judge

import (
	"cmp"
	"slices"
	"sort"

	"epitrope/core/design"
	"epitrope/core/unit"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// Note is something to know about the plan, with its cure.
type Note struct {
	ID       string         `json:"id"`
	Column   string         `json:"column"`
	Severity string         `json:"severity" enum:"stop,caution,remark"`
	Text     string         `json:"text"`
	Why      string         `json:"why"`
	Cures    []verdict.Cure `json:"cures"`

	Mark working.Origin `json:"mark" enum:"standard,practice,physics,memory" doc:"Where the rule comes from"`
}

// rule is one note: how bad it is, where its rule comes from, what it says is the matter and
// why that matters, and where a design has it.
type rule struct {
	id        string
	severity  string
	mark      working.Origin
	text, why string
	finds     func(d *design.Design) []finding
}

// finding is one place in which a rule speaks: the column, what its sentences are filled
// with, and what would cure it; its level and the figure behind it, where a check has them.
type finding struct {
	column    string
	text, why []any
	cures     []verdict.Cure
	level     verdict.Level
	severity  string       // "" where it is the rule's
	varies    bool         // it holds where the machine eases off
	told      func() []any // fills the last sentence, once it is told
	figure    string
	work      working.Figure
}

// at is a finding in a column, with what the first sentence is filled with.
func at(column string, text ...any) finding { return finding{column: column, text: text} }

// since fills the second sentence.
func (f finding) since(why ...any) finding { f.why = why; return f }

// later fills the last sentence, once it is told: where that takes a run through time.
func (f finding) later(told func() []any) finding { f.told = told; return f }

// cure adds what would cure it.
func (f finding) cure(cures ...verdict.Cure) finding { f.cures = append(f.cures, cures...); return f }

// as is the finding at a level of its own.
func (f finding) as(level verdict.Level) finding { f.level = level; return f }

// ifVaries is the finding as one that holds where the machine eases off, and not otherwise.
func (f finding) ifVaries(holds bool) finding { f.varies = holds; return f }

// heavier is the finding at a severity of its own.
func (f finding) heavier(severity string) finding { f.severity = severity; return f }

// by is the finding with the figure behind it.
func (f finding) by(key string, work working.Figure) finding { f.figure, f.work = key, work; return f }

// where is the finding where something holds.
func where(holds bool, f func() finding) []finding {
	if !holds {
		return nil
	}
	return []finding{f()}
}

// rules are all notes that there are, by what they are about.
var rules = slices.Concat(sourceRules, placeRules, methodRules, chargerRules, relayRules, splitterRules, signalRules,
	profileRules, outletRules, sunRules, tapRules, chainRules, joinRules, coilRules, measuredRules,
	cableRules, fuseRules, unfusedRules)

// ruleByID finds a rule.
var ruleByID = func() map[string]*rule {
	m := map[string]*rule{}
	for i := range rules {
		m[rules[i].id] = &rules[i]
	}
	return m
}()

// MarkOf is where a note's rule comes from: common practice, where nothing else is said.
func MarkOf(id string) working.Origin {
	if r, ok := ruleByID[id]; ok {
		return r.mark
	}
	return working.Practice
}

// Notes are what is weak about the plan, worst first; no stop among them stands on what nobody answered.
func Notes(d *design.Design) []Note { return weighed(d, true) }

// weighed are they with their sentences, or without: what a cure comes to turns on which there are.
func weighed(d *design.Design, told bool) []Note {
	list := doubted(d, notes(d, told))
	sort.SliceStable(list, func(i, j int) bool { return verdict.Rank[list[i].Severity] < verdict.Rank[list[j].Severity] })
	return list
}

// notes are they as the design is taken to be.
func notes(d *design.Design, told bool) []Note {
	list := []Note{}
	for _, r := range rules {
		for _, f := range r.finds(d) {
			if f.told != nil && told {
				f.why = f.told()
			}
			list = append(list, ifSo(d, f, Note{ID: r.id, Column: f.column, Severity: cmp.Or(f.severity, r.severity),
				Text: unit.Say(r.text, f.text...),
				Why:  unit.Say(r.why, f.why...), Cures: append([]verdict.Cure{}, f.cures...), Mark: r.mark}))
		}
	}
	return append(list, seen(d, told)...)
}

// severityOf is how heavy a check weighs as a note; what is good, or was not looked at, is none.
var severityOf = map[verdict.Level]string{verdict.Bad: verdict.Stop, verdict.Caution: verdict.Beware}

// seen is what was looked at on the vehicle and is not as it has to be.
func seen(d *design.Design, told bool) []Note {
	var list []Note
	for _, c := range checksOf(d, told) {
		severity, weighs := severityOf[c.Level]
		if !weighs {
			continue
		}
		column := c.Column
		if d.Is.OwnMachine && column == "start" {
			column = "alternator"
		}
		list = append(list, ifSo(d, finding{}, Note{ID: c.ID, Column: column, Severity: cmp.Or(c.Severity, severity), Text: c.Text,
			Cures: append([]verdict.Cure{}, c.Cures...), Mark: c.Mark}))
	}
	return list
}

// Cautions stand once on every plan, where the reader acts on it.
var Cautions = []string{
	"The short-circuit current of any vehicle battery welds tools: negative off first and on last, insulated tools, no jewellery, fuses " +
		"out while working and fitted last.",
	"Airbag, brake, steering and engine-management circuits are not feed points. Mains equipment is for a licensed person.",
	"Local vehicle and caravan electrical codes, the battery's and the device's own manuals and a licensed practitioner's word override " +
		"any figure here.",
}
