// Package cable knows the cables of the trade: what their names mean in copper,
// what they resist, what they may carry and how warm they get, and which size a
// run needs.
//
// Names are a trap. mm² is conductor area; AWG (B&S) is a gauge; "auto cable" is
// named by its outside diameter in mm. A Size always carries its copper.
package cable

import (
	"errors"
	"fmt"
	"math"
	"regexp"
	"strconv"
	"strings"

	"epitrope/core/unit"
)

// System is a way of naming cable.
type System string

// The systems a cable can be named in.
const (
	Metric System = "metric" // conductor area in mm²
	AWG    System = "awg"    // American wire gauge, also called B&S
	Auto   System = "auto"   // outside diameter in mm
)

// Size is a cable as named, with the copper that is really in it: one cable, or a
// few alike side by side.
type Size struct {
	Label   string // "16 mm²", "6 AWG", "6 mm auto", "2 × 16 mm²"
	System  System
	AreaMM2 float64 // copper cross-section of one cable
	Gauge   int     // AWG number; 1/0 is 0, 2/0 is −1 …; only for AWG
	Count   int     // cables in parallel, 1 to MaxParallel

	each string // the label of one of several
}

// One is one cable of those that lie in parallel.
func (s Size) One() Size {
	if s.Count > 1 {
		s.Label, s.Count, s.each = s.each, 1, ""
	}
	return s
}

// MaxParallel is how many cables may lie in parallel: more share their current
// too unevenly. Source: common practice, no source.
const MaxParallel = 4

// CopperMM2 is the copper of all its cables together, in mm².
func (s Size) CopperMM2() float64 { return s.AreaMM2 * float64(s.Count) }

// OhmPerM is the resistance of all its cables together at 20 °C, in Ω/m.
func (s Size) OhmPerM() float64 { return s.eachOhmPerM() / float64(s.Count) }

// layOfStrands is how much longer the strands of a gauge cable are than the cable. Source: common practice,
// no source: about 2 %.
const layOfStrands = 1.02

// eachOhmPerM is that of one of them: a gauge has its own area's, all others the most that their standard
// allows.
func (s Size) eachOhmPerM() float64 {
	if s.System == AWG {
		return layOfStrands / (Kappa * s.AreaMM2)
	}
	return OhmPerM(s.AreaMM2)
}

// OhmSource is where its resistance is from.
func (s Size) OhmSource() string {
	if s.System == AWG {
		return "ASTM B258 area, copper by IEC 60028, 2 % for the lay"
	}
	return "IEC 60228 class 5"
}

// Parallel is so many cables of a size side by side.
func (s Size) Parallel(count int) Size {
	s.each = s.One().Label
	s.Label, s.Count = fmt.Sprintf("%d × %s", count, s.each), count
	return s
}

// Copper is the size with its copper area where the name does not say it.
func (s Size) Copper() string {
	if s.System == Metric {
		return s.Label
	}
	return s.Label + " (" + unit.Plain(s.CopperMM2(), "mm² copper", 1) + ")"
}

// The widest range of copper that a run here can have, in mm².
const (
	MinAreaMM2 = 0.5
	MaxAreaMM2 = 240.0
)

// autoCopper is the copper, in mm², of auto cable by outside diameter in mm.
// Source: 6 and 8 mm common practice, no source; the others from memory.
var autoCopper = map[int]float64{3: 1.1, 4: 1.8, 5: 2.9, 6: 4.6, 8: 8.0}

// GaugeArea returns the copper area in mm² of an AWG gauge: d = 0.127 mm ·
// 92^((36−n)/39), A = π/4·d². gauge runs from −3 (4/0) to 40.
//
// Source: ASTM B258.
func GaugeArea(gauge int) float64 {
	d := 0.127 * math.Pow(92, float64(36-gauge)/39)
	return math.Pi / 4 * d * d
}

// Gauge is the size of an AWG number, 1/0 being 0 and 4/0 being −3.
func Gauge(n int) Size {
	label := strconv.Itoa(n) + " AWG"
	if n <= 0 {
		label = strconv.Itoa(1-n) + "/0 AWG"
	}
	return Size{Label: label, System: AWG, AreaMM2: GaugeArea(n), Gauge: n, Count: 1}
}

// Square is the size of a conductor area in mm².
func Square(mm2 float64) Size {
	return Size{Label: unit.Plain(mm2, "mm²", 2), System: Metric, AreaMM2: mm2, Count: 1}
}

func outside(diameter int) Size {
	return Size{Label: strconv.Itoa(diameter) + " mm auto", System: Auto, AreaMM2: autoCopper[diameter], Count: 1}
}

// The sizes that are on the shelf, thinnest first.
var (
	metricShelf = squares(1.5, 2.5, 4, 6, 10, 16, 25, 35, 50, 70, 95, 120)
	awgShelf    = gauges(16, 14, 12, 10, 8, 6, 4, 2, 1, 0, -1, -2, -3)
	autoShelf   = []Size{outside(3), outside(4), outside(5), outside(6), outside(8)}
)

func squares(areas ...float64) []Size {
	shelf := make([]Size, len(areas))
	for i, a := range areas {
		shelf[i] = Square(a)
	}
	return shelf
}

func gauges(numbers ...int) []Size {
	shelf := make([]Size, len(numbers))
	for i, n := range numbers {
		shelf[i] = Gauge(n)
	}
	return shelf
}

