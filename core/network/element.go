// Package network is a direct-current circuit and its steady state.
//
// A Circuit is nodes and elements. Every source has a resistance behind it, so the
// whole circuit is one system of nodal equations G·v = i. An element with limits (a
// regulated alternator, a diode, a charger) is in one of a few modes, each of them
// linear but for constant power; the solver finds the modes that agree with the
// voltages they lead to, and Newton's method the voltages. Currents count positive
// into the circuit at an element's plus.
package network

import "math"

// Node is a point of a circuit. Ground is zero volts.
type Node int

// Ground is the node that all voltages are measured from.
const Ground Node = 0

// edge is how far, in V, a mode may be overrun before it changes, so that an element
// that stands exactly on a bend does not change for ever.
const edge = 1e-9

// leak is the slope, in S, of an element that is at one of its limits: it keeps
// the equations solvable and carries no current that counts (1 nA at 1 V).
const leak = 1e-9

// Element is a part of a circuit.
type Element interface {
	// ElementName is what errors and netlists call it.
	ElementName() string
	// stamp adds the element's currents and slopes at voltages v in a mode.
	stamp(e *equations, v []float64, in mode)
	// next is the mode that the voltages found in a mode ask for: the same, or the
	// one beside it.
	next(v []float64, in mode) mode
	// nodes are the nodes that it joins.
	nodes() []Node
	// moved is a copy of it between other nodes.
	moved(to []Node) Element
	// spice is its line or lines in a netlist.
	spice(name func(Node) string) string
}

// mode is which of its linear pieces an element is on.
type mode int8

// The modes of a held voltage, and of a diode and a battery in kind.
const (
	regulating mode = iota // a battery gives; a diode passes
	saturated              // at its limit; a battery takes all it accepts
	idle                   // would have to turn round; a diode blocks; a battery takes
	throttled              // a converter at its input limit
)

// Resistance is a cable segment, contact, shunt, fuse or resistive load.
type Resistance struct {
	Name string
	A, B Node
	Ohm  float64 // positive
}

