package prove

import (
	"math"

	"epitrope/core/circuit"
	"epitrope/core/system"
	"epitrope/core/unit"
)

// openOhm is from where a way is open: what a meter shows as over its range.
const openOhm = 1e5

// lampsA is what headlights take, which speed a relay up. Source: from memory.
const lampsA = 10.0

// back is whether the way back is one: a common meter's ohms say no more.
func (b *lister) back() {
	aux, start := term("aux", "31"), term("start", "31")
	b.add(Reading{ID: "back-ohm", What: "Way back from the aux battery to the start battery", Unit: Ohms, Red: b.probe(aux),
		Black: b.probe(start), Range: "200 Ω, what its own leads show taken off", figure: backOhm})
}

// backOhm is what the wires of the way back resist, end to end, with what they pass.
func backOhm(_ *Proof, at Moment) (ohm float64, never bool) {
	way := wayBack(at.Sys)
	if len(way) == 0 {
		return openOhm, false
	}
	for _, w := range at.Sys.Wires {
		if way[w.ID] {
			ohm += w.Ohm + w.Joint.From + w.Joint.To
		}
	}
	for _, c := range at.Sys.Components {
		switch of := c.Device.(type) {
		case system.Link:
			if way[c.ID] {
				ohm += of.Ohm
			}
		case system.Plug:
			if way[c.ID] {
				ohm += of.Card.Ohm
			}
		}
	}
	return min(openOhm, ohm), false
}

// letsGo is at what volts of the start battery a relay that senses opens.
func (b *lister) letsGo() {
	if _, senses := b.d.System.Sensing(); !senses || !b.d.Facts.Chemistry.Lead {
		return // a lithium battery holds it closed
	}
	b.volts("lets-go", "Start battery as the relay lets go", term("start", "30"), term("start", "31"))
	b.list[len(b.list)-1].figure = letsGo
}

// letsGo is the cut-out with what is lost from the start battery to the relay, headlights on. A relay that is held closed by
// whatever else joins its two sides never does.
func letsGo(_ *Proof, at Moment) (volts float64, never bool) {
	c, _ := at.Sys.Sensing()
	of, _ := c.Device.(system.Contact)
	laid, cutOut := at.Laid, of.Senses.CutOutV*at.N
	s := at.State
	s.SetV, s.VehicleA = 0, s.VehicleA+lampsA
	s.StartV, s.AuxOwnV = cutOut, cutOut
	joined, err := laid.Solve(s, circuit.Position{Joined: true, Stopped: true})
	if err != nil {
		return 0, true
	}
	seen := circuit.Had(joined.Across(c.ID+".30", c.ID+".31"))
	volts = cutOut + circuit.Had(joined.Across(term("start", "30").Node(), term("start", "31").Node())) - seen
	s.StartV, s.AuxOwnV = cutOut-at.N, cutOut-at.N
	after, err := laid.Settle(s, circuit.Position{Joined: true, Stopped: true})
	if err != nil {
		return volts, true
	}
	return volts, math.Abs(circuit.Had(after.Solution.Through(AtPost))) > lampsA/10
}

// Of joints that carry current for half an hour. A sound one is hardly warmer than its cable, which takes its heat away. Source:
// from memory.
const (
	jointKPerW = 4.0
	jointKnown = 0.5 // of a rise: it is off by e to this, one time in three by more
)

// warmest is how much warmer than its cable the warmest joint is.
func (b *lister) warmest() {
	b.add(Reading{ID: "warmest", What: "The warmest bolted joint, over the cable beside it", Unit: Kelvin,
		Range: "thermometer or the back of a hand", figure: warmest})
}

func warmest(p *Proof, at Moment) (k float64, never bool) {
	for _, w := range at.Sys.Wires {
		if w.Role == system.Feed || w.Role == system.Return {
			k = max(k, p.warmer(at, w.ID))
		}
	}
	return min(k, mostK), false
}

// profile is what a charger holds once the battery is full.
func (b *lister) profile() {
	if b.d.Kind.Charger() {
		b.volts("profile", "Aux battery, full: the profile reached", term("aux", "30"), term("aux", "31"))
	}
}

// socket is the polarity at a plug, at the half that a battery feeds.
func (b *lister) socket() {
	for _, c := range b.d.System.Components {
		plug, is := c.Device.(system.Plug)
		if !is || plug.Behind == "" {
			continue
		}
		plus, minus := "+", "-"
		if !b.feeds(term(c.ID, plus), true) {
			plus, minus = "+t", "-t"
		}
		if !b.feeds(term(c.ID, plus), true) {
			continue
		}
		black := term("start", "31")
		if plug.Minus {
			black = term(c.ID, minus)
		} else if plus == "+t" {
			black = term("aux", "31")
		}
		b.volts("socket-"+c.ID, unit.Say("Polarity at %s, before it is plugged in", c.Name), term(c.ID, plus), black)
	}
}

// errorOf is how far what is derived may be off, as one time in three it is further. Source: from memory.
func (r Reading) errorOf(value float64) (e float64, is bool) {
	switch r.Unit {
	case Ohms:
		return 0.02*math.Min(math.Abs(value), 200) + 0.15, true // a common meter's leads and contacts
	case Kelvin:
		return jointKnown*math.Abs(value) + 2, true
	}
	return 0, false
}
