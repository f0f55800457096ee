package plan

import (
	"errors"
	"fmt"

	"epitrope/core/coupling"
	"epitrope/core/network"
	"epitrope/core/working"
)

// state is the run solved in one state of the vehicle.
type state struct {
	id, label string
	early     bool    // early in bulk: the aux battery is still low
	low       bool    // a charger at its worst efficiency
	setV      float64 // what the alternator is regulated to
	alternV   float64
	startV    float64
	inA, outA float64
	inV, outV float64 // at the coupling's terminals
	auxV      float64
	joined    bool // a relay is closed
	sags      bool // the start battery makes up what the alternator lacks at idle
	says      string
	err       error
}

// Voltages at the start battery, at 12 V. Source: common practice, no source:
// hot alternators regulate a little lower; a variable one shows sustained spells
// under about 13.2 V; a start battery that makes up a shortfall falls from its
// surface charge at 12.7 V.
const (
	hotDropV = 0.2
	easedV   = 12.9
	surfaceV = 12.7
	// limitedBy is how far below its regulation an alternator is at its limit.
	limitedBy = 0.1
)

// solve works the run out in every state and finds the worst: the one that draws
// most at the lowest voltage, or leaves the aux battery without charge. A state in
// which the start battery is being emptied cannot last: it is noted, not sized for.
func (d *design) solve() {
	n, v := d.facts.N, d.facts.RegulatedV.Value
	d.states = []state{
		{id: "cruise", label: "cruise", setV: v},
		{id: "early", label: "cruise, early in bulk", setV: v, early: true},
		{id: "idle", label: "idle, hot, lamps on", setV: v - hotDropV*n, low: true},
	}
	if d.facts.Varies() {
		d.states = append(d.states, state{id: "eased", label: "regulation eased off", setV: easedV * n, low: true})
	}
	d.worst = 0
	for i := range d.states {
		s := &d.states[i]
		d.settle(s, d.availableA(*s))
		s.alternV = s.startV + s.inA*leadOhm
		if !s.sags && d.worse(*s, d.states[d.worst]) {
			d.worst = i
		}
	}
}

func (d *design) worse(a, b state) bool {
	if (a.err != nil) != (b.err != nil) {
		return a.err != nil
	}
	if a.joined != b.joined {
		return b.joined // no charge at all is worst
	}
	return a.inA > b.inA
}

// settle solves the circuit in a state and reads the volts and amps from it. Where
// the alternator has less than is asked, the start battery makes up the rest.
func (d *design) settle(s *state, availableA float64) {
	n := d.facts.N
	s.joined = d.kind == coupling.DCDC || s.setV >= coupling.CutInV*n
	c, charger := d.circuit(*s, availableA)
	solved, err := network.Solve(c)
	if err != nil {
		s.err = err
		var at *network.Error
		if errors.As(err, &at) {
			s.err = fmt.Errorf("the %s %s", at.Element, at.Why)
		}
		s.startV, s.inV, s.auxV, s.outV = s.setV, s.setV, d.auxEmptyV(), d.auxEmptyV()
		return
	}
	s.startV = solved.At("start.30")
	s.auxV = solved.Across("aux.30", "aux.31")
	s.sags = s.id == "idle" && s.startV < surfaceV*n
	if charger != nil {
		d.readCharger(s, solved, *charger)
	} else {
		d.readRelay(s, solved)
	}
}

func (d *design) readCharger(s *state, solved network.Solution, charger network.Converter) {
	s.inA, s.outA = solved.Flow(charger)
	s.inV, s.outV = solved.Across("coupling.30", "coupling.31"), solved.Across("coupling.out", "coupling.31")
	if cutOut := d.charger.CutOutV * d.facts.N; s.inV < cutOut {
		s.err = fmt.Errorf("the charger stops below %s and would see %s", working.Text(cutOut, "V", 1), working.Text(s.inV, "V", 2))
	}
	s.says = fmt.Sprintf("%s in, %s out", working.Text(s.inA, "A", 0), working.Text(s.outA, "A", 0))
}

