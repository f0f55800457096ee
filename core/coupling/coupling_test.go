package coupling_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"epitrope/core/coupling"
)

// Trade check: a 30 A charger draws 30·14.2/(0.87·12.5) ≈ 39 A; a 40 A one about 53 A at worst.
func TestInputIsLargerThanOutput(t *testing.T) {
	assert.InDelta(t, 39.2, coupling.InputCurrent.Value(30, 14.2, 0.87, 12.5), 0.05)
	assert.InDelta(t, 53, coupling.InputCurrent.Value(40, 14.4, 0.87, 12.5), 0.05)
	assert.InDelta(t, 99, coupling.InputCurrent.Value(80, 14.2, 0.90, 12.8), 0.5)
}

// 10 m one way of 8 AWG, out and back, 46 mΩ with joints: at most about 1,100 W
// from 14.2 V, so 80 A of charging cannot exist at its end.
func TestMostPowerOfALine(t *testing.T) {
	assert.InDelta(t, 1100, coupling.MostPower.Value(14.2, 0.046), 10)
	assert.Less(t, coupling.MostPower.Value(14.2, 0.046), 80*14.2/0.90)
}

// 14.2 V against a battery at 12.2 V over 20 mΩ and its own 5.
func TestJoinedIsTheDifferenceOverTheLoop(t *testing.T) {
	assert.InDelta(t, 80, coupling.Joined.Value(14.2, 12.2, 0.020, 0.005), 1e-9)
}
