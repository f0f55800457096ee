// Package network is a direct-current circuit and its steady state.
//
// A Circuit is nodes and elements. Every source has a resistance behind it, so the
// whole circuit is one system of nodal equations G·v = i. Elements that are not
// linear give their current and its slope at a voltage; Newton's method does the
// rest. Currents count positive into the circuit at an element's plus.
package network

import "math"

// Node is a point of a circuit. Ground is zero volts.
type Node int

// Ground is the node that all voltages are measured from.
const Ground Node = 0

// leak is the slope, in S, of an element that is at one of its limits: it keeps
// the equations solvable and carries no current that counts (1 nA at 1 V).
const leak = 1e-9

// Element is a part of a circuit.
type Element interface {
	// ElementName is what errors and netlists call it.
	ElementName() string
	// stamp adds the element's currents and slopes at voltages v.
	stamp(e *equations, v []float64)
	// nodes are the nodes that it joins.
	nodes() []Node
	// spice is its line or lines in a netlist.
	spice(name func(Node) string) string
}

// Resistance is a cable segment, contact, shunt, fuse or resistive load.
type Resistance struct {
	Name string
	A, B Node
	Ohm  float64 // positive
}

// Battery is a voltage behind a resistance. Charging it may meet another
// resistance, and more than MaxChargeA it does not accept.
type Battery struct {
	Name        string
	Plus, Minus Node
	Volts       float64 // its own, at this state of charge
	Ohm         float64 // when it gives; positive
	ChargeOhm   float64 // when it takes; 0 means the same
	MaxChargeA  float64 // 0 means no limit
}

// Alternator is a regulated voltage with a limit to its current. MaxA is what it
// has left for the circuit: it may be negative where the vehicle takes more than
// the machine gives.
type Alternator struct {
	Name        string
	Plus, Minus Node
	Volts       float64
	MaxA        float64
}

// regulationOhm is how stiffly an alternator or a charger holds its voltage.
const regulationOhm = 0.0005

// Converter is a DC-DC charger: it holds OutV up to MaxOutA and draws at its input
// the power that this takes, at most MaxInA. Below CutOutV at its input it stops.
type Converter struct {
	Name            string
	InPlus, OutPlus Node
	Minus           Node // common to both sides
	OutV, MaxOutA   float64
	Efficiency      float64 // 0 to 1
	MaxInA          float64 // 0 means no limit
	CutOutV         float64
}

// Diode lets current pass from A to K beyond its forward voltage.
type Diode struct {
	Name     string
	A, K     Node
	ForwardV float64
	Ohm      float64 // positive
}

// CurrentLoad draws a current.
type CurrentLoad struct {
	Name string
	A, B Node
	Amps float64
}

// PowerLoad draws a power: less voltage, more current.
type PowerLoad struct {
	Name  string
	A, B  Node
	Watts float64
}

// ElementName is the element's name.
func (r Resistance) ElementName() string { return r.Name }

// ElementName is the element's name.
func (b Battery) ElementName() string { return b.Name }

// ElementName is the element's name.
func (a Alternator) ElementName() string { return a.Name }

// ElementName is the element's name.
func (c Converter) ElementName() string { return c.Name }

// ElementName is the element's name.
func (d Diode) ElementName() string { return d.Name }

// ElementName is the element's name.
func (l CurrentLoad) ElementName() string { return l.Name }

// ElementName is the element's name.
func (l PowerLoad) ElementName() string { return l.Name }

func (r Resistance) nodes() []Node  { return []Node{r.A, r.B} }
func (b Battery) nodes() []Node     { return []Node{b.Plus, b.Minus} }
func (a Alternator) nodes() []Node  { return []Node{a.Plus, a.Minus} }
func (c Converter) nodes() []Node   { return []Node{c.InPlus, c.OutPlus, c.Minus} }
func (d Diode) nodes() []Node       { return []Node{d.A, d.K} }
func (l CurrentLoad) nodes() []Node { return []Node{l.A, l.B} }
func (l PowerLoad) nodes() []Node   { return []Node{l.A, l.B} }

func (r Resistance) stamp(e *equations, _ []float64) { e.conductance(r.A, r.B, 1/r.Ohm) }

// Current is what flows from A to B, in A.
func (r Resistance) Current(v []float64) float64 { return (v[r.A] - v[r.B]) / r.Ohm }

// Current is what the battery gives, in A; negative when it is charged.
func (b Battery) Current(v []float64) float64 {
	i, _ := b.give(v[b.Plus] - v[b.Minus])
	return i
}

// give is the current given at a terminal voltage, and its slope.
func (b Battery) give(volts float64) (amps, slope float64) {
	ohm := b.Ohm
	if volts > b.Volts && b.ChargeOhm > 0 {
		ohm = b.ChargeOhm
	}
	amps = (b.Volts - volts) / ohm
	if b.MaxChargeA > 0 && amps < -b.MaxChargeA {
		return -b.MaxChargeA, -leak
	}
	return amps, -1 / ohm
}

func (b Battery) stamp(e *equations, v []float64) {
	amps, slope := b.give(v[b.Plus] - v[b.Minus])
	e.source(b.Plus, b.Minus, amps, slope, v)
}

// Current is what the alternator gives, in A.
func (a Alternator) Current(v []float64) float64 {
	i, _ := held(a.Volts, a.MaxA, v[a.Plus]-v[a.Minus], regulationOhm)
	return i
}

// held is a voltage held by regulation, as stiffly as ohm says, up to a current,
// which never turns round.
func held(set, most, volts, ohm float64) (amps, slope float64) {
	amps = (set - volts) / ohm
	switch least := math.Min(0, most); {
	case amps >= most:
		return most, -leak
	case amps <= least:
		return least, -leak
	}
	return amps, -1 / ohm
}

func (a Alternator) stamp(e *equations, v []float64) {
	amps, slope := held(a.Volts, a.MaxA, v[a.Plus]-v[a.Minus], regulationOhm*e.soft)
	e.source(a.Plus, a.Minus, amps, slope, v)
}

func (d Diode) stamp(e *equations, v []float64) {
	over := v[d.A] - v[d.K] - d.ForwardV
	slope := leak
	if over > 0 {
		slope = 1 / (d.Ohm * e.soft)
	}
	// As a source at K: current −slope·over flows out of A.
	e.source(d.K, d.A, slope*over, -slope, v)
}

func (l CurrentLoad) stamp(e *equations, v []float64) { e.source(l.A, l.B, -l.Amps, 0, v) }

func (l PowerLoad) stamp(e *equations, v []float64) {
	volts := math.Max(v[l.A]-v[l.B], least)
	slope := l.Watts / (volts * volts)
	if e.lagged {
		slope = 0
	}
	e.source(l.A, l.B, -l.Watts/volts, slope, v)
}

// least is the voltage below which a constant-power element is not followed; a
// circuit that gets there has no solution.
const least = 0.5
