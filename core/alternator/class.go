package alternator

import (
	"math"

	"epitrope/core/unit"
)

// Class is what a recording shows.
type Class string

// The classes. Fixed, Compensated and Variable are also kinds of regulation.
const (
	ClassFixed       Class = "fixed"
	ClassCompensated Class = "compensated"
	ClassVariable    Class = "variable"
	ClassNotCharging Class = "not charging"
	ClassNotSeen     Class = "not seen to vary" // steady, but the recording lacks what would show it
	ClassUnclear     Class = "cannot tell"
)

// Finding is something seen in a recording, and where.
type Finding struct {
	FromS float64 `json:"fromS"`
	ToS   float64 `json:"toS"`
	Text  string  `json:"text"`
}

// Judgement is what a recording says of the regulation.
type Judgement struct {
	Class    Class     `json:"class" enum:"fixed,compensated,variable,not charging,not seen to vary,cannot tell"`
	Sure     string    `json:"sure" enum:"clear,likely,open" doc:"How sure: nothing else explains it; it fits best; more is needed"`
	Why      string    `json:"why"`
	Findings []Finding `json:"findings" doc:"The evidence, in the order of time"`
	Missing  []string  `json:"missing" doc:"What to record, for the test to prove it"`
	Taken    []string  `json:"taken" doc:"What was done to the recording before it was judged"`
	MedianV  float64   `json:"medianV" doc:"While it charges, at 12 V"`
	LowV     float64   `json:"lowV" doc:"One reading in fifty was lower"`
	HighV    float64   `json:"highV" doc:"One reading in fifty was higher"`
	System   float64   `json:"system" doc:"12 or 24 V"`
	unturned bool      // by its own engine speed it never ran
	Curve    []Seen    `json:"curve" doc:"What was judged, at 12 V, drawn together to at most 360 stretches of time"`
}

func minutes(s float64) string {
	if s < 90 {
		return unit.Say("%.0f s", s)
	}
	return unit.Say("%.0f min", s/60)
}

func times(jumps int) string {
	if jumps == 1 {
		return unit.Say("a jump of %.1f V or more", jumpV)
	}
	return unit.Say("%d jumps of %.1f V or more", jumps, jumpV)
}

func (j *Judgement) decide(runs []Reading, low spell, jumps int, known bool) {
	spread := j.HighV - j.LowV
	change, about := fall(runs)
	whole := len(j.Missing) == 0
	end := runs[len(runs)-1].At
	set := func(class Class, sure, why string) { j.Class, j.Sure, j.Why = class, sure, why }
	switch {
	case j.still(runs):
		set(ClassUnclear, "open", unit.Say("Every reading with the engine running is %.2f V: no regulator holds that still. A held display, "+
			"a meter that was not connected, or an average reads so.", j.MedianV))
		j.Missing = append(j.Missing, "the same with a meter whose readings move by hundredths of a volt")
	case known && j.HighV < deadV:
		set(ClassNotCharging, "clear", unit.Say("With the engine running it never rises above %.1f V: the alternator does not charge.",
			j.HighV))
	case low.all > 0 && jumps > 0:
		set(ClassVariable, "clear", unit.Say("%s under %.1f V in all, and %s.", minutes(low.all), spellV, times(jumps)))
	case jumps > 0 && j.HighV > fixedHighV:
		set(ClassVariable, "likely", unit.Say("%s, up to %.1f V.", times(jumps), j.HighV))
	case low.all > 0 && low.idle == low.all:
		set(ClassUnclear, "open", unit.Say("It is under %.1f V at idle alone, and up to %.1f V otherwise. A loaded idle pulls a fixed one "+
			"low too.", spellV, j.HighV))
		j.Missing = append(j.Missing, "the same with lamps, blower and heaters off")
	case low.all > 0 && j.HighV > fixedLowV:
		set(ClassVariable, "likely", unit.Say("%s under %.1f V in all, and %.1f V at other times.", minutes(low.all), spellV, j.HighV))
	case low.all > 0:
		set(ClassUnclear, "open", unit.Say("It stays under %.1f V for %s and never comes above %.1f V: variable, loaded, or not charging "+
			"well.", spellV, minutes(low.all), j.HighV))
		j.Missing = append(j.Missing, "the same with lamps and blower off, and a charged start battery")
	case change < -slowFallV && about < fixedV && spread < 0.9:
		j.Findings = append(j.Findings, Finding{runs[0].At, end, unit.Say("a slow fall of %.2f V as it warms", -change)})
		if whole {
			set(ClassCompensated, "clear", unit.Say("It falls by %.2f V as it warms, steadily.", -change))
		} else {
			set(ClassNotSeen, "open", unit.Say("It falls slowly by %.2f V, as a temperature-compensated one does; the recording lacks what "+
				"would show a variable one.", -change))
		}
	case spread < fixedV && j.MedianV >= fixedLowV && j.MedianV <= fixedHighV:
		if whole {
			set(ClassFixed, "clear", unit.Say("It holds %.1f V within %.2f V across idle, cruise and lift-off.", j.MedianV, spread))
		} else {
			set(ClassNotSeen, "open", unit.Say("It holds %.1f V within %.2f V; the recording lacks what would show a variable one.", j.MedianV,
				spread))
		}
	case spread < 2*fixedV && j.MedianV >= fixedLowV-0.2:
		set(ClassNotSeen, "open", unit.Say("It spreads over %.2f V about %.1f V: more than a fixed one, less than a variable one.", spread,
			j.MedianV))
		j.Missing = append(j.Missing, "the same again, warm, with loads off")
	default:
		set(ClassUnclear, "open", unit.Say("It spreads over %.2f V about %.1f V without the marks of any kind.", spread, j.MedianV))
		j.Missing = append(j.Missing, "the same again with a warm engine, loads off and a charged start battery")
	}
	if j.HighV > 15.2 {
		j.Findings = append(j.Findings, Finding{runs[0].At, end, unit.Say("up to %.1f V: more than most lamps and electronics bear for long",
			j.HighV)})
	}
}

// still says whether the volts never move, as those of no running engine do.
func (j *Judgement) still(runs []Reading) bool {
	for _, x := range runs {
		if math.Abs(x.V-runs[0].V) >= stillV {
			return false
		}
	}
	return true
}

// Proves is the kind of regulation that a judgement proves; Unknown where it proves none.
func (j Judgement) Proves() Regulation {
	switch {
	case j.Class == ClassVariable:
		return Variable
	case j.Class == ClassFixed && j.Sure == "clear":
		return Fixed
	case j.Class == ClassCompensated && j.Sure == "clear":
		return Compensated
	}
	return Unknown
}
