package judge

import (
	"epitrope/core/cable"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/unit"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// SocketDrop is what a load by the 13-pin socket loses on the way, out and back.
var SocketDrop = working.Declare("ΔU = I·(2·L·R_m + 2·R_c)", "Ohm's law; 2.5 mm² of IEC 60228 class 5; contacts from memory",
	working.Symbol{Letter: "ΔU", Name: "lost on the way", Unit: "V", Digits: 2},
	working.Symbol{Letter: "I", Name: "load", Unit: "A", Digits: 1},
	working.Symbol{Letter: "L", Name: "one way", Unit: "m", Digits: 1},
	working.Symbol{Letter: "R_m", Name: "of each metre", Unit: "Ω/m", Digits: 5},
	working.Symbol{Letter: "R_c", Name: "of each contact", Unit: "Ω", Digits: 4})

// A load may lose loadDrop % on its way, a lamp lampDrop. Source: common practice, no
// source.
const (
	loadDrop = 3.0
	lampDrop = 10.0
)

func socketChecks(d *design.Design) []Check {
	e, f := d.Facts.Extras, d.Facts
	if e.SocketA.Value == 0 {
		return nil
	}
	fields := []string{"extras.socketA", "extras.socketM"}
	list := []Check{}
	if e.SocketA.Value > parts.SocketA {
		list = append(list, extra("socket.over", "x1", verdict.Bad, working.Memory, fields, e.SocketA.Value, parts.SocketA))
	}
	fig := SocketDrop.MustWork(e.SocketA.Input(), e.SocketM.Input(),
		working.From(cable.Square(parts.SocketMM2).OhmPerM(), working.Standard, "IEC 60228"),
		working.From(parts.SocketOhm, working.Memory, "mated contact"))
	share, id, level := 100*fig.Unrounded/(12*f.N), "socket.drop", verdict.Good
	switch {
	case share > lampDrop:
		level = verdict.Bad
	case share > loadDrop:
		level = verdict.Caution
	}
	list = append(list, extra(id, "x1", level, working.Physics, fields, fig.Text, share, loadDrop).by("socket", fig))
	if e.SocketContact == job.PermanentContact {
		span := unit.Span(design.HoursToHalf.Value(f.StartAh.Value, design.ShareToHalf, e.SocketA.Value))
		list = append(list, extra("socket.permanent", "start", verdict.Caution, working.Physics, []string{"extras.socketContact"},
			e.SocketA.Value, span))
	} else {
		list = append(list, extra("socket.switched", "x1", verdict.Good, working.Practice, []string{"extras.socketContact"}))
	}
	if e.SocketReturn == job.LampReturn {
		list = append(list, extra("socket.lamps", "x1", verdict.Bad, working.Practice, []string{"extras.socketReturn"}))
	}
	return list
}
