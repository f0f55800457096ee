package study

import (
	"slices"
	"strings"

	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/plan"
)

// Built is what was really fitted against what was designed: where they differ, and what the
// rules say of it that they did not say of the design.
type Built struct {
	Asked    []BuiltAnswer `json:"asked"`
	Changes  []job.Change  `json:"changes"`
	Problems []job.Problem `json:"problems"`
	Summary  string        `json:"summary" doc:"The installation as built in one sentence"`
	New      []plan.Note   `json:"new" doc:"Notes that the design did not have"`
	Gone     []plan.Note   `json:"gone" doc:"Notes of the design that no longer hold"`
}

// BuiltAnswer is something that may turn out differently, with what was designed.
type BuiltAnswer struct {
	Path     string `json:"path"`
	Label    string `json:"label"`
	Designed string `json:"designed"`
}

// BuiltOf judges a job as it was built by the rules that judged its design.
func BuiltOf(doc job.Document, book parts.Book) Built {
	asBuilt, problems := doc.AsBuilt()
	design := doc
	design.Built = nil
	before, after := plan.Decide(design, book), plan.Decide(asBuilt, book)
	out := Built{Asked: asked(before), Changes: job.Diff(design, asBuilt), Problems: problems, Summary: after.Summary,
		New: notIn(after.Notes, before.Notes), Gone: notIn(before.Notes, after.Notes)}
	if out.Problems == nil {
		out.Problems = []job.Problem{}
	}
	for i := range out.Changes {
		if out.Changes[i].From == "" { // the plan chose it
			out.Changes[i].From = designed(before, out.Changes[i].Path)
		}
	}
	return out
}

// asked are the answers that the plan has, with what it says of them.
func asked(p plan.Plan) []BuiltAnswer {
	list := []BuiltAnswer{}
	for _, path := range job.BuiltPaths {
		f, ok := job.FieldAt(path)
		if text := designed(p, path); ok && text != "" {
			list = append(list, BuiltAnswer{path, f.Label, text})
		}
	}
	return list
}

// designed is what a plan says of an answer: its own choice, or what it took.
func designed(p plan.Plan, path string) string {
	for _, c := range p.Columns {
		if c.Choice != nil && c.Choice.Path == path {
			return c.Choice.Now
		}
	}
	for _, f := range p.Facts {
		if f.Path == path {
			return f.Text
		}
	}
	if path == "profile.setting" && p.Settings.Charger {
		return p.Settings.Now
	}
	return ""
}

// notIn are the notes of a list that another does not have.
func notIn(list, other []plan.Note) []plan.Note {
	out := []plan.Note{}
	for _, n := range list {
		same := func(o plan.Note) bool {
			return o.ID == n.ID && o.Column == n.Column && strings.EqualFold(o.Text, n.Text)
		}
		if !slices.ContainsFunc(other, same) {
			out = append(out, n)
		}
	}
	return out
}
