// Package network is a direct-current circuit and the point at which it comes to work
// when it is switched on from rest.
//
// A Circuit is nodes and elements. Batteries, alternators, diodes and loads follow laws
// made of straight pieces (law.go); laid on resistances they have one solution, which
// is walked to piece by piece (walk.go). Converters and constant-power loads draw more
// the less they are given, so that there may be several points, or none: each draw is
// raised from nothing until it suffices (draw.go), which finds the point that a
// circuit reaches when all of them are ramped up together. What cannot start, or starts
// and drops out again, is told apart from what asks too much (running.go).
package network

// Node is a point of a circuit. Ground is zero volts.
type Node int

// Ground is the node that all voltages are measured from.
const Ground Node = 0

// leak is the conductance, in S, of an open switch and of an element at one of its
// limits: it keeps the equations solvable and carries no current that counts (0.1 µA
// at 10 V).
const leak = 1e-8

// LeastV is the voltage, in V, below which a load or a converter's input behaves like a
// resistance: nothing works there.
const LeastV = 0.5

// RegulationOhm is how stiffly a voltage is held by an alternator that does not say, and
// by every converter.
const RegulationOhm = 0.0001

// Element is a part of a circuit.
type Element interface {
	// ElementName is what errors and netlists call it.
	ElementName() string
	// ends are the nodes that it joins.
	ends() ends
	// moved is a copy of it between other nodes.
	moved(to []Node) Element
	// sensible refuses values that no such element has.
	sensible() error
	// spice is its line or lines in a netlist.
	spice(name func(Node) string, ramp string) string
}

// Resistance is a cable segment, contact, shunt, fuse or resistive load.
type Resistance struct {
	Name string
	A, B Node
	Ohm  float64
}

// Switch is a contact that opens and closes: a relay's, a fuse's element.
type Switch struct {
	Name   string
	A, B   Node
	Ohm    float64 // when closed
	Closed bool
}

// Source holds a voltage whatever it gives or takes: a supply without resistance.
type Source struct {
	Name        string
	Plus, Minus Node
	Volts       float64
}

// Battery is a voltage behind a resistance. Charging it may meet another
// resistance, and more than MaxChargeA it does not accept.
type Battery struct {
	Name        string
	Plus, Minus Node
	Volts       float64 // its own, at this state of charge
	Ohm         float64 // when it gives
	ChargeOhm   float64 // when it takes; 0 means the same
	MaxChargeA  float64 // 0 means no limit
}

// Alternator is a regulated voltage with a limit to its current, which never turns
// round. It holds its voltage at Sense, or, where that is not given, at its own
// terminals, and gives way by SlopeOhm.
type Alternator struct {
	Name        string
	Plus, Minus Node
	Sense       Node
	Volts       float64
	MaxA        float64 // 0: it stands
	SlopeOhm    float64 // 0 means RegulationOhm
}

// sense is where the voltage is held.
func (a Alternator) sense() Node {
	if a.Sense == Ground {
		return a.Plus
	}
	return a.Sense
}

func (a Alternator) slope() float64 {
	if a.SlopeOhm > 0 {
		return a.SlopeOhm
	}
	return RegulationOhm
}

// Converter is a DC-DC charger: it holds OutV up to MaxOutA and draws at its input
// the power that this takes, at most MaxInA. It starts when its input is at RestartV or
// above and stops when that falls below CutOutV. An isolated one has different minuses.
type Converter struct {
	Name              string
	InPlus, InMinus   Node
	OutPlus, OutMinus Node
	OutV, MaxOutA     float64
	Efficiency        float64 // above 0, up to 1
	MaxInA            float64 // 0 means no limit
	CutOutV           float64 // 0: it never stops by itself
	RestartV          float64 // below CutOutV, as 0: the same as that
}

// startsV is the input at which a converter starts.
func (c Converter) startsV() float64 { return max(c.RestartV, c.CutOutV) }

// Diode lets current pass from A to K beyond its forward voltage.
type Diode struct {
	Name     string
	A, K     Node
	ForwardV float64
	Ohm      float64
}

// CurrentLoad draws a current, down to LeastV.
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
func (w Switch) ElementName() string { return w.Name }

// ElementName is the element's name.
func (s Source) ElementName() string { return s.Name }

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

// ends are an element's nodes: the first few are of one side, the rest of another, which no
// current crosses to.
type ends struct {
	nodes        [4]Node
	first, count int
}

func (e ends) all() []Node { return e.nodes[:e.count] }

func joins(a, b Node) ends { return ends{[4]Node{a, b}, 2, 2} }

func (r Resistance) ends() ends  { return joins(r.A, r.B) }
func (w Switch) ends() ends      { return joins(w.A, w.B) }
func (s Source) ends() ends      { return joins(s.Plus, s.Minus) }
func (b Battery) ends() ends     { return joins(b.Plus, b.Minus) }
func (a Alternator) ends() ends  { return ends{[4]Node{a.Plus, a.Minus, a.sense()}, 3, 3} }
func (d Diode) ends() ends       { return joins(d.A, d.K) }
func (l CurrentLoad) ends() ends { return joins(l.A, l.B) }
func (l PowerLoad) ends() ends   { return joins(l.A, l.B) }
func (c Converter) ends() ends {
	return ends{[4]Node{c.InPlus, c.InMinus, c.OutPlus, c.OutMinus}, 2, 4}
}

func (r Resistance) moved(to []Node) Element {
	r.A, r.B = to[r.A], to[r.B]
	return &r
}

func (w Switch) moved(to []Node) Element {
	w.A, w.B = to[w.A], to[w.B]
	return &w
}

func (s Source) moved(to []Node) Element {
	s.Plus, s.Minus = to[s.Plus], to[s.Minus]
	return &s
}

func (b Battery) moved(to []Node) Element {
	b.Plus, b.Minus = to[b.Plus], to[b.Minus]
	return &b
}

func (a Alternator) moved(to []Node) Element {
	a.Plus, a.Minus, a.Sense = to[a.Plus], to[a.Minus], to[a.sense()]
	return &a
}

func (c Converter) moved(to []Node) Element {
	c.InPlus, c.InMinus, c.OutPlus, c.OutMinus = to[c.InPlus], to[c.InMinus], to[c.OutPlus], to[c.OutMinus]
	return &c
}

func (d Diode) moved(to []Node) Element {
	d.A, d.K = to[d.A], to[d.K]
	return &d
}

func (l CurrentLoad) moved(to []Node) Element {
	l.A, l.B = to[l.A], to[l.B]
	return &l
}

func (l PowerLoad) moved(to []Node) Element {
	l.A, l.B = to[l.A], to[l.B]
	return &l
}
