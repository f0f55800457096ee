package plan_test

import (
	"bytes"
	"encoding/csv"
	"encoding/json"
	"io/fs"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/coupling"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/judge"
	"epitrope/core/method"
	"epitrope/core/modes"
	"epitrope/core/parts"
	"epitrope/core/plan"
	"epitrope/internal/jobtest"
	"epitrope/testdata"
)

// Complete jobs of all kinds of vehicle and all couplings, with what the rules of the
// trade say of every coupling; the table was written from the trade, not from the code.
func TestVerdictsOnCompleteJobs(t *testing.T) {
	docs := jobtest.Complete(t)
	require.GreaterOrEqual(t, len(docs), 30)
	data, err := fs.ReadFile(testdata.Jobs, "jobs/verdicts.csv")
	require.NoError(t, err)
	rows, err := csv.NewReader(bytes.NewReader(data)).ReadAll()
	require.NoError(t, err)
	head := rows[0]
	vehicles, fitted := map[string]bool{}, map[string]bool{}
	effects := map[byte]method.Effect{'+': method.Favours, '~': method.Warns, '-': method.RulesOut}
	for _, row := range rows[1:] {
		doc, ok := docs[row[0]]
		require.True(t, ok, row[0])
		delete(docs, row[0])
		vehicles[*doc.Vehicle.Kind] = true
		p := plan.Decide(doc, parts.Stock())
		for _, m := range p.Methods {
			if m.Chosen {
				assert.Equal(t, row[1], string(m.Kind), row[0])
				fitted[string(m.Kind)] = true
			}
			for i, kind := range head {
				if kind != string(m.Kind) || i < 2 {
					continue
				}
				found := method.Effect("")
				for _, r := range m.Reasons {
					if r.ID == row[i][1:] {
						found = r.Effect
					}
				}
				assert.Equal(t, effects[row[i][0]], found, "%s: %s of %s", row[0], row[i], kind)
				assert.Equal(t, row[i][0] == '-', m.RuledOut, "%s: %s", row[0], kind)
			}
		}
	}
	assert.Empty(t, docs, "jobs without a verdict")
	assert.Len(t, vehicles, len(job.Bodies), "all kinds of vehicle")
	assert.NotContains(t, fitted, string(coupling.DiodeSplitter), "where diodes would do, a relay does, and loses nothing")
	assert.Len(t, fitted, len(coupling.Kinds())-1, "every other coupling is the best of some job")
}

// Whatever coupling is pinned on whatever job, there is a plan that can be written: wires
// join parts that are there, states while charging have a solution or say why not, and
// the columns carry what the circuit says.
func TestEveryCouplingOnEveryJob(t *testing.T) {
	for name, doc := range jobtest.Complete(t) {
		for _, k := range coupling.Kinds() {
			id := name + " " + string(k)
			pin := string(k)
			doc.Pins.Coupling = &pin
			p := plan.Decide(doc, parts.Stock())
			_, err := json.Marshal(p)
			require.NoError(t, err, id)
			ids, touched := map[string]bool{}, map[string]bool{}
			for _, c := range p.System.Components {
				assert.False(t, ids[c.ID], "%s: %s stands twice", id, c.ID)
				ids[c.ID] = true
			}
			for _, w := range p.System.Wires {
				assert.True(t, ids[w.From.Component] && ids[w.To.Component], "%s: %s from %s to %s", id, w.ID, w.From.Component, w.To.Component)
				touched[w.From.Component], touched[w.To.Component] = true, true
			}
			for c := range ids {
				assert.True(t, touched[c], "%s: %s is joined to nothing", id, c)
			}
			for _, s := range p.States {
				if s.Fails != "" {
					assert.NotContains(t, s.Fails, "singular", "%s in %s", id, s.ID)
					continue
				}
				require.Len(t, s.Points, len(p.Columns), "%s in %s", id, s.ID)
			}
		}
	}
}

// Jobs whose verdict turns on a trigger, a profile, an extra or a signal: raised as they
// are, gone with the one change that cures them.
func TestSignalsTurnTheVerdict(t *testing.T) {
	data, err := fs.ReadFile(testdata.Signals, "signals/verdicts.csv")
	require.NoError(t, err)
	rows, err := csv.NewReader(bytes.NewReader(data)).ReadAll()
	require.NoError(t, err)
	require.GreaterOrEqual(t, len(rows)-1, 12)
	for _, row := range rows[1:] {
		data, err := fs.ReadFile(testdata.Signals, "signals/"+row[0]+".json")
		require.NoError(t, err)
		doc, problems := job.Decode(data)
		require.Empty(t, problems, row[0])
		var turn map[string]any
		require.NoError(t, json.Unmarshal([]byte(row[3]), &turn), row[0])
		turned, problems := job.With(doc, turn)
		require.Empty(t, problems, row[0])
		assert.True(t, raised(doc, row[1], row[2]), "%s: %s", row[0], row[2])
		assert.False(t, raised(turned, row[1], row[2]), "%s, turned: %s", row[0], row[2])
	}
}

// raised says whether a rule turns up on a job: among its notes, checks, reasons, or in
// its mode table.
func raised(doc job.Document, where, id string) bool {
	p := plan.Decide(doc, parts.Stock())
	switch where {
	case "note":
		return contains(jobtest.NoteIDs(p), id)
	case "check":
		return slices.ContainsFunc(p.Checks, func(c judge.Check) bool { return c.ID == id && c.Level != "good" })
	case "mode":
		return slices.ContainsFunc(modes.Of(design.Of(doc, parts.Stock())).Rows, func(r modes.Mode) bool { return r.Rule == id })
	}
	for _, m := range p.Methods {
		if slices.ContainsFunc(m.Reasons, func(r method.Reason) bool { return r.ID == id }) {
			return true
		}
	}
	return false
}
