// Package system is what a job becomes: components with their terminals, and the
// wires between them. Everything that is shown, priced, drawn or simulated asks
// this.
//
// Terminals are named by DIN 72552 (from memory): 15 ignition-switched positive,
// 30 battery positive, 31 ground, 86 and 85 coil, 87 make, 87a break, B+ alternator output.
package system

import (
	"slices"

	"epitrope/core/cable"
	"epitrope/core/job"
	"epitrope/core/network"
)

// ComponentKind is a kind of component.
type ComponentKind string

// The kinds of component.
const (
	KindAlternator ComponentKind = "alternator"
	KindBattery    ComponentKind = "battery"
	KindFuse       ComponentKind = "fuse"
	KindCharger    ComponentKind = "charger"
	KindRelay      ComponentKind = "relay"
	KindPlug       ComponentKind = "plug"
	KindOutlet     ComponentKind = "outlet" // a body-builder's stud or socket
	KindEarth      ComponentKind = "earth"
	KindFeedPoint  ComponentKind = "feed-point"
	KindContactor  ComponentKind = "contactor"
	KindIsolator   ComponentKind = "isolator"
	KindSplitter   ComponentKind = "splitter"
	KindSwitch     ComponentKind = "switch" // by hand, in a run
	KindShunt      ComponentKind = "shunt"
	KindDisconnect ComponentKind = "disconnect"
	KindLoads      ComponentKind = "loads"
	KindWinch      ComponentKind = "winch"
	KindLamp       ComponentKind = "lamp"
	KindTap        ComponentKind = "tap"        // what hangs on the run at the coupling
	KindChangeover ComponentKind = "changeover" // a relay with a rest contact
	KindControl    ComponentKind = "control"    // by hand, in a signal: switch, button, selector
)

// Component is one thing that is fitted, or was there before.
type Component struct {
	ID       string        `json:"id"`
	Kind     ComponentKind `json:"kind" enum:"alternator,battery,fuse,charger,relay,contactor,isolator,plug,outlet,earth,feed-point,switch,shunt,disconnect,loads,winch,tap,lamp,changeover,control"`
	Name     string        `json:"name"`
	Rating   string        `json:"rating,omitempty"`
	Existing bool          `json:"existing,omitempty" doc:"There before the work"`
	At       job.Point     `json:"at"`
	Device   Device        `json:"-"`
}

// Role is what a wire is for.
type Role string

// The roles of a wire.
const (
	Feed    Role = "feed"
	Return  Role = "return"
	Chassis Role = "chassis" // the vehicle's own steel
	Signal  Role = "signal"
)

// Terminal is a terminal of a component.
type Terminal struct {
	Component string `json:"component"`
	Terminal  string `json:"terminal,omitempty" doc:"DIN 72552"`
}

// Wire is one conductor from terminal to terminal.
type Wire struct {
	ID        string   `json:"id"`
	Run       string   `json:"run" doc:"The run it belongs to"`
	Role      Role     `json:"role" enum:"feed,return,chassis,signal"`
	From      Terminal `json:"from"`
	To        Terminal `json:"to"`
	Size      string   `json:"size,omitempty"`
	CopperMM2 float64  `json:"copperMM2,omitempty"`
	LengthM   float64  `json:"lengthM"`
	Existing  bool     `json:"existing,omitempty"`

	Conduit bool `json:"conduit,omitempty" doc:"It is laid in conduit"`

	Ohm   float64 `json:"-"` // conductor, as warm as it runs
	Joint Joints  `json:"-"`

	Name   string `json:"-"` // as people know it
	Beside string `json:"-"` // the component that it is a short lead of; "" for a wire of its own
}

// Joints are the resistances of a wire's two ends, lug and bolt, in Ω; zero where
// the wire is not cut there.
type Joints struct{ From, To float64 }

// System is the whole installation.
type System struct {
	Components []Component  `json:"components"`
	Wires      []Wire       `json:"wires"`
	Attached   []Attached   `json:"-"`
	Ends       Ends         `json:"-"`
	Lugs       cable.System `json:"-"` // of the barrels in stock; empty: as each cable is sold
	Soldered   bool         `json:"-"` // ends are soldered, not crimped
	AuxN       float64      `json:"-"` // the aux side's voltage / 12 V; 0: as the start side's
}

// Ends are where the run begins and ends, where its two stretches meet the coupling, and the
// minus that a short there finds.
type Ends struct {
	Source, Bank      Terminal
	Coupling          string // the component between Start and Aux
	Start, Aux, Minus Terminal
}

// Add puts a component in.
func (s *System) Add(c Component) { s.Components = append(s.Components, c) }

// Join puts a wire in.
func (s *System) Join(w Wire) { s.Wires = append(s.Wires, w) }

// Node is a terminal's name in a circuit: component and terminal, "start.30".
// Minus of the start battery, and the earth point it is bonded to, are ground.
func (t Terminal) Node() string {
	switch {
	case t == (Terminal{"start", "31"}), t.Component == StartEarth:
		return "0"
	case t.Terminal == "":
		return t.Component
	}
	return t.Component + "." + t.Terminal
}

// StartEarth is the earth point of the start battery.
const StartEarth = "e1"

// Ends are the names of the nodes between a wire's conductor and its joints.
func (w Wire) Ends() (from, to string) {
	from, to = w.From.Node(), w.To.Node()
	if w.Joint.From > 0 {
		from = w.ID + ".from"
	}
	if w.Joint.To > 0 {
		to = w.ID + ".to"
	}
	return from, to
}

// JointFrom and JointTo are what the joints of a wire are called in a circuit, behind its id.
const (
	JointFrom = " joint from"
	JointTo   = " joint to"
)

// Lay puts every wire of the given roles into a circuit: its conductor as a
// resistance named as the wire, and its joints named by wire and end.
func (s *System) Lay(c *network.Circuit, roles ...Role) {
	for _, w := range s.Wires {
		if !slices.Contains(roles, w.Role) || w.Ohm <= 0 {
			continue
		}
		from, to := w.Ends()
		if w.Joint.From > 0 {
			c.Add(network.Resistance{Name: w.ID + JointFrom, A: c.Node(w.From.Node()), B: c.Node(from), Ohm: w.Joint.From})
		}
		c.Add(network.Resistance{Name: w.ID, A: c.Node(from), B: c.Node(to), Ohm: w.Ohm})
		if w.Joint.To > 0 {
			c.Add(network.Resistance{Name: w.ID + JointTo, A: c.Node(to), B: c.Node(w.To.Node()), Ohm: w.Joint.To})
		}
	}
}

// Wire finds a wire; ok is false where there is none such.
func (s *System) Wire(id string) (w Wire, ok bool) {
	for _, w := range s.Wires {
		if w.ID == id {
			return w, true
		}
	}
	return Wire{}, false
}

// Component finds a component; ok is false where there is none such.
func (s *System) Component(id string) (c Component, ok bool) {
	for _, c := range s.Components {
		if c.ID == id {
			return c, true
		}
	}
	return Component{}, false
}
