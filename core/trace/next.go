package trace

import (
	"cmp"
	"math"
	"slices"

	"epitrope/core/prove"
)

// NextTest is something to measure or to look at next.
type NextTest struct {
	ID      string        `json:"id" doc:"The reading, or the part that is looked at"`
	Look    bool          `json:"look" doc:"It is looked at, not measured"`
	Swap    bool          `json:"swap" doc:"Another part is tried in its place"`
	Again   bool          `json:"again" doc:"It was read before, and that may have been a slip"`
	Places  []string      `json:"places,omitempty" doc:"Of a look that compares places: which, by their ids"`
	What    string        `json:"what"`
	Where   string        `json:"where"`
	Station string        `json:"station,omitempty" doc:"What the vehicle is to be meanwhile"`
	Setup   []string      `json:"setup"`
	Range   string        `json:"range,omitempty"`
	Minutes float64       `json:"minutes"`
	Tells   float64       `json:"tells" doc:"How much of what is not known it is expected to settle: 0 to 1"`
	Live    string        `json:"live,omitempty" doc:"What is live there, and how it is touched"`
	Means   []TestOutcome `json:"means" doc:"What it may come to, and what each would mean"`
}

// TestOutcome is what a test may come to, with what it would mean.
type TestOutcome struct {
	Says   string   `json:"says"`
	Chance float64  `json:"chance"`
	Points []string `json:"points" doc:"To what"`
}

// enough is the share at which a look at the first suspect is worth more than a further reading; mostTests is how many tests are named.
const (
	enough     = 0.9
	mostTests  = 4
	leastTells = 0.02 // bits for each minute
	mostNone   = 0.5  // what is not known is no reason to measure everything
)

// worthIt is what a test is worth that settles so many bits in so many minutes. A long one that settles is better than short ones that
// do not: time counts by its power.
func worthIt(bits, minutes float64) float64 { return bits / math.Pow(minutes+handling, timeCounts) }

const timeCounts = 0.7

// next are the tests that tell most for their minutes, and the suspect that is to be looked at instead.
func (t *Trace) next(posts []post, now era, b Belief) (list []NextTest, act string) {
	groups, thought := []group{}, []post{}
	for _, g := range t.grouped(posts) {
		if g.share >= leastThought && len(groups) < mostThought {
			groups, thought = append(groups, g), append(thought, g.post)
		}
	}
	t.workSpokenFor(thought)
	if len(groups) == 0 { // nothing known explains what was seen
		return []NextTest{}, ""
	}
	shares := []float64{}
	for _, g := range groups {
		shares = append(shares, g.share)
	}
	none := min(b.None, mostNone) // what is not known may show anything: only a look tells of it
	unsure, with, was := bits(shares), bits(append(slices.Clone(shares), none)), now.station
	humps, jumping := t.foreseen(groups, now.taken)
	type worth struct {
		NextTest
		each float64
	}
	all := []worth{}
	for i, r := range t.proof.Readings {
		before := slices.IndexFunc(now.taken, func(e read) bool { return e.i == i })
		if r.Unit == prove.Seen || before >= 0 && now.taken[before].again {
			continue
		}
		parcels := parcels(humps[i], jumping[i])
		m := Minutes(r, was)
		if gain := (1 - none) * tells(parcels, unsure); worthIt(gain, m) > leastTells {
			one := t.reads(r, m)
			one.Tells, one.Means, one.Again = told(gain/unsure), t.means(r, parcels, groups), before >= 0
			all = append(all, worth{one, ranked(worthIt(gain, m))})
		}
	}
	besides := append(t.lookedAt(groups, now, none), t.swaps(groups, now, none)...)
	if l, ok := t.feel(groups, now, none, was); ok {
		besides = append(besides, l)
	}
	for _, l := range besides {
		gain := tells(l.parcels, with)
		if each := worthIt(gain, l.test.Minutes); each > leastTells {
			l.test.Tells = told(gain / with)
			all = append(all, worth{l.test, ranked(each)})
		}
	}
	slices.SortStableFunc(all, func(a, b worth) int { return cmp.Compare(b.each, a.each) })
	for _, w := range all {
		same := slices.IndexFunc(list, func(n NextTest) bool { return asks(n, w.NextTest) })
		switch {
		case same >= 0 && w.Minutes < list[same].Minutes:
			list[same] = w.NextTest
		case same < 0 && len(list) < mostTests:
			list = append(list, w.NextTest)
		}
	}
	if len(b.Suspects) > 0 && (b.Suspects[0].Share >= enough || len(list) == 0) && !t.seenInVain(b.Suspects[0], now) {
		act = b.Suspects[0].ID
	}
	if list == nil {
		list = []NextTest{}
	}
	return list, act
}

// onceMore are the readings that are more likely slips than not, and that were taken once: they are taken again before all else.
func (t *Trace) onceMore(posts []post, now era) (list []NextTest) {
	for a, r := range now.taken {
		if !r.again && doubtOf(posts, a) > 0.5 {
			one := t.reads(t.proof.Readings[r.i], Minutes(t.proof.Readings[r.i], now.station))
			one.Again = true
			list = append(list, one)
		}
	}
	return list
}

// doubtOf is how likely a reading that was taken is a slip.
func doubtOf(posts []post, a int) (doubt float64) {
	for _, p := range posts {
		if a < len(p.slips) && p.slips[a] {
			doubt += p.share
		}
	}
	return doubt
}

// seenInVain says whether every place of a suspect was looked at as often as anybody looks.
func (t *Trace) seenInVain(s Suspect, now era) bool {
	return !slices.ContainsFunc(s.Places, func(at string) bool { return now.lookedAt(at) < mostLooks })
}

// asks says whether two readings may come to the same, and mean the same: then the one that is sooner done is enough.
func asks(a, b NextTest) bool {
	return len(a.Means) > 0 && slices.EqualFunc(a.Means, b.Means, func(x, y TestOutcome) bool {
		return x.Says == y.Says && slices.Equal(x.Points, y.Points)
	})
}

// reads is a reading as a test.
func (t *Trace) reads(r prove.Reading, m float64) NextTest {
	out := NextTest{ID: r.ID, What: r.What, Where: r.Where(), Station: r.Station, Range: r.Range, Minutes: m, Setup: []string{},
		Means: []TestOutcome{}}
	for _, s := range t.proof.Stations {
		if s.ID == r.Station {
			out.Setup = s.Setup
		}
	}
	if r.Unit == prove.Volts { // across what is open there are a battery's volts, whatever a sound stretch loses
		out.Live = "live while the battery is on: probes with shrouds, rings off, nothing that bridges to metal"
	}
	return out
}