// Shelf lists the sizes of a system, thinnest first. Auto cable ends at 8 mm;
// beyond it the trade buys B&S, so its shelf goes on with the thicker gauges.
func Shelf(s System) []Size {
	switch s {
	case AWG:
		return awgShelf
	case Auto:
		return append(autoShelf[:len(autoShelf):len(autoShelf)], gauges(6, 4, 2, 1, 0, -1, -2, -3)...)
	default:
		return metricShelf
	}
}

// NameError is text that names no cable.
type NameError struct{ Text, Hint string }

func (e *NameError) Error() string {
	return fmt.Sprintf("%q %s", e.Text, e.Wrong())
}

// Wrong says what is wrong, without the text itself.
func (e *NameError) Wrong() string { return "is not a cable size; " + e.Hint }

const nameHint = "write mm² of copper (\"16 mm2\"), a gauge (\"6 AWG\", \"8 B&S\", \"2/0 AWG\") or auto cable by outside diameter (\"6 " +
	"mm auto\")"

var (
	squareName = regexp.MustCompile(`^(\d{1,3}(?:[.,]\d{1,3})?) ?(?:mm²|mm2|mm\^2|sq ?mm|sqmm|qmm)$`)
	gaugeName  = regexp.MustCompile(`^(\d{1,2}|[1-4]/0|0{1,4})(?: ?(?:awg|b&s|b & s|bs|ga|gauge))$`)
	gaugeBare  = regexp.MustCompile(`^([1-4]/0|0{2,4})$`) // no other system writes a size so
	gaugeFirst = regexp.MustCompile(`^(?:awg|b&s) ?(\d{1,2}|[1-4]/0|0{1,4})$`)
	autoName   = regexp.MustCompile(`^(\d{1,2}) ?mm ?auto(?: ?cable)?$`)
	sideBySide = regexp.MustCompile(`^(\d{1,3}) ?[x×*] ?(.+)$`)
	bareMM     = regexp.MustCompile(`^(\d{1,3}) ?mm$`)
)

// Parse reads a cable's name in any of the systems, or of a few in parallel:
// "2 × 16 mm²". "8 mm" alone is refused, naming both things it may mean.
func Parse(text string) (Size, error) {
	refuse := func(hint string) (Size, error) {
		if len(text) > 40 {
			text = strings.ToValidUTF8(text[:40], "") + "…"
		}
		return Size{}, &NameError{text, hint}
	}
	name := strings.ToLower(strings.Join(strings.Fields(text), " "))
	if m := sideBySide.FindStringSubmatch(name); m != nil {
		return parseParallel(m[1], m[2], refuse)
	}
	if m := squareName.FindStringSubmatch(name); m != nil {
		area, err := unit.Number(m[1])
		var unclear *unit.Unclear
		if errors.As(err, &unclear) {
			return refuse(unclear.Wrong())
		}
		if err != nil || area < MinAreaMM2 || area > MaxAreaMM2 {
			return refuse(fmt.Sprintf("allowed are %g to %g mm²", MinAreaMM2, MaxAreaMM2))
		}
		return Square(area), nil
	}
	if m := gaugeName.FindStringSubmatch(name); m != nil {
		return parseGauge(m[1], refuse)
	}
	if m := gaugeBare.FindStringSubmatch(name); m != nil {
		return parseGauge(m[1], refuse)
	}
	if m := gaugeFirst.FindStringSubmatch(name); m != nil {
		return parseGauge(m[1], refuse)
	}
	if m := autoName.FindStringSubmatch(name); m != nil {
		d, _ := strconv.Atoi(m[1])
		if _, ok := autoCopper[d]; !ok {
			return refuse("auto cable comes as 3, 4, 5, 6 and 8 mm outside diameter")
		}
		return outside(d), nil
	}
	if m := bareMM.FindStringSubmatch(name); m != nil {
		return refuse(ambiguous(m[1]))
	}
	return refuse(nameHint)
}

func parseParallel(count, each string, refuse func(string) (Size, error)) (Size, error) {
	n, _ := strconv.Atoi(count)
	one, err := Parse(each)
	switch {
	case n < 2 || n > MaxParallel || one.Count > 1:
		return refuse(fmt.Sprintf("2 to %d cables may lie in parallel", MaxParallel))
	case err != nil:
		return Size{}, err
	}
	return one.Parallel(n), nil
}

func ambiguous(mm string) string {
	hint := fmt.Sprintf("it could be copper area or outside diameter: write \"%s mm²\" or \"%s mm auto\"", mm, mm)
	d, _ := strconv.Atoi(mm)
	if copper, ok := autoCopper[d]; ok {
		hint += fmt.Sprintf(" (about %g mm² of copper)", copper)
	}
	return hint
}

func parseGauge(text string, refuse func(string) (Size, error)) (Size, error) {
	var n int
	switch {
	case strings.HasSuffix(text, "/0"):
		n = 1 - int(text[0]-'0')
	case strings.Trim(text, "0") == "":
		n = 1 - len(text)
	default:
		n, _ = strconv.Atoi(text)
	}
	if n > 20 {
		return refuse("allowed are 20 AWG (0.5 mm²) to 4/0 AWG (107 mm²)")
	}
	return Gauge(n), nil
}
