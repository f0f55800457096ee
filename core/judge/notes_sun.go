package judge

import (
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// sunRules are about where panels with a regulator of their own land.
var sunRules = []rule{
	{"sun.uncounted", verdict.Beware, working.Physics,
		"The panels land on the battery's posts, past the shunt R1: the monitor does not count what they bring.",
		"It shows less than there is, and says full too late. Their minus belongs on the shunt's far side.",
		func(d *design.Design) []finding {
			return where(sunAt(d, job.SunAtBattery) && d.Facts.Extras.Monitor, func() finding {
				return at("aux").cure(verdict.Set("Land them on the aux side's bus", "arranged.sunAt", job.SunAtBus))
			})
		}},
	{"sun.past", verdict.Remark, working.Physics,
		"The panels land on the battery's posts: with Q1 open they still charge the battery.",
		"That keeps it full while it stands. For whoever works there the battery's side is live by day: cover the panels or part them too.",
		func(d *design.Design) []finding {
			return where(sunAt(d, job.SunAtBattery) && d.Facts.Extras.Isolator == job.MasterSwitch, func() finding { return at("aux") })
		}},
	{"sun.behind", verdict.Beware, working.Practice,
		"The panels land on the coupling's aux side: with F2 out they stand on it without a battery, and C2 and F2 carry them besides.",
		"A regulator without a battery lets the voltage jump on whatever hangs there. They belong on the battery's side of F2, with a fuse of " +
			"their own.",
		func(d *design.Design) []finding {
			return where(sunAt(d, job.SunAtCharger), func() finding {
				return at("coupling").cure(verdict.Set("Land them on the aux side's bus", "arranged.sunAt", job.SunAtBus))
			})
		}},
}

// sunAt says whether panels with a regulator of their own land there.
func sunAt(d *design.Design, where string) bool {
	return d.Facts.Day.SolarW.Value > 0 && !d.Facts.Survey.SolarThrough && d.Facts.Arranged.SunAt == where
}
