package plan

import (
	"fmt"
	"math"
	"strings"

	"epitrope/core/alternator"
	"epitrope/core/circuit"
	"epitrope/core/coupling"
	"epitrope/core/network"
	"epitrope/core/working"
)

// stateKind says what a state is looked at for.
type stateKind string

const (
	charging stateKind = "charging" // the engine runs; the runs are sized for these
	resting  stateKind = "resting"  // the engine does not run
	cranking stateKind = "cranking" // for seconds
	faulted  stateKind = "fault"    // until a fuse opens
)

// state is one state of the vehicle, and the run solved in it.
type state struct {
	id, label string
	kind      stateKind
	rpm       float64 // of the alternator

	circuit.State
	finishing bool // the end of bulk, where a charger beside a bypass finishes alone
	brief     bool // for minutes: the start battery may make up what the alternator lacks

	solved       network.Solution
	busV         float64 // at the start battery
	machineGives float64
	inA, outA    float64
	inV, outV    float64 // at the coupling's terminals
	sensedV      float64 // what a relay measures
	auxV         float64
	sags         bool // the start battery makes up what the alternator lacks at idle
	err          error
}

// Voltages at the start battery, at 12 V. Source: common practice, no source: a start
// battery that makes up a shortfall falls from its surface charge at 12.7 V.
const (
	surfaceV = 12.7
	// limitedBy is how far below its regulation an alternator is at its limit.
	limitedBy = 0.1
)

// asleepA is what a parked vehicle takes. flatSOC is a start battery that no longer
// cranks, and an aux battery that a relay closes on at its worst. Source: common
// practice, no source: 20–50 mA; nearly empty.
const (
	asleepA = 0.03
	flatSOC = 0.1
)

// Speeds of the alternator. Source: ISO 8854 rates at 6,000 rpm; idle: common practice, no
// source.
const (
	cruiseRPM = 6000.0
	idleRPM   = alternator.IdleRPM * alternator.Ratio
)

// chargingStates are those that the runs are sized for.
func (d *design) chargingStates() []state {
	n, v := d.facts.N, d.facts.RegulatedV.Value
	run := state{kind: charging, rpm: cruiseRPM, State: circuit.State{SetV: v, MachineA: d.machineA(cruiseRPM), VehicleA: d.facts.LoadA.Value,
		StartV: surfaceV * n, StartOhm: d.startOhm(), AuxOwnV: d.auxEmptyV()}}
	if d.facts.Chemistry.Lead && (!d.kind.Charger() || d.kind.Joins()) {
		run.AcceptsA = d.rates.accepts.Unrounded
	}
	run.SecondA = d.secondA(cruiseRPM)
	if d.kind.Charger() {
		// At the end of bulk the battery stands just so high that the full current
		// still flows at the profile's voltage.
		run.AuxOwnV = d.setV() - d.charger.OutputA*(d.aux.totalOhm()+d.auxOhm())
	}
	with := func(id, label string, change func(*state)) state {
		s := run
		s.id, s.label = id, label
		change(&s)
		s.Joined = d.joinsAt(&s)
		return s
	}
	list := []state{
		with("cruise", "cruise", func(s *state) { s.finishing = true }),
		with("early", "cruise, early in bulk", func(s *state) { s.AuxOwnV = min(s.AuxOwnV, d.auxEmptyV()) }),
		with("idle", "idle, hot, lamps on", func(s *state) {
			s.brief, s.SecondA = true, d.secondA(idleRPM)
			s.rpm, s.MachineA, s.SetV, s.WorstEfficiency = idleRPM, d.machineA(idleRPM), v-alternator.HotDropV*n, true
		}),
	}
	if d.facts.Varies() {
		list = append(list, with("eased", "regulation eased off", func(s *state) { s.SetV, s.WorstEfficiency = alternator.EasedV*n, true }))
	}
	return list
}

// joinsAt says whether the coupling's contact is closed while the engine runs.
func (d *design) joinsAt(s *state) bool {
	n := d.facts.N
	switch d.kind {
	case coupling.VSR:
		return s.SetV >= d.contact.Sensing.CutInV*n
	case coupling.SwitchedContactor, coupling.SecondAlternator:
		return true
	case coupling.ManualSelector:
		return d.facts.Schools.Selector != coupling.Off
	case coupling.DCDCHighCurrent:
		return coupling.UsualHighCurrent.Joins(true, s.SetV/n, s.AuxOwnV/n) && !s.finishing
	}
	return false
}

