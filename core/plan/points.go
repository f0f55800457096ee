package plan

import (
	"fmt"
	"math"

	"epitrope/core/coupling"
	"epitrope/core/job"
	"epitrope/core/system"
	"epitrope/core/working"
)

// reach is where a column begins and ends in the circuit: the nodes of its feed, and
// the minus against which they are measured.
type reach struct {
	column             string
	inPlus, inMinus    string
	outPlus, outMinus  string
	carries            string // the resistance whose current it carries; "" where it is none of one
	plugBefore, plugIn bool
}

// reaches lists the columns of the run, from the alternator to the aux battery. What
// is lost in the return is lost in the cable that it belongs to.
func (d *design) reaches() []reach {
	ends := func(id string) (from, to string) {
		w, _ := d.system.Wire(id)
		return w.Ends()
	}
	c1aFrom, _ := ends("c1a")
	c1From, _ := ends("c1")
	c2From, _ := ends("c2")
	_, c2cTo := ends("c2c")
	last := func(id string) string {
		if _, ok := d.system.Wire(id + "t"); ok {
			id += "t"
		}
		_, to := ends(id)
		return to
	}
	mid := "0"
	if d.kind.Charger() {
		mid = "coupling.31"
	}
	first, second := d.crosses(&d.start), d.crosses(&d.aux)
	list := []reach{
		{column: "alternator", inPlus: "alternator.B+", outPlus: "alternator.B+"},
		{column: "lead", inPlus: "alternator.B+", outPlus: "start.30", carries: "lead"},
		{column: "start", inPlus: "start.30", outPlus: "start.30"},
	}
	if d.kind == coupling.SecondAlternator {
		list = []reach{{column: "alternator", inPlus: "second.B+", outPlus: "second.B+"}}
	}
	isolator := func(from string, minus string) reach {
		return reach{column: "q1", inPlus: from, inMinus: minus, outPlus: "q1.2", outMinus: minus, carries: "q1"}
	}
	where := d.facts.Extras.Isolator
	list = append(list, reach{column: "f1", inPlus: c1aFrom, outPlus: "f1.out", carries: "f1"})
	if where == job.FrontIsolator {
		list = append(list, isolator("f1.out", ""))
	}
	list = append(list, []reach{
		{column: "c1", inPlus: c1From, outPlus: last("c1"), outMinus: mid, carries: "c1", plugBefore: first},
	}...)
	if first {
		list = append(list, reach{column: "x1", inPlus: last("c1"), inMinus: mid, outPlus: last("c1"), outMinus: mid, carries: "x1 plus", plugIn: true})
	}
	list = append(list,
		reach{column: "coupling", inPlus: d.arrives().Node(), inMinus: mid, outPlus: d.leaves().Node(), outMinus: mid, carries: "c1"},
		reach{column: "c2", inPlus: c2From, inMinus: mid, outPlus: last("c2"), outMinus: "aux.31", carries: "c2", plugBefore: second})
	if second {
		list = append(list, reach{column: "x1", inPlus: last("c2"), inMinus: "aux.31", outPlus: last("c2"), outMinus: "aux.31", carries: "x1 plus", plugIn: true})
	}
	if where == job.AuxIsolator {
		list = append(list, isolator("q1.1", "aux.31"))
	}
	list = append(list, reach{column: "f2", inPlus: "f2.in", inMinus: "aux.31", outPlus: c2cTo, outMinus: "aux.31", carries: "f2"})
	if where == job.MasterSwitch {
		list = append(list, isolator("q1.1", "aux.31"))
	}
	return append(list,
		reach{column: "aux", inPlus: "aux.30", inMinus: "aux.31", outPlus: "aux.30", outMinus: "aux.31"})
}

// points are the volts across both conductors, the current and what is lost at every
// column in a state. A plug lies somewhere along its cable; its column stands after it.
func (d *design) points(s state) []Volts {
	if s.solved.Volts == nil {
		return []Volts{}
	}
	reaches := d.reaches()
	out := make([]Volts, len(reaches))
	plug := (had(s.solved.Through("x1 plus")) + had(s.solved.Through("x1 minus"))) * d.plugCard.Ohm
	for i, r := range reaches {
		in, to := s.across(r.inPlus, r.inMinus), s.across(r.outPlus, r.outMinus)
		if r.plugBefore {
			to += plug
		}
		if r.plugIn {
			in += plug
		}
		amps := had(s.solved.Through(r.carries))
		p := Volts{Column: r.column, InV: working.Round(in, 3), OutV: working.Round(to, 3), Carries: "–", Loses: "–"}
		if r.carries != "" {
			p.Carries = working.Text(amps, "A", 0)
			if r.column != "coupling" && math.Abs(amps) >= 0.5 {
				p.Loses = fmt.Sprintf("%s, %s", working.Text(in-to, "V", 2), working.Text((in-to)*amps, "W", 0))
			}
		}
		if r.column == "coupling" {
			p.Carries, p.Loses = d.couplingAtState(s, in, to)
		}
		out[i] = p
	}
	return out
}

// couplingAtState is what the coupling carries and loses in a state, as shown.
func (d *design) couplingAtState(s state, in, out float64) (carries, loses string) {
	lost := s.inA*in - s.outA*out
	if !d.kind.Charger() {
		carries = working.Text(s.outA, "A", 0)
		if !s.Joined {
			carries = "open"
		}
		return carries, working.Text(max(0, lost), "W", 0)
	}
	if s.Stopped {
		return "resting", working.Text(max(0, lost), "W", 1)
	}
	return fmt.Sprintf("%s in, %s out", working.Text(s.inA, "", 0), working.Text(s.outA, "A", 0)), working.Text(max(0, lost), "W", 0)
}

// across is the voltage between two nodes; no minus means ground.
func (s *state) across(plus, minus string) float64 {
	if minus == "" {
		minus = "0"
	}
	return had(s.solved.Across(plus, minus))
}

// joints are the crimped and bolted ends of the run between its columns, with what is
// lost in each at the worst.
func (d *design) joints() []Joint {
	list := []Joint{}
	worst := d.hardest()
	add := func(wire, end, after, name string) {
		w, ok := d.system.Wire(wire)
		ohm := w.Joint.From
		if end == "to" {
			ohm = w.Joint.To
		}
		if !ok || ohm == 0 {
			return
		}
		amps := had(worst.solved.Through(wire))
		list = append(list, Joint{ID: wire + "." + end, Name: name, After: after, Text: working.Text(amps*ohm*1000, "mV", 0),
			Says: fmt.Sprintf("%s, %s: %s, %s", name, working.Text(ohm*1000, "mΩ", 1), working.Text(amps*ohm*1000, "mV", 0), working.Text(amps*amps*ohm, "W", 1))})
	}
	last := func(id string) string {
		if _, ok := d.system.Wire(id + "t"); ok {
			return id + "t"
		}
		return id
	}
	before := func(id string) string { // the column before the coupling or F2
		if d.facts.Place.Trailer && (id == "c2") == d.atStart() {
			return "x1"
		}
		return id
	}
	if d.kind == coupling.SecondAlternator {
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

// returnLoss is what a wire of the return loses in its conductor and joints at the
// worst, as shown; "" where it is not there.
func (d *design) returnLoss(ids ...string) string {
	worst, volts := d.hardest(), 0.0
	for _, id := range ids {
		if w, ok := d.system.Wire(id); ok && w.Role != system.Signal {
			volts += had(worst.solved.Through(id)) * (w.Ohm + w.Joint.From + w.Joint.To)
		}
	}
	return working.Text(max(0, volts), "V", 2)
}
