package study

import (
	"math"
	"slices"

	"epitrope/core/day"
	"epitrope/core/design"
	"epitrope/core/rig"
	"epitrope/core/unit"
)

// Window is a stretch of a run that is looked at closely, in s; the zero value is all
// of it.
type Window struct{ FromS, ToS float64 }

// keeper keeps the moments of a window that are worth showing: in every stretch of it the
// first, those at which a voltage or a current is highest or lowest, and the last before
// the engine or the coupling starts or stops; and the first and last of all.
type keeper struct {
	rig     *day.Rig
	columns []string
	read    func(volts, out []float64) []float64
	window  Window
	width   float64 // of a stretch, in s
	stretch int
	kept    []moment
	ends    [extremes]moment // of the stretch under way
	last    moment           // the newest frame; its grade is overwritten by the next
	any     bool
}

type moment struct {
	frame day.Frame
	grade []float64
}

func (m moment) copied() moment {
	m.grade = slices.Clone(m.grade)
	return m
}

// set makes it a copy of another in its own room.
func (m *moment) set(other moment) {
	m.frame, m.grade = other.frame, append(m.grade[:0], other.grade...)
}

// mostMoments is how many are kept where something switches all the time.
const mostMoments = 4 * shownMoments

// extremes of a stretch: the first, highest and lowest of bus voltage and aux current.
const extremes = 5

func newKeeper(d *design.Design, rigged *day.Rig, seconds float64, w Window) *keeper {
	columns, read := rig.Grade(d, rigged)
	if w.ToS <= w.FromS {
		w = Window{0, seconds}
	}
	return &keeper{rig: rigged, columns: columns, read: read, window: w, width: math.Max(1, (w.ToS-w.FromS)/(shownMoments/4))}
}

func (k *keeper) frame(f day.Frame) {
	before, had := k.last, k.last.grade != nil
	if f.T > k.window.ToS && before.frame.T > k.window.ToS {
		return
	}
	inside := f.T >= k.window.FromS
	turns := had && (f.Kind.Runs() != before.frame.Kind.Runs() || f.Joined != before.frame.Joined || f.Stage != before.frame.Stage)
	turns = turns && len(k.kept) < mostMoments
	if had && inside && (turns || before.frame.T < k.window.FromS) {
		k.push(before.copied())
	}
	k.last = moment{frame: f, grade: k.read(f.Volts(), before.grade[:0])}
	k.last.frame.Volts = nil
	if !inside {
		return
	}
	if at := int((f.T - k.window.FromS) / k.width); !k.any || at != k.stretch || turns {
		k.close()
		k.stretch, k.any = at, true
		for i := range k.ends {
			k.ends[i].set(k.last)
		}
		return
	}
	for i, more := range []bool{
		1: f.BusV > k.ends[1].frame.BusV, 2: f.BusV < k.ends[2].frame.BusV,
		3: f.AuxA > k.ends[3].frame.AuxA, 4: f.AuxA < k.ends[4].frame.AuxA,
	} {
		if more {
			k.ends[i].set(k.last)
		}
	}
}

// push keeps a moment that is later than those of the stretch under way, which it ends.
func (k *keeper) push(m moment) {
	k.close()
	k.any = false
	if n := len(k.kept); n == 0 || m.frame.T >= k.kept[n-1].frame.T {
		k.kept = append(k.kept, m)
	}
}

// close takes the stretch under way into what is kept, in the order of time.
func (k *keeper) close() {
	if !k.any {
		return
	}
	last := math.Inf(-1)
	for range extremes {
		best := -1
		for i, m := range k.ends {
			if m.frame.T > last && (best < 0 || m.frame.T < k.ends[best].frame.T) {
				best = i
			}
		}
		if best < 0 {
			return
		}
		last = k.ends[best].frame.T
		k.kept = append(k.kept, k.ends[best].copied())
	}
}

// series is what was kept, rounded to what it is worth.
func (k *keeper) series() Series {
	k.close()
	k.any = false
	if n := len(k.kept); n > 0 && k.last.frame.T > k.kept[n-1].frame.T {
		k.kept = append(k.kept, k.last.copied())
	}
	s := Series{T: []float64{}, Kind: []string{}, Stage: []string{}, Grade: [][]float64{}}
	lists := []struct {
		to     *[]float64
		of     func(day.Frame) float64
		digits int
	}{
		{&s.BusV, func(f day.Frame) float64 { return f.BusV }, 3}, {&s.InV, func(f day.Frame) float64 { return f.InV }, 3},
		{&s.OutV, func(f day.Frame) float64 { return f.OutV }, 3}, {&s.AuxV, func(f day.Frame) float64 { return f.AuxV }, 3},
		{&s.MachineA, func(f day.Frame) float64 { return f.MachineA }, 1}, {&s.StartA, func(f day.Frame) float64 { return f.StartA }, 1},
		{&s.AuxA, func(f day.Frame) float64 { return f.AuxA }, 1}, {&s.CoupleA, func(f day.Frame) float64 { return f.CoupleA }, 1},
		{&s.InA, func(f day.Frame) float64 { return f.InA }, 1}, {&s.SolarA, func(f day.Frame) float64 { return f.SolarA }, 1},
		{&s.StartSOC, func(f day.Frame) float64 { return 100 * f.StartSOC }, 1},
		{&s.AuxSOC, func(f day.Frame) float64 { return 100 * f.AuxSOC }, 1}, {&s.WindingC, func(f day.Frame) float64 { return f.WindingC }, 0},
		{&s.CaseC, func(f day.Frame) float64 { return f.CaseC }, 0}, {&s.CableC, func(f day.Frame) float64 { return f.CableC }, 0},
	}
	for _, l := range lists {
		*l.to = make([]float64, 0, len(k.kept))
	}
	for _, m := range k.kept {
		s.T = append(s.T, unit.Round(m.frame.T, 2))
		s.Kind = append(s.Kind, string(m.frame.Kind))
		s.Stage = append(s.Stage, stageOf(k.rig, m.frame))
		for _, l := range lists {
			*l.to = append(*l.to, finite(l.of(m.frame), l.digits))
		}
		grade := make([]float64, len(m.grade))
		for i, v := range m.grade {
			grade[i] = finite(v, 2)
		}
		s.Grade = append(s.Grade, grade)
	}
	return s
}
