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

// Converter is the converter of a name. It panics where the circuit has none such.
func (s *Solver) Converter(name string) *Converter { return handle[Converter](s, name) }

// CurrentLoad is the load of a name. It panics where the circuit has none such.
func (s *Solver) CurrentLoad(name string) *CurrentLoad { return handle[CurrentLoad](s, name) }

// Switch is the switch of a name. It panics where the circuit has none such.
func (s *Solver) Switch(name string) *Switch { return handle[Switch](s, name) }

// Wire is a resistance whose value changes, in a chain or not.
type Wire struct {
	sum *Resistance // it, or the chain that it is in
	ohm *float64    // its own
}

// Wire is the resistance of a name. It panics where the circuit has none such.
func (s *Solver) Wire(name string) *Wire {
	for i, e := range s.whole.Elements {
		r, ok := e.(Resistance)
		if !ok || r.Name != name {
			continue
		}
		if at := s.compact.place[i]; at >= 0 {
			alone := s.circuit.Elements[at].(*Resistance)
			return &Wire{alone, &alone.Ohm}
		}
		for _, run := range s.compact.chains {
			if at := slices.Index(run.links, i); at >= 0 {
				return &Wire{s.circuit.Elements[run.element].(*Resistance), &run.ohms[at]}
			}
		}
	}
	panic(fmt.Sprintf("network: %q is not a resistance of the circuit", name))
}

// Set changes its resistance, in Ω; positive.
func (w *Wire) Set(ohm float64) {
	if w.ohm != &w.sum.Ohm {
		w.sum.Ohm += ohm - *w.ohm
	}
	*w.ohm = ohm
}

// Ohm is its resistance.
func (w *Wire) Ohm() float64 { return *w.ohm }

// Current is what flows through it, from the chain's first end to its last, in A.
func (w *Wire) Current(s *Solver) float64 { return w.sum.Current(s.v) }

// Point is a node whose voltage is read after each Solve. Inner nodes of a run have
// none: read them by Volts.
type Point struct{ at Node }

// Point is the node of a name. It panics where the circuit has none such, or where it
// lies inside a run and was not kept.
func (s *Solver) Point(name string) Point {
	for n, have := range s.circuit.names {
		if have == name {
			return Point{Node(n)}
		}
	}
	panic(fmt.Sprintf("network: %q is not a node to read", name))
}

// At is a point's voltage in the last solution.
func (s *Solver) At(p Point) float64 { return s.v[p.at] }

// Stopped says whether a converter is stopped by its cut-out in the last solution.
func (s *Solver) Stopped(c *Converter) bool { return s.eq.off[c.Name] }

// Flow is a converter's currents in the last solution: drawn and given, in A.
func (s *Solver) Flow(c *Converter) (in, out float64) {
	if s.eq.off[c.Name] {
		return 0, 0
	}
	for i, e := range s.circuit.Elements {
		if e == Element(c) {
			inV, outV := c.terminals(s.v)
			f := c.flow(inV, outV, s.modes[i])
			return f.in, f.out
		}
	}
	return 0, 0
}

// Gives is what a battery or an alternator gives in the last solution, in A.
func (s *Solver) Gives(e interface{ Current(v []float64) float64 }) float64 { return e.Current(s.v) }

// Heat is what resistances and closed switches turn into heat in the last solution, in W.
func (s *Solver) Heat() float64 {
	watts := 0.0
	for _, e := range s.circuit.Elements {
		switch e := e.(type) {
		case *Resistance:
			u := s.v[e.A] - s.v[e.B]
			watts += u * u / e.Ohm
		case *Switch:
			u := s.v[e.A] - s.v[e.B]
			watts += u * u * e.conductance()
		}
	}
	return watts
}
