package coupling_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/coupling"
)

// Trade check: a 30 A charger draws 30·14.2/(0.87·12.5) ≈ 39 A; a 40 A one about 53 A at worst.
func TestInputIsLargerThanOutput(t *testing.T) {
	assert.InDelta(t, 39.2, coupling.InputCurrent.Value(30, 14.2, 0.87, 12.5), 0.05)
	assert.InDelta(t, 53, coupling.InputCurrent.Value(40, 14.4, 0.87, 12.5), 0.05)
	assert.InDelta(t, 99, coupling.InputCurrent.Value(80, 14.2, 0.90, 12.8), 0.5)
}

// 10 m one way of 8 AWG, out and back, 46 mΩ with joints: at most about 1,100 W
// from 14.2 V, so 80 A of charging cannot exist at its end. 2 AWG, 14 mΩ, gives
// about 12.8 V at 99 A.
func TestLongThinTrailerLine(t *testing.T) {
	watts := 80 * 14.2 / 0.90
	_, _, err := coupling.Settle(14.2, 0.046, watts)
	var starved *coupling.Starved
	require.ErrorAs(t, err, &starved)
	assert.InDelta(t, 1100, starved.MostW, 10)
	amps, volts, err := coupling.Settle(14.2, 0.014, watts)
	require.NoError(t, err)
	assert.InDelta(t, 99, amps, 0.7)
	assert.InDelta(t, 12.8, volts, 0.05)
}

// What settles satisfies Ohm's law and the power, on the upper branch.
func TestSettleIsTheStableSolution(t *testing.T) {
	for watts := 10.0; watts < 1000; watts += 33 {
		for ohms := 0.001; ohms < 0.04; ohms *= 1.7 {
			amps, volts, err := coupling.Settle(13.8, ohms, watts)
			require.NoError(t, err)
			assert.InDelta(t, watts, amps*volts, 1e-6)
			assert.InDelta(t, 13.8-amps*ohms, volts, 1e-9)
			assert.GreaterOrEqual(t, volts, 13.8/2)
		}
	}
	_, _, err := coupling.Settle(0, 0.01, 10)
	require.ErrorIs(t, err, coupling.ErrSource)
}
