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

// A good crimp and bolted joint has up to goodJointOhm; one of burnsOhm and more burns. Source:
// common practice, no source: 0.1–0.5 mΩ, and 10–500 mΩ.
const (
	goodJointOhm = 0.0005
	burnsOhm     = 0.010
)

// nearK is how close to its limit insulation is told to be warm, in K. Source: from memory.
const nearK = 15.0

// measuredRules are about what was measured on the installation.
var measuredRules = []rule{
	{"joint.burns", verdict.Stop, working.Practice,
		"The %s measures %s: a joint like that burns.",
		"The joint turns %s into heat at %s. Take the lug off, cut back to bright copper, crimp and bolt again.",
		joints(func(ohm float64) bool { return ohm >= burnsOhm })},
	{"joint.worn", verdict.Beware, working.Practice,
		"The %s measures %s; a good one has 0.1 to 0.5 mΩ.",
		"The joint turns %s into heat at %s, and grows worse by that. Clean, or crimp and bolt again.",
		joints(func(ohm float64) bool { return ohm > goodJointOhm && ohm < burnsOhm })},
	{"joint.half", verdict.Remark, working.Physics,
		"The %s was measured, and not at what current.",
		"Millivolts are a joint's resistance only with the amps that flowed.",
		func(d *design.Design) []finding {
			return measured(d, func(m design.Measured) bool { return !m.Known && m.TempC == nil }, nil)
		}},
	{"path.poor", verdict.Beware, working.Physics,
		"The %s measures %s; the design counts on %s.",
		"At %s that is %s of heat. Cables are sized as if it were mended: clean and remake its ends. A cable longer or thinner than it is " +
			"entered shows like this too.",
		func(d *design.Design) []finding {
			return measured(d, func(m design.Measured) bool {
				return m.Known && m.Piece != design.JointPiece && design.Poor(m.Ohm, m.Counted)
			}, func(f finding, m design.Measured, amps float64) finding {
				f.text = append(f.text, unit.Text(m.Ohm*1000, "mΩ", 1), unit.Text(m.Counted*1000, "mΩ", 1))
				if m.Piece == design.SteelPiece {
					f = f.cure(verdict.Set("Return by cable", "pins.return", "cable"))
				}
				return f.since(unit.Text(amps, "A", 0), unit.Text(amps*amps*m.Ohm, "W", 1))
			})
		}},
	{"measured.hot", verdict.Stop, working.Standard,
		"The %s got %s, and its insulation bears %s.",
		"Insulation past its limit hardens and cracks. Find the bad end, fit thicker cable, or carry less.",
		func(d *design.Design) []finding {
			return measured(d, func(m design.Measured) bool { return m.TempC != nil && *m.TempC >= m.LimitC }, temperature)
		}},
	{"measured.warm", verdict.Beware, working.Practice,
		"The %s got %s; its insulation bears %s.",
		"That is close for an hour of driving on a hot day. Compare its volts with the other end's.",
		func(d *design.Design) []finding {
			return measured(d, func(m design.Measured) bool {
				return m.TempC != nil && *m.TempC < m.LimitC && *m.TempC >= m.LimitC-nearK
			},
				temperature)
		}},
	{"earth.screw", verdict.Beware, working.Practice,
		"The earth is fastened by a screw into sheet.",
		"Sheet is thin, the screw loosens and rusts, and all of the return passes it. A welded stud, or a captive nut with the paint off.",
		func(d *design.Design) []finding {
			return where(d.Facts.Ways.EarthBy == job.SheetScrew, func() finding { return at(d.ReturnLeg().ID) })
		}},
	{"earth.holds", verdict.Stop, working.Practice,
		"The earth is on what holds people or glass: %s.",
		"Paint, torque and lock are undone there where they have to hold. A stud or a captive nut of its own.",
		func(d *design.Design) []finding {
			on := map[string]string{job.HoldsBolt: "a bolt of seat, belt or hinge", job.PaneFrame: "a pane's frame"}[d.Facts.Ways.EarthBy]
			return where(on != "", func() finding { return at(d.ReturnLeg().ID, on) })
		}},
	{"hole.bare", verdict.Stop, working.Practice,
		"A cable passes a hole whose edge is bare.",
		"The cable chafes through, and what lies before its fuse has nothing that saves it. Deburr, grommet, seal.",
		func(d *design.Design) []finding {
			return where(d.Facts.Ways.Guarded == job.No, func() finding { return at("c1") })
		}},
	{"body.unmeasured", verdict.Remark, working.Practice,
		"The return goes through tray, canopy or body, and nobody measured its way to the chassis: %s is taken.",
		"Rubber mounts and paint often isolate it. Measure from the earth point to the chassis, or fit a bonding lead.",
		func(d *design.Design) []finding {
			_, known := d.Doc.Joints["body"].Ohm()
			return where(d.ByBody() && !known && d.Facts.Survey.Bonded != job.No, func() finding {
				return at(d.ReturnLeg().ID, unit.Text(d.BodyOhm()*1000, "mΩ", 0)).cure(verdict.Set("Fit a bonding lead", "extras.bond", "yes"))
			})
		}},
	{"frame.unmeasured", verdict.Remark, working.Practice,
		"Inside the trailer the return goes through its frame, and nobody measured that: %s is taken.",
		"Bolted and painted members isolate. Measure from E4 to E5; over the tow coupling the return goes by cable and plug all the same.",
		func(d *design.Design) []finding {
			_, known := d.Doc.Joints["frame"].Ohm()
			return where(d.Framed() && !known, func() finding {
				return at("x1", unit.Text(d.FrameOhm()*1000, "mΩ", 1)).cure(verdict.Set("A return cable in the trailer", "arranged.frame", "no"))
			})
		}},
	{"frame.steel", verdict.Beware, working.Practice,
		"The trailer's frame is taken as the return, and frames of %s are none.",
		"Its joints are riveted and glued. A return cable in the trailer.",
		func(d *design.Design) []finding {
			return where(d.Framed() && d.NoSteel(), func() finding {
				return at("x1", d.Facts.Survey.Frame).cure(verdict.Set("A return cable in the trailer", "arranged.frame", "no"))
			})
		}},
	{"joint.nowhere", verdict.Remark, working.Physics,
		"Something was measured as “%s”, and this installation has no such piece.",
		"That was measured on another design of this job; the reading is kept, and counts nowhere.",
		func(d *design.Design) []finding {
			var list []finding
			for _, key := range d.Nowhere {
				list = append(list, at("coupling", key))
			}
			return list
		}},
}

