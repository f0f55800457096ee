package plan_test

import (
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"os"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/modes"
	"epitrope/core/parts"
	"epitrope/core/plan"
	"epitrope/internal/jobtest"
	"epitrope/testdata"
)

// reason is a sentence that says why there is no working point: which part asks how much of
// what, and what its line could give, or below what it stops and what it would see.
var reason = regexp.MustCompile(`^the (charger|house|vehicle|winch) (asks [0-9.]+ (W|A) and its line can give at most [0-9.]+ (W|A)|` +
	`stops below [0-9.]+ V and would see [0-9.]+ V)$`)

// solvedOrNamed checks that every state and every row of the mode table has a solution or a
// reason, and returns how many have the latter.
func solvedOrNamed(t *testing.T, doc job.Document, what string) (named int) {
	t.Helper()
	p := plan.Decide(doc, parts.Stock())
	_, err := json.Marshal(p)
	assert.NoError(t, err, "%s: what cannot be sent", what)
	for _, s := range p.States {
		if s.Fails != "" {
			named++
			assert.Regexp(t, reason, s.Fails, "%s: %s", what, s.ID)
		} else {
			assert.NotEmpty(t, s.Points, "%s: %s", what, s.ID)
		}
	}
	for _, m := range modes.Of(design.Of(doc, parts.Stock())).Rows {
		assert.NotContains(t, m.Why, "steady state", what)
		assert.NotContains(t, m.Why, "settle", what)
		if strings.Contains(m.Why, "can give at most") {
			assert.Regexp(t, reason, strings.TrimSuffix(strings.TrimPrefix(m.Why, "It comes to no stand: "), "."), what)
		}
	}
	return named
}

// Every state and every row of the mode table of every job here has a solution, or a reason
// that a practitioner understands; and of jobs drawn at random from all that validation
// lets through.
func TestEveryStateIsSolvedOrNamed(t *testing.T) {
	documents, err := testdata.Documents()
	require.NoError(t, err)
	for name, data := range documents {
		doc, problems := job.Decode(data)
		require.Empty(t, problems, name)
		solvedOrNamed(t, doc, name)
	}
	count := 100
	if os.Getenv("EPITROPE_CHECK") == "all" {
		count = 1000
	}
	named := 0
	for seed := range uint64(count) {
		data := jobtest.Random(rand.New(rand.NewPCG(seed, 9)))
		doc, problems := job.Decode(data)
		require.Empty(t, problems, "seed %d", seed)
		named += solvedOrNamed(t, doc, fmt.Sprintf("seed %d", seed))
	}
	t.Logf("of %d random jobs: %d states without a point, each with its reason", count, named)
}
