package parts_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"epitrope/core/coupling"
	"epitrope/core/parts"
)

// Every card of the book says what a plan asks of it.
func TestStock(t *testing.T) {
	b := parts.Stock()
	last := 0.0
	for _, c := range b.Chargers {
		assert.Greater(t, c.OutputA, last, "smallest first")
		last = c.OutputA
		assert.True(t, c.Efficiency >= 0.87 && c.Efficiency <= 0.92 && c.EfficiencyLow <= c.Efficiency, c.Label)
		assert.True(t, c.CutOutV > 10 && c.CutOutV < 12.5, c.Label)
		assert.True(t, c.StandbyA > 0 && c.CaseKPerW > 0 && c.MaxAmbientC >= 40, c.Label)
		found, ok := b.Charger(c.OutputA)
		assert.True(t, ok && found.ID == c.ID)
	}
	_, ok := b.Charger(33)
	assert.False(t, ok)
}

func TestRelayIsTheSmallestThatCarries(t *testing.T) {
	b := parts.Stock()
	for amps, want := range map[float64]float64{10: 60, 60: 60, 61: 100, 150: 200, 900: 200} {
		assert.Equal(t, want, b.Contact(coupling.VSR, amps).ContinuousA, "%g A", amps)
	}
}

// A relay's headline rating is not that of its rest contact; a plug and a contact bear
// less in the heat.
func TestContactsPlugsAndHeat(t *testing.T) {
	b := parts.Stock()
	assert.Equal(t, 100.0, b.Changeover(60, 6).Relay.MakeA, "70 A of headline rests at 50")
	assert.Equal(t, 100.0, b.Changeover(20, 16).Relay.MakeA, "16 mm² goes on studs alone")
	assert.Equal(t, 120.0, b.Plug(99, 33.6).RatingA, "80 A of charging draws up to 99 A")
	assert.Equal(t, 120.0, b.Plug(30, 25).RatingA, "25 mm² does not go into a 50 A housing")
	assert.Zero(t, b.Contact(coupling.DCDC, 10).ContinuousA, "a charger alone has none")
	assert.Equal(t, 1.0, parts.ContactFactor(40))
	assert.InDelta(t, 0.8, parts.ContactFactor(80), 1e-9)
	assert.IsIncreasing(t, parts.ContactRatings())
}
