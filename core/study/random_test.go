package study_test

import (
	"encoding/json"
	"math/rand/v2"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
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
		all := answers(doc, true)
		all["built"], all["methods"] = study.BuiltOf(design.Of(doc, parts.Stock())), study.Consequences(design.Of(doc, parts.Stock()))
		for name, answer := range all {
			_, err := json.Marshal(answer)
			assert.NoError(t, err, "seed %d: %s", seed, name)
		}
	}
}
