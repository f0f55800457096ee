package job

import (
	"math"
	"slices"

	"epitrope/core/battery"
	"epitrope/core/unit"
	"epitrope/core/working"
)

// InBank is a row of the batteries of a bank, where they are not all alike.
type InBank struct {
	Chemistry *string  `json:"chemistry,omitempty"`
	Ah        *float64 `json:"ah,omitempty"`
	AgeYears  *float64 `json:"ageYears,omitempty"`
}

// MostInBank is how many batteries a bank may have in parallel.
const MostInBank = 4

// bankFields are those of its rows.
var bankFields = []Field{
	{Path: "bank.*.chemistry", Label: "Battery of the bank", Kind: Choice, Choices: chemistries()},
	{Path: "bank.*.ah", Label: "This battery's capacity", Kind: Number, Unit: "Ah", Min: 5, Max: 1000, dim: chargeAt},
	{Path: "bank.*.ageYears", Label: "This battery is", Kind: Number, Unit: "years", Max: 20, Digits: 1, dim: plain(unit.Years)},
}

// BankFact is a battery of a bank.
type BankFact struct {
	Chemistry battery.Chemistry
	Ah        float64
	AgeYears  *float64
}

// An age and a capacity are the same within these. Source: common practice, no source.
const (
	sameYears = 1.0
	sameAh    = 0.1
)

// bank notes the batteries of a bank that were listed one by one: how many they are, what they come to, and
// whether they are alike.
func (f *Facts) bank(r *resolver, d Document) {
	rows := Rows(d.Bank)
	if len(rows) < 2 {
		return
	}
	rows = rows[:min(len(rows), MostInBank)]
	each, sum := f.AuxAh.Value/float64(len(rows)), 0.0
	for _, row := range rows {
		one, at := BankFact{Chemistry: f.Chemistry}, "bank."+row.Key+"."
		if row.Of.Chemistry != nil {
			one.Chemistry, _ = battery.ByID(r.text(at+"chemistry", row.Of.Chemistry, "", "")) // a document holds only those there are
		}
		one.Ah = r.num(at+"ah", row.Of.Ah, math.Max(each, 1), "an even share of the bank").Value
		one.AgeYears = r.some(at+"ageYears", row.Of.AgeYears)
		sum += one.Ah
		f.Bank = append(f.Bank, one)
	}
	f.AuxAh = Num{sum, r.again("aux.capacityAh", sum), "the batteries of the bank"}
	f.Survey.AuxCount = Num{float64(len(rows)), r.again("aux.count", float64(len(rows))), "the batteries of the bank"}
	if f.Survey.AuxFeed == "" {
		f.Survey.AuxFeed = r.text("aux.feed", d.Aux.Feed, "corners", "as it should be")
		f.Survey.AuxLinkM = r.num("aux.linkM", d.Aux.LinkM, defaultLinkM, "side by side")
	}
	switch {
	case f.unlike():
		f.Survey.AuxSame = No
	case f.Survey.AuxSame == Asked && !slices.ContainsFunc(f.Bank, func(b BankFact) bool { return b.AgeYears == nil }):
		f.Survey.AuxSame = Yes
	}
}

// again notes what other answers come to in the place of what was noted of a field before.
func (r *resolver) again(path string, value any) working.Origin {
	r.list = slices.DeleteFunc(r.list, func(f Fact) bool { return f.Path == path })
	return r.note(path, value, true, "")
}

// unlike says whether two batteries of the bank differ in kind, size or age, as far as that is known.
func (f *Facts) unlike() bool {
	first := f.Bank[0]
	return slices.ContainsFunc(f.Bank[1:], func(b BankFact) bool {
		ages := first.AgeYears != nil && b.AgeYears != nil && math.Abs(*first.AgeYears-*b.AgeYears) > sameYears
		return b.Chemistry.ID != first.Chemistry.ID || math.Abs(b.Ah-first.Ah) > sameAh*first.Ah || ages
	})
}
