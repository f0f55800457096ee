package study_test

import (
	"encoding/json"
	"math/rand/v2"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/design"
	"epitrope/core/harness"
	"epitrope/core/job"
	"epitrope/core/modes"
	"epitrope/core/parts"
	"epitrope/core/plan"
	"epitrope/core/procedure"
	"epitrope/core/retrofit"
	"epitrope/core/study"
	"epitrope/internal/jobtest"
)

// Whatever validation lets through is answered, in every coupling, and the answers can be
// sent: no figure without an end among them.
func TestEveryJobIsAnswered(t *testing.T) {
	count := 40
	if os.Getenv("EPITROPE_CHECK") == "all" {
		count = 1000
	}
	for seed := range uint64(count) {
		doc, problems := job.Decode(jobtest.Random(rand.New(rand.NewPCG(seed, 9))))
		require.Empty(t, problems, "seed %d", seed)
		all := answers(doc)
		for name, answer := range all {
			_, err := json.Marshal(answer)
			assert.NoError(t, err, "seed %d: %s", seed, name)
		}
	}
}

// answers are all that is told of a job, by what it tells.
func answers(doc job.Document) map[string]any {
	d := design.Of(doc, parts.Stock())
	p, found := plan.Of(d), retrofit.Of(d)
	leads := harness.Leads(&p.System, harness.Scheme{})
	cuts := harness.CutList(leads, nil)
	return map[string]any{
		"plan": p, "modes": modes.Of(d), "found": found, "calendar": procedure.CalendarOf(d),
		"steps": procedure.Steps(p, leads, found), "parts": harness.PartsList(&p.System, leads, nil, cuts), "wires": leads,
		"schools": study.Schools(d), "sizings": study.Sizings(d), "built": study.BuiltOf(d), "methods": study.Consequences(d),
	}
}
