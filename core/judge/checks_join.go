package judge

import (
	"math"

	"epitrope/core/design"
	"epitrope/core/run"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// joinLeastV is the least a battery of 12 V may stand at to be joined to another. Source:
// common practice, no source.
const joinLeastV = 10.7

var restFields = []string{"startBattery.restV", "aux.restV"}

// joinLooks are what is looked at before two batteries are joined.
var joinLooks = []look{
	{"join.open", verdict.Open, working.Practice, restFields,
		"Before they are joined, measure both batteries at rest.",
		func(d *design.Design) []finding { return says(areJoined(d) && !bothRested(d), "coupling") }},
	{"join.ruined", verdict.Bad, working.Practice, restFields,
		"One battery stands at %.1f V: at %.1f V and less, perhaps a cell short, they are not joined. Isolate it and charge it alone; one " +
			"that jumps from 3 to 12 V in minutes has lost its capacity.",
		func(d *design.Design) []finding {
			return where(areJoined(d) && bothRested(d) && lowerV(d) <= joinLeastV*d.Facts.N, func() finding {
				return at("coupling", lowerV(d), joinLeastV*d.Facts.N)
			})
		}},
	{"join.flows", verdict.Good, working.Physics, restFields,
		"Joined as they stand, %.1f V apart, %.0f A begin to flow from the %s to the %s battery (the smaller fuse is %.0f A); ten seconds " +
			"move %.2f Ah.",
		flows(func(amps, fuseA float64) bool { return amps <= 2*fuseA })},
	{"join.large", verdict.Bad, working.Physics, restFields,
		"Joined as they stand, %.1f V apart, %.0f A would flow from the %s to the %s battery, far over the %.0f A fuse, and ten seconds " +
			"would move %.2f Ah: charge the lower one alone first.",
		flows(func(amps, fuseA float64) bool { return amps > 2*fuseA })},
}

// areJoined is whether the coupling, or a contact beside it, joins the batteries.
func areJoined(d *design.Design) bool {
	return !d.Is.OwnMachine && (d.Kind.Joins() || d.Is.Beside == design.RestContact)
}

// bothRested is whether both batteries were measured at rest.
func bothRested(d *design.Design) bool {
	return d.Facts.Survey.StartV != nil && d.Facts.Survey.AuxV != nil
}

// lowerV is the lower of the two.
func lowerV(d *design.Design) float64 { return min(*d.Facts.Survey.StartV, *d.Facts.Survey.AuxV) }

// flows finds what begins to flow when both are joined as they stand.
func flows(holds func(amps, fuseA float64) bool) func(d *design.Design) []finding {
	return func(d *design.Design) []finding {
		if !areJoined(d) || !bothRested(d) || lowerV(d) <= joinLeastV*d.Facts.N {
			return nil
		}
		apart, from, to := *d.Facts.Survey.AuxV-*d.Facts.Survey.StartV, "aux", "start"
		if apart < 0 {
			from, to = to, from
		}
		amps := math.Abs(apart) / (d.SeriesOhm() + d.AuxOhm() + d.StartOhm())
		fuseA := math.Inf(1)
		for _, l := range []*run.Sized{&d.Start, &d.Aux} {
			if !l.Unfused {
				fuseA = min(fuseA, l.Fuse.RatingA)
			}
		}
		return where(holds(amps, fuseA), func() finding {
			f := at("coupling", math.Abs(apart), amps, from, to, fuseA, amps*10/3600)
			if amps > fuseA && amps <= 2*fuseA {
				f = f.as(verdict.Caution)
			}
			return f
		})
	}
}
