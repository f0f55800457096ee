package design

import (
	"epitrope/core/coupling"
	"epitrope/core/job"
)

// reach is where a column begins and ends in the circuit: the nodes of its feed, and
// the minus against which they are measured.
type reach struct {
	Column             string
	InPlus, InMinus    string
	OutPlus, OutMinus  string
	Carries            string // the resistance whose current it carries; "" where it is none of one
	PlugBefore, PlugIn bool
}

// Reaches lists the columns of the run, from the alternator to the aux battery. What
// is lost in the return is lost in the cable that it belongs to.
func (d *Design) Reaches() []reach {
	ends := func(id string) (from, to string) {
		w, _ := d.System.Wire(id)
		return w.Ends()
	}
	c1aFrom, _ := ends("c1a")
	c1From, _ := ends("c1")
	c2From, _ := ends("c2")
	_, c2cTo := ends("c2c")
	last := func(id string) string {
		if _, ok := d.System.Wire(id + "t"); ok {
			id += "t"
		}
		_, to := ends(id)
		return to
	}
	mid := "0"
	if d.Kind.Charger() {
		mid = "coupling.31"
	}
	first, second := d.Crosses(&d.Start), d.Crosses(&d.Aux)
	list := []reach{
		{Column: "alternator", InPlus: "alternator.B+", OutPlus: "alternator.B+"},
		{Column: "lead", InPlus: "alternator.B+", OutPlus: "start.30", Carries: "lead"},
		{Column: "start", InPlus: "start.30", OutPlus: "start.30"},
	}
	if d.Kind == coupling.SecondAlternator {
		list = []reach{{Column: "alternator", InPlus: "second.B+", OutPlus: "second.B+"}}
	}
	isolator := func(from string, minus string) reach {
		return reach{Column: "q1", InPlus: from, InMinus: minus, OutPlus: "q1.2", OutMinus: minus, Carries: "q1"}
	}
	where := d.Facts.Extras.Isolator
	list = append(list, reach{Column: "f1", InPlus: c1aFrom, OutPlus: "f1.out", Carries: "f1"})
	if where == job.FrontIsolator {
		list = append(list, isolator("f1.out", ""))
	}
	list = append(list, []reach{
		{Column: "c1", InPlus: c1From, OutPlus: last("c1"), OutMinus: mid, Carries: "c1", PlugBefore: first},
	}...)
	if first {
		list = append(list, reach{Column: "x1", InPlus: last("c1"), InMinus: mid, OutPlus: last("c1"), OutMinus: mid, Carries: "x1 plus",
			PlugIn: true})
	}
	list = append(list,
		reach{Column: "coupling", InPlus: d.Arrives().Node(), InMinus: mid, OutPlus: d.Leaves().Node(), OutMinus: mid, Carries: "c1"},
		reach{Column: "c2", InPlus: c2From, InMinus: mid, OutPlus: last("c2"), OutMinus: "aux.31", Carries: "c2", PlugBefore: second})
	if second {
		list = append(list, reach{Column: "x1", InPlus: last("c2"), InMinus: "aux.31", OutPlus: last("c2"), OutMinus: "aux.31",
			Carries: "x1 plus", PlugIn: true})
	}
	if where == job.AuxIsolator {
		list = append(list, isolator("q1.1", "aux.31"))
	}
	list = append(list, reach{Column: "f2", InPlus: "f2.in", InMinus: "aux.31", OutPlus: c2cTo, OutMinus: "aux.31", Carries: "f2"})
	if where == job.MasterSwitch {
		list = append(list, isolator("q1.1", "aux.31"))
	}
	return append(list,
		reach{Column: "aux", InPlus: "aux.30", InMinus: "aux.31", OutPlus: "aux.30", OutMinus: "aux.31"})
}
