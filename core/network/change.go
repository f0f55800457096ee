package network

import (
	"fmt"
	"slices"
)

// Handles to the elements of a circuit that is solved again and again while their
// values change. An element is found once by its name; what it points to takes part in
// the next Solve. Values must stay sensible, as NewSolver asks; nodes must not change.

// handle finds an element that is not inside a chain.
func handle[E any](s *Solver, name string) *E {
	for i, e := range s.whole.Elements {
		if e.ElementName() != name {
			continue
		}
		if at := s.compact.place[i]; at >= 0 {
			if found, ok := s.circuit.Elements[at].(any).(*E); ok {
				return found
			}
		}
	}
	panic(fmt.Sprintf("network: %q is not such an element of the circuit", name))
}

// Battery is the battery of a name. It panics where the circuit has none such.
func (s *Solver) Battery(name string) *Battery { return handle[Battery](s, name) }

// Alternator is the alternator of a name. It panics where the circuit has none such.
func (s *Solver) Alternator(name string) *Alternator { return handle[Alternator](s, name) }

// Source is the source of a name. It panics where the circuit has none such.
func (s *Solver) Source(name string) *Source { return handle[Source](s, name) }

// Converter is the converter of a name. It panics where the circuit has none such.
func (s *Solver) Converter(name string) *Converter { return handle[Converter](s, name) }

// Diode is the diode of a name. It panics where the circuit has none such.
func (s *Solver) Diode(name string) *Diode { return handle[Diode](s, name) }

// CurrentLoad is the load of a name. It panics where the circuit has none such.
func (s *Solver) CurrentLoad(name string) *CurrentLoad { return handle[CurrentLoad](s, name) }

// PowerLoad is the load of a name. It panics where the circuit has none such.
func (s *Solver) PowerLoad(name string) *PowerLoad { return handle[PowerLoad](s, name) }

// Switch is the switch of a name. It panics where the circuit has none such.
func (s *Solver) Switch(name string) *Switch { return handle[Switch](s, name) }

// Wire is a resistance whose value changes, in a chain or not.
type Wire struct {
	sum  *Resistance // it, or the chain that it is in
	ohms []float64   // of all in the chain; nil where it is alone
	at   int
	sign float64 // of the chain's direction in it
}

// Wire is the resistance of a name. It panics where the circuit has none such.
func (s *Solver) Wire(name string) *Wire {
	if w, ok := s.Resistance(name); ok {
		return w
	}
	panic(fmt.Sprintf("network: %q is not a resistance of the circuit", name))
}

// Resistance is the resistance of a name; ok is false where the circuit has none such.
func (s *Solver) Resistance(name string) (w *Wire, ok bool) {
	for i, e := range s.whole.Elements {
		r, ok := e.(Resistance)
		if !ok || r.Name != name {
			continue
		}
		if at := s.compact.place[i]; at >= 0 {
			return &Wire{sum: s.circuit.Elements[at].(*Resistance), sign: 1}, true
		}
		for _, run := range s.compact.chains {
			if at := slices.Index(run.links, i); at >= 0 {
				sign := 1.0
				if before := append([]Node{run.from}, run.nodes...)[at]; r.A != before {
					sign = -1
				}
				return &Wire{s.circuit.Elements[run.element].(*Resistance), run.ohms, at, sign}, true
			}
		}
	}
	return nil, false
}

// Set changes its resistance, in Ω; positive.
func (w *Wire) Set(ohm float64) {
	if w.ohms == nil {
		w.sum.Ohm = ohm
		return
	}
	if w.ohms[w.at] == ohm {
		return
	}
	w.ohms[w.at] = ohm
	// Summed anew, so that what was open before leaves no rounding behind.
	w.sum.Ohm = 0
	for _, each := range w.ohms {
		w.sum.Ohm += each
	}
}

// Ohm is its resistance.
func (w *Wire) Ohm() float64 {
	if w.ohms == nil {
		return w.sum.Ohm
	}
	return w.ohms[w.at]
}

// Current is what flows through it from A to B in the last solution, in A.
func (w *Wire) Current(s *Solver) float64 { return w.sign * w.sum.Current(s.v) }

// Point is a node whose voltage is read after each Solve. Inner nodes of a run have
// none: read them by Volts.
type Point struct{ at Node }

// Point is the node of a name. It panics where the circuit has none such, or where it
// lies inside a run and was not kept.
func (s *Solver) Point(name string) Point {
	n, err := s.circuit.find(name)
	if err != nil {
		panic(fmt.Sprintf("network: %q is not a node to read", name))
	}
	return Point{n}
}

// At is a point's voltage in the last solution.
func (s *Solver) At(p Point) float64 { return s.v[p.at] }

