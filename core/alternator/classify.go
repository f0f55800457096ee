package alternator

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"epitrope/core/working"
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
	Curve    []Seen    `json:"curve" doc:"What was judged, at 12 V, drawn together to at most 360 stretches of time"`
}

// What a test looks for, at 12 V. Source: common practice, no source: fixed settles
// 13.8–14.7 V, spread under 0.2 V; variable shows sustained spells under about 13.2 V
// with the engine running, or jumps of 0.8 V or more on lift-off, up to about 15 V;
// fifteen to twenty minutes across idle, cruise and lift-off.
const (
	spellV     = 13.2
	spellS     = 30.0
	jumpV      = 0.8
	jumpS      = 8.0
	fixedLowV  = 13.8
	fixedHighV = 14.7
	fixedV     = 0.2
	slowFallV  = 0.15 // over the recording, for a temperature-compensated one
	testS      = 12 * 60.0
	warmS      = 60.0 // after the start a voltage means nothing yet
	idleShareS = 60.0
	cruiseS    = 180.0
	idleRPM    = 1000.0
	runsRPM    = 400.0
	cruiseRPM  = 1500.0
	cruiseKmh  = 50.0
	deadV      = 13.0
	gapS       = 30.0
	finestS    = 0.05 // between readings
	leastCount = 20
	stretches  = 360
)

// Classify judges a recording of the start battery's voltage with the engine running: how
// its alternator is regulated, how sure that is, and what would make it surer. Readings
// stand in any order. It returns *RecordingError for what is no such recording.
//
// Source: common practice, no source (the thresholds above).
func Classify(readings []Reading) (Judgement, error) {
	j := Judgement{Findings: []Finding{}, Missing: []string{}, Taken: []string{}, System: 12, Curve: []Seen{}}
	r, err := j.clean(readings)
	if err != nil {
		return j, err
	}
	j.Curve = curve(r)
	runs, known := j.running(r)
	if len(runs) < leastCount {
		return j.dead(r, known), nil
	}
	j.measure(runs)
	spells, jumps := j.spells(runs), j.jumps(runs)
	j.cover(runs, known)
	j.decide(runs, spells, jumps, known)
	slices.SortStableFunc(j.Findings, func(a, b Finding) int { return cmp.Compare(a.FromS, b.FromS) })
	return j, nil
}

// dead judges a recording without charge.
func (j *Judgement) dead(r []Reading, known bool) Judgement {
	high := r[0].V
	for _, x := range r {
		high = math.Max(high, x.V)
	}
	j.HighV = working.Round(high, 2)
	if high < spellV {
		j.Class, j.Sure = ClassNotCharging, "likely"
		j.Why = fmt.Sprintf("It never rises above %.1f V: the alternator does not charge, or the engine did not run.", high)
		if !known {
			j.Missing = append(j.Missing, "engine speed, or a note that the engine ran")
		}
		return *j
	}
	j.Class, j.Sure = ClassUnclear, "open"
	j.Why = "There is too little of it with the engine running."
	j.Missing = append(j.Missing, "fifteen to twenty minutes with the engine running")
	return *j
}

func (j *Judgement) measure(runs []Reading) {
	volts := make([]float64, len(runs))
	for i := range runs {
		volts[i] = runs[i].V
	}
	slices.Sort(volts)
	at := func(share float64) float64 { return volts[int(share*float64(len(volts)-1))] }
	j.MedianV, j.LowV, j.HighV = working.Round(at(0.5), 2), working.Round(at(0.02), 2), working.Round(at(0.98), 2)
}

// spell is the sustained time under the voltage of a charge, and how much of it was at
// idle, in s.
type spell struct{ all, idle float64 }

