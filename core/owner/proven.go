package owner

import (
	"math"

	"epitrope/core/unit"
)

// Proven is what a proof showed, as the owner is told it: what later trips are held against. The values are a proof's readings,
// by id.
func Proven(read map[string]float64) (list []string) {
	say := func(id, text, digits string, places int) {
		if v, taken := read[id]; taken {
			list = append(list, unit.Say(text, unit.Text(v, digits, places)))
		}
	}
	say("charge", "With the engine at a fast idle %s went into the second battery, which was part empty.", "A", 0)
	say("aux-charge", "The second battery then stood at %s, as its own display may show.", "V", 1)
	say("profile", "Full, the second battery was held at %s.", "V", 1)
	if v, taken := read["apart-again"]; taken && math.Abs(v) < nothingA {
		list = append(list, "With the engine off, nothing flowed between the two batteries.")
	}
	if v, taken := read["signal-asleep"]; taken && math.Abs(v) < nothingV {
		list = append(list, "Parked and asleep, the wire that tells of the running engine was dead.")
	}
	return list
}

// What counts as nothing, within a common clamp's zero and a common meter's last digits.
const (
	nothingA = 0.5
	nothingV = 0.5
)