// joinedCranking says whether a coil joins the batteries while the engine is cranked.
func (d *design) joinedCranking() bool {
	return d.kind.Coil() && d.facts.Schools.Selector != coupling.Off && d.signalled(noSwitch, keyState{"start", "cranking"})
}

// joinedAtRest says whether it is closed with the key out.
func (d *design) joinedAtRest(s state) bool {
	switch d.kind {
	case coupling.VSR:
		return d.staysClosed(s)
	case coupling.ManualSelector:
		return d.facts.Schools.Selector == coupling.JoinedForGood
	case coupling.SecondAlternator:
		return true
	}
	return false
}

// secondV is what the regulator of a machine of the run's own holds.
func (d *design) secondV() float64 { return d.profile.AbsorptionHigh }

// restState is the engine off and nobody there, both batteries full.
func (d *design) restState() state {
	n := d.facts.N
	rest := state{kind: resting, State: circuit.State{StartV: d.startChemistry().RestV(1) * n, StartOhm: d.startOhm(), VehicleA: asleepA, Stopped: true,
		AuxOwnV: d.facts.Chemistry.RestV(1) * n, HouseA: d.facts.DailyAh.Value / 24}}
	rest.Joined = d.joinedAtRest(rest)
	return rest
}

// crankState is the engine being started from rest.
func (d *design) crankState(s state) state {
	s.id, s.label, s.kind = "crank", "cranking", cranking
	s.Cranks, s.HouseA = true, 0
	s.Joined = s.Joined || d.joinedCranking()
	return s
}

// otherStates are those that no run is sized for, but that decide whether it is safe
// and whether the engine starts.
func (d *design) otherStates() []state {
	n, rest := d.facts.N, d.restState()
	with := func(id, label string, kind stateKind, change func(*state)) state {
		s := rest
		s.id, s.label, s.kind = id, label, kind
		change(&s)
		return s
	}
	parked := "parked"
	if rest.Joined && d.kind != coupling.SecondAlternator {
		parked = "parked, still joined"
	}
	list := []state{
		with("parked", parked, resting, func(*state) {}),
		d.crankState(rest),
	}
	if d.kind.Joins() && d.kind != coupling.DCDCHighCurrent || d.kind == coupling.DCDCChangeover {
		flat := func(s *state) {
			s.Joined, s.HouseA, s.Fresh = true, 0, true
			s.StartV, s.StartOhm = d.startChemistry().RestV(flatSOC)*n, d.startChemistry().OhmAt(d.facts.StartAh.Value, n, flatSOC, warmC)
		}
		list = append(list,
			with("precharge", "start battery flat, joined", resting, flat),
			with("joined", "cranking through the join", cranking, func(s *state) { flat(s); s.Cranks = true }),
			with("inrush", "joined on a flat aux battery", faulted, func(s *state) {
				s.Joined, s.HouseA, s.VehicleA = true, 0, d.facts.LoadA.Value
				s.SetV, s.MachineA, s.rpm = d.facts.RegulatedV.Value, d.machineA(cruiseRPM), cruiseRPM
				s.StartV, s.AuxOwnV = surfaceV*n, d.facts.Chemistry.RestV(flatSOC)*n
			}))
	}
	if d.facts.Extras.Winch {
		list = append(list, d.winchState(rest))
	}
	return append(list,
		with(circuit.ShortC1, "short at the end of C1", faulted, func(s *state) {
			s.Joined, s.HouseA, s.Short, s.StartV = false, 0, circuit.ShortC1, d.start.sourceV
			s.SecondA = d.start.sourceV / d.sourceOhm()
		}),
		with(circuit.ShortC2, "short at the end of C2", faulted, func(s *state) { s.Joined, s.HouseA, s.Short = false, 0, circuit.ShortC2 }))
}

// warmC is the temperature of a start battery that is no warmer than the garage.
const warmC = 20.0

// staysClosed says whether a relay that was closed stays so at rest.
func (d *design) staysClosed(s state) bool {
	s.Joined = true
	d.settle(&s)
	return s.err == nil && s.sensedV >= d.contact.Sensing.CutOutV*d.facts.N
}

// solve works the run out in every state that it is sized for and finds the worst: the
// one that draws most at the lowest voltage, or leaves the aux battery without charge.
// A state in which the start battery is being emptied cannot last: it is noted, not
// sized for.
func (d *design) solve() {
	d.states = d.chargingStates()
	d.worst = 0
	for i := range d.states {
		s := &d.states[i]
		d.settle(s)
		if !s.sags && worse(*s, d.states[d.worst]) {
			d.worst = i
		}
	}
}

