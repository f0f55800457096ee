package system

import "slices"

// Bridge is what may conduct between two terminals of a component: a fuse, a contact that
// can close, the halves of a plug.
type Bridge struct {
	Component, From, To string
	OneWay              bool // from From to To alone: a diode
}

// bridges are those of the system with its changeovers at rest, or not. Any other contact
// that may be closed counts as closed, as nobody sees it from outside.
func (s *System) bridges(rest bool) []Bridge {
	list := []Bridge{}
	for _, c := range s.Components {
		if d, splits := c.Device.(Splitter); splits {
			list = append(list, Bridge{c.ID, d.From, d.Start, true}, Bridge{c.ID, d.From, d.Aux, true})
		}
		switch c.Kind {
		case KindFuse, KindOutlet:
			list = append(list, Bridge{Component: c.ID, From: "in", To: "out"})
		case KindRelay, KindContactor, KindIsolator:
			list = append(list, Bridge{Component: c.ID, From: "30", To: "87"})
		case KindChangeover:
			list = append(list, Bridge{Component: c.ID, From: "30", To: map[bool]string{true: "87a", false: "87"}[rest]})
		case KindControl:
			list = append(list, Bridge{Component: c.ID, From: map[bool]string{true: "1", false: "2"}[rest], To: "0"})
		case KindSwitch, KindDisconnect:
			list = append(list, Bridge{Component: c.ID, From: "1", To: "2"})
		case KindPlug:
			list = append(list, Bridge{Component: c.ID, From: "+", To: "+t"})
		}
	}
	return list
}

// Live returns the feed wires that a source at a terminal reaches, with the components
// named in opened taken out of the way: fuses pulled, plugs parted, contacts locked open.
// What a changeover lets through in either position counts, but not both at once. Wires
// come in the order of the system.
func (s *System) Live(source Terminal, opened ...string) []string {
	resting, made := s.reached(source, s.bridges(true), opened), s.reached(source, s.bridges(false), opened)
	list := []string{}
	for _, w := range s.Wires {
		if resting[w.ID] || made[w.ID] {
			list = append(list, w.ID)
		}
	}
	return list
}

func (s *System) reached(source Terminal, bridges []Bridge, opened []string) (live map[string]bool) {
	reached := map[Terminal]bool{source: true}
	live = map[string]bool{}
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
			if slices.Contains(opened, b.Component) || reached[from] == reached[to] || b.OneWay && reached[to] {
				continue
			}
			reached[from], reached[to], grown = true, true, true
		}
	}
	return live
}
