package system

import "slices"

// Bridge is what may conduct between two terminals of a component: a fuse, a contact that
// can close, the halves of a plug.
type Bridge struct {
	Component, From, To string
}

// Bridges are those of the system: a contact that may be closed counts as closed, as
// nobody sees it from outside.
func (s *System) Bridges() []Bridge {
	list := []Bridge{}
	for _, c := range s.Components {
		switch c.Kind {
		case Fuse:
			list = append(list, Bridge{c.ID, "in", "out"})
		case Relay, Contactor, Isolator:
			list = append(list, Bridge{c.ID, "30", "87"})
		case Charger:
			if c.Joins {
				list = append(list, Bridge{c.ID, "30", "out"})
			}
		case Switch, Disconnect:
			list = append(list, Bridge{c.ID, "1", "2"})
		case Plug:
			list = append(list, Bridge{c.ID, "+", "+t"})
		}
	}
	return list
}

// Live returns the feed wires that a source at a terminal reaches, with the components
// named in opened taken out of the way: fuses pulled, plugs parted, contacts locked open.
// Wires come in the order of the system.
func (s *System) Live(source Terminal, opened ...string) []string {
	reached := map[Terminal]bool{source: true}
	live := map[string]bool{}
	bridges := s.Bridges()
	for grown := true; grown; {
		grown = false
		for _, w := range s.Wires {
			if w.Role == Return || w.Role == Chassis || live[w.ID] || !reached[w.From] && !reached[w.To] {
				continue
			}
			live[w.ID], reached[w.From], reached[w.To], grown = true, true, true, true
		}
		for _, b := range bridges {
			from, to := Terminal{b.Component, b.From}, Terminal{b.Component, b.To}
			if slices.Contains(opened, b.Component) || reached[from] == reached[to] {
				continue
			}
			reached[from], reached[to], grown = true, true, true
		}
	}
	list := []string{}
	for _, w := range s.Wires {
		if live[w.ID] {
			list = append(list, w.ID)
		}
	}
	return list
}
