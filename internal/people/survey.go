package people

import (
	"maps"
	"slices"
	"strings"
)

// surveyed are the parts of a document that say what is there, was measured, or was built; all else is decided.
var surveyed = map[string]bool{
	"remarks": true, "vehicle": true, "alternator": true, "startBattery": true, "aux": true, "use": true, "routes": true, "bays": true,
	"fit": true, "have": true, "signal": true, "beliefs": true, "drilling": true, "joints": true, "gear": true, "found": true, "bank": true,
	"fitted": true, "taps": true, "feeds": true, "points": true, "loads": true, "built": true, "known": true,
}

// SurveyedParts are those parts, in order.
func SurveyedParts() []string { return slices.Sorted(maps.Keys(surveyed)) }

// Surveyed says whether the answer at a path says what is there: those who may survey and not design may change it.
func Surveyed(path string) bool {
	head, _, _ := strings.Cut(path, ".")
	return surveyed[head]
}
