package unit_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/unit"
)

func TestParseAsWritten(t *testing.T) {
	cases := []struct {
		dim  unit.Dimension
		text string
		want float64
	}{
		{unit.Length, "2.3m", 2.3},
		{unit.Length, " 2,3 m ", 2.3},
		{unit.Length, "2.3", 2.3},
		{unit.Length, "230 cm", 2.3},
		{unit.Length, "6ft6", 1.9812},
		{unit.Length, "6 ft 6 in", 1.9812},
		{unit.Length, `6'6"`, 1.9812},
		{unit.Length, "12 ft 6", 3.81},
		{unit.Length, "78 in", 1.9812},
		{unit.Temperature, "95F", 35},
		{unit.Temperature, "35 °C", 35},
		{unit.Temperature, "-4F", -20},
		{unit.Temperature, "-10", -10},
		{unit.Current, "500 mA", 0.5},
		{unit.Percent, "2%", 2},
		{unit.Hours, "1h30", 1.5},
		{unit.Hours, "1h20", 4.0 / 3},
		{unit.Hours, "90 min", 1.5},
		{unit.Charge(12), "840 Wh", 70},
		{unit.Charge(24), "1.68 kWh", 70},
		{unit.Area, "16 mm2", 16},
	}
	for _, c := range cases {
		got, err := c.dim.Parse(c.text)
		require.NoError(t, err, c.text)
		assert.InDelta(t, c.want, got, 1e-9, c.text)
	}
}

func TestParseNamesWhatItRefuses(t *testing.T) {
	for _, text := range []string{"", "m", "two metres", "2.3 kg", "2.3 m 4 kg", "6ft6ft", "1e999", "NaN", "inf", "--2", "2.3.4", "5 m -3",
		"9999999999999999999999999999999999999999999999999999 m"} {
		_, err := unit.Length.Parse(text)
		var named *unit.Error
		require.ErrorAs(t, err, &named, text)
		assert.Contains(t, err.Error(), "is not a length; write it like 2.3 m")
	}
}

func FuzzQuantity(f *testing.F) {
	for _, s := range []string{"6ft6", "95F", "1h30", "840 Wh", `6'6"`, "2,3", "-4 °F"} {
		f.Add(s)
	}
	dims := []unit.Dimension{unit.Length, unit.Temperature, unit.Current, unit.Hours, unit.Charge(12), unit.Area}
	f.Fuzz(func(t *testing.T, text string) {
		for _, d := range dims {
			v, err := d.Parse(text)
			assert.False(t, math.IsNaN(v) || math.IsInf(v, 0))
			if err != nil {
				assert.Zero(t, v)
			}
		}
	})
}
