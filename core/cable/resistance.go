package cable

import (
	"math"

	"epitrope/core/working"
)

// Alpha is the temperature coefficient of copper's resistance per K at 20 °C.
// Source: IEC 60028.
const Alpha = 0.00393

// Kappa is the conductivity of ideal copper at 20 °C in m/(Ω·mm²).
// Source: IEC 60028.
const Kappa = 58.0

// class5 is the maximum resistance at 20 °C of flexible class 5 conductors.
// Source: IEC 60228 table 3, plain copper; from memory below 1.5 and above 120.
var class5 = []struct{ areaMM2, ohmPerKM float64 }{
	{0.5, 39.0}, {0.75, 26.0}, {1, 19.5}, {1.5, 13.3}, {2.5, 7.98}, {4, 4.95}, {6, 3.30},
	{10, 1.91}, {16, 1.21}, {25, 0.780}, {35, 0.554}, {50, 0.386}, {70, 0.272},
	{95, 0.206}, {120, 0.161}, {150, 0.129}, {185, 0.106}, {240, 0.0801},
}

// OhmPerM returns the greatest resistance at 20 °C, in Ω/m, of a flexible
// conductor of areaMM2 (0.5 to 240): the class 5 figure, and between the
// standard's sizes the same copper quality interpolated on the logarithm of area.
//
// Source: IEC 60228 class 5.
func OhmPerM(areaMM2 float64) float64 {
	i := 1
	for i < len(class5)-1 && class5[i].areaMM2 < areaMM2 {
		i++
	}
	low, high := class5[i-1], class5[i]
	share := math.Log(areaMM2/low.areaMM2) / math.Log(high.areaMM2/low.areaMM2)
	share = math.Min(1, math.Max(0, share))
	quality := low.ohmPerKM*low.areaMM2*(1-share) + high.ohmPerKM*high.areaMM2*share
	return quality / areaMM2 / 1000
}

// Resistance is the resistance of a length of cable at its running temperature.
var Resistance = working.Declare("R = r·l·(1 + α·(T − 20))",
	"metric: IEC 60228 class 5 at 20 °C; gauge: ASTM B258; copper coefficient from IEC 60028",
	working.Symbol{Letter: "R", Name: "cable resistance", Unit: "Ω", Digits: 5},
	working.Symbol{Letter: "r", Name: "resistance per metre at 20 °C", Unit: "Ω/m", Digits: 6},
	working.Symbol{Letter: "l", Name: "length of cable", Unit: "m", Digits: 2},
	working.Symbol{Letter: "α", Name: "temperature coefficient of copper", Unit: "/K", Digits: 5},
	working.Symbol{Letter: "T", Name: "conductor temperature", Unit: "°C", Digits: 1})

// Drop is the voltage lost in a resistance.
var Drop = working.Declare("ΔU = I·R", "physics: Ohm's law",
	working.Symbol{Letter: "ΔU", Name: "voltage lost", Unit: "V", Digits: 3},
	working.Symbol{Letter: "I", Name: "current", Unit: "A", Digits: 1},
	working.Symbol{Letter: "R", Name: "resistance of the loop", Unit: "Ω", Digits: 5})

// RuleArea is the trade's rule for the area that keeps a drop, with ideal cold
// copper: at 2 % of 10.7 V it is A = I·2L / 12.4.
var RuleArea = working.Declare("A = L·I / (κ·ΔU)",
	"physics: Ohm's law, κ from IEC 60028; at 2 % of 10.7 V it is the trade's rule (common practice, no source)",
	working.Symbol{Letter: "A", Name: "area for the drop alone, cold copper", Unit: "mm²", Digits: 2},
	working.Symbol{Letter: "L", Name: "loop, out and back", Unit: "m", Digits: 2},
	working.Symbol{Letter: "I", Name: "current", Unit: "A", Digits: 1},
	working.Symbol{Letter: "κ", Name: "conductivity of cold copper", Unit: "m/(Ω·mm²)", Digits: 0},
	working.Symbol{Letter: "ΔU", Name: "allowed drop", Unit: "V", Digits: 3})
