package circuit

import "epitrope/core/system"

// Rewire makes a circuit that of a system which differs from the one that it was laid for in what its wires, fuses, plugs and
// bus bars resist, in Ω, and in nothing else. It says false where that is a piece that was not laid, one less, or a switch: then it is to
// be laid anew.
func (l *Circuit) Rewire(s *system.System) bool {
	ohms := resisting(s)
	if l.ohms == nil {
		l.ohms = resisting(l.of)
	}
	if len(ohms) != len(l.ohms) {
		return false
	}
	for i, now := range ohms {
		was := l.ohms[i]
		switch {
		case now.name != was.name || now.ohm > 0 != (was.ohm > 0):
			return false
		case now.ohm == was.ohm:
			continue
		case now.byHand:
			return false
		}
		if at, laid := l.solver.Resistance(now.name); laid { // a fuse that no wire comes to is not, nor a plug's minus that passes by
			at.Set(now.ohm)
		}
		l.ohms[i] = now
	}
	return true
}

// resistance is what a piece resists.
type resistance struct {
	name   string
	ohm    float64
	byHand bool // it is a switch, and stays as it was laid
}

// resisting is what the wires, their joints and the fuses of a system resist.
func resisting(s *system.System) []resistance {
	list := make([]resistance, 0, 3*len(s.Wires)+8)
	for _, w := range s.Wires {
		list = append(list, resistance{name: w.ID + system.JointFrom, ohm: w.Joint.From}, resistance{name: w.ID, ohm: w.Ohm},
			resistance{name: w.ID + system.JointTo, ohm: w.Joint.To})
	}
	for _, c := range s.Components {
		switch d := c.Device.(type) {
		case system.Fuse:
			list = append(list, resistance{name: c.ID, ohm: d.Ohm})
		case system.Plug:
			list = append(list, resistance{name: c.ID + " plus", ohm: d.Card.Ohm},
				resistance{name: c.ID + " minus", ohm: d.Card.Ohm})
		case system.Link:
			list = append(list, resistance{c.ID, d.Ohm, d.ByHand})
		}
	}
	return list
}
