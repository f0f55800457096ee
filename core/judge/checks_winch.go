package judge

import (
	"math"

	"epitrope/core/circuit"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/unit"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// winchLeastV is what a winch's contactor, and the vehicle beside it, want at least, at
// 12 V. Source: from memory.
const winchLeastV = 10.0

var winchFields = []string{"extras.winchA", "extras.winchFrom", "extras.winchMin"}

// winchLooks hold the winch against what feeds it.
var winchLooks = []look{
	{"extra.winch.fails", verdict.Bad, working.Physics, winchFields,
		"Winching has no solution: %s.",
		func(d *design.Design) []finding {
			err := d.StateBy("winch").Err
			return where(d.Facts.Extras.Winch && err != nil, func() finding { return at("start", err.Error()) })
		}},
	{"extra.winch.apart", verdict.Caution, working.Practice, winchFields,
		"The winch is to pull from both batteries, and a %s does not join them.",
		func(d *design.Design) []finding {
			return says(winches(d) && d.Facts.Extras.WinchFrom == job.WinchAtJoined && !d.Is.CanJoin, "coupling", d.Kind.Label())
		}},
	{"extra.winch.fuse", verdict.Bad, working.Physics, winchFields,
		"Winching through the join sends %.0f A along the charging run: %s may open after %s.",
		func(d *design.Design) []finding {
			return where(winchOpens(d), func() finding {
				fuse, after := d.Soonest(winchShareA(d))
				return at("coupling", winchShareA(d), fuse, unit.Seconds(after))
			})
		}},
	{"extra.winch.contact", verdict.Bad, working.Practice, winchFields,
		"Winching through the join sends %.0f A through a contact that bears %.0f A for minutes.",
		func(d *design.Design) []finding {
			return where(winchJoined(d) && !winchOpens(d) && winchShareA(d) > joinBearsA(d), func() finding {
				return at("coupling", winchShareA(d), joinBearsA(d))
			})
		}},
	{"extra.winch.join", verdict.Good, working.Physics, winchFields,
		"Winching through the join sends %.0f A along the charging run, which bears it.",
		func(d *design.Design) []finding {
			return where(winchJoined(d) && !winchOpens(d) && winchShareA(d) <= joinBearsA(d), func() finding {
				return at("coupling", winchShareA(d))
			})
		}},
	{"extra.winch.volts", verdict.Caution, working.Memory, winchFields,
		"The winch pulls at %.1f V; under %.0f V its contactor chatters and the vehicle's electronics complain.",
		func(d *design.Design) []finding {
			if !winches(d) {
				return nil
			}
			volts, least := winchA(d)*d.WinchOhm(), winchLeastV*d.Facts.N
			return says(volts < least, "start", volts, least)
		}},
	{"extra.winch.takes", verdict.Good, working.Physics, winchFields,
		"The winch takes %.0f A: %.1f min of it is %.1f Ah out of the %s battery.",
		func(d *design.Design) []finding {
			return where(winches(d), func() finding {
				from, minutes := "start", d.Facts.Extras.WinchMin.Value
				if d.Facts.Extras.WinchFrom == job.WinchAtAux {
					from = "aux"
				}
				gives := circuit.Had(d.StateBy("winch").Solved.Through(from + " battery"))
				return at(from, winchA(d), minutes, math.Max(0, gives)*minutes/60, from)
			})
		}},
}

// winches is whether there is a winch that pulls.
func winches(d *design.Design) bool { return d.Facts.Extras.Winch && d.StateBy("winch").Err == nil }

// winchA is what it takes.
func winchA(d *design.Design) float64 {
	return circuit.Had(d.StateBy("winch").Solved.Through("winch"))
}

// winchJoined is whether the batteries are joined while it pulls.
func winchJoined(d *design.Design) bool { return winches(d) && d.StateBy("winch").Joined }

// winchShareA is what then flows by the join.
func winchShareA(d *design.Design) float64 {
	return math.Abs(circuit.Had(d.StateBy("winch").Solved.Through("contact")))
}

// winchOpens is whether a fuse of the run opens before the winch is done.
func winchOpens(d *design.Design) bool {
	return winchJoined(d) && d.MayOpen(winchShareA(d), 60*d.Facts.Extras.WinchMin.Value)
}

// joinBearsA is what the contact that joins the batteries bears for minutes where it sits.
func joinBearsA(d *design.Design) float64 {
	rating := d.Contact.ContinuousA
	if d.Is.Beside == design.RestContact {
		rating = d.Changeover.Relay.MakeA
	}
	return rating * parts.ContactFactor(d.Start.Bay.AmbientC)
}
