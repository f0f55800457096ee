// Package networktest makes circuits to test solvers with.
package networktest

import (
	"fmt"
	"math"
	"math/rand/v2"

	"epitrope/core/network"
)

// Random is a circuit of n nodes as a vehicle might have: a tree of cable with some
// rings, sources, loads, sometimes a charger to a part of its own.
func Random(r *rand.Rand, n int) *network.Circuit {
	c := network.New()
	ohm := func() float64 { return math.Exp(r.Float64()*6 - 8) } // 0.3 mΩ to 0.14 Ω
	node := func() network.Node { return c.Node(fmt.Sprintf("n%d", 1+r.IntN(n))) }
	for i := 1; i <= n; i++ {
		from := network.Ground
		if i > 1 && r.IntN(4) > 0 {
			from = c.Node(fmt.Sprintf("n%d", 1+r.IntN(i-1)))
		}
		if from == network.Ground {
			c.Add(network.Battery{Name: fmt.Sprintf("battery%d", i), Plus: c.Node(fmt.Sprintf("n%d", i)), Volts: 11.5 + 2*r.Float64(), Ohm: ohm(), ChargeOhm: 0.01 + ohm()})
		} else {
			c.Add(network.Resistance{Name: fmt.Sprintf("cable%d", i), A: from, B: c.Node(fmt.Sprintf("n%d", i)), Ohm: ohm()})
		}
	}
	for i := range r.IntN(4) {
		c.Add(network.Resistance{Name: fmt.Sprintf("ring%d", i), A: node(), B: node(), Ohm: ohm()})
	}
	for i := range r.IntN(3) {
		c.Add(network.CurrentLoad{Name: fmt.Sprintf("lamp%d", i), A: node(), Amps: 5 * r.Float64()},
			network.PowerLoad{Name: fmt.Sprintf("fridge%d", i), A: node(), Watts: 40 * r.Float64()})
	}
	at := node()
	machine := network.Alternator{Name: "alternator", Plus: at, Volts: 13.8 + r.Float64(), MaxA: 20 + 150*r.Float64()}
	if r.IntN(2) == 0 {
		// Its lead, with the voltage held at the far end.
		machine.Plus, machine.Sense = c.Node("machine"), at
		c.Add(network.Resistance{Name: "lead", A: machine.Plus, B: at, Ohm: ohm()})
	}
	c.Add(machine)
	if r.IntN(2) == 0 {
		out := c.Node("house")
		c.Add(network.Converter{Name: "charger", InPlus: node(), OutPlus: out, OutV: 14.4, MaxOutA: 5 + 20*r.Float64(), Efficiency: 0.88},
			network.Battery{Name: "house", Plus: out, Volts: 12.8 + r.Float64(), Ohm: ohm()})
	}
	if r.IntN(2) == 0 {
		c.Add(network.Switch{Name: "contact", A: node(), B: node(), Ohm: ohm(), Closed: r.IntN(2) == 0})
	}
	if r.IntN(3) == 0 {
		c.Add(network.Diode{Name: "diode", A: node(), K: node(), ForwardV: 0.4, Ohm: 0.002 + ohm()})
	}
	return c
}
