package unit_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/unit"
)

func TestNumbersAsPeopleWriteThem(t *testing.T) {
	for text, want := range map[string]float64{"12": 12, "12.5": 12.5, "12,5": 12.5, "-0,05": -0.05, "−3": -3, "+7": 7, ".5": 0.5, ",5": 0.5,
		"0,125": 0.125, "1,200.5": 1200.5, "1.200,5": 1200.5, "1,234,567": 1234567, "1.234.567": 1234567, "14,400,000.25": 14400000.25,
		"14.200": 14.2, "1234,567": 1234.567, "16,50": 16.5, "00,125": 0.125} {
		got, err := unit.Number(text)
		require.NoError(t, err, text)
		assert.InDelta(t, want, got, 1e-9, text)
	}
	for _, text := range []string{"", ".", ",", "1,2,3", "1.2.3", "1,23.4", "1.2,3,4", "12a", "1e3", "--1", "1-2", "inf", "0x10", "1 2"} {
		_, err := unit.Number(text)
		assert.Error(t, err, text)
	}
}

// “1,200 W” may be twelve hundred watts or one and a fifth: nobody guesses.
func TestAnUnclearNumberIsAsked(t *testing.T) {
	for _, text := range []string{"1,200", "12,500", "-1,825", "100,000"} {
		_, err := unit.Number(text)
		var unclear *unit.Unclear
		require.ErrorAs(t, err, &unclear, text)
		assert.Contains(t, unclear.Wrong(), " or ")
	}
	_, err := unit.Power.Parse("1,200 W")
	assert.ErrorContains(t, err, "may be 1200 or 1.2")
	v, err := unit.Power.Parse("1 200 W")
	require.NoError(t, err)
	assert.InDelta(t, 1200, v, 0)
	v, err = unit.Length.Parse("12 ft 6")
	require.NoError(t, err)
	assert.InDelta(t, 3.81, v, 1e-9)
}

// Whatever is read is finite, and reads again as it was.
func FuzzNumber(f *testing.F) {
	for _, s := range []string{"1,200", "1.200,5", "−3", "1 200", "9e9", ",,", "1,234,567.5"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, text string) {
		v, err := unit.Number(text)
		if err != nil {
			return
		}
		assert.False(t, math.IsInf(v, 0) || math.IsNaN(v), text)
		again, err := unit.Number(unit.Plain(v, "", 6))
		if err == nil {
			assert.InDelta(t, v, again, 1e-5+1e-6*math.Abs(v), text)
		}
	})
}
