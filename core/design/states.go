package design

import (
	"epitrope/core/alternator"
	"epitrope/core/battery"
	"epitrope/core/circuit"
	"epitrope/core/coupling"
	"epitrope/core/day"
	"epitrope/core/network"
	"epitrope/core/system"
)

// StateKind says what a state is looked at for.
type StateKind string

// The kinds of state.
const (
	Charging StateKind = "charging" // the engine runs; the runs are sized for these
	Proving  StateKind = "proving"  // the engine runs as it does in a bay: what readings are expected of
	Resting  StateKind = "resting"  // the engine does not run
	Cranking StateKind = "cranking" // for seconds
	Faulted  StateKind = "fault"    // until a fuse opens
)

// State is one state of the vehicle, and the run solved in it.
type State struct {
	ID, Label string
	Kind      StateKind
	Rpm       float64 // of the alternator

	circuit.State
	circuit.Position
	given     bool // its devices stand as they are given; otherwise they act
	finishing bool // the end of bulk, where a charger beside a bypass finishes alone
	brief     bool // for minutes: the start battery may make up what the alternator lacks
	Doubtful  bool // nobody has proven that there is such a state

	Solved       network.Solution
	BusV         float64 // at the start battery
	MachineGives float64
	InA, OutA    float64
	InV, OutV    float64  // at the coupling's terminals
	Hunts        []string // components that switch on and off without end
	SensedV      float64  // what a relay measures
	LostW        float64  // in the charger
	Dark         []string // what hangs on it and has no volts to work at
	AuxV         float64
	Sags         bool // the start battery makes up what the alternator lacks at idle
	Err          error
}

// Voltages at the start battery, at 12 V. Source: common practice, no source: a lead start
// battery that makes up a shortfall falls from its surface charge at 12.7 V.
const (
	surfaceV = 12.7
	// limitedBy is how far below its regulation an alternator is at its limit.
	LimitedBy = 0.1
)

// FlatSOC is a start battery that no longer cranks, and an aux battery that a relay closes on at
// its worst. Source: common practice, no source: nearly empty.
const FlatSOC = 0.1

// CruiseRPM is the alternator's speed at cruise. Source: ISO 8854 rates it at 6,000 rpm.
const CruiseRPM = 6000.0

// IdleV is what the machine holds at idle, hot: as measured, or a little less than warm at cruise.
func (d *Design) IdleV() float64 {
	switch m := d.Facts.Machine; {
	case m.IdleV != nil:
		return *m.IdleV
	case m.HotV != nil:
		return *m.HotV
	}
	return d.Facts.RegulatedV.Value - alternator.HotDropV*d.Facts.N
}

// SurfaceV is what a start battery in use stands at before it gives anything: lead has its
// surface charge, what has a management system stands where its curve is flat.
func (d *Design) SurfaceV() float64 {
	if c := d.StartChemistry(); !c.Lead {
		return c.RestV(0.75) * d.Facts.N
	}
	return surfaceV * d.Facts.N
}

// FastIdleRPM is an engine held up by hand, or by its idle-up. Source: common practice, no source.
const FastIdleRPM = 1500.0

// bayState is what a bay can produce: the engine warm at a fast idle, lamps off, the aux battery part
// discharged.
func (d *Design) bayState() State {
	turns := FastIdleRPM * d.Facts.Machine.Ratio.Value
	s := d.runState()
	s.ID, s.Label, s.Kind, s.Rpm, s.MachineA, s.SecondA = "bay", "in the bay: warm, fast idle, lamps off", Proving, turns, d.MachineA(turns),
		d.SecondA(turns)
	s.VehicleA, s.AuxOwnV = d.Facts.Machine.DayA.Value, d.AuxEmptyV()
	s.Joined, s.given = d.joinsAt(&s)
	return s
}

// runState is the engine at cruise, lamps on, as states with it running begin.
func (d *Design) runState() State {
	v := d.Facts.RegulatedV.Value
	run := State{Kind: Charging, Rpm: CruiseRPM, State: circuit.State{SetV: v, MachineA: d.MachineA(CruiseRPM), VehicleA: d.Facts.LoadA.Value,
		StartV: d.SurfaceV(), StartOhm: d.StartOhm(), AuxOwnV: d.AuxEmptyV(), Key: system.KeyOn}}
	if d.Facts.Chemistry.Lead && (!d.Kind.Charger() || d.Kind.Joins()) {
		run.AcceptsA = d.Rates.Accepts.Unrounded
	}
	run.SecondA = d.SecondA(CruiseRPM)
	if d.Kind.Charger() {
		// At the end of bulk the battery stands just so high that the full current
		// still flows at the profile's voltage.
		run.AuxOwnV = d.SetV() - d.Charger.OutputA*(d.Aux.TotalOhm()+d.AuxOhm())
	}
	return run
}

