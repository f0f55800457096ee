// Package networktest makes circuits to test solvers with, and finds where they come to
// in a way of its own.
package networktest

import (
	"fmt"
	"math"
	"math/rand/v2"

	"epitrope/core/network"
)

// maker draws a circuit.
type maker struct {
	r *rand.Rand
	c *network.Circuit
	n int
}

// Random is a circuit of n nodes and more, as a vehicle might have or an installer might
// make: a tree of cable with rings; batteries, some of which accept only so much; one or
// more regulated sources anywhere; loads; chargers of up to 100 A into batteries of their
// own, into each other or back where they came from, isolated or not, at limits of their
// input, with and without a cut-out; diodes and contacts.
func Random(r *rand.Rand, n int) *network.Circuit {
	m := &maker{r: r, c: network.New(), n: n}
	for i := 1; i <= n; i++ {
		from := network.Ground
		if i > 1 && r.IntN(4) > 0 {
			from = m.at(1 + r.IntN(i-1))
		}
		if from == network.Ground {
			m.battery(fmt.Sprintf("battery%d", i), m.at(i), network.Ground)
		} else {
			m.c.Add(network.Resistance{Name: fmt.Sprintf("cable%d", i), A: from, B: m.at(i), Ohm: m.ohm()})
		}
	}
	for i := range r.IntN(4) {
		m.c.Add(network.Resistance{Name: fmt.Sprintf("ring%d", i), A: m.node(), B: m.node(), Ohm: m.ohm()})
	}
	m.loads()
	for i := range 1 + r.IntN(3) {
		m.machine(i)
	}
	for i := range r.IntN(4) {
		m.charger(i)
	}
	for i := range r.IntN(3) {
		m.c.Add(network.Switch{Name: fmt.Sprintf("contact%d", i), A: m.node(), B: m.node(), Ohm: m.ohm(), Closed: r.IntN(2) == 0})
	}
	for i := range r.IntN(3) {
		m.c.Add(network.Diode{Name: fmt.Sprintf("diode%d", i), A: m.node(), K: m.node(), ForwardV: 0.9 * r.Float64(), Ohm: 0.002 + m.ohm()})
	}
	return m.c
}

func (m *maker) at(i int) network.Node { return m.c.Node(fmt.Sprintf("n%d", i)) }
func (m *maker) node() network.Node    { return m.at(1 + m.r.IntN(m.n)) }
func (m *maker) ohm() float64          { return math.Exp(m.r.Float64()*6 - 8) } // 0.3 mΩ to 0.14 Ω

func (m *maker) battery(name string, plus, minus network.Node) {
	b := network.Battery{Name: name, Plus: plus, Minus: minus, Volts: 10.5 + 3.5*m.r.Float64(), Ohm: m.ohm()}
	if m.r.IntN(2) == 0 {
		b.ChargeOhm = 0.01 + m.r.Float64()
	}
	if m.r.IntN(3) == 0 {
		b.MaxChargeA = 40 * m.r.Float64()
	}
	m.c.Add(b)
}

func (m *maker) loads() {
	for i := range m.r.IntN(3) {
		m.c.Add(network.CurrentLoad{Name: fmt.Sprintf("lamp%d", i), A: m.node(), Amps: 30 * m.r.Float64()})
	}
	for i := range m.r.IntN(3) {
		m.c.Add(network.PowerLoad{Name: fmt.Sprintf("fridge%d", i), A: m.node(), Watts: math.Exp(2 + 4.5*m.r.Float64())})
	}
}

