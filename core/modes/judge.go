package modes

import (
	"math"

	"epitrope/core/circuit"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/rig"
	"epitrope/core/run"
	"epitrope/core/section"
	"epitrope/core/unit"
)

// line is a line of the table as its circuit was solved.
type line struct {
	d    *design.Design
	m    *Mode
	k    design.KeyState
	s    *design.State
	outA float64 // out of the start battery
	left rig.Leaving
}

// judgement is what may be said of a line: whether it is allowed, why, and what prevents it where
// it is forbidden.
type judgement struct {
	rule, verdict  string
	why, interlock string
	holds          func(l *line) bool
	args           func(l *line) []any // what its sentence is filled with; nil: nothing
}

// judgements are all of them; the first that holds is a line's.
var judgements = []judgement{
	{"mode.starved", "forbidden", "It comes to no stand: %s.", "Less current, a larger cable or a shorter way: see the notes.",
		func(l *line) bool { return l.s.Err != nil && l.runs() && !l.s.Isolated }, failure},
	{"mode.starved", "caution", "It comes to no stand: %s.", "",
		func(l *line) bool { return l.s.Solved.Volts == nil }, failure},
	{"mode.plugged", "forbidden", "%s of mains charger with no battery behind it: the voltage on what is still connected jumps.",
		"Unplugged before Q1 is opened.",
		func(l *line) bool {
			return l.s.Isolated && l.d.Facts.Extras.Isolator == job.MasterSwitch && l.s.MainsA > 0
		},
		func(l *line) []any { return []any{amps(l.s.MainsA)} }},
	{"mode.dump", "forbidden", "%s of charger with no battery behind it: the voltage on what is still connected jumps.",
		"A contact in Q1 that breaks the signal before it opens; the engine stopped first.",
		func(l *line) bool { return l.s.Isolated && l.chargesNothing() },
		func(l *line) []any { return []any{amps(l.d.Charger.OutputA)} }},
	{"mode.isolated", "normal", "Parted by hand: nothing flows past Q1.", "", func(l *line) bool { return l.s.Isolated }, nil},
	{"mode.crank", "forbidden", "Through the join the aux battery gives %s to the starter: %s.",
		"A momentary button, and a label at it: let go, then crank.",
		func(l *line) bool {
			return l.joined() && l.k.Engine == "cranking" && l.d.MayOpen(l.throughA(), max(run.CrankPassS, l.d.Facts.CrankS.Value))
		},
		func(l *line) []any { return []any{amps(l.throughA()), section.FusesAt(l.d, l.throughA())} }},
	{"mode.shares", "caution", "The aux battery cranks along with %s; a usual start passes. Kept on: %s.", "",
		func(l *line) bool { return l.joined() && l.k.Engine == "cranking" }, func(l *line) []any {
			return []any{amps(l.throughA()), section.FusesAt(l.d, l.throughA())}
		}},
	{"mode.bypass", "forbidden", "The charger is bypassed: %s into the aux battery; %s is what the alternator bears for hours.",
		"A momentary button that cannot be left on; the factory's ignition feed taken off its coil.",
		func(l *line) bool { return l.d.Is.Beside == design.RestContact && l.joined() && l.runs() },
		func(l *line) []any { return []any{amps(l.throughA()), l.d.Rates.Half.Text} }},
	{"mode.charges", "normal", "%s into the aux side.", "",
		func(l *line) bool { return l.m.Switch == design.Held && l.runs() }, charging},
	{"mode.held", "caution", "Joined by hand: %s between the batteries. Ten seconds, then let go.", "",
		func(l *line) bool { return l.m.Switch == design.Held }, through},
	{"mode.lingers", "normal",
		"Still joined by surface charge, for minutes to hours: the relay parts by itself below %s. Lamps on bring the volts down.", "",
		func(l *line) bool { return l.k == design.JustStopped && l.joined() && !l.d.StateBy("parked").Joined },
		func(l *line) []any {
			return []any{unit.Text(l.d.Contact.Sensing.CutOutV*l.d.Facts.N, "V", 1)}
		}},
	{"mode.overruns", "caution",
		"The charger still takes the engine for running, and %s from the start battery, until that falls below %s.", "",
		func(l *line) bool {
			return l.k == design.JustStopped && l.d.ByVoltage() && !l.s.Stopped && l.s.Err == nil
		},
		func(l *line) []any {
			return []any{unit.Text(l.outA, "A", 0), unit.Text(l.d.Facts.Detects.CutOutV*l.d.Facts.N, "V", 1)}
		}},
	{"mode.keeps", "normal", "Plugged in the batteries are joined: the mains charger also keeps up the start battery, with %s " +
		"between them.", "",
		func(l *line) bool { return l.s.MainsA > 0 && l.joined() && !l.runs() }, through},
	{"mode.flat", "forbidden",
		"Joined with the key out: house and vehicle live on both batteries. Left so, %s.",
		"A coil that an engine-running signal holds; a selector that stands at “with ignition”; no sensing relay with a battery that rests " +
			"above its cut-out.",
		func(l *line) bool { return l.joined() && l.k.Key == "off" },
		func(l *line) []any { return []any{l.lasts()} }},
	{"mode.feeds", "caution",
		"Joined with the engine stopped: %s between the batteries. Left so, %s.", "",
		func(l *line) bool { return l.joined() && l.k.Engine == "stopped" },
		func(l *line) []any { return []any{amps(l.throughA()), l.lasts()} }},
	{"mode.hunts", "forbidden", "The charger begins on the start battery with up to %s, stops and begins again: %s. Left so, %s.",
		"A signal that is live only while the engine runs, or a timer.",
		func(l *line) bool { return l.chargesStopped() && l.s.Err != nil },
		func(l *line) []any { return []any{unit.Text(l.outA, "A", 0), l.s.Err.Error(), l.lasts()} }},
	{"mode.drains", "caution", drains, "", func(l *line) bool { return l.chargesStopped() && l.k.Key == "on" }, draining},
	{"mode.drains", "forbidden", drains, "A signal that is live only while the engine runs, or a timer; a switch alone is forgotten.",
		func(l *line) bool { return l.chargesStopped() }, draining},
	{"mode.blocked", "caution", "The sun shines and the charger waits on the vehicle's input: nothing charges.", "",
		func(l *line) bool { return l.m.Sun == "yes" && l.s.SunA == 0 && !l.m.Charging }, nil},
	{"mode.charges", "normal", "%s into the aux side.", "", func(l *line) bool { return l.runs() && l.m.Charging }, charging},
	{"mode.off", "normal", "No charging: that is what this position is for.", "",
		func(l *line) bool { return l.runs() && meansOff(l.m.Switch) }, nil},
	{"mode.nocharge", "caution", "The engine runs and nothing charges the aux battery.", "", (*line).runs, nil},
	{"mode.cranks", "normal", "The start battery cranks alone: %s.", "",
		func(l *line) bool { return l.k.Engine == "cranking" },
		func(l *line) []any { return []any{unit.Text(circuit.Had(l.s.Solved.At("start.30")), "V", 1)} }},
	{"mode.mains", "normal", "The mains charger gives up to %s; the batteries are apart.", "",
		func(l *line) bool { return l.s.MainsA > 0 && !l.runs() }, func(l *line) []any { return []any{amps(l.s.MainsA)} }},
	{"mode.sun", "normal", "The sun gives %s; the batteries are apart.", "",
		func(l *line) bool { return l.m.Sun == "yes" && l.s.SunA > 0 }, func(l *line) []any { return []any{amps(l.s.SunA)} }},
	{"mode.apart", "normal", "Apart. Left so, %s.", "",
		func(*line) bool { return true }, func(l *line) []any { return []any{l.lasts()} }},
}

