package jobtest

import (
	"io/fs"
	"testing"

	"github.com/stretchr/testify/require"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/modes"
	"epitrope/core/parts"
	"epitrope/core/plan"
	"epitrope/core/section"
	"epitrope/core/system"
	"epitrope/testdata"
)

// Document reads a job that a test wrote out; all of it must be usable.
func Document(t testing.TB, text string) job.Document {
	t.Helper()
	doc, problems := job.Decode([]byte(text))
	require.Empty(t, problems)
	return doc
}

// Design decides such a job with the stock's parts.
func Design(t testing.TB, text string) *design.Design {
	t.Helper()
	return design.Of(Document(t, text), parts.Stock())
}

// Plan tells it.
func Plan(t testing.TB, text string) plan.Plan {
	t.Helper()
	return plan.Of(Design(t, text))
}

// Column is a plan's column; the test fails where it has none such.
func Column(t testing.TB, p plan.Plan, id string) section.Column {
	t.Helper()
	for _, c := range p.Columns {
		if c.ID == id {
			return c
		}
	}
	t.Fatalf("no column %s", id)
	return section.Column{}
}

// State is a plan's state; the test fails where it has none such.
func State(t testing.TB, p plan.Plan, id string) section.State {
	t.Helper()
	for _, s := range p.States {
		if s.ID == id {
			return s
		}
	}
	t.Fatalf("no state %s", id)
	return section.State{}
}

// NoteIDs are the ids of a plan's notes, in their order.
func NoteIDs(p plan.Plan) []string {
	ids := []string{}
	for _, n := range p.Notes {
		ids = append(ids, n.ID)
	}
	return ids
}

// Complete returns the jobs of testdata by name.
func Complete(t testing.TB) map[string]job.Document {
	t.Helper()
	names, err := fs.Glob(testdata.Jobs, "jobs/*.json")
	require.NoError(t, err)
	docs := map[string]job.Document{}
	for _, name := range names {
		data, err := fs.ReadFile(testdata.Jobs, name)
		require.NoError(t, err)
		doc, problems := job.Decode(data)
		require.Empty(t, problems, name)
		docs[name[len("jobs/"):len(name)-len(".json")]] = doc
	}
	return docs
}

// CheckLevel is the level of a check; "" where the job has none such.
func CheckLevel(p plan.Plan, id string) string {
	for _, c := range p.Checks {
		if c.ID == id {
			return string(c.Level)
		}
	}
	return ""
}

// CheckText is what a check says; "" where the job has none such.
func CheckText(p plan.Plan, id string) string {
	for _, c := range p.Checks {
		if c.ID == id {
			return c.Text
		}
	}
	return ""
}

// Modes is the mode table of such a job.
func Modes(t testing.TB, text string) modes.Modes {
	t.Helper()
	return modes.Of(Design(t, text))
}

// Line finds a line of the table.
func Line(t testing.TB, m modes.Modes, position, key, engine string) modes.Mode {
	t.Helper()
	for _, r := range m.Rows {
		if r.Switch == position && r.Key == key && r.Engine == engine && r.Sun == "no" {
			return r
		}
	}
	t.Fatalf("no line %s, %s, %s", position, key, engine)
	return modes.Mode{}
}

// LiveAfter are the wires that stay live when something is off, with their sources.
func LiveAfter(t testing.TB, m modes.Modes, off string) map[string][]string {
	t.Helper()
	for _, r := range m.Live {
		if r.Off == off {
			live := map[string][]string{}
			for _, w := range r.Live {
				live[w.Wire] = w.From
			}
			return live
		}
	}
	t.Fatalf("nothing called %s", off)
	return nil
}

// ToWorkOn is what to open so that a place is dead.
func ToWorkOn(t testing.TB, m modes.Modes, place string) []string {
	t.Helper()
	for _, r := range m.Work {
		if r.Place == place {
			return r.Open
		}
	}
	t.Fatalf("no place %s", place)
	return nil
}

// StartFuse is the rating of F1, in A.
func StartFuse(p plan.Plan) float64 {
	c, _ := p.System.Component("f1")
	return c.Device.(system.Fuse).RatingA
}
