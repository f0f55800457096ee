package trace

import (
	"cmp"
	"math"
	"slices"

	"epitrope/core/fault"
)

// When two faults at once are thought of: from which share of what is not known, or of nothing wrong; of how many that explain a
// part of what was seen; and how often there are two, to one. Source: from memory.
const (
	pairsFrom  = 0.2
	pairsOf    = 14
	pairsOften = 0.15
	partly     = 0.3 // a reading may be the other fault's
)

// pairs are the plausible pairs of faults: of those that each explain a part of what was seen.
func (t *Trace) pairs(posts []post, now era) (list []post) {
	if len(now.taken) == 0 {
		return nil
	}
	total := 0.0
	type part struct {
		post
		log float64
	}
	parts := []part{}
	for _, p := range posts {
		if len(p.wrong) != 1 || p.always != nil { // one that comes and goes is thought of alone
			continue
		}
		total += p.prior
		parts = append(parts, part{p, t.weigh(p.suspect, now, partly, p.at).log + math.Log(p.prior)})
	}
	slices.SortStableFunc(parts, func(a, b part) int { return cmp.Compare(ranked(b.log), ranked(a.log)) })
	parts = parts[:min(pairsOf, len(parts))]
	suspects := []*suspect{}
	for i, a := range parts {
		for _, b := range parts[:i] {
			if a.wrong[0].At == b.wrong[0].At {
				continue
			}
			s := t.together([]fault.Fault{b.wrong[0], a.wrong[0]})
			s.prior = pairsOften * a.prior * b.prior / total
			suspects = append(suspects, s)
		}
	}
	t.workAll(suspects, t.stationsOf(now), closely)
	for _, s := range suspects {
		list = append(list, t.weighed(s, now, closely))
	}
	return list
}

// together is several faults as one suspect, worked out once.
func (t *Trace) together(wrong []fault.Fault) *suspect {
	switch len(wrong) {
	case 0:
		return t.list[0]
	case 1:
		return t.list[t.index(wrong[0].ID)]
	}
	s := t.suspect(0, wrong...)
	if known, is := t.pairsKnown[s.id()]; is {
		return known
	}
	if len(t.pairsKnown) >= mostTogether {
		clear(t.pairsKnown)
	}
	t.pairsKnown[s.id()] = s
	return s
}

// mostTogether is how many of several faults are kept.
const mostTogether = 600
