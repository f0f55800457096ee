package day

import (
	"math"

	"epitrope/core/alternator"
	"epitrope/core/cable"
	"epitrope/core/network"
)

// sight is what the circuit shows at a moment: everything that follows from the slow
// states and what is switched.
type sight struct {
	busV, machineV, sensedV, outV, auxV float64
	machineA, startGivesA, auxGivesA    float64
	chargerInA, chargerOutA             float64
	joinA, solarA, starterA             float64
	mainsA                              float64
	secondA, secondV                    float64
	splitA                              float64 // through a splitter into the aux side
	chargerLossW                        float64
	starved                             bool    // the charger cannot be fed
	besideDark                          bool    // what hangs beside the charger has nothing to work at
	houseDark, vehicleDark              float64 // what a load asked that its line could not give; 0 where all is fed
	start, aux                          cell
	wireA                               [maxWires]float64
	fuseA                               [maxFuses]float64
	power                               Energy // of each moment, in W
}

// handles are the elements and nodes of the circuit that a run changes and reads.
type handles struct {
	machine         *network.Alternator
	start, aux      *network.Battery
	vehicle, house  *network.CurrentLoad
	beside          *network.CurrentLoad
	besideA         float64
	starter, join   *network.Switch
	taps            []tapped
	outlet, ahead   *network.Switch
	aheadCoil       *network.Wire
	coil, standby   *network.Wire
	signal          *network.Wire
	rest            *network.Wire
	restOhm         float64
	splits          [2]*network.Diode
	second          *network.Alternator
	secondAt        network.Point
	charger         *network.Converter
	solar, mains    *network.Alternator
	sunP, sunZ      network.Point
	mainsP, mainsZ  network.Point
	fuses           [maxFuses]*network.Wire
	wires           [maxWires][]warmWire
	bus, machineAt  network.Point
	senseP, senseZ  network.Point
	out, auxP, auxZ network.Point
}

// tapped is what hangs on the run, in the circuit.
type tapped struct {
	load        *network.CurrentLoad
	plus, minus network.Point
	dark        bool // it is off: its line cannot give it
}

// openOhm is a fuse that opened. It is large enough that nothing counts that passes.
const openOhm = 1e7

// partedOhm is an open rest contact with a resting charger behind it, which the circuit
// still has to feed with next to nothing.
const partedOhm = 1e5

// warmWire is a conductor whose resistance follows its temperature.
type warmWire struct {
	wire  *network.Wire
	ohm20 float64
}

func (r *runner) grip() {
	s, rig := r.solver, r.rig
	h := &r.h
	h.machine = s.Alternator(rig.Machine.Element)
	h.start, h.aux = s.Battery(rig.Start.Element), s.Battery(rig.Aux.Element)
	h.vehicle, h.house = s.CurrentLoad(rig.Vehicle), s.CurrentLoad(rig.House)
	if rig.Beside != "" {
		h.beside = s.CurrentLoad(rig.Beside)
		h.besideA = h.beside.Amps
	}
	h.starter = s.Switch(rig.Starter)
	for _, t := range rig.Taps {
		h.taps = append(h.taps, tapped{load: s.CurrentLoad(t.Element), plus: s.Point(t.Plus), minus: s.Point(t.Minus)})
	}
	if a := rig.Ahead; a != nil {
		h.ahead, h.aheadCoil = s.Switch(a.Switch), s.Wire(a.Coil)
	}
	if rig.Outlet != "" {
		h.outlet = s.Switch(rig.Outlet)
	}
	if j := rig.Join; j != nil {
		h.join = s.Switch(j.Switch)
		if j.Coil != "" {
			h.coil = s.Wire(j.Coil)
		}
		if j.Rest != "" {
			h.rest = s.Wire(j.Rest)
			h.restOhm = h.rest.Ohm()
		}
	}
	if c := rig.Charger; c != nil {
		h.charger, h.standby = s.Converter(c.Element), s.Wire(c.Standby)
		if c.Signal != "" {
			h.signal = s.Wire(c.Signal)
		}
	}
	if rig.Solar != nil {
		h.solar, h.sunP, h.sunZ = s.Alternator(rig.Solar.Element), s.Point(rig.Solar.Plus), s.Point(rig.Solar.Minus)
	}
	if m := rig.Mains; m != nil {
		h.mains, h.mainsP, h.mainsZ = s.Alternator(m.Element), s.Point(m.Plus), s.Point(m.Minus)
	}
	for i, name := range rig.Splits {
		if name != "" {
			h.splits[i] = s.Diode(name)
		}
	}
	if m := rig.Second; m != nil {
		h.second, h.secondAt = s.Alternator(m.Element), s.Point(m.Node)
	}
	for i, f := range rig.Fuses {
		h.fuses[i] = s.Wire(f.Element)
		r.fuseOhm[i] = h.fuses[i].Ohm()
	}
	for i, w := range rig.Wires {
		for _, c := range w.Elements {
			h.wires[i] = append(h.wires[i], warmWire{s.Wire(c.Element), c.Ohm20})
		}
	}
	n := rig.Nodes
	h.bus, h.machineAt = s.Point(n.Bus), s.Point(n.Machine)
	h.senseP, h.senseZ = s.Point(n.SensePlus), s.Point(n.SenseZero)
	h.out, h.auxP, h.auxZ = s.Point(n.Out), s.Point(n.AuxPlus), s.Point(n.AuxZero)
}

