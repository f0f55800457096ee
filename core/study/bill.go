package study

import (
	"fmt"

	"epitrope/core/design"
	"epitrope/core/run"
	"epitrope/core/system"
	"epitrope/core/unit"
)

// Bill is what a design costs in comparison, as a share of the price of a 30 A charger.
type Bill struct {
	Lines    []BillLine `json:"lines"`
	Cost     float64    `json:"cost" doc:"In % of the price of a 30 A charger"`
	CopperKg float64    `json:"copperKg"`
	MetresM  float64    `json:"metres" doc:"Of power cable"`
	Ends     int        `json:"ends" doc:"To be crimped"`
}

// BillLine is one kind of thing: how many, and what they cost in all.
type BillLine struct {
	What  string  `json:"what"`
	Count float64 `json:"count"`
	Unit  string  `json:"unit"`
	Cost  float64 `json:"cost" doc:"In % of the price of a 30 A charger, in all"`
}

// Prices in % of a 30 A charger's. Source: common practice, no source, for a
// relay kit at a quarter to a third of a charger; all others from memory. The workshop's
// own prices and past jobs win.
const (
	chargerCost, chargerPerA = 40.0, 2.0
	contactCost, contactPerA = 15.0, 0.13
	changeCost, changePerA   = 4.0, 0.35
	bypassCost               = 150.0
	secondCost               = 600.0
	fuseCost                 = 6.0
	plugCost, plugPerA       = 5.0, 0.3
	copperPerKg              = 12.0
	endCost                  = 1.5
	copperKgPerM             = 0.00896 // and mm²: 8,960 kg/m³. Source: physics
)

// bill adds up what is fitted.
func bill(d *design.Design) Bill {
	b := Bill{Lines: []BillLine{}}
	add := func(what string, count float64, in string, cost float64) {
		if count == 0 {
			return
		}
		b.Lines = append(b.Lines, BillLine{what, unit.Round(count, 1), in, unit.Round(count*cost, 0)})
		b.Cost += count * cost
	}
	if d.Kind.Charger() {
		n := max(1, d.Charger.Count, float64(len(d.Charger.Parts)))
		add("charger", n, "", chargerCost+chargerPerA*d.Charger.OutputA/n)
	}
	switch {
	case d.Is.Beside == design.RestContact:
		add(d.Changeover.Label, 1, "", changeCost+changePerA*d.Changeover.Relay.MakeA)
	case d.Is.Beside == design.Bypass:
		add(d.Contact.Label, 1, "", bypassCost)
	case d.Is.OwnMachine:
		add("second alternator with bracket, belt and regulator", 1, "", secondCost)
		if d.Isolates() {
			add(d.Contact.Label, 1, "", contactCost)
		}
	case !d.Kind.Charger():
		add(d.Contact.Label, 1, "", contactCost+contactPerA*d.Contact.ContinuousA)
	}
	metres, kilos, ends := 0.0, 0.0, 0
	for _, w := range d.System.Wires {
		if w.Existing || w.Role == system.Signal {
			continue
		}
		metres += w.LengthM
		kilos += w.LengthM * w.CopperMM2 * copperKgPerM
		for _, end := range []float64{w.Joint.From, w.Joint.To} {
			if end > 0 {
				ends++
			}
		}
	}
	fuses := 0.0
	for _, l := range []*run.Sized{&d.Start, &d.Aux} {
		if !l.Unfused {
			fuses++
		}
	}
	add("fuse with holder", fuses, "", fuseCost)
	if d.Plugged() {
		add(d.PlugCard.Label+" and socket", 1, "", 2*(plugCost+plugPerA*d.PlugCard.RatingA))
	}
	add("copper", kilos, "kg", copperPerKg)
	add("ends", float64(ends), "", endCost)
	if d.Wired() {
		add("signal: finding its feed, wire and fuse", 1, "", fuseCost/2)
	}
	if _, ok := d.OwnFeed(); ok {
		add("S1 with its fuse and wires", 1, "", fuseCost)
	}
	b.MetresM, b.CopperKg, b.Ends = unit.Round(metres, 1), unit.Round(kilos, 2), ends
	b.Cost = unit.Round(b.Cost, 0)
	return b
}

// price is a cost as shown.
func price(percent float64) string {
	return fmt.Sprintf("%s × a 30 A charger", unit.Text(percent/100, "", 1))
}
