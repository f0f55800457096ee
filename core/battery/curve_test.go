package battery_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/battery"
)

// A battery's own curve is what it rests at; between its points in proportion.
func TestOwnCurve(t *testing.T) {
	curve, err := battery.ParseCurve("0 % 11.9, 50% 13.1 V, 100 % 13.5")
	require.NoError(t, err)
	own := battery.LiFePO4.Resting(curve)
	assert.InDelta(t, 12.5, own.RestV(0.25), 1e-9)
	assert.InDelta(t, 0.75, own.Charge(13.3), 1e-9)
	assert.InDelta(t, 13.2, battery.LiFePO4.RestV(0.5), 1e-9, "the chemistry keeps its own")
}

func TestCurvesThatAreRefused(t *testing.T) {
	for text, wrong := range map[string]string{
		"":                          "has 0 points",
		"0 % 12":                    "has 1 points",
		"0 % 12, 50 % 13":           "goes from 0 % to 50 %",
		"10 % 12, 100 % 13":         "goes from 10 % to 100 %",
		"0 % 12, 0 % 12.5":          "does not rise",
		"0 % 12, 100 % 11.9":        "does not rise",
		"0 % 12, 100":               "has no charge",
		"0 % 12, 100 % lots":        "is not a voltage",
		"0 % 1, 100 % 13":           "no rest voltage",
		"0 % 12, 50 % 26, 100 % 27": "no rest voltage",
	} {
		_, err := battery.ParseCurve(text)
		assert.ErrorContains(t, err, wrong, text)
	}
}

// 20 A pull 12.60 V down to 12.46 V: 7 mΩ. Source: Ohm's law.
func TestResistanceByLoad(t *testing.T) {
	ohm, ok := battery.ByLoad(12.60, 12.46, 20)
	assert.True(t, ok)
	assert.InDelta(t, 0.007, ohm, 1e-9)
	assert.InDelta(t, 0.007, battery.AGM.Resisting(ohm, 95, 1).Ohm(95, 1), 1e-9)
	_, ok = battery.ByLoad(12.6, 12.7, 20)
	assert.False(t, ok, "no load lifts a battery")
}

func FuzzParseCurve(f *testing.F) {
	f.Add("0 % 11.9, 50 % 13.1, 100 % 13.5")
	f.Add("0%6\n100%17")
	f.Fuzz(func(t *testing.T, text string) {
		curve, err := battery.ParseCurve(text)
		if err != nil {
			return
		}
		own := battery.AGM.Resting(curve)
		for soc := 0.0; soc < 1; soc += 0.1 {
			assert.LessOrEqual(t, own.RestV(soc), own.RestV(soc+0.1))
			assert.GreaterOrEqual(t, own.Charge(own.RestV(soc)), -1e-9)
		}
	})
}
