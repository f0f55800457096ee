package alternator_test

import (
	"fmt"
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/alternator"
)

// drive is a twenty-minute recording, one reading a second: two minutes of idle, cruise
// with a lift-off every two minutes, idle at the end. volts says what the battery has.
func drive(volts func(s float64, kind string) float64) []alternator.Reading {
	var out []alternator.Reading
	for s := range 1200 {
		kind, rpm := "cruise", 2400.0
		switch {
		case s < 120 || s >= 1000:
			kind, rpm = "idle", 800
		case s%120 < 10:
			kind, rpm = "lift", 2400-130*float64(s%120)
		}
		if s%120 == 1 && kind == "lift" {
			rpm = 1600 // a lift-off is a quick fall
		}
		out = append(out, alternator.Reading{At: float64(s), V: volts(float64(s), kind), RPM: rpm, Kmh: math.NaN(), Line: s + 2})
	}
	return out
}

func classified(t *testing.T, r []alternator.Reading) alternator.Judgement {
	t.Helper()
	j, err := alternator.Classify(r)
	require.NoError(t, err)
	return j
}

func steady(v float64) func(float64, string) float64 {
	return func(s float64, _ string) float64 { return v + 0.012*math.Sin(s/17) } // as any regulator does
}

// The borders of trade (§3): each threshold has a recording that passes and one that
// just does not. Common practice, no source.
func TestEachThresholdHasTwoSides(t *testing.T) {
	lifts := func(low, high float64) func(float64, string) float64 {
		return func(_ float64, kind string) float64 {
			if kind == "lift" {
				return high
			}
			return low
		}
	}
	for _, c := range []struct {
		name   string
		volts  func(float64, string) float64
		proves alternator.Regulation
	}{
		{"fixed at 13.8 V", steady(13.81), alternator.Fixed},
		{"steady under 13.8 V", steady(13.75), alternator.Unknown},
		{"fixed at 14.7 V", steady(14.69), alternator.Fixed},
		{"steady over 14.7 V", steady(14.75), alternator.Unknown},
		{"cruise under 13.2 V, lift-off higher", lifts(13.1, 14.9), alternator.Variable},
		{"cruise over 13.2 V, lift-off by 0.9 V", lifts(13.95, 14.85), alternator.Variable},
		{"cruise over 13.2 V, lift-off by 0.7 V", lifts(13.95, 14.65), alternator.Unknown},
		{"idle alone under 13.2 V", func(_ float64, kind string) float64 {
			if kind == "idle" {
				return 12.9
			}
			return 14.2
		}, alternator.Unknown},
		{"a slow fall of 0.3 V", func(s float64, _ string) float64 { return 14.5 - 0.3*s/1200 }, alternator.Compensated},
		{"a slow fall of 0.1 V", func(s float64, _ string) float64 { return 14.5 - 0.1*s/1200 }, alternator.Fixed},
		{"never above 13 V", steady(12.6), alternator.Unknown},
	} {
		j := classified(t, drive(c.volts))
		assert.Equal(t, c.proves, j.Proves(), "%s: %s, %s %v", c.name, j.Class, j.Why, j.Missing)
	}
	assert.Equal(t, alternator.ClassNotCharging, classified(t, drive(steady(12.6))).Class)
}

// What lacks idle, cruise, lift-off or length is no proof of a steady one, and says so.
func TestWhatIsNotInARecordingIsNamed(t *testing.T) {
	whole := drive(steady(14.3))
	require.Equal(t, alternator.Fixed, classified(t, whole).Proves())
	without := func(drop func(alternator.Reading) bool) []alternator.Reading {
		return slices.DeleteFunc(slices.Clone(whole), drop)
	}
	noSpeed := slices.Clone(whole)
	for i := range noSpeed {
		noSpeed[i].RPM = math.NaN()
	}
	for name, c := range map[string]struct {
		readings []alternator.Reading
		missing  string
	}{
		"idle":   {without(func(r alternator.Reading) bool { return r.RPM < 1000 }), "a minute of idle"},
		"cruise": {without(func(r alternator.Reading) bool { return r.RPM > 1500 }), "three minutes of cruise"},
		"length": {whole[:400], "fifteen to twenty minutes"},
		"speed":  {noSpeed, "engine speed or road speed"},
	} {
		j := classified(t, c.readings)
		assert.Equal(t, alternator.Unknown, j.Proves(), name)
		assert.Contains(t, fmt.Sprint(j.Missing), c.missing, name)
	}
}

