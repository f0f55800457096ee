package unit

import (
	"fmt"
	"math"
	"slices"
	"strings"
)

// Units are the units that a workshop reads in. Their zero value is that of the core: mm², m, °C, N·m.
// What is typed may be in any unit; what is stored is not touched by it.
type Units struct {
	Area        string `json:"area" enum:"mm2,awg,auto" doc:"Gauge has areas in thousands of circular mils, as its tables do"`
	Length      string `json:"length" enum:"m,ft"`
	Temperature string `json:"temperature" enum:"C,F"`
	Torque      string `json:"torque" enum:"Nm,lbft"`
}

// Metric is the system of the core.
var Metric = Units{Area: "mm2", Length: "m", Temperature: "C", Torque: "Nm"}

// unitWords are what each unit of a system may be called, as a list of them is written.
var unitWords = []struct {
	word string
	set  func(*Units)
}{
	{"mm2", func(s *Units) { s.Area = "mm2" }}, {"awg", func(s *Units) { s.Area = "awg" }}, {"auto", func(s *Units) { s.Area = "auto" }},
	{"m", func(s *Units) { s.Length = "m" }}, {"ft", func(s *Units) { s.Length = "ft" }},
	{"C", func(s *Units) { s.Temperature = "C" }}, {"F", func(s *Units) { s.Temperature = "F" }},
	{"Nm", func(s *Units) { s.Torque = "Nm" }}, {"lbft", func(s *Units) { s.Torque = "lbft" }},
}

// ParseUnits reads a list of units such as "awg,ft,F,lbft"; what it does not name is metric.
func ParseUnits(text string) (Units, error) {
	s, allowed := Metric, make([]string, len(unitWords))
	for i, w := range unitWords {
		allowed[i] = w.word
	}
	for _, word := range strings.FieldsFunc(text, func(r rune) bool { return r == ',' || r == ' ' }) {
		i := slices.IndexFunc(allowed, func(a string) bool { return strings.EqualFold(a, word) })
		if i < 0 {
			return Metric, fmt.Errorf("unit %q is not known; allowed are %s, with commas between", clip(word), strings.Join(allowed, ", "))
		}
		unitWords[i].set(&s)
	}
	return s, nil
}

// IsMetric says whether nothing is written otherwise than in the core.
func (s Units) IsMetric() bool {
	return s.Area != "awg" && s.Length != "ft" && s.Temperature != "F" && s.Torque != "lbft"
}

// written is a quantity's unit as the core writes it, and how the system writes its figures:
// nil where it leaves them. Each gets the figure and with how many decimals it stood there.
type written struct {
	unit  string
	write func(v float64, decimals int) (figure, unit string)
}

// The longer of two that begin alike stands first.
func (s Units) written() []written {
	w := []written{{"mm²", nil}, {"mm", nil}, {"m²", nil}, {"m", nil}, {"°C", nil}, {"K", nil}, {"N·m", nil}}
	if s.Area == "awg" {
		w[0].write = circular
	}
	if s.Length == "ft" {
		w[1].write, w[3].write = inches, feet
	}
	if s.Temperature == "F" {
		w[4].write = func(v float64, decimals int) (string, string) { return Text(v*1.8+32, "", decimals), "°F" }
		w[5].write = func(v float64, decimals int) (string, string) { return Text(v*1.8, "", decimals), "°F" }
	}
	if s.Torque == "lbft" {
		w[6].write = poundFeet
	}
	return w
}

// Source: NIST SP 811.
const (
	mPerInch      = 0.0254
	inchesPerFoot = 12
	lbftPerNm     = 0.737562
	mm2PerKcmil   = 0.506707
)

// What is near enough to be round. Source: common practice, no source.
const (
	roundWithin     = 0.025 // how far a figure without decimals may be off when it is made round again
	roundWithinSoft = 0.05
)

// circular writes copper's area in thousands of circular mils. A metric cable's size is its
// name, and stays.
func circular(v float64, _ int) (string, string) {
	if slices.Contains(metricSizes, v) {
		return "", ""
	}
	return Text(v/mm2PerKcmil, "", 1), "kcmil"
}

// metricSizes are conductor areas that cables are named by, in mm². Source: IEC 60228.
var metricSizes = []float64{0.5, 0.75, 1, 1.5, 2.5, 4, 6, 10, 16, 25, 35, 50, 70, 95, 120, 150, 185, 240}

// feet writes a length in m. A whole number of metres is a limit or a guess: it becomes whole feet where that is near.
func feet(v float64, decimals int) (string, string) {
	in := v / mPerInch
	if ft := math.Round(in / inchesPerFoot); decimals == 0 && ft > 0 && math.Abs(ft*inchesPerFoot-in) <= roundWithin*in {
		return Text(ft, "", 0), "ft"
	}
	step := 1.0
	if decimals > 1 {
		step = 0.25
	}
	in = math.Round(in/step) * step
	if math.Abs(in) < 2*inchesPerFoot {
		return quarters(in), "in"
	}
	ft := math.Trunc(in / inchesPerFoot)
	if rest := math.Abs(in - ft*inchesPerFoot); rest > 0 {
		return Text(ft, "ft", 0) + " " + quarters(rest), "in"
	}
	return Text(ft, "", 0), "ft"
}

// inches writes a length in mm: in quarters of an inch, the small and the measured in hundredths.
func inches(v float64, decimals int) (string, string) {
	in := v / (1000 * mPerInch)
	switch {
	case decimals > 0 || v < 20:
		return Text(in, "", 2), "in"
	case math.Abs(math.Round(in)-in) <= roundWithin*in:
		return Text(in, "", 0), "in"
	case math.Abs(math.Round(4*in)/4-in) <= roundWithinSoft*in:
		return quarters(math.Round(4*in) / 4), "in"
	}
	return Text(in, "", 1), "in"
}

func quarters(v float64) string {
	if v < 0 {
		return "−" + quarters(-v)
	}
	whole := math.Trunc(v)
	part := [...]string{"", "¼", "½", "¾"}[int(math.Round(4*(v-whole)))%4]
	if whole == 0 && part != "" {
		return part
	}
	return Text(whole, "", 0) + part
}

func poundFeet(v float64, decimals int) (string, string) {
	v *= lbftPerNm
	switch {
	case decimals == 0 && math.Abs(math.Round(v)-v) <= roundWithin*v:
	case v < 1:
		decimals = max(decimals, 2)
	case v < 10:
		decimals = max(decimals, 1)
	default:
		decimals = 0
	}
	return Text(v, "", decimals), "lb·ft"
}
