package trace

import (
	"math"

	"epitrope/core/circuit"
	"epitrope/core/design"
	"epitrope/core/prove"
	"epitrope/core/system"
	"epitrope/core/unit"
)

// TemporaryBypass is a way past the coupling with what is in the vehicle, until the proper mend: its cables and its fuses stay as they are.
type TemporaryBypass struct {
	Why   string   `json:"why,omitempty" doc:"Why there is none that is safe; empty where there is one"`
	Amps  float64  `json:"amps" doc:"What flows at first, engine held, the aux battery part discharged"`
	Steps []string `json:"steps"`
	Tag   string   `json:"tag" doc:"What is written on it"`
}

// bridgeOhm is a short lead of the run's own size with its two ends. Source: from memory.
const bridgeOhm = 0.002

// beyond is up to how much of its rating a fuse holds for long. Source: ISO 8820 (1.0 for ever, 1.1 for 100 h, from memory).
const beyond = 1.0

// BypassOf is a bypass of a design, solved in its circuit.
func BypassOf(d *design.Design) TemporaryBypass {
	in, out := d.System.Ends.Start, d.System.Ends.Aux
	b := TemporaryBypass{Steps: []string{}}
	switch {
	case in.Component == "" || out.Component == "" || in.Node() == out.Node():
		b.Why = "there is no coupling with two sides to go past"
		return b
	case d.Facts.N != d.Facts.AuxN:
		b.Why = "the two batteries are not of one voltage"
		return b
	case !d.Facts.Chemistry.Lead && d.Kind.Charger():
		b.Why = "a lithium battery takes whatever cable and alternator give: without its charger nothing limits that"
		return b
	}
	sys := d.System
	sys.Wires = append([]system.Wire{}, sys.Wires...)
	sys.Join(system.Wire{ID: "past the coupling", Role: system.Feed, From: in, To: out, Ohm: bridgeOhm, Name: "a bridge"})
	s, _, _, _ := prove.Wider(d).Situation(prove.FastIdle)
	solved, _ := prove.Stands(circuit.Lay(&sys, d.Facts.N), s, circuit.Position{Stopped: true})
	for _, w := range d.System.Wires {
		if w.Role == system.Feed && (w.From == out || w.To == out) {
			b.Amps = max(b.Amps, math.Abs(circuit.Had(solved.Through(w.ID))))
		}
	}
	for _, station := range d.System.Way() {
		if fuse, is := fuseOf(station.Component); is && fuse.RatingA > 0 && b.Amps > beyond*fuse.RatingA {
			b.Why = unit.Say("%s would flow at first: %s opens at that, and no larger fuse may go in", unit.Text(b.Amps, "A", 0),
				station.Component.Name)
			return b
		}
	}
	b.Steps = []string{
		"engine off, key out, the fuses on both sides of the coupling out",
		unit.Say("a lead of the run's own size, lugs crimped, from %s to %s; what was on them stays on", d.Called(in), d.Called(out)),
		"both fuses in again: they stay what they are",
		"engine running before the bridge is closed for good, and the bridge open again before it stops: joined and parked, both batteries " +
			"empty together",
		unit.Say("about %s flows at first: warm after ten minutes is well, hot is not", unit.Text(b.Amps, "A", 0)),
	}
	b.Tag = unit.Say("TEMPORARY: bridge from %s to %s past the coupling. Open it before the engine stops. Take it out when the coupling "+
		"is mended.", d.Called(in), d.Called(out))
	return b
}

func fuseOf(c *system.Component) (f system.Fuse, is bool) {
	if c == nil {
		return f, false
	}
	f, is = c.Device.(system.Fuse)
	return f, is
}
