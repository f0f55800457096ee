package network

import (
	"fmt"
	"slices"
)

// Circuit is nodes by name and the elements between them.
type Circuit struct {
	names    []string
	byName   map[string]Node
	kept     []Node
	Elements []Element
}

// New is an empty circuit with its ground.
func New() *Circuit {
	return &Circuit{names: []string{"0"}, byName: map[string]Node{"0": Ground}}
}

// Node returns the node of a name, made where there is none; "0" is Ground.
func (c *Circuit) Node(name string) Node {
	n, ok := c.byName[name]
	if !ok {
		n = Node(len(c.names))
		c.names = append(c.names, name)
		c.byName[name] = n
	}
	return n
}

// find is the node of a name that the circuit has.
func (c *Circuit) find(name string) (Node, error) {
	if n, ok := c.byName[name]; ok {
		return n, nil
	}
	return 0, fmt.Errorf("%q is not a node of the circuit", name)
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

// check refuses values that no circuit has.
func (c *Circuit) check() error {
	seen := make(map[string]bool, len(c.Elements))
	for _, e := range c.Elements {
		name := e.ElementName()
		if name == "" || seen[name] {
			return &Error{Element: fmt.Sprintf("%q", name), Why: "names must be given, once each"}
		}
		seen[name] = true
		if err := e.sensible(); err != nil {
			return err
		}
		at := e.ends()
		for _, n := range at.all() {
			if n < 0 || int(n) >= len(c.names) {
				return &Error{Element: name, Why: "joins a node that the circuit does not have"}
			}
		}
	}
	return nil
}

// islands numbers the parts of a circuit that no current joins; ground's is 0. A part
// that is not ground's hangs on an isolated converter, or floats.
func (c *Circuit) islands() (of []int, count int) {
	parent := make([]int, len(c.names))
	for i := range parent {
		parent[i] = i
	}
	find := func(n int) int {
		for parent[n] != n {
			parent[n] = parent[parent[n]]
			n = parent[n]
		}
		return n
	}
	for _, e := range c.Elements {
		at := e.ends()
		for i, n := range at.all() {
			if i == 0 || i == at.first {
				continue
			}
			a, b := find(int(at.nodes[i-1])), find(int(n))
			parent[max(a, b)] = min(a, b)
		}
	}
	of = make([]int, len(c.names))
	for n := range of {
		if top := find(n); top == n {
			of[n] = count
			count++
		} else {
			of[n] = of[top] // the top of a part is the first of it
		}
	}
	return of, count
}

// grounded refuses a part that neither reaches ground nor is fed by a converter: it
// floats, and has no voltage that means anything. It returns a node of each part that a
// converter feeds, for its voltages to be counted from.
func (c *Circuit) grounded() (zeros []Node, err error) {
	of, count := c.islands()
	zero := make([]Node, count)
	for _, e := range c.Elements {
		if conv, ok := e.(Converter); ok {
			for _, minus := range []Node{conv.InMinus, conv.OutMinus} {
				if zero[of[minus]] == Ground {
					zero[of[minus]] = minus
				}
			}
		}
	}
	for n, island := range of {
		if island != 0 && zero[island] == Ground {
			return nil, &Error{Element: c.at(Node(n)), Why: fmt.Sprintf("floats: node %s has no way to ground", c.names[n])}
		}
	}
	return zero[1:], nil
}

// at is the first element that joins a node.
func (c *Circuit) at(n Node) string {
	for _, e := range c.Elements {
		if at := e.ends(); slices.Contains(at.all(), n) {
			return e.ElementName()
		}
	}
	return "node " + c.names[n]
}
