// Package battery knows the chemistries: what a battery rests at, what of its
// label can be used, what charge it accepts and what it resists.
package battery

import (
	"fmt"
	"strings"

	"epitrope/core/working"
)

// Chemistry is a kind of auxiliary battery. Voltages are for a 12 V battery.
type Chemistry struct {
	ID         string
	Label      string
	Lead       bool
	Vented     bool    // gives off gas: only where it vents outside
	Usable     float64 // share of the label that is used in practice
	Efficiency float64 // charge got back for charge put in
	ChargeLow  float64 // continuous charge current as a share of capacity: advised
	ChargeHigh float64 // … and at most
	mOhmAh     float64 // internal resistance times capacity, mΩ·Ah
	rest       [5]float64
}

// The chemistries. Usable share: about half for lead, 80–100 % for LiFePO4
// (common practice, no source). Rest voltages at 0, 25, 50, 75, 100 %,
// resistance and efficiency: from memory. Charge limits: from memory; the
// battery's own sheet wins.
var (
	Flooded = Chemistry{"flooded", "flooded lead", true, true, 0.5, 0.85, 0.1, 0.2, 600, [5]float64{11.8, 12.0, 12.2, 12.4, 12.7}}
	Calcium = Chemistry{"calcium", "calcium lead", true, true, 0.5, 0.85, 0.1, 0.2, 550, [5]float64{11.8, 12.0, 12.2, 12.4, 12.7}}
	AGM     = Chemistry{"agm", "AGM", true, false, 0.5, 0.90, 0.25, 0.4, 400, [5]float64{11.9, 12.1, 12.3, 12.5, 12.8}}
	Gel     = Chemistry{"gel", "gel", true, false, 0.5, 0.90, 0.15, 0.2, 500, [5]float64{11.9, 12.1, 12.3, 12.5, 12.8}}
	LiFePO4 = Chemistry{"lifepo4", "LiFePO4", false, false, 0.8, 0.97, 0.3, 0.5, 300, [5]float64{10.0, 13.0, 13.2, 13.3, 13.4}}
)

// Chemistries lists them in the order they are offered.
var Chemistries = []Chemistry{LiFePO4, AGM, Gel, Calcium, Flooded}

// ByID finds a chemistry. It returns an error naming those allowed.
func ByID(id string) (Chemistry, error) {
	ids := make([]string, len(Chemistries))
	for i, c := range Chemistries {
		if c.ID == id {
			return c, nil
		}
		ids[i] = c.ID
	}
	return Chemistry{}, fmt.Errorf("%q is not a chemistry; allowed are %s", id, strings.Join(ids, ", "))
}

// RestV returns the voltage of a 12 V battery at rest at a state of charge from
// 0 to 1, between the table's quarters in proportion.
//
// Source: from memory; AGM and gel about 0.1 V over flooded.
func (c Chemistry) RestV(soc float64) float64 {
	at := soc * 4
	switch {
	case at <= 0:
		return c.rest[0]
	case at >= 4:
		return c.rest[4]
	}
	i := int(at)
	return c.rest[i] + (c.rest[i+1]-c.rest[i])*(at-float64(i))
}

// Internal is the resistance of a battery.
var Internal = working.Declare("R_b = n·ρ / (1000·C)", "from memory; falls as capacity grows",
	working.Symbol{Letter: "R_b", Name: "battery resistance", Unit: "Ω", Digits: 5},
	working.Symbol{Letter: "n", Name: "system voltage / 12 V", Unit: "", Digits: 0},
	working.Symbol{Letter: "ρ", Name: "resistance times capacity", Unit: "mΩ·Ah", Digits: 0},
	working.Symbol{Letter: "C", Name: "capacity", Unit: "Ah", Digits: 0})

// Ohm returns the internal resistance, in Ω, of capacityAh at a system of
// n × 12 V.
func (c Chemistry) Ohm(capacityAh, n float64) float64 {
	return Internal.Value(n, c.mOhmAh, capacityAh)
}

// UsableAh is what is used of a battery before it is charged again.
var UsableAh = working.Declare("Q_u = C·u", "common practice, no source: half for lead, 80 % for LiFePO4",
	working.Symbol{Letter: "Q_u", Name: "usable charge", Unit: "Ah", Digits: 0},
	working.Symbol{Letter: "C", Name: "capacity", Unit: "Ah", Digits: 0},
	working.Symbol{Letter: "u", Name: "usable share", Unit: "", Digits: 2})
