package prove

import (
	"math"
	"strings"

	"epitrope/core/circuit"
	"epitrope/core/network"
	"epitrope/core/system"
	"epitrope/core/unit"
)

// Moment is an installation while a reading is taken.
type Moment struct {
	Sys    *system.System
	Laid   *circuit.Circuit // Sys, laid out
	Solved network.Solution
	State  circuit.State
	N      float64 // the system's voltage over 12 V
}

// Shows is what a meter without an error shows of a reading at a moment. Never is of what does not come about, as a relay that
// does not let go; ok is false where there is nothing to read.
func (p *Proof) Shows(r Reading, at Moment) (value float64, never, ok bool) {
	if r.Unit == Seen {
		return 0, false, false
	}
	if r.figure != nil {
		value, never = r.figure(p, at)
		return value, never, true
	}
	value, ok = r.in(at.Solved, at.Sys)
	if most := math.Max(at.N, p.d.Facts.AuxN) * openV; r.Unit == Volts && math.Abs(value) > most {
		value = math.Copysign(most, value) // a machine that is parted from its battery
	}
	return value, false, ok
}

// openV is at what volts the diodes of a machine break down that is parted from its battery, at 12 V. Source: from memory.
const openV = 20.0

// in reads a solved circuit. Amps count towards the aux battery.
func (r Reading) in(s network.Solution, sys *system.System) (float64, bool) {
	if r.Unit == Amps {
		amps, err := s.Through(r.Clamp)
		if w, _ := sys.Wire(r.Clamp); w.From == term("aux", "30") || r.Clamp == AtPost {
			amps = -amps // a battery's is what it gives
		}
		return amps, err == nil
	}
	volts, err := s.Across(r.Red.Node(), r.Black.Node())
	return volts, err == nil
}

// Where is where the probes or the clamp go, in words.
func (r Reading) Where() string {
	switch {
	case r.Clamp == AtStart:
		return "clamp round every lead at the start battery's plus, arrow away from the battery"
	case r.Clamp == AtPost:
		return "clamp round every lead at the aux battery's plus, arrow to the battery"
	case r.Unit == Seen:
		return ""
	case r.Unit == Kelvin:
		return "each bolted joint, and the cable beside it"
	case r.Unit == Amps:
		return "clamp round " + strings.ToUpper(r.Clamp) + ", arrow to the aux battery"
	}
	return "red on " + r.Red.Name + ", black on " + r.Black.Name
}

// Says is a reading's value in words.
func (r Reading) Says(value float64) string {
	switch {
	case r.Unit == Seen && value > 0:
		return "yes"
	case r.Unit == Seen:
		return "no"
	case r.Unit == Ohms && value >= openOhm:
		return "open"
	case r.Unit == Ohms:
		return unit.Text(value, "Ω", 2)
	case r.Unit == Kelvin:
		return unit.Text(value, "K", 0)
	case r.Unit == Amps:
		return unit.Text(value, "A", 1)
	case r.Drop && math.Abs(value) < 1:
		return unit.Text(1000*value, "mV", 0)
	}
	return unit.Text(value, "V", 2)
}

// nothing is how far the edges of a band may be from nothing for it to be told as that, in V or A.
const nothing = 0.7

// Expects is what a reading is expected to be, in words: the likely band, or what is to be seen.
func (r Reading) Expects(b Bounds) string {
	switch r.Unit {
	case Seen:
		return "yes"
	case Ohms, Kelvin: // nothing is too good
		return "up to " + r.Says(b.Likely[1])
	}
	low, high := b.Likely[0], b.Likely[1]
	if low < 0 && high > 0 && max(-low, high) < nothing {
		return "0 " + string(r.Unit) + ", give or take " + r.Says(max(-low, high))
	}
	if r.Says(low) == r.Says(high) {
		return r.Says(low)
	}
	return r.Says(low) + " to " + r.Says(high)
}

// Expected is what a reading is expected to be with nothing read before it.
func (p *Proof) Expected(r Reading) string {
	if p.base == nil {
		return "not reckoned"
	}
	return r.Expects(p.base[p.at(r.ID)])
}

// read is what a reading came to, in words.
func (r Reading) read(v Meaning) string {
	if v.Peak {
		return "comes to no stand; at most " + r.Says(v.Value)
	}
	if v.Jumps {
		return "comes to no stand"
	}
	return r.Says(v.Value)
}

// Told is a reading that was taken, in words: what it is, what it came to, and what was expected.
func (r Reading) Told(v Meaning) string {
	said := unit.Say("%s: %s; expected %s.", r.What, r.read(v), r.Expects(v.Band))
	if v.NotYet != "" {
		said += " " + v.NotYet
	}
	return said
}

// off is how far a reading is from what is likely, in words; “” where it is not, or has no figure.
func (r Reading) off(v Meaning) string {
	switch {
	case r.Unit == Seen || v.Jumps:
		return ""
	case v.Value < v.Band.Likely[0]:
		return r.Says(v.Band.Likely[0]-v.Value) + " less than the least expected"
	case v.Value > v.Band.Likely[1]:
		return r.Says(v.Value-v.Band.Likely[1]) + " more than the most expected"
	}
	return ""
}