// chargingStates are those that the runs are sized for.
func (d *Design) chargingStates() []State {
	run, n := d.runState(), d.Facts.N
	with := func(id, label string, change func(*State)) State {
		s := run
		s.ID, s.Label = id, label
		change(&s)
		s.Joined, s.given = d.joinsAt(&s)
		return s
	}
	list := []State{
		with("cruise", "cruise", func(s *State) { s.finishing = true }),
		with("early", "cruise, early in bulk", func(s *State) { s.AuxOwnV = min(s.AuxOwnV, d.AuxEmptyV()) }),
		with("idle", "idle, hot, lamps on", func(s *State) {
			rpm := d.Facts.IdleTurns()
			s.brief, s.Idles, s.SecondA = true, true, d.SecondA(rpm)
			s.Rpm, s.MachineA, s.SetV, s.Efficiency = rpm, d.MachineA(rpm), d.IdleV(), d.Charger.EfficiencyLow
		}),
	}
	if len(d.Facts.Taps) > 0 {
		list = append(list, with("all", "cruise, with all on that hangs on the run", func(s *State) {
			s.Taps, s.AuxOwnV = circuit.TapsFull, min(s.AuxOwnV, d.AuxEmptyV())
		}))
	}
	if d.contactRun() {
		list = append(list, with("flat", "flat aux battery, lamps off", d.flat))
	}
	if d.Facts.Varies() {
		list = append(list, with("eased", "regulation eased off", func(s *State) {
			s.SetV, s.Efficiency = alternator.EasedV*n, d.Charger.EfficiencyLow
			s.Doubtful = d.Facts.Regulation != "variable"
		}))
	}
	return list
}

// contactRun says whether a plain contact, or a diode, puts the aux battery on a machine: what flows is
// what the circuit drives, not what the battery should take.
func (d *Design) contactRun() bool { return !d.Kind.Charger() || d.Is.Beside == Bypass }

// flat is a flat battery on a contact, lamps off, for minutes: lead takes what its overvoltage lets
// through. Source: as the day has it, from memory.
func (d *Design) flat(s *State) {
	c, n := d.Facts.Chemistry, d.Facts.AuxN
	own := c.RestV(FlatSOC)
	s.AcceptsA, s.AuxOwnV, s.VehicleA = 0, own*n, d.Facts.Machine.DayA.Value
	if !c.Lead {
		return
	}
	takes := day.TakesShare * c.ChargeHigh * d.Facts.AuxAh.Value
	s.AuxOhm = n * max(d.Profile.AbsorptionLow/n-own, 0.1) / takes
}

// joinsAt says whether the coupling's contact is closed while the engine runs, and whether that
// is given: what acts on a voltage is looked at in the position that the runs are sized for, and
// said to hunt where it would not keep it.
func (d *Design) joinsAt(s *State) (joined, given bool) {
	n := d.Facts.N
	switch {
	case d.Is.Senses:
		return s.SetV >= d.Contact.Sensing.CutInV*n, true
	case d.chargerDevice().Works != "":
		return coupling.UsualHighCurrent.Wants(false, true, s.SetV/n, s.AuxOwnV/n) && !s.finishing, true
	case d.Kind.Charger():
		return false, true
	case d.Is.Splits:
		return false, false // nothing joins them
	}
	return true, false // what works its coil will say
}

// joinByHand is what a hand does to join the batteries.
func (d *Design) joinByHand() map[string]system.Hand {
	if d.Is.ByHand == Selector {
		return map[string]system.Hand{"s1": system.Always}
	}
	return map[string]system.Hand{"s1": system.Held}
}

// secondV is what the regulator of a machine of the run's own holds.
func (d *Design) secondV() float64 {
	if d.Kind.Charger() {
		return secondHoldsV * d.Facts.N
	}
	return d.Profile.AbsorptionHigh
}

