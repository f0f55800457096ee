package judge

import (
	"slices"

	"epitrope/core/design"
	"epitrope/core/unit"
	"epitrope/core/verdict"
)

// What a note stands on that may still be open: then it says “if”, and stops nothing.
var (
	onChemistry = []string{"place.hot", "place.gas", "relay.surge", "relay.night", "profile.harms", "profile.high", "profile.low",
		"profile.frost", "profile.broken", "charger.acceptance"}
	onRegulation = []string{"relay.open", "relay.chatter"}
)

// ifSo is a note told as far as is known: where it stands on an answer that nobody gave, it says so and
// is a caution at most.
func ifSo(d *design.Design, n Note) Note {
	f, said := d.Facts, ""
	switch {
	case !f.ChemistryKnown && slices.Contains(onChemistry, n.ID):
		said = unit.Say("Nobody said what the aux battery is; if it is %s: ", f.Chemistry.Label)
	case f.Varies() && f.Regulation != "variable" && slices.Contains(onRegulation, n.ID):
		said = "How the alternator is regulated is not proven; if it varies: "
	default:
		return n
	}
	n.Text = said + n.Text
	if n.Severity == verdict.Stop {
		n.Severity = verdict.Beware
	}
	return n
}
