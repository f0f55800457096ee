package battery

import (
	"math"

	"epitrope/core/working"
)

// TopUp is after how many days a full battery that stands has to be charged again.
var TopUp = working.Declare("t = C·(1 − s_1) / (C·σ/30 + 24·I)",
	"conservation of charge; self-discharge and what it is kept over from memory",
	working.Symbol{Letter: "t", Name: "charge again after", Unit: "days", Digits: 0},
	working.Symbol{Letter: "C", Name: "capacity", Unit: "Ah", Digits: 0},
	working.Symbol{Letter: "s_1", Name: "kept over", Unit: "", Digits: 2},
	working.Symbol{Letter: "σ", Name: "lost by itself in thirty days", Unit: "", Digits: 3},
	working.Symbol{Letter: "I", Name: "taken at rest", Unit: "A", Digits: 3})

// MayStand is for how many days a battery may stand at a temperature, in °C, whatever it loses by
// itself: half as long for each 10 K above 20 °C.
//
// Source: common practice, no source.
func (c Chemistry) MayStand(tempC float64) float64 {
	return c.StandsDays * math.Pow(0.5, math.Max(0, tempC-20)/10)
}
