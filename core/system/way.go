package system

import "slices"

// Station is one part of the run in series, from the front to the back: a component that the
// current passes, with the short leads beside it, or a cable.
type Station struct {
	ID        string     // of the component, or of the cable's run
	Component *Component // nil: a cable
	From, To  Terminal   // of the component
	Before    []Wire     // a component's own leads, on its front side
	After     []Wire     // … and on its back
	Cable     []Wire     // a cable's wires, from front to back; a plug may lie between two
}

// First is the wire at the station's front end; ok is false where there is none.
func (s Station) First() (w Wire, ok bool) {
	for _, wires := range [][]Wire{s.Cable, s.Before} {
		if len(wires) > 0 {
			return wires[0], true
		}
	}
	return Wire{}, false
}

// Last is the wire at its back end; ok is false where there is none.
func (s Station) Last() (w Wire, ok bool) {
	for _, wires := range [][]Wire{s.Cable, s.After} {
		if len(wires) > 0 {
			return wires[len(wires)-1], true
		}
	}
	return Wire{}, false
}

// hop is a step of the way: along a wire, or through a component.
type hop struct {
	to        Terminal
	wire      *Wire
	component *Component
	from      Terminal
}

// Way is the run in series, from its source to the aux battery by the fewest steps, without
// the two; empty where there is none. A plug stands after the cable that it is in.
func (s *System) Way() []Station {
	var list []Station
	var beside []Wire // leads that wait for the component behind them
	last := func() *Station { return &list[len(list)-1] }
	for _, h := range s.hops() {
		switch {
		case h.component != nil && h.component.Kind == KindPlug:
			list = append(list, Station{ID: h.component.ID, Component: h.component, From: h.from, To: h.to})
		case h.component != nil:
			list = append(list, Station{ID: h.component.ID, Component: h.component, From: h.from, To: h.to, Before: beside})
			beside = nil
		case h.wire.Beside != "" && len(list) > 0 && last().ID == h.wire.Beside:
			last().After = append(last().After, *h.wire)
		case h.wire.Beside != "":
			beside = append(beside, *h.wire)
		case len(list) > 1 && last().Component != nil && last().Component.Kind == KindPlug:
			cable := &list[len(list)-2] // it goes on behind its plug
			cable.Cable = append(cable.Cable, *h.wire)
		default:
			list = append(list, Station{ID: h.wire.Run, Cable: []Wire{*h.wire}})
		}
	}
	return list
}

// hops are the steps of the way, by the fewest.
func (s *System) hops() []hop {
	came := map[Terminal]hop{s.Ends.Source: {}}
	queue := []Terminal{s.Ends.Source}
	for len(queue) > 0 && queue[0] != s.Ends.Bank {
		at := queue[0]
		queue = queue[1:]
		for _, h := range s.from(at) {
			if _, been := came[h.to]; !been {
				came[h.to] = h
				queue = append(queue, h.to)
			}
		}
	}
	var back []hop
	for at := s.Ends.Bank; at != s.Ends.Source; at = came[at].from {
		h, ok := came[at]
		if !ok {
			return nil
		}
		back = append(back, h)
	}
	slices.Reverse(back)
	return back
}

// from are the steps that lead on from a terminal: along its feed wires, and through what it
// is a terminal of.
func (s *System) from(at Terminal) []hop {
	var list []hop
	step := func(a, b Terminal, w *Wire, c *Component) {
		switch at {
		case a:
			list = append(list, hop{from: a, to: b, wire: w, component: c})
		case b:
			list = append(list, hop{from: b, to: a, wire: w, component: c})
		}
	}
	for i := range s.Wires {
		if w := &s.Wires[i]; w.Role == Feed {
			step(w.From, w.To, w, nil)
		}
	}
	for i := range s.Components {
		c := &s.Components[i]
		own := func(name string) Terminal { return Terminal{c.ID, name} }
		switch d := c.Device.(type) {
		case Fuse:
			step(own("in"), own("out"), nil, c)
		case Link:
			step(d.From, d.To, nil, c)
		case Contact:
			if d.Ahead {
				step(own(d.From), own(d.To), nil, c)
			}
		case Outlet:
			step(own("in"), own("out"), nil, c)
		case Plug:
			step(own("+"), own("+t"), nil, c)
		}
		if c.ID == s.Ends.Coupling {
			step(s.Ends.Start, s.Ends.Aux, nil, c)
		}
	}
	return list
}
