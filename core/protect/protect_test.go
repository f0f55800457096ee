package protect_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/protect"
)

// Check figures of the trade (common practice, no source). Input currents are
// the worst a charger draws: out × 14.2 V over 0.87 × 12.5 V.
func TestWindowCheckFigures(t *testing.T) {
	worst := func(out float64) float64 { return out * 14.2 / (0.87 * 12.5) }
	cases := []struct {
		name        string
		amps, cable float64
		families    []protect.Family
		want        float64
	}{
		{"10 A pump plus 20 %", 12, 50, protect.Small, 15},
		{"25 A charger", worst(25), 70, protect.Power, 50},
		{"30 A charger: 40–60 A", worst(30), 70, protect.Power, 50},
		{"40 A charger: 70 A where the cable bears it", worst(40), 82, protect.Power, 70},
		{"40 A out", 40, 100, protect.Power, 50},
		{"trigger wire, half an amp", 0.5, 21, protect.Small, 1},
		{"trailer, 99 A in: 125 A", 99, 160, protect.Power, 125},
	}
	for _, c := range cases {
		got, err := protect.Choose(protect.Need{ContinuousA: c.amps, CableA: c.cable, AmbientC: 30}, c.families)
		require.NoError(t, err, c.name)
		assert.Equal(t, c.want, got.RatingA, c.name)
	}
}

// 16 mm² "110 A" cable in an engine bay bears 82 A: 80 A there at most.
func TestCableLimitsTheFuse(t *testing.T) {
	_, err := protect.Choose(protect.Need{ContinuousA: 70, CableA: 82}, protect.Power)
	var none *protect.NoFuse
	require.ErrorAs(t, err, &none)
	assert.Equal(t, "no rating lies between 87.5 A and 82 A", err.Error())
	got, err := protect.Choose(protect.Need{ContinuousA: 64, CableA: 82}, protect.Power)
	require.NoError(t, err)
	assert.Equal(t, 80.0, got.RatingA)
}

func TestDeviceLimitsTheFuse(t *testing.T) {
	need := protect.Need{ContinuousA: 32, CableA: 100, DeviceMaxA: 40}
	got, err := protect.Choose(need, protect.Power)
	require.NoError(t, err)
	assert.Equal(t, 40.0, got.RatingA)
	assert.Equal(t, 40.0, need.Highest())
}

// A LiFePO4 bank gives several kA: a strip fuse breaks 2.
func TestFuseMustBreakTheFault(t *testing.T) {
	got, err := protect.Choose(protect.Need{ContinuousA: 40, CableA: 100, FaultA: 4000}, protect.Power)
	require.NoError(t, err)
	assert.Equal(t, "50 A single-bolt fuse", got.Label())
	_, err = protect.Choose(protect.Need{ContinuousA: 40, CableA: 100, FaultA: 30000}, protect.Power)
	require.EqualError(t, err, "no fuse can break 30.0 kA")
}

func TestFindPrefersWhatBreaks(t *testing.T) {
	fuse, ok := protect.Find(60, 4000, protect.Power)
	require.True(t, ok)
	assert.Equal(t, "bolt", fuse.Family.ID)
	fuse, ok = protect.Find(60, 50000, protect.Power)
	require.True(t, ok)
	assert.Equal(t, "sf30", fuse.Family.ID)
	_, ok = protect.Find(61, 0, protect.Power)
	assert.False(t, ok)
}

// About 10 % lost at 65 °C is inside the 80 %; beyond it counts.
func TestHeatAtTheFuse(t *testing.T) {
	assert.InDelta(t, 48, protect.Carries(60, 50), 1e-9, "60 A bears 48 for hours")
	assert.Less(t, protect.Carries(60, 90), 48.0)
	cool := protect.Need{ContinuousA: 48, AmbientC: 40}.Lowest()
	hot := protect.Need{ContinuousA: 48, AmbientC: 90}.Lowest()
	assert.InDelta(t, 60, cool, 1e-9)
	assert.Greater(t, hot, cool)
}

// Source: ISO 8820 bands (from memory).
func TestOpeningBands(t *testing.T) {
	cases := []struct {
		family   protect.Family
		multiple float64
		min, max float64
	}{
		{protect.Blade, 1.35, 0.75, 600}, {protect.Blade, 2, 0.15, 5}, {protect.Blade, 3.5, 0.04, 0.5}, {protect.Blade, 6, 0.02, 0.1},
		{protect.Strip30, 2, 1, 15}, {protect.Strip30, 6, 0.1, 1}, {protect.Strip51, 1.35, 120, 1800},
		{protect.Bolt, 3.5, 0.2, 5}, {protect.Ceramic, 20, 0.01, 0.1},
	}
	for _, c := range cases {
		min, max := c.family.Opens(c.multiple)
		assert.InDelta(t, c.min, min, 1e-9, "%s at %g", c.family.ID, c.multiple)
		assert.InDelta(t, c.max, max, 1e-9, "%s at %g", c.family.ID, c.multiple)
	}
	_, max := protect.Strip30.Opens(1.1)
	assert.True(t, math.IsInf(max, 1), "at 110 %% it need not open")
}

// More current never opens a fuse later; a higher rating never opens sooner.
func TestOpeningIsMonotonic(t *testing.T) {
	for _, f := range protect.All {
		lastMin, lastMax := math.Inf(1), math.Inf(1)
		for m := 1.0; m < 12; m *= 1.03 {
			min, max := f.Opens(m)
			assert.LessOrEqual(t, min, max)
			assert.LessOrEqual(t, min, lastMin+1e-9)
			assert.LessOrEqual(t, max, lastMax+1e-9)
			lastMin, lastMax = min, max
		}
		lastMin = 0
		for _, rating := range f.Ratings {
			min, _ := f.Opens(600 / rating)
			assert.GreaterOrEqual(t, min, lastMin-1e-9)
			lastMin = min
		}
	}
}

func TestCover(t *testing.T) {
	fuse := protect.Fuse{Family: protect.Strip30, RatingA: 60}
	good := fuse.Covers(800, 16, 50, 82)
	assert.True(t, good.Saves && good.Breaks)
	assert.Equal(t, 1.0, good.OpensMaxS)
	// A long thin cable: the fault is too small to open the fuse in time.
	thin := fuse.Covers(90, 2.5, 50, 30)
	assert.False(t, thin.Saves)
	// Below the cable's own limit nothing needs to open.
	below := fuse.Covers(50, 16, 50, 82)
	assert.True(t, math.IsInf(below.BearsS, 1) && below.Saves)
	assert.False(t, fuse.Covers(2500, 35, 50, 150).Breaks)
}
