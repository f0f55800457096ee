package section

import (
	"fmt"
	"math"

	"epitrope/core/circuit"
	"epitrope/core/coupling"
	"epitrope/core/design"
	"epitrope/core/working"
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
		p := Volts{Column: r.Column, InV: working.Round(in, 3), OutV: working.Round(to, 3), Carries: "–", Loses: "–"}
		if r.Carries != "" {
			p.Carries = working.Text(amps, "A", 0)
			if r.Column != "coupling" && math.Abs(amps) >= 0.5 {
				p.Loses = fmt.Sprintf("%s, %s", working.Text(in-to, "V", 2), working.Text((in-to)*amps, "W", 0))
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
		carries = working.Text(s.OutA, "A", 0)
		if !s.Joined {
			carries = "open"
		}
		return carries, working.Text(max(0, lost), "W", 0)
	}
	if s.Stopped {
		return "resting", working.Text(max(0, lost), "W", 1)
	}
	return fmt.Sprintf("%s in, %s out", working.Text(s.InA, "", 0), working.Text(s.OutA, "A", 0)), working.Text(max(0, lost), "W", 0)
}

// Joints are the crimped and bolted ends of the run between its columns, with what is
// lost in each at the worst.
func Joints(d *design.Design) []Joint {
	list := []Joint{}
	worst := d.Hardest()
	add := func(wire, end, after, name string) {
		w, ok := d.System.Wire(wire)
		ohm := w.Joint.From
		if end == "to" {
			ohm = w.Joint.To
		}
		if !ok || ohm == 0 {
			return
		}
		amps := circuit.Had(worst.Solved.Through(wire))
		list = append(list, Joint{ID: wire + "." + end, Name: name, After: after, Text: working.Text(amps*ohm*1000, "mV", 0),
			Says: fmt.Sprintf("%s, %s: %s, %s", name, working.Text(ohm*1000, "mΩ", 1), working.Text(amps*ohm*1000, "mV", 0),
				working.Text(amps*amps*ohm, "W", 1))})
	}
	last := func(id string) string {
		if _, ok := d.System.Wire(id + "t"); ok {
			return id + "t"
		}
		return id
	}
	before := func(id string) string { // the column before the coupling or F2
		if d.Facts.Place.Trailer && (id == "c2") == d.AtStart() {
			return "x1"
		}
		return id
	}
	if d.Kind == coupling.SecondAlternator {
		add("c1a", "from", "alternator", "lug on the second alternator")
	} else {
		add("c1a", "from", "start", "lug on the start battery")
	}
	add("c1", "from", "f1", "lug behind F1")
	add(last("c1"), "to", before("c1"), "lug on the coupling")
	add("c2", "from", "coupling", "lug on the coupling, aux side")
	add(last("c2"), "to", before("c2"), "lug before F2")
	add("c2c", "to", "f2", "lug on the aux battery")
	return list
}
