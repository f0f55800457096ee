package trace

import (
	"strings"

	"epitrope/core/fault"
	"epitrope/core/prove"
)

// stationMinutes is how long it takes to have the vehicle so. Source: from memory.
var stationMinutes = map[string]float64{prove.FusesOut: 8, prove.Socket: 3, prove.KeyOut: 1, prove.Asleep: 25, prove.Accessory: 1,
	prove.Ignition: 1,
	prove.FastIdle: 3, prove.Warm: 33, prove.Full: 120, prove.Stopped: 4, prove.Held: 2, prove.Released: 1, prove.Parted: 3,
	prove.Loaded: 3}

// Minutes of a reading by itself: at a battery, elsewhere, and at the barrel of a lug, where covers come off. Source: from memory.
const (
	atBattery = 0.5
	elsewhere = 1.0
	atBarrel  = 2.0
	moving    = 1.5 // leads moved, one after the other, with somebody at the clamp
)

// cooling is how long it takes until what got warm is cold again. Source: from memory.
const cooling = 45.0

// handling is what any test takes besides: walking there, writing it down. Source: from memory.
const handling = 2.5

// LookMinutes is how long a look takes at where a fault of a kind may be, what any test takes besides with it.
func LookMinutes(k fault.Kind) float64 { return traits[k].minutes }

// Minutes are how long a reading takes, with the vehicle as it was for the last.
func Minutes(r prove.Reading, was string) float64 {
	m := elsewhere
	battery := func(p prove.Probe) bool { return p.Component == "start" || p.Component == "aux" }
	switch {
	case r.Moved != "":
		m = moving
	case strings.HasPrefix(r.ID, "end-"):
		m = atBarrel
	case battery(r.Red) && battery(r.Black):
		m = atBattery
	}
	if r.Station != was {
		m += stationMinutes[r.Station]
	}
	if r.Station == prove.FastIdle && (was == prove.Warm || was == prove.Full) {
		m += cooling
	}
	return m
}
