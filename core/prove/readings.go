package prove

import (
	"strings"

	"epitrope/core/design"
	"epitrope/core/feed"
	"epitrope/core/system"
	"epitrope/core/unit"
)

// Ranges of a common meter.
const (
	tens     = "20 V"
	more     = "60 V or 200 V" // of 24 V systems
	small    = "2 V"
	clampAmp = "clamp, direct current, zeroed"
)

// readings are what is read at a station, by what the installation is made of.
func readings(d *design.Design, s Station) []Reading {
	b := &lister{d: d, station: s.ID, behind: wayBack(&d.System)}
	switch s.ID {
	case FusesOut:
		b.volts("start-rest", "Start battery at rest", term("start", "30"), term("start", "31"))
		b.volts("aux-rest", "Aux battery at rest", term("aux", "30"), term("aux", "31"))
		b.back()
		b.polarity()
	case Socket:
		b.socket()
	case KeyOut:
		b.signal("signal-out", "Signal with the key just out", design.KeyOut)
		b.leads()
	case Asleep:
		b.signal("signal-asleep", "Signal with the vehicle asleep", design.KeyOut)
		b.post("apart", "Into or out of the aux battery")
	case Accessory:
		b.signal("signal-accessory", "Signal at accessory", design.Accessory)
	case Ignition:
		b.signal("signal-on", "Signal with the key on", design.Ignition)
	case FastIdle:
		b.volts("start-running", "Start battery, engine on", term("start", "30"), term("start", "31"))
		b.signal("signal-running", "Signal with the engine running", design.Driving)
		b.engages()
		b.current("charge", "Current into the aux battery")
		b.volts("input", "Coupling's input", b.in(), b.minus())
		b.volts("aux-charge", "Aux battery, charging", term("aux", "30"), term("aux", "31"))
		b.drop("lost-start", unit.Say("Lost on the plus side, %s to coupling", b.source()), d.System.Ends.Source, b.in())
		b.drop("lost-aux", "Lost on the plus side, coupling to aux battery", b.out(), term("aux", "30"))
		b.drop("lost-back", "Lost on the way back, aux battery to start battery", term("aux", "31"), term("start", "31"))
		b.pieces()
	case Warm:
		b.warmest()
	case Full:
		b.profile()
	case Stopped:
		b.letsGo()
		b.opens()
		b.post("apart-again", "Into or out of the aux battery, after the engine")
	case Held:
		b.current("joined", "Between the batteries, joined by hand")
	case Released:
		b.post("apart-released", "Into or out of the aux battery, let go")
	case Parted:
		b.isolators()
	}
	return b.list
}

type lister struct {
	d       *design.Design
	station string
	behind  map[string]bool // wires of the way back
	list    []Reading
}

func term(component, terminal string) system.Terminal {
	return system.Terminal{Component: component, Terminal: terminal}
}

func (b *lister) probe(t system.Terminal) Probe { return Probe{t, b.d.Called(t)} }

func (b *lister) add(r Reading) {
	r.Station = b.station
	b.list = append(b.list, r)
}

func (b *lister) volts(id, what string, red, black system.Terminal) {
	b.add(Reading{ID: id, What: what, Unit: Volts, Red: b.probe(red), Black: b.probe(black), Range: b.meter()})
}

// meter is the range that a battery's volts are read at.
func (b *lister) meter() string {
	if max(b.d.Facts.N, b.d.Facts.AuxN) > 1 {
		return more
	}
	return tens
}

func (b *lister) drop(id, what string, red, black system.Terminal) {
	if red == black {
		return
	}
	b.add(Reading{ID: id, What: what, Unit: Volts, Red: b.probe(red), Black: b.probe(black), Range: small, Drop: true})
}

// current is read at the wire that ends at the aux battery's plus.
func (b *lister) current(id, what string) {
	for _, w := range b.d.System.Wires {
		if w.Role == system.Feed && (w.To == term("aux", "30") || w.From == term("aux", "30")) {
			with := clampAmp
			if e := b.d.Facts.Extras; e.Monitor {
				with += unit.Say("; or the monitor, or its shunt: %s at %s", unit.Text(e.ShuntMV.Value, "mV", 0), unit.Text(e.ShuntA.Value, "A",
					0))
			}
			b.add(Reading{ID: id, What: what, Unit: Amps, Clamp: w.ID, Range: with})
			return
		}
	}
}

