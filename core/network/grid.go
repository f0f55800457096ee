package network

// grid is a circuit as equations: the voltages of its nodes, counted from ground, and the
// currents into them. Nodes that a Source holds apart share one unknown.
type grid struct {
	circuit *Circuit // whose elements are pointers
	unknown []int    // by node; 0 is ground
	lift    []float64
	held    []holding
	links   []link
	devices []device
	m       *matrix
	x       []float64 // voltages, by unknown
	left    []float64 // currents that are left over, by unknown
	way     []float64 // a direction of voltages
	mark    []bool    // unknowns that are reached
	far     bool      // voltages went far on the way here
	factors bool      // m.lu holds the pieces as they are
	base    bool      // m.base holds the links as they are
}

// holding is a node that stands above, or below, another by a source.
type holding struct {
	node, other Node
	source      *Source
	sign        float64
}

// link is a resistance or a switch.
type link struct {
	a, b       int
	nodeA      Node
	nodeB      Node
	lift       float64
	s          float64
	resistance *Resistance
	contact    *Switch
}

// device is a current by a law of one voltage: it enters to and leaves from, and depends on
// what plus is above minus.
type device struct {
	to, from    int
	plus, minus int
	at          int // the piece that it is on
	lift        float64
	law         law
	nodes       [2]Node // plus and minus
	element     int     // in the circuit
	passes      bool    // it is a diode
}

func (d *device) volts(x []float64) float64 { return x[d.plus] - x[d.minus] + d.lift }

// newGrid lays a circuit out. Zeros are nodes that the voltages of parts without ground
// are counted from.
func newGrid(c *Circuit, zeros []Node) (*grid, error) {
	g := &grid{circuit: c, lift: make([]float64, len(c.names))}
	n, err := g.hold()
	if err != nil {
		return nil, err
	}
	pairs := make([][2]int, 0, 2*len(c.Elements))
	g.links, g.devices = make([]link, 0, len(c.Elements)), make([]device, 0, len(c.Elements))
	for i, e := range c.Elements {
		to, from, plus, minus := Ground, Ground, Ground, Ground
		switch e := e.(type) {
		case *Resistance:
			g.links = append(g.links, link{resistance: e, nodeA: e.A, nodeB: e.B})
		case *Switch:
			g.links = append(g.links, link{contact: e, nodeA: e.A, nodeB: e.B})
		case *Battery:
			to, from, plus, minus = e.Plus, e.Minus, e.Plus, e.Minus
		case *Alternator:
			to, from, plus, minus = e.Plus, e.Minus, e.Sense, e.Minus
		case *Diode:
			to, from, plus, minus = e.K, e.A, e.A, e.K
		case *CurrentLoad:
			to, from, plus, minus = e.B, e.A, e.A, e.B
		case *PowerLoad:
			to, from, plus, minus = e.B, e.A, e.A, e.B
		case *Converter:
			to, from, plus, minus = e.OutPlus, e.OutMinus, e.OutPlus, e.OutMinus
			in, out := g.unknown[e.InPlus], g.unknown[e.InMinus]
			g.links = append(g.links, link{a: in, b: out, nodeA: e.InPlus, nodeB: e.InMinus, s: leak})
			pairs = append(pairs, [2]int{in, out})
		}
		switch e.(type) {
		case *Source:
		case *Resistance, *Switch:
			l := &g.links[len(g.links)-1]
			l.a, l.b = g.unknown[l.nodeA], g.unknown[l.nodeB]
			pairs = append(pairs, [2]int{l.a, l.b})
		default:
			d := device{to: g.unknown[to], from: g.unknown[from], plus: g.unknown[plus], minus: g.unknown[minus], nodes: [2]Node{plus, minus},
				element: i}
			_, d.passes = e.(*Diode)
			g.devices = append(g.devices, d)
			pairs = append(pairs, [2]int{d.to, d.plus}, [2]int{d.to, d.minus}, [2]int{d.from, d.plus}, [2]int{d.from, d.minus})
		}
	}
	g.m = newMatrix(n, pairs)
	for _, zero := range zeros {
		g.links = append(g.links, link{a: g.unknown[zero], s: 1})
	}
	g.x, g.left, g.way = make([]float64, n+1), make([]float64, n+1), make([]float64, n+1)
	for i := range g.x[1:] {
		g.x[i+1] = usualV
	}
	return g, nil
}

// usualV is a voltage to begin looking from.
const usualV = 12.0

