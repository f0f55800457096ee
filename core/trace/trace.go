// Package trace is tracing a fault: from what somebody complains of, and what was measured and looked at, to what is wrong,
// by the tests that tell most for the minutes that they take.
//
// Everything that may be wrong is put into the installation and solved in the states in which something was seen; belief is
// what is left of it. What nobody has thought of may be wrong as well: where nothing known explains what was seen, that is
// the answer.
package trace

import (
	"math"
	"runtime"
	"slices"
	"sync"

	"epitrope/core/design"
	"epitrope/core/fault"
	"epitrope/core/prove"
)

// Trace is what may be wrong with an installation.
type Trace struct {
	d     *design.Design
	proof *prove.Proof
	draws []prove.Draw
	list  []*suspect       // the first is that nothing is wrong
	at    map[string][]int // the readings of each station

	mu         sync.Mutex
	pairsKnown map[string]*suspect
}

// tries are in how many draws of the installation each fault is tried, and in how few at first: one that is then unlikelier than
// the likeliest by so much, in natural logarithms, is tried no further. sizes are in how many sizes, alone and beside another
// that has a size.
const (
	tries         = 8
	fewTries      = 3
	unlikely      = 12.0
	sizes         = 9
	sizesTogether = 4
)

// suspect is something that may be wrong, alone or with another: what each reading comes to with it, by size and draw.
type suspect struct {
	wrong []fault.Fault // none: nothing is wrong
	prior float64       // not yet one in all
	steps []step
	done  map[string]int // in how many draws it is worked out, by station
}

// step is a suspect of a size.
type step struct {
	wrong []prove.Sized
	near  [][2]int      // the steps on either side of it, of a fault's sizes each
	shown []prove.Shown // by draw
}

// Of is the trace of a design, worked out once.
func Of(d *design.Design) *Trace { return design.Kept(d, "trace", of) }

func of(d *design.Design) *Trace {
	t := &Trace{d: d, proof: prove.Wider(d), at: map[string][]int{}, pairsKnown: map[string]*suspect{}}
	for k := range uint64(tries) {
		t.draws = append(t.draws, t.proof.Drawn(k))
	}
	for i, r := range t.proof.Readings {
		t.at[r.Station] = append(t.at[r.Station], i)
	}
	t.list = append(t.list, t.suspect(soundPrior))
	faults := fault.Of(d)
	for _, f := range faults {
		t.list = append(t.list, t.suspect(usual(f), f))
	}
	return t
}

// suspect is one thing, or several, that may be wrong: each in its sizes, whatever the others'.
func (t *Trace) suspect(prior float64, wrong ...fault.Fault) *suspect {
	s := &suspect{wrong: wrong, prior: prior, done: map[string]int{}}
	each, sized := sizes, 0
	for _, f := range wrong {
		if f.Least > 0 {
			sized++
		}
	}
	if sized > 1 {
		each = max(2, sizesTogether+2-sized)
	}
	s.steps = []step{{}}
	for _, f := range wrong {
		s.steps = spread(s.steps, f, each)
	}
	for k := range s.steps {
		s.steps[k].shown = make([]prove.Shown, len(t.draws))
	}
	return s
}

// spread puts a fault in each of its sizes to each of some steps.
func spread(steps []step, f fault.Fault, each int) (list []step) {
	if f.Least <= 0 {
		each = 1
	}
	for k := range each {
		share := (float64(k) + 0.5) / float64(each)
		for i, before := range steps {
			next := step{wrong: append(slices.Clip(before.wrong), prove.Sized{Fault: f, Size: f.Size(share)})}
			for _, n := range before.near {
				next.near = append(next.near, [2]int{n[0] + k*len(steps), n[1] + k*len(steps)})
			}
			if low, high := max(0, k-1), min(each-1, k+1); high > low {
				next.near = append(next.near, [2]int{low*len(steps) + i, high*len(steps) + i})
			}
			list = append(list, next)
		}
	}
	return list
}

// id names a suspect: its faults, or nothing where nothing is wrong.
func (s *suspect) id() string {
	name := ""
	for i, f := range s.wrong {
		if i > 0 {
			name += " + "
		}
		name += f.ID
	}
	return name
}

// work works out what a suspect comes to at some stations, in so many draws.
func (t *Trace) work(s *suspect, stations map[string]bool, draws int) {
	for i := range draws {
		todo := map[string]bool{}
		for station := range stations {
			if s.done[station] <= i && len(t.at[station]) > 0 {
				todo[station] = true
			}
		}
		if len(todo) == 0 {
			continue
		}
		for k := range s.steps {
			at, got := &s.steps[k].shown[i], t.proof.Takes(t.draws[i], s.steps[k].wrong, todo)
			if at.Values == nil {
				*at = got
				continue
			}
			for station := range todo {
				for _, j := range t.at[station] {
					at.Values[j], at.Jumps[j] = got.Values[j], got.Jumps[j]
				}
			}
		}
		for station := range todo {
			s.done[station] = i + 1
		}
	}
}

// workAll works several out, on all processors.
func (t *Trace) workAll(list []*suspect, stations map[string]bool, draws int) {
	var all sync.WaitGroup
	turn := make(chan *suspect)
	for range runtime.GOMAXPROCS(0) {
		all.Go(func() {
			for s := range turn {
				t.work(s, stations, draws)
			}
		})
	}
	for _, s := range list {
		turn <- s
	}
	close(turn)
	all.Wait()
}

// mean is what a reading comes to at a step, over the draws that come to a stand; ok is false where none does.
func (s step) mean(i int) (mean float64, ok bool) {
	n := 0.0
	for _, at := range s.shown {
		if at.Values != nil && !math.IsNaN(at.Values[i]) {
			mean, n = mean+at.Values[i], n+1
		}
	}
	return mean / n, n > 0
}

// jumps is the share of draws in which a reading comes to no stand; never quite none, nor all.
func (s step) jumps(i int) float64 {
	jump, n := 0.5, 1.0
	for _, at := range s.shown {
		if at.Values == nil || math.IsNaN(at.Values[i]) && !at.Jumps[i] {
			continue
		}
		if n++; at.Jumps[i] {
			jump++
		}
	}
	return jump / n
}

// Reading finds a reading that a test may ask for; ok is false where there is none such.
func (t *Trace) Reading(id string) (prove.Reading, bool) { return t.proof.Reading(id) }

// Readings are the readings that a test may ask for.
func (t *Trace) Readings() []prove.Reading { return t.proof.Readings }
