package alternator

import (
	"cmp"
	"epitrope/core/unit"
	"math"
	"slices"
)

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
	stillV     = 0.01 // volts that move by less are not measured
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
	j.HighV = unit.Round(high, 2)
	if j.unturned {
		j.Class, j.Sure = ClassUnclear, "open"
		j.Why = "By its own column of engine speed the engine did not run."
		j.Missing = append(j.Missing, "the same with the engine running, or without that column where it is not the engine's")
		return *j
	}
	if high < spellV {
		j.Class, j.Sure = ClassNotCharging, "likely"
		j.Why = unit.Say("It never rises above %.1f V: the alternator does not charge, or the engine did not run.", high)
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
	j.MedianV, j.LowV, j.HighV = unit.Round(at(0.5), 2), unit.Round(at(0.02), 2), unit.Round(at(0.98), 2)
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
			j.Findings = append(j.Findings, Finding{runs[i].At, runs[k-1].At, unit.Say("%.0f s under %.1f V with the engine running%s", long,
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
			j.Findings = append(j.Findings, Finding{x.At, runs[top].At, unit.Say("a jump from %.1f to %.1f V", x.V, runs[top].V)})
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
		j.Missing = append(j.Missing, unit.Say("fifteen to twenty minutes: there are %.0f min with the engine running", c.seconds/60))
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
