package rig_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/day"
	"epitrope/core/rig"
	"epitrope/internal/jobtest"
)

// A charger whose input falls to its cut-out stops there, however coarsely it is stepped: it does not ride along
// the edge, charging on what it cannot have.
func TestNothingRidesOnAnEdge(t *testing.T) {
	starved := map[string]int{}
	for name, doc := range jobtest.Complete(t) {
		times := func(tolerance float64) int {
			d := jobtest.Design(t, string(doc.Encode()))
			r := rig.Of(d, rig.Nominal)
			r.Solar, r.VehicleA = nil, r.LampsA
			got, err := day.Run(r, day.Pattern{{Kind: day.Idle, Seconds: 3600}}, day.Conditions{OutsideC: 20}, day.Options{Tolerance: tolerance})
			require.NoError(t, err, name)
			n := 0
			for _, e := range got.Events {
				if e.ID == "charger.starved" {
					n++
				}
			}
			return n
		}
		coarse, fine := times(1), times(0.1)
		starved[name] = coarse
		assert.InDelta(t, fine, coarse, 1+0.1*float64(fine), name)
	}
	assert.Greater(t, starved["10-24v-lithium"], 100)
	assert.Greater(t, starved["22-rest-contact"], 100)
}
