package study_test

import (
	"maps"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/coupling"
	"epitrope/core/design"
	"epitrope/core/harness"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/plan"
	"epitrope/core/procedure"
	"epitrope/core/prove"
	"epitrope/core/retrofit"
	"epitrope/core/study"
	"epitrope/core/verdict"
	"epitrope/internal/jobtest"
	"epitrope/testdata"
)

// someJobs is every fourth job of the test data, decided; in the long tests all.
func someJobs(t *testing.T) map[string]*design.Design {
	t.Helper()
	all, err := testdata.Documents()
	require.NoError(t, err)
	list := map[string]*design.Design{}
	for k, name := range slices.Sorted(maps.Keys(all)) {
		if k%jobtest.Fewer(1, 4) != 0 {
			continue
		}
		doc, problems := job.Decode(all[name])
		require.Empty(t, problems, name)
		list[name] = design.Of(doc, parts.Stock())
	}
	return list
}

// The comparison of couplings and the sheet of steps say the same hours of the same design.
func TestWorkIsWhatTheStepsTake(t *testing.T) {
	held := 0
	for name, d := range someJobs(t) {
		p, proof := plan.Of(d), prove.Of(d)
		if len(p.Stops()) > 0 || proof.Unsteady {
			continue // its steps end where the plan is stopped
		}
		want := procedure.Hours(procedure.Steps(p, harness.Leads(&p.System, harness.UsualScheme), retrofit.Of(d), proof))
		for _, m := range study.Consequences(d) {
			if !m.Fitted {
				continue
			}
			held++
			assert.InDelta(t, want, m.Work.Hours, 0.15, name) // a reading or two that goes on and off is not taken
			sum := 0.0
			for _, s := range m.Work.Stages {
				sum += s.Hours
			}
			assert.InDelta(t, m.Work.Hours, sum, 0.4, name)
		}
	}
	assert.Greater(t, held, 10)
}

func TestASecondMachineTakesLongest(t *testing.T) {
	doc, problems := job.Decode([]byte(agm))
	require.Empty(t, problems)
	for _, m := range study.Consequences(design.Of(doc, parts.Stock())) {
		if m.Method.Kind != coupling.SecondAlternator {
			continue
		}
		for _, s := range m.Work.Stages {
			if s.Stage == procedure.Fit {
				assert.Greater(t, s.Hours, 14.0, "bracket, belt, regulator")
			}
		}
	}
}

// A size of charger is not offered without a word where the comparison of couplings rules its coupling out.
func TestSizesOfWhatIsRuledOutSaySo(t *testing.T) {
	held := 0
	for name, d := range someJobs(t) {
		out := map[coupling.Kind]bool{}
		for _, m := range d.Methods {
			out[m.Kind] = m.RuledOut
		}
		for _, s := range study.Sizings(d) {
			kind, _ := s.Changes["pins.coupling"].(string)
			if out[coupling.Kind(kind)] {
				held++
				assert.Equal(t, verdict.Bad, s.Level, "%s: %s", name, s.Label)
				assert.Contains(t, strings.Join(s.Against, "; "), "is ruled out", "%s: %s", name, s.Label)
			}
		}
	}
	assert.Positive(t, held)
}

func BenchmarkConsequences(b *testing.B) {
	doc, problems := job.Decode([]byte(agm))
	require.Empty(b, problems)
	for b.Loop() {
		study.Consequences(design.Of(doc, parts.Stock()))
	}
}
