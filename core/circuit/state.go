package circuit

import (
	"cmp"
	"epitrope/core/system"
	"slices"
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
	AuxOhm   float64 // 0: as its bank has it
	AcceptsA float64 // what it accepts at most; 0: no limit

	Idles            bool    // the engine idles
	VehicleA, HouseA float64 // what the vehicle takes, and what is used off the aux battery
	SunA, MainsA     float64 // what panels give at most, and a charger that mains or a generator feed
	Cranks, Winches  bool
	Taps             Taps      // how much of what hangs on the run is on
	TapsA            []float64 // … or what each draws
	OutletLive       bool      // a body-builder's stud is live whatever the engine does
	LastsS           float64   // it is over after so many seconds; 0: it stays

	Key        system.Key
	Held       Held                   // the feed point is held so, whatever it usually is
	Hands      map[string]system.Hand // by control; where it usually stands, where it is not in it
	Isolated   bool                   // what opens by hand is open
	AuxParted  bool                   // the aux battery's management system has opened
	Efficiency float64                // of the charger; 0: as its card has it

	Short string // a dead short: ShortC1, ShortC2 or none
}

// Taps is how much of what hangs on the run at the coupling is on.
type Taps string

// It may be off, on as much as it is on average with the engine off, or all on at once.
const (
	TapsOff  Taps = ""
	TapsMean Taps = "mean"
	TapsFull Taps = "full"
)

// Held is how a feed point is held for a trial.
type Held string

// How it may be held.
const (
	AsItIs   Held = ""
	HeldLive Held = "live"
	HeldDead Held = "dead"
)

// live says whether the feed point is live in a state.
func (s State) live(f system.FeedPoint) bool {
	if s.Held != AsItIs {
		return s.Held == HeldLive
	}
	return f.Live(s.Key, s.SetV > 0)
}

// Position is where the devices stand: given, or found by Settle.
type Position struct {
	Joined  bool // a contact joins the batteries
	Stopped bool // the charger rests
	Output  bool // the charger works the contact beside it
	Ahead   bool // a relay ahead of the charger is closed
	Locked  bool // an interlock keeps a control's feed open
}

// The dead shorts that a state may have: at the end of each run.
const (
	ShortC1 = "short-c1"
	ShortC2 = "short-c2"
)

// set puts a state into the circuit, with its devices in a position.
func (l *Circuit) set(s State, p Position) {
	l.machine.Volts, l.machine.MaxA = s.SetV, 0
	if s.SetV > 0 {
		l.machine.MaxA = max(0, s.MachineA)
	}
	l.start.Volts, l.start.Ohm, l.start.ChargeOhm = s.StartV, s.StartOhm, RechargeOhm*l.n
	if s.Fresh {
		l.start.ChargeOhm = s.StartOhm
	}
	l.aux.Volts, l.aux.MaxChargeA, l.aux.Ohm = s.AuxOwnV, s.AcceptsA, cmp.Or(s.AuxOhm, l.auxOhm)
	if s.AuxParted {
		l.aux.Ohm = BlockedOhm
	}
	l.vehicle.Amps, l.house.Amps, l.sun.MaxA = s.VehicleA, s.HouseA, s.SunA
	if l.mains != nil {
		l.mains.MaxA = s.MainsA
	}
	if l.second != nil {
		l.second.MaxA = s.SecondA
	}
	for i, t := range l.taps {
		t.load.Amps = map[Taps]float64{TapsMean: t.mean, TapsFull: t.full}[s.Taps]
		if i < len(s.TapsA) {
			t.load.Amps = s.TapsA[i]
		}
	}
	l.put(ShortC1, s.Short == ShortC1)
	l.put(ShortC2, s.Short == ShortC2)
	l.put(Starter, s.Cranks)
	l.put(Winch, s.Winches)
	for _, id := range l.byHand {
		l.put(id, !s.Isolated)
	}
	l.put(Outlet, !l.outlet.Running || s.SetV > 0 || s.OutletLive)
	l.put(Ahead, p.Ahead)
	l.put(Lock, !p.Locked)
	l.put("contact", p.Joined)
	l.put("rest contact", !p.Joined)
	l.put("relay output", p.Output)
	l.put("loom", s.live(l.feed) && (!s.Isolated || !l.breaks))
	for _, t := range l.throws {
		l.put(t.Name, slices.Contains(t.At, s.hand(t.control, t.usual)))
	}
	l.setCharger(s, p)
	if l.sensing != nil {
		ohm := l.contact.WatchOhm
		if p.Joined {
			ohm = l.contact.HoldOhm
		}
		l.sensing.Set(ohm)
	}
}

// hand is where a control stands.
func (s State) hand(control string, usual system.Hand) system.Hand {
	if at, ok := s.Hands[control]; ok {
		return at
	}
	return usual
}

func (l *Circuit) setCharger(s State, p Position) {
	if l.charger == nil {
		return
	}
	rests, card := p.Stopped || p.Joined, l.charger.device.Card // it cannot charge across a closed bypass
	l.put("charger at rest", rests)
	c := l.charger.converter
	c.MaxOutA, c.Efficiency, l.charger.beside.Amps = card.OutputA, cmp.Or(s.Efficiency, card.Efficiency), 0
	c.MaxInA = card.DrawsAtMost(s.Idles)
	if rests {
		c.MaxOutA = 0
	}
	if s.SetV > 0 && !s.Isolated {
		l.charger.beside.Amps = l.charger.device.BesideA
	}
}

// put closes or opens a switch, where the system has it.
func (l *Circuit) put(name string, closed bool) {
	if w, ok := l.switches[name]; ok {
		w.Closed = closed
	}
}