// joints finds joints by what they were measured to have, with what they turn into heat where
// the run carries most.
func joints(is func(ohm float64) bool) func(d *design.Design) []finding {
	return func(d *design.Design) []finding {
		return measured(d, func(m design.Measured) bool { return m.Piece == design.JointPiece && m.Known && is(m.Ohm) },
			func(f finding, m design.Measured, amps float64) finding {
				f.text = append(f.text, unit.Text(m.Ohm*1000, "mΩ", 2))
				return f.since(unit.Text(amps*amps*m.Ohm, "W", 1), unit.Text(amps, "A", 0))
			})
	}
}

// measured finds pieces that were measured, by their names; more adds what it says with what they
// carry at most.
func measured(d *design.Design, is func(m design.Measured) bool, more func(f finding, m design.Measured, amps float64) finding) []finding {
	var list []finding
	for _, m := range d.Measured {
		if !is(m) {
			continue
		}
		f := at(m.Column, m.Name)
		if more != nil {
			f = more(f, m, math.Abs(circuit.Had(d.Hardest().Solved.Through(m.Element))))
		}
		list = append(list, f)
	}
	return list
}

// temperature adds what a piece got, and what it bears.
func temperature(f finding, m design.Measured, _ float64) finding {
	f.text = append(f.text, unit.Text(*m.TempC, "°C", 0), unit.Text(m.LimitC, "°C", 0))
	return f
}
