package network

import (
	"fmt"
	"math"
	"slices"
)

// Circuit is nodes by name and the elements between them.
type Circuit struct {
	names    []string
	kept     []Node
	Elements []Element
}

// New is an empty circuit with its ground.
func New() *Circuit { return &Circuit{names: []string{"0"}} }

// Node returns the node of a name, made where there is none; "0" is Ground.
func (c *Circuit) Node(name string) Node {
	if i := slices.Index(c.names, name); i >= 0 {
		return Node(i)
	}
	c.names = append(c.names, name)
	return Node(len(c.names) - 1)
}

// Keep makes the nodes of these names ones that Solver.Point can read, whatever meets
// there.
func (c *Circuit) Keep(names ...string) {
	for _, name := range names {
		c.kept = append(c.kept, c.Node(name))
	}
}

// Names lists the nodes' names, Ground first.
func (c *Circuit) Names() []string { return c.names }

// Add puts elements in.
func (c *Circuit) Add(elements ...Element) { c.Elements = append(c.Elements, elements...) }

// Error is a circuit that has no solution, or makes no sense, and the element
// that it turns on.
type Error struct {
	Element string
	Why     string
}

func (e *Error) Error() string { return e.Element + ": " + e.Why }

// check refuses values that no circuit has.
func (c *Circuit) check() error {
	seen := map[string]bool{}
	for _, e := range c.Elements {
		name := e.ElementName()
		if name == "" || seen[name] {
			return &Error{fmt.Sprintf("%q", name), "names must be given, once each"}
		}
		seen[name] = true
		if err := sensible(e); err != nil {
			return err
		}
		for _, n := range e.nodes() {
			if n < 0 || int(n) >= len(c.names) {
				return &Error{name, "joins a node that the circuit does not have"}
			}
		}
	}
	return nil
}

// sensible checks an element's values: finite, and positive where they must be.
func sensible(e Element) error {
	positive := func(values ...float64) error {
		for _, v := range values {
			if !(v > 0) || math.IsInf(v, 0) {
				return &Error{e.ElementName(), fmt.Sprintf("%g must be positive and finite", v)}
			}
		}
		return nil
	}
	finite := func(values ...float64) error {
		for _, v := range values {
			if math.IsNaN(v) || math.IsInf(v, 0) {
				return &Error{e.ElementName(), "a value is not finite"}
			}
		}
		return nil
	}
	switch e := e.(type) {
	case Resistance:
		return positive(e.Ohm)
	case Switch:
		return positive(e.Ohm)
	case Battery:
		if err := finite(e.Volts, e.ChargeOhm, e.MaxChargeA); err != nil {
			return err
		}
		return positive(e.Ohm)
	case Alternator:
		return finite(e.Volts, e.MaxA)
	case Converter:
		if err := finite(e.MaxInA, e.CutOutV); err != nil {
			return err
		}
		return positive(e.OutV, e.MaxOutA, e.Efficiency)
	case Diode:
		if err := finite(e.ForwardV); err != nil {
			return err
		}
		return positive(e.Ohm)
	case CurrentLoad:
		return finite(e.Amps)
	case PowerLoad:
		return finite(e.Watts)
	}
	return nil
}

// grounded says that every node reaches ground through elements; a part that
// floats has no voltage that means anything.
func (c *Circuit) grounded() error {
	reached := make([]bool, len(c.names))
	reached[Ground] = true
	for again := true; again; {
		again = false
		for _, e := range c.Elements {
			nodes := e.nodes()
			touches := slices.ContainsFunc(nodes, func(n Node) bool { return reached[n] })
			for _, n := range nodes {
				if touches && !reached[n] {
					reached[n], again = true, true
				}
			}
		}
	}
	for n, ok := range reached {
		if !ok {
			return &Error{c.at(Node(n)), fmt.Sprintf("floats: node %s has no way to ground", c.names[n])}
		}
	}
	return nil
}

// at is the first element that joins a node.
func (c *Circuit) at(n Node) string {
	for _, e := range c.Elements {
		if slices.Contains(e.nodes(), n) {
			return e.ElementName()
		}
	}
	return "node " + c.names[n]
}
