package system

import (
	"slices"

	"epitrope/core/alternator"
	"epitrope/core/coupling"
	"epitrope/core/parts"
	"epitrope/core/protect"
)

// Device is what a component is: what it lets through, what works it, and what whoever makes
// and proves it has to know. The kinds of device are these, and no others; whoever asks
// one asks its fields, never a component's words.
type Device interface{ device() }

// Fuse is a fuse or breaker between its studs in and out.
type Fuse struct {
	protect.Fuse
	Ohm float64
}

// Contact joins From and To when its coil, or its own eye on the voltage, has closed it;
// open, it may join From and Rest.
type Contact struct {
	From, To, Rest      string // terminals; Rest is "" where it has none
	Ohm                 float64
	RatingA             float64  // what it is sold by
	CoilPlus, CoilMinus Terminal // zero where no coil is wired
	CoilOhm             float64
	PullA, DropA        float64 // its coil's current closes it from, and lets go below
	WatchOhm, HoldOhm   float64 // of one that senses: its own circuit, open and closed; 0 where it has none
	Senses              coupling.Sensing
	ByHand              bool   // it is worked at the contact itself
	PlugIn              bool   // in a socket, not on studs
	Stud                string // that its cables go on; "" where nobody says
	Locks               bool   // its rest contact lets a control's feed through, and it joins nothing
	Ahead               bool   // it parts a charger's feed, and joins no batteries
}

// Splitter lets current pass from one terminal to either of two others, and none back.
type Splitter struct {
	From, Start, Aux string // terminals
	ForwardV, Ohm    float64
	RatedA           float64
}

// Charger is a DC-DC charger between its input 30, its output out and its minus 31.
type Charger struct {
	Card      parts.Charger
	OutV      float64 // what it holds
	RestOhm   float64 // its input at rest
	SignalOhm float64 // its signal input 15; 0 where none is wired
	BesideA   float64 // what is drawn at its input besides, while the machine turns
	Works     string  // terminal by which it works a contact beside it; "" where it works none
	LiveV     float64 // its signal input counts as live from
	RestartV  float64 // having stopped for want of volts, it begins again from
	Bypass    coupling.HighCurrent
	Detects   coupling.Sensing // without a signal, what it takes for a running engine, at 12 V
}

// Link is an isolator, a shunt or a disconnect between two terminals.
type Link struct {
	From, To Terminal
	Ohm      float64
	RatingA  float64 // what it is sold by; 0 where it is not known
	ByHand   bool    // it can be opened
	Breaks   bool    // a contact of its own breaks the signal before it opens
}

// Outlet is a body-builder's stud or socket between in and out, behind fuses of its maker's.
type Outlet struct {
	Ohm     float64
	MaxA    float64 // what its maker allows; 0 where nobody said
	Running bool    // it is live only while the engine runs
}

// Plug is a plug and socket: which pairs of its halves are wired.
type Plug struct {
	Card        parts.Plug
	Plus, Minus bool
	Behind      string // what comes away with its other half: Trailer or Box
}

// What a plug's other half comes away with.
const (
	Trailer = "trailer"
	Box     = "box"
)

// Control is what a person works in a signal: its contacts, and where it usually stands.
type Control struct {
	Throws []Throw
	Usual  Hand
}

// Throw is one contact of a control, between two of its terminals, and where the control
// stands for it to pass.
type Throw struct {
	Name     string
	From, To string
	At       []Hand
}

// Hand is where a person has something: a button, a switch, a selector.
type Hand string

// Where hands may have things.
const (
	Released   Hand = "released"
	Held       Hand = "held"
	Off        Hand = "off"
	On         Hand = "on"
	WithSignal Hand = "with the signal"
	Always     Hand = "always"
)

// Key is where the vehicle's key stands.
type Key string

// Where the key may stand.
const (
	KeyOff       Key = "off"
	KeyAccessory Key = "accessory"
	KeyOn        Key = "on"
	KeyStart     Key = "start"
)

// FeedPoint is the circuit that a signal is taken from, by its loom from the start battery,
// and when it is live.
type FeedPoint struct {
	LoomOhm float64
	Running bool  // while the engine runs
	Keys    []Key // with the key there and the engine stopped
	Slot    bool  // a fuse's slot, which a tap holder goes into
}

// Live says whether the feed point is live.
func (f FeedPoint) Live(key Key, running bool) bool {
	if running {
		return f.Running
	}
	return slices.Contains(f.Keys, key)
}

// Bank is a battery between 30 and 31.
type Bank struct {
	Ohm   float64
	Start bool   // the start battery
	Each  string // what one of several in parallel is; "" for one
}

// Member is one of a bank's batteries beside the first, which stands for them in the circuit.
type Member struct{}

// Machine is an alternator: the vehicle's, held at the start battery, or a run's own, held
// at its terminal.
type Machine struct {
	Label     alternator.Label
	Volts     float64 // of a run's own
	Own       bool
	SensesOwn bool // the vehicle's, held at its own terminal too
}

// Load draws a current, or, with Ohm, is switched on as a resistance.
type Load struct {
	Ohm          float64
	OnAux        bool    // it hangs on the aux side
	FullA, MeanA float64 // of what hangs on the run: all that it draws, and on average with the engine off
}

// Panel is solar panels with a regulator that holds a voltage; without watts there are none.
type Panel struct{ Volts, Watts float64 }

func (Fuse) device()      {}
func (Contact) device()   {}
func (Charger) device()   {}
func (Splitter) device()  {}
func (Link) device()      {}
func (Plug) device()      {}
func (Outlet) device()    {}
func (Control) device()   {}
func (FeedPoint) device() {}
func (Bank) device()      {}
func (Member) device()    {}
func (Machine) device()   {}
func (Load) device()      {}
func (Panel) device()     {}

// Attached is what hangs on the installation without being a part of it: the vehicle's own
// loads, its starter, what is used off the aux battery, panels.
type Attached struct {
	Name        string
	Plus, Minus Terminal
	Device      Device
}

// Tapped says whether the signal's fuse sits in a tap holder in the feed point's own slot.
func (s *System) Tapped() bool {
	for _, c := range s.Components {
		if f, is := c.Device.(FeedPoint); is {
			return f.Slot
		}
	}
	return false
}

// Sensing is the contact that joins the batteries by its own eye on the voltage; ok is false where none does.
func (s *System) Sensing() (c Component, ok bool) {
	for _, c := range s.Components {
		if of, is := c.Device.(Contact); is && of.HoldOhm > 0 && !of.Ahead && !of.Locks {
			return c, true
		}
	}
	return Component{}, false
}

// Splitter is the system's splitter; ok is false where it has none.
func (s *System) Splitter() (d Splitter, ok bool) {
	for _, c := range s.Components {
		if d, ok = c.Device.(Splitter); ok {
			return d, true
		}
	}
	return Splitter{}, false
}
