package trace

import (
	"cmp"
	"math"
	"slices"

	"epitrope/core/unit"
)

// Suspect is something that may be wrong, with how much speaks for it.
type Suspect struct {
	ID        string   `json:"id" doc:"The faults that it is made of"`
	Faults    []string `json:"faults" doc:"… by their ids"`
	Names     []string `json:"names" doc:"… each in words"`
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
	Found    string     `json:"found,omitempty" doc:"What a look found and nobody mended: it is mended before all else"`
}

// post is a suspect with its share.
type post struct {
	*suspect
	share float64
	fit
	at depth // … it was looked at so closely
}

// What is not known here shows what is shown with nothing wrong, but for so many readings that are anything at all; or what the
// likeliest shows, but for so many, and is then seldomer by so much, in natural logarithms. And how often it is complained of in any
// one way. Source: from memory, and tried.
const (
	noneSlip = 0.5
	noneOwn  = 0.3
	noneCost = 3.5
	noneSeen = 0.15
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
		if doubtOf(posts, a) > 0.5 {
			b.Doubted = append(b.Doubted, t.proof.Readings[r.i].ID)
		}
	}
	b.Next, b.Act = t.next(posts, now, b)
	if again := t.onceMore(posts, now); len(again) > 0 {
		rest := slices.DeleteFunc(b.Next, func(n NextTest) bool { return n.Again })
		b.Next, b.Act = append(again, rest...)[:min(mostTests, len(again)+len(rest))], ""
	}
	t.doubtInVain(&b, now)
	t.putFound(&b, posts, now)
	b.None, b.Sound = told(b.None), told(b.Sound)
	for i := range b.Suspects {
		b.Suspects[i].Share = told(b.Suspects[i].Share)
	}
	return b
}

// doubtInVain names nothing with more than a half that was looked at as often as anybody looks, in vain: what speaks for it then may be
// something that is not known here.
func (t *Trace) doubtInVain(b *Belief, now era) {
	for i := range b.Suspects {
		s := &b.Suspects[i]
		if s.Share > mostInVain && t.seenInVain(*s, now) {
			b.None += s.Share - mostInVain
			s.Share = mostInVain
		}
	}
}

const mostInVain = 0.5

// putFound puts what a look found first: whatever it explains, it is mended before anything else is asked.
func (t *Trace) putFound(b *Belief, posts []post, now era) {
	for _, l := range now.looks {
		if l.found != "" {
			b.Found = l.found
		}
	}
	if b.Found == "" {
		return
	}
	b.Act = ""
	for _, p := range posts {
		if p.id() != b.Found {
			continue
		}
		first := t.says(group{post: p})
		if at := slices.IndexFunc(b.Suspects, func(s Suspect) bool { return s.ID == b.Found }); at >= 0 {
			first = b.Suspects[at]
			b.Suspects = slices.Delete(b.Suspects, at, at+1)
		}
		first.Share = max(first.Share, 1-foundWrong)
		b.Suspects = slices.Insert(b.Suspects, 0, first)
		b.Suspects = b.Suspects[:min(mostShown, len(b.Suspects))]
		return
	}
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

// Share is a share in words, no finer than such shares are.
func Share(share float64) string {
	switch {
	case share < 0.02:
		return "hardly"
	case share < 0.1:
		return "perhaps"
	case share >= 0.975: // nobody is certain
		return "over 95 %"
	}
	return unit.Text(5*math.Round(20*share), "%", 0)
}
