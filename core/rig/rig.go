// Package rig makes of a design what a day runs: the same circuit with what switches in it, and
// how warm its places get.
package rig

import (
	"math"
	"slices"

	"epitrope/core/cable"
	"epitrope/core/circuit"
	"epitrope/core/day"
	"epitrope/core/design"
	"epitrope/core/network"
	"epitrope/core/run"
	"epitrope/core/system"
)

// What the day needs besides. Source: common practice, no source: an engine space gets 45 K
// warmer than outside, a cabin 5; a charger starts half a minute after its trigger,
// stops below its cut-out and looks again after ten seconds; solar
// regulators hold what the battery wants.
const (
	engineSpaceK = 45.0
	cabinK       = 5.0
	chargeDelayS = 30.0
	restartS     = 10.0
)

// Variation is by how much an installation differs from its plan: factors and what is
// added. The zero value is not a variation: use Nominal.
type Variation struct {
	Length      float64 // factor on every length
	House       float64 // factor on what is used
	Hours       float64 // factor on the hours driven
	OutsideK    float64 // added to the temperature outside
	RegulationV float64 // added to the alternator's voltage, at 12 V
	Joint       func() float64
}

// Nominal is the plan as it is.
var Nominal = Variation{Length: 1, House: 1, Hours: 1}

// Varied is a job's driving, and what surrounds it, as they may turn out.
func Varied(d *design.Design, v Variation) (day.Pattern, day.Conditions) {
	f := d.Facts
	return f.Driving(v.Hours).Varied(v.OutsideK, v.House), day.Conditions{OutsideC: f.Day.OutsideC.Value + v.OutsideK,
		RegulationV: v.RegulationV}
}

// Grade returns the section's columns, and how to read the volts into and out of each,
// in turn, from the voltages of a rig's circuit by node; they are added to out.
func Grade(d *design.Design, rig *day.Rig) (columns []string, read func(volts, out []float64) []float64) {
	reaches := d.Reaches()
	nodes := make([][4]network.Node, len(reaches))
	c := rig.Circuit
	for i, r := range reaches {
		columns = append(columns, r.Column)
		nodes[i] = [4]network.Node{c.Node(r.InPlus), c.Node(r.InMinus), c.Node(r.OutPlus), c.Node(r.OutMinus)}
	}
	return columns, func(volts, out []float64) []float64 {
		for _, n := range nodes {
			out = append(out, volts[n[0]]-volts[n[1]], volts[n[2]]-volts[n[3]])
		}
		return out
	}
}

// Of builds what is run, varied.
func Of(d *design.Design, v Variation) *day.Rig {
	f, n := d.Facts, d.Facts.N
	sys := varied(d, v)
	c := network.New()
	rig := &day.Rig{N: n, AuxN: f.AuxN, Circuit: c, Vehicle: "vehicle", House: "house", Starter: "starter",
		Nodes: day.Nodes{Machine: "alternator.B+", Bus: "start.30", SensePlus: sensePlus(d), SenseZero: senseZero(d), Out: d.Gives().Node(),
			AuxPlus: "aux.30", AuxZero: "aux.31"},
		Machine: day.Machine{Element: "alternator", Label: f.Label, Regulation: d.Regulation(), WarmV: f.RegulatedV.Value / n,
			Ratio: f.Machine.Ratio.Value, IdleRPM: f.Machine.IdleRPM.Value},
		Start: day.Bank{Element: "start battery", Chemistry: d.StartChemistry(), CapacityAh: f.StartAh.Value, FullV: startFullV,
			SOC: f.Day.StartSOC.Value / 100, EngineSpace: f.StartHot},
		Aux: day.Bank{Element: "aux battery", Chemistry: f.Chemistry, CapacityAh: f.AuxAh.Value, FullV: d.Profile.AbsorptionLow / f.AuxN,
			SOC: f.Day.AuxSOC.Value / 100, EngineSpace: f.Place.Hot},
		VehicleA: f.Machine.DayA.Value, LampsA: f.LoadA.Value, KeyA: f.Machine.KeyA.Value, AsleepA: f.Machine.AsleepA.Value,
		HouseA:       v.House * max(0, f.DailyAh.Value-f.Need.MainsAh.Value) / 24,
		EngineSpaceK: engineSpaceK}

	if v := f.Machine.HotV; v != nil {
		rig.Machine.HotV = *v / n
	}
	if v := f.Machine.IdleV; v != nil {
		rig.Machine.IdleV = *v / n
	}
	if f.SlowMOhm != nil {
		rig.Aux.SlowOhm = *f.SlowMOhm / 1000
	}
	if f.SlowS != nil {
		rig.Aux.SlowS = *f.SlowS
	}
	bus := startPlus(c)
	housePlus, houseMinus := d.HouseEnds()
	sense := bus
	if d.SensesOwn() {
		sense = c.Node("alternator.B+")
	}
	c.Add(network.Alternator{Name: "alternator", Plus: c.Node("alternator.B+"), Sense: sense, Volts: f.RegulatedV.Value},
		network.Battery{Name: "start battery", Plus: bus, Volts: 12 * n, Ohm: d.StartOhm()},
		network.CurrentLoad{Name: "vehicle", A: bus},
		network.Switch{Name: "starter", A: bus, Ohm: d.StarterOhm()},
		network.Battery{Name: "aux battery", Plus: c.Node("aux.30"), Minus: c.Node("aux.31"), Volts: 12 * f.AuxN, Ohm: d.AuxOhm()},
		network.CurrentLoad{Name: "house", A: c.Node(housePlus.Node()), B: c.Node(houseMinus.Node())})
	roles := []system.Role{system.Feed, system.Return, system.Chassis}
	if d.Is.Senses {
		roles = append(roles, system.Signal) // its own earth lead sets what it measures
	}
	circuit.Fixed(c, &sys, roles...)
	rig.Disconnect = disconnect(d)
	for _, l := range []*run.Sized{&d.Start, &d.Aux} {
		if _, ok := sys.Component(l.FuseID); !ok {
			continue
		}
		rig.Fuses = append(rig.Fuses, day.Fuse{ID: l.FuseID, Element: l.FuseID, Fuse: l.Fuse})
	}
	couple(d, rig, c)
	taps(d, rig, c)
	if f.Day.SolarW.Value > 0 {
		plus, minus := d.SunEnds()
		c.Add(network.Alternator{Name: "solar", Plus: c.Node(plus.Node()), Minus: c.Node(minus.Node()), Volts: d.Profile.AbsorptionHigh})
		rig.Solar = &day.Solar{Element: "solar", Plus: plus.Node(), Minus: minus.Node(), Watts: f.Day.SolarW.Value,
			Volts: d.Profile.AbsorptionHigh / f.AuxN, Hours: f.Day.SunHours.Value}
	}
	if s, ok := d.Mains(); ok {
		plus, minus := d.AuxBus(), d.AuxMinus()
		c.Add(network.Alternator{Name: circuit.Mains, Plus: c.Node(plus.Node()), Minus: c.Node(minus.Node()), Volts: d.MainsV(s)})
		rig.Mains = &day.Mains{Element: circuit.Mains, Plus: plus.Node(), Minus: minus.Node(), Volts: d.MainsV(s) / f.AuxN, MostA: *s.OutputA}
		if f.PluggedIn() { // it is run, not taken off as so much a day
			rig.HouseA = v.House * f.DailyAh.Value / 24
		}
	}
	rig.Wires = warmWires(d, &sys)
	return rig
}

