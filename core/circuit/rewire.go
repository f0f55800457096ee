package circuit

import "epitrope/core/system"

// Rewire makes a circuit that of a system which differs from the one that it was laid for in what its wires and fuses
// resist, in Ω, and in nothing else. It says false where that is a piece that was not laid, or one less: then it is to be
// laid anew.
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
		}
		if at, laid := l.solver.Resistance(now.name); laid { // a fuse that no wire comes to is not
			at.Set(now.ohm)
		}
		l.ohms[i] = now
	}
	return true
}

// resistance is what a piece resists.
type resistance struct {
	name string
	ohm  float64
}

// resisting is what the wires, their joints and the fuses of a system resist.
func resisting(s *system.System) []resistance {
	list := make([]resistance, 0, 3*len(s.Wires)+8)
	for _, w := range s.Wires {
		list = append(list, resistance{w.ID + system.JointFrom, w.Joint.From}, resistance{w.ID, w.Ohm},
			resistance{w.ID + system.JointTo, w.Joint.To})
	}
	for _, c := range s.Components {
		if f, is := c.Device.(system.Fuse); is {
			list = append(list, resistance{c.ID, f.Ohm})
		}
	}
	return list
}
