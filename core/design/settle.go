package design

import (
	"slices"

	"fmt"
	"math"
	"strings"

	"epitrope/core/circuit"
	"epitrope/core/run"
	"epitrope/core/unit"
)

// WorstState is the state that the runs are sized for.
func (d *Design) WorstState() State { return d.States[d.Worst] }

// Hardest is the state that drives most current for long; the zero state where none
// has a solution.
func (d *Design) Hardest() State {
	at := State{}
	for _, s := range d.States {
		if s.Kind == Charging && s.Solved.Volts != nil && !s.Sags && s.InA+s.OutA >= at.InA+at.OutA {
			at = s
		}
	}
	return at
}

// StartAsksA is what charging asks of the alternator at idle.
func (d *Design) StartAsksA() float64 {
	if !d.Kind.Charger() {
		return d.CruiseState().InA
	}
	return d.IdleState().InA
}

// StateBy is a state by its id; every job has those of a drive.
func (d *Design) StateBy(id string) State {
	for _, s := range d.States {
		if s.ID == id {
			return s
		}
	}
	return State{}
}

// IdleState is idling, hot, lamps on.
func (d *Design) IdleState() State { return d.StateBy("idle") }

// Across is the voltage between two nodes; 0 where there is no such node.
func (s *State) Across(plus, minus string) float64 {
	return circuit.Had(s.Solved.Across(plus, minus))
}

// WarmC is the temperature of a start battery that is no warmer than the garage.
const WarmC = 20.0

// solve works the run out in every state that it is sized for and finds the worst: the
// one that draws most at the lowest voltage, or leaves the aux battery without charge.
// A state in which the start battery is being emptied cannot last: it is noted, not
// sized for.
func (d *Design) solve() {
	d.States = d.chargingStates()
	d.Worst = 0
	for i := range d.States {
		s := &d.States[i]
		d.find(s)
		if !s.Sags && worse(*s, d.States[d.Worst]) {
			d.Worst = i
		}
	}
	if starved, fails := d.Starved(); fails {
		d.Worst = slices.IndexFunc(d.States, func(s State) bool { return s.ID == starved.ID })
	}
}

// WorstWhere is that state of charging in which something fails at the lowest volts: one of driving before
// idling, which is for spells, and before one that nobody has proven. ok is false where nothing fails.
func (d *Design) WorstWhere(fails func(s *State) bool, volts func(s *State) float64) (worst State, ok bool) {
	mild := func(s *State) int {
		switch {
		case s.Doubtful:
			return 2
		case s.Idles:
			return 1
		}
		return 0
	}
	for i := range d.States {
		s := &d.States[i]
		if s.Kind != Charging || !fails(s) {
			continue
		}
		if !ok || mild(s) < mild(&worst) || mild(s) == mild(&worst) && volts(s) < volts(&worst) {
			worst, ok = *s, true
		}
	}
	return worst, ok
}

// Starved is the worst state in which what charges asks more than its line gives.
func (d *Design) Starved() (State, bool) {
	return d.WorstWhere(func(s *State) bool { return s.Err != nil && !s.Sags }, func(s *State) float64 { return s.SetV })
}

// solveOthers adds the other states, solved.
func (d *Design) solveOthers() {
	for _, s := range d.otherStates() {
		d.find(&s)
		d.States = append(d.States, s)
	}
}

func worse(a, b State) bool {
	if (a.Err != nil) != (b.Err != nil) {
		return a.Err != nil
	}
	aNone, bNone := a.OutA <= 0, b.OutA <= 0
	if aNone != bNone {
		return aNone // no charge at all is worst
	}
	return a.InA > b.InA
}

// find solves a state: with its devices as they are given, or where they come to stand.
func (d *Design) find(s *State) {
	if s.given {
		d.solveAs(s)
		return
	}
	d.Settle(s)
}

// solveAs solves the circuit in a state with its devices as they are given, and reads the
// volts and amps from it. Where the alternator has less than is asked, the start battery makes
// up the rest.
func (d *Design) solveAs(s *State) {
	s.Output = s.Joined
	d.letAhead(s)
	d.onBench(func(c *circuit.Circuit) {
		s.Solved, s.Err = c.Solve(s.State, s.Position)
		s.Dark = c.Dark
	})
	d.read(s)
}