// set puts the slow states and what is switched into the circuit.
func (r *runner) set(x *slow, s *sight) {
	rig, n, h, now := r.rig, r.rig.N, &r.h, &r.now
	s.start = rig.Start.cellAt(n, x[startQ], x[startOver], r.startC(x), false)
	s.aux = rig.Aux.cellAt(rig.AuxN, x[auxQ], x[auxOver], r.auxC(x), r.on.blocked)
	h.start.Volts, h.start.Ohm = s.start.own+x[startOver], s.start.ohm
	h.aux.Volts, h.aux.Ohm, h.aux.ChargeOhm = s.aux.own+x[auxOver], s.aux.ohm, s.aux.inOhm

	h.machine.MaxA, h.machine.Volts = 0, n*rig.Machine.WarmV
	if now.running {
		moment := alternator.Pulling
		switch {
		case now.kind == LiftOff:
			moment = alternator.LiftOff
		case r.on.recharge:
			moment = alternator.Charging
		}
		h.machine.Volts = n * (rig.Machine.holds(x[space], moment, now.idles) + r.cond.RegulationV)
		h.machine.MaxA = math.Max(0, rig.Machine.Label.Hot(now.outputA, x[space]))
	}
	if m := rig.Second; m != nil {
		h.second.Volts, h.second.MaxA = n*m.Volts, 0
		if now.running && (!r.on.blocked || rig.Charger != nil) {
			h.second.MaxA = math.Max(0, math.Min(m.MostA, m.Label.Hot(now.secondA, x[space])))
		}
	}
	h.vehicle.Amps = now.vehicleA
	h.house.Amps = now.houseA
	if r.on.houseOff || r.on.cutOff || r.on.houseDark > 0 && now.houseA >= r.on.houseDark {
		h.house.Amps = 0
	}
	if r.on.vehicleDark > 0 && now.vehicleA >= r.on.vehicleDark {
		h.vehicle.Amps = 0
	}
	if h.beside != nil {
		h.beside.Amps = 0
		if now.running && !r.on.besideDark {
			h.beside.Amps = h.besideA
		}
	}
	if a := rig.Ahead; a != nil {
		h.ahead.Closed = r.on.ahead
		h.aheadCoil.Set(openOhm)
		if r.triggered(a.By) {
			h.aheadCoil.Set(a.CoilOhm)
		}
	}
	if h.outlet != nil {
		h.outlet.Closed = now.running
	}
	for i, t := range rig.Taps {
		if h.taps[i].dark = h.taps[i].dark && r.tapsRan == now.running; h.taps[i].dark {
			h.taps[i].load.Amps = 0
			continue // off until another source may feed it
		}
		h.taps[i].load.Amps = t.MeanA
		if now.running {
			h.taps[i].load.Amps = max(t.MeanA, t.RunsA)
		}
	}
	h.starter.Closed = now.kind.cranks() && !r.on.stalled
	r.share = 1
	if c := rig.Charger; c != nil && c.SoftS > 0 {
		r.share = math.Min(1, math.Max(0, x[soft]))
	}
	r.setCoupling()
	if solar := rig.Solar; solar != nil {
		h.solar.Volts = rig.AuxN * solar.Volts
		h.solar.MaxA = 0
		if now.sun > 0 && !r.on.blocked {
			h.solar.MaxA = now.sun * solar.Watts / (rig.AuxN * solar.Volts)
		}
	}
	if m := rig.Mains; m != nil {
		h.mains.Volts, h.mains.MaxA = rig.AuxN*m.Volts, 0
		if now.mains && !r.on.blocked {
			h.mains.MaxA = m.MostA
		}
	}
	for i := range rig.Fuses {
		ohm := r.fuseOhm[i]
		if r.on.opened[i] {
			ohm = openOhm
		}
		h.fuses[i].Set(ohm)
	}
	for i := range rig.Wires {
		warm := 1 + cable.Alpha*(x[wire0+i]-20)
		for _, w := range h.wires[i] {
			w.wire.Set(w.ohm20 * warm)
		}
	}
}

