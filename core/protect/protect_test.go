package protect_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/cable"
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
	sixty := protect.Fuse{Family: protect.Strip30, RatingA: 60}
	assert.InDelta(t, 48, sixty.Carries(50), 1e-9, "60 A bears 48 for hours")
	assert.Less(t, sixty.Carries(90), 48.0)
	cool := protect.Need{ContinuousA: 48, AmbientC: 40}.Lowest(protect.Strip30)
	hot := protect.Need{ContinuousA: 48, AmbientC: 90}.Lowest(protect.Strip30)
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
		{protect.Bolt, 3.5, 0.2, 5}, {protect.Ceramic, 6, 0.01, 0.1},
		{protect.Strip30, 60, 0.001, 0.01}, // a constant I²t beyond 6 times
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

// A 100 A breaker that carries 99 A in a hot bay will trip: it bears far less for
// hours. Source: common practice, no source.
func TestBreakersLoseMoreToHeat(t *testing.T) {
	hundred := protect.Fuse{Family: protect.Breaker, RatingA: 100}
	assert.InDelta(t, 80, hundred.Carries(30), 1e-9)
	assert.InDelta(t, 72, hundred.Carries(60), 1e-9)
	got, err := protect.Choose(protect.Need{ContinuousA: 60, CableA: 100, AmbientC: 60}, []protect.Family{protect.Breaker})
	require.NoError(t, err)
	assert.Equal(t, "100 A breaker, reset by hand", got.Label())
	assert.Equal(t, protect.Itself, protect.DeviceByID("auto-breaker").Families[0].Resets)
	assert.Equal(t, "fuse", protect.DeviceByID("none such").ID)
}

func faulted(area float64) cable.Fault {
	return cable.Class85.Faulted(cable.Square(area), cable.EngineBay(), 70)
}

func TestCover(t *testing.T) {
	fuse := protect.Fuse{Family: protect.Strip30, RatingA: 60}
	good := fuse.Covers(1600, 800, faulted(16))
	assert.True(t, good.Saves && good.Breaks)
	assert.InDelta(t, 360.0/800*360/800, good.Far.OpensMaxS, 1e-9)
	assert.Less(t, good.Near.OpensMaxS, good.Far.OpensMaxS)
	// A long thin cable: the fault is too small to open the fuse in time.
	thin := fuse.Covers(1600, 90, faulted(4))
	assert.False(t, thin.Saves)
	assert.True(t, thin.Near.Saves(), "near the fuse it would")
	// Below the cable's own limit nothing needs to open.
	below := fuse.At(50, faulted(16))
	assert.True(t, math.IsInf(below.BearsS, 1) && below.Saves())
	assert.False(t, fuse.Covers(2500, 900, faulted(35)).Breaks)
}

// A fuse within its cable's ampacity saves it from every short along it.
func TestCoverHoldsAlongTheRun(t *testing.T) {
	for _, area := range []float64{6, 10, 16, 25, 35, 50, 70} {
		carries := cable.Class85.Carries(cable.Square(area), cable.EngineBay()).Amps
		for _, f := range []protect.Family{protect.Strip30, protect.Strip51, protect.Bolt} {
			for _, rating := range f.Ratings {
				if rating <= carries {
					assert.True(t, protect.Fuse{Family: f, RatingA: rating}.Covers(1700, 6*rating, faulted(area)).Saves, "%g A %s on %g mm²", rating, f.ID,
						area)
				}
			}
		}
	}
}

// Fuses discriminate where the one nearer the fault is slowest still faster than the
// other at its fastest.
func TestInSeries(t *testing.T) {
	blade := protect.Fuse{Family: protect.Blade, RatingA: 5}
	strip := protect.Fuse{Family: protect.Strip51, RatingA: 200}
	assert.True(t, protect.InSeries(strip, blade, 300).Selective)
	same := protect.Fuse{Family: protect.Strip30, RatingA: 60}
	got := protect.InSeries(same, same, 900)
	assert.False(t, got.Selective)
	assert.Greater(t, got.FromA, 60.0)
	// Physics: what discriminates up to a current does so up to a lower one.
	assert.True(t, protect.InSeries(strip, blade, 100).Selective)
}
