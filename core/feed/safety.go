package feed

import (
	"slices"
	"strings"
	"unicode"
)

// Safe says whether somebody answered that a point feeds brakes, airbag, steering or engine.
type Safe string

// The answers.
const (
	NotSaid Safe = ""
	Vital   Safe = "yes" // it does
	Plain   Safe = "no"
)

// vitalWords are words by which people write down circuits that are no feed points; a word that
// begins so counts. Source: common practice, no source.
var vitalWords = []string{"brake", "braking", "abs", "esp", "esc", "airbag", "air-bag", "srs", "steering", "eps", "ecu", "ecm", "pcm",
	"injector", "injection", "ignition-coil", "fuel-pump", "stability", "restraint", "pretensioner"}

// exactly are those of them that are words of their own and begin others.
var exactly = []string{"abs", "esp", "esc", "srs", "eps", "ecu", "ecm", "pcm"}

// Vital says whether it feeds what nobody taps: as answered, or, where nobody did, by what is
// written down of it.
func (p Point) Vital() bool {
	return p.Safety == Vital || p.Safety == NotSaid && (vital(p.Circuit) || vital(p.Name))
}

// vital reads words that somebody wrote down.
func vital(text string) bool {
	words := strings.FieldsFunc(strings.ToLower(text), func(r rune) bool { return !unicode.IsLetter(r) && r != '-' })
	for i, word := range words {
		pair := word
		if i+1 < len(words) {
			pair += "-" + words[i+1]
		}
		if slices.ContainsFunc(vitalWords, func(v string) bool {
			if slices.Contains(exactly, v) {
				return word == v
			}
			return strings.HasPrefix(word, v) || strings.HasPrefix(pair, v)
		}) {
			return true
		}
	}
	return false
}
