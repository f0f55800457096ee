package study_test

import (
	"crypto/sha256"
	"encoding/json"
	"flag"
	"fmt"
	"maps"
	"os"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/coupling"
	"epitrope/core/design"
	"epitrope/core/harness"
	"epitrope/core/job"
	"epitrope/core/modes"
	"epitrope/core/parts"
	"epitrope/core/plan"
	"epitrope/core/procedure"
	"epitrope/core/retrofit"
	"epitrope/core/study"
	"epitrope/testdata"
)

var writeDigests = flag.Bool("digests", false, "write testdata/digests.json anew")

// withExtras is a job with what it left out of the extras.
const withExtras = `{"extras":{"isolator":"front","monitor":"yes","disconnect":"yes","peakA":40,"bond":"yes"},` +
	`"wants":{"emergencyStart":"yes"},"vehicle":{"winch":"yes"},"schools":{"inSeries":"yes"}}`

// answers are what a job comes to, by the kind of answer.
// Schools and sizes plan the job many times over: only where it is to be whole.
func answers(doc job.Document, fully bool) map[string]any {
	book := parts.Stock()
	p, found := plan.Decide(doc, book), retrofit.Of(design.Of(doc, book))
	leads := harness.Leads(&p.System, harness.Scheme{})
	cuts := harness.CutList(leads, nil)
	all := map[string]any{
		"plan": p, "modes": modes.Of(design.Of(doc, book)), "found": found, "calendar": procedure.CalendarOf(design.Of(doc, book)),
		"steps": procedure.Steps(p, leads, found), "parts": harness.PartsList(&p.System, leads, nil, cuts), "wires": leads,
	}
	if !fully {
		return all
	}
	all["schools"], all["sizings"] = study.Schools(design.Of(doc, book)), study.Sizings(design.Of(doc, book))
	return all
}

// coarse is an answer with its figures to six digits, so that the order of sums is no change.
func coarse(t *testing.T, answer any) any {
	t.Helper()
	text, err := json.Marshal(answer)
	require.NoError(t, err)
	var plain any
	require.NoError(t, json.Unmarshal(text, &plain))
	var walk func(v any) any
	walk = func(v any) any {
		switch v := v.(type) {
		case float64:
			return fmt.Sprintf("%.6g", v+0)
		case []any:
			for i := range v {
				v[i] = walk(v[i])
			}
		case map[string]any:
			for k := range v {
				v[k] = walk(v[k])
			}
		}
		return v
	}
	return walk(plain)
}

// Moves move nothing: a digest of every answer, over all jobs and, on every fourth, all
// couplings, with and without extras, is that of testdata/digests.json. After a change that is meant:
// go test ./core/study -run TestAnswersAreTheSame -digests, with what it changed in the
// commit. This stands while the house is rebuilt.
func TestAnswersAreTheSame(t *testing.T) {
	documents, err := testdata.Documents()
	require.NoError(t, err)
	extras, problems := job.Decode([]byte(withExtras))
	require.Empty(t, problems)
	got := map[string]map[string]string{}
	for i, name := range slices.Sorted(maps.Keys(documents)) {
		doc, problems := job.Decode(documents[name])
		require.Empty(t, problems)
		sums := map[string]string{}
		for _, bare := range []bool{true, false} {
			from := doc
			if !bare {
				from = extras.Over(doc)
			}
			kinds := []coupling.Kind{""}
			if i%4 == 0 {
				kinds = append(kinds, coupling.Kinds()...)
			}
			for _, kind := range kinds {
				if kind != "" {
					id := string(kind)
					from.Pins.Coupling = &id
				}
				for what, answer := range answers(from, bare && kind == "" && i%4 == 1) {
					text, err := json.Marshal(coarse(t, answer))
					require.NoError(t, err)
					sums[what] += fmt.Sprintf("%x", sha256.Sum256(text))
				}
			}
		}
		for what, all := range sums {
			sums[what] = fmt.Sprintf("%.12x", sha256.Sum256([]byte(all)))
		}
		got[name] = sums
	}
	const file = "../../testdata/digests.json"
	if *writeDigests {
		text, err := json.MarshalIndent(got, "", " ")
		require.NoError(t, err)
		require.NoError(t, os.WriteFile(file, append(text, '\n'), 0o600))
	}
	text, err := os.ReadFile(file)
	require.NoError(t, err)
	want := map[string]map[string]string{}
	require.NoError(t, json.Unmarshal(text, &want))
	assert.Equal(t, want, got)
}
