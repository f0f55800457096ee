package battery

import (
	"math"

	"epitrope/core/working"
)

// warmC is the temperature that the tables hold for. Source: IEC 60095 (from memory).
const warmC = 25.0

// RestV returns the voltage of a 12 V battery at rest at 25 °C at a state of charge
// from 0 to 1, between the table's points in proportion.
//
// Source: from memory; AGM and gel about 0.1 V over flooded.
func (c Chemistry) RestV(soc float64) float64 {
	first, last := c.rest[0], c.rest[len(c.rest)-1]
	if soc <= first.soc {
		return first.volts
	}
	for i, p := range c.rest[1:] {
		if soc <= p.soc {
			before := c.rest[i]
			return before.volts + (p.volts-before.volts)*(soc-before.soc)/(p.soc-before.soc)
		}
	}
	return last.volts
}

// RestAt is RestV at a temperature from −40 to 60 °C. Source: from memory: 1.5 mV/K
// for 12 V of lead, next to nothing for LiFePO4.
func (c Chemistry) RestAt(soc, tempC float64) float64 {
	return c.RestV(soc) + c.restPerK*(tempC-warmC)
}

// Charge returns the state of charge, 0 to 1, at which a 12 V battery at 25 °C
// rests at volts: the lowest where the curve is flat.
func (c Chemistry) Charge(volts float64) float64 {
	if volts <= c.rest[0].volts {
		return 0
	}
	for i, p := range c.rest[1:] {
		if volts <= p.volts {
			before := c.rest[i]
			return before.soc + (p.soc-before.soc)*(volts-before.volts)/(p.volts-before.volts)
		}
	}
	return 1
}

// Internal is the resistance of a battery, full and at 25 °C.
var Internal = working.Declare("R_b = n·ρ / (1000·C)", "from memory; falls as capacity grows",
	working.Symbol{Letter: "R_b", Name: "battery resistance", Unit: "Ω", Digits: 5},
	working.Symbol{Letter: "n", Name: "system voltage / 12 V", Unit: "", Digits: 0},
	working.Symbol{Letter: "ρ", Name: "resistance times capacity", Unit: "mΩ·Ah", Digits: 0},
	working.Symbol{Letter: "C", Name: "capacity", Unit: "Ah", Digits: 0})

// Ohm returns the internal resistance, in Ω, of capacityAh at a system of
// n × 12 V, full and at 25 °C.
func (c Chemistry) Ohm(capacityAh, n float64) float64 {
	return n * c.mOhmAh / (1000 * capacityAh) // Internal, as it is asked for at every step of a day
}

// OhmAt is Ohm at a state of charge from 0 to 1 and a temperature from −40 to
// 60 °C: an empty lead battery resists about twice as much, and each kelvin below
// 25 °C adds one part in a hundred (three for LiFePO4).
//
// Source: from memory.
func (c Chemistry) OhmAt(capacityAh, n, soc, tempC float64) float64 {
	missing := 1 - math.Min(1, math.Max(0, soc))
	return c.Ohm(capacityAh, n) * (1 + c.emptier*missing*missing) * math.Exp(c.colder*(warmC-math.Max(tempC, -40)))
}

// coldAccepts is how a lead battery's acceptance falls for each kelvin below 25 °C,
// half at 0 °C. Source: from memory.
const coldAccepts = 0.028

// tailPower shapes the tail of a lead battery's acceptance. Source: from memory: bulk
// fast to about 80 %, then hours for the last fifth.
const tailPower = 1.5

// Accepts returns the charging current, in A, that a battery of capacityAh takes at
// a terminal voltage for 12 V, where it is full at fullV (its absorption voltage):
// its charge rate up to the knee, then a long tail; less in proportion where the
// voltage is lower, and less in the cold. What has a management system takes its rate
// until it is nearly full, and nothing where its cells are too cold.
//
// Source: from memory.
func (c Chemistry) Accepts(capacityAh, soc, tempC, volts, fullV float64) float64 {
	own := c.RestAt(soc, tempC)
	if volts <= own || soc >= 1 {
		return 0
	}
	left := math.Min(1, (1-soc)/(1-c.knee))
	amps := c.ChargeHigh * capacityAh
	if !c.MayCharge(tempC) {
		return 0
	}
	if !c.Lead {
		return amps * left
	}
	pushed := math.Min(1, (volts-own)/(fullV-own))
	cold := math.Exp(-coldAccepts * math.Max(0, warmC-tempC))
	return amps * math.Pow(left, tailPower) * pushed * cold
}

// StarterOhm is a starter as a resistance, from the current at which a healthy
// battery turns it.
var StarterOhm = working.Declare("R_s = U / I_c − R_b", "physics: Ohm's law, starter close to standstill",
	working.Symbol{Letter: "R_s", Name: "starter", Unit: "Ω", Digits: 5},
	working.Symbol{Letter: "U", Name: "start battery at rest", Unit: "V", Digits: 2},
	working.Symbol{Letter: "I_c", Name: "cranking current", Unit: "A", Digits: 0},
	working.Symbol{Letter: "R_b", Name: "battery resistance", Unit: "Ω", Digits: 5})
