package design

import (
	"epitrope/core/run"
	"epitrope/core/system"
)

// Reach is where a column begins and ends in the circuit: the nodes of its feed, and
// the minus against which they are measured.
type Reach struct {
	Column            string
	InPlus, InMinus   string
	OutPlus, OutMinus string
	Carries           string // the resistance whose current it carries; "" where it is none of one

	// A plug lies somewhere along its cable and stands after it.
	PlugBefore, PlugIn bool
}

// Reaches lists the columns of the run, from the alternator to the aux battery. What
// is lost in the return is lost in the cable that it belongs to.
func (d *Design) Reaches() []Reach {
	point := func(column string, plus, minus system.Terminal) Reach {
		return Reach{Column: column, InPlus: plus.Node(), InMinus: minus.Node(), OutPlus: plus.Node(), OutMinus: minus.Node()}
	}
	ground := term(system.StartEarth, "")
	list := []Reach{point("alternator", d.source(), ground)}
	if !d.Is.OwnMachine {
		machine := term("alternator", "B+")
		list = []Reach{point("alternator", machine, ground), point("lead", machine, ground), point("start", d.source(), ground)}
		list[1].OutPlus, list[1].Carries = d.LeadTo().Node(), "lead"
	}
	minuses := []system.Terminal{ground, ground, term("aux", "31")} // before the first cable, between the two, behind the second
	if d.Kind.Charger() {
		minuses[1] = term("coupling", "31")
	}
	passed := 0
	way := d.System.Way()
	for i, s := range way {
		r := Reach{Column: s.ID, InMinus: minuses[passed].Node(), Carries: s.ID}
		r.InPlus, r.OutPlus = s.From.Node(), s.To.Node()
		if w, ok := s.First(); ok {
			r.InPlus, _ = w.Ends()
		}
		if w, ok := s.Last(); ok {
			_, r.OutPlus = w.Ends()
		}
		switch {
		case s.Component == nil:
			passed++
			r.PlugBefore = i+1 < len(way) && isPlug(way[i+1])
		case isPlug(s):
			r.InPlus, r.OutPlus = list[len(list)-1].OutPlus, list[len(list)-1].OutPlus
			r.PlugIn, r.Carries = true, s.ID+" plus"
		case s.ID == d.System.Ends.Coupling:
			r.Carries = d.Start.ID
			if d.Is.Splits {
				r.InPlus, r.Carries = d.LeadTo().Node(), d.Aux.ID
			}
		}
		r.OutMinus = minuses[passed].Node()
		list = append(list, r)
	}
	return append(list, point("aux", d.System.Ends.Bank, minuses[2]))
}

func isPlug(s system.Station) bool { return s.Component != nil && s.Component.Kind == system.KindPlug }

// Leg is the stretch that a station of the way belongs to.
func (d *Design) Leg(s system.Station) *run.Sized {
	switch s.ID {
	case d.Aux.ID, d.Aux.FuseID:
		return &d.Aux
	case "q1":
		return d.isolatedLeg()
	case "x1":
		if d.Crosses(&d.Aux) {
			return &d.Aux
		}
	}
	return &d.Start
}
