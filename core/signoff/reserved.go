package signoff

import (
	"slices"

	"epitrope/core/design"
	"epitrope/core/job"
)

// Reserved is what local rules commonly keep for a licensed person: it is no part of what is signed for here.
//
// Source: common practice, no source; the local rules decide.
func Reserved(d *design.Design) []string {
	list := []string{"Local vehicle, caravan and electrical codes, and the makers' own sheets, override what is signed for here."}
	if slices.ContainsFunc(d.Facts.Sources, func(s job.SourceFacts) bool { return s.ID == "mains" }) {
		list = append(list, "The mains side of the mains charger, its protection and its test: a licensed electrician.")
	}
	if d.Facts.SeatOut(d.Doc) {
		list = append(list, "Seats, belts and airbags that were taken out: whoever may work on them.")
	}
	return append(list, "Gas, and the vehicle's own brake, steering, airbag and engine-management circuits: not touched by this work.")
}