func (j *Judgement) spells(runs []Reading) (sum spell) {
	for i := 0; i < len(runs); {
		k := i
		for k < len(runs) && runs[k].V < spellV && (k == i || runs[k].At-runs[k-1].At < gapS) {
			k++
		}
		if k == i {
			i++
			continue
		}
		if long := runs[k-1].At - runs[i].At; long >= spellS {
			sum.all += long
			where := ""
			if runs[(i+k)/2].RPM < idleRPM {
				sum.idle += long
				where = ", at idle"
			}
			j.Findings = append(j.Findings, Finding{runs[i].At, runs[k-1].At, fmt.Sprintf("%.0f s under %.1f V with the engine running%s", long,
				spellV, where)})
		}
		i = k
	}
	return sum
}

// jumps counts quick rises, as on lift-off. One from idle tells nothing: the engine only
// turns faster.
func (j *Judgement) jumps(runs []Reading) (count int) {
	const shown = 6
	until := math.Inf(-1)
	for i, x := range runs {
		if x.At <= until || x.V <= 12 || x.RPM < idleRPM {
			continue
		}
		top := i
		for k := i + 1; k < len(runs) && runs[k].At-x.At <= jumpS; k++ {
			if runs[k].V > runs[top].V {
				top = k
			}
		}
		if runs[top].V-x.V < jumpV || runs[top].V-runs[min(i+1, top)].V >= jumpV {
			continue // not yet, or better told from the next reading on
		}
		count++
		until = runs[top].At + jumpS
		if count <= shown {
			j.Findings = append(j.Findings, Finding{x.At, runs[top].At, fmt.Sprintf("a jump from %.1f to %.1f V", x.V, runs[top].V)})
		}
	}
	return count
}

// coverage is what of a test a recording has; each is false where it cannot be seen.
type coverage struct {
	seconds            float64
	idle, cruise, lift bool
}

// cover names what of a test is missing.
func (j *Judgement) cover(runs []Reading, known bool) {
	var c coverage
	idleS, cruisedS := 0.0, 0.0
	for i, x := range runs[1:] {
		before := runs[i]
		long := x.At - before.At
		if long > gapS {
			continue
		}
		c.seconds += long
		if before.RPM < idleRPM || before.Kmh < 2 {
			idleS += long
		}
		if before.RPM > cruiseRPM || before.Kmh > cruiseKmh {
			cruisedS += long
		}
		if before.RPM-x.RPM > 150*long && before.RPM > cruiseRPM || before.Kmh-x.Kmh > 1.4*long && before.Kmh > 20 {
			c.lift = true
		}
	}
	c.idle, c.cruise = idleS >= idleShareS, cruisedS >= cruiseS
	if c.seconds < testS {
		j.Missing = append(j.Missing, fmt.Sprintf("fifteen to twenty minutes: there are %.0f min with the engine running", c.seconds/60))
	}
	speeds := known || slices.ContainsFunc(runs, func(x Reading) bool { return !math.IsNaN(x.Kmh) })
	if !speeds {
		j.Missing = append(j.Missing, "engine speed or road speed, to show that idle, cruise and lift-off are in it")
		return
	}
	for _, m := range []struct {
		have bool
		what string
	}{{c.idle, "a minute of idle"}, {c.cruise, "three minutes of cruise"}, {c.lift, "lift-off: a roll in gear"}} {
		if !m.have {
			j.Missing = append(j.Missing, m.what)
		}
	}
}

// fall is the slow change of the voltage over a recording, in V, and what is left about
// it, by least squares.
func fall(runs []Reading) (change, about float64) {
	n := float64(len(runs))
	var st, sv, stt, stv float64
	t0 := runs[0].At
	for _, x := range runs {
		t := x.At - t0
		st, sv, stt, stv = st+t, sv+x.V, stt+t*t, stv+t*x.V
	}
	slope := (n*stv - st*sv) / (n*stt - st*st)
	mean := (sv - slope*st) / n
	left := make([]float64, len(runs))
	for i, x := range runs {
		left[i] = math.Abs(x.V - mean - slope*(x.At-t0))
	}
	slices.Sort(left)
	return slope * (runs[len(runs)-1].At - t0), left[int(0.95*(n-1))]
}

func minutes(s float64) string {
	if s < 90 {
		return fmt.Sprintf("%.0f s", s)
	}
	return fmt.Sprintf("%.0f min", s/60)
}

