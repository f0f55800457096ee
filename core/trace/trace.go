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

	nearMu sync.Mutex
	near   *Trace // by the last baseline that was told
	nearBy string
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

	when   fault.When // it is there
	always *suspect   // the same, always there; nil where it is that
	places []string   // that it is moved with
}

// step is a suspect of a size.
type step struct {
	wrong []prove.Sized
	near  [][2]int       // the steps on either side of it, of a fault's sizes each
	far   [][2]int       // … and of every other size, where those between are not worked out
	shown []prove.Shown  // by draw
	done  map[string]int // in how many draws it is worked out, by station
}

// Of is the trace of a design, worked out once.
func Of(d *design.Design) *Trace {
	return design.Kept(d, "trace", func(d *design.Design) *Trace {
		draws := []prove.Draw{}
		for k := range uint64(tries) {
			draws = append(draws, prove.Wider(d).Drawn(k))
		}
		return of(d, draws)
	})
}

func of(d *design.Design, draws []prove.Draw) *Trace {
	t := &Trace{d: d, proof: prove.Wider(d), draws: draws, at: map[string][]int{}, pairsKnown: map[string]*suspect{}}
	for i, r := range t.proof.Readings {
		t.at[r.Station] = append(t.at[r.Station], i)
	}
	t.list = append(t.list, t.suspect(soundPrior))
	faults, survey := fault.Of(d), surveyed(d)
	for _, f := range faults {
		t.list = append(t.list, t.suspect(usual(f)*survey.speaks(f), f))
	}
	for _, f := range fault.AtTimes(faults) {
		s := t.atTimes(f)
		if s.when != fault.ByHand || len(s.places) > 0 {
			t.list = append(t.list, s)
		}
	}
	return t
}

// suspect is one thing, or several, that may be wrong: each in its sizes, whatever the others'.
func (t *Trace) suspect(prior float64, wrong ...fault.Fault) *suspect {
	s := &suspect{wrong: wrong, prior: prior}
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
		s.steps[k].shown, s.steps[k].done = make([]prove.Shown, len(t.draws)), map[string]int{}
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
			for at, n := range before.near {
				f := before.far[at]
				next.near = append(next.near, [2]int{n[0] + k*len(steps), n[1] + k*len(steps)})
				next.far = append(next.far, [2]int{f[0] + k*len(steps), f[1] + k*len(steps)})
			}
			if each > 1 {
				beside := func(by int) [2]int { return [2]int{max(0, k-by)*len(steps) + i, min(each-1, k+by)*len(steps) + i} }
				next.near, next.far = append(next.near, beside(1)), append(next.far, beside(2))
			}
			list = append(list, next)
		}
	}
	return list
}

// standing is the same always there: what is worked out.
func (s *suspect) standing() *suspect {
	if s.always != nil {
		return s.always
	}
	return s
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

// depth is how closely a suspect is looked at: in how many draws, and in which of a single fault's sizes.
type depth struct {
	draws int
	every int
}

var (
	roughly = depth{fewTries, 2}
	closely = depth{tries, 1}
)

// has says whether a step of a suspect is looked at.
func (d depth) has(s *suspect, k int) bool { return len(s.wrong) != 1 || k%d.every == 0 }

// spokenFor are the sizes of a suspect that something speaks for, with their neighbours.
func spokenFor(p post) sizesOf {
	return func(k int) bool {
		for _, n := range []int{k - 1, k, k + 1} {
			if n >= 0 && n < len(p.sizes) && p.sizes[n] > leastHump {
				return true
			}
		}
		return false
	}
}

// work works out what a suspect comes to at some stations, in so many draws and some of its sizes.
func (t *Trace) work(s *suspect, stations map[string]bool, draws int, which sizesOf) {
	s = s.standing()
	trial := t.proof.Try(s.wrong...)
	for k := range s.steps {
		at := &s.steps[k]
		if !which(k) {
			continue
		}
		for i := range draws {
			todo := map[string]bool{}
			for station := range stations {
				if at.done[station] <= i && len(t.at[station]) > 0 {
					todo[station] = true
				}
			}
			if len(todo) == 0 {
				continue
			}
			got := trial.Takes(t.draws[i], at.wrong, todo)
			if at.shown[i].Values == nil {
				at.shown[i] = got
			}
			for station := range todo {
				for _, j := range t.at[station] {
					at.shown[i].Values[j], at.shown[i].Jumps[j] = got.Values[j], got.Jumps[j]
				}
				at.done[station] = i + 1
			}
		}
	}
}

// workAll works several out at some stations, so closely.
func (t *Trace) workAll(list []*suspect, stations map[string]bool, d depth) {
	which := map[*suspect][]sizesOf{}
	for _, s := range list {
		s = s.standing()
		which[s] = []sizesOf{func(k int) bool { return d.has(s, k) }}
	}
	t.atOnce(which, stations, d.draws)
}

// workSpokenFor works out everywhere what something speaks for.
func (t *Trace) workSpokenFor(posts []post) {
	which := map[*suspect][]sizesOf{}
	for _, p := range posts {
		s := p.standing()
		which[s] = append(which[s], spokenFor(p))
	}
	t.atOnce(which, everywhere(t), tries)
}

// sizesOf says which sizes of a suspect are meant.
type sizesOf func(k int) bool

// atOnce works several out on all processors, each by one of them alone.
func (t *Trace) atOnce(which map[*suspect][]sizesOf, stations map[string]bool, draws int) {
	var all sync.WaitGroup
	turn := make(chan *suspect)
	for range runtime.GOMAXPROCS(0) {
		all.Go(func() {
			for s := range turn {
				for _, of := range which[s] {
					t.work(s, stations, draws, of)
				}
			}
		})
	}
	for s := range which {
		turn <- s
	}
	close(turn)
	all.Wait()
}

// mean is what a reading comes to at a step, over the draws that come to a stand; ok is false where none does.
func (s step) mean(i, draws int) (mean float64, ok bool) {
	n := 0.0
	for _, at := range s.shown[:draws] {
		if at.Values != nil && !math.IsNaN(at.Values[i]) {
			mean, n = mean+at.Values[i], n+1
		}
	}
	return mean / n, n > 0
}

// jumps is the share of draws in which a reading comes to no stand; never quite none, nor all.
func (s step) jumps(i, draws int) float64 {
	jump, n := 0.5, 1.0
	for _, at := range s.shown[:draws] {
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
