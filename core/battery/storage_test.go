package battery_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"epitrope/core/battery"
)

// Every chemistry loses something standing, and is kept over something; a flooded battery
// wants charging again first of all.
func TestStanding(t *testing.T) {
	days := map[string]float64{}
	for _, c := range battery.Chemistries {
		assert.Positive(t, c.LosesIn30Days, c.ID)
		assert.Less(t, c.LosesIn30Days, 0.2, c.ID)
		assert.Greater(t, c.KeepsOver, 0.0, c.ID)
		assert.Less(t, c.KeepsOver, 1.0, c.ID)
		days[c.ID] = battery.TopUp.Value(100, c.KeepsOver, c.LosesIn30Days, 0)
	}
	assert.InDelta(t, 125, days["flooded"], 0.5, "a quarter of it at 6 % in thirty days")
	for id, d := range days {
		assert.GreaterOrEqual(t, d, days["flooded"], id)
	}
	// 50 mA left on takes more than a battery loses by itself.
	assert.InDelta(t, 25/(100*0.025/30+24*0.05), battery.TopUp.Value(100, 0.75, 0.025, 0.05), 1e-9)
}