// secondHoldsV is what a machine of a charger's own holds, at 12 V. Source: common practice, no source.
const secondHoldsV = 14.4

// restState is the engine off and nobody there, both batteries full.
func (d *Design) restState() State {
	n := d.Facts.N
	rest := State{Kind: Resting, State: circuit.State{Taps: circuit.TapsMean, StartV: d.StartChemistry().RestV(1) * n, StartOhm: d.StartOhm(),
		VehicleA: d.Facts.Machine.AsleepA.Value,
		Key:      system.KeyOff, AuxOwnV: d.Facts.Chemistry.RestV(1) * d.Facts.AuxN, HouseA: d.Facts.DailyAh.Value / 24}}
	rest.Stopped, rest.Joined = true, d.Is.Senses // a relay was closed until now
	d.Settle(&rest)
	return rest
}

// rush is the moment at which a flat aux battery is joined, the engine running.
func (d *Design) rush(s *State) {
	s.Joined, s.HouseA, s.VehicleA, s.Key, s.Hands = true, 0, d.Facts.LoadA.Value, system.KeyOn, d.joinByHand()
	s.SetV, s.MachineA, s.Rpm = d.Facts.RegulatedV.Value, d.MachineA(CruiseRPM), CruiseRPM
	s.StartV, s.AuxOwnV = d.SurfaceV(), d.Facts.Chemistry.RestV(FlatSOC)*d.Facts.AuxN
}

// crankOhm is the start battery's resistance at the end of a start, when its volts are lowest: in use, at
// some degrees.
func (d *Design) crankOhm(tempC float64) float64 {
	f := d.Facts
	return battery.Polarised(d.StartChemistry().OhmAt(f.StartAh.Value, f.N, battery.InUse, tempC), f.StartAh.Value, f.N, f.CrankS.Value)
}

// crankState is the engine being started from rest.
func (d *Design) crankState(s State) State {
	s.ID, s.Label, s.Kind = "crank", "cranking", Cranking
	s.Cranks, s.HouseA, s.Key, s.LastsS = true, 0, system.KeyStart, d.Facts.CrankS.Value
	s.StartOhm = d.crankOhm(d.Facts.Day.OutsideC.Value)
	s.VehicleA = d.Facts.Machine.KeyA.Value
	return s
}

// otherStates are those that no run is sized for, but that decide whether it is safe
// and whether the engine starts.
func (d *Design) otherStates() []State {
	n, rest := d.Facts.N, d.restState()
	with := func(id, label string, kind StateKind, change func(*State)) State {
		s := rest
		s.ID, s.Label, s.Kind, s.given = id, label, kind, true
		change(&s)
		return s
	}
	parked := "parked"
	if rest.Joined && !d.Is.OwnMachine {
		parked = "parked, still joined"
	}
	list := []State{
		d.bayState(),
		with("parked", parked, Resting, func(s *State) { s.given = false }),
		d.crankState(rest),
	}
	if d.Is.CanJoin && d.Is.Beside != Bypass {
		flat := func(s *State) {
			s.Joined, s.HouseA, s.Fresh, s.Hands = true, 0, true, d.joinByHand()
			s.StartV, s.StartOhm = d.StartChemistry().RestV(FlatSOC)*n, d.StartChemistry().OhmAt(d.Facts.StartAh.Value, n, FlatSOC, WarmC)
		}
		list = append(list,
			with("precharge", "start battery flat, joined", Resting, flat),
			with("joined", "cranking through the join", Cranking, func(s *State) { flat(s); s.Cranks = true }),
			with("inrush", "joined on a flat aux battery", Faulted, d.rush))
	}
	if d.Facts.Extras.Winch {
		list = append(list, d.winchState(rest))
	}
	return append(list,
		with(circuit.ShortC1, "short at the end of C1", Faulted, func(s *State) {
			s.Joined, s.HouseA, s.Short, s.StartV = false, 0, circuit.ShortC1, d.Start.SourceV
			s.OutletLive = true
			s.Ahead, s.Held = d.Ahead(), circuit.HeldLive
			s.SecondA = d.Start.SourceV / d.sourceOhm()
		}),
		with(circuit.ShortC2, "short at the end of C2", Faulted, func(s *State) { s.Joined, s.HouseA, s.Short = false, 0, circuit.ShortC2 }))
}
