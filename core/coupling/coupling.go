// Package coupling knows what stands between the two batteries: contactors, relays,
// chargers, selectors, and what they are made of.
package coupling

import "epitrope/core/working"

// Relay thresholds, V at 12 V. Source: cut-in 13.3 / cut-out 12.8 seen, common
// practice, no source.
const (
	CutInV  = 13.3
	CutOutV = 12.8
)

// InputCurrent is what a charger draws for what it gives.
var InputCurrent = working.Declare("I_in = I_out·U_out / (η·U_in)", "physics: conservation of energy",
	working.Symbol{Letter: "I_in", Name: "input current", Unit: "A", Digits: 1},
	working.Symbol{Letter: "I_out", Name: "output current", Unit: "A", Digits: 1},
	working.Symbol{Letter: "U_out", Name: "output voltage", Unit: "V", Digits: 2},
	working.Symbol{Letter: "η", Name: "efficiency", Unit: "", Digits: 2},
	working.Symbol{Letter: "U_in", Name: "input voltage", Unit: "V", Digits: 2})

// MostPower is the most that a line can carry.
var MostPower = working.Declare("P_max = U^2 / (4·R)", "physics: maximum power transfer",
	working.Symbol{Letter: "P_max", Name: "most the line can carry", Unit: "W", Digits: 0},
	working.Symbol{Letter: "U", Name: "source voltage", Unit: "V", Digits: 2},
	working.Symbol{Letter: "R", Name: "resistance of the loop", Unit: "Ω", Digits: 5})

// Joined is the current between two batteries through a closed relay.
var Joined = working.Declare("I = (U − E) / (R_l + R_b)", "physics: Ohm's law",
	working.Symbol{Letter: "I", Name: "current the circuit drives", Unit: "A", Digits: 1},
	working.Symbol{Letter: "U", Name: "voltage at the start battery", Unit: "V", Digits: 2},
	working.Symbol{Letter: "E", Name: "aux battery's own voltage", Unit: "V", Digits: 2},
	working.Symbol{Letter: "R_l", Name: "resistance of the loop", Unit: "Ω", Digits: 5},
	working.Symbol{Letter: "R_b", Name: "battery resistance", Unit: "Ω", Digits: 5})
