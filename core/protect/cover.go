package protect

import (
	"math"

	"epitrope/core/cable"
	"epitrope/core/working"
)

// Resistance is the resistance of a fuse element: about 80 mV at rated current.
// Source: ISO 8820 allows about 100 mV (from memory).
var Resistance = working.Declare("R_F = 0.08 / I_F", "ISO 8820, from memory: about 80 mV at rated current",
	working.Symbol{Letter: "R_F", Name: "fuse resistance", Unit: "Ω", Digits: 5},
	working.Symbol{Letter: "I_F", Name: "fuse rating", Unit: "A", Digits: 1})

// Fault is the current into a dead short at the end of a run.
var Fault = working.Declare("I_k = U / (R_b + R_l)", "physics: Ohm's law",
	working.Symbol{Letter: "I_k", Name: "fault current", Unit: "A", Digits: 0},
	working.Symbol{Letter: "U", Name: "source voltage", Unit: "V", Digits: 2},
	working.Symbol{Letter: "R_b", Name: "battery resistance", Unit: "Ω", Digits: 5},
	working.Symbol{Letter: "R_l", Name: "fuse, cable and return", Unit: "Ω", Digits: 5})

// Cover is whether a fuse saves a cable from a fault of a given current.
type Cover struct {
	FaultA         float64
	OpensMinS      float64 // the fastest it may open
	OpensMaxS      float64 // the slowest; +Inf where it need not open
	BearsS         float64 // how long the cable bears the fault
	Saves          bool    // it opens before the cable is past its limit
	Breaks         bool    // the fuse can break the current
	BreakCapacityA float64
}

// Covers judges a fuse on a cable of areaMM2 running at startC, whose steady
// limit in its place is cableA, against a fault.
// A fault below the cable's steady limit is borne for ever.
func (f Fuse) Covers(faultA, areaMM2, startC, cableA float64) Cover {
	c := Cover{FaultA: faultA, BreakCapacityA: f.Family.BreaksA}
	c.OpensMinS, c.OpensMaxS = f.Family.Opens(faultA / f.RatingA)
	c.BearsS = cable.Bears(faultA, areaMM2, startC)
	if faultA <= cableA {
		c.BearsS = math.Inf(1)
	}
	c.Saves = c.OpensMaxS <= c.BearsS
	c.Breaks = faultA <= f.Family.BreaksA
	return c
}
