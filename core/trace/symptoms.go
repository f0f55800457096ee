package trace

import (
	"math"
	"slices"

	"epitrope/core/fault"
	"epitrope/core/prove"
)

// Symptom is what an owner complains of, in their words.
type Symptom struct {
	ID   string `json:"id"`
	Says string `json:"says"`
}

// symptom is a complaint with what it says of the circuit: how likely somebody complains so, by what a reading would come to, and
// what it would come to with nothing wrong.
type symptom struct {
	id, says string
	reading  string // at the id of a reading; one that this installation has not says nothing
	likely   func(value, sound float64, jumps bool) float64
	or       string // … or at that of another
	also     func(value, sound float64, jumps bool) float64
	kinds    []fault.Kind // … or of what is seen with these faults alone
	when     fault.When   // … or with those that are there then
	warm     bool         // all is warm when it is noticed
}

// A complaint is seldom made for nothing, and seldom always made. Source: from memory.
const (
	sure   = 0.9
	may    = 0.4
	seldom = 0.02
)

// share is a complaint about how much of what is usual comes about: between two shares of it.
func share(from, to float64) func(value, sound float64, jumps bool) float64 {
	return func(value, sound float64, jumps bool) float64 {
		switch of := value / sound; {
		case jumps:
			return may
		case math.Abs(sound) < 0.5, math.IsNaN(of):
			return seldom
		case of >= from && of <= to:
			return sure
		case of >= from-0.15 && of <= to+0.15:
			return may
		}
		return seldom
	}
}

// above is a complaint about more than there should be, by so much.
func above(by float64) func(value, sound float64, jumps bool) float64 {
	return func(value, sound float64, _ bool) float64 {
		switch over := value - sound; {
		case over > by:
			return sure
		case over > by/2:
			return may
		}
		return seldom
	}
}

// below is a complaint about less than there should be.
func below(by float64) func(value, sound float64, jumps bool) float64 {
	return func(value, sound float64, jumps bool) float64 { return above(by)(-value, -sound, jumps) }
}

// flows is a complaint about a current where there should be none, either way.
func flows(amps float64) func(value, sound float64, jumps bool) float64 {
	return func(value, _ float64, _ bool) float64 {
		if math.Abs(value) > amps {
			return sure
		}
		return seldom
	}
}

// symptoms are what owners complain of. Source of what they say of the circuit: from memory, with trade.md §17.
var symptoms = []symptom{
	{id: "no-charge", says: "We drive for hours, and the house battery gains nothing", reading: "charge", likely: share(-9, 0.12)},
	{id: "slow-charge", says: "The house battery charges, but far less than it used to", reading: "charge", likely: share(0.1, 0.75)},
	{id: "comes-and-goes", says: "The house battery charges on and off: clicking, or the display jumps", reading: "charge",
		when: fault.ByHand,
		likely: func(_, _ float64, jumps bool) float64 {
			if jumps {
				return sure
			}
			return seldom
		}},
	{id: "stops-warm", warm: true, says: "The house battery charges at first, and no more after half an hour", reading: "charge",
		when:   fault.ByHeat,
		likely: func(_, _ float64, _ bool) float64 { return seldom }},
	{id: "start-flat", says: "The start battery is flat after some days parked", reading: "drain", likely: above(0.15)},
	{id: "house-flat", says: "The house battery is low each morning, with little used", reading: "aux-rest", likely: below(0.5),
		or: "apart", also: below(0.4)},
	{id: "step-too", says: "The step, the fridge and the charging went dead together", reading: "signal-running", likely: below(6)},
	{id: "no-signal", says: "The charger or relay does nothing when the engine starts", reading: "signal-running", likely: below(6)},
	{id: "lamp", says: "The charge lamp is on, or the vehicle's own battery is low while driving", reading: "start-running",
		likely: below(0.7)},
	{id: "too-high", says: "The house battery smells, gasses or is warm when charged", reading: "profile", likely: above(0.25)},
	{id: "hot", warm: true, says: "Something near a cable or a fuse gets hot, or smells", reading: "warmest", likely: above(12)},
	{id: "blows", says: "A fuse blows, and so does the next", kinds: []fault.Kind{fault.Chafed}},
	{id: "counted", says: "The monitor says full, and the battery is not; or the other way round",
		kinds: []fault.Kind{fault.Uncounted, fault.Tired}},
	{id: "shared", says: "Using the house battery while parked pulls the start battery down", reading: "apart", likely: flows(0.25)},
}

// Symptoms are what owners complain of.
func Symptoms() (list []Symptom) {
	for _, s := range symptoms {
		list = append(list, Symptom{s.id, s.says})
	}
	return list
}

// unsaid is how often somebody complains so where the installation has nothing that says it.
const unsaid = 0.2

// complains is how likely a suspect of a size makes a complaint.
func (t *Trace) complains(s *suspect, k int, y symptom, d depth) float64 {
	if y.when != fault.Standing && s.when == y.when {
		return sure
	}
	if len(y.kinds) > 0 {
		if slices.ContainsFunc(s.wrong, func(f fault.Fault) bool { return slices.Contains(y.kinds, f.Kind) }) {
			return sure
		}
		return seldom
	}
	likely := t.heard(s, k, y.reading, y.likely, d)
	if y.or != "" {
		likely = max(likely, t.heard(s, k, y.or, y.also, d))
	}
	if s.when == fault.ByHand { // at other times all is well
		likely *= thereOften
	}
	return likely
}

// heard is how likely a complaint is by what a reading would come to.
func (t *Trace) heard(s *suspect, k int, reading string, likely func(value, sound float64, jumps bool) float64, d depth) float64 {
	i := t.reading(reading)
	if i < 0 {
		return unsaid
	}
	of, step := t.shownBy(s, k, i, true)
	sum, sound := 0.0, t.proof.Sound(i).Middle
	for _, at := range of.steps[step].shown[:d.draws] {
		if v := at.Values[i]; math.IsNaN(v) {
			sum += unsaid
		} else {
			sum += likely(v, sound, at.Jumps[i])
		}
	}
	return sum / float64(d.draws)
}

// reading is a reading's place among the proof's; -1 where there is none such.
func (t *Trace) reading(id string) int {
	for i, r := range t.proof.Readings {
		if r.ID == id {
			return i
		}
	}
	return -1
}

// stationsOf are the stations at which what was seen was seen.
func (t *Trace) stationsOf(e era) map[string]bool {
	list := map[string]bool{}
	for _, r := range e.taken {
		list[t.proof.Readings[r.i].Station] = true
	}
	for _, y := range e.symptoms {
		for _, id := range []string{y.reading, y.or} {
			if i := t.reading(id); i >= 0 {
				list[t.proof.Readings[i].Station] = true
			}
		}
	}
	if e.warmest != nil {
		list[prove.Warm] = true
	}
	return list
}

// Called is a part or wire at which a fault may be, as people call it.
func (t *Trace) Called(at string) string { return t.d.NameOf(at) }