func times(jumps int) string {
	if jumps == 1 {
		return fmt.Sprintf("a jump of %.1f V or more", jumpV)
	}
	return fmt.Sprintf("%d jumps of %.1f V or more", jumps, jumpV)
}

func (j *Judgement) decide(runs []Reading, low spell, jumps int, known bool) {
	spread := j.HighV - j.LowV
	change, about := fall(runs)
	whole := len(j.Missing) == 0
	end := runs[len(runs)-1].At
	set := func(class Class, sure, why string) { j.Class, j.Sure, j.Why = class, sure, why }
	switch {
	case known && j.HighV < deadV:
		set(ClassNotCharging, "clear", fmt.Sprintf("With the engine running it never rises above %.1f V: the alternator does not charge.",
			j.HighV))
	case low.all > 0 && jumps > 0:
		set(ClassVariable, "clear", fmt.Sprintf("%s under %.1f V in all, and %s.", minutes(low.all), spellV, times(jumps)))
	case jumps > 0 && j.HighV > fixedHighV:
		set(ClassVariable, "likely", fmt.Sprintf("%s, up to %.1f V.", times(jumps), j.HighV))
	case low.all > 0 && low.idle == low.all:
		set(ClassUnclear, "open", fmt.Sprintf("It is under %.1f V at idle alone, and up to %.1f V otherwise. A loaded idle pulls a fixed one "+
			"low too.", spellV, j.HighV))
		j.Missing = append(j.Missing, "the same with lamps, blower and heaters off")
	case low.all > 0 && j.HighV > fixedLowV:
		set(ClassVariable, "likely", fmt.Sprintf("%s under %.1f V in all, and %.1f V at other times.", minutes(low.all), spellV, j.HighV))
	case low.all > 0:
		set(ClassUnclear, "open", fmt.Sprintf("It stays under %.1f V for %s and never comes above %.1f V: variable, loaded, or not charging "+
			"well.", spellV, minutes(low.all), j.HighV))
		j.Missing = append(j.Missing, "the same with lamps and blower off, and a charged start battery")
	case change < -slowFallV && about < fixedV && spread < 0.9:
		j.Findings = append(j.Findings, Finding{runs[0].At, end, fmt.Sprintf("a slow fall of %.2f V as it warms", -change)})
		if whole {
			set(ClassCompensated, "clear", fmt.Sprintf("It falls by %.2f V as it warms, steadily.", -change))
		} else {
			set(ClassNotSeen, "open", fmt.Sprintf("It falls slowly by %.2f V, as a temperature-compensated one does; the recording lacks what "+
				"would show a variable one.", -change))
		}
	case spread < fixedV && j.MedianV >= fixedLowV && j.MedianV <= fixedHighV:
		if whole {
			set(ClassFixed, "clear", fmt.Sprintf("It holds %.1f V within %.2f V across idle, cruise and lift-off.", j.MedianV, spread))
		} else {
			set(ClassNotSeen, "open", fmt.Sprintf("It holds %.1f V within %.2f V; the recording lacks what would show a variable one.", j.MedianV,
				spread))
		}
	case spread < 2*fixedV && j.MedianV >= fixedLowV-0.2:
		set(ClassNotSeen, "open", fmt.Sprintf("It spreads over %.2f V about %.1f V: more than a fixed one, less than a variable one.", spread,
			j.MedianV))
		j.Missing = append(j.Missing, "the same again, warm, with loads off")
	default:
		set(ClassUnclear, "open", fmt.Sprintf("It spreads over %.2f V about %.1f V without the marks of any kind.", spread, j.MedianV))
		j.Missing = append(j.Missing, "the same again with a warm engine, loads off and a charged start battery")
	}
	if j.HighV > 15.2 {
		j.Findings = append(j.Findings, Finding{runs[0].At, end, fmt.Sprintf("up to %.1f V: more than most lamps and electronics bear for long",
			j.HighV)})
	}
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
