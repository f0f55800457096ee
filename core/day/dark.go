package day

import (
	"errors"

	"epitrope/core/network"
	"epitrope/core/unit"
)

// solve solves the circuit. A load is off where its line has nothing for it: what hangs beside the
// charger, what is used off the aux battery, what the vehicle takes.
func (r *runner) solve(s *sight) error {
	for {
		err := r.solver.Solve()
		if err == nil {
			if r.tapsDim() {
				continue
			}
			r.dims(s)
			return nil
		}
		var at *network.Error
		if !errors.As(err, &at) {
			return err
		}
		switch {
		case at.Element == r.rig.Beside && r.h.beside != nil && r.h.beside.Amps > 0:
			s.besideDark, r.h.beside.Amps = true, 0
		case r.h.charger != nil && at.Element == r.rig.Charger.Element && !r.on.charging && r.h.charger.MaxOutA > 0:
			r.h.charger.MaxOutA = 0
		case at.Element == r.rig.House && r.h.house.Amps > 0:
			s.houseDark, r.h.house.Amps = r.h.house.Amps, 0
		case at.Element == r.rig.Vehicle && r.h.vehicle.Amps > 0:
			s.vehicleDark, r.h.vehicle.Amps = r.h.vehicle.Amps, 0
		case r.tapDark(at.Element):
		default:
			return err
		}
	}
}

// tapDark puts what hangs on the run off, where its line has nothing for it.
func (r *runner) tapDark(element string) bool {
	for i, t := range r.rig.Taps {
		if t.Element == element && r.h.taps[i].load.Amps > 0 {
			r.h.taps[i].load.Amps, r.h.taps[i].dark, r.tapsRan = 0, true, r.now.running
			return true
		}
	}
	return false
}

// tapsDim puts what hangs on the run off that is left with volts that nothing works at, and says whether any was.
func (r *runner) tapsDim() (any bool) {
	for i := range r.h.taps {
		t := &r.h.taps[i]
		if t.load.Amps > 0 && r.solver.At(t.plus)-r.solver.At(t.minus) < DarkV*r.rig.Taps[i].N {
			t.load.Amps, t.dark, r.tapsRan, any = 0, true, r.now.running, true
		}
	}
	return any
}

// DarkV is what nothing works at any more, at 12 V. Source: from memory; what is fed resets or lets go well
// above it.
const DarkV = 6.0

// dims notes a load that is left with volts that nothing works at: it goes off next.
func (r *runner) dims(s *sight) {
	h, v, least := &r.h, r.solver, DarkV*r.rig.N
	if h.beside != nil && h.beside.Amps > 0 && v.At(h.senseP)-v.At(h.senseZ) < least {
		s.besideDark = true
	}
	if h.house.Amps > 0 && v.At(h.auxP)-v.At(h.auxZ) < DarkV*r.rig.AuxN {
		s.houseDark = h.house.Amps
	}
	if h.vehicle.Amps > 0 && v.At(h.bus) < least {
		s.vehicleDark = h.vehicle.Amps
	}
}

// goDark lets loads go off that their line cannot feed.
func (r *runner) goDark() {
	r.on.ran = r.now.running
	if r.s.besideDark {
		r.on.besideDark = true
		r.happened("beside.dark", "coupling", "the line to the coupling cannot give what else hangs on it: that goes off")
	}
	if a := r.s.houseDark; a > 0 {
		r.on.houseDark = a
		r.result.Verdict.Empty++
		r.happened("aux.dark", "aux", unit.Say("the aux battery cannot give the %s that is asked of it: what it feeds goes off",
			unit.Text(a, "A", 0)))
	}
	if a := r.s.vehicleDark; a > 0 {
		r.on.vehicleDark = a
		r.happened("start.dark", "start", unit.Say("the start battery cannot give the %s that the vehicle takes: it goes dark",
			unit.Text(a, "A", 1)))
	}
}
