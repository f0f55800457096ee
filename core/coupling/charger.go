package coupling

import (
	"math"

	"epitrope/core/battery"
	"epitrope/core/working"
)

// Curve is what a DC-DC charger loses, as shares of its rated output power: standing,
// in proportion, and with the square.
type Curve struct{ Standing, Linear, Square float64 }

// UsualCurve gives 0.90 at full output and peaks a little over it between half and
// full. Source: 0.87–0.92, common practice, no source; shape from memory.
var UsualCurve = Curve{Standing: 0.012, Linear: 0.055, Square: 0.044}

// boost is how losses grow as the input falls below the output: the current that
// causes them grows with it. Source: physics.
const boost = 2.0

// Efficiency returns what comes out of what goes in, 0 to 1, at a share of the rated
// output (0 to 1) and the ratio of input to output voltage. At no output it is zero.
func (c Curve) Efficiency(share, inOverOut float64) float64 {
	if share <= 0 {
		return 0
	}
	more := math.Pow(1/math.Max(0.5, math.Min(inOverOut, 1)), boost)
	lost := c.Standing + (c.Linear*share+c.Square*share*share)*more
	return share / (share + lost)
}

// Derate returns what share of its output a charger gives in a place of ambientC:
// all of it up to fullC, then less in proportion, nothing from 30 K above.
//
// Source: common practice, no source; the card wins.
func Derate(ambientC, fullC float64) float64 {
	const span = 30.0
	return math.Min(1, math.Max(0, 1-(ambientC-fullC)/span))
}

// Stage is where a charger is in its charge.
type Stage int

// The stages.
const (
	Resting    Stage = iota // no trigger, or its input is too low
	Bulk                    // all the current it has
	Absorption              // its voltage held, the current falls
	Float                   // a lower voltage, for as long as it lasts
)

func (s Stage) String() string { return [...]string{"resting", "bulk", "absorption", "float"}[s] }

// Stages is how a charger goes through its charge: voltages at 12 V, currents as
// shares of its rated output.
type Stages struct {
	AbsorptionV, FloatV float64 // FloatV 0: it rests instead
	TailShare           float64 // absorption ends when the current is below it
	AbsorptionS         float64 // or after so long
	AgainV              float64 // from float, bulk begins again below
	AgainS              float64 // held for so long
}

// UsualStages are those of a charger for a profile and a battery. Source: common practice, no
// source: the end of absorption at a tenth of the output at the latest after the battery's
// time, bulk again below its voltage held for a minute.
func UsualStages(absorptionV, floatV float64, of battery.Stages) Stages {
	return Stages{AbsorptionV: absorptionV, FloatV: floatV, TailShare: 0.10, AbsorptionS: of.AbsorptionS, AgainV: of.AgainV, AgainS: 60}
}

// reached is how close to its voltage a charger counts it as reached, in V.
const reached = 0.02

// Next returns the stage that follows if volts (at the charger's output, at 12 V) and
// the share of rated current stay as they are, after it has been in its stage for
// inS; and after how many more seconds it begins.
func (s Stages) Next(now Stage, volts, share, inS float64) (next Stage, afterS float64) {
	switch {
	case now == Bulk && volts >= s.AbsorptionV-reached:
		return Absorption, 0
	case now == Absorption && (share <= s.TailShare || inS >= s.AbsorptionS):
		return Float, 0
	case now == Float && volts < s.AgainV:
		return Bulk, s.AgainS
	}
	return now, 0
}

// SetV is the voltage a charger holds in a stage; zero where it rests.
func (s Stages) SetV(now Stage) float64 {
	switch now {
	case Bulk, Absorption:
		return s.AbsorptionV
	case Float:
		return s.FloatV
	}
	return 0
}

// HighCurrent is a bypass stage beside a charger: it joins the batteries while there
// is much to give and leaves the end to the charger.
type HighCurrent struct {
	ContactA float64 // bypass contact, continuous
	JoinV    float64 // start side at least, at 12 V
	DropV    float64 // … to stay joined
	LeaveV   float64 // aux battery at most
}

// UsualHighCurrent is such a stage. Source: from memory: up to 300 A, joined from
// 13.6 V at the start side until that falls below 13.2 V or the aux battery stands at
// 14.0 V.
var UsualHighCurrent = HighCurrent{ContactA: 300, JoinV: 13.6, DropV: 13.2, LeaveV: 14.0}

// Wants says whether the bypass wants to be closed, by whether it is, whether its signal is
// live, and what stands on both sides, at 12 V.
func (h HighCurrent) Wants(joined, signal bool, startV, auxV float64) bool {
	least := h.JoinV
	if joined {
		least = h.DropV
	}
	return signal && startV >= least && auxV < h.LeaveV
}

// CaseC is how warm a charger's case gets.
var CaseC = working.Declare("T_c = T_a + k·P", "physics: heat given off in proportion; the card's figure",
	working.Symbol{Letter: "T_c", Name: "charger's case", Unit: "°C", Digits: 0},
	working.Symbol{Letter: "T_a", Name: "warmest at its place", Unit: "°C", Digits: 0},
	working.Symbol{Letter: "k", Name: "rise for each watt", Unit: "K/W", Digits: 2},
	working.Symbol{Letter: "P", Name: "lost in the charger", Unit: "W", Digits: 0})
