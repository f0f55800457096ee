package fault

import (
	"slices"

	"epitrope/core/design"
	"epitrope/core/system"
)

// Sizes that a fault may have: from what costs something to what stops everything, in mΩ. Source: from memory, as are the
// shares and volts of the faults below: a lug under paint or a loose nut has some milliohms to ohms.
const (
	leastMO = 5.0
	mostMO  = 2000.0
)

// dangers of what may be wrong.
const (
	fire      = "a joint that resists gets hot where nobody sees it: fire"
	flat      = "the start battery empties with the vehicle parked"
	joined    = "both batteries are one with nobody there: they empty together, and its fuses do not part them"
	blast     = "a battery with its plus and minus changed over shorts through every device: fire, and a burst battery"
	idleWires = "wires that are thought dead are live"
)

// ofComponent are the faults of a component, by its device.
func ofComponent(d *design.Design, c system.Component) (list []Fault) {
	add := func(f Fault) {
		f.ID, f.At = string(f.Kind)+" "+c.ID, c.ID
		list = append(list, f)
	}
	switch of := c.Device.(type) {
	case system.Fuse:
		add(Fault{Kind: Blown, Says: c.Name + " is blown, or not in", Mend: "find what blew the fuse before the next fuse goes in",
			ohms: device(c.ID, func(f *system.Fuse, _ float64) { f.Ohm = openOhm })})
		add(Fault{Kind: Joint, Says: c.Name + " sits badly in its holder", Endangers: fire, Mend: "bright contacts, the right torque",
			Least: leastMO, Most: mostMO, Unit: "mΩ", ohms: device(c.ID, func(f *system.Fuse, mo float64) { f.Ohm += mo / 1000 })})
	case system.Contact:
		list = append(list, ofContact(c, of)...)
	case system.Charger:
		add(Fault{Kind: Dead, Says: c.Name + " does nothing",
			Mend:  "its manual's own test, with input and signal there; else another charger",
			wrong: device(c.ID, func(f *system.Charger, _ float64) { f.RestartV, f.Card.CutOutV, f.Card.RestartV = 99*d.Facts.N, 99, 99 })})
		add(Fault{Kind: Weak, Says: c.Name + " gives a part of what it should", Mend: "a cooler place, or another charger", Least: 0.15,
			Most:  0.8,
			wrong: device(c.ID, func(f *system.Charger, share float64) { f.Card.OutputA *= share })})
		add(Fault{Kind: Profile, Says: c.Name + " is set for another battery", Endangers: "a battery that is charged too high " +
			"gasses, or is harmed",
			Mend: "set the charger for this battery, and measure its configuration leads", Least: 0.3, Most: 0.9, Unit: "V",
			wrong: device(c.ID, func(f *system.Charger, volts float64) { f.OutV += volts * d.Facts.AuxN })})
	case system.FeedPoint:
		for _, f := range ofFeed(c.ID, of) {
			add(f)
		}
	case system.Plug:
		add(Fault{Kind: Half, Says: c.Name + " is not quite in, or its contacts are burnt", Endangers: fire, Mend: "in to its " +
			"catch; bright contacts",
			Least: leastMO, Most: mostMO, Unit: "mΩ", ohms: device(c.ID, func(f *system.Plug, mo float64) { f.Card.Ohm += mo / 1000 })})
	case system.Outlet:
		add(Fault{Kind: Outlet, Says: c.Name + " gives nothing: what the maker has before it has failed",
			Mend: "its maker's fuse and block; " +
				"until then a relay of its own past it, tagged",
			wrong: device(c.ID, func(o *system.Outlet, _ float64) { o.Ohm = openOhm })})
	case system.Link:
		add(Fault{Kind: Joint, Says: c.Name + " resists: its contact, or its nuts", Endangers: fire,
			Mend:  "bright metal, the right torque; else another part",
			Least: leastMO, Most: mostMO, Unit: "mΩ", ohms: device(c.ID, func(l *system.Link, mo float64) { l.Ohm += mo / 1000 })})
		if !of.ByHand {
			add(Fault{Kind: Stuck, Says: c.Name + " is open", Mend: "what works it, then its contact",
				wrong: device(c.ID, func(l *system.Link, _ float64) { l.Ohm = openOhm })})
		}
	case system.Control:
		add(Fault{Kind: Stuck, Says: "the contact of " + c.Name + " does not close", Mend: "another relay",
			wrong: device(c.ID, func(k *system.Control, _ float64) { k.Throws = without(k.Throws) })})
	case system.Bank:
		add(Fault{Kind: Swapped, Says: "plus and minus of the " + c.Name + " are changed over", Endangers: blast,
			Mend: "before any fuse goes in: leads on the right posts", wrong: swap(c.ID)})
	}
	return list
}

