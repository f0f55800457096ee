package judge_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/judge"
)

// Kirchhoff's laws: two batteries of R fed at one end over links of r share as R + 2r to
// R; by opposite corners they share alike; three by opposite corners do not quite, as the
// middle one meets the current of both ends' links.
func TestSharesOfAParallelBank(t *testing.T) {
	const bank, link = 0.006, 0.0009
	end, err := judge.Shares([]float64{bank, bank}, link, false)
	require.NoError(t, err)
	assert.InDelta(t, (bank+2*link)/bank, end[0]/end[1], 1e-6)
	corners, err := judge.Shares([]float64{bank, bank}, link, true)
	require.NoError(t, err)
	assert.InDelta(t, 0.5, corners[0], 1e-6)
	for n := 2; n <= 4; n++ {
		for _, way := range []bool{true, false} {
			shares, err := judge.Shares(slices.Repeat([]float64{bank}, n), link, way)
			require.NoError(t, err)
			sum := 0.0
			for i, s := range shares {
				sum += s
				if way {
					assert.InDelta(t, shares[n-1-i], s, 1e-9, "corners are alike from both ends")
				} else if i > 0 {
					assert.Less(t, s, shares[i-1], "the farther carries less")
				}
			}
			assert.InDelta(t, 1, sum, 1e-6)
		}
	}
	four, err := judge.Shares(slices.Repeat([]float64{bank}, 4), link, true)
	require.NoError(t, err)
	assert.Greater(t, four[0], four[1])
	uneven, err := judge.Shares([]float64{0.004, 0.008}, 1e-9, true)
	require.NoError(t, err)
	assert.InDeltaSlice(t, []float64{2.0 / 3, 1.0 / 3}, uneven, 1e-6, "as their conductances")
}
