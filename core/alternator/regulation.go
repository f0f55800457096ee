package alternator

import "math"

// Regulation is how the voltage of an alternator is held.
type Regulation string

// The kinds of regulation. What is not known is treated as variable.
const (
	Fixed       Regulation = "fixed"
	Compensated Regulation = "compensated"
	Variable    Regulation = "variable"
	Unknown     Regulation = "unknown"
)

// Moment is what a variable regulation looks at.
type Moment int

// The moments of a drive.
const (
	Pulling  Moment = iota // the engine drives the vehicle, or idles
	LiftOff                // the vehicle drives the engine: charging costs no fuel
	Charging               // the start battery is not yet full
)

// Voltages at 12 V. Source: common practice, no source: a variable machine shows
// sustained spells under about 13.2 V and jumps to about 15 V on lift-off; hot
// machines regulate a little lower; temperature-compensated ones by 10 mV/K (from
// memory) about a warm engine space.
const (
	EasedV     = 12.9
	LiftV      = 15.0
	HotDropV   = 0.2
	perKelvin  = -0.010
	warmSpaceC = 50.0
	lowestV    = 13.2
	highestV   = 15.2
	StartFull  = 0.80 // charge of the start battery above which a variable one eases off
)

// Hotter is by how much a machine regulates lower in a space of spaceC, at 12 V, where it was
// measured to hold hotV hot and warmV warm: in proportion from 50 to 80 °C, and no further.
//
// Source: common practice, no source.
func Hotter(warmV, hotV, spaceC float64) float64 {
	return (hotV - warmV) * math.Min(1, math.Max(0, (spaceC-warmSpaceC)/(hotSpaceC-warmSpaceC)))
}

// SetV returns what a machine is regulated to, in V at 12 V, where warmV is what it
// holds warm at cruise: a fixed one just that; a compensated one less in heat and
// more in cold, 13.2 to 15.2 V; a variable one by the moment.
//
// Source: common practice, no source; the slope from memory.
func (r Regulation) SetV(warmV, spaceC float64, m Moment) float64 {
	switch {
	case r == Fixed:
		return warmV
	case r == Compensated:
		return min(highestV, max(lowestV, warmV+perKelvin*(spaceC-warmSpaceC)))
	case m == LiftOff:
		return LiftV
	case m == Charging:
		return warmV
	}
	return EasedV
}
