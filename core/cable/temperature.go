package cable

import (
	"errors"

	"epitrope/core/working"
)

// ErrRunaway is a current at which a conductor finds no steady temperature.
var ErrRunaway = errors.New("no steady temperature: the cable burns")

// hottestC is where copper's insulation is long gone; a steady temperature above
// it is reported as no steady temperature.
const hottestC = 400

// Heating is how far a current is on the way to the insulation's limit, as a rise
// per unit of resistance.
var Heating = working.Declare("k = (I / I_30)^2·(θ − 30) / (1 + α·(θ − 20))",
	"physics; calibrated by the ampacity tables",
	working.Symbol{Letter: "k", Name: "heating", Unit: "K", Digits: 2},
	working.Symbol{Letter: "I", Name: "current", Unit: "A", Digits: 1},
	working.Symbol{Letter: "I_30", Name: "carries in free air at 30 °C", Unit: "A", Digits: 0},
	working.Symbol{Letter: "θ", Name: "insulation limit", Unit: "°C", Digits: 0},
	working.Symbol{Letter: "α", Name: "temperature coefficient of copper", Unit: "/K", Digits: 5})

// Warmth is the steady temperature of a conductor: heat I²·R(T) grows with
// copper's own resistance, heat given off with the temperature difference.
var Warmth = working.Declare("T = (T_a + k·(1 − 20·α)) / (1 − k·α)",
	"physics; calibrated by the ampacity tables",
	working.Symbol{Letter: "T", Name: "conductor temperature", Unit: "°C", Digits: 0},
	working.Symbol{Letter: "T_a", Name: "temperature of the place", Unit: "°C", Digits: 0},
	working.Symbol{Letter: "k", Name: "heating", Unit: "K", Digits: 2},
	working.Symbol{Letter: "α", Name: "temperature coefficient of copper", Unit: "/K", Digits: 5})

// ConductorC returns the steady conductor temperature, in °C, at amps in a place
// of ambientC, for a cable that reaches limitC at freeAirA in free air at 30 °C.
// It returns ErrRunaway where there is no steady state below 400 °C.
func ConductorC(amps, freeAirA, limitC, ambientC float64) (float64, error) {
	k := Heating.Value(amps, freeAirA, limitC, Alpha)
	if k*Alpha >= 1 {
		return 0, ErrRunaway
	}
	t := Warmth.Value(ambientC, k, Alpha)
	if t > hottestC {
		return 0, ErrRunaway
	}
	return t, nil
}

// ShortLimitC is the conductor temperature, in °C, that insulation bears at the
// end of a short circuit: 160 for PVC; the other classes are taken at the same, on
// the safe side. Source: IEC 60949, IEC 60364-4-43.
const ShortLimitC = 160.0

// ShortConstant is the adiabatic constant of copper between two temperatures.
var ShortConstant = working.Declare("k = 226·√(ln((234.5 + θ_f) / (234.5 + θ_i)))", "IEC 60949",
	working.Symbol{Letter: "k", Name: "short-circuit constant", Unit: "A√s/mm²", Digits: 0},
	working.Symbol{Letter: "θ_f", Name: "bears at the end", Unit: "°C", Digits: 0},
	working.Symbol{Letter: "θ_i", Name: "running temperature", Unit: "°C", Digits: 0})

// BearsFor is how long a conductor bears a fault without giving off heat.
var BearsFor = working.Declare("t = (k·S / I_k)^2", "IEC 60949, IEC 60364-4-43; beyond about 5 s on the safe side",
	working.Symbol{Letter: "t", Name: "cable bears the fault for", Unit: "s", Digits: 2},
	working.Symbol{Letter: "k", Name: "short-circuit constant", Unit: "A√s/mm²", Digits: 0},
	working.Symbol{Letter: "S", Name: "copper area", Unit: "mm²", Digits: 1},
	working.Symbol{Letter: "I_k", Name: "fault current", Unit: "A", Digits: 0})

// ShortK returns the adiabatic constant of copper from its running temperature
// startC to finalC: 115 from 70 to 160 °C, 143 from 90 to 250 °C. It is zero where
// startC is not below finalC.
func ShortK(startC, finalC float64) float64 {
	if startC >= finalC {
		return 0
	}
	return ShortConstant.Value(finalC, startC)
}

// Bears returns how many seconds a conductor of areaMM2 at startC bears a fault.
func Bears(faultA, areaMM2, startC float64) float64 {
	return BearsFor.Value(ShortK(startC, ShortLimitC), areaMM2, faultA)
}
