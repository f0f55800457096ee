package trace

import (
	"cmp"
	"math"
	"slices"

	"epitrope/core/fault"
)

// judge is the share of each suspect, and of what is not known here.
func (t *Trace) judge(eras []era) (posts []post, none float64) {
	now := eras[len(eras)-1]
	at := t.stationsOf(now)
	t.workAll(t.list, at, roughly)
	best := math.Inf(-1)
	for _, s := range t.list {
		posts = append(posts, t.weighed(s, now, roughly))
		best = max(best, posts[len(posts)-1].log)
	}
	t.workAll(t.list[:1], at, closely) // what comes and goes is as with nothing wrong at times
	t.closer(posts, best, now, at)
	anything := t.weigh(t.list[0], now, noneSlip, closely).log
	none = shareOut(posts, t.unknownOf(posts, anything, []era{now}))
	if none > pairsFrom || posts[0].share > pairsFrom {
		posts = append(posts, t.pairs(posts, now)...)
		none = shareOut(posts, t.unknownOf(posts, anything, []era{now}))
	}
	if len(eras) > 1 {
		none = t.before(posts, eras, anything)
	}
	slices.SortStableFunc(posts, func(a, b post) int { return cmp.Compare(ranked(b.share), ranked(a.share)) })
	return posts, none
}

// closer looks closely at those that are not much unlikelier than the best.
func (t *Trace) closer(posts []post, best float64, now era, at map[string]bool) {
	likely := []*suspect{}
	for _, p := range posts {
		if p.log > best-unlikely {
			likely = append(likely, p.suspect)
		}
	}
	t.workAll(likely, at, closely)
	for i, p := range posts {
		if p.log > best-unlikely {
			posts[i] = t.weighed(p.suspect, now, closely)
		}
	}
}

// unknownOf is how well something that is not known here explains what was seen: by anything at all, or in a part as the likeliest
// does, with nothing to be found where somebody looked.
func (t *Trace) unknownOf(posts []post, anything float64, eras []era) float64 {
	symptoms, byHand := 0, 0.0
	for _, e := range eras {
		symptoms += len(e.symptoms)
		byHand += t.list[0].handled(e)
	}
	best := posts[0]
	for _, p := range posts {
		if p.log > best.log {
			best = p
		}
	}
	return max(anything, best.freely-noneCost+byHand) + math.Log(nonePrior) + float64(symptoms)*math.Log(noneSeen)
}

// weighed is a suspect with how well it explains what was seen, and how often it is what is wrong.
func (t *Trace) weighed(s *suspect, now era, d depth) post {
	f := t.weigh(s, now, slipOften, d)
	f.log += math.Log(s.prior)
	for _, w := range s.wrong {
		f.log += math.Log(aged(w.Kind, now.years))
	}
	return post{s, 0, f, d}
}

// shareOut gives each suspect its share, beside what is not known here.
func shareOut(posts []post, unknown float64) (none float64) {
	top := unknown
	for _, p := range posts {
		top = max(top, p.log)
	}
	sum := math.Exp(unknown - top)
	none = sum
	for i := range posts {
		posts[i].share = math.Exp(posts[i].log - top)
		sum += posts[i].share
	}
	for i := range posts {
		posts[i].share /= sum
	}
	return none / sum
}

// weigh is how well a suspect explains what was seen in an era.
func (t *Trace) weigh(s *suspect, e era, slip float64, d depth) fit {
	f := t.explains(s, e.taken, slip, d)
	for _, y := range e.symptoms {
		sum := 0.0
		for k, w := range f.sizes {
			if w > 1e-6 {
				sum += w * t.complains(s, k, y, d)
			}
		}
		if slip < noneSlip { // what is not known may be complained of in any way
			f.log += math.Log(max(sum, 1e-3))
		}
	}
	f.log += s.handled(e) + t.felt(s, f.sizes, e, d)
	return f
}

// handled is how likely the looks and the tries of an era come out as they did, by its logarithm.
func (s *suspect) handled(e era) (sum float64) {
	for _, l := range e.looks {
		sum += math.Log(s.looked(l))
	}
	for _, w := range e.swaps {
		sum += math.Log(s.swapped(w))
	}
	return sum
}

// blows says whether a suspect blows the fuse whose being blown an id names.
func (s *suspect) blows(id string) bool {
	return slices.ContainsFunc(s.wrong, func(f fault.Fault) bool {
		return slices.ContainsFunc(f.Blows, func(fuse string) bool { return BlownAt(fuse) == id })
	})
}

// blewAgain is how much oftener what blows a fuse is wrong where that was changed and all is as it was. Source: from memory.
const blewAgain = 10.0

// before takes in what was seen before the last mend: with what was mended then.
func (t *Trace) before(posts []post, eras []era, anything float64) (none float64) {
	all := eras
	eras = eras[:len(eras)-1]
	for i, p := range posts {
		if p.share < 1e-4 {
			posts[i].log = math.Inf(-1)
			continue
		}
		for _, e := range eras {
			with, alone := slices.Clone(p.wrong), []*suspect{}
			for _, id := range e.with {
				at := t.index(id)
				switch {
				case at < 0 || slices.ContainsFunc(p.wrong, func(f fault.Fault) bool { return f.ID == id }):
				case p.blows(id):
					if id == e.with[0] { // one thing blew it, not two that happen to be wrong
						posts[i].log += math.Log(blewAgain)
					}
				case t.list[at].always != nil: // what comes and goes may have been all that was noticed
					alone = append(alone, t.list[at])
				default:
					with = append(with, t.list[at].wrong[0])
				}
			}
			f := fit{log: math.Inf(-1)}
			for _, s := range append(alone, t.together(with)) {
				t.workAll([]*suspect{s}, t.stationsOf(e), closely)
				if one := t.weigh(s, e, slipOften, closely); one.log > f.log {
					f = one
				}
			}
			posts[i].log, posts[i].freely = posts[i].log+f.log, posts[i].freely+f.freely
		}
	}
	for _, e := range eras {
		s := t.together(nil)
		t.workAll([]*suspect{s}, t.stationsOf(e), closely)
		anything += t.weigh(s, e, noneSlip, closely).log
	}
	return shareOut(posts, t.unknownOf(posts, anything, all))
}
