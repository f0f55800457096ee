package trace

import (
	"slices"

	"epitrope/core/system"
)

// swap is a part that another, known to be good, was put in place of for a try.
type swap struct {
	at     string
	helped bool
}

// How surely a try with another part shows that the old one was at fault; and how often it helps although it was not, as a plug or a
// lug was moved. Source: from memory.
const (
	swapShows = 0.95
	swapMoves = 0.04
)

// swapMinutes is how long it takes to try another part in a part's place; 0 where nobody does. Source: from memory.
func (t *Trace) swapMinutes(id string) float64 {
	c, there := t.d.System.Component(id)
	if !there {
		return 0
	}
	switch c.Device.(type) {
	case system.Fuse:
		return 3
	case system.Contact, system.Control:
		return 12
	case system.Charger:
		return 30
	}
	return 0
}

// swaps are the tries with another part where something may be wrong, with what they may come to.
func (t *Trace) swaps(groups []group, now era, none float64) (list []looking) {
	if len(now.taken)+len(now.looks) == 0 {
		return nil // nobody changes parts on a complaint alone
	}
	places := []string{}
	for _, g := range groups {
		for _, f := range g.wrong {
			tried := slices.ContainsFunc(now.swaps, func(w swap) bool { return w.at == f.At })
			if !tried && !slices.Contains(places, f.At) && t.swapMinutes(f.At) > 0 {
				places = append(places, f.At)
			}
		}
	}
	for _, at := range places {
		helps, stays := parcel{by: make([]float64, len(groups)+1)}, parcel{by: make([]float64, len(groups)+1)}
		helps.by[len(groups)], stays.by[len(groups)] = none*swapMoves, none*(1-swapMoves)
		for k, g := range groups {
			for _, p := range g.parts() {
				gone := p.swapped(swap{at, true})
				helps.by[k] += p.share * gone
				stays.by[k] += p.share * (1 - gone)
			}
		}
		list = append(list, looking{NextTest{ID: at, Swap: true, What: t.Called(at), Minutes: t.swapMinutes(at), Setup: []string{},
			Where: "another one that is known to be good, of the same rating, in its place for a try", Means: []TestOutcome{}},
			[]parcel{helps, stays}})
	}
	return list
}

// swapped is how likely a try with another part comes out as it did: what is wrong inside of the part is gone with it.
func (s *suspect) swapped(w swap) float64 {
	gone := swapMoves
	if len(s.wrong) == 1 && s.wrong[0].At == w.at { // of two, the other one stays
		gone = swapShows
	}
	if w.helped {
		return gone
	}
	return 1 - gone
}
