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
	mOhmAh     float64 // internal resistance times capacity at full charge and 25 °C, mΩ·Ah
	rest       []point
	emptier    float64 // resistance added when empty, as a share
	colder     float64 // growth of resistance for each kelvin below 25 °C, as a share
	knee       float64 // charge from which it accepts less
	restPerK   float64 // rest voltage by temperature, V/K
}

// point is a rest voltage, in V, at a state of charge, for 12 V at 25 °C.
type point struct{ soc, volts float64 }

func lead(above float64) []point {
	return []point{{0, 11.8 + above}, {0.25, 12.0 + above}, {0.5, 12.2 + above}, {0.75, 12.4 + above}, {1, 12.7 + above}}
}

// flat is LiFePO4: 13.2–13.3 V over most of its range, 12.8 V with 10–15 % left.
var flat = []point{{0, 10.5}, {0.05, 12.3}, {0.10, 12.7}, {0.15, 12.87}, {0.25, 13.0}, {0.5, 13.2}, {0.75, 13.3}, {0.95, 13.34}, {1, 13.5}}

// The chemistries. Usable share: about half for lead, 80–100 % for LiFePO4
// (common practice, no source). Rest voltages, resistance, its growth with
// discharge and cold, and efficiency: from memory. Charge limits: from memory; the
// battery's own sheet wins.
var (
	Flooded = Chemistry{"flooded", "flooded lead", true, true, 0.5, 0.85, 0.1, 0.2, 600, lead(0), 1, 0.010, 0.8, 0.0015}
	Calcium = Chemistry{"calcium", "calcium lead", true, true, 0.5, 0.85, 0.1, 0.2, 550, lead(0), 1, 0.010, 0.8, 0.0015}
	AGM     = Chemistry{"agm", "AGM", true, false, 0.5, 0.90, 0.25, 0.4, 400, lead(0.1), 1, 0.010, 0.8, 0.0015}
	Gel     = Chemistry{"gel", "gel", true, false, 0.5, 0.90, 0.15, 0.2, 500, lead(0.1), 1, 0.012, 0.8, 0.0015}
	LiFePO4 = Chemistry{"lifepo4", "LiFePO4", false, false, 0.8, 0.97, 0.3, 0.5, 300, flat, 0.3, 0.030, 0.98, 0.0002}
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

// UsableAh is what is used of a battery before it is charged again.
var UsableAh = working.Declare("Q_u = C·u", "common practice, no source: half for lead, 80 % for LiFePO4",
	working.Symbol{Letter: "Q_u", Name: "usable charge", Unit: "Ah", Digits: 0},
	working.Symbol{Letter: "C", Name: "capacity", Unit: "Ah", Digits: 0},
	working.Symbol{Letter: "u", Name: "usable share", Unit: "", Digits: 2})
