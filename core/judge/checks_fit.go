package judge

import (
	"epitrope/core/battery"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/unit"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

var fitFields = []string{"fit.lengthMM", "fit.widthMM", "fit.heightMM", "fit.recessLengthMM", "fit.recessWidthMM", "fit.recessHeightMM",
	"fit.openingLengthMM", "fit.openingWidthMM", "fit.aboveMM"}

// fitLooks hold the battery against the recess, the opening and the room above it.
var fitLooks = []look{
	{"fit.open", verdict.Open, working.Practice, fitFields,
		"%d of %d measures are missing: battery, recess up to its lid or seat, opening, and what is free above it. A dummy of cardboard " +
			"settles the rest.",
		func(d *design.Design) []finding {
			_, missing := fitted(d)
			return says(missing > 0, "aux", missing, len(fitFields))
		}},
	{"fit.not", verdict.Bad, working.Physics, fitFields,
		"The battery does not go in: %s.",
		func(d *design.Design) []finding {
			var list []finding
			fit, _ := fitted(d)
			for _, p := range fit.Problems {
				list = append(list, at("aux", p))
			}
			return list
		}},
	{"fit.tilted", verdict.Caution, working.Physics, fitFields,
		"The battery goes in tilted by %.0f°, with %.0f mm left over its terminals.",
		func(d *design.Design) []finding {
			fit, _ := fitted(d)
			return says(fit.Goes && fit.TiltDeg > 0, "aux", fit.TiltDeg, fit.ClearMM)
		}},
	{"fit.bare", verdict.Caution, working.Practice, []string{"fit.covered"},
		"The aux battery's terminals are bare: a lid, a tool or a load that falls across them shorts it.",
		bareTerminals(false)},
	{"fit.bare", verdict.Bad, working.Practice, []string{"fit.covered"},
		"The aux battery's terminals are bare %s: what moves there shorts the battery. Covers, or boots, before anything is connected.",
		bareTerminals(true)},
	{"fit.covered", verdict.Good, working.Practice, []string{"fit.covered"},
		"The aux battery's terminals are covered.",
		func(d *design.Design) []finding {
			return says(job.Str(d.Facts.Survey.Fit.Covered) == string(job.Yes), "aux")
		}},
	{"fit.covered.open", verdict.Open, working.Practice, []string{"fit.covered"},
		"Look: are the aux battery's terminals covered, so that lid, seat and load cannot reach them?",
		func(d *design.Design) []finding { return says(d.Facts.Survey.Fit.Covered == nil, "aux") }},
	{"fit.goes", verdict.Good, working.Physics, fitFields,
		"The battery goes in upright, with %.0f mm left over its terminals.",
		func(d *design.Design) []finding {
			fit, _ := fitted(d)
			return says(fit.Goes && fit.TiltDeg == 0, "aux", fit.ClearMM)
		}},
}

// reachM is what is left over terminals under a lid or seat that may still come down on them, in mm. Source:
// from memory.
const reachMM = 30.0

// bareTerminals finds bare ones: under something that moves, or otherwise.
func bareTerminals(under bool) func(d *design.Design) []finding {
	return func(d *design.Design) []finding {
		if job.Str(d.Facts.Survey.Fit.Covered) != string(job.No) {
			return nil
		}
		fit, missing := fitted(d)
		low := d.Facts.Place.ID == "seat" || missing == 0 && fit.Goes && fit.ClearMM < reachMM
		switch {
		case low != under:
			return nil
		case d.Facts.Place.ID == "seat":
			return says(true, "aux", "under a seat")
		case under:
			return says(true, "aux", unit.Say("with %.0f mm left over them", fit.ClearMM))
		}
		return says(true, "aux")
	}
}

// fitted is how the battery fits, and how many of the measures that tell it are missing.
func fitted(d *design.Design) (fit battery.Fit, missing int) {
	f := d.Facts.Survey.Fit
	for _, v := range []*float64{f.LengthMM, f.WidthMM, f.HeightMM, f.RecessLengthMM, f.RecessWidthMM, f.RecessHeightMM, f.OpeningLengthMM,
		f.OpeningWidthMM, f.AboveMM} {
		if v == nil {
			missing++
		}
	}
	if missing > 0 {
		return battery.Fit{}, missing
	}
	return d.Facts.Chemistry.FitIn(battery.Box{L: *f.LengthMM, W: *f.WidthMM, H: *f.HeightMM},
		battery.Space{Recess: battery.Box{L: *f.RecessLengthMM, W: *f.RecessWidthMM, H: *f.RecessHeightMM}, OpeningL: *f.OpeningLengthMM,
			OpeningW: *f.OpeningWidthMM, AboveMM: *f.AboveMM}), 0
}

// bankLooks are how batteries in parallel share.
var bankLooks = []look{
	{"bank.shares", verdict.Good, working.Physics, []string{"aux.feed", "aux.linkM", "aux.count"},
		"The hardest worked battery carries %.0f %% of the current, and %.0f %% would be even, fed %s.",
		func(d *design.Design) []finding {
			shares := Bank(d)
			return where(len(shares) > 0, func() finding {
				most, even := 0.0, 100/float64(len(shares))
				for _, s := range shares {
					most = max(most, s.Share)
				}
				f := at("aux", most, even, feedWords[d.Facts.Survey.AuxFeed])
				if most > even*(1+unequalBy) {
					f = f.as(verdict.Caution)
				}
				return f
			})
		}},
	{"bank.kinds", verdict.Bad, working.Physics, []string{"bank.*.chemistry"},
		"In one bank %s and %s want different voltages, and no charger gives both: full and joined at rest %.0f A flow from the first to the " +
			"second.",
		func(d *design.Design) []finding {
			from, to, amps, mixed := evens(d)
			return says(mixed, "aux", from, to, amps)
		}},
	{"bank.mixed", verdict.Bad, working.Practice, []string{"aux.same"},
		"Batteries of different type or age in parallel: the weaker one drags the other down.",
		func(d *design.Design) []finding {
			_, _, _, kinds := evens(d) // that is said as such
			return says(isBank(d) && d.Facts.Survey.AuxSame == job.No && !kinds, "aux")
		}},
	{"bank.same.open", verdict.Open, working.Practice, []string{"aux.same"},
		"Ask: are they of the same type and age?",
		func(d *design.Design) []finding { return says(isBank(d) && d.Facts.Survey.AuxSame == job.Asked, "aux") }},
}

var feedWords = map[string]string{"corners": "by opposite corners", "end": "at one end"}

func isBank(d *design.Design) bool { return d.Facts.Survey.AuxCount.Value >= 2 }
