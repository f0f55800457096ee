// Package profile holds the charge profile that each chemistry wants.
package profile

import "epitrope/core/battery"

// Profile is what a 12 V battery at 25 °C wants to be charged at; a 24 V one
// wants twice that.
type Profile struct {
	AbsorptionLow, AbsorptionHigh float64 // V
	FloatLow, FloatHigh           float64 // V; zero where none is wanted
}

// profiles by chemistry. Source: from memory; the battery's own sheet wins.
var profiles = map[string]Profile{
	"flooded": {14.4, 14.8, 13.4, 13.8},
	"calcium": {14.8, 15.3, 13.5, 13.8},
	"agm":     {14.4, 14.7, 13.5, 13.7},
	"gel":     {14.1, 14.3, 13.5, 13.8},
	"lifepo4": {14.2, 14.4, 0, 13.5},
}

// For returns the profile of a chemistry.
func For(c battery.Chemistry) Profile { return profiles[c.ID] }
