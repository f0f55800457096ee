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
	pairsOf    = 10
	besidesOf  = 6 // of so many that explain the most, so many are thought of beside each that explain what it leaves
	besides    = 10
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
	alone := []part{}
	for _, p := range posts {
		if len(p.wrong) != 1 || p.always != nil { // one that comes and goes is thought of alone
			continue
		}
		total += p.prior
		f := t.weigh(p.suspect, now, partly, p.at)
		p.slips = f.slips
		alone = append(alone, part{p, f.log + math.Log(p.prior)})
	}
	slices.SortStableFunc(alone, func(a, b part) int { return cmp.Compare(ranked(b.log), ranked(a.log)) })
	suspects := []*suspect{}
	add := func(a, b post) {
		if a.wrong[0].At == b.wrong[0].At {
			return
		}
		if t.index(b.wrong[0].ID) < t.index(a.wrong[0].ID) {
			a, b = b, a
		}
		s := t.together([]fault.Fault{a.wrong[0], b.wrong[0]})
		s.prior = pairsOften * a.prior * b.prior / total
		if !slices.Contains(suspects, s) {
			suspects = append(suspects, s)
		}
	}
	for i, a := range alone[:min(pairsOf, len(alone))] {
		for _, b := range alone[:i] {
			add(a.post, b.post)
		}
	}
	for _, a := range alone[:min(besidesOf, len(alone))] { // batteries and machine change what all else comes to
		for _, b := range alone {
			if b.wrong[0].World() {
				add(a.post, b.post)
			}
		}
	}
	for _, a := range alone[:min(besidesOf, len(alone))] { // what it leaves unexplained may be another's
		rest := era{symptoms: now.symptoms}
		for k, r := range now.taken {
			if a.slips[k] {
				rest.taken = append(rest.taken, r)
			}
		}
		if len(rest.taken) == 0 {
			continue
		}
		others := []part{}
		for _, b := range alone {
			others = append(others, part{b.post, t.weigh(b.suspect, rest, slipOften, b.at).log + math.Log(b.prior)})
		}
		slices.SortStableFunc(others, func(a, b part) int { return cmp.Compare(ranked(b.log), ranked(a.log)) })
		for _, b := range others[:min(besides, len(others))] {
			add(a.post, b.post)
		}
	}
	at, best := t.stationsOf(now), alone[0].log
	t.workAll(suspects, at, roughly)
	for _, s := range suspects {
		list = append(list, t.weighed(s, now, roughly))
		best = max(best, list[len(list)-1].log)
	}
	t.closer(list, best, now, at)
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
