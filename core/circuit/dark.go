package circuit

import "epitrope/core/day"

// dims puts the loads off that are left with volts that nothing works at, and says whether there was one.
func (l *Circuit) dims() (any bool) {
	for _, h := range l.hang {
		if *h.amps > 0 && l.solver.At(h.at[0])-l.solver.At(h.at[1]) < day.DarkV*h.n {
			*h.amps, any = 0, true
			l.Dark = append(l.Dark, h.name)
		}
	}
	return any
}

// darkens puts what hangs beside the charger, or on the run, off where its line has nothing for it; it says whether
// that is what asked.
func (l *Circuit) darkens(element string) bool {
	for _, h := range l.hang {
		if h.name == element && *h.amps > 0 && h.name != Vehicle && h.name != House {
			*h.amps = 0
			l.Dark = append(l.Dark, element)
			return true
		}
	}
	return false
}
