package rig

import (
	"epitrope/core/circuit"
	"epitrope/core/coupling"
	"epitrope/core/day"
	"epitrope/core/design"
	"epitrope/core/network"
)

// couple puts the coupling in.
func couple(d *design.Design, rig *day.Rig, c *network.Circuit) {
	n := d.Facts.N
	if d.Kind == coupling.SecondAlternator {
		c.Add(network.Alternator{Name: "second alternator", Plus: c.Node("second.B+"), Sense: c.Node("second.B+"), Volts: d.SecondV()},
			network.Resistance{Name: "contact", A: c.Node("coupling.30"), B: c.Node("coupling.87"), Ohm: d.Contact.ContactOhm})
		rig.Second = &day.SecondMachine{Element: "second alternator", Node: "second.B+", Label: d.Second, Volts: d.SecondV() / n,
			MostA: d.Second.RatedA / 2}
		return
	}
	join(d, rig, c)
	if !d.Kind.Charger() {
		return
	}
	at, _ := d.System.Component("coupling")
	charger := circuit.Converter(c, at, d.ChargerDevice())
	c.Add(charger, network.Resistance{Name: "charger at rest", A: c.Node("coupling.30"), B: c.Node("coupling.31"), Ohm: d.StandbyOhm()})
	rig.Charger = &day.Charger{Element: "charger", Standby: "charger at rest", OutputA: d.Charger.OutputA,
		StandbyA: max(d.Charger.StandbyA, design.CoilOffA),
		Stages:   d.UsualStages(), Curve: coupling.UsualCurve,
		CutOutV: d.Charger.CutOutV, RestartV: RestartV, RestartS: restartS, DelayS: chargeDelayS + 60*d.Facts.Schools.DelayMin.Value,
		FullC: d.Charger.MaxAmbientC, CaseKPerW: d.Charger.CaseKPerW, PlaceOverK: placeK(d.Facts.AuxBay), By: day.Running}
	rig.Charger.By, rig.Charger.Senses = triggers[d.Facts.Day.Trigger], d.Facts.Detects
}

// triggers are what tells a charger to run, by the answer.
var triggers = map[string]day.Trigger{"running": day.Running, "ignition": day.Ignition, "accessory": day.Accessory, "switch": day.Switched,
	"dead": day.Dead, "voltage": day.Sensed}

// join puts in what joins the batteries, and what works it.
func join(d *design.Design, rig *day.Rig, c *network.Circuit) {
	n := d.Facts.N
	if d.Kind == coupling.DCDC || d.Kind == coupling.TrailerCharger {
		return
	}
	c.Add(network.Switch{Name: "contact", A: c.Node(d.Arrives().Node()), B: c.Node(d.Leaves().Node()), Ohm: d.JoinOhm()})
	rig.Join = &day.Join{Switch: "contact"}
	j := rig.Join
	switch d.Kind {
	case coupling.VSR:
		c.Add(network.Resistance{Name: "coil", A: c.Node("coupling.30"), B: c.Node("coupling.31"), Ohm: 12 * n / design.RelaySensesA})
		j.Coil, j.By, j.Sensing, j.HoldA, j.WatchA = "coil", day.BySensing, d.Contact.Sensing, d.Contact.Sensing.CoilA, design.RelaySensesA
		j.Sensing.CloseS += 60 * d.Facts.Schools.DelayMin.Value // a timer lets the start battery recover first
		if d.Facts.Day.Trigger == "switch" {
			j.By = day.Always
		}
	case coupling.DCDCChangeover:
		c.Add(network.Resistance{Name: "rest contact", A: c.Node("k1.30"), B: c.Node("k1.87a"), Ohm: d.JoinOhm()})
		j.By, j.Rest = day.Never, "rest contact"
	case coupling.DCDCHighCurrent:
		h := coupling.UsualHighCurrent
		j.By, j.Bypass, j.Trigger = day.ByBypass, h, triggers[d.Facts.Day.Trigger]
	default: // a coil worked by the ignition
		c.Add(network.Resistance{Name: "coil", A: c.Node("coupling.30"), Ohm: 12 * n / design.RelaySensesA})
		j.Coil, j.HoldA, j.WatchA, j.By = "coil", d.Contact.CoilA, design.CoilOffA, ignitionJoin(d)
		j.DelayS = 60 * d.Facts.Schools.DelayMin.Value
	}
}

// ignitionJoin is what works a contactor or a selector.
func ignitionJoin(d *design.Design) day.Control {
	switch {
	case d.Kind == coupling.ManualSelector && d.Facts.Schools.Selector == coupling.JoinedForGood, d.Facts.Day.Trigger == "switch":
		return day.Always
	case d.Kind == coupling.ManualSelector && d.Facts.Schools.Selector == coupling.Off, d.Facts.Day.Trigger == "dead":
		return day.Never
	case d.Facts.Day.Trigger == "running":
		return day.ByRunning
	}
	return day.ByIgnition
}
