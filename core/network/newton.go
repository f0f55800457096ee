package network

import (
	"math"
	"slices"
)

// openS is a conductance so low that what it joins is apart, in S.
const openS = 1e-4

// jointly takes Newton's steps in all draws at once, as long as no bend is passed and all
// stays nearby. It says whether they came to rest; where not, all is as it was.
func (s *Solver) jointly(running []*port) bool {
	s.save(&s.nearby, running)
	if s.newton(running) {
		return true
	}
	s.restore(&s.nearby, running)
	return false
}

func (s *Solver) newton(running []*port) bool {
	g, n := s.g, len(running)
	if !s.findWays(running) {
		return false
	}
	s.jacobian = slices.Grow(s.jacobian[:0], n*(n+1))[:n*(n+1)]
	for range jointTurns {
		worst := 0.0
		for row, p := range running {
			t := s.terminals(p)
			lacks := p.asks(t) - p.drawA*t.inV
			worst = max(worst, math.Abs(lacks)/max(p.asks(t), 1e-3))
			for column, q := range running {
				copy(g.way, q.way)
				s.jacobian[row*(n+1)+column] = p.follows(t, s.moving(p), row == column && !p.throttled, row == column && p.throttled)
			}
			s.jacobian[row*(n+1)+n] = -lacks
		}
		if worst <= 4*enough {
			return true
		}
		if !eliminate(s.jacobian, n) {
			return false
		}
		clear(g.way)
		for i, p := range running {
			by := s.jacobian[i*(n+1)+n]
			for u, v := range p.way {
				g.way[u] += by * v
			}
			if !p.bears(by, s.nearby.ports[i]) {
				return false
			}
		}
		if _, which, _ := g.first(1, -1); which >= 0 {
			return false
		}
		g.advance(1)
		for i, p := range running {
			by := s.jacobian[i*(n+1)+n]
			if p.throttled {
				s.limit(p, p.mostA+by)
			} else {
				p.drawA += by
			}
		}
	}
	return false
}

// bears says whether a port stays where it was, about, when its draw or limit moves.
func (p *port) bears(by float64, was [2]float64) bool {
	if p.throttled {
		to := p.mostA + by
		return to < p.capA && math.Abs(to-was[1]) < nearby*max(was[1], 0.05*p.capA)
	}
	to := p.drawA + by
	return to >= 0 && to < p.full() && math.Abs(to-was[0]) < nearby*max(was[0], 1)
}

// findWays finds how voltages follow each port's draw, or, at its input limit, what it
// gives.
func (s *Solver) findWays(running []*port) bool {
	g := s.g
	if g.factor() != nil {
		return false
	}
	for _, p := range running {
		into, from := g.unknown[p.minus], g.unknown[p.plus]
		p.throttled = p.converter != nil && p.drawA >= p.full() && g.devices[p.stage].at == 0
		if p.throttled {
			d := &g.devices[p.stage]
			into, from = d.to, d.from
		}
		if g.push(into, from, 1) != nil {
			return false
		}
		p.way = append(p.way[:0], g.way...)
	}
	return true
}

// follows is how what a port lacks follows a move of its terminals, by another port's or
// its own draw or limit.
func (p *port) follows(t, m terminals, draws, gives bool) float64 {
	slope := -p.drawA * m.inV
	if draws {
		slope -= t.inV
	}
	if p.converter != nil {
		outA := m.outA
		if gives {
			outA++
		}
		slope += (outA*t.outV + t.outA*m.outV) / p.converter.Efficiency
	}
	return slope
}

// eliminate solves n equations with their right sides in the last column, in place.
func eliminate(a []float64, n int) bool {
	w := n + 1
	for k := range n {
		pivot := k
		for r := k + 1; r < n; r++ {
			if math.Abs(a[r*w+k]) > math.Abs(a[pivot*w+k]) {
				pivot = r
			}
		}
		if math.Abs(a[pivot*w+k]) < 1e-12 {
			return false
		}
		for c := range w {
			a[k*w+c], a[pivot*w+c] = a[pivot*w+c], a[k*w+c]
		}
		for r := range n {
			if r == k {
				continue
			}
			f := a[r*w+k] / a[k*w+k]
			for c := k; c < w; c++ {
				a[r*w+c] -= f * a[k*w+c]
			}
		}
	}
	for k := range n {
		a[k*w+n] /= a[k*w+k]
	}
	return true
}
