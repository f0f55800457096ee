package profile_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"epitrope/core/battery"
	"epitrope/core/profile"
)

// Trade, §12: a flooded battery at −10 °C would ask 15.8 V, more than lamps and
// electronics bear: it is clamped.
func TestCompensation(t *testing.T) {
	asks := 14.8 - 0.027*(-10-25)
	assert.InDelta(t, 15.75, asks, 0.06)
	v, clamped := profile.Compensated(14.8, -0.027, -10)
	assert.True(t, clamped)
	assert.Equal(t, profile.ClampHighV, v)
	v, clamped = profile.Compensated(14.7, -0.024, 35)
	assert.False(t, clamped)
	assert.InDelta(t, 14.46, v, 1e-9)
	v, _ = profile.Compensated(14.4, 0, -20)
	assert.Equal(t, 14.4, v, "none is wanted of LiFePO4")
	for _, c := range battery.Chemistries {
		last := 100.0
		for temp := -50.0; temp <= 70; temp += 5 {
			v, _ := profile.Compensated(profile.For(c).AbsorptionHigh, profile.For(c).PerK, temp)
			assert.LessOrEqual(t, v, last, "never more when warmer")
			last = v
		}
	}
}

// The stock card has a setting for every chemistry, each by leads of its own; an open lead
// is a setting too.
func TestStockSettings(t *testing.T) {
	list := profile.Stock()
	leads := map[[2]profile.Lead]bool{}
	for _, c := range battery.House() {
		s := profile.BestFor(list, c)
		assert.Equal(t, c.ID, s.For)
		assert.LessOrEqual(t, s.AbsorptionV, profile.For(c).HarmV)
		at := [2]profile.Lead{s.A, s.B}
		assert.False(t, leads[at], "%s has the leads of another", c.ID)
		leads[at] = true
		found, ok := profile.ByLeads(list, s.A, s.B)
		assert.True(t, ok && found.ID == s.ID)
	}
	broken, ok := profile.ByLeads(list, profile.Open, profile.Open)
	assert.True(t, ok)
	assert.Equal(t, "agm", broken.ID, "a broken lead silently becomes the default")
	_, ok = profile.ByLeads(list, profile.Battery, profile.Battery)
	assert.False(t, ok)
}

// Without one of its own, a chemistry takes the setting that harms least.
func TestBestOfFew(t *testing.T) {
	few := []profile.Setting{{ID: "a", AbsorptionV: 14.7}, {ID: "b", AbsorptionV: 14.2}}
	assert.Equal(t, "b", profile.BestFor(few, battery.Gel).ID, "14.7 harms gel")
	assert.Equal(t, "a", profile.BestFor(few, battery.Flooded).ID)
}
