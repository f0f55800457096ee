package study

import (
	"fmt"

	"epitrope/core/design"
	"epitrope/core/run"
	"epitrope/core/system"
	"epitrope/core/unit"
)

// Bill is what a design costs and how long it takes, in comparison: prices as a share of
// that of a 30 A charger, hours of one fitter.
type Bill struct {
	Lines    []BillLine `json:"lines"`
	Cost     float64    `json:"cost" doc:"In % of the price of a 30 A charger"`
	Hours    float64    `json:"hours"`
	CopperKg float64    `json:"copperKg"`
	MetresM  float64    `json:"metres" doc:"Of power cable"`
	Ends     int        `json:"ends" doc:"To be crimped"`
}

// BillLine is one kind of thing: how many, what one costs and takes, and the sums.
type BillLine struct {
	What  string  `json:"what"`
	Count float64 `json:"count"`
	Unit  string  `json:"unit"`
	Cost  float64 `json:"cost" doc:"In % of the price of a 30 A charger, in all"`
	Hours float64 `json:"hours" doc:"In all"`
}

// Prices in % of a 30 A charger's, and hours. Source: common practice, no source, for a
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
	deviceHours              = 0.75
	fuseHours                = 0.25
	plugHours                = 1.0
	metreHours               = 0.25
	endHours                 = 0.15
	signalHours              = 1.5
	secondHours              = 14.0
	copperKgPerM             = 0.00896 // and mm²: 8,960 kg/m³. Source: physics
)

// bill adds up what is fitted.
func bill(d *design.Design) Bill {
	b := Bill{Lines: []BillLine{}}
	add := func(what string, count float64, in string, cost, hours float64) {
		if count == 0 {
			return
		}
		b.Lines = append(b.Lines, BillLine{what, unit.Round(count, 1), in, unit.Round(count*cost, 0), unit.Round(count*hours, 2)})
		b.Cost += count * cost
		b.Hours += count * hours
	}
	if d.Kind.Charger() {
		n := max(1, d.Charger.Count, float64(len(d.Charger.Parts)))
		add("charger", n, "", chargerCost+chargerPerA*d.Charger.OutputA/n, deviceHours)
	}
	switch {
	case d.Is.Beside == design.RestContact:
		add(d.Changeover.Label, 1, "", changeCost+changePerA*d.Changeover.Relay.MakeA, deviceHours/2)
	case d.Is.Beside == design.Bypass:
		add(d.Contact.Label, 1, "", bypassCost, deviceHours)
	case d.Is.OwnMachine:
		add("second alternator with bracket, belt and regulator", 1, "", secondCost, secondHours)
		if d.Isolates() {
			add(d.Contact.Label, 1, "", contactCost, deviceHours/2)
		}
	case !d.Kind.Charger():
		add(d.Contact.Label, 1, "", contactCost+contactPerA*d.Contact.ContinuousA, deviceHours)
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
	add("fuse with holder", fuses, "", fuseCost, fuseHours)
	if d.Plugged() {
		add(d.PlugCard.Label+" and socket", 1, "", 2*(plugCost+plugPerA*d.PlugCard.RatingA), plugHours)
	}
	add("copper", kilos, "kg", copperPerKg, 0)
	add("cable laid", metres, "m", 0, metreHours)
	add("ends", float64(ends), "", endCost, endHours)
	if d.Wired() {
		add("signal: finding its feed, wire and fuse", 1, "", fuseCost/2, signalHours)
	}
	if _, ok := d.OwnFeed(); ok {
		add("S1 with its fuse and wires", 1, "", fuseCost, deviceHours)
	}
	b.MetresM, b.CopperKg, b.Ends = unit.Round(metres, 1), unit.Round(kilos, 2), ends
	b.Cost, b.Hours = unit.Round(b.Cost, 0), unit.Round(b.Hours, 1)
	return b
}

// price is a cost as shown.
func price(percent float64) string {
	return fmt.Sprintf("%s × a 30 A charger", unit.Text(percent/100, "", 1))
}