// Switch is a contact that opens and closes: a relay's, a fuse's element.
type Switch struct {
	Name   string
	A, B   Node
	Ohm    float64 // when closed; positive
	Closed bool
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
// the machine gives. It holds its voltage at Sense, or, where that is not given, at
// its own terminals.
type Alternator struct {
	Name        string
	Plus, Minus Node
	Sense       Node
	Volts       float64
	MaxA        float64
}

// sense is where the voltage is held.
func (a Alternator) sense() Node {
	if a.Sense == Ground {
		return a.Plus
	}
	return a.Sense
}

// RegulationOhm is how stiffly an alternator or a charger holds its voltage.
const RegulationOhm = 0.0001

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
func (w Switch) ElementName() string { return w.Name }

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
func (w Switch) nodes() []Node      { return []Node{w.A, w.B} }
func (b Battery) nodes() []Node     { return []Node{b.Plus, b.Minus} }
func (a Alternator) nodes() []Node  { return []Node{a.Plus, a.Minus, a.sense()} }
func (c Converter) nodes() []Node   { return []Node{c.InPlus, c.OutPlus, c.Minus} }
func (d Diode) nodes() []Node       { return []Node{d.A, d.K} }
func (l CurrentLoad) nodes() []Node { return []Node{l.A, l.B} }
func (l PowerLoad) nodes() []Node   { return []Node{l.A, l.B} }

func (r Resistance) stamp(e *equations, _ []float64, _ mode) { e.conductance(r.A, r.B, 1/r.Ohm) }

func (w Switch) stamp(e *equations, _ []float64, _ mode) { e.conductance(w.A, w.B, w.conductance()) }

func (w Switch) conductance() float64 {
	if w.Closed {
		return 1 / w.Ohm
	}
	return leak
}

// Current is what flows from A to B, in A.
func (w Switch) Current(v []float64) float64 { return (v[w.A] - v[w.B]) * w.conductance() }

func (Switch) next(_ []float64, in mode) mode      { return in }
func (Resistance) next(_ []float64, in mode) mode  { return in }
func (CurrentLoad) next(_ []float64, in mode) mode { return in }
func (PowerLoad) next(_ []float64, in mode) mode   { return in }

// Current is what flows from A to B, in A.
func (r Resistance) Current(v []float64) float64 { return (v[r.A] - v[r.B]) / r.Ohm }

// takingOhm is the resistance that charging the battery meets.
func (b Battery) takingOhm() float64 {
	if b.ChargeOhm > 0 {
		return b.ChargeOhm
	}
	return b.Ohm
}

// give is the current given at a terminal voltage, and its slope.
func (b Battery) give(volts float64, in mode) (amps, slope float64) {
	switch in {
	case saturated:
		return -b.MaxChargeA, -leak
	case idle:
		return (b.Volts - volts) / b.takingOhm(), -1 / b.takingOhm()
	}
	return (b.Volts - volts) / b.Ohm, -1 / b.Ohm
}

func (b Battery) next(v []float64, in mode) mode {
	over := v[b.Plus] - v[b.Minus] - b.Volts
	most := b.MaxChargeA * b.takingOhm()
	switch {
	case in == regulating && over > edge, in == saturated && over < most-edge:
		return idle
	case in == idle && over < -edge:
		return regulating
	case in == idle && b.MaxChargeA > 0 && over > most+edge:
		return saturated
	}
	return in
}

// Current is what the battery gives at voltages v, in A; negative when charged.
func (b Battery) Current(v []float64) float64 {
	volts := v[b.Plus] - v[b.Minus]
	if volts <= b.Volts {
		return (b.Volts - volts) / b.Ohm
	}
	amps := (b.Volts - volts) / b.takingOhm()
	if b.MaxChargeA > 0 {
		amps = math.Max(amps, -b.MaxChargeA)
	}
	return amps
}

func (b Battery) stamp(e *equations, v []float64, in mode) {
	amps, slope := b.give(v[b.Plus]-v[b.Minus], in)
	e.source(b.Plus, b.Minus, amps, slope, v)
}

// held is a voltage held by regulation up to a current, which never turns round:
// its current and slope in a mode.
func held(set, most, volts float64, in mode) (amps, slope float64) {
	switch in {
	case saturated:
		return most, -leak
	case idle:
		return math.Min(0, most), -leak
	}
	return (set - volts) / RegulationOhm, -1 / RegulationOhm
}

// nextHeld is the mode that a held voltage should be in. From a limit it goes back
// to regulating, never straight to the other limit.
func nextHeld(set, most, volts float64, in mode) mode {
	amps := (set - volts) / RegulationOhm
	least := math.Min(0, most)
	switch {
	case in == regulating && amps > most+edge/RegulationOhm:
		return saturated
	case in == regulating && amps < least-edge/RegulationOhm:
		return idle
	case in == saturated && amps < most-edge/RegulationOhm, in == idle && amps > least+edge/RegulationOhm:
		return regulating
	}
	return in
}

// Current is what the alternator gives at voltages v, in A.
func (a Alternator) Current(v []float64) float64 {
	amps := (a.Volts - v[a.sense()] + v[a.Minus]) / RegulationOhm
	return math.Max(math.Min(0, a.MaxA), math.Min(amps, a.MaxA))
}

func (a Alternator) stamp(e *equations, v []float64, in mode) {
	volts := v[a.sense()] - v[a.Minus]
	amps, slope := held(a.Volts, a.MaxA, volts, in)
	e.inject(a.Plus, amps-slope*volts)
	e.inject(a.Minus, slope*volts-amps)
	e.depend(a.Plus, a.sense(), a.Minus, -slope)
	e.depend(a.Minus, a.sense(), a.Minus, slope)
}

func (a Alternator) next(v []float64, in mode) mode {
	return nextHeld(a.Volts, a.MaxA, v[a.sense()]-v[a.Minus], in)
}

func (d Diode) stamp(e *equations, v []float64, in mode) {
	slope := 1 / d.Ohm
	if in == idle {
		slope = leak
	}
	// As a source at K: current −slope·over flows out of A.
	e.source(d.K, d.A, slope*(v[d.A]-v[d.K]-d.ForwardV), -slope, v)
}

func (d Diode) next(v []float64, in mode) mode {
	over := v[d.A] - v[d.K] - d.ForwardV
	switch {
	case in == regulating && over < -edge:
		return idle
	case in == idle && over > edge:
		return regulating
	}
	return in
}

func (l CurrentLoad) stamp(e *equations, v []float64, _ mode) { e.source(l.A, l.B, -l.Amps, 0, v) }

func (l PowerLoad) stamp(e *equations, v []float64, _ mode) {
	if e.bare {
		e.source(l.A, l.B, 0, -leak, v)
		return
	}
	volts := math.Max(v[l.A]-v[l.B], least)
	e.source(l.A, l.B, -l.Watts/volts, l.Watts/(volts*volts), v)
}

// least is the voltage below which a constant-power element is not followed; a
// circuit that gets there has no solution.
const least = 0.5
