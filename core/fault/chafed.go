package fault

import (
	"maps"
	"slices"

	"epitrope/core/design"
	"epitrope/core/system"
)

// touchOhm is a wire that touches steel: enough to blow its fuse. Source: from memory.
const touchOhm = 0.02

// chafed is a wire that has worn through to steel. Its fuses are open, and open again: what lies behind them is dead, and at the
// vehicle's minus. A wire with a battery and no fuse before it burns, and nobody measures at it.
func chafed(d *design.Design, w system.Wire) (f Fault, is bool) {
	if w.Role != system.Feed && w.Role != system.Signal {
		return f, false
	}
	fuses := map[string]bool{}
	for _, end := range []system.Terminal{w.From, w.To} {
		c, _ := d.System.Component(end.Component)
		if _, fused := c.Device.(system.Fuse); fused {
			fuses[c.ID] = true
		}
	}
	for _, end := range []system.Terminal{w.From, w.To} { // a battery, or a machine, at its end feeds the short past every fuse
		switch c, _ := d.System.Component(end.Component); c.Device.(type) {
		case system.Bank, system.Machine, system.Plug, system.Outlet:
			return f, false
		}
	}
	if len(fuses) == 0 {
		return f, false
	}
	blow := func(s *system.System, _ float64) {
		for i, c := range s.Components {
			if of, is := c.Device.(system.Fuse); is && fuses[c.ID] {
				of.Ohm = openOhm
				s.Components[i].Device = of
			}
		}
		s.Join(system.Wire{ID: w.ID + " to steel", Role: system.Feed, From: w.To, To: d.System.Ends.Minus, Ohm: touchOhm,
			Name: "bare copper on steel"})
	}
	return Fault{ID: string(Chafed) + " " + w.ID, Kind: Chafed, At: w.ID, Blows: slices.Sorted(maps.Keys(fuses)), Says: d.NameOf(w.ID) +
		" has worn through to steel: its fuse blows again",
		Endangers: fire, Mend: "the wire replaced or sleeved, a grommet where it passes steel; then the fuse", wrong: blow}, true
}
