package study

import (
	"slices"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/judge"
	"epitrope/core/plan"
)

// Built is what was really fitted against what was designed: where they differ, and what the
// rules say of it that they did not say of the design.
type Built struct {
	Asked    []BuiltAnswer `json:"asked"`
	Changes  []job.Change  `json:"changes"`
	Problems []job.Problem `json:"problems"`
	Summary  string        `json:"summary" doc:"The installation as built in one sentence"`
	New      []judge.Note  `json:"new" doc:"Notes that the design did not have"`
	Gone     []judge.Note  `json:"gone" doc:"Notes of the design that no longer hold"`
}

// BuiltAnswer is something that may turn out differently, with what was designed.
type BuiltAnswer struct {
	Path     string `json:"path"`
	Label    string `json:"label"`
	Designed string `json:"designed"`
}

// BuiltOf judges a job as it was built by the rules that judged its design.
func BuiltOf(d *design.Design) Built {
	asBuilt, problems := d.Doc.AsBuilt()
	doc := d.Doc
	doc.Built = nil
	before := plan.Of(d)
	after, changes := before, job.Diff(doc, asBuilt)
	if len(changes) > 0 {
		after = plan.Of(d.With(fitted(d, asBuilt)))
	}
	out := Built{Asked: asked(before), Changes: changes, Problems: problems, Summary: after.Summary,
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

// fitted is the document as built with the cables and fuses that were designed, where nothing else is
// said of them: what is in the vehicle does not follow an answer.
func fitted(d *design.Design, asBuilt job.Document) job.Document {
	fixed := map[string]any{}
	for path, is := range map[string]struct {
		pinned bool
		value  any
	}{
		"pins.startSize":  {asBuilt.Pins.StartSize != nil, d.Start.Trial.Size.Label},
		"pins.auxSize":    {asBuilt.Pins.AuxSize != nil, d.Aux.Trial.Size.Label},
		"pins.startFuseA": {asBuilt.Pins.StartFuseA != nil, d.Start.Fuse.RatingA},
		"pins.auxFuseA":   {asBuilt.Pins.AuxFuseA != nil, d.Aux.Fuse.RatingA},
	} {
		if !is.pinned {
			fixed[path] = is.value
		}
	}
	doc, _ := job.With(asBuilt, fixed)
	return doc
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
func notIn(list, other []judge.Note) []judge.Note {
	out := []judge.Note{}
	for _, n := range list {
		same := func(o judge.Note) bool {
			return o.ID == n.ID && o.Column == n.Column && o.Text == n.Text
		}
		if !slices.ContainsFunc(other, same) {
			out = append(out, n)
		}
	}
	return out
}