// Volts are the voltages of the last solution, by node of the whole circuit. They hold
// until the next one.
func (s *Solver) Volts() []float64 {
	s.compact.expand(s.v, s.volts)
	return s.volts
}

// Converting is what a converter does in the last solution.
func (s *Solver) Converting(c *Converter) Converting {
	for i := range s.ports {
		p := &s.ports[i]
		if p.converter != c {
			continue
		}
		t := s.terminals(p)
		out := Converting{Name: c.Name, SeesV: t.inV, StartsV: c.startsV(), With: p.with}
		switch {
		case p.on:
			out.InA, out.OutA, out.Limited = p.drawA, max(0, t.outA), c.MaxInA > 0 && p.drawA >= c.MaxInA && p.mostA < p.capA
		case p.hunts:
			out.Status = Hunting
		default:
			out.Status = Off
		}
		return out
	}
	panic(fmt.Sprintf("network: %q is not a converter of the circuit", c.Name))
}

// Draws is what a load of a power draws in the last solution, in A.
func (s *Solver) Draws(l *PowerLoad) float64 {
	for i := range s.ports {
		if s.ports[i].power == l {
			return s.ports[i].drawA
		}
	}
	panic(fmt.Sprintf("network: %q is not a load of the circuit", l.Name))
}

// Gives is what a battery, an alternator, a diode, a switch, a resistance or a load of a
// current gives or lets through in the last solution, in A.
func (s *Solver) Gives(e interface{ Current(v []float64) float64 }) float64 { return e.Current(s.v) }

// Follows is how far what a battery gives follows its own voltage in the last solution, in
// A/V, as long as no bend is passed and powers draw what they drew.
func (s *Solver) Follows(b *Battery) float64 {
	for i := range s.g.devices {
		d := &s.g.devices[i]
		if s.circuit.Elements[d.element] != Element(b) {
			continue
		}
		own := -d.law.slope[d.at]
		if s.g.push(d.to, d.from, 1) != nil {
			return own
		}
		return max(0, own*(1-own*(s.g.way[d.to]-s.g.way[d.from])))
	}
	panic(fmt.Sprintf("network: %q is not a battery of the circuit", b.Name))
}

// Drop is the voltage that stands across a diode.
func (s *Solver) Drop(d *Diode) float64 { return s.v[d.A] - s.v[d.K] }

// Heat is what resistances and closed switches turn into heat in the last solution, in W.
func (s *Solver) Heat() float64 {
	watts := 0.0
	for i := range s.g.links {
		l := &s.g.links[i]
		u := s.v[l.nodeA] - s.v[l.nodeB]
		watts += u * u * l.s
	}
	return watts
}

// Current is what flows from A to B at voltages v by node, in A.
func (r Resistance) Current(v []float64) float64 { return (v[r.A] - v[r.B]) / r.Ohm }

// Current is what flows from A to B at voltages v by node, in A.
func (w Switch) Current(v []float64) float64 { return (v[w.A] - v[w.B]) * w.conductance() }

// Current is what the battery gives at voltages v by node, in A; negative when charged.
func (b Battery) Current(v []float64) float64 {
	l := b.givesLaw()
	u := v[b.Plus] - v[b.Minus]
	return l.at(l.piece(u), u)
}

// Current is what the alternator gives at voltages v by node, in A.
func (a Alternator) Current(v []float64) float64 {
	if a.MaxA <= leak {
		return 0
	}
	l := a.givesLaw()
	u := v[a.sense()] - v[a.Minus]
	return l.at(l.piece(u), u)
}

// Current is what passes the diode at voltages v by node, in A.
func (d Diode) Current(v []float64) float64 {
	l := d.passesLaw()
	u := v[d.A] - v[d.K]
	return l.at(l.piece(u), u)
}

// Current is what the load draws at voltages v by node, in A.
func (l CurrentLoad) Current(v []float64) float64 {
	draws := l.drawsLaw()
	u := v[l.A] - v[l.B]
	return draws.at(draws.piece(u), u)
}

// Now is the circuit with its values and switches as they are.
func (s *Solver) Now() *Circuit {
	c := &Circuit{names: s.whole.names, byName: s.whole.byName}
	for i, e := range s.whole.Elements {
		if at := s.compact.place[i]; at >= 0 {
			c.Add(s.valuesOf(s.circuit.Elements[at]))
		} else {
			r := e.(Resistance)
			r.Ohm = s.Wire(r.Name).Ohm()
			c.Add(r)
		}
	}
	return c
}

// valuesOf is an element of the compact circuit as one of the whole.
func (s *Solver) valuesOf(small Element) Element {
	back := make([]Node, len(s.circuit.names))
	for n, at := range s.compact.node {
		if at != inner {
			back[at] = Node(n)
		}
	}
	return valueOf(valueOf(small).moved(back))
}