// hold gives each node its unknown, and says how many there are.
func (g *grid) hold() (n int, err error) {
	names := g.circuit.names
	beside := map[Node][]holding{}
	for _, e := range g.circuit.Elements {
		if s, ok := e.(*Source); ok {
			beside[s.Minus] = append(beside[s.Minus], holding{s.Plus, s.Minus, s, 1})
			beside[s.Plus] = append(beside[s.Plus], holding{s.Minus, s.Plus, s, -1})
		}
	}
	g.unknown = make([]int, len(names))
	reached := make([]bool, len(names))
	for from := range names {
		if reached[from] {
			continue
		}
		reached[from] = true
		if from != int(Ground) {
			n++
			g.unknown[from] = n
		}
		for list := []Node{Node(from)}; len(list) > 0; list = list[1:] {
			at := list[0]
			for i, h := range beside[at] {
				if h.source == nil {
					continue // came by it
				}
				if reached[h.node] {
					return 0, &Error{Element: h.source.Name, Why: "is in a ring of sources without resistance"}
				}
				reached[h.node], g.unknown[h.node] = true, g.unknown[from]
				g.held = append(g.held, h)
				list = append(list, h.node)
				beside[at][i].source = nil
				for j, back := range beside[h.node] {
					if back.source == h.source {
						beside[h.node][j].source = nil
					}
				}
			}
		}
	}
	return n, nil
}

// load takes the elements' values as they are now, and says whether any changed.
func (g *grid) load() (changed bool) {
	for _, h := range g.held {
		lift := g.lift[h.other] + h.sign*h.source.Volts
		changed = changed || lift != g.lift[h.node]
		g.lift[h.node] = lift
	}
	lifted := changed
	for i := range g.links {
		l := &g.links[i]
		s := l.s
		switch {
		case l.resistance != nil:
			s = 1 / l.resistance.Ohm
		case l.contact != nil:
			s = l.contact.conductance()
		}
		if lifted {
			l.lift = g.lift[l.nodeA] - g.lift[l.nodeB]
		}
		if s != l.s {
			l.s, changed, g.base = s, true, false
		}
	}
	for i := range g.devices {
		d := &g.devices[i]
		if lifted {
			d.lift = g.lift[d.nodes[0]] - g.lift[d.nodes[1]]
		}
		e := g.circuit.Elements[d.element]
		if _, ok := e.(*Converter); ok {
			continue // its port says what it gives
		}
		if l := lawOf(e); l != d.law {
			d.law, d.at, changed = l, min(d.at, l.pieces-1), true
		}
	}
	if changed {
		g.factors = false
	}
	return changed
}

// lawOf is what an element's current follows, but for what it draws by power.
func lawOf(e Element) law {
	switch e := e.(type) {
	case *Battery:
		return e.givesLaw()
	case *Alternator:
		return e.givesLaw()
	case *Diode:
		return e.passesLaw()
	case *CurrentLoad:
		return e.drawsLaw()
	case *PowerLoad:
		return law{pieces: 1, slope: [3]float64{leak}}
	}
	return law{pieces: 1}
}

func (w Switch) conductance() float64 {
	if w.Closed {
		return 1 / w.Ohm
	}
	return leak
}

// over works out the currents that are left over at every unknown, of links and devices.
func (g *grid) over() {
	clear(g.left)
	for i := range g.links {
		l := &g.links[i]
		amps := l.s * (g.x[l.a] - g.x[l.b] + l.lift)
		g.left[l.a] -= amps
		g.left[l.b] += amps
	}
	for i := range g.devices {
		d := &g.devices[i]
		amps := d.law.at(d.at, d.volts(g.x))
		g.left[d.to] += amps
		g.left[d.from] -= amps
	}
}

// factor takes the equations apart for the pieces as they are.
func (g *grid) factor() error {
	if g.factors {
		return nil
	}
	m := g.m
	if !g.base {
		clear(m.base)
		for i := range g.links {
			m.between(m.base, g.links[i].a, g.links[i].b, g.links[i].s)
		}
		g.base = true
	}
	copy(m.lu, m.base)
	for i := range g.devices {
		d := &g.devices[i]
		s := d.law.slope[d.at]
		m.add(m.lu, d.to, d.plus, -s)
		m.add(m.lu, d.to, d.minus, s)
		m.add(m.lu, d.from, d.plus, s)
		m.add(m.lu, d.from, d.minus, -s)
	}
	if at := m.factor(); at >= 0 {
		for n, u := range g.unknown {
			if u > 0 && m.place[u] == at {
				return &Error{Element: g.circuit.at(Node(n)), Why: "nothing sets the voltage of node " + g.circuit.names[n]}
			}
		}
	}
	g.factors = true
	return nil
}

// put moves a device to another piece of its law.
func (g *grid) put(d *device, piece int) {
	if d.at != piece {
		d.at, g.factors = piece, false
	}
}

// between is what a node stands above another.
func (g *grid) between(plus, minus Node) float64 {
	return g.x[g.unknown[plus]] + g.lift[plus] - g.x[g.unknown[minus]] - g.lift[minus]
}

// along is how that changes in the direction that was found.
func (g *grid) along(plus, minus Node) float64 {
	return g.way[g.unknown[plus]] - g.way[g.unknown[minus]]
}