// ofFeed are the faults of what a signal is taken from: it is live when it should not be, or dead.
func ofFeed(id string, of system.FeedPoint) (list []Fault) {
	put := func(f Fault, running bool, keys ...system.Key) {
		other := func(k system.Key) bool { return !slices.Contains(of.Keys, k) }
		if of.Running == running && len(of.Keys) == len(keys) && !slices.ContainsFunc(keys, other) {
			return // it is so as it was planned
		}
		f.wrong = device(id, func(f *system.FeedPoint, _ float64) { f.Keys, f.Running = keys, running })
		list = append(list, f)
	}
	put(Fault{Kind: Always, Says: "the signal is taken from a circuit that is live with the key out", Endangers: flat,
		Mend: "another feed point, dead with the key out and asleep"},
		true, system.KeyOff, system.KeyAccessory, system.KeyOn, system.KeyStart)
	put(Fault{Kind: Early, Says: "the signal is live with the key on and the engine stopped",
		Mend: "a feed point that is live while the engine runs"}, true, system.KeyAccessory, system.KeyOn, system.KeyStart)
	put(Fault{Kind: Never, Says: "the circuit that the signal is taken from is dead with the engine running",
		Mend: "another feed point"}, false)
	return list
}

// ofContact are the faults of a contact.
func ofContact(c system.Component, of system.Contact) (list []Fault) {
	add := func(f Fault) {
		f.ID, f.At = string(f.Kind)+" "+c.ID, c.ID
		list = append(list, f)
	}
	add(Fault{Kind: Stuck, Says: c.Name + " does not close", Mend: "another relay: a click is no proof",
		wrong: device(c.ID, func(f *system.Contact, _ float64) { f.Ohm = openOhm })})
	add(Fault{Kind: Burnt, Says: "the contact of " + c.Name + " is burnt", Endangers: fire,
		Mend:  "another relay, and find what burnt the contact",
		Least: leastMO, Most: mostMO, Unit: "mΩ", wrong: device(c.ID, func(f *system.Contact, mo float64) { f.Ohm += mo / 1000 })})
	if of.CoilOhm > 0 {
		add(Fault{Kind: Coil, Says: "the coil of " + c.Name + " is open", Mend: "some ohms from 86 to 85, not a beep; else another relay",
			wrong: device(c.ID, func(f *system.Contact, _ float64) { f.CoilOhm = openOhm })})
	}
	if !of.Ahead && !of.Locks {
		add(Fault{Kind: Welded, Says: c.Name + " is welded: its contact does not open", Endangers: joined,
			Mend: "another relay, and find what welded the contact",
			wrong: past(c.ID, system.Terminal{Component: c.ID, Terminal: of.From}, system.Terminal{Component: c.ID, Terminal: of.To},
				of.Ohm)})
	}
	return list
}

