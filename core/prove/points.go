package prove

import (
	"epitrope/core/design"
	"epitrope/core/system"
	"epitrope/core/unit"
)

// probed are the stations at which every point is read.
var probed = map[string]bool{KeyOut: true, Ignition: true, FastIdle: true}

// points are the volts of every terminal that a probe reaches, against the minus of the battery on its side.
func points(d *design.Design, s Station) []Reading {
	if !probed[s.ID] {
		return nil
	}
	b := &lister{d: d, station: s.ID}
	seen := map[string]bool{term("start", "31").Node(): true, term("aux", "31").Node(): true}
	for _, r := range readings(d, s) { // what is read anyway
		if r.Unit == Volts && !r.Drop {
			seen[r.Red.Node()] = true
		}
	}
	for _, w := range d.System.Wires {
		if w.Role != system.Feed && w.Role != system.Signal {
			continue
		}
		for _, t := range []system.Terminal{w.From, w.To} {
			if seen[t.Node()] {
				continue
			}
			seen[t.Node()] = true
			minus := term("start", "31")
			if w.Run == d.Aux.ID {
				minus = term("aux", "31")
			}
			b.volts("at-"+t.Component+"-"+t.Terminal+"-"+s.ID, unit.Say("%s", d.Called(t)), t, minus)
		}
	}
	return b.list
}
