package procedure

import (
	"cmp"
	"math"
	"slices"
	"strings"
)

// Done is a step that somebody ticked off on a past job.
type Done struct {
	Step    string
	By      string
	AtS     float64 // of whatever clock, the same for all of a job
	Minutes float64 // that it was thought to take
}

// Pace is how long a workshop takes over each kind of step against the usual times: 1 is as
// long, 2 twice as long.
type Pace map[string]float64

// A pace is taken from so many steps of a kind; a pause longer than longestMin is no work;
// it is kept within slowest and fastest. Source: common practice, no source.
const (
	fewest     = 5
	longestMin = 240.0
	slowest    = 4.0
	fastest    = 0.25
)

// kindOf is what kind of step an id names: lay, end, join, fit …
func kindOf(id string) string {
	kind, _, _ := strings.Cut(id, "-")
	return kind
}

// PaceOf learns a pace from the ticks of past jobs: what a person took from one tick to the
// next, as a share of what the step was thought to take; of each kind the middle of all.
func PaceOf(jobs ...[]Done) Pace {
	shares := map[string][]float64{}
	for _, list := range jobs {
		list = slices.Clone(list)
		slices.SortStableFunc(list, func(a, b Done) int { return cmp.Compare(a.AtS, b.AtS) })
		last := map[string]float64{}
		for _, d := range list {
			before, there := last[d.By]
			last[d.By] = d.AtS
			minutes := (d.AtS - before) / 60
			if there && minutes > 0.5 && minutes <= longestMin && d.Minutes > 0 {
				kind := kindOf(d.Step)
				shares[kind] = append(shares[kind], minutes/d.Minutes)
			}
		}
	}
	pace := Pace{}
	for kind, list := range shares {
		if len(list) < fewest {
			continue
		}
		slices.Sort(list)
		pace[kind] = math.Max(fastest, math.Min(slowest, list[len(list)/2]))
	}
	return pace
}

// At are the steps with the times of a pace; kinds that it does not know stay as they are.
func (p Pace) At(list []Step) []Step {
	out := slices.Clone(list)
	for i := range out {
		if share, ok := p[kindOf(out[i].ID)]; ok {
			out[i].Minutes = math.Round(out[i].Minutes * share)
		}
	}
	return out
}
