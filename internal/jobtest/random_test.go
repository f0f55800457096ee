package jobtest_test

import (
	"math/rand/v2"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/job"
	"epitrope/internal/jobtest"
)

// What is drawn is let through, the same seed draws the same, and no field is never drawn.
func TestDrawnJobsAreLetThrough(t *testing.T) {
	drawn := map[string]bool{}
	for seed := range uint64(600) {
		data := jobtest.Random(rand.New(rand.NewPCG(seed, 5)))
		require.Equal(t, data, jobtest.Random(rand.New(rand.NewPCG(seed, 5))))
		doc, problems := job.Decode(data)
		require.Empty(t, problems, "seed %d: %s", seed, data)
		again := doc.Encode()
		for _, f := range job.Fields {
			last := f.Path[strings.LastIndex(f.Path, ".")+1:]
			if last == "*" {
				last = strings.TrimSuffix(f.Path, ".*")
			}
			if strings.Contains(string(again), `"`+last+`"`) {
				drawn[f.Path] = true
			}
		}
	}
	for _, f := range job.Fields {
		assert.True(t, drawn[f.Path], f.Path)
	}
}
