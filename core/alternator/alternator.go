// Package alternator knows what an alternator's label means and what is left of
// it for charging.
package alternator

import (
	"fmt"
	"math"
	"regexp"
	"strconv"
	"strings"

	"epitrope/core/unit"
	"epitrope/core/working"
)

// Label is an alternator's I_L / I_R label: output in A at 1,500 and 6,000
// revolutions of the alternator per minute, 13.5 V, 23 °C. Source: ISO 8854.
type Label struct {
	LowA   float64 // zero where the label gives one figure only
	RatedA float64

	LowRPM float64 // the alternator's speed at which it gives LowA; zero is 1,500
	IdleA  float64 // what it was measured to give there, hot; zero where it was not measured

	Converter bool // no machine turns: a converter gives its rating whatever the engine does, while the vehicle is ready
}

// The range of a label, in A.
const (
	MinRatedA = 25
	MaxRatedA = 600
)

// LabelError is text that is no alternator label.
type LabelError struct{ Text string }

func (e *LabelError) Error() string {
	return fmt.Sprintf("%q %s", e.Text, e.Wrong())
}

// Wrong says what is wrong, without the text itself.
func (e *LabelError) Wrong() string {
	return fmt.Sprintf("is not an alternator label; write \"180 A\" or both figures, \"90/180 A\", rated output %d to %d A", MinRatedA,
		MaxRatedA)
}

var labelText = regexp.MustCompile(`^(?:(\d{1,3}) ?a? ?[/-] ?)?(\d{1,3}) ?(?:a|amp|amps)?$`)

// ParseLabel reads "180", "180 A" or "90/180 A".
func ParseLabel(text string) (Label, error) {
	m := labelText.FindStringSubmatch(strings.ToLower(strings.TrimSpace(text)))
	if m == nil {
		if len(text) > 40 {
			text = strings.ToValidUTF8(text[:40], "") + "…"
		}
		return Label{}, &LabelError{text}
	}
	rated, _ := strconv.ParseFloat(m[2], 64)
	low, _ := strconv.ParseFloat("0"+m[1], 64)
	if rated < MinRatedA || rated > MaxRatedA || low >= rated || (m[1] != "" && low < 5) {
		return Label{}, &LabelError{text}
	}
	return Label{LowA: low, RatedA: rated}, nil
}

func (l Label) String() string {
	if l.LowA == 0 {
		return unit.Plain(l.RatedA, "A", 0)
	}
	return unit.Plain(l.LowA, "", 0) + "/" + unit.Plain(l.RatedA, "A", 0)
}

// Speeds of the curve in alternator revolutions per minute. Source: ISO 8854 for
// lowRPM and ratedRPM; cut-in, pulley ratio and idle common practice, no source.
const (
	cutInRPM = 1000.0
	lowRPM   = 1500.0
	ratedRPM = 6000.0
	// mostLowRPM keeps the two points apart.
	mostLowRPM = 5000.0
	// Ratio is alternator to engine speed; IdleRPM is the engine's idle.
	Ratio   = 2.75
	IdleRPM = 750.0
)

// HotFactor is what a hot machine gives of its label. Source: 80–90 %, common
// practice, no source.
const HotFactor = 0.85

// Output returns the current, in A, that a machine at 23 °C can give at an
// alternator speed in rpm: nothing below cut-in, its label at 1,500 and 6,000,
// and between them in proportion to the logarithm of speed; above 6,000 no more.
// A label of one figure is taken to give half of it at 1,500. Where LowRPM says another speed,
// the first figure holds there, and cut-in lies no higher than two thirds of it.
//
// Source: ISO 8854 for the two points; shape and half common practice, no source.
func (l Label) Output(rpm float64) float64 {
	if l.Converter {
		if rpm <= 0 {
			return 0
		}
		return l.RatedA
	}
	low, from := l.LowA, lowRPM
	if l.LowRPM > 0 {
		from = min(l.LowRPM, mostLowRPM)
	}
	cutIn := min(cutInRPM, from*cutInRPM/lowRPM)
	switch {
	case l.IdleA > 0:
		low = min(l.IdleA/HotFactor, l.RatedA)
	case low == 0:
		low = l.RatedA / 2
	}
	switch {
	case rpm <= cutIn:
		return 0
	case rpm < from:
		return low * (rpm - cutIn) / (from - cutIn)
	case rpm >= ratedRPM:
		return l.RatedA
	}
	return low + (l.RatedA-low)*math.Log(rpm/from)/math.Log(ratedRPM/from)
}

// HotShare is what is left of the output in the heat: all of a converter's rating, which is for hours.
func (l Label) HotShare() float64 {
	if l.Converter {
		return 1
	}
	return HotFactor
}

// AtIdle is the label of a machine whose idle speed nobody measured: it gives no more than the
// first figure there. Source: common practice, no source: deliberately lower than ISO 8854 says,
// as pulleys differ.
func (l Label) AtIdle() Label {
	l.LowRPM = IdleRPM * Ratio
	return l
}

// ByStandard is the label read as ISO 8854 has it, its first figure at 1,500 turns.
func (l Label) ByStandard() Label {
	l.LowRPM, l.IdleA = 0, 0
	return l
}

// Headroom is what is left for charging.
var Headroom = working.Declare("I_h = f·I_n − I_v", "common practice, no source; output by ISO 8854",
	working.Symbol{Letter: "I_h", Name: "left for charging", Unit: "A", Digits: 0},
	working.Symbol{Letter: "f", Name: "share a hot machine gives", Unit: "", Digits: 2},
	working.Symbol{Letter: "I_n", Name: "output at this speed", Unit: "A", Digits: 0},
	working.Symbol{Letter: "I_v", Name: "the vehicle's own load", Unit: "A", Digits: 0})

// HalfLabel is the trade's limit for continuous auxiliary charging.
var HalfLabel = working.Declare("I_max = 0.5·I_R", "common practice, no source",
	working.Symbol{Letter: "I_max", Name: "continuous charging at most", Unit: "A", Digits: 0},
	working.Symbol{Letter: "I_R", Name: "alternator label", Unit: "A", Digits: 0})
