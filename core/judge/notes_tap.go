package judge

import (
	"slices"

	"epitrope/core/design"
	"epitrope/core/unit"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// tapRules are about what hangs on the run at the coupling.
var tapRules = []rule{
	{"tap.unfused", verdict.Stop, working.Standard,
		"%s hangs on the run without a fuse of its own: its lead bears %s, and what feeds it is fused at %s.",
		"A short in it heats the lead long before that opens. A fuse of its own at the coupling.",
		ofTaps(func(d *design.Design, t design.Tap) []finding {
			amps, by := guards(d, t)
			return where(t.Unfused && amps > t.Trial.AmpacityA, func() finding {
				return at(t.ID, t.TapFact.Label, unit.Text(t.Trial.AmpacityA, "A", 0), by).cure(ownFuse(t))
			})
		})},
	{"tap.drains", verdict.Beware, working.Physics,
		"%s hangs on the start side, and is on with the engine off: it takes %s a day out of the start battery.",
		"Half of the start battery is gone after %s. It belongs on the aux side, or on a feed that is live while the engine runs.",
		ofTaps(func(d *design.Design, t design.Tap) []finding {
			return where(!t.Aux && !t.Running && t.DayAh() > 0 && !d.Is.OwnMachine, func() finding {
				return at(t.ID, t.TapFact.Label, unit.Text(t.DayAh(), "Ah", 1)).since(unit.Span(d.Facts.StartAh.Value/2/t.DayAh()*24)).
					cure(verdict.Set("Hang it on the aux side", tapPath(t)+".at", "aux"),
						verdict.Set("On only while the engine runs", tapPath(t)+".when", "running"))
			})
		})},
	{"tap.alone", verdict.Beware, working.Practice,
		"%s hangs between the charger and F2: with F2 out the charger feeds it with no battery behind.",
		"A charger without a battery lets the voltage jump on what it feeds. Hang it on the battery's side of F2.",
		ofTaps(func(d *design.Design, t design.Tap) []finding {
			return where(t.Aux && d.Kind.Charger() && !d.Aux.Unfused, func() finding { return at(t.ID, t.TapFact.Label) })
		})},
	{"tap.dark", verdict.Stop, working.Physics,
		"%s asks %s, and what feeds it cannot give that: it goes off.",
		"Less load, thicker cable, or a battery that can give it: a lead of its own from the battery's posts.",
		ofTaps(func(d *design.Design, t design.Tap) []finding {
			all := d.StateBy("all")
			return where(slices.Contains(all.Dark, t.Element()), func() finding {
				return at(t.ID, t.TapFact.Label, unit.Text(t.Amps.Value, "A", 0))
			})
		})},
	{"tap.takes", verdict.Beware, working.Physics,
		"%s draws %s, and the charger gives %s: while it is on nothing charges.",
		"What it draws more comes out of the aux battery, the engine running or not.",
		ofTaps(func(d *design.Design, t design.Tap) []finding {
			draws := t.Amps.Value
			return where(t.Aux && d.Kind.Charger() && draws >= d.Charger.OutputA, func() finding {
				takes, gives := unit.Apart(draws, d.Charger.OutputA, "A", 0)
				return at(t.ID, t.TapFact.Label, takes, gives)
			})
		})},
}

func tapPath(t design.Tap) string { return "taps." + t.Key }

func ownFuse(t design.Tap) verdict.Cure {
	return verdict.Set("A fuse of its own", tapPath(t)+".fused", "yes")
}

// ofTaps lets a rule speak of each thing that hangs on the run.
func ofTaps(finds func(d *design.Design, t design.Tap) []finding) func(d *design.Design) []finding {
	return func(d *design.Design) []finding {
		var list []finding
		for _, t := range d.Taps {
			list = append(list, finds(d, t)...)
		}
		return list
	}
}

// guards is the largest fuse, in A, that lies between a source and what hangs on the run, in words too; a source
// past none counts as its short-circuit current.
func guards(d *design.Design, t design.Tap) (amps float64, by string) {
	l := &d.Start
	if t.Aux {
		l = &d.Aux
	}
	if l.Unfused {
		return l.NearFault, "nothing"
	}
	return l.Fuse.RatingA, unit.Plain(l.Fuse.RatingA, "A", 1)
}
