package study

import (
	"fmt"
	"math"

	"epitrope/core/circuit"
	"epitrope/core/day"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/rig"
	"epitrope/core/section"
	"epitrope/core/unit"
	"epitrope/core/verdict"
)

func (t trier) emergency() School {
	s := School{ID: "emergency", Ask: "How is the engine started from the aux battery?", Path: "schools.emergency",
		Default: "Joined for ten seconds first: cranking current is more than the fuse bears."}
	d := t.now
	pre, crank := d.StateBy("precharge"), d.StateBy("joined")
	flow := math.Abs(circuit.Had(pre.Solved.Through("contact")))
	tenS, tenMin, quarter := movedByJoin(d)
	for _, v := range []string{"precharge", "share", "crank"} {
		field, _ := job.FieldAt(s.Path)
		o := SchoolOption{Value: v, Label: field.Show(v), Now: d.Facts.Schools.Emergency == v, Level: verdict.Good}
		switch v {
		case "precharge":
			o.Comes = fmt.Sprintf("%s begin to flow into a flat start battery; ten seconds move %s: %s.", unit.Text(flow, "A", 0),
				unit.Text(tenS, "Ah", 2), section.FusesAt(d, flow))
		case "share":
			o.Comes = fmt.Sprintf("Ten to fifteen minutes move %s to %s into it.", unit.Text(tenMin, "Ah", 1), unit.Text(quarter, "Ah", 1))
		default:
			through := math.Abs(circuit.Had(crank.Solved.Through("contact")))
			opens := section.FusesAt(d, through)
			if d.MayOpen(through, design.LongStartS) {
				o.Level = verdict.Bad
			}
			o.Comes = fmt.Sprintf("The starter gets %s, of it %s through the join: %s.",
				unit.Text(circuit.Had(crank.Solved.Through("starter")), "A", 0), unit.Text(through, "A", 0), opens)
			if bears := d.Contact.CrankA; through > bears && bears > 0 {
				o.Level = verdict.Bad
				o.Comes += fmt.Sprintf(" The contact bears %s for seconds.", unit.Text(bears, "A", 0))
			}
		}
		s.Options = append(s.Options, o)
	}
	return s
}

// movedByJoin is what goes into a flat start battery in ten seconds, ten and fifteen
// minutes of being joined to a full aux battery, in Ah; run through time.
func movedByJoin(d *design.Design) (tenS, tenMin, quarter float64) {
	rig := rig.Of(d, rig.Nominal)
	rig.Start.SOC, rig.Aux.SOC, rig.Solar, rig.HouseA = design.FlatSOC, 1, nil, 0
	moved, lastT, lastA := 0.0, 0.0, 0.0
	watch := func(f day.Frame) {
		moved += (f.T - lastT) * (lastA + f.StartA) / 2 / 3600
		lastT, lastA = f.T, f.StartA
		switch {
		case f.T <= 10:
			tenS = moved
		case f.T <= 600:
			tenMin = moved
		}
		quarter = moved
	}
	pattern := day.Pattern{{Kind: day.Joined, Seconds: 10}, {Kind: day.Joined, Seconds: 590}, {Kind: day.Joined, Seconds: 300}}
	if _, err := day.Run(rig, pattern, day.Conditions{OutsideC: design.WarmC}, day.Options{Watch: watch}); err != nil {
		return 0, 0, 0
	}
	return max(0, tenS), max(0, tenMin), max(0, quarter)
}
