package judge

import (
	"epitrope/core/circuit"
	"epitrope/core/design"
	"epitrope/core/feed"
	"epitrope/core/unit"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// signalRules are about what tells the coupling that the engine runs.
var signalRules = []rule{
	{"signal.dead", verdict.Stop, working.Physics,
		"With the engine running nothing reaches the coupling's signal: nothing charges.",
		"A charger rests, and a coil lets go, without its signal: test the feed point with the engine running.",
		func(d *design.Design) []finding {
			return where(d.Wired() && !d.Signal(design.KeyState{Key: "on", Engine: "running"}), func() finding {
				return at("coupling").cure(engineSignal())
			})
		}},
	{"signal.delay", verdict.Beware, working.Practice,
		"Charging waits %s after each start, of %s driven in a day: with two trips and more, little is left.",
		"A timer lets the start battery recover; a few minutes do.",
		func(d *design.Design) []finding {
			late, driven := d.Facts.Schools.DelayMin.Value, d.Facts.DrivenHours.Value
			return where(d.Wired() && late/60 >= delayShare*driven, func() finding {
				return at("coupling", unit.Plain(late, "min", 0), unit.Plain(driven, "h", 2)).cure(verdict.Unpin("No timer", "schools.delayMin"))
			})
		}},
	{"signal.detect.none", verdict.Beware, working.Practice,
		"A %s has no eye on the voltage: its coil wants a feed.", "Only a charger, or a sensing relay, watches voltage.",
		func(d *design.Design) []finding {
			return where(byVoltage(d) && !d.Kind.Charger(), func() finding {
				return at("coupling", d.Kind.Label()).cure(verdict.Unpin("As such coils are usually fed", "day.trigger"))
			})
		}},
	{"signal.detect.low", verdict.Stop, working.Physics,
		"In the state “%s” the charger sees %s, below the %s at which it takes the engine for stopped: it stops, the voltage recovers, it " +
			"starts again.",
		"A charger that watches voltage knows nothing of the engine; the start battery stands at %s then.",
		detectedLow},
	{"signal.detect.joined", verdict.Stop, working.Physics,
		"After a join the start side stands at the %s's %s, above the %s that the charger takes for a running engine.",
		"The charger then runs from start to house with the engine off.",
		afterJoin(func(d *design.Design, restV, onV float64) []finding {
			return where(restV >= onV, func() finding {
				return at("coupling", d.Facts.Chemistry.Label, volts1(restV), volts1(onV)).cure(engineSignal())
			})
		})},
	{"signal.detect.surface", verdict.Beware, working.Practice,
		"After a join, surface charge on the start battery may stand above the %s that the charger takes for a running engine.",
		"The charger then runs from start to house with the engine off until that is gone.",
		afterJoin(func(_ *design.Design, restV, onV float64) []finding {
			return where(restV < onV, func() finding { return at("coupling", volts1(onV)).cure(engineSignal()) })
		})},
	{"signal.out", verdict.Stop, working.Practice,
		"The signal is taken from %s: %s",
		"Choose by circuit and by behaviour asleep, at accessory, on, cranking, running and after.",
		ofTaken(func(_ *design.Design, p feed.Point, v feed.Verdict) []finding {
			var list []finding
			for _, f := range v.Findings {
				list = append(list, where(f.Out, func() finding { return at("coupling", p.Name, f.Text).cure(anotherFeed()) })...)
			}
			return list
		})},
	{"signal.weak", verdict.Stop, working.Memory,
		"%s gives no more than its lamp lets through, %s, before the alternator excites; what it is to work takes %s.",
		"Loaded so, an older machine never begins to charge. Let it work a small relay, or take another feed point.",
		ofTaken(func(d *design.Design, p feed.Point, _ feed.Verdict) []finding {
			return where(tooWeak(d, p), func() finding {
				return at("coupling", p.Name, unit.Text(lampA, "A", 1), unit.Text(d.WorksByA(), "A", 1)).cure(anotherFeed())
			})
		})},
	{"signal.accessory", verdict.Beware, working.Practice,
		"%s is live at accessory: left so, %s.", "Accessory, ignition, D+ and engine-running are four facts.",
		ofTaken(func(d *design.Design, p feed.Point, v feed.Verdict) []finding {
			return where(v.Behaviour == feed.Key, func() finding {
				return at("coupling", p.Name, leftLive(d, design.Accessory)).cure(anotherFeed())
			})
		})},
	{"signal.left", verdict.Beware, working.Practice,
		"The coupling's signal is a switch: forgotten on with the engine stopped, %s.",
		"The mode table says for how long. A signal that is live only while the engine runs, or a timer, forgets nothing.",
		func(d *design.Design) []finding {
			left := d.Wired() && d.Facts.Day.Trigger == "switch" && d.Doc.Day.Trigger != nil
			return where(left, func() finding { return at("coupling", leftLive(d, design.KeyOut)).cure(engineSignal()) })
		}},
	{"signal.untested", verdict.Beware, working.Practice,
		"%s is taken and not yet tested: %s.", "The step that is missed is the one that matters.",
		ofTaken(func(_ *design.Design, p feed.Point, v feed.Verdict) []finding {
			return where(len(v.Missing) > 0, func() finding { return at("coupling", p.Name, v.Missing[0]) })
		})},
	{"signal.gone", verdict.Beware, working.Practice,
		"The feed point that was taken is no longer in the list.", "Somebody took its row out.",
		func(d *design.Design) []finding {
			_, found := d.Taken()
			return where(d.Wired() && d.Facts.FeedTaken != "" && !found, func() finding { return at("coupling").cure(anotherFeed()) })
		}},
}

func engineSignal() verdict.Cure {
	return verdict.Set("Take an engine-running signal", "day.trigger", "running")
}
func anotherFeed() verdict.Cure { return verdict.Unpin("Take another", "signal.feed") }

func volts1(v float64) string { return unit.Text(v, "V", 1) }

// byVoltage says whether the coupling is to find out by the voltage that the engine runs.
func byVoltage(d *design.Design) bool { return d.Facts.Day.Trigger == "voltage" }

// detectedLow is a state of charging in which a charger that takes voltage for its signal is
// fooled by a start side that is low.
func detectedLow(d *design.Design) []finding {
	if !d.ByVoltage() {
		return nil
	}
	off := d.Facts.Detects.CutOutV * d.Facts.N
	s, low := d.WorstWhere(func(s *design.State) bool { return s.Solved.Volts != nil && s.InV < off }, inV)
	return where(low, func() finding {
		sees, stops := unit.Apart(s.InV, off, "V", 1)
		return at("coupling", s.Label, sees, stops).since(volts1(circuit.Had(s.Solved.At("start.30")))).cure(engineSignal())
	})
}

// afterJoin lets a rule look at what a charger that takes voltage for its signal sees once the
// batteries were joined: the aux battery at rest, and what it takes for a running engine.
func afterJoin(finds func(d *design.Design, restV, onV float64) []finding) func(d *design.Design) []finding {
	return func(d *design.Design) []finding {
		if !d.ByVoltage() || !d.Is.CanJoin {
			return nil
		}
		return finds(d, d.Facts.Chemistry.RestV(1)*d.Facts.AuxN, d.Facts.Detects.CutInV*d.Facts.N)
	}
}

// ofTaken lets a rule judge the feed point that was taken.
func ofTaken(finds func(d *design.Design, p feed.Point, v feed.Verdict) []finding) func(d *design.Design) []finding {
	return func(d *design.Design) []finding {
		p, found := d.Taken()
		if !found || !d.Wired() || d.Facts.FeedTaken == "" {
			return nil
		}
		return finds(d, p, p.Judge())
	}
}

// lampA is what a charge lamp of 2 to 4 W lets through. Source: common practice, no source.
const lampA = 0.3

// tooWeak says whether D+ cannot work a coil.
func tooWeak(d *design.Design, p feed.Point) bool {
	return p.Kind == feed.DPlus && d.Wired() && d.Kind.Coil() && d.WorksByA() > lampA
}

// delayShare is the share of a day's driving that a timer may take before that is said.
// Source: common practice, no source.
const delayShare = 0.2

// leftLive is what a signal that is left live does with the key so, in words.
func leftLive(d *design.Design, k design.KeyState) string {
	if !d.Kind.Charger() {
		return "both batteries are joined"
	}
	s := d.StateAt("", k)
	s.Held = circuit.HeldLive
	d.Settle(&s)
	return unit.Say("the charger takes %s from the start battery", unit.Text(circuit.Had(s.Solved.Through("start battery")), "A", 0))
}
