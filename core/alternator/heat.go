package alternator

import (
	"math"

	"epitrope/core/working"
)

// A machine's heat. Source: from memory: about 55 % of what drives it comes out as
// current, windings run about 110 K above their air at full output and 6,000 rpm,
// and its fan takes heat away with the 0.6th power of speed, so that a machine can
// hold its label's lower figure too.
const (
	efficiency = 0.55
	fanPower   = 0.6
	// HottestC is what windings bear for long: insulation class H less a margin.
	// Source: IEC 60085 (from memory).
	HottestC = 170.0
)

// WindingC returns the steady winding temperature, in °C, of a machine that gives
// amps at volts, at an alternator speed in rpm, in air of airC. A slow machine has
// little cooling: full current at idle heats it more than full current on the road.
//
// Source: from memory; physics for the proportion.
func (l Label) WindingC(amps, volts, rpm, airC float64) float64 {
	if l.Converter {
		return airC
	}
	return Winding.Value(airC, math.Max(amps, 0), volts, l.RatedA, Slowness(rpm))
}

// Slowness is how many times as warm a machine gets at an alternator speed in rpm as
// at 6,000, for the same heat.
func Slowness(rpm float64) float64 {
	return math.Pow(ratedRPM/math.Min(math.Max(rpm, cutInRPM), ratedRPM), fanPower)
}

// Winding is the temperature of a machine's windings: 110 K above its air at its
// label's power, in proportion to the power, more where it turns slowly.
var Winding = working.Declare("T_w = T_a + 110·(I·U) / (I_R·13.5)·s", "from memory; physics for the proportion",
	working.Symbol{Letter: "T_w", Name: "alternator windings", Unit: "°C", Digits: 0},
	working.Symbol{Letter: "T_a", Name: "air round it", Unit: "°C", Digits: 0},
	working.Symbol{Letter: "I", Name: "it gives", Unit: "A", Digits: 0},
	working.Symbol{Letter: "U", Name: "voltage at 12 V", Unit: "V", Digits: 2},
	working.Symbol{Letter: "I_R", Name: "alternator label", Unit: "A", Digits: 0},
	working.Symbol{Letter: "s", Name: "factor for low speed", Unit: "", Digits: 2})

// hotSpaceC is the air in which HotFactor holds, and labelC the label's.
const (
	hotSpaceC = 80.0
	labelC    = 23.0
)

// HotOutput is Output in air of airC (−40 to 120 °C): the label's at 23 °C, HotFactor
// of it at 80 °C, in proportion between and beyond.
//
// Source: ISO 8854 at 23 °C; 80–90 % hot, common practice, no source.
func (l Label) HotOutput(rpm, airC float64) float64 { return l.Hot(l.Output(rpm), airC) }

// Hot is what is left in air of airC of an output at 23 °C: see HotOutput.
func (l Label) Hot(outputA, airC float64) float64 {
	if l.Converter {
		return outputA
	}
	return outputA * (1 - (1-HotFactor)*(airC-labelC)/(hotSpaceC-labelC))
}
