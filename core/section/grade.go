package section

import (
	"fmt"
	"math"
	"strings"

	"epitrope/core/circuit"
	"epitrope/core/design"
	"epitrope/core/system"
	"epitrope/core/unit"
)

// points are the volts across both conductors, the current and what is lost at every
// column in a state. A plug lies somewhere along its cable; its column stands after it.
func points(d *design.Design, s design.State) []Volts {
	if s.Solved.Volts == nil {
		return []Volts{}
	}
	reaches := d.Reaches()
	out := make([]Volts, len(reaches))
	plug := (circuit.Had(s.Solved.Through("x1 plus")) + circuit.Had(s.Solved.Through("x1 minus"))) * d.PlugCard.Ohm
	for i, r := range reaches {
		in, to := s.Across(r.InPlus, r.InMinus), s.Across(r.OutPlus, r.OutMinus)
		if r.PlugBefore {
			to += plug
		}
		if r.PlugIn {
			in += plug
		}
		amps := circuit.Had(s.Solved.Through(r.Carries))
		p := Volts{Column: r.Column, InV: unit.Round(in, 3), OutV: unit.Round(to, 3), Carries: "–", Loses: "–"}
		if r.Carries != "" {
			p.Carries = unit.Text(amps, "A", 0)
			if r.Column != "coupling" && math.Abs(amps) >= 0.5 {
				p.Loses = fmt.Sprintf("%s, %s", unit.Text(in-to, "V", 2), unit.Text((in-to)*amps, "W", 0))
			}
		}
		if r.Column == "coupling" {
			p.Carries, p.Loses = couplingAtState(d, s, in, to)
		}
		out[i] = p
	}
	return out
}

// couplingAtState is what the coupling carries and loses in a state, as shown.
func couplingAtState(d *design.Design, s design.State, in, out float64) (carries, loses string) {
	lost := s.InA*in - s.OutA*out
	if !d.Kind.Charger() {
		carries = unit.Text(s.OutA, "A", 0)
		if !s.Joined {
			carries = "open"
		}
		return carries, unit.Text(max(0, lost), "W", 0)
	}
	if s.Stopped {
		return "resting", unit.Text(max(0, lost), "W", 1)
	}
	return fmt.Sprintf("%s in, %s out", unit.Text(s.InA, "", 0), unit.Text(s.OutA, "A", 0)), unit.Text(max(0, lost), "W", 0)
}

// Joints are the crimped and bolted ends of the run between its columns, with what is
// lost in each at the worst.
func Joints(d *design.Design) []Joint {
	list := []Joint{}
	worst := d.Hardest()
	add := func(w system.Wire, end string, ohm float64, after, name string) {
		if ohm == 0 {
			return
		}
		amps := math.Abs(circuit.Had(worst.Solved.Through(w.ID)))
		list = append(list, Joint{ID: w.ID + "." + end, Row: "joints." + w.ID + end, Name: name, After: after,
			Text: unit.Text(amps*ohm*1000, "mV", 0),
			Says: fmt.Sprintf("%s, %s: %s, %s", name, unit.Text(ohm*1000, "mΩ", 1), unit.Text(amps*ohm*1000, "mV", 0),
				unit.Text(amps*amps*ohm, "W", 1))})
	}
	before, lug := "start", "lug on the start battery"
	if d.Is.OwnMachine {
		before, lug = "alternator", "lug on the second alternator"
	}
	way := d.System.Way()
	for i, s := range way {
		if w, ok := s.First(); ok {
			add(w, "from", w.Joint.From, before, lug)
		}
		before, lug = s.ID, behind(d, s)
		if i+1 < len(way) && way[i+1].Component != nil && way[i+1].Component.Kind == system.KindPlug {
			before = way[i+1].ID // a plug stands after its cable
		}
		if w, ok := s.Last(); ok {
			add(w, "to", w.Joint.To, before, ahead(d, way[i+1:]))
		}
	}
	return list
}

// behind is the lug on the back of a station.
func behind(d *design.Design, s system.Station) string {
	if s.ID == d.System.Ends.Coupling {
		return "lug on the coupling, aux side"
	}
	return "lug behind " + strings.ToUpper(s.ID)
}

// ahead is the lug on the front of the next component; behind all, that on the aux battery.
func ahead(d *design.Design, rest []system.Station) string {
	for _, s := range rest {
		switch {
		case s.Component == nil || s.Component.Kind == system.KindPlug:
			continue
		case s.ID == d.System.Ends.Coupling:
			return "lug on the coupling"
		}
		return "lug before " + s.Component.Name
	}
	return "lug on the aux battery"
}
