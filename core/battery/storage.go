package battery

import "epitrope/core/working"

// What a battery loses by itself in thirty days at 20 °C, as a share of its capacity, and
// what it is not to fall below while it stands. Source: from memory; the battery's own
// sheet wins. LiFePO4 loses little, and its management system takes about as much.
var (
	losesIn30 = map[string]float64{"flooded": 0.06, "calcium": 0.03, "agm": 0.025, "gel": 0.025, "lifepo4": 0.03}
	keepsOver = map[string]float64{"flooded": 0.75, "calcium": 0.75, "agm": 0.75, "gel": 0.75, "lifepo4": 0.30}
)

// LosesIn30Days is what a battery loses by itself in thirty days, as a share of its
// capacity.
func (c Chemistry) LosesIn30Days() float64 { return losesIn30[c.ID] }

// KeepsOver is the charge that it is not to fall below while it stands, 0 to 1.
func (c Chemistry) KeepsOver() float64 { return keepsOver[c.ID] }

// TopUp is after how many days a full battery that stands has to be charged again.
var TopUp = working.Declare("t = C·(1 − s_1) / (C·σ/30 + 24·I)",
	"conservation of charge; self-discharge and what it is kept over from memory",
	working.Symbol{Letter: "t", Name: "charge again after", Unit: "days", Digits: 0},
	working.Symbol{Letter: "C", Name: "capacity", Unit: "Ah", Digits: 0},
	working.Symbol{Letter: "s_1", Name: "kept over", Unit: "", Digits: 2},
	working.Symbol{Letter: "σ", Name: "lost by itself in thirty days", Unit: "", Digits: 3},
	working.Symbol{Letter: "I", Name: "taken at rest", Unit: "A", Digits: 3})
