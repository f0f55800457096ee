package circuit

import (
	"epitrope/core/system"
)

// State is what hands and the world do. Voltages are the system's.
type State struct {
	SetV     float64 // what the alternator is regulated to; 0: it stands
	MachineA float64 // what it can give
	SecondA  float64 // what a machine of the run's own gives at most

	StartV   float64 // the start battery's own voltage
	StartOhm float64
	Fresh    bool    // a flat start battery takes what its resistance lets it, for the first seconds
	AuxOwnV  float64 // the aux battery's own voltage
	AcceptsA float64 // what it accepts at most; 0: no limit

	VehicleA, HouseA float64 // what the vehicle takes, and what is used off the aux battery
	SunA             float64 // what panels give at most
	Cranks, Winches  bool

	FeedLive        bool // the feed point is live with the engine off
	Joined          bool // a contact joins the batteries
	Stopped         bool // the charger rests
	Isolated        bool // what opens by hand is open
	WorstEfficiency bool

	Short string // a dead short: ShortC1, ShortC2 or none
}

// The dead shorts that a state may have: at the end of each run.
const (
	ShortC1 = "short-c1"
	ShortC2 = "short-c2"
)

// set puts a state into the circuit.
func (l *Circuit) set(s State) {
	l.machine.Volts, l.machine.MaxA = s.SetV, 0
	if s.SetV > 0 {
		l.machine.MaxA = max(0, s.MachineA)
	}
	l.start.Volts, l.start.Ohm, l.start.ChargeOhm = s.StartV, s.StartOhm, RechargeOhm*l.n
	if s.Fresh {
		l.start.ChargeOhm = s.StartOhm
	}
	l.aux.Volts, l.aux.MaxChargeA = s.AuxOwnV, s.AcceptsA
	l.vehicle.Amps, l.house.Amps, l.sun.MaxA = s.VehicleA, s.HouseA, s.SunA
	if l.second != nil {
		l.second.MaxA = s.SecondA
	}
	l.put(ShortC1, s.Short == ShortC1)
	l.put(ShortC2, s.Short == ShortC2)
	l.put(Starter, s.Cranks)
	l.put(Winch, s.Winches)
	for _, id := range l.byHand {
		l.put(id, !s.Isolated)
	}
	l.put("contact", s.Joined)
	l.put("rest contact", !s.Joined)
	_, signalled := l.switches["loom"]
	live := s.SetV > 0 || s.FeedLive
	for name, when := range l.when {
		l.put(name, map[system.When]bool{system.WhileLive: live, system.WhileJoined: s.Joined, system.WhileBoth: live && s.Joined,
			system.WhileJoinedAlone: s.Joined && (!live || !signalled)}[when])
	}
	l.setCharger(s)
	if l.sensing != nil {
		ohm := l.sensing.device.WatchOhm
		if s.Joined {
			ohm = l.sensing.device.HoldOhm
		}
		l.sensing.wire.Set(ohm)
	}
}

func (l *Circuit) setCharger(s State) {
	if l.charger == nil {
		return
	}
	rests, card := s.Stopped || s.Joined, l.charger.device.Card // it cannot charge across a closed bypass
	l.put("charger at rest", rests)
	c := l.charger.converter
	c.MaxOutA, c.Efficiency, l.charger.beside.Amps = card.OutputA, card.Efficiency, 0
	if s.WorstEfficiency {
		c.Efficiency = card.EfficiencyLow
	}
	if rests {
		c.MaxOutA = 0
	} else if s.SetV > 0 {
		l.charger.beside.Amps = l.charger.device.BesideA
	}
}

// put closes or opens a switch, where the system has it.
func (l *Circuit) put(name string, closed bool) {
	if w, ok := l.switches[name]; ok {
		w.Closed = closed
	}
}
