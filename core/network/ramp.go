package network

import (
	"math"
	"slices"
)

// Several that draw power settle by turns; once they move little, all at once.
const (
	mostRounds = 4000
	wavering   = 60
	calm       = 0.02 // share by which a draw moves in a round, for a joint step
	still      = 1e-12
)

// rampSteps is in how many steps ports that feed one another are ramped up.
const rampSteps = 24

// ramp switches on from rest: sources first, then every port that is on ramped up by one
// factor. It returns the port that finds no point.
//
// Where no converter gives to what another port draws from, the way up does not matter:
// what each gives can be there at once, and its draw is raised until it suffices. Where
// ports feed one another they go up in steps, and what sees no volts yet waits until
// others have brought it some.
func (s *Solver) ramp() (short *port, err error) {
	running := s.running[:0]
	for i := range s.ports {
		p := &s.ports[i]
		p.drawA, p.bestW, p.share, p.capA = 0, 0, 0, 0
		if p.on {
			running = append(running, p)
		}
	}
	s.running = running
	begin := 0.0
	if !s.feeds() {
		begin = 1
	}
	if len(s.bare) > 0 {
		copy(s.g.x, s.bare) // where it came to the last time is near
	}
	if err := s.raise(running, begin); err != nil {
		return nil, err
	}
	s.bare = append(s.bare[:0], s.g.x...)
	if begin == 1 {
		if s.cannotStart() {
			return s.ramp() // without them
		}
		return s.settle(running)
	}
	up := s.up[:0]
	for {
		before := len(up)
		for _, p := range running {
			if p.share == 0 && s.terminals(p).inV >= p.startsV() {
				up = append(up, p)
			}
		}
		if len(up) == before {
			s.up = up
			return nil, nil
		}
		now := up[before:]
		slices.SortStableFunc(now, func(a, b *port) int { return b.depth - a.depth })
		for i := 1; i <= rampSteps; i++ {
			// What is fed goes up before what feeds it, so that it is never late.
			for j, p := range now {
				along := up[:before+len(now)]
				if i == 1 {
					along = up[:before+j+1]
				}
				s.one[0] = p
				if err := s.raise(s.one[:], float64(i)/rampSteps); err != nil {
					return nil, err
				}
				if short, err := s.settle(along); err != nil || short != nil {
					return short, err
				}
			}
		}
	}
}

// cannotStart switches off converters that see too little to start though nothing is
// drawn, and says whether there are any.
func (s *Solver) cannotStart() (any bool) {
	for _, p := range s.running {
		if p.converter != nil && s.terminals(p).inV < p.converter.startsV() {
			p.on, any = false, true
		}
	}
	return any
}

// startsV is the input that a port needs to begin.
func (p *port) startsV() float64 {
	if p.converter == nil {
		return 2 * LeastV
	}
	return max(2*LeastV, p.converter.startsV())
}

// raise ramps ports up to a share, and lets everything but draws follow.
func (s *Solver) raise(which []*port, share float64) error {
	for i := range s.ports {
		if p := &s.ports[i]; p.converter != nil && !p.on {
			s.limit(p, 0)
		}
	}
	for _, p := range which {
		free := p.mostA >= p.capA
		p.share = share
		if p.converter != nil {
			p.capA = p.converter.MaxOutA * share
			if free || share == 0 {
				s.limit(p, p.capA)
			}
		}
	}
	return s.g.rest(s.ports)
}

// settle raises every draw until each has what it asks. Raising one lowers the voltage of
// the others, which then ask for more current, so that draws only grow, and come to the
// first point at which all have enough. It returns the port that finds none.
func (s *Solver) settle(running []*port) (short *port, err error) {
	for round := range mostRounds {
		moved := 0.0
		for _, p := range running {
			drawA, mostA := p.drawA, p.mostA
			ok, err := s.draw(p)
			if err != nil || !ok {
				return p, err
			}
			if round > wavering {
				// It swings to and fro: go half the way.
				if err := s.halfway(p, drawA, mostA); err != nil {
					return nil, err
				}
			}
			moved = max(moved, math.Abs(p.drawA-drawA)/max(p.drawA, 1e-3), math.Abs(p.mostA-mostA)/max(p.mostA, 1e-3))
		}
		if len(running) < 2 || moved < still || moved < calm && s.jointly(running) {
			s.g.polish(s.ports)
			return nil, nil
		}
	}
	return nil, errUnsettled
}

// halfway puts a port between where it was and where it came to.
func (s *Solver) halfway(p *port, drawA, mostA float64) error {
	p.drawA = (p.drawA + drawA) / 2
	if p.converter != nil {
		s.limit(p, (p.mostA+mostA)/2)
		if p.mostA < p.capA {
			p.drawA = p.full() // which is why it gives less
		}
	}
	return s.g.rest(s.ports)
}

// feeds says whether a converter that is on gives to what a port that is on draws from,
// its own input among them, or another gives to.
func (s *Solver) feeds() bool {
	for i, from := range s.running {
		if !s.mayFeed || !from.gives() {
			continue
		}
		s.g.reach(from.converter.OutPlus, openS)
		for j, to := range s.running {
			if s.g.reached(to.plus) || i != j && to.gives() && s.g.reached(to.converter.OutPlus) {
				return true
			}
		}
	}
	return false
}

// gives says whether a port gives something that counts.
func (p *port) gives() bool { return p.converter != nil && p.converter.MaxOutA >= idleA }

// openS is a conductance so low that what it joins is apart, in S.
const openS = 1e-4

// idleA is a limit so low that what a converter gives does not count, in A.
const idleA = 1e-3

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

// jointTurns is how many of Newton's steps are taken, nearby the share by which a draw may
// move in all of them.
const (
	jointTurns = 12
	nearby     = 0.3
)

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

// place is where all stands.
type place struct {
	x     []float64
	ports [][2]float64 // what each draws, and gives at most
}

// save keeps where all stands; restore goes back there.
func (s *Solver) save(at *place, running []*port) {
	at.x = append(at.x[:0], s.g.x...)
	at.ports = at.ports[:0]
	for _, p := range running {
		at.ports = append(at.ports, [2]float64{p.drawA, p.mostA})
	}
}

func (s *Solver) restore(at *place, running []*port) {
	copy(s.g.x, at.x)
	for i, p := range running {
		p.drawA = at.ports[i][0]
		if p.converter != nil {
			s.limit(p, at.ports[i][1])
		}
	}
	for i := range s.g.devices {
		d := &s.g.devices[i]
		if u := d.volts(s.g.x); d.strays(u) {
			s.g.put(d, d.law.piece(u))
		}
	}
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
