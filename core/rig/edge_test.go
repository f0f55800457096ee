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

// A battery that a charger holds at its voltage takes no more steps than one that it charges.
func TestWhatIsHeldIsNotStiff(t *testing.T) {
	d := jobtest.Design(t, `{"aux":{"curve":"0 % 12.28, 27 % 12.70, 100 % 14.44","slowMOhm":489.4828,"slowS":1},"pins":{"auxFuseA":200},
		"loads":{"r0":{"amps":400,"count":16.8598,"duty":53.1306,"hours":13.9869,"kind":"worklight","standbyA":20}}}`)
	r := rig.Of(d, rig.Nominal)
	r.Solar, r.VehicleA, r.Aux.SOC = nil, r.LampsA, 0.5
	got, err := day.Run(r, day.Pattern{{Kind: day.Idle, Seconds: 3600}}, day.Conditions{OutsideC: 20}, day.Options{})
	require.NoError(t, err)
	assert.Less(t, got.Steps, 1000)
}
