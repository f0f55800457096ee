package plan

import (
	"math"
	"slices"

	"epitrope/core/alternator"
	"epitrope/core/battery"
	"epitrope/core/cable"
	"epitrope/core/circuit"
	"epitrope/core/coupling"
	"epitrope/core/day"
	"epitrope/core/job"
	"epitrope/core/network"
	"epitrope/core/parts"
	"epitrope/core/system"
)

// byDay is the share that a vehicle takes by day of what it takes with lamps and blower on.
// Source: common practice, no source.
const byDay = 0.5

// What the day needs besides. Source: common practice, no source: an engine space gets 45 K
// warmer than outside, a cabin 5; a charger starts half a minute after its trigger,
// stops below its cut-out and looks again after ten seconds, above 12.5 V; solar
// regulators hold what the battery wants.
const (
	engineSpaceK = 45.0
	cabinK       = 5.0
	chargeDelayS = 30.0
	restartV     = 12.5
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

// Day is a job's installation, ready to be run through days.
type Day = design

// NewDay plans a job for running.
func NewDay(doc job.Document, book parts.Book) *Day { return newDesign(doc, book) }

// Facts are the job's answers and defaults.
func (d *design) Facts() job.Facts { return d.facts }

// Document is the job itself.
func (d *design) Document() job.Document { return d.doc }

// Varied is a job's driving, and what surrounds it, as they may turn out.
func (d *design) Varied(v Variation) (day.Pattern, day.Conditions) {
	f := d.facts
	return f.Driving(v.Hours).Varied(v.OutsideK, v.House), day.Conditions{OutsideC: f.Day.OutsideC.Value + v.OutsideK, RegulationV: v.RegulationV}
}

// Grade returns the section's columns, and how to read the volts into and out of each,
// in turn, from the voltages of a rig's circuit by node; they are added to out.
func (d *design) Grade(rig *day.Rig) (columns []string, read func(volts, out []float64) []float64) {
	reaches := d.reaches()
	nodes := make([][4]network.Node, len(reaches))
	floor := func(name string) string {
		if name == "" {
			return "0"
		}
		return name
	}
	c := rig.Circuit
	for i, r := range reaches {
		columns = append(columns, r.column)
		nodes[i] = [4]network.Node{c.Node(r.inPlus), c.Node(floor(r.inMinus)), c.Node(r.outPlus), c.Node(floor(r.outMinus))}
	}
	return columns, func(volts, out []float64) []float64 {
		for _, n := range nodes {
			out = append(out, volts[n[0]]-volts[n[1]], volts[n[2]]-volts[n[3]])
		}
		return out
	}
}

// Rig builds what is run, varied.
func (d *design) Rig(v Variation) *day.Rig {
	f, n := d.facts, d.facts.N
	sys := d.varied(v)
	c := network.New()
	rig := &day.Rig{N: n, Circuit: c, Vehicle: "vehicle", House: "house", Starter: "starter",
		Nodes:   day.Nodes{Machine: "alternator.B+", Bus: "start.30", SensePlus: "coupling.30", SenseZero: d.senseZero(), Out: d.gives().Node(), AuxPlus: "aux.30", AuxZero: "aux.31"},
		Machine: day.Machine{Element: "alternator", Label: f.Label, Regulation: d.regulation(), WarmV: f.RegulatedV.Value / n},
		Start: day.Bank{Element: "start battery", Chemistry: d.startChemistry(), CapacityAh: f.StartAh.Value, FullV: startFullV,
			SOC: f.Day.StartSOC.Value / 100, EngineSpace: true},
		Aux: day.Bank{Element: "aux battery", Chemistry: f.Chemistry, CapacityAh: f.AuxAh.Value, FullV: d.profile.AbsorptionLow / n,
			SOC: f.Day.AuxSOC.Value / 100, EngineSpace: f.Place.Hot},
		VehicleA: f.LoadA.Value * byDay, LampsA: f.LoadA.Value, HouseA: v.House * max(0, f.DailyAh.Value-f.Need.MainsAh.Value) / 24, EngineSpaceK: engineSpaceK}

	bus := c.Node("start.30")
	housePlus, houseMinus := d.houseEnds()
	c.Add(network.Alternator{Name: "alternator", Plus: c.Node("alternator.B+"), Sense: bus, Volts: f.RegulatedV.Value},
		network.Battery{Name: "start battery", Plus: bus, Volts: 12 * n, Ohm: d.startOhm()},
		network.CurrentLoad{Name: "vehicle", A: bus},
		network.Switch{Name: "starter", A: bus, Ohm: d.starterOhm()},
		network.Battery{Name: "aux battery", Plus: c.Node("aux.30"), Minus: c.Node("aux.31"), Volts: 12 * n, Ohm: d.auxOhm()},
		network.CurrentLoad{Name: "house", A: c.Node(housePlus.Node()), B: c.Node(houseMinus.Node())})
	roles := []system.Role{system.Feed, system.Return, system.Chassis}
	if d.kind == coupling.VSR {
		roles = append(roles, system.Signal)
	}
	circuit.Fixed(c, &sys, roles...)
	rig.Disconnect = d.disconnect()
	for _, l := range []*leg{&d.start, &d.aux} {
		rig.Fuses = append(rig.Fuses, day.Fuse{ID: l.fuseID, Element: l.fuseID, Fuse: l.fuse})
	}
	d.couple(rig, c)
	if f.Day.SolarW.Value > 0 {
		c.Add(network.Alternator{Name: "solar", Plus: c.Node(d.auxBus().Node()), Minus: c.Node(d.auxMinus().Node()), Volts: d.profile.AbsorptionHigh})
		rig.Solar = &day.Solar{Element: "solar", Watts: f.Day.SolarW.Value, Volts: d.profile.AbsorptionHigh / n, Hours: f.Day.SunHours.Value}
	}
	rig.Wires = d.warmWires(&sys)
	return rig
}

// startFullV is what a start battery is fully charged at, at 12 V. Source: from memory.
const startFullV = 14.4

// regulation is how the alternator is taken to be regulated: not known is variable.
func (d *design) regulation() alternator.Regulation {
	if d.facts.Varies() {
		return alternator.Variable
	}
	return alternator.Regulation(d.facts.Regulation)
}

func (d *design) starterOhm() float64 {
	return math.Max(0.001, battery.StarterOhm.Value(d.startChemistry().RestV(1)*d.facts.N, d.facts.CrankA.Value, d.startOhm()))
}

// varied is the system with its lengths and joints varied; joints as planned where the
// variation draws none.
func (d *design) varied(v Variation) system.System {
	sys := system.System{Components: d.system.Components, Wires: slices.Clone(d.system.Wires)}
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

// senseZero is what a coupling's voltage is measured against: its own minus, where it
// has one.
func (d *design) senseZero() string {
	if d.kind.Charger() || d.kind == coupling.VSR {
		return "coupling.31"
	}
	return "0"
}

// couple puts the coupling in.
func (d *design) couple(rig *day.Rig, c *network.Circuit) {
	n := d.facts.N
	if d.kind == coupling.SecondAlternator {
		c.Add(network.Alternator{Name: "second alternator", Plus: c.Node("second.B+"), Sense: c.Node("second.B+"), Volts: d.secondV()},
			network.Resistance{Name: "contact", A: c.Node("coupling.30"), B: c.Node("coupling.87"), Ohm: d.contact.ContactOhm})
		rig.Second = &day.SecondMachine{Element: "second alternator", Node: "second.B+", Label: d.second, Volts: d.secondV() / n, MostA: d.second.RatedA / 2}
		return
	}
	d.join(rig, c)
	if !d.kind.Charger() {
		return
	}
	at, _ := d.system.Component("coupling")
	charger := circuit.Converter(c, at, d.chargerDevice())
	c.Add(charger, network.Resistance{Name: "charger at rest", A: c.Node("coupling.30"), B: c.Node("coupling.31"), Ohm: d.standbyOhm()})
	rig.Charger = &day.Charger{Element: "charger", Standby: "charger at rest", OutputA: d.charger.OutputA, StandbyA: max(d.charger.StandbyA, coilOffA),
		Stages: d.usualStages(), Curve: coupling.UsualCurve,
		CutOutV: d.charger.CutOutV, RestartV: restartV, RestartS: restartS, DelayS: chargeDelayS + 60*d.facts.Schools.DelayMin.Value,
		FullC: d.charger.MaxAmbientC, CaseKPerW: d.charger.CaseKPerW, PlaceOverK: placeK(d.facts.AuxBay), By: day.Running}
	rig.Charger.By, rig.Charger.Senses = triggers[d.facts.Day.Trigger], d.facts.Detects
}

// triggers are what tells a charger to run, by the answer.
var triggers = map[string]day.Trigger{"running": day.Running, "ignition": day.Ignition, "accessory": day.Accessory, "switch": day.Switched, "dead": day.Dead, "voltage": day.Sensed}

// join puts in what joins the batteries, and what works it.
func (d *design) join(rig *day.Rig, c *network.Circuit) {
	n := d.facts.N
	if d.kind == coupling.DCDC || d.kind == coupling.TrailerCharger {
		return
	}
	c.Add(network.Switch{Name: "contact", A: c.Node(d.arrives().Node()), B: c.Node(d.leaves().Node()), Ohm: d.joinOhm()})
	rig.Join = &day.Join{Switch: "contact"}
	j := rig.Join
	switch d.kind {
	case coupling.VSR:
		c.Add(network.Resistance{Name: "coil", A: c.Node("coupling.30"), B: c.Node("coupling.31"), Ohm: 12 * n / relaySensesA})
		j.Coil, j.By, j.Sensing, j.HoldA, j.WatchA = "coil", day.BySensing, d.contact.Sensing, d.contact.Sensing.CoilA, relaySensesA
		j.Sensing.CloseS += 60 * d.facts.Schools.DelayMin.Value // a timer lets the start battery recover first
		if d.facts.Day.Trigger == "switch" {
			j.By = day.Always
		}
	case coupling.DCDCChangeover:
		c.Add(network.Resistance{Name: "rest contact", A: c.Node("k1.30"), B: c.Node("k1.87a"), Ohm: d.joinOhm()})
		j.By, j.Rest = day.Never, "rest contact"
	case coupling.DCDCHighCurrent:
		h := coupling.UsualHighCurrent
		j.By, j.Bypass, j.Trigger = day.ByBypass, h, triggers[d.facts.Day.Trigger]
	default: // a coil worked by the ignition
		c.Add(network.Resistance{Name: "coil", A: c.Node("coupling.30"), Ohm: 12 * n / relaySensesA})
		j.Coil, j.HoldA, j.WatchA, j.By = "coil", d.contact.CoilA, coilOffA, d.ignitionJoin()
		j.DelayS = 60 * d.facts.Schools.DelayMin.Value
	}
}

// coilOffA stands for a coil without current.
const coilOffA = 1e-6

// ignitionJoin is what works a contactor or a selector.
func (d *design) ignitionJoin() day.Control {
	switch {
	case d.kind == coupling.ManualSelector && d.facts.Schools.Selector == coupling.JoinedForGood, d.facts.Day.Trigger == "switch":
		return day.Always
	case d.kind == coupling.ManualSelector && d.facts.Schools.Selector == coupling.Off, d.facts.Day.Trigger == "dead":
		return day.Never
	case d.facts.Day.Trigger == "running":
		return day.ByRunning
	}
	return day.ByIgnition
}

// placeK is how much warmer than outside a place gets with the engine warm.
func placeK(b cable.Bay) float64 {
	return math.Max(0, math.Min(engineSpaceK, b.AmbientC-cable.CabinC+cabinK))
}

// warmWires are the cables that get warm in a run.
func (d *design) warmWires(sys *system.System) []day.Wire {
	var list []day.Wire
	add := func(id string, l *leg, wires ...string) {
		w := day.Wire{ID: id, Thermal: d.facts.Insulation.Thermal(l.trial.Size, l.bay), LimitC: d.facts.Insulation.LimitC, PlaceK: placeK(l.bay)}
		for _, name := range wires {
			wire, ok := sys.Wire(name)
			if !ok || wire.Ohm <= 0 {
				continue
			}
			w.Elements = append(w.Elements, day.Conductor{Element: name, Ohm20: wire.Ohm / (1 + cable.Alpha*(l.trial.ConductorC-20))})
			w.JointOhm = math.Max(w.JointOhm, math.Max(wire.Joint.From, wire.Joint.To))
		}
		if len(w.Elements) > 0 {
			list = append(list, w)
		}
	}
	add("c1", &d.start, "c1", "c1t", "c1a")
	add("c2", &d.aux, "c2", "c2t", "c2c", "n2")
	add("n1", d.returnLeg(), "n1", "n1t")
	return list
}