// Rest solves a state with its devices as they are given.
func (d *Design) Rest(s *State) { d.solveAs(s) }

// Settle lets the devices act in a state, from where they stand in it, until nothing moves, and
// reads what comes of it.
func (d *Design) Settle(s *State) {
	d.onBench(func(c *circuit.Circuit) {
		settled, err := c.Settle(s.State, s.Position)
		s.Position, s.Solved, s.Hunts, s.Err = settled.Position, settled.Solution, settled.Hunts, err
		s.Dark = c.Dark
	})
	d.read(s)
}

// read reads the volts and amps of a solved state.
func (d *Design) read(s *State) {
	s.InA, s.OutA, s.MachineGives, s.SensedV, s.LostW, s.Sags = 0, 0, 0, 0, 0, false
	if s.Err != nil {
		s.BusV, s.InV, s.AuxV, s.OutV = s.SetV, s.SetV, s.AuxOwnV, s.AuxOwnV
		return
	}
	solved := s.Solved
	s.BusV = circuit.Had(solved.At(d.source().Node()))
	s.AuxV = circuit.Had(solved.Across("aux.30", "aux.31"))
	if s.SetV > 0 {
		s.MachineGives = circuit.Had(solved.Through("lead"))
	}
	s.Sags = s.brief && circuit.Had(solved.At("start.30")) < d.SurfaceV()
	if d.Kind.Charger() {
		d.readCharger(s)
	} else {
		d.readContact(s)
	}
}

func (d *Design) readCharger(s *State) {
	in := "coupling.30"
	if s.Joined { // past the charger
		in = d.arrives().Node()
	}
	s.InV, s.OutV = circuit.Had(s.Solved.Across(in, "coupling.31")), circuit.Had(s.Solved.Across("coupling.out", "coupling.31"))
	s.InA, s.OutA = circuit.Had(s.Solved.Through("c1")), circuit.Had(s.Solved.Through("c2"))
	for _, c := range s.Solved.All() {
		s.LostW = max(0, c.InA*s.InV-c.OutA*s.OutV)
	}
	if s.Stopped || s.Joined {
		return
	}
	if cutOut := d.Charger.CutOutV * d.Facts.N; s.InV < cutOut {
		s.Err = fmt.Errorf("the charger stops below %s and would see %s", unit.Text(cutOut, "V", 1), unit.Text(max(0, s.InV), "V", 2))
	}
}

func (d *Design) readContact(s *State) {
	if d.Is.Splits {
		s.InV, s.SensedV, s.OutV = circuit.Had(s.Solved.At(d.LeadTo().Node())), s.BusV, circuit.Had(s.Solved.At(d.leaves().Node()))
		s.InA, s.OutA = circuit.Had(s.Solved.Through(circuit.SplitAux)), circuit.Had(s.Solved.Through(circuit.SplitAux))
		return
	}
	s.InV, s.OutV = circuit.Had(s.Solved.At("coupling.30")), s.AuxV
	s.SensedV = s.InV
	if d.Is.Senses {
		s.SensedV = circuit.Had(s.Solved.Across("coupling.30", "coupling.31"))
	}
	s.InA, s.OutA = circuit.Had(s.Solved.Through("c1")), circuit.Had(s.Solved.Through("c2")) // joined, or what hangs on a side
	if s.Joined {
		s.OutV = circuit.Had(s.Solved.At("coupling.87"))
	}
}

// LongStartS is a long start. Source: common practice, no source.
const LongStartS = 10.0

// Soonest is the fuse of the run that may open first at a current, and after how many
// seconds; never is +Inf.
func (d *Design) Soonest(amps float64) (fuse string, after float64) {
	after = math.Inf(1)
	for _, l := range []*run.Sized{&d.Start, &d.Aux} {
		if at := l.Fuse.At(amps, l.Faulted); !l.Unfused && at.OpensMinS < after {
			fuse, after = strings.ToUpper(l.FuseID), at.OpensMinS
		}
	}
	return fuse, after
}

// MayOpen says whether a fuse of the run may open within some seconds at a current.
func (d *Design) MayOpen(amps, seconds float64) bool {
	_, after := d.Soonest(amps)
	return after <= seconds
}

// CruiseState is driving, at the end of bulk.
func (d *Design) CruiseState() State { return d.StateBy("cruise") }
