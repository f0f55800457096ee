package network

import "math"

// How often pieces are tried: all at once at first, which is nearly always enough, then
// one after the other as they are come to.
const (
	together  = 8
	mostTurns = 2000
)

// rest finds the voltages at which every current is where its law has it, while the draws
// stay as they are. Laws never give more for more voltage, so that there is one such set,
// and whichever way it is come to, it is the same.
//
// Source: Katzenelson's algorithm for piecewise-linear resistive networks (from memory).
func (g *grid) rest(draws ports) error {
	for range together {
		for i := range g.devices {
			d := &g.devices[i]
			if u := d.volts(g.x); d.strays(u) {
				g.put(d, d.law.piece(u))
			}
		}
		if err := g.toward(draws); err != nil {
			return err
		}
		g.advance(1)
		if !g.stray() && g.polish(draws) {
			return nil
		}
	}
	for i := range g.devices {
		d := &g.devices[i]
		g.put(d, d.law.piece(d.volts(g.x)))
	}
	for range mostTurns {
		if err := g.toward(draws); err != nil {
			return err
		}
		by, which, to := 1.0, -1, 0
		if !g.fits() {
			by, which, to = g.first(1, -1)
		}
		g.advance(by)
		switch {
		case which >= 0:
			g.put(&g.devices[which], to)
		case g.polish(draws):
			return nil
		}
	}
	return errUnsettled
}

var errUnsettled = &Error{Element: "the circuit", Why: "its currents do not settle"}

// toward finds the direction in which the currents that are left over vanish.
func (g *grid) toward(draws ports) error {
	g.over()
	draws.into(g)
	if err := g.factor(); err != nil {
		return err
	}
	g.m.solve(g.left, g.way)
	return nil
}

// polish takes away what rounding left over, and says whether that was all: that after it
// next to nothing, or no less, is left over, and every device is on its piece.
func (g *grid) polish(draws ports) bool {
	if !g.far {
		return true
	}
	g.far = false
	for last := math.Inf(1); ; {
		g.over()
		draws.into(g)
		most := 0.0
		for _, amps := range g.left[1:] {
			most = math.Max(most, math.Abs(amps))
		}
		if most < 1e-9 || most > last/2 {
			return true
		}
		last = most
		if g.factor() != nil {
			return true
		}
		g.m.solve(g.left, g.way)
		g.advance(1)
		if g.stray() {
			return false
		}
	}
}

// fits says whether the whole way leaves every device on its piece.
func (g *grid) fits() bool {
	for i := range g.devices {
		d := &g.devices[i]
		if d.strays(d.volts(g.x) + g.way[d.plus] - g.way[d.minus]) {
			return false
		}
	}
	return true
}

// stray says whether some device is off its piece.
func (g *grid) stray() bool {
	for i := range g.devices {
		if d := &g.devices[i]; d.strays(d.volts(g.x)) {
			return true
		}
	}
	return false
}