// startFullV is what a start battery is fully charged at, at 12 V. Source: from memory.
const startFullV = 14.4

// varied is the system with its lengths and joints varied; joints as planned where the
// variation draws none.
func varied(d *design.Design, v Variation) system.System {
	sys := system.System{Components: d.System.Components, Wires: slices.Clone(d.System.Wires)}
	for i := range sys.Wires {
		w := &sys.Wires[i]
		w.Ohm *= v.Length
		if v.Joint == nil {
			continue
		}
		if w.Joint.From > 0 {
			w.Joint.From = v.Joint()
		}
		if w.Joint.To > 0 {
			w.Joint.To = v.Joint()
		}
	}
	return sys
}

// sensePlus is where a coupling's voltage is looked at: its input.
func sensePlus(d *design.Design) string {
	if d.Is.Splits {
		return d.LeadTo().Node()
	}
	return "coupling.30"
}

// senseZero is what a coupling's voltage is measured against: its own minus, where it
// has one.
func senseZero(d *design.Design) string {
	if d.Kind.Charger() || d.Is.Senses {
		return "coupling.31"
	}
	return "0"
}

// placeK is how much warmer than outside a place gets with the engine warm.
func placeK(b cable.Bay) float64 {
	return math.Max(0, math.Min(engineSpaceK, b.AmbientC-cable.CabinC+cabinK))
}

// warmWires are the cables that get warm in a run.
func warmWires(d *design.Design, sys *system.System) []day.Wire {
	var list []day.Wire
	add := func(id string, l *run.Sized, bay cable.Bay, warmC float64, wires ...string) {
		n := l.Loop.Insulation
		w := day.Wire{ID: id, Thermal: n.Thermal(l.Trial.Size, bay), LimitC: n.LimitC, PlaceK: placeK(bay)}
		for _, name := range wires {
			wire, ok := sys.Wire(name)
			if !ok || wire.Ohm <= 0 {
				continue
			}
			w.Elements = append(w.Elements, day.Conductor{Element: name, Ohm20: wire.Ohm / (1 + cable.Alpha*(warmC-20))})
			w.JointOhm = math.Max(w.JointOhm, math.Max(wire.Joint.From, wire.Joint.To))
		}
		if len(w.Elements) > 0 {
			list = append(list, w)
		}
	}
	add("c1", &d.Start, d.Start.Bay, d.Start.Trial.ConductorC, "c1", "c1t", "c1a")
	add("c2", &d.Aux, d.Aux.Bay, d.Aux.Trial.ConductorC, "c2", "c2t", "c2c", "n2")
	back := d.ReturnLeg()
	add("n1", back, back.ReturnBay(), back.Trial.BackC, "n1", "n1t")
	return list
}

// disconnectHoldS is how long the voltage is low, or back, before a disconnect acts.
// Source: from memory.
const disconnectHoldS = 10.0

// disconnect is the low-voltage disconnect as a day runs it; nil where there is none.
func disconnect(d *design.Design) *day.Disconnect {
	e, n := d.Facts.Extras, d.Facts.AuxN
	if !e.Disconnect {
		return nil
	}
	return &day.Disconnect{OpensV: e.OpensV.Value / n, ClosesV: e.ClosesV.Value / n, HoldS: disconnectHoldS}
}
