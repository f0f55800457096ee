// Package method chooses the coupling, by rules with reasons. Each rule is a fact
// about this job: hard rules rule out, cautions warn, merits rank. The words of
// every rule stand in words.go under its id.
package method

import (
	"fmt"

	"epitrope/core/battery"
	"epitrope/core/coupling"
	"epitrope/core/working"
)

// Case is what the rules look at.
type Case struct {
	Varies     bool // regulation is variable, or has to be taken so
	Known      bool // … and is known to be
	Chemistry  battery.Chemistry
	RouteM     float64 // start battery to aux battery
	Trailer    bool
	Hot        bool    // the aux battery sits in an engine space
	RegulatedV float64 // at 12 V
	WantedV    float64 // lowest absorption voltage of the aux battery, at 12 V
}

// Effect is what a rule does to a candidate.
type Effect string

// The effects of a rule.
const (
	RulesOut Effect = "rules out"
	Warns    Effect = "warns"
	Favours  Effect = "favours"
)

// rule is one reason for or against a coupling.
type rule struct {
	id      string
	subject coupling.Kind
	effect  Effect
	mark    working.Origin
	holds   func(Case) bool
	args    func(Case) []any
}

// farM is the route beyond which a run counts as long. Source: common practice,
// no source.
const farM = 4.0

func always(Case) bool       { return true }
func varies(c Case) bool     { return c.Varies }
func lithium(c Case) bool    { return !c.Chemistry.Lead }
func far(c Case) bool        { return c.RouteM > farM }
func hot(c Case) bool        { return c.Hot }
func short(c Case) bool      { return c.RegulatedV < c.WantedV }
func plainLead(c Case) bool  { return !c.Varies && c.Chemistry.Lead }
func trailer(c Case) bool    { return c.Trailer }
func route(c Case) []any     { return []any{c.RouteM} }
func chemistry(c Case) []any { return []any{c.Chemistry.Label} }
func regulation(c Case) []any {
	if c.Known {
		return []any{"variable"}
	}
	return []any{"not proven steady, so taken as variable"}
}
func voltages(c Case) []any { return []any{c.RegulatedV, c.Chemistry.Label, c.WantedV} }

var rules = []rule{
	{"dcdc.variable", coupling.DCDC, Favours, working.Practice, varies, regulation},
	{"dcdc.staged", coupling.DCDC, Favours, working.Practice, always, chemistry},
	{"dcdc.far", coupling.DCDC, Favours, working.Practice, far, route},
	{"dcdc.trigger", coupling.DCDC, Warns, working.Practice, always, nil},
	{"dcdc.hot", coupling.DCDC, Warns, working.Practice, hot, nil},
	{"vsr.variable", coupling.VSR, RulesOut, working.Practice, varies, regulation},
	{"vsr.lithium", coupling.VSR, RulesOut, working.Practice, lithium, nil},
	{"vsr.trailer", coupling.VSR, Warns, working.Practice, trailer, nil},
	{"vsr.far", coupling.VSR, Warns, working.Practice, far, route},
	{"vsr.short", coupling.VSR, Warns, working.Memory, short, voltages},
	{"vsr.lead", coupling.VSR, Favours, working.Practice, plainLead, nil},
	{"vsr.cheap", coupling.VSR, Favours, working.Practice, always, nil},
}

// Reason is a rule that holds for this job.
type Reason struct {
	ID     string         `json:"id"`
	Effect Effect         `json:"effect" enum:"rules out,warns,favours"`
	Text   string         `json:"text"`
	Unless string         `json:"unless,omitempty" doc:"What would have to change for it to be allowed"`
	Mark   working.Origin `json:"mark" enum:"standard,practice,memory"`
}

// Candidate is a coupling as judged for this job.
type Candidate struct {
	Kind     coupling.Kind `json:"kind" enum:"vsr,dcdc"`
	Label    string        `json:"label"`
	RuledOut bool          `json:"ruledOut"`
	Merit    int           `json:"merit" doc:"Reasons for, less warnings"`
	Chosen   bool          `json:"chosen"`
	Reasons  []Reason      `json:"reasons"`
}

// Judge weighs the couplings for a case and marks the one to fit. Where merits
// are equal the DC-DC charger comes first: it is the one that never harms.
func Judge(c Case) []Candidate {
	candidates := []Candidate{weigh(coupling.DCDC, c), weigh(coupling.VSR, c)}
	best := 0
	for i, k := range candidates {
		if !k.RuledOut && k.Merit > candidates[best].Merit {
			best = i
		}
	}
	candidates[best].Chosen = true
	return candidates
}

func weigh(k coupling.Kind, c Case) Candidate {
	out := Candidate{Kind: k, Label: k.Label(), Reasons: []Reason{}}
	for _, r := range rules {
		if r.subject != k || !r.holds(c) {
			continue
		}
		out.Reasons = append(out.Reasons, r.say(c))
		switch r.effect {
		case RulesOut:
			out.RuledOut = true
		case Warns:
			out.Merit--
		case Favours:
			out.Merit++
		}
	}
	return out
}

func (r rule) say(c Case) Reason {
	text := words[r.id]
	if r.args != nil {
		text = fmt.Sprintf(text, r.args(c)...)
	}
	return Reason{ID: r.id, Effect: r.effect, Text: text, Unless: unless[r.id], Mark: r.mark}
}
