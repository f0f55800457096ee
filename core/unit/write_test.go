package unit_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"epitrope/core/unit"
)

// A quantity is written alike everywhere: rounded half away from zero, a true minus sign, never
// minus zero.
func TestQuantitiesAsShown(t *testing.T) {
	assert.Equal(t, "−0.05 V", unit.Text(-0.0499, "V", 2))
	assert.Equal(t, "0.0 V", unit.Text(-0.04, "V", 1))
	assert.Equal(t, "12.5", unit.Text(12.45, "", 1))
	assert.Equal(t, "7.5 A", unit.Plain(7.5, "A", 1))
	assert.Equal(t, "60 A", unit.Plain(60, "A", 1))
	assert.Equal(t, "0.0123 Ω", unit.Three(0.01234, "Ω"))
	assert.Equal(t, "1234 A", unit.Three(1234, "A"))
	assert.Equal(t, "1.6 kA", unit.Kilo(1580))
	assert.Equal(t, "Ähnlich", unit.Capital("ähnlich"))
	assert.Empty(t, unit.Capital(""))
}

// Times have two figures that mean something, in the unit that a person would take.
func TestTimesAsSaid(t *testing.T) {
	for _, c := range []struct {
		s    float64
		want string
	}{{0.016, "0.02 s"}, {3.21, "3.2 s"}, {45.4, "45 s"}, {119.4, "119 s"}, {120, "2 min"}, {7199, "120 min"}, {7200, "2 h"},
		{math.Inf(1), "no end"}} {
		assert.Equal(t, c.want, unit.Seconds(c.s))
	}
	assert.Equal(t, "90 min", unit.Span(1.5))
	assert.Equal(t, "48 h", unit.Span(48))
	assert.Equal(t, "4 days", unit.Span(96))
}

// A sentence's numbers are quantities too; whatever else it is filled with stays as it is.
func TestSay(t *testing.T) {
	assert.Equal(t, "F1 at −0.5 V, 12 %, 3 of them", unit.Say("%s at %.1f V, %.0f %%, %d of them", "F1", -0.49, 12.3, 3))
	assert.Equal(t, "0.0 V", unit.Say("%.1f V", -0.01))
	assert.Equal(t, "7.5 A", unit.Say("%v A", 7.5))
	assert.Equal(t, "39.7 A, more than 40.1 A", unit.Say("%.0f A, more than %.0f A", 39.7, 40.1))
	assert.Equal(t, "98.6 % is more than 99.4 %, 99 A", unit.Say("%.0f %% is more than %.0f %%, %.0f A", 98.6, 99.4, 99.0))
	assert.Equal(t, "F1: 50 A of 50 A", unit.Say("%s: %.0f A of %.0f A", "F1", 50.0, 50.0))
	assert.Equal(t, "50 A at 50 °C", unit.Say("%.0f A at %.0f °C", 50.2, 50.4))
}