// solveOthers adds the other states, solved.
func (d *design) solveOthers() {
	for _, s := range d.otherStates() {
		d.settle(&s)
		d.states = append(d.states, s)
	}
}

func worse(a, b state) bool {
	if (a.err != nil) != (b.err != nil) {
		return a.err != nil
	}
	aNone, bNone := a.outA <= 0, b.outA <= 0
	if aNone != bNone {
		return aNone // no charge at all is worst
	}
	return a.inA > b.inA
}

// settle solves the circuit in a state and reads the volts and amps from it. Where
// the alternator has less than is asked, the start battery makes up the rest.
func (d *design) settle(s *state) {
	if s.solved, s.err = d.lay().Solve(s.State); s.err != nil {
		s.busV, s.inV, s.auxV, s.outV = s.SetV, s.SetV, s.AuxOwnV, s.AuxOwnV
		return
	}
	solved := s.solved
	s.busV = had(solved.At(d.source().Node()))
	s.auxV = had(solved.Across("aux.30", "aux.31"))
	if s.SetV > 0 {
		s.machineGives = had(solved.Through("lead"))
	}
	s.sags = s.brief && had(solved.At("start.30")) < surfaceV*d.facts.N
	if d.kind.Charger() {
		d.readCharger(s)
	} else {
		d.readContact(s)
	}
}

func (d *design) readCharger(s *state) {
	in := "coupling.30"
	if s.Joined { // past the charger
		in = d.arrives().Node()
	}
	s.inV, s.outV = had(s.solved.Across(in, "coupling.31")), had(s.solved.Across("coupling.out", "coupling.31"))
	s.inA, s.outA = had(s.solved.Through("c1")), had(s.solved.Through("c2"))
	if s.Stopped || s.Joined {
		return
	}
	if cutOut := d.charger.CutOutV * d.facts.N; s.inV < cutOut {
		s.err = fmt.Errorf("the charger stops below %s and would see %s", working.Text(cutOut, "V", 1), working.Text(s.inV, "V", 2))
	}
}

func (d *design) readContact(s *state) {
	s.inV, s.outV = had(s.solved.At("coupling.30")), s.auxV
	s.sensedV = s.inV
	if d.kind == coupling.VSR {
		s.sensedV = had(s.solved.Across("coupling.30", "coupling.31"))
	}
	if !s.Joined {
		return
	}
	s.outV = had(s.solved.At("coupling.87"))
	s.inA, s.outA = had(s.solved.Through("contact")), had(s.solved.Through("contact"))
}

// longStartS is a long start. Source: common practice, no source.
const longStartS = 10.0

// soonest is the fuse of the run that may open first at a current, and after how many
// seconds; never is +Inf.
func (d *design) soonest(amps float64) (fuse string, after float64) {
	after = math.Inf(1)
	for _, l := range []*leg{&d.start, &d.aux} {
		if at := l.fuse.At(amps, l.faulted); at.OpensMinS < after {
			fuse, after = strings.ToUpper(l.fuseID), at.OpensMinS
		}
	}
	return fuse, after
}

// mayOpen says whether a fuse of the run may open within some seconds at a current.
func (d *design) mayOpen(amps, seconds float64) bool {
	_, after := d.soonest(amps)
	return after <= seconds
}

// backUse is the driving that puts a day's use back at the current that
// flows at cruise; ok is false where none flows.
func (d *design) backUse() (fig working.Figure, ok bool) {
	amps := d.cruiseState().outA
	unsure := d.facts.Varies() && !d.kind.Charger() && d.kind != coupling.SecondAlternator
	if amps <= 0 || unsure || d.cruiseState().err != nil {
		return working.Figure{}, false
	}
	return putsBack.MustWork(d.facts.DailyAh.Input(), working.Is(amps, "current at cruise"),
		working.From(d.facts.Chemistry.Efficiency, working.Memory, d.facts.Chemistry.Label)).In(d.cruiseState().label), true
}

func (d *design) cruiseState() state { return d.stateBy("cruise") }

var putsBack = working.Declare("h = Q / (I·η)", "conservation of charge; bulk only, lead takes hours more for its last fifth",
	working.Symbol{Letter: "h", Name: "driving that puts a day's use back", Unit: "h", Digits: 1},
	working.Symbol{Letter: "Q", Name: "used in a day", Unit: "Ah", Digits: 0},
	working.Symbol{Letter: "I", Name: "charging current", Unit: "A", Digits: 1},
	working.Symbol{Letter: "η", Name: "charge efficiency", Unit: "", Digits: 2})
