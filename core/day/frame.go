package day

import (
	"math"

	"epitrope/core/coupling"
	"epitrope/core/network"
)

// Frame is a moment of a run. Currents into a battery count positive.
type Frame struct {
	T                 float64
	Kind              Kind
	BusV, InV, OutV   float64
	AuxV              float64
	MachineA, CoupleA float64 // what the alternator gives; what goes through the coupling to the aux side
	InA               float64 // drawn by the coupling on the start side
	StartA, AuxA      float64
	SolarA            float64
	StartSOC, AuxSOC  float64
	WindingC, CaseC   float64
	CableC, SpaceC    float64
	Stage             coupling.Stage
	Joined, Ahead     bool
	Waits             bool             // something is on its way to switch
	Volts             func() []float64 // of every node of the circuit, by its number; holds for this call only
	World             World
}

// World is what batteries, machine, loads and charger are at a moment: all that the circuit stands
// on. Voltages are the system's.
type World struct {
	SetV, MachineA, SecondA     float64 // what the alternator holds, and gives at most
	StartV, StartOhm            float64 // the batteries' own voltages, and their resistance as current flows
	AuxV, AuxOhm                float64
	VehicleA, HouseA            float64
	SunA, MainsA                float64
	TapsA                       []float64 // what hangs on the run draws, as the rig has it
	ChargerV, ChargerA, Working float64   // what the charger holds, gives at most, and its efficiency
	Idles                       bool
	Share                       float64 // of its output that a charger has come to
}

func (r *runner) world() World {
	h := &r.h
	own := func(b *network.Battery) (volts, ohm float64) {
		if r.solver.Gives(b) < 0 && b.ChargeOhm > 0 {
			return b.Volts, b.ChargeOhm
		}
		return b.Volts, b.Ohm
	}
	w := World{SetV: h.machine.Volts, MachineA: h.machine.MaxA, VehicleA: h.vehicle.Amps, HouseA: h.house.Amps, Idles: r.now.idles,
		Share: r.share}
	w.StartV, w.StartOhm = own(h.start)
	w.AuxV, w.AuxOhm = own(h.aux)
	if h.second != nil {
		w.SecondA = h.second.MaxA
	}
	if h.solar != nil {
		w.SunA = h.solar.MaxA
	}
	for _, t := range h.taps {
		w.TapsA = append(w.TapsA, t.load.Amps)
	}
	if h.mains != nil {
		w.MainsA = h.mains.MaxA
	}
	if c := h.charger; c != nil {
		w.ChargerV, w.ChargerA, w.Working = c.OutV, c.MaxOutA, c.Efficiency
	}
	return w
}

// record shows the moment to whoever watches.
func (r *runner) record() {
	if r.opt.Watch == nil {
		return
	}
	x, s := &r.x, &r.s
	direct := s.secondA
	if r.rig.Charger != nil {
		direct = 0 // it goes through the charger
	}
	f := Frame{T: r.t, Kind: r.now.kind, BusV: s.busV, InV: s.sensedV, OutV: s.outV, AuxV: s.auxV, MachineA: s.machineA,
		CoupleA: s.chargerOutA + s.joinA + direct + s.splitA,
		InA:     s.chargerInA + s.joinA + direct + s.splitA, StartA: -s.startGivesA, AuxA: -s.auxGivesA,
		SolarA: s.solarA, StartSOC: s.start.soc, AuxSOC: s.aux.soc,
		WindingC: x[winding], CaseC: x[chargerCase], SpaceC: x[space], Stage: r.on.stage, Joined: r.on.joined,
		Ahead: r.h.ahead != nil && r.h.ahead.Closed, Volts: r.volts,
		CableC: math.Inf(-1), World: r.world(),
		Waits: math.Min(r.due(), r.on.restartAt) < never}
	for i := range r.rig.Wires {
		f.CableC = math.Max(f.CableC, x[wire0+i])
	}
	if r.rig.Charger == nil {
		f.CaseC = 0
	}
	r.opt.Watch(f)
}
