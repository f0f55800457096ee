package judge

import (
	"math"

	"epitrope/core/circuit"
	"epitrope/core/design"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// noteButton says where no small fuse breaks a short behind F5.
func noteButton(d *design.Design, n *noted) {
	if _, ok := d.OwnFeed(); ok && d.Button.NearFault > d.Button.Fuse.Family.BreaksA {
		n.add("button.breaks", "coupling", verdict.Beware, with(working.Text(d.Button.NearFault/1000, "kA", 1), d.Button.Fuse.Label(),
			working.Text(d.Button.Fuse.Family.BreaksA/1000, "kA", 0)), nil)
	}
}

// sharingS is a join to share charge. Source: common practice, no source: ten to fifteen
// minutes.
const sharingS = 15 * 60.0

// noteEmergency says what the fuses would do in the emergency start that was chosen.
func noteEmergency(d *design.Design, n *noted) {
	if d.WorkedByHand() == design.NoHand {
		return
	}
	note := func(id, in string, lasts float64) {
		amps := math.Abs(circuit.Had(d.StateBy(in).Solved.Through("contact")))
		if fuse, after := d.Soonest(amps); after <= lasts {
			n.add(id, "coupling", verdict.Beware, with(working.Text(amps, "A", 0), fuse, working.Seconds(after)), nil,
				verdict.Set("Join ten seconds, part, crank", "schools.emergency", "precharge"))
		}
	}
	switch d.Facts.Schools.Emergency {
	case "crank":
		note("emergency.crank", "joined", design.LongStartS)
	case "share":
		note("emergency.share", "precharge", sharingS)
	}
}
