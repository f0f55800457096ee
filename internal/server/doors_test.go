package server_test

import (
	"encoding/json"
	"epitrope/internal/dbtest"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/plan"
	"epitrope/internal/jobtest"
)

// The API says what the core says, to the last figure and word, whatever validation lets through.
func TestTheAPISaysWhatTheCoreSays(t *testing.T) {
	h := serve(t, dbtest.Store(t))
	for seed := range uint64(8) {
		document := jobtest.Random(rand.New(rand.NewPCG(seed, 199)))
		doc, problems := job.Decode(document)
		require.Empty(t, problems)
		want, err := json.Marshal(plan.Decide(doc, parts.Stock()))
		require.NoError(t, err)
		var told struct{ Plan json.RawMessage }
		require.Equal(t, 200, call(t, "POST", h.URL+"/api/plan", string(document), &told).StatusCode)
		assert.JSONEq(t, string(want), string(told.Plan), "seed %d", seed)
	}
}