// drains is said of a charger that takes from the start battery.
const drains = "The charger runs with the engine stopped and takes %s from the start battery: %s."

func failure(l *line) []any  { return []any{l.s.Err.Error()} }
func through(l *line) []any  { return []any{amps(l.throughA())} }
func charging(l *line) []any { return []any{amps(l.s.OutA)} }
func draining(l *line) []any { return []any{unit.Text(l.outA, "A", 0), l.lasts()} }

// amps is a current in a sentence: one that would be written as none is under an ampere.
func amps(a float64) string {
	if a = math.Abs(a); a < 0.5 {
		return "under " + unit.Text(1, "A", 0)
	}
	return unit.Text(a, "A", 0)
}

// judge says whether a line is allowed, and what prevents it where it is not.
func (l *line) judge() {
	for _, j := range judgements {
		if !j.holds(l) {
			continue
		}
		var args []any
		if j.args != nil {
			args = j.args(l)
		}
		l.m.Verdict, l.m.Rule, l.m.Why, l.m.Interlock = j.verdict, j.rule, unit.Say(j.why, args...), j.interlock
		return
	}
}

// runs says whether the engine runs, joined whether two batteries are joined.
func (l *line) runs() bool   { return l.k.Engine == "running" }
func (l *line) joined() bool { return l.s.Joined && !l.d.Is.OwnMachine }

// throughA is what flows between the batteries.
func (l *line) throughA() float64 { return math.Abs(circuit.Had(l.s.Solved.Through("contact"))) }

// chargesStopped says whether a charger runs without the engine.
func (l *line) chargesStopped() bool {
	return l.d.Kind.Charger() && !l.s.Stopped && l.k.Engine == "stopped"
}

// chargesNothing says whether a charger, or the sun, works on an aux side from which the
// battery is parted.
func (l *line) chargesNothing() bool {
	at := l.d.Facts.Extras.Isolator
	if at != job.AuxIsolator && at != job.MasterSwitch {
		return false
	}
	return l.d.Kind.Charger() && !l.s.Stopped && l.runs() || at == job.MasterSwitch && l.s.SunA > 0
}

// meansOff says whether a position is meant to stop charging.
func meansOff(position string) bool {
	return position == design.SwitchOff || position == design.Isolator0 || position == design.AtOff
}

// lasts is what becomes of the start battery if the line stays, in words and as the line's figure.
func (l *line) lasts() string {
	left := l.left.At(l.s)
	l.m.half = left.First
	return left.Says
}
