package study

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"epitrope/core/design"
	"epitrope/core/harness"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/procedure"
	"epitrope/core/unit"
)

// Prices are a workshop's own: its parts book, what it charges for an hour, and how fast it is.
type Prices struct {
	Book       []parts.Item
	Currency   string  // "": the one that most of the book's prices are in
	HourlyRate float64 // 0: not said
	Pace       procedure.Pace
}

// Priced is what a design comes to by a workshop's own prices. Parts without a price are named, not guessed.
type Priced struct {
	Currency string   `json:"currency" doc:"Empty where the book has no price at all"`
	Parts    float64  `json:"parts" doc:"Those that have a price"`
	Work     float64  `json:"work" doc:"Hours at the workshop's rate; 0 where it has none"`
	Kinds    int      `json:"kinds" doc:"Kinds of part in its list"`
	Unpriced []string `json:"unpriced" doc:"What of them has no price in that currency, by kind"`
	Short    string   `json:"short"`
	Text     string   `json:"text" doc:"With what has no price"`
}

// currency is the workshop's, or that of most prices of its book.
func (p Prices) currency() string {
	if p.Currency != "" {
		return p.Currency
	}
	count, most := map[string]int{}, ""
	for _, i := range p.Book {
		if i.Price == nil {
			continue
		}
		if count[i.Currency]++; count[i.Currency] > count[most] || count[i.Currency] == count[most] && i.Currency < most {
			most = i.Currency
		}
	}
	return most
}

// Methods puts what each coupling comes to into the list of all of them, as Consequences gives it.
func (p Prices) Methods(now *design.Design, list []Consequence) {
	eachOn(now, func(i int, d *design.Design) {
		if len(p.Pace) > 0 {
			list[i].Work = workOf(d, p.Pace)
		}
		priced := p.Of(d, list[i].Work.Hours)
		list[i].Priced = &priced
	})
}

// Schools puts what each school's parts cost beside those of the job as it is into the list of them.
func (p Prices) Schools(now *design.Design, list []School) {
	if p.currency() == "" {
		return
	}
	as := p.Of(now, 0) // their parts alone are compared
	for _, s := range list {
		many(len(s.Options), nil, func(i int, _ func() bool) {
			o := &s.Options[i]
			doc, problems := job.With(now.Doc, map[string]any{s.Path: o.Value})
			if o.Now || len(problems) > 0 {
				return
			}
			switch other := p.Of(now.With(doc), 0); {
			case len(other.Unpriced) > len(as.Unpriced):
				o.Costs = "needs " + strings.Join(other.Unpriced, ", ") + " that the parts book has no price for"
			case math.Abs(other.Parts-as.Parts) >= 1:
				o.Costs = unit.Text(math.Abs(other.Parts-as.Parts), as.Currency, 0) + map[bool]string{true: " more",
					false: " less"}[other.Parts > as.Parts] +
					", of parts in the book"
			}
		})
	}
}

// Of is what a design comes to that takes so many hours.
func (p Prices) Of(d *design.Design, hours float64) Priced {
	scheme := harness.Scheme(d.Doc.Colours).Or(harness.UsualScheme)
	leads := harness.Leads(&d.System, scheme)
	list := harness.PartsList(&d.System, leads, p.Book, harness.CutList(leads, harness.Pieces(p.Book, scheme)))
	out := Priced{Currency: p.currency(), Unpriced: []string{}}
	kinds := map[string]bool{}
	for _, l := range list.Lines {
		kinds[l.Kind] = true
		switch {
		case l.Sum != nil && l.Currency == out.Currency:
			out.Parts += *l.Sum
		case !slices.Contains(out.Unpriced, l.Kind):
			out.Unpriced = append(out.Unpriced, l.Kind)
		}
	}
	out.Kinds = len(kinds)
	out.Parts, out.Work = unit.Round(out.Parts, 2), unit.Round(hours*p.HourlyRate, 2)
	out.Short, out.Text = out.says(hours)
	return out
}

func (p Priced) says(hours float64) (short, text string) {
	if p.Currency == "" {
		return "no price in it", "no price in the parts book"
	}
	money := func(v float64) string { return unit.Text(v, p.Currency, 0) }
	short, text = money(p.Parts+p.Work), "parts "+money(p.Parts)
	if p.Work > 0 {
		text += fmt.Sprintf(", %s of work %s, together %s", unit.Text(hours, "h", 1), money(p.Work), money(p.Parts+p.Work))
	}
	if len(p.Unpriced) > 0 {
		short += fmt.Sprintf(", %d of %d kinds unpriced", len(p.Unpriced), p.Kinds)
		text += "; without a price in the book: " + strings.Join(p.Unpriced, ", ")
	}
	return short, text
}
