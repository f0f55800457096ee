// Package profile holds the charge profile that each chemistry wants, and how a charger
// is set to give it.
package profile

import (
	"math"

	"epitrope/core/battery"
)

// Profile is what a 12 V battery at 25 °C wants to be charged at; a 24 V one
// wants twice that.
type Profile struct {
	AbsorptionLow, AbsorptionHigh float64 // V
	FloatLow, FloatHigh           float64 // V; zero where none is wanted
	PerK                          float64 // V/K, negative: less when warm; 0 where none is wanted
	HarmV                         float64 // harmed above; its management system opens
}

// profiles by chemistry. Source: from memory; the battery's own sheet wins. Compensation:
// the middle of −24 to −30 mV/K for flooded, −24 for calcium and AGM, −20 for gel.
var profiles = map[string]Profile{
	"flooded": {14.4, 14.8, 13.4, 13.8, -0.027, 15.2},
	"calcium": {14.8, 15.3, 13.5, 13.8, -0.024, 15.6},
	"agm":     {14.4, 14.7, 13.5, 13.7, -0.024, 14.9},
	"gel":     {14.1, 14.3, 13.5, 13.8, -0.020, 14.4},
	"lifepo4": {14.2, 14.4, 0, 13.5, 0, 14.6},
}

// For returns the profile of a chemistry.
func For(c battery.Chemistry) Profile { return profiles[c.ID] }

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
