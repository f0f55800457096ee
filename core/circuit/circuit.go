// Package circuit lays a system out as an electrical network and solves it in states.
//
// What stands where, the system's devices say; a State says only what hands and the world
// do and how full the batteries are. The network is laid once for a system: a state sets
// values and switches.
package circuit

import (
	"cmp"
	"errors"
	"fmt"
	"slices"

	"epitrope/core/network"
	"epitrope/core/parts"
	"epitrope/core/system"
)

// Sources and loads in a circuit. Source: common practice, no source: a full start
// battery puts up a resistance of about an ohm for 12 V, an ampere or two at charging
// voltage; a short has next to no resistance; a machine's rectifier blocks.
const (
	RechargeOhm = 1.0
	shortOhm    = 1e-6
	BlockedOhm  = 1e6
)

// Circuit is a system laid out.
type Circuit struct {
	of       *system.System // that it was laid for
	ohms     []resistance   // … as Rewire left them; nil where it was never asked
	n        float64        // system voltage / 12 V
	auxN     float64        // the aux side's
	solver   *network.Solver
	start    *network.Battery
	aux      *network.Battery
	auxOhm   float64
	machine  *network.Alternator
	second   *network.Alternator // of a run's own; nil where there is none
	sun      *network.Alternator
	mains    *network.Alternator // a charger that mains or a generator feed; nil where there is none
	vehicle  *network.CurrentLoad
	house    *network.CurrentLoad
	charger  *charger
	contact  *system.Contact // that joins the batteries; nil where there is none
	joins    system.Component
	ahead    *system.Contact // that parts the charger's feed; nil where there is none
	locks    *system.Contact // that lets a control\'s feed through at rest; nil where there is none
	sensing  *network.Wire   // its own circuit, where it watches the voltage
	feed     system.FeedPoint
	outlet   system.Outlet
	breaks   bool                       // what opens by hand breaks the signal first
	switches map[string]*network.Switch // by name
	throws   []throw
	byHand   []string
	hang     []hung
	taps     []tap

	Dark []string // what hangs on it and was left with volts that nothing works at, as it was solved last: it is off
}

// tap is what hangs on the run at the coupling.
type tap struct {
	name        string
	full, mean  float64
	n           float64
	load        *network.CurrentLoad
	plus, minus system.Terminal
}

// hung is a load, and where it hangs.
type hung struct {
	name        string
	plus, minus system.Terminal
	at          [2]network.Point // the same
	amps        *float64
	n           float64 // the voltage of its side / 12 V
}

// throw is a contact of a control.
type throw struct {
	system.Throw
	control string
	usual   system.Hand
}

// charger is a charger and what stands for it at rest.
type charger struct {
	at        system.Component
	converter *network.Converter
	beside    *network.CurrentLoad
	device    system.Charger
}

// Lay lays a system out; n is its voltage over 12 V. A system that makes no circuit is a
// fault of whoever made it, and panics.
func Lay(s *system.System, n float64) *Circuit {
	c := network.New()
	Fixed(c, s, system.Feed, system.Return, system.Chassis, system.Signal)
	l := &Circuit{of: s, n: n, auxN: cmp.Or(s.AuxN, n), switches: map[string]*network.Switch{}}
	for _, p := range s.Components {
		l.lay(c, p)
	}
	for _, a := range s.Attached {
		attach(c, a)
		l.hang = append(l.hang, hung{name: a.Name, plus: a.Plus, minus: a.Minus, n: l.hungAt(a)})
		if d, is := a.Device.(system.Load); is && d.FullA > 0 {
			l.taps = append(l.taps, tap{name: a.Name, full: d.FullA, mean: d.MeanA, plus: a.Plus, minus: a.Minus, n: l.hungAt(a)})
		}
	}
	for name, at := range map[string]system.Terminal{ShortC1: s.Ends.Start, ShortC2: s.Ends.Aux} {
		c.Add(network.Switch{Name: name, A: c.Node(at.Node()), B: c.Node(s.Ends.Minus.Node()), Ohm: shortOhm})
	}
	solver, err := network.NewSolver(c)
	if err != nil {
		panic(err)
	}
	l.solver = solver
	l.grip(c)
	return l
}

// side is the voltage of a battery's side / 12 V.
func (l *Circuit) side(b system.Bank) float64 {
	if b.Start {
		return l.n
	}
	return l.auxN
}

// hungAt is the voltage of the side that something hangs on / 12 V.
func (l *Circuit) hungAt(a system.Attached) float64 {
	if load, is := a.Device.(system.Load); a.Name == House || is && load.OnAux {
		return l.auxN
	}
	return l.n
}

// Fixed lays what no state changes: the wires of some roles, and every fuse, plug, shunt
// and link that they come to, closed.
func Fixed(c *network.Circuit, s *system.System, roles ...system.Role) {
	s.Lay(c, roles...)
	for _, p := range s.Components {
		at := func(terminal string) network.Node {
			return c.Node(system.Terminal{Component: p.ID, Terminal: terminal}.Node())
		}
		if !comesTo(s, p.ID, roles) {
			continue
		}
		switch d := p.Device.(type) {
		case system.Fuse:
			c.Add(network.Resistance{Name: p.ID, A: at("in"), B: at("out"), Ohm: d.Ohm})
		case system.Plug:
			c.Add(network.Resistance{Name: p.ID + " plus", A: at("+"), B: at("+t"), Ohm: d.Card.Ohm})
			if d.Minus {
				c.Add(network.Resistance{Name: p.ID + " minus", A: at("-t"), B: at("-"), Ohm: d.Card.Ohm})
			}
		case system.Link:
			a, b := c.Node(d.From.Node()), c.Node(d.To.Node())
			if d.ByHand {
				c.Add(network.Switch{Name: p.ID, A: a, B: b, Ohm: d.Ohm, Closed: true})
			} else {
				c.Add(network.Resistance{Name: p.ID, A: a, B: b, Ohm: d.Ohm})
			}
		}
	}
}

