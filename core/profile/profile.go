// Package profile holds the charge profile that each chemistry wants, and how a charger
// is set to give it.
package profile

import (
	"math"

	"epitrope/core/battery"
)

// Profile is what a battery wants to be charged at.
type Profile = battery.Profile

// For returns the profile of a chemistry.
func For(c battery.Chemistry) Profile { return c.Profile }

// The range that compensation stays in, at 12 V: above it lamps and electronics suffer, and
// below it nothing charges. Source: common practice, no source: clamped; 15.0 and 13.2 V
// from memory.
const (
	ClampHighV = 15.0
	ClampLowV  = 13.2
)

// Compensated returns a voltage for a battery at tempC, from −40 to 60 °C, by perK for
// each kelvin from 25 °C, and whether it had to be held back by the clamp.
//
// Source: from memory.
func Compensated(volts, perK, tempC float64) (v float64, clamped bool) {
	v = volts + perK*(math.Max(-40, math.Min(60, tempC))-25)
	high, low := math.Max(ClampHighV, volts), math.Min(ClampLowV, volts)
	return math.Max(low, math.Min(high, v)), v > high || v < low
}
