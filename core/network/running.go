package network

import (
	"cmp"
	"epitrope/core/unit"
	"fmt"
	"math"
	"slices"
	"strings"
)

// Status is what becomes of a converter.
type Status int

// The statuses of a converter.
const (
	Runs    Status = iota
	Off            // it cannot start: its input is too low
	Hunting        // it starts, pulls its input down, stops, and starts again
)

// dead is the share of what an element asks below which its line is as good as open: it
// gets nothing, and asks too much of nobody.
const dead = 1e-3

// settleRunning finds which converters run. All are switched on. Where all have what they
// ask, above their cut-outs, that is all; where one alone has not, it cannot be fed; where
// there are several, what happens to them is followed in time.
func (s *Solver) settleRunning() error {
	for i := range s.ports {
		p := &s.ports[i]
		p.on, p.dropped, p.hunts, p.with = true, false, false, nil
	}
	short, err := s.ramp()
	switch {
	case err == nil && short == nil && s.allFed() && (len(s.ports) < 2 || s.balances()):
		return s.starved()
	case len(s.ports) > 1:
		return s.asHappens()
	case err != nil:
		return err
	}
	p := &s.ports[0]
	open := short != nil && p.bestW < dead*p.asks(s.terminals(p))
	if short != nil && p.cutOut() == 0 && !open {
		return s.blame(s.running)
	}
	p.on = false
	if _, err := s.ramp(); err != nil {
		return err
	}
	p.hunts = p.cutOut() > 0 && s.terminals(p).inV >= p.converter.startsV()
	return s.starved()
}

// allFed says whether everything runs, above its cut-out.
func (s *Solver) allFed() bool {
	for i := range s.ports {
		if p := &s.ports[i]; !p.on || p.share == 0 || p.cutOut() > s.terminals(p).inV {
			return false
		}
	}
	return true
}

// leftOverA is how much current may be left over at a node of a solution.
const leftOverA = 1e-4

// balances says whether what flows into every node flows out of it.
func (s *Solver) balances() bool {
	s.g.over()
	s.ports.into(s.g)
	for _, amps := range s.g.left[1:] {
		if math.Abs(amps) > leftOverA {
			return false
		}
	}
	return true
}

// asHappens follows several that have no point together, and names those that hunt.
func (s *Solver) asHappens() error {
	short := s.happen()
	if err := s.g.rest(s.ports); err != nil { // it may have been on its way still
		return err
	}
	for i := range s.ports {
		if s.ports[i].hunts {
			return nil // nothing stays as it is, so that nothing is short for good
		}
	}
	if short != nil {
		return s.blame(s.culprits())
	}
	return s.starved()
}

func (p *port) cutOut() float64 {
	if p.converter == nil {
		return 0
	}
	return p.converter.CutOutV
}

// starved refuses a load of a current that its line does not give, though it gives
// something to others.
func (s *Solver) starved() error {
	for i := range s.g.devices {
		d := &s.g.devices[i]
		l, ok := s.circuit.Elements[d.element].(*CurrentLoad)
		if !ok || l.Amps <= 0 || d.at > 0 {
			continue
		}
		gets := max(0, d.law.at(0, d.volts(s.g.x)))
		if gets < dead*l.Amps {
			continue
		}
		asks := l.Amps
		l.Amps = 0
		open, err := Solve(s.values())
		l.Amps = asks
		if err != nil {
			return err
		}
		if open.Volts[l.A]-open.Volts[l.B] > 2*LeastV {
			why := fmt.Sprintf("asks %s and its line can give at most %s", unit.Three(asks, "A"), unit.Three(gets, "A"))
			return &Error{Element: l.Name, Why: why}
		}
	}
	return nil
}

// values is the compact circuit with its values as they are.
func (s *Solver) values() *Circuit {
	c := &Circuit{names: s.circuit.names, byName: s.circuit.byName}
	for _, e := range s.circuit.Elements {
		c.Add(valueOf(e))
	}
	return c
}

func valueOf(e Element) Element {
	switch e := e.(type) {
	case *Resistance:
		return *e
	case *Switch:
		return *e
	case *Source:
		return *e
	case *Battery:
		return *e
	case *Alternator:
		return *e
	case *Converter:
		return *e
	case *Diode:
		return *e
	case *CurrentLoad:
		return *e
	case *PowerLoad:
		return *e
	}
	return e
}

// culprits are the fewest that cannot have what they ask, those that ask most first.
func (s *Solver) culprits() []*port {
	all := make([]*port, 0, len(s.ports))
	for i := range s.ports {
		p := &s.ports[i]
		if p.on, p.share = p.on && !p.hunts, 0; p.on {
			all = append(all, p)
		}
	}
	slices.SortStableFunc(all, func(a, b *port) int { return cmp.Compare(s.wants(a), s.wants(b)) })
	culprits := slices.Clone(all)
	for _, p := range all {
		if len(culprits) == 1 {
			break
		}
		p.on = false
		if short, err := s.ramp(); err == nil && short == nil {
			p.on = true // without it the others have enough
			continue
		}
		culprits = slices.DeleteFunc(culprits, func(q *port) bool { return q == p })
	}
	slices.Reverse(culprits)
	for _, p := range all {
		p.on = true
	}
	return culprits
}

// blame names what asks too much, with what it asks there and what its line could give.
func (s *Solver) blame(culprits []*port) error {
	for i := range s.ports {
		s.ports[i].on = slices.Contains(culprits, &s.ports[i])
	}
	if _, err := s.ramp(); err != nil {
		return err
	}
	if len(culprits) == 1 {
		p := culprits[0]
		t := s.terminals(p)
		asks := p.asks(t)
		return &Error{Element: p.name(), Why: fmt.Sprintf("asks %s and its line can give at most %s", unit.Three(asks, "W"),
			unit.Three(min(p.bestW, asks), "W"))}
	}
	names, asks := []string{}, 0.0
	for _, p := range culprits {
		names = append(names, p.name())
		asks += s.wants(p)
	}
	return &Error{Element: names[0], Others: names[1:], Why: fmt.Sprintf("together with %s asks %s and their line can give about %s",
		strings.Join(names[1:], ", "), unit.Three(asks, "W"), unit.Three(asks*s.share(culprits), "W"))}
}

// wants is what a port asks at the most.
func (s *Solver) wants(p *port) float64 {
	if p.power != nil {
		return p.power.Watts
	}
	return p.converter.MaxOutA * max(s.terminals(p).outV, 0) / p.converter.Efficiency
}

// share is the largest share of what some ask that they can have together.
func (s *Solver) share(of []*port) float64 {
	low, high := 0.0, 1.0
	whole := make([]float64, len(of))
	for i, p := range of {
		whole[i] = *p.size()
	}
	for range 20 {
		mid := (low + high) / 2
		for i, p := range of {
			*p.size() = mid * whole[i]
		}
		if short, err := s.ramp(); err == nil && short == nil {
			low = mid
		} else {
			high = mid
		}
	}
	for i, p := range of {
		*p.size() = whole[i]
	}
	return low
}

// size is the value that says how much a port wants.
func (p *port) size() *float64 {
	if p.power != nil {
		return &p.power.Watts
	}
	return &p.converter.MaxOutA
}

func (p *port) name() string {
	if p.power != nil {
		return p.power.Name
	}
	return p.converter.Name
}
