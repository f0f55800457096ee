package network

import "math"

// port is an element that draws power: what it draws is raised until it suffices.
type port struct {
	converter *Converter // one of the two
	power     *PowerLoad
	plus      Node // of its input
	minus     Node
	stage     int // a converter's output, by device
	depth     int // how many converters in turn feed it
	on        bool
	share     float64 // how far it is ramped up
	drawA     float64
	capA      float64   // what its output may give, as far as it is ramped up
	mostA     float64   // what its output gives at most: less than it could at its input limit
	bestW     float64   // the most that was to be had at its input while its draw was raised
	was       Converter // as it was solved
	wasW      float64
	dropped   bool // it started, and stopped
	throttled bool // its limit follows, not its draw
	hunts     bool // it would start again
	with      []string
	way       []float64 // how voltages follow what it draws, or gives
}

// ports are all that draw.
type ports []port

// load takes a port's values as they are now, and says whether any changed.
func (p *port) load() (changed bool) {
	if p.power != nil {
		changed = p.wasW != p.power.Watts
		p.wasW = p.power.Watts
		return changed
	}
	changed = p.was != *p.converter
	p.was = *p.converter
	return changed
}

// into puts what they draw into the currents that are left over.
func (p ports) into(g *grid) {
	for i := range p {
		g.left[g.unknown[p[i].plus]] -= p[i].drawA
		g.left[g.unknown[p[i].minus]] += p[i].drawA
	}
}

// terminals is where a port's terminals stand, or how fast they move.
type terminals struct{ inV, outV, outA float64 }

func (s *Solver) terminals(p *port) terminals {
	t := terminals{inV: s.g.between(p.plus, p.minus)}
	if p.converter != nil {
		d := &s.g.devices[p.stage]
		t.outV = d.volts(s.g.x)
		t.outA = d.law.at(d.at, t.outV)
	}
	return t
}

// moving is how the terminals move along the direction that was found.
func (s *Solver) moving(p *port) terminals {
	t := terminals{inV: s.g.along(p.plus, p.minus)}
	if p.converter != nil {
		d := &s.g.devices[p.stage]
		t.outV = s.g.way[d.plus] - s.g.way[d.minus]
		t.outA = d.law.slope[d.at] * t.outV
	}
	return t
}

// asks is the power, in W, that a port wants at its input as its terminals stand.
func (p *port) asks(t terminals) float64 {
	if p.power != nil {
		return p.power.Watts * p.share
	}
	if p.mostA <= leak {
		return 0
	}
	return math.Max(0, t.outA*t.outV) / p.converter.Efficiency
}

// full is the limit of a port's input.
func (p *port) full() float64 {
	if p.converter != nil && p.converter.MaxInA > 0 {
		return p.converter.MaxInA
	}
	return math.Inf(1)
}

// limit sets what a converter's output gives at most.
func (s *Solver) limit(p *port, most float64) {
	p.mostA = most
	d := &s.g.devices[p.stage]
	l := heldLaw(p.converter.OutV, most, RegulationOhm)
	if l == d.law {
		return
	}
	if l.pieces != d.law.pieces {
		d.at, s.g.factors = 0, false
	}
	d.law = l
}

// enough is how exactly, as a share of what it asks, a port is given what it asks.
const enough = 1e-11

