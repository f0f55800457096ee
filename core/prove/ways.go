package prove

import "epitrope/core/system"

// wayBack are the wires from the aux battery's minus to the start battery's, by the fewest, and the parts that lie between them.
func wayBack(sys *system.System) map[string]bool {
	type hop struct{ from, by string }
	from, to := term("aux", "31").Node(), term("start", "31").Node() // points that are one have one name
	came, queue := map[string]hop{from: {}}, []string{from}
	for len(queue) > 0 && queue[0] != to {
		at := queue[0]
		queue = queue[1:]
		step := func(here, there system.Terminal, by string) {
			if _, been := came[there.Node()]; here.Node() == at && !been {
				came[there.Node()], queue = hop{at, by}, append(queue, there.Node())
			}
		}
		for _, w := range sys.Wires {
			if w.Role == system.Return || w.Role == system.Chassis {
				step(w.From, w.To, w.ID)
				step(w.To, w.From, w.ID)
			}
		}
		for _, c := range sys.Components {
			if a, b, passes := passes(c); passes {
				step(a, b, c.ID)
				step(b, a, c.ID)
			}
		}
	}
	list := map[string]bool{}
	for at := to; came[at].by != ""; at = came[at].from {
		list[came[at].by] = true
	}
	return list
}

// passes is where a current that comes back passes a component: through a shunt, or a plug.
func passes(c system.Component) (a, b system.Terminal, ok bool) {
	switch d := c.Device.(type) {
	case system.Link:
		return d.From, d.To, true
	case system.Plug:
		return term(c.ID, "-"), term(c.ID, "-t"), d.Minus
	}
	return a, b, false
}

// fed says whether a fuse's side hangs on a battery with every fuse out.
func (b *lister) fed(fuse, side string) bool { return b.feeds(term(fuse, side), false) }

// feeds says whether a battery feeds a terminal, with the fuses in or out.
func (b *lister) feeds(from system.Terminal, fuses bool) bool {
	at, seen := []system.Terminal{from}, map[system.Terminal]bool{}
	for len(at) > 0 {
		t := at[0]
		at = at[1:]
		if seen[t] {
			continue
		}
		seen[t] = true
		if t == term("start", "30") || t == term("aux", "30") {
			return true
		}
		if c, _ := b.d.System.Component(t.Component); fuses {
			if _, is := c.Device.(system.Fuse); is {
				at = append(at, term(c.ID, "in"), term(c.ID, "out"))
			}
		}
		for _, w := range b.d.System.Wires {
			switch {
			case w.Role != system.Feed:
			case w.From == t:
				at = append(at, w.To)
			case w.To == t:
				at = append(at, w.From)
			}
		}
	}
	return false
}