// see solves the circuit at the slow states and reads it.
func (r *runner) see(x *slow, s *sight) error {
	*s = sight{}
	r.set(x, s)
	r.looks++
	if err := r.solve(s); err != nil {
		return err
	}
	h, v := &r.h, r.solver
	s.busV, s.machineV, s.outV = v.At(h.bus), v.At(h.machineAt), v.At(h.out)-v.At(h.senseZ)
	s.sensedV, s.auxV = v.At(h.senseP)-v.At(h.senseZ), v.At(h.auxP)-v.At(h.auxZ)
	s.startGivesA, s.auxGivesA, s.machineA = v.Gives(h.start), v.Gives(h.aux), v.Gives(h.machine)
	if r.rig.Join != nil {
		if h.charger == nil {
			s.outV = v.At(h.out)
		}
		s.joinA = v.Gives(h.join)
	}
	if h.splits[1] != nil {
		s.splitA, s.outV = v.Gives(h.splits[1]), v.At(h.out)
	}
	if h.second != nil {
		if s.secondA, s.secondV = v.Gives(h.second), v.At(h.secondAt); h.charger == nil {
			s.outV = v.At(h.out)
		}
	}
	if h.charger != nil {
		c := v.Converting(h.charger)
		s.chargerInA, s.chargerOutA = c.InA, c.OutA
		s.starved = r.on.charging && c.Status != network.Runs
		s.chargerLossW = s.chargerInA*s.sensedV - s.chargerOutA*s.outV
	}
	if h.solar != nil {
		s.solarA = v.Gives(h.solar)
		s.power.Solar = s.solarA * (v.At(h.sunP) - v.At(h.sunZ))
	}
	if h.mains != nil {
		s.mainsA = v.Gives(h.mains)
		s.power.Mains = s.mainsA * (v.At(h.mainsP) - v.At(h.mainsZ))
	}
	s.starterA = v.Gives(h.starter)
	for i := range r.rig.Fuses {
		s.fuseA[i] = h.fuses[i].Current(v)
	}
	for i := range r.rig.Wires {
		s.wireA[i] = h.wires[i][0].wire.Current(v)
	}
	r.account(x, s)
	return nil
}

// feel sees how the current of each battery follows its own voltage, in A/V, so that a step
// can take that into account.
func (r *runner) feel() { r.follow = r.follows() }

func (r *runner) follows() [2]float64 {
	return [2]float64{r.solver.Follows(r.h.start), r.solver.Follows(r.h.aux)}
}