// draw raises (or lowers) what a port draws until it has the power that it asks, while
// all other draws stay. Along the way the voltages are straight between one bend and the
// next, so that each stretch is a quadratic in the current. It says whether there is such
// a current: where the input falls to nothing first, there is none.
func (s *Solver) draw(p *port) (ok bool, err error) {
	g := s.g
	for range mostTurns {
		t := s.terminals(p)
		asks := p.asks(t)
		p.bestW = math.Max(p.bestW, p.drawA*t.inV)
		if p.drawA > 0 && asks > 0 && t.inV < LeastV {
			return false, nil // others have pulled its input down
		}
		short := asks - p.drawA*t.inV
		if math.Abs(short) <= 4*enough*math.Max(asks, 1e-3) {
			return true, nil
		}
		sign := 1.0
		if short < 0 {
			sign = -1
		}
		if p.drawA >= p.full() && (sign > 0 || p.mostA < p.capA) {
			if free, err := s.throttle(p); err != nil || !free {
				return err == nil, err
			}
			continue
		}
		if err := s.pull(p, sign); err != nil {
			return false, err
		}
		m := s.moving(p)
		// short(τ) = asks − (draw + sign·τ)·(in + τ·in′); walk to where it is nil.
		eff, outA, outV := 1.0, m.outA, m.outV
		if p.converter != nil {
			eff = p.converter.Efficiency
		}
		a := outA*outV/eff - sign*m.inV
		b := (outA*t.outV+t.outA*outV)/eff - sign*t.inV - p.drawA*m.inV
		root := firstRoot(a, b, short)
		end := p.drawA
		if sign > 0 {
			end = p.full() - p.drawA
			if m.inV < 0 {
				end = math.Min(end, math.Max(0, (t.inV-LeastV)/-m.inV))
			}
		}
		by, which, to := g.first(math.Min(root, end), -1)
		if sign > 0 {
			p.best(t, m, by)
		}
		if by > mostValue {
			return false, nil
		}
		g.advance(by)
		p.drawA = math.Max(0, p.drawA+sign*by)
		switch {
		case which >= 0:
			g.put(&g.devices[which], to)
		case by == root:
			return true, nil
		case sign < 0:
			p.drawA = 0
			return true, nil
		case p.drawA >= p.full()*(1-1e-12):
			p.drawA = p.full()
		default:
			return false, nil // its input is down to nothing
		}
	}
	return false, errUnsettled
}

// pull finds the direction in which voltages move as a port draws more, or less.
func (s *Solver) pull(p *port, sign float64) error {
	return s.g.push(s.g.unknown[p.minus], s.g.unknown[p.plus], sign)
}

// best keeps the most power that was to be had on a stretch.
func (p *port) best(t, m terminals, by float64) {
	for _, at := range []float64{by, -(p.drawA*m.inV + t.inV) / (2 * m.inV)} {
		if at >= 0 && at <= by && !math.IsInf(at, 0) {
			p.bestW = math.Max(p.bestW, (p.drawA+at)*(t.inV+at*m.inV))
		}
	}
}

// firstRoot is the first τ > 0 at which a·τ² + b·τ + c changes from the sign of c; +Inf
// where there is none.
func firstRoot(a, b, c float64) float64 {
	none := math.Inf(1)
	disc := b*b - 4*a*c
	if disc < 0 {
		return none
	}
	q := -(b + math.Copysign(math.Sqrt(disc), b)) / 2
	best := none
	if a != 0 {
		if r := q / a; r > 0 {
			best = math.Min(best, r)
		}
	}
	if q != 0 {
		if r := c / q; r > 0 {
			best = math.Min(best, r)
		}
	}
	return best
}

// throttle lowers what a converter at its input limit gives until its input carries it, or
// raises it again where there is more. Free is one that then asks less than its input
// carries.
func (s *Solver) throttle(p *port) (free bool, err error) {
	g, c := s.g, p.converter
	for range mostTurns {
		t := s.terminals(p)
		d := &g.devices[p.stage]
		has := p.drawA * t.inV * c.Efficiency
		over := t.outA*t.outV - has
		if math.Abs(over) <= enough*math.Max(has, 1e-3) {
			return false, nil
		}
		if over < 0 && (d.at != 0 || p.mostA >= p.capA) {
			s.limit(p, p.capA)
			return true, nil
		}
		if d.at != 0 { // held at its voltage: its limit comes down to what it gives
			s.limit(p, t.outA)
			g.put(d, 0)
		}
		sign := -1.0
		if over < 0 {
			sign = 1
		}
		if err := g.push(d.to, d.from, sign); err != nil {
			return false, err
		}
		m := s.moving(p)
		a := sign * m.outV
		b := sign*t.outV + p.mostA*m.outV - p.drawA*c.Efficiency*m.inV
		root := firstRoot(a, b, over)
		end := p.mostA
		if sign > 0 {
			end = p.capA - p.mostA
		}
		holds := math.Inf(1) // where it comes to its voltage, and gives less than it may
		if sign > 0 {
			holds = math.Max(0, (d.law.ends[0]-t.outV)/(m.outV+RegulationOhm))
		}
		// The output itself leaves its limit only there.
		by, which, to := g.first(math.Min(holds, math.Min(root, end)), p.stage)
		g.advance(by)
		s.limit(p, p.mostA+sign*by)
		if by == holds {
			g.put(d, 1)
			s.limit(p, p.capA)
			return true, nil
		}
		switch {
		case which >= 0:
			g.put(&g.devices[which], to)
		case by == root, by == end && sign < 0:
			return false, nil
		}
	}
	return false, errUnsettled
}