// The unit, the system and when it was do not change what is seen, nor does one wrong
// reading.
func TestWhatDoesNotMatter(t *testing.T) {
	eased := func(_ float64, kind string) float64 {
		if kind == "lift" {
			return 14.9
		}
		return 12.9
	}
	first := classified(t, drive(eased))
	for name, change := range map[string]func(*alternator.Reading){
		"millivolts": func(r *alternator.Reading) { r.V *= 1000 },
		"24 V":       func(r *alternator.Reading) { r.V *= 2 },
		"glitches": func(r *alternator.Reading) {
			if int(r.At)%97 == 5 {
				r.V = 0
			}
		},
	} {
		readings := drive(eased)
		for i := range readings {
			change(&readings[i])
		}
		j := classified(t, readings)
		assert.Equal(t, first.Class, j.Class, name)
		assert.InDelta(t, first.MedianV, j.MedianV, 0.011, name)
		assert.NotEmpty(t, j.Taken, name)
	}
	later := drive(eased)
	for i := range later {
		later[i].At += 1e6
	}
	j := classified(t, later)
	assert.Equal(t, first.Why, j.Why)
	require.Len(t, j.Findings, len(first.Findings))
	assert.InDelta(t, first.Findings[0].FromS+1e6, j.Findings[0].FromS, 1e-6)
}

// However fine a recording is, what is drawn of it is short, and keeps its extremes.
func TestTheCurveKeepsExtremes(t *testing.T) {
	readings := drive(func(s float64, _ string) float64 { return 14 + 0.5*math.Sin(s/30) })
	j := classified(t, readings)
	require.LessOrEqual(t, len(j.Curve), 360)
	low, high := math.Inf(1), math.Inf(-1)
	for i, s := range j.Curve {
		low, high = min(low, s.Low), max(high, s.High)
		if i > 0 {
			assert.Greater(t, s.AtS, j.Curve[i-1].AtS)
		}
	}
	assert.InDelta(t, 13.5, low, 0.02)
	assert.InDelta(t, 14.5, high, 0.02)
}

// What no running engine does proves nothing: volts that never move, an engine that never turns by its own
// column. Swapped leads are taken the right way round, and told.
func TestWhatProvesNothing(t *testing.T) {
	held := classified(t, drive(func(float64, string) float64 { return 13.96 }))
	assert.Equal(t, alternator.ClassUnclear, held.Class, held.Why)
	assert.Equal(t, alternator.Unknown, held.Proves())
	assert.Contains(t, held.Why, "no regulator holds that still")
	assert.NotEmpty(t, held.Missing)

	changed := func(change func(*alternator.Reading)) alternator.Judgement {
		readings := drive(steady(14.3))
		for i := range readings {
			change(&readings[i])
		}
		return classified(t, readings)
	}
	still := changed(func(r *alternator.Reading) { r.RPM = 0 })
	assert.NotEqual(t, alternator.ClassNotCharging, still.Class)
	assert.Contains(t, fmt.Sprint(still.Taken), "stays at nought though it charges")
	off := changed(func(r *alternator.Reading) { r.RPM, r.V = 0, r.V-1.8 })
	assert.Equal(t, alternator.ClassUnclear, off.Class)
	assert.Contains(t, off.Why, "the engine did not run")

	swapped := changed(func(r *alternator.Reading) { r.V = -r.V })
	assert.Equal(t, alternator.Fixed, swapped.Proves(), swapped.Why)
	assert.Contains(t, fmt.Sprint(swapped.Taken), "swapped leads")
}
