package trace

import (
	"cmp"
	"math"
	"slices"
	"strings"

	"epitrope/core/fault"
	"epitrope/core/prove"
)

// group are suspects that no reading tells apart.
type group struct {
	post
	same []post
}

// parts are the suspects of a group, each with its own share.
func (g group) parts() (list []post) {
	first := g.post
	for _, o := range g.same {
		first.share -= o.share
	}
	return append([]post{first}, g.same...)
}

// thought are the suspects that tests are chosen for.
const (
	mostThought  = 18
	leastThought = 0.004
)

// grouped are the suspects by what readings can tell, likeliest first.
func (t *Trace) grouped(posts []post) (list []group) {
	thought := posts[:min(mostThought, len(posts))]
	if few := slices.IndexFunc(thought, func(p post) bool { return p.share < leastThought }); few >= 0 {
		thought = thought[:few]
	}
	t.workSpokenFor(thought)
	for k, p := range posts {
		if k >= len(thought) {
			list = append(list, group{post: p})
			continue
		}
		at := slices.IndexFunc(list, func(g group) bool { return len(g.wrong) > 0 && len(p.wrong) > 0 && t.alike(g.post, p) })
		if at < 0 {
			list = append(list, group{post: p})
			continue
		}
		list[at].same = append(list[at].same, p)
		list[at].share += p.share
	}
	slices.SortStableFunc(list, func(a, b group) int { return cmp.Compare(ranked(b.share), ranked(a.share)) })
	return list
}

func everywhere(t *Trace) map[string]bool {
	list := map[string]bool{}
	for station := range t.at {
		list[station] = true
	}
	return list
}

// shows is what a suspect is expected to show of a reading, by all that was seen: its middle, how far that may be off, and how
// often it comes to no stand; ok is false where there is nothing to read.
func (p post) shows(i int) (mean, spread, jumps float64, ok bool) {
	n, square := 0.0, 0.0
	for k, w := range p.sizes {
		if w <= leastHump {
			continue
		}
		jumps += w * p.suspect.steps[k].jumps(i, tries)
		for _, at := range p.suspect.steps[k].shown {
			if at.Values == nil {
				continue
			}
			if v := at.Values[i]; !math.IsNaN(v) {
				mean, square, n = mean+w*v, square+w*v*v, n+w
			}
		}
	}
	if n < 1e-9 {
		return 0, 0, jumps, false
	}
	mean /= n
	return mean, math.Sqrt(max(0, square/n-mean*mean)), jumps, true
}

// within is how far two suspects' readings may be apart for no meter to tell them.
const within = 1.5

// alike says whether no reading tells two suspects apart.
func (t *Trace) alike(a, b post) bool {
	if a.when != b.when || a.when == fault.ByHand && !slices.Equal(a.places, b.places) {
		return false
	}
	for i, r := range t.proof.Readings {
		if r.Unit == prove.Seen {
			continue
		}
		x, spreadX, jumpsX, okX := a.shows(i)
		y, spreadY, jumpsY, okY := b.shows(i)
		if math.Abs(jumpsX-jumpsY) > 0.5 || okX != okY {
			return false
		}
		meter := r.Off(math.Max(math.Abs(x), math.Abs(y)))
		if okX && math.Abs(x-y) > within*max(meter, (spreadX+spreadY)/4) {
			return false
		}
	}
	return true
}

// says is a group in words.
func (t *Trace) says(g group) Suspect {
	s := Suspect{ID: g.id(), Share: g.share, Or: []string{}, Same: []string{}, Faults: []string{}, Names: []string{},
		Proves: []string{}, Places: []string{}}
	s.Says = g.inWords()
	if len(g.wrong) == 0 {
		return s
	}
	dangers, mends, looks := []string{}, []string{}, []string{}
	for _, f := range g.wrong {
		s.Faults, s.Names = append(s.Faults, f.ID), append(s.Names, f.Says)
		mends = append(mends, f.Mend)
		if f.Endangers != "" {
			dangers = append(dangers, f.Endangers)
		}
		looks = append(looks, t.Called(f.At)+": "+traits[f.Kind].look)
		s.at(f.At)
		s.Minutes += traits[f.Kind].minutes
	}
	s.Endangers, s.Mend, s.Look = strings.Join(dangers, "; "), strings.Join(mends, "; "), strings.Join(looks, "; ")
	s.Proves = t.proves(g.post)
	for _, o := range g.same {
		for _, f := range o.wrong {
			s.at(f.At)
		}
		s.Or, s.Same = append(s.Or, o.inWords()), append(s.Same, o.id())
	}
	return s
}

// inWords is what is wrong, in words.
func (s *suspect) inWords() string {
	if len(s.wrong) == 0 {
		return "nothing is wrong"
	}
	names := []string{}
	for _, f := range s.wrong {
		names = append(names, f.Says)
	}
	return strings.Join(names, "; and ")
}

// at adds a place.
func (s *Suspect) at(place string) {
	if !slices.Contains(s.Places, place) {
		s.Places = append(s.Places, place)
	}
}

// mostProofs is how many readings are named that prove a mend.
const mostProofs = 3

// proves are the readings of a proof that a fault puts furthest from what is expected of a sound installation.
func (t *Trace) proves(p post) []string {
	type far struct {
		id  string
		off float64
	}
	list := []far{}
	for i, r := range t.proof.Readings {
		mean, spread, jumps, ok := p.shows(i)
		if r.Unit == prove.Seen || r.Of != "" || r.Extra || !ok {
			continue
		}
		b := t.proof.Sound(i)
		off := math.Abs(mean-b.Middle) / (r.Off(b.Middle) + spread + (b.Likely[1]-b.Likely[0])/2)
		if jumps > 0.5 {
			off += 1
		}
		if off > 1 {
			list = append(list, far{r.ID, off})
		}
	}
	slices.SortStableFunc(list, func(a, b far) int { return cmp.Compare(ranked(b.off), ranked(a.off)) })
	ids := []string{}
	for _, f := range list[:min(mostProofs, len(list))] {
		ids = append(ids, f.id)
	}
	return ids
}
