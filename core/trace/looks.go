package trace

import (
	"slices"
	"strings"

	"epitrope/core/fault"
)

// looking is a look at a part, with what it may come to.
type looking struct {
	test    NextTest
	parcels []parcel
}

// mostLooks is how often a place is looked at, where something goes on speaking for it.
const mostLooks = 2

// lookedAt is how often a place was looked at, in vain.
func (e era) lookedAt(at string) (times int) {
	for _, l := range e.looks {
		if l.at == at {
			times++
		}
	}
	return times
}

// lookedAt are the looks at the parts and wires that something may be wrong with.
func (t *Trace) lookedAt(groups []group, now era, none float64) (list []looking) {
	places := []string{}
	for _, g := range groups {
		for _, p := range append([]post{g.post}, g.same...) {
			for _, f := range p.wrong {
				if !slices.Contains(places, f.At) && now.lookedAt(f.At) < mostLooks {
					places = append(places, f.At)
				}
			}
		}
	}
	for _, at := range places {
		found, well := parcel{by: make([]float64, len(groups)+1)}, parcel{by: make([]float64, len(groups)+1)}
		found.by[len(groups)], well.by[len(groups)] = none*foundWrong, none*(1-foundWrong)
		l, names := looking{test: NextTest{ID: at, Look: true, What: t.Called(at), Setup: []string{}, Means: []TestOutcome{}}}, []string{}
		for k, g := range groups {
			for _, p := range g.parts() {
				seen := foundWrong
				for _, f := range p.wrong {
					if slices.Contains(f.Blows, at) {
						seen = traits[fault.Blown].seen
					}
					if f.At == at {
						trait := traits[f.Kind]
						seen = trait.seen
						l.test.Minutes = max(l.test.Minutes, trait.minutes)
						if text := trait.look; !slices.Contains(names, text) {
							names = append(names, text)
						}
					}
				}
				found.by[k] += p.share * seen
				well.by[k] += p.share * (1 - seen)
			}
		}
		l.test.Where = strings.Join(names, "; ")
		l.parcels = []parcel{found, well}
		list = append(list, l)
	}
	return list
}

// BlownAt is the id of a fuse's being blown.
func BlownAt(fuse string) string { return string(fault.Blown) + " " + fuse }

// foundWrong is how often a look finds a fault that is not there. Source: from memory.
const foundWrong = 0.02

// looked is how likely a look at a part comes out as it did.
func (s *suspect) looked(l look) float64 {
	out := 1.0
	there := false
	for _, f := range s.wrong {
		if slices.Contains(f.Blows, l.at) { // its fuse is found blown, whatever blew it
			f = fault.Fault{ID: BlownAt(l.at), Kind: fault.Blown, At: l.at}
		}
		if f.At != l.at {
			continue
		}
		there = true
		seen := traits[f.Kind].seen
		switch l.found {
		case f.ID, f.Standing().ID:
			return seen
		case "":
			out *= 1 - seen
		}
	}
	switch {
	case l.found == "" && !there:
		return 1 - foundWrong
	case l.found == "":
		return out
	}
	return foundWrong / 4
}
