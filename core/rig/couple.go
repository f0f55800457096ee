package rig

import (
	"slices"

	"epitrope/core/circuit"
	"epitrope/core/coupling"
	"epitrope/core/day"
	"epitrope/core/design"
	"epitrope/core/feed"
	"epitrope/core/network"
	"epitrope/core/system"
)

// couple puts the devices in that a day works: a machine of the run's own, the contact that
// joins the batteries, the charger.
func couple(d *design.Design, rig *day.Rig, c *network.Circuit) {
	for _, p := range d.System.Components {
		switch device := p.Device.(type) {
		case system.Machine:
			if device.Own {
				second(rig, c, p, device)
			}
		case system.Contact:
			if device.Locks {
				continue // nobody joins by hand while it runs
			}
			if device.Ahead {
				ahead(d, rig, c, p, device)
				continue
			}
			join(d, rig, c, p, device)
		case system.Charger:
			charge(d, rig, c, p, device)
		case system.Outlet:
			outlet(rig, c, p, device)
		case system.Splitter:
			circuit.Split(c, p, device)
			rig.Splits = [2]string{circuit.SplitStart, circuit.SplitAux}
		}
	}
}

// outlet puts a body-builder's stud in: live always, or while the engine runs.
func outlet(rig *day.Rig, c *network.Circuit, p system.Component, o system.Outlet) {
	c.Add(network.Switch{Name: circuit.Outlet, A: node(c, p, "in"), B: node(c, p, "out"), Ohm: o.Ohm, Closed: true},
		network.Resistance{Name: "outlet leak", A: node(c, p, "out"), Ohm: circuit.BlockedOhm})
	if o.Running {
		rig.Outlet = circuit.Outlet
	}
}

// ahead puts a relay in that parts a charger's feed, as its coil is fed.
func ahead(d *design.Design, rig *day.Rig, c *network.Circuit, p system.Component, device system.Contact) {
	c.Add(network.Switch{Name: circuit.Ahead, A: node(c, p, device.From), B: node(c, p, device.To), Ohm: device.Ohm},
		network.Resistance{Name: circuit.AheadCoil, A: startPlus(c), Ohm: device.CoilOhm},
		network.Resistance{Name: "K2 leak", A: node(c, p, device.To), Ohm: circuit.BlockedOhm})
	rig.Ahead = &day.Ahead{Switch: circuit.Ahead, Coil: circuit.AheadCoil, CoilOhm: device.CoilOhm, By: signalled(d)}
	rig.Ahead.PullV, rig.Ahead.DropV = coilVolts(d, circuit.AheadCoil, device)
}

// startPlus is the start battery's plus, which feeds of the vehicle hang on.
func startPlus(c *network.Circuit) network.Node { return c.Node("start.30") }

func node(c *network.Circuit, p system.Component, terminal string) network.Node {
	return c.Node(system.Terminal{Component: p.ID, Terminal: terminal}.Node())
}

func second(rig *day.Rig, c *network.Circuit, p system.Component, m system.Machine) {
	at := node(c, p, "B+")
	c.Add(network.Alternator{Name: p.ID + " alternator", Plus: at, Sense: at, Volts: m.Volts},
		network.Resistance{Name: p.ID + " alternator at rest", A: at, Ohm: circuit.BlockedOhm})
	rig.Second = &day.SecondMachine{Element: p.ID + " alternator", Node: p.ID + ".B+", Label: m.Label, Volts: m.Volts / rig.N,
		MostA: design.SecondShare * m.Label.RatedA}
}

func charge(d *design.Design, rig *day.Rig, c *network.Circuit, p system.Component, device system.Charger) {
	c.Add(circuit.Converter(c, p, device),
		network.Resistance{Name: "charger at rest", A: node(c, p, "30"), B: node(c, p, "31"), Ohm: device.RestOhm})
	signal := ""
	if device.SignalOhm > 0 {
		signal = "trigger input"
		from := startPlus(c)
		if d.SelfSignalled() {
			from = node(c, p, "30")
		}
		c.Add(network.Resistance{Name: signal, A: from, B: node(c, p, "31"), Ohm: device.SignalOhm})
	}
	if device.BesideA > 0 {
		c.Add(network.CurrentLoad{Name: circuit.Feed, A: node(c, p, "30"), B: node(c, p, "31"), Amps: device.BesideA})
		rig.Beside = circuit.Feed
	}
	card := device.Card
	rig.Charger = &day.Charger{Element: "charger", Standby: "charger at rest", Signal: signal, SignalOhm: device.SignalOhm,
		OutputA:  card.OutputA,
		StandbyA: max(card.StandbyA, design.CoilOffA),
		Stages:   d.UsualStages(), Curve: coupling.UsualCurve,
		CutOutV: card.CutOutV, RestartV: card.RestartV, SoftS: card.SoftStartS, MostInA: card.InputA, IdleInA: card.IdleInputA,
		RestartS: restartS, DelayS: chargeDelayS + 60*d.Facts.Schools.DelayMin.Value,
		FullC: card.MaxAmbientC, CaseKPerW: card.CaseKPerW, PlaceOverK: placeK(d.Facts.AuxBay),
		By: trigger(d), LiveV: signalVolts(d, device), Senses: d.Facts.Detects}
}

