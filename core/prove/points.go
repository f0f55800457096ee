package prove

import (
	"strings"

	"epitrope/core/design"
	"epitrope/core/system"
	"epitrope/core/unit"
)

// probed are the stations at which every point is read.
var probed = map[string]bool{KeyOut: true, Ignition: true, FastIdle: true}

// AtStart is a clamp round every lead at the start battery's plus.
const AtStart = "start battery"

// points are the volts of every terminal that a probe reaches, against the minus of the battery on its side; and what is drained.
func points(d *design.Design, s Station) []Reading {
	b := &lister{d: d, station: s.ID}
	for _, w := range d.System.Wires {
		if s.ID == FastIdle && w.Role == system.Feed && (w.From == term("alternator", "B+") || w.To == term("alternator", "B+")) {
			b.add(Reading{ID: "machine-" + w.ID, What: unit.Say("Out of the alternator, by %s", d.Called(w.To)), Unit: Amps, Clamp: w.ID,
				Range: clampAmp,
				Extra: true})
		}
	}
	if s.ID == Asleep {
		for _, w := range d.System.Wires {
			if source := d.System.Ends.Source; w.Role == system.Feed && (w.From == source || w.To == source) && w.Run == d.Start.ID {
				b.add(Reading{ID: "asleep-" + w.ID, What: unit.Say("Along %s, asleep", strings.ToUpper(w.ID)), Unit: Amps, Clamp: w.ID,
					Range: clampAmp, Extra: true})
				break
			}
		}
		b.add(Reading{ID: "drain", What: "Out of the start battery, asleep", Unit: Amps, Clamp: AtStart, Range: clampAmp, Extra: true})
	}
	if !probed[s.ID] {
		return b.list
	}
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
			b.list[len(b.list)-1].Extra = true
		}
	}
	return b.list
}
