// Package method chooses the coupling, by rules with reasons. Each rule is a fact
// about this job: hard rules rule out, cautions warn, merits rank. The rules stand in
// rules.go, their words in words.go under their ids.
package method

import (
	"slices"

	"epitrope/core/battery"
	"epitrope/core/coupling"
	"epitrope/core/unit"
	"epitrope/core/working"
)

// Case is what the rules look at. Voltages are at 12 V, currents at the system's.
type Case struct {
	Varies  bool // regulation is variable, or has to be taken so
	Known   bool // … and is known to be
	Suspect bool // taken as steady without a test, on a vehicle that speaks against it

	Chemistry  battery.Chemistry
	Unnamed    bool    // nobody said what the aux battery is: that stands in for it
	RouteM     float64 // start battery to aux battery
	SensingM   float64 // start battery to a relay, where it was measured
	Trailer    bool
	Hot        bool    // the aux battery sits in an engine space
	RegulatedV float64 // what the alternator charges at
	WantedV    float64 // lowest absorption voltage of the aux battery
	MostV      float64 // highest

	HalfA     float64 // half of the alternators' label
	IdleA     float64 // what they have left at idle, hot, lamps on
	NeedA     float64 // charging that holds the balance
	WithinA   float64 // the largest charger that half the label feeds
	ChargerA  float64 // the charger that would be taken
	ChargerIn float64 // … and what it draws at worst
	LargestA  float64 // the largest charger there is
	AcceptsA  float64 // what the bank accepts at most
	RestA     float64 // what the best rest contact bears
	CrankA    float64 // what the starter takes

	Emergency   bool // starting from the aux battery is wanted
	FactoryFeed bool // … and the factory's ignition feed hangs on such a coil
	Solar       bool
	Apart       bool // the aux side has another voltage than the vehicle
	Winch       bool
	LowBudget   bool
	Idling      bool    // charging at idle matters
	SplitV      float64 // what a splitter would lose before the aux battery
	Year        float64
	Alternators float64
	Room        string // for a second alternator: yes, no, or not answered
}

// Effect is what a rule does to a candidate.
type Effect string

// The effects of a rule.
const (
	RulesOut Effect = "rules out"
	Warns    Effect = "warns"
	Favours  Effect = "favours"
)

// rule is one reason for or against couplings. Its weight is how much it counts in the
// ranking: one of a rule that rules out counts for nothing.
type rule struct {
	id       string
	subjects []coupling.Kind
	effect   Effect
	weight   int
	mark     working.Origin
	holds    func(Case) bool
	args     func(Case) []any
}

// Reason is a rule that holds for this job.
type Reason struct {
	ID     string         `json:"id"`
	Effect Effect         `json:"effect" enum:"rules out,warns,favours"`
	Text   string         `json:"text"`
	Unless string         `json:"unless,omitempty" doc:"What would have to change for it to be allowed"`
	Mark   working.Origin `json:"mark" enum:"standard,practice,physics,memory"`
	Weight int            `json:"weight"`
}

// Candidate is a coupling as judged for this job.
type Candidate struct {
	Kind     coupling.Kind `json:"kind" enum:"dcdc,trailer,changeover,highcurrent,vsr,contactor,selector,second,splitter"`
	Label    string        `json:"label"`
	RuledOut bool          `json:"ruledOut"`
	Merit    int           `json:"merit" doc:"Weight of the reasons for, less that of the warnings"`
	Chosen   bool          `json:"chosen"`
	Reasons  []Reason      `json:"reasons"`
}

// Judge weighs every coupling for a case and marks the one to fit: of those that are not
// ruled out the one of most merit, and where merits are equal the first of
// coupling.Kinds. A charger is never ruled out, so there always is one.
func Judge(c Case) []Candidate {
	var candidates []Candidate
	best := 0
	for i, k := range coupling.Kinds() {
		candidates = append(candidates, weigh(k, c))
		if now := candidates[i]; !now.RuledOut && now.Merit > candidates[best].Merit {
			best = i
		}
	}
	candidates[best].Chosen = true
	return candidates
}

func weigh(k coupling.Kind, c Case) Candidate {
	out := Candidate{Kind: k, Label: k.Label(), Reasons: []Reason{}}
	for _, r := range rules {
		if !slices.Contains(r.subjects, k) || !r.holds(c) {
			continue
		}
		out.Reasons = append(out.Reasons, r.say(c))
		switch r.effect {
		case RulesOut:
			out.RuledOut = true
		case Warns:
			out.Merit -= r.weight
		case Favours:
			out.Merit += r.weight
		}
	}
	return out
}

func (r rule) say(c Case) Reason {
	text := words[r.id]
	if r.args != nil {
		text = unit.Say(text, r.args(c)...)
	}
	return Reason{ID: r.id, Effect: r.effect, Text: text, Unless: unless[r.id], Mark: r.mark, Weight: r.weight}
}
