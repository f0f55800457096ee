package trace

import (
	"math"
	"slices"
	"strings"

	"epitrope/core/fault"
	"epitrope/core/prove"
	"epitrope/core/unit"
)

// Warmth is looked at along the whole run: which joint is the warmest.
const Warmth = "warmth"

// warmReading begins the id of the reading of how warm it is at one place.
const warmReading = "warm-"

// From how much over its cable a joint is felt to be warm, in K; how surely the warmest is then told; and how long it takes to go along the
// run. Source: from memory.
const (
	feltK       = 12.0
	toldWarmest = 0.9
	warmMinutes = 5.0
	driveIn     = 10.0 // a drive round the block, of what is complained of when all is warm
)

// warmPlaces are the places whose warmth is compared, with the reading of each.
func (t *Trace) warmPlaces() (places []string, readings []int) {
	for i, r := range t.proof.Readings {
		id, is := strings.CutPrefix(r.ID, warmReading)
		if is && t.isPlace(id) {
			places, readings = append(places, id), append(readings, i)
		}
	}
	return places, readings
}

// warmest is how likely each place is the warmest with a suspect of a size; the last is that none is warm.
func (t *Trace) warmest(s *suspect, k int, readings []int, d depth) []float64 {
	out := make([]float64, len(readings)+1)
	add := func(there bool, weight float64) {
		for n := range d.draws {
			at, most := len(readings), feltK
			for place, i := range readings {
				from, step := t.shownBy(s, k, i, there)
				if values := from.steps[step].shown[n].Values; values != nil && values[i] > most {
					at, most = place, values[i]
				}
			}
			for place := range out {
				if place == at {
					out[place] += weight * toldWarmest / float64(d.draws)
				} else {
					out[place] += weight * (1 - toldWarmest) / float64(d.draws*len(readings))
				}
			}
		}
	}
	if s.when != fault.ByHand {
		add(true, 1)
		return out
	}
	add(true, thereOften)
	add(false, 1-thereOften)
	return out
}

// felt is how likely a suspect makes what was felt along the run, by its logarithm.
func (t *Trace) felt(s *suspect, sizes []float64, e era, d depth) float64 {
	if e.warmest == nil {
		return 0
	}
	places, readings := t.warmPlaces()
	at := slices.Index(places, *e.warmest)
	if at < 0 {
		at = len(places)
	}
	sum := 0.0
	for k, w := range sizes {
		if w > 1e-6 {
			sum += w * t.warmest(s, k, readings, d)[at]
		}
	}
	return math.Log(max(sum, 1e-4))
}

// feel is the test of which joint is the warmest; ok is false where it was done, or nobody gets at one.
func (t *Trace) feel(groups []group, now era, none float64, was string) (l looking, ok bool) {
	places, readings := t.warmPlaces()
	if now.warmest != nil || len(places) == 0 {
		return l, false
	}
	l.test = NextTest{ID: Warmth, Look: true, Places: places, What: "the warmth of the whole run", Station: prove.Warm, Setup: []string{},
		Where: unit.Say("each lug and fuse, with a thermometer or the back of a hand: which one is the warmest, and at least %.0f K warmer "+
			"than the cable beside it?", feltK),
		Minutes: warmMinutes, Means: []TestOutcome{}}
	drivenIn := slices.ContainsFunc(now.symptoms, func(y symptom) bool { return y.warm })
	switch {
	case was == prove.Warm:
	case was == "" && drivenIn: // what is complained of is there as it comes in
		l.test.Minutes += driveIn
	default:
		l.test.Minutes += stationMinutes[prove.Warm]
	}
	for _, s := range t.proof.Stations {
		if s.ID == prove.Warm {
			l.test.Setup = s.Setup
		}
	}
	for range len(places) + 1 {
		l.parcels = append(l.parcels, parcel{by: make([]float64, len(groups)+1)})
	}
	for g, of := range groups {
		for _, p := range of.parts() {
			for k, w := range p.sizes {
				if w <= leastHump {
					continue
				}
				for place, chance := range t.warmest(p.suspect, k, readings, closely) {
					l.parcels[place].by[g] += p.share * w * chance
				}
			}
		}
	}
	total := 0.0
	for place := range l.parcels {
		l.parcels[place].by[len(groups)] = none / float64(len(l.parcels))
		total += l.parcels[place].weight()
	}
	for place, p := range l.parcels {
		l.test.Means = append(l.test.Means, TestOutcome{t.warmName(places, place), p.weight() / total, t.points(p, groups)})
	}
	l.test.Means = likeliest(l.test.Means)
	return l, true
}

// warmName is what is said of a place that is the warmest.
func (t *Trace) warmName(places []string, place int) string {
	if place == len(places) {
		return "none is warm"
	}
	return t.Called(places[place])
}
