package modes

import (
	"fmt"
	"math"

	"epitrope/core/circuit"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/section"
	"epitrope/core/working"
)

// judgeMode says whether a line is allowed, and what prevents it where it is not.
func judgeMode(d *design.Design, m *Mode, k design.KeyState, s *design.State, out float64) {
	say := m.say
	amps := func(a float64) string { return working.Text(math.Abs(a), "A", 0) }
	batteriesJoined := s.Joined && !d.Is.OwnMachine
	through := circuit.Had(s.Solved.Through("contact"))
	switch {
	case s.Isolated && chargesNothing(d, s, k):
		say("forbidden", "mode.dump", amps(d.Charger.OutputA))
	case s.Isolated:
		say("normal", "mode.isolated")
	case s.Err != nil && k.Engine == "running":
		say("forbidden", "mode.starved", s.Err.Error())
	case batteriesJoined && k.Engine == "cranking":
		if d.MayOpen(math.Abs(through), design.LongStartS) {
			say("forbidden", "mode.crank", amps(through), section.FusesAt(d, math.Abs(through)))
		} else {
			say("caution", "mode.shares", amps(through))
		}
	case d.Is.Beside == design.RestContact && batteriesJoined && k.Engine == "running":
		say("forbidden", "mode.bypass", amps(through), d.Rates.Half.Text)
	case m.Switch == design.Held && k.Engine == "running":
		say("normal", "mode.charges", amps(s.OutA))
	case m.Switch == design.Held:
		say("caution", "mode.held", amps(through))
	case batteriesJoined && k.Key == "off":
		say("forbidden", "mode.flat", hoursToHalf(d, m, max(out, sharedDrain(d, s))))
	case batteriesJoined && k.Engine == "stopped":
		say("caution", "mode.feeds", amps(through))
	case d.Kind.Charger() && !s.Stopped && k.Engine == "stopped" && s.Err != nil:
		say("forbidden", "mode.hunts", working.Text(out, "A", 0), s.Err.Error())
	case d.Kind.Charger() && !s.Stopped && k.Engine == "stopped":
		verdict := "forbidden"
		if k.Key == "on" {
			verdict = "caution"
		}
		say(verdict, "mode.drains", working.Text(out, "A", 0), hoursToHalf(d, m, out))
	case m.Sun == "yes" && s.SunA == 0 && !m.Charging:
		say("caution", "mode.blocked")
	case k.Engine == "running" && m.Charging:
		say("normal", "mode.charges", amps(s.OutA))
	case k.Engine == "running" && meansOff(m.Switch):
		say("normal", "mode.off")
	case k.Engine == "running":
		say("caution", "mode.nocharge")
	case k.Engine == "cranking":
		say("normal", "mode.cranks", working.Text(circuit.Had(s.Solved.At("start.30")), "V", 1))
	case m.Sun == "yes" && s.SunA > 0:
		say("normal", "mode.sun", amps(s.SunA))
	default:
		say("normal", "mode.apart", working.Span(design.ShareToHalf*d.Facts.StartAh.Value/math.Max(out, 1e-3)))
	}
}

// noSolution judges a line whose circuit comes to no stand: something asks more than its line
// can give.
func noSolution(m *Mode, err error) {
	verdict := "caution"
	if m.Engine == "running" {
		verdict = "forbidden"
	}
	m.say(verdict, "mode.starved", err.Error())
}

// say gives a line its verdict, by a rule and with its numbers.
func (m *Mode) say(verdict, rule string, args ...any) {
	m.Verdict, m.Rule = verdict, rule
	m.Why, m.Interlock = fmt.Sprintf(modeWords[rule], args...), interlocks[rule]
}

// chargesNothing says whether a charger, or the sun, works on an aux side from which the
// battery is parted.
func chargesNothing(d *design.Design, s *design.State, k design.KeyState) bool {
	at := d.Facts.Extras.Isolator
	if at != job.AuxIsolator && at != job.MasterSwitch {
		return false
	}
	return d.Kind.Charger() && !s.Stopped && k.Engine == "running" || at == job.MasterSwitch && s.SunA > 0
}

// meansOff says whether a position is meant to stop charging.
func meansOff(position string) bool {
	return position == design.SwitchOff || position == design.Isolator0 || position == design.AtOff
}

// sharedDrain is the start battery's part of what drains both, joined and left.
func sharedDrain(d *design.Design, s *design.State) float64 {
	all := s.HouseA + s.VehicleA
	return all * d.Facts.StartAh.Value / (d.Facts.StartAh.Value + d.Facts.AuxAh.Value)
}
