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

func winchChecks(d *design.Design) []Check {
	e, n := d.Facts.Extras, d.Facts.N
	if !e.Winch {
		return nil
	}
	fields := []string{"extras.winchA", "extras.winchFrom", "extras.winchMin"}
	s := d.StateBy("winch")
	if s.Err != nil {
		return []Check{extra("winch.fails", "start", verdict.Bad, working.Physics, fields, s.Err.Error())}
	}
	pulls := circuit.Had(s.Solved.Through("winch"))
	list := []Check{}
	if e.WinchFrom == job.WinchAtJoined && !d.Is.CanJoin {
		list = append(list, extra("winch.apart", "coupling", verdict.Caution, working.Practice, fields, d.Kind.Label()))
	}
	if s.Joined {
		share := math.Abs(circuit.Had(s.Solved.Through("contact")))
		switch {
		case d.MayOpen(share, 60*e.WinchMin.Value):
			fuse, after := d.Soonest(share)
			list = append(list, extra("winch.fuse", "coupling", verdict.Bad, working.Physics, fields, share, fuse, unit.Seconds(after)))
		case share > joinBearsA(d):
			list = append(list, extra("winch.contact", "coupling", verdict.Bad, working.Practice, fields, share, joinBearsA(d)))
		default:
			list = append(list, extra("winch.join", "coupling", verdict.Good, working.Physics, fields, share))
		}
	}
	if volts := pulls * d.WinchOhm(); volts < winchLeastV*n {
		list = append(list, extra("winch.volts", "start", verdict.Caution, working.Memory, fields, volts, winchLeastV*n))
	}
	from, gives := "start", circuit.Had(s.Solved.Through("start battery"))
	if e.WinchFrom == job.WinchAtAux {
		from, gives = "aux", circuit.Had(s.Solved.Through("aux battery"))
	}
	return append(list, extra("winch.takes", from, verdict.Good, working.Physics, fields, pulls, e.WinchMin.Value,
		math.Max(0, gives)*e.WinchMin.Value/60, from))
}

// joinBearsA is what the contact that joins the batteries bears for minutes where it sits.
func joinBearsA(d *design.Design) float64 {
	rating := d.Contact.ContinuousA
	if d.Is.Beside == design.RestContact {
		rating = d.Changeover.Relay.MakeA
	}
	return rating * parts.ContactFactor(d.Start.Bay.AmbientC)
}
