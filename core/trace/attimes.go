package trace

import (
	"math"
	"slices"

	"epitrope/core/fault"
)

// A fault that comes and goes: how often it is one, of the same that stand; how often it is there when something is read; and how often
// moving its place brings it about. Source: from memory.
const (
	atTimesOften = 0.12
	thereOften   = 0.4
	movedShows   = 0.85
	jumpsOften   = 0.1 // it comes and goes while the meter is looked at
)

// atTimes is a fault that comes and goes.
func (t *Trace) atTimes(f fault.Fault) *suspect {
	standing := t.list[t.index(f.Standing().ID)]
	return &suspect{wrong: []fault.Fault{f}, prior: atTimesOften * standing.prior, steps: standing.steps, when: f.When,
		always: standing, places: t.proof.MovedWith(f)}
}

// shownBy is which suspect, in which step, a reading shows: what comes and goes is there or it is not.
func (t *Trace) shownBy(s *suspect, k, i int, there bool) (*suspect, int) {
	switch s.when {
	case fault.ByHeat:
		there = t.proof.Readings[i].IsWarm()
	case fault.Standing:
		return s, k
	}
	if there {
		return s.always, k
	}
	return t.list[0], 0
}

// wasThere says of a fault that comes and goes whether it was there at a reading, by what that came to; and how often it is so, with
// what the other way would have come to just as well.
func (t *Trace) wasThere(s *suspect, k int, r read, d depth) (there bool, often float64) {
	if s.when != fault.ByHand || r.jumps && !r.peak {
		return true, 1
	}
	density := func(there bool) float64 {
		of, step := t.shownBy(s, k, r.i, there)
		mean, spread, ok := of.loose(t, step, r.i, d)
		if !ok {
			return 0
		}
		off := (r.value - mean) / spread
		return math.Exp(-off*off/2) / spread
	}
	with, without := thereOften*density(true), (1-thereOften)*density(false)
	switch {
	case with == 0 && without == 0:
		return true, 1
	case with > without:
		return true, thereOften * (1 + without/with)
	}
	return false, (1 - thereOften) * (1 + with/without)
}

// loose is what a step comes to by itself, and how far that may be off.
func (s *suspect) loose(t *Trace, k, i int, d depth) (mean, spread float64, ok bool) {
	n, square, at := 0.0, 0.0, s.steps[k]
	for _, of := range at.shown[:d.draws] {
		if of.Values != nil && !math.IsNaN(of.Values[i]) {
			mean, square, n = mean+of.Values[i], square+of.Values[i]*of.Values[i], n+1
		}
	}
	if n == 0 {
		return 0, 0, false
	}
	mean /= n
	return mean, math.Sqrt(max(0, square/n-mean*mean) + t.own(i, mean)), true
}

// goes is how likely a reading comes to no stand with a suspect of a size.
func (t *Trace) goes(s *suspect, k, i int, there bool, d depth) float64 {
	of, step := t.shownBy(s, k, i, there)
	jumps := of.steps[step].jumps(i, d.draws)
	if s.when != fault.ByHand {
		return jumps
	}
	often := jumpsOften
	if moved := t.proof.Readings[i].Moved; moved != "" && slices.Contains(s.places, moved) {
		often = movedShows
	}
	return max(jumps, often)
}
