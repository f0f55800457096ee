package network

import "math"

// strays says whether a device's voltage is off its piece.
func (d *device) strays(u float64) bool {
	return d.at > 0 && u < d.law.ends[d.at-1]-edge || d.at < d.law.pieces-1 && u > d.law.ends[d.at]+edge
}

// leaves is how far along a direction a device comes to the end of its piece, and the
// piece beyond; +Inf where it does not.
func (d *device) leaves(x, way []float64) (after float64, to int) {
	by := way[d.plus] - way[d.minus]
	u := d.volts(x)
	switch {
	case by > 0 && d.at < d.law.pieces-1:
		return math.Max(0, (d.law.ends[d.at]+edge-u)/by), d.at + 1
	case by < 0 && d.at > 0:
		return math.Max(0, (d.law.ends[d.at-1]-edge-u)/by), d.at - 1
	}
	return math.Inf(1), d.at
}

// edge is how far, in V, a piece may be overrun before it is left.
const edge = 1e-10

// push finds the direction in which voltages move as amps are pushed into one unknown and
// taken from another.
func (g *grid) push(into, from int, amps float64) error {
	if err := g.factor(); err != nil {
		return err
	}
	clear(g.left)
	g.left[into] += amps
	g.left[from] -= amps
	g.m.solve(g.left, g.way)
	return nil
}

// first is the device that comes to the end of its piece first, on a way of at most most;
// one device may be left out.
func (g *grid) first(most float64, but int) (after float64, which, to int) {
	after, which = most, -1
	for i := range g.devices {
		if i == but {
			continue
		}
		if at, next := g.devices[i].leaves(g.x, g.way); at < after {
			after, which, to = at, i, next
		}
	}
	return after, which, to
}

// farV is a move after which rounding may have left something over.
const farV = 100.0

// advance goes on by a share of the direction.
func (g *grid) advance(by float64) {
	for i, way := range g.way {
		g.x[i] += by * way
		if by*way > farV || by*way < -farV {
			g.far = true
		}
	}
}

// reach marks what a node is joined to otherwise than through ground, by resistances and
// switches of a conductance above some, or by diodes.
func (g *grid) reach(from Node, above float64) {
	if len(g.mark) == 0 {
		g.mark = make([]bool, len(g.x))
	}
	clear(g.mark)
	g.mark[g.unknown[from]] = true
	for again := true; again; {
		again = false
		for i := range g.links {
			if l := &g.links[i]; (l.resistance != nil || l.contact != nil) && l.s > above {
				again = g.spread(l.a, l.b) || again
			}
		}
		for i := range g.devices {
			if d := &g.devices[i]; d.passes {
				again = g.spread(d.to, d.from) || again
			}
		}
	}
	g.mark[0] = false
}

func (g *grid) spread(a, b int) bool {
	if a == 0 || b == 0 || g.mark[a] == g.mark[b] {
		return false
	}
	g.mark[a], g.mark[b] = true, true
	return true
}

// reached says whether reach marked a node.
func (g *grid) reached(n Node) bool { return g.mark[g.unknown[n]] }
