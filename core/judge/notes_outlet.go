package judge

import (
	"math"

	"epitrope/core/circuit"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/unit"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// outletRules are about a run that begins at a body-builder's stud or socket: its maker's limits hold
// for everything behind it.
var outletRules = []rule{
	{"outlet.over", verdict.Stop, working.Practice,
		"The run draws up to %s from the body-builder's stud, and %s is what its maker allows.",
		"What is buried in the vehicle's loom gets hot first, and its fuse is the one nobody finds. Less current, or the start battery itself.",
		func(d *design.Design) []finding {
			most := allowed(d)
			return where(d.Start.Amps > most, func() finding {
				draws, may := unit.Apart(d.Start.Amps, most, "A", 0)
				return at("o1", draws, may).cure(append(chargerWithin(d, most),
					verdict.Set("Take the feed from the start battery", "arranged.from", "start"))...)
			})
		}},
	{"outlet.rush", verdict.Beware, working.Physics,
		"At the moment of joining a flat aux battery %s flow through a stud that its maker allows %s.",
		"The vehicle's own fuse ahead of the stud may open. Charge a flat battery alone first, or take the feed from the start battery.",
		func(d *design.Design) []finding {
			most := allowed(d)
			flows := math.Abs(circuit.Had(d.StateBy("inrush").Solved.Through("contact")))
			return where(d.Is.CanJoin && flows > most && d.Start.Amps <= most, func() finding {
				f, may := unit.Apart(flows, most, "A", 0)
				return at("o1", f, may)
			})
		}},
	{"outlet.fuse", verdict.Beware, working.Practice,
		"F1 is %s behind a stud that its maker allows %s: the maker's own fuse opens first.",
		"That one is somewhere in the vehicle's loom. A fuse of the stud's figure or less, where the run's current leaves room for it.",
		func(d *design.Design) []finding {
			most := allowed(d)
			return where(!d.Start.Unfused && d.Start.Fuse.RatingA > most && d.Start.Amps <= most, func() finding {
				return at("f1", unit.Plain(d.Start.Fuse.RatingA, "A", 1), unit.Plain(most, "A", 1))
			})
		}},
	{"outlet.hours", verdict.Beware, working.Practice,
		"The vehicle is driven %s a day, and the stud's maker allows its current for %s on end.",
		"Past that its cable and contacts warm beyond what they were tried for. A smaller charger, or the start battery itself.",
		func(d *design.Design) []finding {
			a := d.Facts.Arranged
			return where(d.FromStud() && a.FromH != nil && d.Facts.DrivenHours.Value > *a.FromH, func() finding {
				driven, may := unit.Apart(d.Facts.DrivenHours.Value, *a.FromH, "h", 1)
				return at("o1", driven, may).cure(verdict.Set("Take the feed from the start battery", "arranged.from", "start"))
			})
		}},
	{"outlet.unknown", verdict.Beware, working.Practice,
		"Nobody said how much the body-builder's stud may give, and %s are drawn from it.",
		"Its maker's guide for body-builders says it: amps, for how long, and with the engine on or off.",
		func(d *design.Design) []finding {
			return where(d.FromStud() && d.Facts.Arranged.FromA == nil, func() finding {
				return at("o1", unit.Text(d.Start.Amps, "A", 0))
			})
		}},
	{"outlet.dead", verdict.Beware, working.Physics,
		"The stud is dead until the engine runs: an emergency start by the join cannot come through it.",
		"The aux battery is then joined to nothing. Take the feed from the start battery, or start by jump leads.",
		func(d *design.Design) []finding {
			dead := d.FromStud() && d.Facts.Arranged.FromLive == job.LiveRunning
			return where(dead && d.Is.CanJoin && d.Facts.Survey.EmergencyStart == job.Yes, func() finding {
				return at("o1").cure(verdict.Set("Take the feed from the start battery", "arranged.from", "start"))
			})
		}},
	{"outlet.live", verdict.Remark, working.Practice,
		"Nobody said whether the stud is live with the engine stopped: it is taken as live.",
		"One that is dead then needs no isolating, and no relay's coil or charger that watches the voltage sees anything through it.",
		func(d *design.Design) []finding {
			return where(d.FromStud() && d.Facts.Arranged.FromLive == "", func() finding { return at("o1") })
		}},
}

// allowed is what the maker of the stud that the run begins at allows; no end where there is none, or nobody
// said.
func allowed(d *design.Design) float64 {
	if most := d.Facts.Arranged.FromA; d.FromStud() && most != nil {
		return *most
	}
	return math.Inf(1)
}
