package day

import (
	"math"

	"epitrope/core/battery"
)

// A bank is its rest voltage, a resistance, and between them a capacity that is charged
// and discharged at once while the chemistry follows: overvoltage. Charging current
// first fills it, then passes on as fast as the battery accepts charge; a battery that
// is nearly full accepts little, so that it keeps its overvoltage as surface charge for
// hours, and a lamp that draws on it takes it away in minutes.
//
// Source: from memory: lead takes about twice the current that is
// advised when it is lifted to its absorption voltage; LiFePO4 takes what the circuit
// drives until it is nearly full; giving, it polarises by about its resistance.
const (
	TakesShare = 2.0   // of the advised current that lead takes
	floatShare = 0.002 // of its capacity that full lead still takes
	topShare   = 0.02  // of its charge over which LiFePO4 stops taking current
	topRate    = 2.0   // of its capacity that LiFePO4 takes below that
	topLeast   = 1e-3  // of its capacity, when it is full
	leastLiftV = 0.1
	blockedA   = 1e-6 // what is taken when charging is blocked
)

// cell is a bank at a moment, at the system's voltage.
type cell struct {
	soc     float64 // turned into chemistry, 0 to 1
	own     float64 // at rest
	ohm     float64 // at once, when it gives
	inOhm   float64 // … when it takes
	takeOhm float64 // overvoltage over the current that turns into charge
	giveOhm float64
	farad   float64
}

// cellAt works a bank out at all its charge, its overvoltage and its temperature.
func (b *Bank) cellAt(n, charge, over, tempC float64, blocked bool) cell {
	c := cell{farad: battery.FaradPerAh * b.CapacityAh / n}
	if b.SlowS > 0 {
		c.farad = b.SlowS / b.slowOhm(n)
	}
	soc := math.Min(1, math.Max(0, charge-c.farad*over/(b.CapacityAh*hour)))
	c.soc, c.own, c.ohm = soc, n*b.Chemistry.RestAt(soc, tempC), b.Chemistry.OhmAt(b.CapacityAh, n, soc, tempC)
	takes := math.Max(topRate*b.CapacityAh*math.Min(1, (1-soc)/topShare), topLeast*b.CapacityAh)
	if b.Chemistry.Lead {
		takes = math.Max(TakesShare*b.Chemistry.Accepts(b.CapacityAh, soc, tempC, b.FullV, b.FullV), floatShare*b.CapacityAh)
	}
	lift := math.Max(n*b.FullV-c.own, leastLiftV)
	c.giveOhm = battery.PolarShare * c.ohm
	if b.SlowOhm > 0 {
		c.giveOhm = b.SlowOhm
	}
	c.takeOhm = math.Max(c.giveOhm, lift/takes-c.ohm)
	c.inOhm = c.ohm
	if blocked { // it still gives
		c.inOhm, c.takeOhm = lift/blockedA, lift/blockedA
	}
	return c
}

// slowOhm is what follows slowly of a battery that is full and warm.
func (b *Bank) slowOhm(n float64) float64 {
	if b.SlowOhm > 0 {
		return b.SlowOhm
	}
	return battery.PolarShare * b.Chemistry.Ohm(b.CapacityAh, n)
}

// turns is the current that an overvoltage turns into charge; negative out of it.
func (c *cell) turns(over float64) float64 {
	if over >= 0 {
		return over / c.takeOhm
	}
	return over / c.giveOhm
}
