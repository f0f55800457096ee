package trace

import (
	"cmp"
	"math"
	"slices"

	"epitrope/core/fault"
	"epitrope/core/unit"
)

// Suspect is something that may be wrong, with how much speaks for it.
type Suspect struct {
	ID        string   `json:"id" doc:"The faults that it is made of"`
	Faults    []string `json:"faults" doc:"… by their ids"`
	Says      string   `json:"says"`
	Or        []string `json:"or" doc:"What no test that is left tells from it"`
	Same      []string `json:"same" doc:"… by their ids"`
	Places    []string `json:"places" doc:"The parts and wires that all of these are at"`
	Share     float64  `json:"share" doc:"How likely it is that this is wrong, alone or beside another: 0 to 1"`
	Endangers string   `json:"endangers,omitempty"`
	Look      string   `json:"look" doc:"How it is looked at"`
	Mend      string   `json:"mend"`
	Minutes   float64  `json:"minutes" doc:"To look at it"`
	Proves    []string `json:"proves" doc:"The readings that prove its mend, by id, the clearest first"`
}

// Belief is what may be wrong, by all that was seen.
type Belief struct {
	Suspects []Suspect  `json:"suspects" doc:"Likeliest first"`
	Sound    float64    `json:"sound" doc:"The share of there being nothing wrong"`
	None     float64    `json:"none" doc:"The share of it being something that is not known here"`
	Doubted  []string   `json:"doubted" doc:"Readings that are more likely slips than not, by id: take them again"`
	Problems []Unusable `json:"problems" doc:"What of the evidence cannot be used"`
	Next     []NextTest `json:"next" doc:"Tests, the best first; none where a look at the first suspect costs less"`
	Act      string     `json:"act,omitempty" doc:"The suspect to look at now: measuring further costs more"`
}

// post is a suspect with its share.
type post struct {
	*suspect
	share float64
	fit
	at depth // … it was looked at so closely
}

// What is not known here: how many readings are anything at all, and the others as with nothing wrong; how often it is complained of
// in any one way; and by how much, in natural logarithms, what is known has to explain what was seen worse than what it would
// explain well, for what is not known to be as likely. Source: from memory, and tried.
const (
	noneSlip = 0.5
	noneSeen = 0.15
	noneCost = 8.0
)

// shown are how many suspects are named, and how much of all they must have.
const (
	mostShown  = 6
	leastShown = 0.01
)

// Believe is what may be wrong, by all that was seen.
func (t *Trace) Believe(e Evidence) Belief {
	nearer, unread := t.nearer(e.Baseline)
	if nearer != t {
		e.Baseline = nil
		b := nearer.Believe(e)
		b.Problems = append(unread, b.Problems...)
		return b
	}
	t.mu.Lock() // what is worked out once is shared
	defer t.mu.Unlock()
	eras, wrong := t.eras(e)
	wrong = append(unread, wrong...)
	posts, none := t.judge(eras)
	b := Belief{Suspects: []Suspect{}, Doubted: []string{}, Problems: wrong, Next: []NextTest{}, None: none}
	if wrong == nil {
		b.Problems = []Unusable{}
	}
	now := eras[len(eras)-1]
	b.Sound = soundOf(posts)
	for _, g := range t.grouped(t.each(posts)) {
		if len(b.Suspects) < mostShown && g.share >= leastShown {
			b.Suspects = append(b.Suspects, t.says(g))
		}
	}
	for a, r := range now.taken {
		doubt := 0.0
		for _, p := range posts {
			if a < len(p.slips) && p.slips[a] {
				doubt += p.share
			}
		}
		if doubt > 0.5 {
			b.Doubted = append(b.Doubted, t.proof.Readings[r.i].ID)
		}
	}
	b.Next, b.Act = t.next(posts, now, b)
	b.None, b.Sound = told(b.None), told(b.Sound)
	for i := range b.Suspects {
		b.Suspects[i].Share = told(b.Suspects[i].Share)
	}
	return b
}

// soundOf is the share of there being nothing wrong.
func soundOf(posts []post) (share float64) {
	for _, p := range posts {
		if len(p.wrong) == 0 {
			share += p.share
		}
	}
	return share
}

// ranked is a figure as far as it decides an order: what is equal but for the last bits, which differ from machine to machine, keeps
// the order in which it stands.
func ranked(of float64) float64 { return math.Round(of*1e4) / 1e4 }

// told is a share as far as it is told: no finer than such shares are.
func told(share float64) float64 { return math.Round(100*share) / 100 }

// each is each fault by itself, alone or beside another: how likely it is that this is wrong.
func (t *Trace) each(posts []post) (list []post) {
	shares := map[string]float64{}
	for _, p := range posts {
		for _, f := range p.wrong {
			shares[f.ID] += p.share
		}
	}
	for _, p := range posts {
		if len(p.wrong) == 1 {
			p.share = shares[p.wrong[0].ID]
			list = append(list, p)
		}
	}
	slices.SortStableFunc(list, func(a, b post) int { return cmp.Compare(ranked(b.share), ranked(a.share)) })
	return list
}

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
	likely := []*suspect{t.list[0]}
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
	anything := t.weigh(t.list[0], now, noneSlip, closely).log
	unknown := unknownOf(posts, anything, len(now.symptoms))
	none = shareOut(posts, unknown)
	if none > pairsFrom || posts[0].share > pairsFrom {
		posts = append(posts, t.pairs(posts, now)...)
		none = shareOut(posts, unknown)
	}
	if len(eras) > 1 {
		none = t.before(posts, eras, anything)
	}
	slices.SortStableFunc(posts, func(a, b post) int { return cmp.Compare(ranked(b.share), ranked(a.share)) })
	return posts, none
}

// unknownOf is how well something that is not known here explains what was seen: by anything at all, or as well as the likeliest would
// explain what was read if it were so.
func unknownOf(posts []post, anything float64, symptoms int) float64 {
	best := posts[0]
	for _, p := range posts {
		if p.log > best.log {
			best = p
		}
	}
	return max(anything, best.typical-noneCost) + math.Log(nonePrior) + float64(symptoms)*math.Log(noneSeen)
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
	for _, l := range e.looks {
		f.log += math.Log(s.looked(l))
	}
	for _, w := range e.swaps {
		f.log += math.Log(s.swapped(w))
	}
	return f
}

// before takes in what was seen before the last mend: with what was mended then.
func (t *Trace) before(posts []post, eras []era, anything float64) (none float64) {
	symptoms := 0
	for _, e := range eras {
		symptoms += len(e.symptoms)
	}
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
			posts[i].log, posts[i].typical = posts[i].log+f.log, posts[i].typical+f.typical
		}
	}
	for _, e := range eras {
		s := t.together(nil)
		t.workAll([]*suspect{s}, t.stationsOf(e), closely)
		anything += t.weigh(s, e, noneSlip, closely).log
	}
	return shareOut(posts, unknownOf(posts, anything, symptoms))
}

// Share is a share in words, no finer than such shares are.
func Share(share float64) string {
	switch {
	case share < 0.02:
		return "hardly"
	case share < 0.1:
		return "perhaps"
	}
	return unit.Text(5*math.Round(20*share), "%", 0)
}
