package prove

import (
	"strings"

	"epitrope/core/design"
	"epitrope/core/fault"
	"epitrope/core/system"
	"epitrope/core/unit"
)

// Loaded is parked, with loads on both batteries for a minute.
const Loaded = "loaded"

// loadA is what is switched on at each battery then, at 12 V. Source: from memory; headlights take about so much.
const loadA = 10.0

// warmly ends the id of a reading that is taken again once all is warm.
const warmly = "-warm"

// Places that are moved by hand together, while somebody watches the current.
const (
	BeforeCoupling = "lost-start"
	BehindCoupling = "lost-aux"
	WayBack        = "lost-back"
	AtCoupling     = "coupling"
	OfSignal       = "signal"
)

// loaded is the station at which both batteries have something to do.
func loaded() Station {
	return Station{ID: Loaded, Name: "Loads on, engine stopped", Setup: []string{"engine stopped, key out",
		unit.Say("headlights on; about %s on at the aux battery", unit.Plain(loadA, "A", 0)), "a minute like that",
		"panels covered, mains unplugged"},
		state: func(d *design.Design) design.State {
			s := silent(d.StateAt("", design.KeyOut))
			s.VehicleA, s.HouseA = s.VehicleA+loadA*d.Facts.N, loadA*d.Facts.AuxN
			return s
		}}
}

// acts are what is read while something is done: leads moved, loads on, all warm.
func acts(d *design.Design, s Station) []Reading {
	b := &lister{d: d, station: s.ID, behind: wayBack(&d.System)}
	switch s.ID {
	case Loaded:
		b.volts("start-loaded", "Start battery, loaded", term("start", "30"), term("start", "31"))
		b.volts("aux-loaded", "Aux battery, loaded", term("aux", "30"), term("aux", "31"))
	case Warm:
		b.warm()
		for _, at := range stationed(d, FastIdle) {
			if at.Unit != Seen {
				at.ID, at.What = at.ID+warmly, at.What+", all warm"
				b.add(at)
			}
		}
	case FastIdle:
		for _, place := range []struct{ id, what string }{
			{BeforeCoupling, unit.Say("everything from the %s to the coupling", b.source())},
			{BehindCoupling, "everything from the coupling to the aux battery"},
			{WayBack, "everything on the way back"}, {AtCoupling, "the coupling itself"},
			{OfSignal, "the coupling's signal and ground"}} {
			if place.id == OfSignal && !d.Wired() {
				continue
			}
			b.moved(place.id, place.what)
		}
		for _, c := range d.System.Components {
			if movable(c.Kind) {
				b.moved(c.ID, unit.Say("%s, and every end there,", c.Name))
			}
		}
	}
	for i := range b.list {
		b.list[i].Extra = true
	}
	return b.list
}

// moved is the current into the aux battery while something is moved.
func (b *lister) moved(place, what string) {
	b.current("moved-"+place, unit.Say("Current into the aux battery while %s is moved by hand", what))
	b.list[len(b.list)-1].Moved = place
}

// movable says whether a hand moves what is at a component by itself.
func movable(k system.ComponentKind) bool {
	switch k {
	case system.KindFuse, system.KindPlug, system.KindSwitch, system.KindShunt, system.KindEarth, system.KindDisconnect,
		system.KindFeedPoint:
		return true
	}
	return false
}

// stationed are the readings of a proof at a station.
func stationed(d *design.Design, station string) []Reading {
	for _, s := range stations(d, design.FastIdleRPM) {
		if s.ID == station {
			return readings(d, s)
		}
	}
	return nil
}

// MovedWith are the places that a fault at a component or wire is moved with: the stretch, and what is by itself there; none where a
// hand moves nothing.
func (p *Proof) MovedWith(f fault.Fault) (places []string) {
	if of := p.stretchOf(f.At); of != "" {
		places = append(places, of)
	}
	for _, id := range []string{f.At, f.End} {
		if c, there := p.d.System.Component(id); there && movable(c.Kind) {
			places = append(places, id)
		}
	}
	return places
}

// stretchOf is the stretch that a component or wire lies in; "" where a hand moves nothing.
func (p *Proof) stretchOf(at string) string {
	b := &lister{d: p.d, behind: wayBack(&p.d.System)}
	if w, is := p.d.System.Wire(at); is {
		if of := b.stretch(w); of != "" {
			return of
		}
		if w.Role == system.Signal || w.From.Component == AtCoupling || w.To.Component == AtCoupling {
			return OfSignal
		}
		return ""
	}
	switch of := b.stretchAt(at); {
	case at == "start" || at == "aux" || at == "alternator":
		return ""
	case at == AtCoupling:
		return AtCoupling
	case of != "":
		return of
	case b.behind[at]:
		return WayBack
	}
	return OfSignal
}

// whileRunning says whether a reading stands only where the installation comes to rest with the engine held.
func (r Reading) whileRunning() bool { return r.Station == FastIdle || r.Extra && r.Station == Warm }

// IsWarm says whether a reading is taken once all is warm.
func (r Reading) IsWarm() bool { return r.Station == Warm || r.Station == Full }

// Cold is the id of the reading that is the same before all is warm.
func (r Reading) Cold() string { return strings.TrimSuffix(r.ID, warmly) }