// machine is a regulated source: an alternator at its node, or at the end of its lead with
// its voltage held at either end; or panels; or a supply without resistance.
func (m *maker) machine(i int) {
	name := fmt.Sprintf("machine%d", i)
	at := m.node()
	if m.r.IntN(8) == 0 {
		plus := m.c.Node(name)
		m.c.Add(network.Source{Name: name, Plus: plus, Volts: 12.5 + 2*m.r.Float64()},
			network.Resistance{Name: name + " lead", A: plus, B: at, Ohm: m.ohm()})
		return
	}
	a := network.Alternator{Name: name, Plus: at, Volts: 12.5 + 2.5*m.r.Float64(), MaxA: 180 * m.r.Float64()}
	if m.r.IntN(6) == 0 {
		a.MaxA = 0
	}
	if m.r.IntN(3) == 0 {
		a.SlopeOhm = 0.02 * m.r.Float64()
		if a.SlopeOhm < 1e-5 {
			a.SlopeOhm = 0
		}
	}
	if m.r.IntN(2) == 0 {
		a.Plus = m.c.Node(name)
		m.c.Add(network.Resistance{Name: name + " lead", A: a.Plus, B: at, Ohm: m.ohm()})
		if m.r.IntN(2) == 0 {
			a.Sense = at
		}
	}
	m.c.Add(a)
}

// charger is a converter, with where it gives to.
func (m *maker) charger(i int) {
	r := m.r
	name := fmt.Sprintf("charger%d", i)
	c := network.Converter{Name: name, InPlus: m.node(), OutV: 13.5 + 1.5*r.Float64(), MaxOutA: 5 + 95*r.Float64(), Efficiency: 0.85 +
		0.13*r.Float64()}
	if r.IntN(3) == 0 {
		c.MaxInA = c.MaxOutA * (0.4 + r.Float64())
	}
	if r.IntN(2) == 0 {
		c.CutOutV = 9 + 3.5*r.Float64()
		if r.IntN(2) == 0 {
			c.RestartV = c.CutOutV + r.Float64()
		}
	}
	// A long line to it, as to a trailer.
	if r.IntN(2) == 0 {
		far := m.c.Node(name + " in")
		m.c.Add(network.Resistance{Name: name + " line", A: c.InPlus, B: far, Ohm: 0.003 + 0.05*r.Float64()})
		c.InPlus = far
		if r.IntN(2) == 0 {
			c.InMinus = m.c.Node(name + " in-")
			m.c.Add(network.Resistance{Name: name + " return", A: c.InMinus, Ohm: 0.001 + 0.02*r.Float64()})
		}
	}
	c.OutMinus = c.InMinus
	switch r.IntN(8) {
	case 0: // back where it came from
		c.OutPlus = m.node()
		m.c.Add(c)
		return
	case 1: // to the same bank as others
		c.OutPlus = m.c.Node("house")
	case 2: // isolated, its own side floating
		c.OutPlus, c.OutMinus = m.c.Node(name+" out"), m.c.Node(name+" out-")
	default:
		c.OutPlus = m.c.Node(name + " out")
	}
	m.c.Add(c)
	if r.IntN(10) > 0 {
		m.battery(name+" bank", c.OutPlus, c.OutMinus)
	} else { // no battery behind it
		m.c.Add(network.Resistance{Name: name + " heater", A: c.OutPlus, B: c.OutMinus, Ohm: 0.3 + 5*r.Float64()})
	}
	if r.IntN(2) == 0 {
		m.c.Add(network.CurrentLoad{Name: name + " house", A: c.OutPlus, B: c.OutMinus, Amps: 15 * r.Float64()})
	}
	if r.IntN(4) == 0 {
		m.c.Add(network.Alternator{Name: name + " sun", Plus: c.OutPlus, Minus: c.OutMinus, Volts: 14.4, MaxA: 10 * float64(r.IntN(2))})
	}
	if r.IntN(6) == 0 { // another charger feeds from this one's output
		m.c.Add(network.Converter{Name: name + " next", InPlus: c.OutPlus, InMinus: c.OutMinus, OutPlus: m.c.Node(name + " next out"),
			OutMinus: c.OutMinus,
			OutV:     14, MaxOutA: 2 + 20*r.Float64(), Efficiency: 0.9})
		m.battery(name+" next bank", m.c.Node(name+" next out"), c.OutMinus)
	}
}
