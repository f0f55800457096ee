package fault

import (
	"epitrope/core/coupling"
	"epitrope/core/design"
	"epitrope/core/system"
)

// What copper that touches what it should not resists, in Ω: below, its fuse blows. Source: from memory.
const (
	leastLeakOhm   = 0.6
	leastSignalOhm = 4.0 // a small fuse before it
	mostLeakOhm    = 15.0
	leastBridgeOhm = 0.02
	mostBridgeOhm  = 2.0
)

// ofAstray are the faults in which current finds a way that nobody planned: to steel, or to the neighbour.
func ofAstray(d *design.Design) (list []Fault) {
	been := map[string]bool{d.System.Ends.Minus.Node(): true}
	for _, w := range d.System.Wires {
		if w.Role == system.Feed || w.Role == system.Signal {
			if along := reach(d, w.To, been); along != nil {
				list = append(list, leak(d, w, along))
			}
		}
	}
	list = append(list, bridges(d)...)
	return append(list, crossings(d)...)
}

// reach are the wires' ends that hang together from one on, through all that only passes; nil where it was reached before. What leaks
// somewhere there leaks everywhere there, as far as a meter tells.
func reach(d *design.Design, from system.Terminal, been map[string]bool) (along []system.Terminal) {
	next := []system.Terminal{from}
	for len(next) > 0 {
		at := next[0]
		next = next[1:]
		if been[at.Node()] {
			continue
		}
		been[at.Node()] = true
		along = append(along, at)
		for _, w := range d.System.Wires {
			switch {
			case w.Role != system.Feed && w.Role != system.Signal:
			case w.From.Node() == at.Node():
				next = append(next, w.To)
			case w.To.Node() == at.Node():
				next = append(next, w.From)
			}
		}
		c, _ := d.System.Component(at.Component)
		switch of := c.Device.(type) {
		case system.Fuse:
			next = append(next, system.Terminal{Component: c.ID, Terminal: "in"}, system.Terminal{Component: c.ID, Terminal: "out"})
		case system.Link:
			next = append(next, of.From, of.To)
		}
	}
	return along
}

// leak is a wire that leaks to steel somewhere: too little for its fuse. It is told by what it lies at, halfway along.
func leak(d *design.Design, w system.Wire, along []system.Terminal) Fault {
	least := leastLeakOhm
	if w.Role == system.Signal {
		least = leastSignalOhm
	}
	at := along[len(along)/2]
	return Fault{ID: string(Leak) + " " + at.Component + " " + at.Terminal, Kind: Leak, At: w.ID,
		Says:      "current leaks to steel on the way by " + d.Called(at) + ": damp, or insulation that is worn",
		Endangers: fire, Mend: "the wire dry, sleeved, off the steel; what is worn replaced", Least: least, Most: mostLeakOhm, Unit: "Ω",
		alike: true,
		wrong: func(s *system.System, ohm float64) {
			s.Join(system.Wire{ID: w.ID + " leaks", Role: system.Feed, From: at, To: d.System.Ends.Minus, Ohm: ohm, Name: "a way to steel"})
		}}
}

// bridges are wires that touch what lies beside them: a signal and what the coupling is fed by, or feeds.
func bridges(d *design.Design) (list []Fault) {
	signal := signalAt(d)
	if signal == nil {
		return nil
	}
	for _, other := range []system.Terminal{d.System.Ends.Start, d.System.Ends.Aux} {
		if other.Node() == signal.To.Node() {
			continue
		}
		list = append(list, Fault{ID: string(Bridged) + " " + other.Component + " " + other.Terminal, Kind: Bridged, At: signal.ID,
			Says:      d.NameOf(signal.ID) + " touches what is at " + d.Called(other),
			Endangers: idleWires, Mend: "apart, sleeved, tied down", Least: leastBridgeOhm, Most: mostBridgeOhm, Unit: "Ω", alike: true,
			wrong: func(s *system.System, ohm float64) {
				s.Join(system.Wire{ID: signal.ID + " touches " + other.Component + " " + other.Terminal, Role: system.Feed, From: signal.To,
					To: other, Ohm: ohm, Name: "copper on copper"})
			}})
	}
	return list
}

// signalAt is the wire that ends at the coupling, or at its control, with the word to run; nil where there is none.
func signalAt(d *design.Design) *system.Wire {
	for _, w := range d.System.Wires {
		if w.Role == system.Signal && w.To.Component == "coupling" && w.To.Node() != d.System.Ends.Minus.Node() {
			return &w
		}
	}
	return nil
}

// crossings are two leads that are changed over at the coupling, where that makes a difference.
func crossings(d *design.Design) (list []Fault) {
	c, _ := d.System.Component("coupling")
	switch of := c.Device.(type) {
	case system.Charger:
	case system.Contact:
		if of.Senses == (coupling.Sensing{}) {
			return nil // a coil does not know which side it joins
		}
	default:
		return nil
	}
	in, out := d.System.Ends.Start, d.System.Ends.Aux
	if in.Component != "coupling" || out.Component != "coupling" {
		return nil
	}
	return append(list, Fault{ID: string(Crossed) + " coupling", Kind: Crossed, At: "coupling",
		Says: "the leads at " + d.Called(in) + " and " + d.Called(out) + " are changed over", Mend: "each where its label says",
		wrong: func(s *system.System, _ float64) {
			for i := range s.Wires {
				for _, end := range []*system.Terminal{&s.Wires[i].From, &s.Wires[i].To} {
					switch *end {
					case in:
						*end = out
					case out:
						*end = in
					}
				}
			}
		}})
}

// ofShunt is a lead that goes past the monitor's shunt. No volt and no amp changes with it: it is in what the monitor says.
func ofShunt(d *design.Design) []Fault {
	if _, there := d.System.Component("r1"); !there || !d.Facts.Extras.Monitor {
		return nil
	}
	return []Fault{{ID: string(Uncounted), Kind: Uncounted, At: "r1", Says: "a lead goes past the monitor's shunt: it counts wrong",
		Mend: "every lead but the battery's own on the far side of the shunt; then full, and set"}}
}
