package judge

import (
	"math"

	"epitrope/core/circuit"
	"epitrope/core/coupling"
	"epitrope/core/design"
	"epitrope/core/feed"
	"epitrope/core/job"
	"epitrope/core/unit"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// sharingS is a join to share charge. Source: common practice, no source: ten to fifteen
// minutes.
const sharingS = 15 * 60.0

// joiningS is how long the first rush of a join lasts, as a fuse has to bear it. Source: from memory.
const joiningS = 3.0

// joinRules are about joining the batteries by hand.
var joinRules = []rule{
	{"button.breaks", verdict.Beware, working.Physics,
		"A short behind F5 draws %s; a %s breaks %s.",
		"Take S1's feed off a circuit that is already fused on that side, a branch of its fuse box, with F5 there.",
		func(d *design.Design) []finding {
			_, own := d.OwnFeed()
			return where(own && d.Button.NearFault > d.Button.Fuse.Family.BreaksA, func() finding {
				return at("coupling", unit.Text(d.Button.NearFault/1000, "kA", 1), d.Button.Fuse.Label(),
					unit.Text(d.Button.Fuse.Family.BreaksA/1000, "kA", 0))
			})
		}},
	{"volts.join", verdict.Stop, working.Physics,
		"The vehicle has %s and the aux side %s, and this coupling puts one on the other.",
		"Hundreds of amps flow until something opens. A charger that turns the one into the other, and nothing beside it.",
		func(d *design.Design) []finding {
			f := d.Facts
			return where(f.N != f.AuxN && (d.Is.CanJoin || d.Is.Splits), func() finding {
				return at("coupling", unit.Plain(f.SystemV.Value, "V", 0), unit.Plain(f.AuxV.Value, "V", 0)).
					cure(verdict.Set("Fit a charger", "pins.coupling", string(coupling.DCDC)))
			})
		}},
	{"button.toggle", verdict.Beware, working.Practice,
		"S1 stays where it is put: a join that is forgotten goes on, parked or driving.",
		"Parked it empties both batteries, driving it takes what no charger limits. A button that springs back; a switch needs a lamp and an " +
			"interlock at the least.",
		func(d *design.Design) []finding {
			return where(d.Toggles(), func() finding {
				f := at("coupling").cure(verdict.Set("A button that springs back", "arranged.control", "momentary"))
				if d.Interlocked() && d.Lamped() {
					f = f.heavier(verdict.Remark)
				}
				return f
			})
		}},
	{"interlock.blocks", verdict.Beware, working.Physics,
		"K3 parts S1's feed with the ignition on, and the chosen way of an emergency start joins with the ignition on.",
		"The signal is live with the key, not with the engine alone. Another feed point, or join with the key out.",
		func(d *design.Design) []finding {
			share := d.Facts.Schools.Emergency == "share" && d.Facts.Survey.EmergencyStart == job.Yes
			live := d.FeedIs(design.Ignition) == feed.Is
			return where(d.Interlocked() && share && live, func() finding { return at("coupling").cure(anotherFeed()) })
		}},
	{"join.fuse", verdict.Beware, working.Physics,
		"At the moment of joining a flat aux battery %s flow, and %s may open after %s.",
		"The rush lasts for seconds. A larger window, thicker cable for it, or charge the flat battery alone first.",
		func(d *design.Design) []finding {
			if !d.Is.CanJoin || d.WorkedByHand() == design.Button {
				return nil
			}
			amps := math.Abs(circuit.Had(d.StateBy("inrush").Solved.Through("contact")))
			fuse, after := d.Soonest(amps)
			return where(after < joiningS, func() finding {
				return at("coupling", unit.Text(amps, "A", 0), fuse, unit.Seconds(after))
			})
		}},
	{"join.contact", verdict.Beware, working.Practice,
		"Joined on a flat aux battery, %s flow through a contact that may close on %s.",
		"A contact that closes on more than it is made for welds, some day. A contactor made for it, or charge the flat one alone first.",
		func(d *design.Design) []finding {
			amps := math.Abs(circuit.Had(d.StateBy("inrush").Solved.Through("contact")))
			return where(amps > d.JoinsOnA(), func() finding {
				flows, bears := unit.Apart(amps, d.JoinsOnA(), "A", 0)
				return at("coupling", flows, bears)
			})
		}},
	{"emergency.crank", verdict.Beware, working.Physics,
		"Cranking through the join drives %s through %s, which may open after %s.",
		"Cranking current is more than such a fuse bears. Join ten seconds, part, then crank.",
		emergency("crank", "joined", design.LongStartS)},
	{"emergency.contact", verdict.Beware, working.Practice,
		"Cranking through the join drives %s through a contact that bears %s for the seconds of a start.",
		"A contact that opens under such a current welds, or burns. Join ten seconds, part, then crank.",
		func(d *design.Design) []finding {
			if d.WorkedByHand() == design.NoHand || d.Facts.Schools.Emergency != "crank" {
				return nil
			}
			amps := math.Abs(circuit.Had(d.StateBy("joined").Solved.Through("contact")))
			return where(amps > d.JoinCrankA(), func() finding {
				return at("coupling", unit.Text(amps, "A", 0), unit.Text(d.JoinCrankA(), "A", 0)).
					cure(verdict.Set("Join ten seconds, part, crank", "schools.emergency", "precharge"))
			})
		}},
	{"emergency.share", verdict.Beware, working.Physics,
		"Joined for a quarter of an hour, %s flow at first through %s, which may open after %s.",
		"A flat start battery takes what the run lets through. Ten seconds, part, crank; or charge it alone first.",
		emergency("share", "precharge", sharingS)},
}

// emergency finds a fuse that may open in a way of starting that was chosen, in a state that
// lasts so many seconds.
func emergency(way, state string, lasts float64) func(d *design.Design) []finding {
	return func(d *design.Design) []finding {
		if d.WorkedByHand() == design.NoHand || d.Facts.Schools.Emergency != way {
			return nil
		}
		amps := math.Abs(circuit.Had(d.StateBy(state).Solved.Through("contact")))
		fuse, after := d.Soonest(amps)
		return where(after <= lasts, func() finding {
			return at("coupling", unit.Text(amps, "A", 0), fuse, unit.Seconds(after)).
				cure(verdict.Set("Join ten seconds, part, crank", "schools.emergency", "precharge"))
		})
	}
}
