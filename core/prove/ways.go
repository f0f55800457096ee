package prove

import "epitrope/core/system"

// wayBack are the wires from the aux battery's minus to the start battery's, by the fewest.
func wayBack(sys *system.System) map[string]bool {
	type hop struct {
		from system.Terminal
		wire string
	}
	from, to := term("aux", "31"), term("start", "31")
	came, queue := map[system.Terminal]hop{from: {}}, []system.Terminal{from}
	for len(queue) > 0 && queue[0] != to {
		at := queue[0]
		queue = queue[1:]
		step := func(next system.Terminal, wire string) {
			if _, been := came[next]; !been {
				came[next], queue = hop{at, wire}, append(queue, next)
			}
		}
		for _, w := range sys.Wires {
			switch {
			case w.Role != system.Return && w.Role != system.Chassis:
			case w.From == at:
				step(w.To, w.ID)
			case w.To == at:
				step(w.From, w.ID)
			}
		}
		c, _ := sys.Component(at.Component)
		for _, other := range across(c, at) {
			step(other, "")
		}
	}
	list := map[string]bool{}
	for at := to; at != from && came[at].from != (system.Terminal{}); at = came[at].from {
		list[came[at].wire] = true
	}
	return list
}

// across is where a current that comes back passes a component to: through a shunt, or a plug.
func across(c system.Component, at system.Terminal) []system.Terminal {
	switch d := c.Device.(type) {
	case system.Link:
		return map[system.Terminal][]system.Terminal{d.From: {d.To}, d.To: {d.From}}[at]
	case system.Plug:
		if d.Minus {
			return map[string][]system.Terminal{"-": {term(c.ID, "-t")}, "-t": {term(c.ID, "-")}}[at.Terminal]
		}
	}
	return nil
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
