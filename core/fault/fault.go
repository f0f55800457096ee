// Package fault is what may be wrong with an installation. A fault is a change of its devices and wires, or of the
// world around them; whatever a meter then reads follows from the circuit, and from nothing else.
package fault

import (
	"math"
	"slices"

	"epitrope/core/circuit"
	"epitrope/core/design"
	"epitrope/core/system"
)

// Kind is what sort of thing is wrong.
type Kind string

// The kinds of fault.
const (
	Blown    Kind = "blown"    // a fuse is open, or missing
	Open     Kind = "open"     // a wire is off, or taped off and forgotten
	Joint    Kind = "joint"    // an end is loose, corroded, on paint
	Thin     Kind = "thin"     // thinner cable than was planned
	Steel    Kind = "steel"    // the body is on rubber or paint
	Stuck    Kind = "stuck"    // a contact that does not close
	Welded   Kind = "welded"   // … or does not open
	Burnt    Kind = "burnt"    // … or resists
	Coil     Kind = "coil"     // a coil is open
	Always   Kind = "always"   // a signal that is live with the key out
	Early    Kind = "early"    // … with the key on and the engine stopped
	Never    Kind = "never"    // … never
	Bypassed Kind = "bypassed" // a way past the coupling
	Swapped  Kind = "swapped"  // plus and minus of a battery changed over
	Half     Kind = "half"     // a plug that is not quite in
	Dead     Kind = "dead"     // a charger that does nothing
	Weak     Kind = "weak"     // … or little
	Profile  Kind = "profile"  // … or is set for another battery
	Machine  Kind = "machine"  // an alternator that gives nothing
	Worn     Kind = "worn"     // … or little
	Eased    Kind = "eased"    // … or is held low by its regulation
	Cell     Kind = "cell"     // a battery with a dead cell

	Chafed     Kind = "chafed"     // a wire on steel: its fuse blows, and blows again
	Outlet     Kind = "outlet"     // a factory block or stud that gives nothing
	Diode      Kind = "diode"      // a diode or phase of the machine gone: less, and a drain at rest
	High       Kind = "high"       // a regulator that holds too much
	Sulphated  Kind = "sulphated"  // a battery that resists and takes little
	Parted     Kind = "parted"     // a battery that is open inside
	Tired      Kind = "tired"      // one that has lost its capacity
	Management Kind = "management" // a lithium battery whose management has opened
	Drain      Kind = "drain"      // something that does not go to sleep
	HouseDrain Kind = "house drain"
	Isolated   Kind = "isolated"  // an isolator that is off
	Forgotten  Kind = "forgotten" // a switch that stands where it should not
	Sunny      Kind = "sunny"     // another source hides what is read

	Leak      Kind = "leak"      // a wire that leaks to steel, too little for its fuse
	Bridged   Kind = "bridged"   // a signal that touches what lies beside it
	Crossed   Kind = "crossed"   // two leads changed over
	Uncounted Kind = "uncounted" // a lead past the monitor's shunt
)

// Fault is one thing that may be wrong with an installation.
type Fault struct {
	ID        string  // kind and place
	Kind      Kind    // what sort it is
	At        string  // the component or wire
	End       string  // of a wire's end: the component there
	Says      string  // in a sentence's words: “F1 is blown”
	When      When    // it is there
	Endangers string  // what it puts at risk; empty where it only fails to charge
	Mend      string  // how it is mended
	Least     float64 // the smallest size of it, in Unit; 0 where it has none
	Most      float64 // … and the largest
	Unit      string
	Blows     []string // the fuses that it blows, and blows again

	wrong func(s *system.System, size float64)
	alike bool                                 // wrong puts in a wire, of so many Ω
	ohms  func(s *system.System, size float64) // the same, of what only changes what wires and fuses resist
	world func(s *circuit.State, n, size float64)
}

// Dangerous says whether it can hurt somebody, or a vehicle that nobody watches.
func (f Fault) Dangerous() bool { return f.Endangers != "" }

// Size is the fault's size at a share from its least to its most, spread as such sizes are: by powers.
func (f Fault) Size(share float64) float64 {
	if f.Least <= 0 {
		return f.Most
	}
	return f.Least * math.Pow(f.Most/f.Least, share)
}

// On is an installation with the fault, of a size.
func (f Fault) On(s system.System, size float64) system.System {
	s.Components, s.Wires, s.Attached = slices.Clone(s.Components), slices.Clone(s.Wires), slices.Clone(s.Attached)
	for _, change := range []func(*system.System, float64){f.wrong, f.ohms} {
		if change != nil {
			change(&s, size)
		}
	}
	return s
}

// World says whether a fault is of what the installation hangs on: a battery, the machine, what people left on.
func (f Fault) World() bool { return f.world != nil }

// Resists says whether a fault changes nothing of an installation but what its wires and fuses resist.
func (f Fault) Resists() bool { return f.wrong == nil }

// Alike says whether its sizes differ in what wires and fuses resist, and in nothing else.
func (f Fault) Alike() bool { return f.Resists() || f.alike }

// In is the world around an installation with the fault, of a size; n is the system's voltage over 12 V.
func (f Fault) In(s circuit.State, n, size float64) circuit.State {
	if f.world != nil {
		f.world(&s, n, size)
	}
	return s
}

// openOhm stands for a way that is open.
const openOhm = 1e7

// Of are the faults that an installation may have, by what it is made of.
func Of(d *design.Design) []Fault {
	var list []Fault
	for _, c := range d.System.Components {
		list = append(list, ofComponent(d, c)...)
	}
	for _, w := range d.System.Wires {
		list = append(list, ofWire(d, w)...)
	}
	list = append(list, ofRuns(d)...)
	list = append(list, ofAstray(d)...)
	list = append(list, ofShunt(d)...)
	return append(list, ofWorld(d)...)
}

// device changes the device of a component.
func device[D system.Device](id string, change func(*D, float64)) func(*system.System, float64) {
	return func(s *system.System, size float64) {
		for i := range s.Components {
			if d, is := s.Components[i].Device.(D); is && s.Components[i].ID == id {
				change(&d, size)
				s.Components[i].Device = d
			}
		}
	}
}

// wire changes a wire.
func wire(id string, change func(*system.Wire, float64)) func(*system.System, float64) {
	return func(s *system.System, size float64) {
		for i := range s.Wires {
			if s.Wires[i].ID == id {
				change(&s.Wires[i], size)
			}
		}
	}
}