// pieces are each joint, fuse and plug of the stretches.
func (b *lister) pieces() {
	for _, w := range b.d.System.Wires {
		of := b.stretch(w)
		if of == "" {
			continue
		}
		from, to := w.Ends()
		for _, end := range []struct {
			id, node string
			at       system.Terminal
			ohm      float64
		}{{"from", from, w.From, w.Joint.From}, {"to", to, w.To, w.Joint.To}} {
			if end.ohm > 0 {
				post, barrel := b.probe(end.at), Probe{system.Terminal{Component: end.node}, unit.Say("barrel of %s", w.Name)}
				what := unit.Say("End of %s at %s", w.Name, b.d.Called(end.at))
				if w.Role == system.Chassis {
					barrel.Name, what = "bare body beside it", unit.Say("Earth point %s", b.d.Called(end.at))
				}
				if end.id == "to" {
					post, barrel = barrel, post
				}
				b.piece(of, "end-"+w.ID+"-"+end.id, what, post, barrel)
			}
		}
		if w.Role == system.Chassis {
			b.piece(of, "steel-"+w.ID, unit.Say("The body, %s to %s", b.d.Called(w.From), b.d.Called(w.To)), b.probe(w.From), b.probe(w.To))
		}
	}
	for _, c := range b.d.System.Components {
		for _, pair := range pairs(c) {
			if of := b.stretchAt(c.ID); of != "" {
				b.piece(of, "across-"+c.ID+"-"+pair[1], unit.Say("Across %s", c.Name), b.probe(term(c.ID, pair[0])), b.probe(term(c.ID,
					pair[1])))
			}
		}
	}
}

// pairs are the terminals that a stretch's current passes a component between.
func pairs(c system.Component) [][2]string {
	switch d := c.Device.(type) {
	case system.Fuse:
		return [][2]string{{"in", "out"}}
	case system.Plug:
		if d.Minus {
			return [][2]string{{"+", "+t"}, {"-", "-t"}}
		}
		return [][2]string{{"+", "+t"}}
	}
	return nil
}

// stretch is the reading of the stretch that a wire lies in; "" for none.
func (b *lister) stretch(w system.Wire) string {
	switch {
	case w.Role == system.Return || w.Role == system.Chassis:
		if b.behind[w.ID] {
			return "lost-back"
		}
		return ""
	case w.Role != system.Feed:
		return ""
	case w.Run == b.d.Start.ID:
		return "lost-start"
	case w.Run == b.d.Aux.ID:
		return "lost-aux"
	}
	return ""
}

// stretchAt is that of a component, by the wires that end at it.
func (b *lister) stretchAt(id string) string {
	for _, w := range b.d.System.Wires {
		if of := b.stretch(w); of != "" && w.Role == system.Feed && (w.From.Component == id || w.To.Component == id) {
			return of
		}
	}
	return ""
}

func (b *lister) piece(of, id, what string, red, black Probe) {
	b.add(Reading{ID: id, What: what, Unit: Volts, Red: red, Black: black, Range: small, Drop: true, Of: of})
}

// post is the current of the aux battery itself: of every lead on its plus together, so that a way past the run counts too.
func (b *lister) post(id, what string) {
	b.add(Reading{ID: id, What: what, Unit: Amps, Clamp: AtPost, Range: clampAmp})
}

// AtPost is a clamp round every lead at the aux battery's plus.
const AtPost = "aux battery"

// in and out are the coupling's power terminals, minus what its input is measured against.
func (b *lister) in() system.Terminal { return b.d.System.Ends.Start }

func (b *lister) out() system.Terminal { return b.d.System.Ends.Aux }

// source is what feeds the run, in a sentence's words.
func (b *lister) source() string {
	c, _ := b.d.System.Component(b.d.System.Ends.Source.Component)
	return strings.ToLower(c.Name)
}

func (b *lister) minus() system.Terminal {
	for _, w := range b.d.System.Wires {
		if w.From == term("coupling", "31") || w.To == term("coupling", "31") {
			return term("coupling", "31")
		}
	}
	return term("start", "31")
}

// signal is read where it works: at a charger's input, or across a coil.
func (b *lister) signal(id, what string, k design.KeyState) {
	if !b.d.Wired() {
		return
	}
	red, black := term("coupling", "15"), term("coupling", "31")
	for _, c := range b.d.System.Components {
		if contact, is := c.Device.(system.Contact); is && contact.CoilOhm > 0 && (contact.Ahead || b.d.Kind.Coil()) && !contact.Locks {
			red, black = contact.CoilPlus, contact.CoilMinus
		}
	}
	b.volts(id, what, red, black)
	b.list[len(b.list)-1].Untested = b.d.FeedIs(k) == feed.Untested
}

// polarity is read at each fuse that a battery feeds, at its battery's side, the fuse out.
func (b *lister) polarity() {
	for _, c := range b.d.System.Components {
		if _, is := c.Device.(system.Fuse); !is {
			continue
		}
		for _, side := range []string{"in", "out"} {
			if !b.fed(c.ID, side) {
				continue
			}
			b.volts("holder-"+c.ID, unit.Say("Holder of %s, battery's side", c.Name), term(c.ID, side), term("start", "31"))
		}
	}
}
