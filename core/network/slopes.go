package network

import "math"

// assemble writes Newton's equations of a step about where all stands.
func (h *happening) assemble(seconds float64) {
	s, g := h.s, h.s.g
	n := g.m.n
	for i := range s.ports {
		h.follow(&s.ports[i])
	}
	clear(h.a)
	for i := range g.devices {
		d := &g.devices[i]
		d.at = d.law.piece(d.volts(g.x))
	}
	g.factors = false
	g.over()
	s.ports.into(g)
	for i := range n {
		h.a[i*(n+1)+i] = nodeFarad / seconds
		h.a[i*(n+1)+n] = g.left[i+1] - nodeFarad/seconds*(g.x[i+1]-h.from[i+1])
	}
	for i := range g.links {
		l := &g.links[i]
		h.depends(l.a, l.b, l.a, l.b, l.s)
	}
	for i := range g.devices {
		d := &g.devices[i]
		h.depends(d.from, d.to, d.plus, d.minus, d.law.slope[d.at])
	}
	for i := range s.ports {
		h.couple(&s.ports[i])
	}
}

// depends lets a current from one unknown to another follow what two others are apart.
func (h *happening) depends(from, to, plus, minus int, slope float64) {
	n := h.s.g.m.n
	add := func(row, column int, by float64) {
		if row > 0 && column > 0 {
			h.a[(row-1)*(n+1)+column-1] += by
		}
	}
	add(from, plus, slope)
	add(from, minus, -slope)
	add(to, plus, -slope)
	add(to, minus, slope)
}

// follow sets what a port gives and draws where its terminals stand.
func (h *happening) follow(p *port) {
	s := h.s
	if p.converter != nil {
		most := 0.0
		if p.on {
			most = p.converter.MaxOutA * p.share
		}
		p.capA = most
		if d := &s.g.devices[p.stage]; p.converter.MaxInA > 0 {
			in := s.g.between(p.plus, p.minus)
			most = math.Min(most, p.converter.MaxInA*math.Max(in, 0)*p.converter.Efficiency/math.Max(d.volts(s.g.x), LeastV))
		}
		s.limit(p, most)
		d := &s.g.devices[p.stage]
		d.at = d.law.piece(d.volts(s.g.x))
	}
	t := s.terminals(p)
	asks := p.asks(t)
	if !p.on {
		asks = 0
	}
	p.drawA = asks * perWatt(t.inV)
}

// perWatt is the current that a watt takes at a voltage, falling to nothing below LeastV.
func perWatt(volts float64) float64 {
	if volts > LeastV {
		return 1 / volts
	}
	return volts / (LeastV * LeastV)
}

// couple lets a port's draw follow its input and its output, and, at its input limit, its
// output its input.
func (h *happening) couple(p *port) {
	g := h.s.g
	if !p.on {
		return
	}
	t := h.s.terminals(p)
	in, ground := g.unknown[p.plus], g.unknown[p.minus]
	slope := 1 / (LeastV * LeastV)
	if t.inV > LeastV {
		slope = -1 / (t.inV * t.inV)
	}
	h.depends(in, ground, in, ground, p.asks(t)*slope)
	if p.converter == nil {
		return
	}
	d := &g.devices[p.stage]
	byOut, byIn := d.law.slope[d.at], 0.0
	if d.at == 0 && d.law.pieces > 1 && p.mostA < p.capA {
		byOut = -p.mostA / math.Max(t.outV, LeastV)
		byIn = p.mostA / math.Max(t.inV, 1e-9)
		h.depends(d.from, d.to, d.plus, d.minus, byOut-d.law.slope[0])
		h.depends(d.from, d.to, in, ground, byIn)
	}
	w := perWatt(t.inV) / p.converter.Efficiency
	h.depends(in, ground, d.plus, d.minus, w*(byOut*t.outV+t.outA))
	h.depends(in, ground, in, ground, w*byIn*t.outV)
}