func (d *design) readRelay(s *state, solved network.Solution) {
	if !s.joined {
		s.inV, s.outV = s.startV, s.auxV
		s.says = fmt.Sprintf("relay open: it closes at %s", working.Text(coupling.CutInV*d.facts.N, "V", 1))
		return
	}
	s.inV = solved.At("coupling.87")
	s.outV = s.inV
	amps := (solved.At("coupling.30") - s.inV) / d.relay.ContactOhm
	s.inA, s.outA = amps, amps
	by := "the circuit"
	switch {
	case d.facts.Chemistry.Lead && amps > d.figures["accepts"].Unrounded*(1-settledWithin):
		by = "the battery"
	case s.startV < s.setV-limitedBy*d.facts.N:
		by = "the alternator"
	}
	s.says = fmt.Sprintf("%s, limited by %s", working.Text(amps, "A", 0), by)
}

// shownStates rounds the states at the core's edge.
func (d *design) shownStates() []State {
	out := make([]State, len(d.states))
	for i, s := range d.states {
		out[i] = State{ID: s.id, Label: s.label, Worst: i == d.worst, Sags: s.sags, Says: s.says, Points: d.points(s),
			InA: working.Round(s.inA, 1), OutA: working.Round(s.outA, 1), InV: working.Round(s.inV, 2), AuxV: working.Round(s.auxV, 2)}
		if s.err != nil {
			out[i].Fails = s.err.Error()
		}
	}
	return out
}

// points are the volts across both conductors at every column.
func (d *design) points(s state) []Volts {
	startFuse := s.inA * d.start.fusedOhm()
	auxFuse := s.outA * d.aux.fusedOhm()
	plug := d.plugOhm()
	line := []Volts{
		at("alternator", s.alternV, s.alternV),
		at("lead", s.alternV, s.startV),
		at("start", s.startV, s.startV),
		at("f1", s.startV, s.startV-startFuse),
	}
	if d.kind == coupling.DCDC {
		line = append(line, at("c1", s.startV-startFuse, s.inV+s.inA*plug))
		if plug > 0 {
			line = append(line, at("x1", s.inV+s.inA*plug, s.inV))
		}
		line = append(line, at("coupling", s.inV, s.outV), at("c2", s.outV, s.auxV+auxFuse))
	} else {
		relayV := s.inA * d.relay.ContactOhm
		line = append(line, at("c1", s.startV-startFuse, s.inV+relayV), at("coupling", s.inV+relayV, s.outV),
			at("c2", s.outV, s.auxV+auxFuse+s.outA*plug))
		if plug > 0 {
			line = append(line, at("x1", s.auxV+auxFuse+s.outA*plug, s.auxV+auxFuse))
		}
	}
	return append(line, at("f2", s.auxV+auxFuse, s.auxV), at("aux", s.auxV, s.auxV))
}

func at(column string, in, out float64) Volts {
	return Volts{column, working.Round(in, 3), working.Round(out, 3)}
}

// backUseHours is the driving that puts a day's use back at the current that
// flows at cruise; ok is false where none flows.
func (d *design) backUseHours() (fig working.Figure, ok bool) {
	amps := d.cruiseState().outA
	unsure := d.facts.Varies() && d.kind == coupling.VSR
	if amps <= 0 || unsure || d.cruiseState().err != nil {
		return working.Figure{}, false
	}
	return backUse.MustWork(d.facts.DailyAh.Input(), working.Is(amps, "current at cruise"),
		working.From(d.facts.Chemistry.Efficiency, working.Memory, d.facts.Chemistry.Label)), true
}

func (d *design) cruiseState() state { return d.states[0] }

var backUse = working.Declare("h = Q / (I·η)", "conservation of charge; bulk only, lead takes hours more for its last fifth",
	working.Symbol{Letter: "h", Name: "driving that puts a day's use back", Unit: "h", Digits: 1},
	working.Symbol{Letter: "Q", Name: "used in a day", Unit: "Ah", Digits: 0},
	working.Symbol{Letter: "I", Name: "charging current", Unit: "A", Digits: 1},
	working.Symbol{Letter: "η", Name: "charge efficiency", Unit: "", Digits: 2})
