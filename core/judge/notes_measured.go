package judge

import (
	"math"

	"epitrope/core/circuit"
	"epitrope/core/design"
	"epitrope/core/unit"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// A good crimp and bolted joint has up to goodJointOhm; one of burnsOhm and more burns. Source:
// common practice, no source: 0.1–0.5 mΩ, and 10–500 mΩ.
const (
	goodJointOhm = 0.0005
	burnsOhm     = 0.010
)

// measuredRules are about what was measured on the installation.
var measuredRules = []rule{
	{"joint.burns", verdict.Stop, working.Practice,
		"The %s measures %s: a joint like that burns.",
		"It turns %s into heat at %s. Take it off, cut back to bright copper, crimp and bolt it again.",
		joints(func(ohm float64) bool { return ohm >= burnsOhm })},
	{"joint.worn", verdict.Beware, working.Practice,
		"The %s measures %s; a good one has 0.1 to 0.5 mΩ.",
		"It turns %s into heat at %s, and grows worse by it. Clean it, or crimp and bolt it again.",
		joints(func(ohm float64) bool { return ohm > goodJointOhm && ohm < burnsOhm })},
	{"joint.half", verdict.Remark, working.Physics,
		"The %s was measured, and not at what current.",
		"Millivolts are a joint's resistance only with the amps that flowed.",
		func(d *design.Design) []finding {
			var list []finding
			measured, _ := d.MeasuredJoints()
			for _, j := range measured {
				if !j.Known {
					list = append(list, at(j.Column, j.Name))
				}
			}
			return list
		}},
	{"joint.nowhere", verdict.Remark, working.Physics,
		"A joint was measured as “%s”, and this installation has no such end.",
		"It was measured on another design of this job; it is kept, and counts nowhere.",
		func(d *design.Design) []finding {
			var list []finding
			_, nowhere := d.MeasuredJoints()
			for _, key := range nowhere {
				list = append(list, at("coupling", key))
			}
			return list
		}},
}

// joints finds joints by what they were measured to have, with what they turn into heat where
// the run carries most.
func joints(is func(ohm float64) bool) func(d *design.Design) []finding {
	return func(d *design.Design) []finding {
		var list []finding
		measured, _ := d.MeasuredJoints()
		for _, j := range measured {
			if !j.Known || !is(j.Ohm) {
				continue
			}
			amps := math.Abs(circuit.Had(d.Hardest().Solved.Through(j.Wire.ID)))
			list = append(list, at(j.Column, j.Name, unit.Text(j.Ohm*1000, "mΩ", 1)).
				since(unit.Text(amps*amps*j.Ohm, "W", 1), unit.Text(amps, "A", 0)))
		}
		return list
	}
}
