package day

import (
	"math"

	"epitrope/core/coupling"
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
	Joined            bool
	Volts             func() []float64 // of every node of the circuit, by its number; holds for this call only
}

// record shows the moment to whoever watches.
func (r *runner) record() {
	if r.opt.Watch == nil {
		return
	}
	x, s := &r.x, &r.s
	f := Frame{T: r.t, Kind: r.now.kind, BusV: s.busV, InV: s.sensedV, OutV: s.outV, AuxV: s.auxV, MachineA: s.machineA,
		CoupleA: s.chargerOutA + s.joinA + s.secondA, InA: s.chargerInA + s.joinA + s.secondA, StartA: -s.startGivesA, AuxA: -s.auxGivesA,
		SolarA: s.solarA, StartSOC: s.start.soc, AuxSOC: s.aux.soc,
		WindingC: x[winding], CaseC: x[chargerCase], SpaceC: x[space], Stage: r.on.stage, Joined: r.on.joined, Volts: r.volts,
		CableC: math.Inf(-1)}
	for i := range r.rig.Wires {
		f.CableC = math.Max(f.CableC, x[wire0+i])
	}
	if r.rig.Charger == nil {
		f.CaseC = 0
	}
	r.opt.Watch(f)
}
