package prove

import (
	"slices"

	"epitrope/core/system"
)

// Lines of a picture: plus on top, the way back below, and what is no part of either above them.
const (
	PlusLine  = "plus"
	MinusLine = "minus"
	Above     = "above"
)

// Picture is the circuit as small as a telephone shows it, with where a reading's probes or clamp go. The start battery stands
// at 0, the aux battery at Last, a part of the run at each whole place between.
type Picture struct {
	Last  float64 `json:"last"`
	Parts []Drawn `json:"parts"`
	Red   *Place  `json:"red,omitempty"`
	Black *Place  `json:"black,omitempty"`
	Clamp *Place  `json:"clamp,omitempty"`
}

// Drawn is a part of a picture.
type Drawn struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	Kind string `json:"kind"`
	Place
}

// Place is a place of a picture.
type Place struct {
	X    float64 `json:"x"`
	Line string  `json:"line" enum:"plus,minus,above"`
}

// How far a part's terminal is drawn from its middle, and a lug's barrel from its post.
const (
	halfPart = 0.28
	barrel   = 0.16
)

// painter knows where everything is drawn.
type painter struct {
	sys   *system.System
	parts []Drawn
	last  float64
	at    map[system.Terminal]Place
}

func paint(sys *system.System) *painter {
	p := &painter{sys: sys, at: map[system.Terminal]Place{}}
	p.battery("start", 0)
	x := 0.0
	for _, s := range sys.Way() {
		if s.Component == nil {
			continue
		}
		x++
		p.draw(s.Component.ID, Place{x, PlusLine})
		p.at[s.From], p.at[s.To] = Place{x - halfPart, PlusLine}, Place{x + halfPart, PlusLine}
	}
	p.last = x + 1
	p.battery("aux", p.last)
	p.returns()
	p.others()
	return p
}

func (p *painter) draw(id string, at Place) {
	c, _ := p.sys.Component(id)
	p.parts = append(p.parts, Drawn{id, c.Name, string(c.Kind), at})
}

func (p *painter) battery(id string, x float64) {
	p.draw(id, Place{x, PlusLine})
	p.at[term(id, "30")], p.at[term(id, "31")] = Place{x, PlusLine}, Place{x, MinusLine}
}

func (p *painter) drawn(id string) (Place, bool) {
	i := slices.IndexFunc(p.parts, func(d Drawn) bool { return d.ID == id })
	if i < 0 {
		return Place{}, false
	}
	return p.parts[i].Place, true
}

// returns are the points of the way back, from the aux battery to the start battery, evenly along the lower line.
func (p *painter) returns() {
	from, been, order := term("aux", "31").Component, map[string]bool{"aux": true}, []string{}
	for from != "" {
		next := ""
		for _, w := range p.sys.Wires {
			if w.Role != system.Return && w.Role != system.Chassis {
				continue
			}
			for _, pair := range [][2]string{{w.From.Component, w.To.Component}, {w.To.Component, w.From.Component}} {
				if _, on := p.drawn(pair[1]); pair[0] == from && !been[pair[1]] && !on && next == "" {
					next = pair[1]
				}
			}
		}
		if next != "" {
			been[next], order = true, append(order, next)
		}
		from = next
	}
	for i, id := range order {
		p.draw(id, Place{p.last * float64(len(order)-i) / float64(len(order)+1), MinusLine})
	}
}

// others are what belongs to neither, such as a signal's fuse, side by side.
func (p *painter) others() {
	var list []string
	for _, c := range p.sys.Components {
		if _, on := p.drawn(c.ID); !on {
			list = append(list, c.ID)
		}
	}
	for i, id := range list {
		p.draw(id, Place{p.last * float64(i+1) / float64(len(list)+1), Above})
	}
}

// spot is where a terminal, or a lug's barrel beside one, is drawn; nil where it is not.
func (p *painter) spot(t system.Terminal) *Place {
	for _, w := range p.sys.Wires { // a barrel is no terminal, but a point of the circuit
		from, to := w.Ends()
		switch {
		case t.Terminal != "":
		case w.Joint.From > 0 && from == t.Component:
			return beside(p.terminal(w.From), p.terminal(w.To))
		case w.Joint.To > 0 && to == t.Component:
			return beside(p.terminal(w.To), p.terminal(w.From))
		}
	}
	return p.terminal(t)
}

// beside is where a lug's barrel is drawn: from its post towards the wire's other end.
func beside(here, there *Place) *Place {
	if here == nil {
		return nil
	}
	at := *here
	if there != nil && there.X < here.X {
		at.X -= barrel
	} else {
		at.X += barrel
	}
	return &at
}

// terminal is where a terminal is drawn; nil where it is not.
func (p *painter) terminal(t system.Terminal) *Place {
	if at, known := p.at[t]; known {
		return &at
	}
	at, on := p.drawn(t.Component)
	if !on {
		return nil
	}
	if at.Line == PlusLine { // of a part of the run: its minus below, its signal above
		at.Line = Above
		if p.returned(t) {
			at.Line = MinusLine
		}
	}
	return &at
}

// returned says whether a terminal belongs to the way back.
func (p *painter) returned(t system.Terminal) bool {
	return t.Terminal == "31" || t.Terminal == "-" || t.Terminal == "-t" || slices.ContainsFunc(p.sys.Wires, func(w system.Wire) bool {
		return (w.Role == system.Return || w.Role == system.Chassis) && (w.From == t || w.To == t)
	})
}

// of is the picture of a reading.
func (p *painter) of(r Reading) Picture {
	out := Picture{Last: p.last, Parts: []Drawn{}}
	if r.Red.Component != "" {
		out.Red, out.Black = p.spot(r.Red.Terminal), p.spot(r.Black.Terminal)
	}
	switch {
	case r.Clamp == AtStart:
		out.Clamp = &Place{halfPart, PlusLine}
	case r.Clamp == AtPost:
		out.Clamp = &Place{p.last - halfPart, PlusLine}
	case r.Clamp != "":
		if w, ok := p.sys.Wire(r.Clamp); ok {
			from, to := p.spot(w.From), p.spot(w.To)
			if from != nil && to != nil {
				out.Clamp = &Place{(from.X + to.X) / 2, from.Line}
			}
		}
	}
	for _, d := range p.parts { // what lies above is drawn where a probe goes to it
		if d.Line != Above || d.ID == r.Red.Component || d.ID == r.Black.Component {
			out.Parts = append(out.Parts, d)
		}
	}
	return out
}

// Pictures are the pictures of the readings, by id.
func (p *Proof) Pictures() map[string]Picture {
	list := map[string]Picture{}
	if len(p.Readings) == 0 {
		return list
	}
	on := paint(&p.d.System)
	for _, r := range p.Readings {
		list[r.ID] = on.of(r)
	}
	return list
}
