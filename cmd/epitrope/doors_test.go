package main

import (
	"bytes"
	"encoding/json"
	"math/rand/v2"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/plan"
	"epitrope/internal/jobtest"
	"epitrope/internal/settings"
)

// The command line says what the core says: as JSON to the last figure, in words every note with its severity.
func TestTheCommandLineSaysWhatTheCoreSays(t *testing.T) {
	for seed := range uint64(8) {
		document := jobtest.Random(rand.New(rand.NewPCG(seed, 199)))
		doc, problems := job.Decode(document)
		require.Empty(t, problems)
		decided := plan.Decide(doc, parts.Stock())
		want, err := json.Marshal(decided)
		require.NoError(t, err)
		var told, said bytes.Buffer
		require.NoError(t, runPlan([]string{"--json", "-"}, bytes.NewReader(document), &told, own{Preferences: settings.Usual()}))
		assert.JSONEq(t, string(want), told.String(), "seed %d", seed)
		require.NoError(t, runPlan([]string{"-"}, bytes.NewReader(document), &said, own{Preferences: settings.Usual()}))
		for _, n := range decided.Notes {
			assert.Contains(t, said.String(), n.Severity+": "+strings.TrimSpace(n.Text), "seed %d", seed)
		}
	}
}