// comesTo says whether a wire of some roles ends at a component.
func comesTo(s *system.System, id string, roles []system.Role) bool {
	return slices.ContainsFunc(s.Wires, func(w system.Wire) bool {
		return slices.Contains(roles, w.Role) && (w.From.Component == id || w.To.Component == id)
	})
}

// lay puts a component with what a state changes of it into the circuit.
func (l *Circuit) lay(c *network.Circuit, p system.Component) {
	at := func(terminal string) network.Node {
		return c.Node(system.Terminal{Component: p.ID, Terminal: terminal}.Node())
	}
	switch d := p.Device.(type) {
	case system.Bank:
		c.Add(network.Battery{Name: p.ID + " battery", Plus: at("30"), Minus: at("31"), Volts: 12 * l.side(d), Ohm: d.Ohm})
	case system.Machine:
		if !d.Own {
			sense := c.Node("start.30")
			if d.SensesOwn {
				sense = at("B+")
			}
			c.Add(network.Alternator{Name: p.ID, Plus: at("B+"), Sense: sense})
			return
		}
		c.Add(network.Alternator{Name: p.ID + " alternator", Plus: at("B+"), Sense: at("B+"), Volts: d.Volts},
			network.Resistance{Name: p.ID + " alternator at rest", A: at("B+"), Ohm: BlockedOhm})
	case system.Contact:
		if d.Locks {
			l.locks = &d
			putLock(c, p, d)
			return
		}
		if d.Ahead {
			l.ahead = &d
			putAhead(c, p, d)
			return
		}
		l.contact, l.joins = &d, p
		putContact(c, p, d)
	case system.Splitter:
		Split(c, p, d)
	case system.Load:
		if d.Ohm == 0 {
			return // it hangs on the run
		}
		c.Add(network.Resistance{Name: p.ID, A: at("1"), B: at("2"), Ohm: d.Ohm})
	case system.Outlet:
		c.Add(network.Switch{Name: Outlet, A: at("in"), B: at("out"), Ohm: d.Ohm, Closed: true},
			network.Resistance{Name: "outlet leak", A: at("out"), Ohm: BlockedOhm})
		l.outlet = d
	case system.Charger:
		c.Add(Converter(c, p, d),
			network.Switch{Name: "charger at rest", A: at("30"), B: at("31"), Ohm: d.RestOhm},
			network.CurrentLoad{Name: Feed, A: at("30"), B: at("31")})
		if d.SignalOhm > 0 {
			c.Add(network.Resistance{Name: "trigger input", A: at("15"), B: at("31"), Ohm: d.SignalOhm})
		}
		if d.Works != "" {
			c.Add(network.Switch{Name: "relay output", A: at("30"), B: at(d.Works), Ohm: parts.ControlOhm})
		}
		l.charger = &charger{at: p, device: d}
	case system.Control:
		for _, t := range d.Throws {
			c.Add(network.Switch{Name: t.Name, A: at(t.From), B: at(t.To), Ohm: parts.ControlOhm})
			l.throws = append(l.throws, throw{t, p.ID, d.Usual})
		}
	case system.FeedPoint:
		c.Add(network.Switch{Name: "loom", A: c.Node("start.30"), B: at("15"), Ohm: d.LoomOhm},
			network.Resistance{Name: "feed point's own load", A: at("15"), Ohm: BlockedOhm}) // what else hangs on it holds it dead
		l.feed = d
	case system.Link:
		if d.ByHand {
			l.byHand, l.breaks = append(l.byHand, p.ID), l.breaks || d.Breaks
		}
	}
}

// What hangs on every installation, by name.
const (
	Vehicle          = "vehicle"
	Feed             = "feed" // beside the charger
	House            = "house"
	Starter          = "starter"
	Sun              = "solar"
	Mains            = "mains charger"
	Winch            = "winch"
	Outlet           = "outlet"
	Ahead            = "K2"
	AheadCoil        = "K2's coil"
	Lock             = "K3"
	LockCoil         = "K3's coil"
	SecondAlternator = "second alternator"
	SplitStart       = "diode to the start battery"
	SplitAux         = "diode to the aux battery"
)

// Now is the circuit with its values and switches as they were set last.
func (l *Circuit) Now() *network.Circuit { return l.solver.Now() }

// Solve solves the circuit in a state with its devices in a given position. The error is a
// sentence about the element that asks too much.
func (l *Circuit) Solve(s State, p Position) (network.Solution, error) {
	l.set(s, p)
	l.Dark = nil
	err := l.solver.Solve()
	var at *network.Error
	for errors.As(err, &at) && l.darkens(at.Element) {
		err = l.solver.Solve()
	}
	for err == nil && l.dims() {
		err = l.solver.Solve()
	}
	switch {
	case errors.As(err, &at):
		return network.Solution{}, fmt.Errorf("the %s %s", at.Element, at.Why)
	case err != nil:
		return network.Solution{}, err
	}
	return l.solver.Solution(), nil
}