// signalVolts is what has to stand at the start battery for a charger's signal to count as live, at
// 12 V; nothing where none is wired.
func signalVolts(d *design.Design, device system.Charger) float64 {
	if device.SignalOhm == 0 {
		return 0
	}
	s := d.Unloaded(whileLive(d))
	s.Stopped, s.Joined = true, false
	d.Rest(&s)
	across := s.Across("coupling.15", "coupling.31")
	if across <= 0 {
		return 0
	}
	return device.LiveV * s.BusV / across / d.Facts.N
}

// whileLive is a position of the key in which the signal is live: with the engine running, unless it is dead then.
func whileLive(d *design.Design) design.KeyState {
	for _, k := range []design.KeyState{design.Driving, design.Ignition, design.Accessory, design.KeyOut} {
		if d.FeedIs(k) == feed.Is {
			return k
		}
	}
	return design.Driving
}

// trigger is when the coupling sees its signal, as its circuit brings it.
func trigger(d *design.Design) day.Trigger {
	if d.ByVoltage() {
		return day.Sensed
	}
	return signalled(d)
}

// signalled is when what works the coupling, or a relay ahead of it, has a way to it. Whether the volts are enough, a run finds.
func signalled(d *design.Design) day.Trigger {
	return day.Trigger{Out: d.SignalReaches(design.KeyOut), On: d.SignalReaches(design.Ignition), Cranking: d.SignalReaches(design.CrankKey),
		Running: d.SignalReaches(design.Driving)}
}

// join puts in what joins the batteries, and what works it: its own eye on the voltage, the
// charger beside it, a button, or its coil. Without any of them it is closed for good.
func join(d *design.Design, rig *day.Rig, c *network.Circuit, p system.Component, device system.Contact) {
	n, delayS := rig.N, 60*d.Facts.Schools.DelayMin.Value
	from, to := node(c, p, device.From), node(c, p, device.To)
	watch := network.Resistance{Name: "coil", A: from, Ohm: 12 * n / design.RelaySensesA}
	j := &day.Join{Switch: "contact"}
	switch {
	case device.HoldOhm > 0:
		watch.B = node(c, p, "31")
		c.Add(watch)
		j.Coil, j.By, j.Sensing, j.HoldA, j.WatchA = "coil", day.BySensing, d.Contact.Sensing, d.Contact.Sensing.CoilA, design.RelaySensesA
		j.Sensing.CloseS += delayS // a timer lets the start battery recover first
	case device.Rest != "":
		c.Add(network.Resistance{Name: "rest contact", A: from, B: node(c, p, device.Rest), Ohm: device.Ohm})
		j.By, j.Rest = day.Never, "rest contact"
	case workedByCharger(&d.System, p):
		j.By, j.Bypass, j.Trigger = day.ByBypass, coupling.UsualHighCurrent, trigger(d)
	case device.CoilOhm > 0:
		if d.Selector() != coupling.JoinedForGood { // by its own feed, not by the run
			watch.A = startPlus(c)
		}
		c.Add(watch)
		j.Coil, j.HoldA, j.WatchA, j.DelayS = "coil", d.Contact.CoilA, design.CoilOffA, delayS
		j.By, j.Trigger = day.ByCoil, trigger(d)
		j.PullV, j.DropV = coilVolts(d, "coil", device)
	default:
		c.Add(network.Resistance{Name: "contact", A: from, B: to, Ohm: device.Ohm})
		return
	}
	c.Add(network.Switch{Name: "contact", A: from, B: to, Ohm: device.Ohm})
	rig.Join = j
}

// workedByCharger says whether a charger works a contact's coil.
func workedByCharger(s *system.System, contact system.Component) bool {
	return slices.ContainsFunc(s.Components, func(p system.Component) bool {
		charger, is := p.Device.(system.Charger)
		return is && charger.Works == contact.Name
	})
}

// coilVolts is what has to stand at the start battery for a coil to close its contact, and to
// hold it, at 12 V: what drives its currents through all that feeds it; nothing where its feed
// is dead.
func coilVolts(d *design.Design, coil string, contact system.Contact) (pull, drop float64) {
	s := d.Unloaded(whileLive(d))
	d.Settle(&s)
	amps := circuit.Had(s.Solved.Through(coil))
	if s.Err != nil || amps < contact.DropA/2 {
		return 0, 0
	}
	ohm := s.BusV / amps
	return contact.PullA * ohm / d.Facts.N, contact.DropA * ohm / d.Facts.N
}
