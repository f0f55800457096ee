package harness

import (
	"slices"

	"epitrope/core/system"
)

// side is where on a part a wire ends.
type side int

const (
	left side = iota
	right
	top
	bottom
)

// part is a part to be placed.
type part struct {
	id, kind, name, rating string
	w, h                   int
	x, y                   int // of its upper left corner, once placed
	band                   int // … and the band
}

// link is a wire to be drawn.
type link struct {
	wire     system.Wire
	from, to int // parts
	label    string
	pinFrom  pin
	pinTo    pin
	path     []cellAt
	text     *TextAt
}

// pin is where a wire ends on a part, and the way out of it.
type pin struct {
	x, y   int
	dx, dy int
}

// net is what is drawn: parts and the wires between them.
type net struct {
	parts []part
	links []link

	terminals []terminalText
	at        map[string]int
	behind    string // what comes away with the plug; "" where there is none
	wrapped   bool   // what is past the coupling stands below what is before it, where there are many columns
	below     int    // where the second band begins; 0 where there is one
}

// Ids of what the drawing adds to the system: the box that the loads hang on, and the bar
// that they come back to.
const (
	boxID = "box"
	barID = "bar"
)

func newNet(s *system.System, loads []Load) *net {
	n := &net{at: map[string]int{}}
	for _, c := range s.Components {
		if c.Kind == system.KindLoads {
			continue
		}
		if plug, is := c.Device.(system.Plug); is {
			n.behind = plug.Behind
		}
		w, h := blockW, blockH
		if c.Kind == system.KindEarth {
			w, h = earthW, earthH
		}
		n.add(part{id: c.ID, kind: string(c.Kind), name: c.Name, rating: c.Rating, w: w, h: h})
	}
	for _, w := range s.Wires {
		n.join(w)
	}
	if _, ok := n.at["e1"]; ok {
		n.join(system.Wire{ID: "start-earth", Role: system.Return, From: system.Terminal{Component: "start", Terminal: "31"},
			To: system.Terminal{Component: "e1"}, Existing: true})
	}
	if r1, ok := s.Component("r1"); ok {
		shunt, _ := r1.Device.(system.Link)
		n.join(system.Wire{ID: "r1-", Role: system.Return, From: system.Terminal{Component: "r1", Terminal: "battery"},
			To: shunt.From, Existing: true})
	}
	n.addLoads(s, loads)
	return n
}

func (n *net) add(p part) {
	n.at[p.id] = len(n.parts)
	n.parts = append(n.parts, p)
}

// addLoads puts the loads between a box and a bar, both as tall as they need to be.
func (n *net) addLoads(s *system.System, loads []Load) {
	_, fed := s.Component("house")
	if !fed && len(loads) == 0 {
		return
	}
	tall := max(blockH, loadPitch*len(loads)-(loadPitch-loadH))
	n.add(part{id: boxID, kind: "box", name: "Fuse box", rating: "as fitted", w: boxW, h: tall})
	n.add(part{id: barID, kind: "bar", name: "−", w: barW, h: tall})
	at := func(component, terminal string) system.Terminal {
		return system.Terminal{Component: component, Terminal: terminal}
	}
	if fed {
		for _, w := range s.Wires {
			if w.To.Component == "house" {
				w.To = at(boxID, "30")
				n.join(w)
			}
			if w.From.Component == "house" {
				w.From = at(barID, "31")
				n.join(w)
			}
		}
	} else {
		plus, minus := at("aux", "30"), at("aux", "31")
		if q, ok := s.Component("q1"); ok && n.isMaster(s, q.ID) {
			plus = at("q1", "1")
		}
		if _, ok := s.Component("r1"); ok {
			minus = at("r1", "load")
		}
		n.join(system.Wire{ID: "house+", Role: system.Feed, From: plus, To: at(boxID, "30"), Existing: true})
		n.join(system.Wire{ID: "house-", Role: system.Return, From: at(barID, "31"), To: minus, Existing: true})
	}
	for _, l := range loads {
		n.add(part{id: l.ID, kind: "load", name: l.Name, rating: l.Rating, w: blockW, h: loadH})
		n.join(system.Wire{ID: l.ID + "+", Role: system.Feed, From: at(boxID, l.ID), To: at(l.ID, "+"), Existing: true})
		n.join(system.Wire{ID: l.ID + "-", Role: system.Return, From: at(l.ID, "31"), To: at(barID, l.ID), Existing: true})
	}
}

// isMaster says whether an isolator is at the aux battery's post.
func (n *net) isMaster(s *system.System, id string) bool {
	return slices.ContainsFunc(s.Wires, func(w system.Wire) bool {
		return w.From.Component == "aux" && w.To.Component == id || w.To.Component == "aux" && w.From.Component == id
	})
}

func (n *net) join(w system.Wire) {
	from, okFrom := n.at[w.From.Component]
	to, okTo := n.at[w.To.Component]
	if !okFrom || !okTo || from == to {
		return
	}
	l := link{wire: w, from: from, to: to}
	if !w.Existing && w.Role != system.Chassis {
		l.label = Number(w.ID) + " " + w.Size
	}
	n.links = append(n.links, l)
}
