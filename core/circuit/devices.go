package circuit

import (
	"epitrope/core/network"
	"epitrope/core/system"
)

// standingOhm is a machine that stands, at its own terminal: rectifier and regulator let some milliamperes through.
// Source: from memory.
const standingOhm = 2e3

// Split puts a splitter's two diodes in, and what leaks past them while the machine stands.
func Split(c *network.Circuit, p system.Component, d system.Splitter) {
	at := func(terminal string) network.Node {
		return c.Node(system.Terminal{Component: p.ID, Terminal: terminal}.Node())
	}
	c.Add(network.Diode{Name: SplitStart, A: at(d.From), K: at(d.Start), ForwardV: d.ForwardV, Ohm: d.Ohm},
		network.Diode{Name: SplitAux, A: at(d.From), K: at(d.Aux), ForwardV: d.ForwardV, Ohm: d.Ohm},
		network.Resistance{Name: "splitter leak", A: at(d.From), Ohm: standingOhm})
}

// Converter is a charger as a converter between the circuit's nodes.
func Converter(c *network.Circuit, p system.Component, d system.Charger) network.Converter {
	at := func(terminal string) network.Node {
		return c.Node(system.Terminal{Component: p.ID, Terminal: terminal}.Node())
	}
	return network.Converter{Name: "charger", InPlus: at("30"), InMinus: at("31"), OutPlus: at("out"), OutMinus: at("31"),
		OutV: d.OutV, MaxOutA: d.Card.OutputA, MaxInA: d.Card.InputA, Efficiency: d.Card.Efficiency}
}

// putAhead puts a contact in that parts a charger's feed, with its coil.
func putAhead(c *network.Circuit, p system.Component, d system.Contact) {
	at := func(terminal string) network.Node {
		return c.Node(system.Terminal{Component: p.ID, Terminal: terminal}.Node())
	}
	c.Add(network.Switch{Name: Ahead, A: at(d.From), B: at(d.To), Ohm: d.Ohm},
		network.Resistance{Name: AheadCoil, A: c.Node(d.CoilPlus.Node()), B: c.Node(d.CoilMinus.Node()), Ohm: d.CoilOhm},
		network.Resistance{Name: "K2 leak", A: at(d.To), Ohm: BlockedOhm})
}

// putLock puts a contact in that lets a control's feed through at rest, with its coil.
func putLock(c *network.Circuit, p system.Component, d system.Contact) {
	at := func(terminal string) network.Node {
		return c.Node(system.Terminal{Component: p.ID, Terminal: terminal}.Node())
	}
	c.Add(network.Switch{Name: Lock, A: at(d.From), B: at(d.Rest), Ohm: d.Ohm, Closed: true},
		network.Resistance{Name: "K3 leak", A: at(d.Rest), Ohm: BlockedOhm},
		network.Resistance{Name: LockCoil, A: c.Node(d.CoilPlus.Node()), B: c.Node(d.CoilMinus.Node()), Ohm: d.CoilOhm})
}

// putContact puts a contact in, with its rest contact and what works it.
func putContact(c *network.Circuit, p system.Component, d system.Contact) {
	at := func(terminal string) network.Node {
		return c.Node(system.Terminal{Component: p.ID, Terminal: terminal}.Node())
	}
	c.Add(network.Switch{Name: "contact", A: at(d.From), B: at(d.To), Ohm: d.Ohm})
	if d.Rest != "" {
		c.Add(network.Switch{Name: "rest contact", A: at(d.From), B: at(d.Rest), Ohm: d.Ohm})
	}
	if d.WatchOhm > 0 {
		c.Add(network.Resistance{Name: "coil", A: at("30"), B: at("31"), Ohm: d.WatchOhm})
	}
	if d.CoilOhm > 0 {
		c.Add(network.Resistance{Name: "coil", A: c.Node(d.CoilPlus.Node()), B: c.Node(d.CoilMinus.Node()), Ohm: d.CoilOhm})
	}
}
