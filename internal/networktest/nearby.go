package networktest

import (
	"math"

	"epitrope/core/network"
)

// nearbyShare is how far from a collapse, or from a cut-out, a circuit counts as close to it.
const nearbyShare = 0.005

// Close says whether half a percent more, or less, of what is asked, or of a cut-out, makes
// something else of a circuit: it stands next to a collapse, and which side it is on is
// for the last digit to say.
func Close(c *network.Circuit) bool {
	here := FromRestSlowly(c)
	for _, by := range []float64{1 - nearbyShare, 1 + nearbyShare} {
		for _, cut := range []float64{1, by} {
			there := FromRestSlowly(scaled(c, by, cut))
			if there.Outcome != here.Outcome || !near(here.Volts, there.Volts) {
				return true
			}
		}
	}
	return false
}

// near says whether all voltages moved little.
func near(a, b []float64) bool {
	for i := range a {
		if math.Abs(a[i]-b[i]) > 0.5 {
			return false
		}
	}
	return true
}

// scaled is a circuit with what is asked, and its cut-outs, scaled.
func scaled(c *network.Circuit, by, cut float64) *network.Circuit {
	out := network.New()
	for _, name := range c.Names() {
		out.Node(name)
	}
	for _, e := range c.Elements {
		switch e := e.(type) {
		case network.PowerLoad:
			e.Watts *= by
			out.Add(e)
		case network.Converter:
			e.MaxOutA *= by
			e.MaxInA *= by
			e.CutOutV *= cut
			e.RestartV *= cut
			out.Add(e)
		default:
			out.Add(e)
		}
	}
	return out
}

// FromBelow finds where a circuit comes to when everything asks all it wants while the
// voltages are still down: another point than from rest, where there are two.
func FromBelow(c *network.Circuit) Rested {
	r := newRester(c)
	r.steps = rampSteps
	r.hold(1)
	return r.outcome()
}
