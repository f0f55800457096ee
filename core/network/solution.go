package network

import (
	"fmt"
	"slices"
)

// Solution is the point at which a circuit works.
type Solution struct {
	Volts      []float64 // by node
	circuit    *Circuit
	through    []float64 // by element
	converting []Converting
}

// Converting is what a converter does.
type Converting struct {
	Name    string
	Status  Status
	InA     float64 // drawn at its input
	OutA    float64 // given at its output
	Limited bool    // at its input limit
	SeesV   float64 // at its input
	StartsV float64 // what it starts at
	// With are the converters beside which one that hunts cannot stay on, though with one
	// of them off it could.
	With []string
}

// Solution is the last solution, copied.
func (s *Solver) Solution() Solution {
	out := Solution{Volts: slices.Clone(s.Volts()), circuit: s.whole, through: make([]float64, len(s.whole.Elements))}
	for i := range s.ports {
		if c := s.ports[i].converter; c != nil {
			out.converting = append(out.converting, s.Converting(c))
		}
	}
	for i, at := range s.compact.place {
		if at >= 0 {
			out.through[i] = s.through(s.circuit.Elements[at])
		}
	}
	for _, run := range s.compact.chains {
		amps := s.through(s.circuit.Elements[run.element])
		at := run.from
		for _, i := range run.links {
			r := s.whole.Elements[i].(Resistance)
			out.through[i] = amps
			if r.A == at {
				at = r.B
			} else {
				out.through[i], at = -amps, r.A
			}
		}
	}
	s.fromSources(out.through)
	return out
}

// through is what flows through an element, or what it gives.
func (s *Solver) through(e Element) float64 {
	switch e := e.(type) {
	case *Converter:
		return s.Converting(e).OutA
	case *PowerLoad:
		return s.Draws(e)
	case interface{ Current(v []float64) float64 }:
		return e.Current(s.v)
	}
	return 0
}

// fromSources fills in what sources without resistance give: what all else takes at their
// ends, the outermost first.
func (s *Solver) fromSources(through []float64) {
	into := make([]float64, len(s.whole.names))
	open := map[int]Source{}
	for i, e := range s.whole.Elements {
		if source, ok := e.(Source); ok {
			open[i] = source
			continue
		}
		var draws float64
		if c, ok := e.(Converter); ok {
			draws = s.Converting(s.circuit.Elements[s.compact.place[i]].(*Converter)).InA
			into[c.InPlus] -= draws
			into[c.InMinus] += draws
		}
		plus, minus := gives(e)
		into[plus] += through[i]
		into[minus] -= through[i]
	}
	alone := func(n Node) bool {
		meet := 0
		for _, source := range open {
			if source.Plus == n || source.Minus == n {
				meet++
			}
		}
		return n != Ground && meet == 1
	}
	for len(open) > 0 {
		for i, source := range open {
			amps := 0.0
			switch {
			case alone(source.Plus):
				amps = -into[source.Plus]
			case alone(source.Minus):
				amps = into[source.Minus]
			default:
				continue
			}
			through[i] = amps
			into[source.Plus] += amps
			into[source.Minus] -= amps
			delete(open, i)
		}
	}
}

// gives are the nodes that an element's current flows into and out of.
func gives(e Element) (into, outOf Node) {
	switch e := e.(type) {
	case Resistance:
		return e.B, e.A
	case Switch:
		return e.B, e.A
	case Source:
		return e.Plus, e.Minus
	case Battery:
		return e.Plus, e.Minus
	case Alternator:
		return e.Plus, e.Minus
	case Converter:
		return e.OutPlus, e.OutMinus
	case Diode:
		return e.K, e.A
	case CurrentLoad:
		return e.B, e.A
	case PowerLoad:
		return e.B, e.A
	}
	return Ground, Ground
}

// At is the voltage of a node by its name. Unknown names are an error.
func (s Solution) At(node string) (float64, error) {
	if s.circuit == nil {
		return 0, errUnsolved
	}
	n, err := s.circuit.find(node)
	if err != nil {
		return 0, err
	}
	return s.Volts[n], nil
}

var errUnsolved = fmt.Errorf("the circuit was not solved")

// Across is the voltage of one node above another. Unknown names are an error.
func (s Solution) Across(plus, minus string) (float64, error) {
	high, err := s.At(plus)
	if err != nil {
		return 0, err
	}
	low, err := s.At(minus)
	return high - low, err
}

// Through is what flows through an element by its name, in A: from A to B, or through a
// diode, or what a battery, an alternator or a source gives at its plus, or a converter at
// its output. Unknown names are an error.
func (s Solution) Through(element string) (float64, error) {
	i, err := s.find(element)
	if err != nil {
		return 0, err
	}
	return s.through[i], nil
}

// Power is what an element gives to the rest of the circuit, in W: negative where it takes
// or loses. Unknown names are an error.
func (s Solution) Power(element string) (float64, error) {
	i, err := s.find(element)
	if err != nil {
		return 0, err
	}
	e := s.circuit.Elements[i]
	into, outOf := gives(e)
	watts := s.through[i] * (s.Volts[into] - s.Volts[outOf])
	if c, ok := e.(Converter); ok {
		at, err := s.Converting(c.Name)
		if err != nil {
			return 0, err
		}
		watts -= at.InA * (s.Volts[c.InPlus] - s.Volts[c.InMinus])
	}
	return watts, nil
}

// Converting is what a converter does, by its name. Unknown names are an error.
func (s Solution) Converting(name string) (Converting, error) {
	for _, c := range s.converting {
		if c.Name == name {
			return c, nil
		}
	}
	return Converting{}, fmt.Errorf("%q is not a converter of the circuit", name)
}

// Resting are the converters that are off, or hunt.
func (s Solution) Resting() (names []string) {
	for _, c := range s.converting {
		if c.Status != Runs {
			names = append(names, c.Name)
		}
	}
	return names
}

// All are the converters and what they do.
func (s Solution) All() []Converting { return s.converting }

func (s Solution) find(element string) (int, error) {
	if s.circuit == nil {
		return 0, errUnsolved
	}
	for i, e := range s.circuit.Elements {
		if e.ElementName() == element {
			return i, nil
		}
	}
	return 0, fmt.Errorf("%q is not an element of the circuit", element)
}
