package network

import "slices"

// compact is a circuit without the nodes at which two resistances meet and nothing
// else: each chain of them is one resistance, and the voltages inside it follow from
// those at its ends. It has a third of the nodes of a run with its joints, and its
// elements are pointers, so that their values can change between solutions.
type compact struct {
	circuit *Circuit
	node    []Node // by node of the whole circuit: the node here; inner ones have none
	place   []int  // by element of the whole circuit: its place here; -1 in a chain
	chains  []chain
}

// inner marks a node that is inside a chain.
const inner Node = -1

// chain is resistances in series: the nodes inside it, in order, and how far along it
// each is.
type chain struct {
	element int // its resistance, here
	from    Node
	to      Node // of the whole circuit
	nodes   []Node
	links   []int     // the resistances, by place in the whole circuit
	ohms    []float64 // what they are now
}

// reduce takes the inner nodes out of a circuit, but for those to keep.
func reduce(whole *Circuit, keep []Node) *compact {
	c := &compact{circuit: New(), node: make([]Node, len(whole.names)), place: make([]int, len(whole.Elements))}
	// The first two elements at each node, and how many there are.
	touching := make([][2]int, len(whole.names))
	meet := make([]int, len(whole.names))
	for i, e := range whole.Elements {
		at := e.ends()
		for k, n := range at.all() {
			if slices.Contains(at.nodes[:k], n) {
				continue
			}
			if meet[n] < 2 {
				touching[n][meet[n]] = i
			}
			meet[n]++
		}
	}
	joins := func(n int) bool { // two resistances and nothing else
		t := touching[n]
		if n == 0 || meet[n] != 2 || slices.Contains(whole.kept, Node(n)) || slices.Contains(keep, Node(n)) {
			return false
		}
		for _, i := range t {
			if r, ok := whole.Elements[i].(Resistance); !ok || r.A == r.B {
				return false
			}
		}
		return true
	}
	for n := 1; n < len(whole.names); n++ {
		if joins(n) {
			c.node[n] = inner
			continue
		}
		c.node[n] = c.circuit.Node(whole.names[n])
	}
	done := make([]bool, len(whole.Elements))
	for i, e := range whole.Elements {
		if r, ok := e.(Resistance); ok && (c.node[r.A] == inner || c.node[r.B] == inner) {
			c.place[i] = -1
			continue
		}
		c.place[i] = len(c.circuit.Elements)
		c.circuit.Add(e.moved(c.node))
	}
	for i := range whole.Elements {
		if c.place[i] >= 0 || done[i] {
			continue
		}
		c.follow(whole, touching, i, done)
	}
	return c
}

// follow makes the chain that a resistance belongs to, starting from an end of it. A
// ring of nothing but inner nodes carries no current and has no end: one of its nodes
// is kept.
func (c *compact) follow(whole *Circuit, touching [][2]int, first int, done []bool) {
	other := func(i int, n Node) Node {
		r := whole.Elements[i].(Resistance)
		if r.A == n {
			return r.B
		}
		return r.A
	}
	beyond := func(i int, n Node) int { // the other resistance at an inner node
		if touching[n][0] == i {
			return touching[n][1]
		}
		return touching[n][0]
	}
	// Back to an end.
	at, from := first, whole.Elements[first].(Resistance).A
	for c.node[from] == inner {
		at = beyond(at, from)
		if from = other(at, from); at == first {
			c.node[from] = c.circuit.Node(whole.names[from])
		}
	}
	run := chain{element: len(c.circuit.Elements), from: from}
	ohm, name := 0.0, whole.Elements[at].ElementName()
	for {
		done[at] = true
		run.links = append(run.links, at)
		run.ohms = append(run.ohms, whole.Elements[at].(Resistance).Ohm)
		ohm += whole.Elements[at].(Resistance).Ohm
		from = other(at, from)
		if c.node[from] != inner {
			break
		}
		run.nodes = append(run.nodes, from)
		at = beyond(at, from)
	}
	run.to = from
	c.circuit.Add(&Resistance{Name: name, A: c.node[run.from], B: c.node[run.to], Ohm: ohm})
	c.chains = append(c.chains, run)
}

// expand writes the voltages of the whole circuit from those found here.
func (c *compact) expand(v, out []float64) {
	for n, at := range c.node {
		if at != inner {
			out[n] = v[at]
		}
	}
	for _, run := range c.chains {
		r := c.circuit.Elements[run.element].(*Resistance)
		amps := (out[run.from] - out[run.to]) / r.Ohm
		volts := out[run.from]
		for i, n := range run.nodes {
			volts -= amps * run.ohms[i]
			out[n] = volts
		}
	}
}
