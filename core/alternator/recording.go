package alternator

import (
	"cmp"
	"epitrope/core/unit"
	"fmt"
	"math"
	"slices"
)

// Reading is a moment of a recording at the start battery. What was not recorded is NaN.
type Reading struct {
	At   float64 // s
	V    float64
	RPM  float64 // of the engine
	Kmh  float64
	Line int // of the file it came from
}

// Seen is a stretch of a recording.
type Seen struct {
	AtS  float64 `json:"atS"`
	Low  float64 `json:"low"`
	High float64 `json:"high"`
	RPM  float64 `json:"rpm,omitempty" doc:"The highest in it; left out where not recorded"`
}

// RecordingError is a recording that cannot be judged.
type RecordingError struct{ Why string }

func (e *RecordingError) Error() string { return e.Why }

// clean puts readings in order, finds their unit and system, and leaves glitches out.
func (j *Judgement) clean(readings []Reading) ([]Reading, error) {
	r := slices.DeleteFunc(slices.Clone(readings), func(x Reading) bool { return math.IsNaN(x.V) || math.IsNaN(x.At) })
	if len(r) < leastCount {
		few := fmt.Sprintf("%d readings with time and volts are too few", len(r))
		if len(r) == 1 {
			few = "one reading with time and volts is too few"
		}
		return nil, &RecordingError{few + "; record fifteen to twenty minutes, one a second or two"}
	}
	slices.SortStableFunc(r, func(a, b Reading) int { return cmp.Compare(a.At, b.At) })
	volts := make([]float64, len(r))
	for i := range r {
		volts[i] = r[i].V
	}
	slices.Sort(volts)
	scale, median := 1.0, volts[len(volts)/2]
	if median < 0 {
		scale, median = -1, -median
		j.Taken = append(j.Taken, "the volts are below zero, as with swapped leads: taken the other way round")
	}
	if median > 9000 && median < 32000 {
		scale *= 0.001
		j.Taken = append(j.Taken, "volts read as millivolts")
	}
	if volts := median * math.Abs(scale); volts > 19 && volts < 32 {
		scale, j.System = scale/2, 24
		j.Taken = append(j.Taken, "a 24 V system: all judged at half its volts")
	}
	kept, left, same := r[:0], 0, 0
	for _, x := range r {
		x.V *= scale
		if x.V < 5 || x.V > 18 {
			left++
			continue
		}
		if n := len(kept); n > 0 && x.At-kept[n-1].At < finestS {
			same++ // the same moment twice, or nearly
			continue
		}
		kept = append(kept, x)
	}
	if left > len(r)/5 {
		return nil, &RecordingError{fmt.Sprintf("%d of %d readings are no vehicle's voltage; are the volts in another column or unit?", left,
			len(r))}
	}
	if same > 0 {
		j.Taken = append(j.Taken, fmt.Sprintf("readings of a moment that was recorded already, %d: left out", same))
	}
	if left > 0 {
		j.Taken = append(j.Taken, fmt.Sprintf("%d readings left out: no vehicle's voltage", left))
	}
	if len(kept) < leastCount {
		return nil, &RecordingError{"too few readings are left"}
	}
	for i, x := range kept[1:] {
		if gap := x.At - kept[i].At; gap > gapS {
			j.Findings = append(j.Findings, Finding{kept[i].At, x.At, unit.Say("nothing recorded for %.0f s", gap)})
		}
	}
	return despike(kept), nil
}

// despike takes the median of each reading and its two neighbours on each side, so that
// one wrong reading is none.
func despike(r []Reading) []Reading {
	out := slices.Clone(r)
	var window [5]float64
	for i := 2; i < len(r)-2; i++ {
		for k := range window {
			window[k] = r[i-2+k].V
		}
		slices.Sort(window[:])
		out[i].V = window[2]
	}
	return out
}

// curve draws readings together, to be drawn.
func curve(r []Reading) []Seen {
	from := r[0].At
	step := (r[len(r)-1].At - from) / stretches
	var out []Seen
	last := -1
	for _, x := range r {
		at := min(int((x.At-from)/step), stretches-1)
		if at != last {
			out = append(out, Seen{AtS: unit.Round(x.At, 1), Low: math.Inf(1), High: math.Inf(-1)})
			last = at
		}
		s := &out[len(out)-1]
		s.Low, s.High = min(s.Low, unit.Round(x.V, 2)), max(s.High, unit.Round(x.V, 2))
		if x.RPM > s.RPM {
			s.RPM = math.Round(x.RPM)
		}
	}
	return out
}

// running are the readings with the engine running, but for its first minute. known says
// that engine speed tells; otherwise it is from the first charge to the end of the last.
func (j *Judgement) running(r []Reading) (runs []Reading, known bool) {
	for _, x := range r {
		known = known || !math.IsNaN(x.RPM)
	}
	if known && !slices.ContainsFunc(r, func(x Reading) bool { return x.RPM > runsRPM }) {
		j.unturned = true
		if known = !slices.ContainsFunc(r, func(x Reading) bool { return x.V > spellV }); known {
			return nil, true
		}
		j.Taken = append(j.Taken, "the engine speed stays at nought though it charges: that column is not taken")
		for i := range r {
			r[i].RPM = math.NaN()
		}
	}
	from, to := -1.0, -1.0
	for _, x := range r {
		on := x.V > spellV
		if known {
			on = x.RPM > runsRPM
		}
		if on {
			if from < 0 {
				from = x.At
			}
			to = x.At
		}
	}
	if from < 0 {
		return nil, known
	}
	for _, x := range r {
		if x.At >= from+warmS && x.At <= to && (!known || x.RPM > runsRPM || math.IsNaN(x.RPM)) {
			runs = append(runs, x)
		}
	}
	if !known {
		j.Taken = append(j.Taken, "engine speed was not recorded: it is taken to run from the first charge to the last")
	}
	return runs, known
}
