package prove_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/prove"
)

// An entry is read in any unit, with a point or a comma; what cannot be is refused in words that help.
func TestEntries(t *testing.T) {
	volts, amps := prove.Reading{ID: "start-rest", Unit: prove.Volts}, prove.Reading{ID: "charge", Unit: prove.Amps}
	for _, c := range []struct {
		r     prove.Reading
		text  string
		value float64
		jumps bool
		wrong string
	}{
		{volts, "14.2", 14.2, false, ""}, {volts, " 14,2 V ", 14.2, false, ""}, {volts, "210 mV", 0.21, false, ""},
		{volts, "-13.4", -13.4, false, ""}, {volts, "−13.4", -13.4, false, ""}, {amps, "31.5", 31.5, false, ""},
		{volts, "jumps 1.9 V", 1.9, true, ""}, {volts, "Jumps to 210 mV", 0.21, true, ""}, {volts, "jumpsjumps 3 V", 0, false,
			"is not a voltage"}, {prove.Reading{ID: "warm", Unit: prove.Kelvin}, "jumps 30 K", 30, true, ""},
		{amps, "jumps 14 V", 0, false, "is not a current"},
		{amps, "400 mA", 0.4, false, ""}, {volts, "jumps", 0, true, ""}, {volts, "", 0, false, "is missing"},
		{volts, "OL", 0, false, "over the meter's range"}, {volts, "14.2 A", 0, false, "is not a voltage"},
		{amps, "12 V", 0, false, "is not a current"}, {volts, "1,200", 0, false, "is not a voltage"}, {volts, "NaN", 0, false,
			"is not a voltage"},
	} {
		got, err := c.r.Entered(c.text)
		if c.wrong != "" {
			require.Error(t, err, c.text)
			assert.Contains(t, err.Error(), c.wrong, c.text)
			assert.Contains(t, err.Error(), "allowed: such as", c.text)
			continue
		}
		require.NoError(t, err, c.text)
		assert.InDelta(t, c.value, got.Value, 1e-9, c.text)
		assert.Equal(t, c.jumps, got.Jumps, c.text)
		assert.Equal(t, c.r.ID, got.ID)
	}
}
