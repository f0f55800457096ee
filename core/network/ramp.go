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

// idleA is a limit so low that what a converter gives does not count, in A.
const idleA = 1e-3

// jointTurns is how many of Newton's steps are taken, nearby the share by which a draw may
// move in all of them.
const (
	jointTurns = 12
	nearby     = 0.3
)

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