// ofWire are the faults of a wire and of its two ends.
func ofWire(d *design.Design, w system.Wire) (list []Fault) {
	add := func(f Fault, end string) {
		f.ID, f.At = string(f.Kind)+" "+w.ID+end, w.ID
		list = append(list, f)
	}
	if w.Role == system.Chassis {
		add(Fault{Kind: Steel, Says: "the body's way back resists: rubber, paint, glue", Endangers: fire,
			Mend:  "a bonding lead to the chassis",
			Least: leastMO, Most: mostMO, Unit: "mΩ", ohms: wire(w.ID, func(w *system.Wire, mo float64) { w.Ohm += mo / 1000 })}, "")
		return list
	}
	add(Fault{Kind: Open, Says: d.NameOf(w.ID) + " is off, broken, or taped off and forgotten",
		Mend: "follow the wire end to end; put it " +
			"back where it belongs",
		ohms: wire(w.ID, func(w *system.Wire, _ float64) { w.Ohm = openOhm })}, "")
	if f, is := chafed(d, w); is {
		list = append(list, f)
	}
	ends := map[string]struct {
		at system.Terminal
		of func(*system.Wire) *float64
	}{
		"from": {w.From, func(w *system.Wire) *float64 { return &w.Joint.From }}, "to": {w.To,
			func(w *system.Wire) *float64 { return &w.Joint.To }}}
	danger := ""
	if w.Role != system.Signal {
		danger = fire
	}
	for _, end := range []string{"from", "to"} {
		e := ends[end]
		add(Fault{Kind: Joint, Says: "the end of " + d.NameOf(w.ID) + " at " + d.Called(e.at) + " is loose, corroded or on paint",
			Endangers: danger,
			End:       e.at.Component,
			Mend:      "bright metal, no washer between, the right torque; the crimp again where it moves", Least: leastMO, Most: mostMO,
			Unit: "mΩ",
			ohms: wire(w.ID, func(w *system.Wire, mo float64) { *e.of(w) += mo / 1000 })}, " "+end)
	}
	return list
}

// ofRuns are the faults of what lies between the batteries as a whole.
func ofRuns(d *design.Design) (list []Fault) {
	for _, r := range []string{"c1", "c2", "n1", "n2"} {
		of, there := d.System.Wire(r)
		if !there {
			continue
		}
		list = append(list, Fault{ID: string(Thin) + " " + r, Kind: Thin, At: r, Says: d.NameOf(of.ID) + " is thinner than planned",
			Endangers: "its fuse may not save it", Mend: "the size that was planned: read it off the cable, mm is not mm²", Least: 1.6,
			Most: 6,
			ohms: wire(r, func(w *system.Wire, times float64) { w.Ohm *= times })})
	}
	source, bank := system.Terminal{Component: "start", Terminal: "30"}, system.Terminal{Component: "aux", Terminal: "30"}
	if d.Facts.N == d.Facts.AuxN {
		list = append(list, Fault{ID: string(Bypassed), Kind: Bypassed, At: "coupling",
			Says:      "a cable joins the batteries past the coupling",
			Endangers: joined + "; " + idleWires, Mend: "find that lead, take both its ends off", wrong: past("bypass", source, bank,
				0.01)})
	}
	return list
}

// past puts a way from one terminal to another in, past whatever lies between.
func past(id string, from, to system.Terminal, ohm float64) func(*system.System, float64) {
	return func(s *system.System, _ float64) {
		s.Join(system.Wire{ID: id + " past", Role: system.Feed, From: from, To: to, Ohm: ohm, Name: "a way past"})
	}
}

// without are a control's contacts that never pass.
func without(throws []system.Throw) (list []system.Throw) {
	for _, t := range throws {
		t.At = nil
		list = append(list, t)
	}
	return list
}

// swap changes the leads of a battery's posts over.
func swap(id string) func(*system.System, float64) {
	over := map[string]string{"30": "31", "31": "30"}
	turn := func(t *system.Terminal) {
		if t.Component == id {
			t.Terminal = over[t.Terminal]
		}
	}
	return func(s *system.System, _ float64) {
		for i := range s.Wires {
			turn(&s.Wires[i].From)
			turn(&s.Wires[i].To)
		}
	}
}
