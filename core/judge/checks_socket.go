package judge

import (
	"epitrope/core/cable"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/rig"
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

var socketFields = []string{"extras.socketA", "extras.socketM"}

// socketLooks hold a load by the 13-pin socket against what the socket bears and loses.
var socketLooks = []look{
	{"extra.socket.over", verdict.Bad, working.Memory, socketFields,
		"%.0f A by the 13-pin socket: its power contacts bear %.0f A.",
		func(d *design.Design) []finding {
			amps := d.Facts.Extras.SocketA.Value
			return says(amps > parts.SocketA, "x1", amps, parts.SocketA)
		}},
	{"extra.socket.drop", verdict.Good, working.Physics, socketFields,
		"The load in the trailer loses %s on its way, %.1f %% (up to %.0f %% is usual).",
		func(d *design.Design) []finding { return where(bySocket(d), func() finding { return socketDrop(d) }) }},
	{"extra.socket.permanent", verdict.Caution, working.Physics, []string{"extras.socketContact"},
		"Contact 9 is live with the engine off and takes %.0f A: left so, %s.",
		func(d *design.Design) []finding {
			return where(bySocket(d) && d.Facts.Extras.SocketContact == job.PermanentContact, func() finding {
				amps := d.Facts.Extras.SocketA.Value
				return at("start", amps, rig.NewLeaving(d).With(amps).Says)
			})
		}},
	{"extra.socket.switched", verdict.Good, working.Practice, []string{"extras.socketContact"},
		"Contact 10 is dead with the engine off.",
		func(d *design.Design) []finding {
			return says(bySocket(d) && d.Facts.Extras.SocketContact != job.PermanentContact, "x1")
		}},
	{"extra.socket.lamps", verdict.Bad, working.Practice, []string{"extras.socketReturn"},
		"The load comes back by the lamps' earth: its own contact, 13 for 9 and 11 for 10, or the thin wire melts.",
		func(d *design.Design) []finding {
			return says(bySocket(d) && d.Facts.Extras.SocketReturn == job.LampReturn, "x1")
		}},
}

// bySocket is whether a load is fed by the 13-pin socket.
func bySocket(d *design.Design) bool { return d.Facts.Extras.SocketA.Value > 0 }

// socketDrop is what the load in the trailer loses, with the level that its share deserves.
func socketDrop(d *design.Design) finding {
	e := d.Facts.Extras
	fig := SocketDrop.MustWork(e.SocketA.Input(), e.SocketM.Input(),
		working.From(cable.Square(parts.SocketMM2).OhmPerM(), working.Standard, "IEC 60228"),
		working.From(parts.SocketOhm, working.Memory, "mated contact"))
	share := 100 * fig.Unrounded / (12 * d.Facts.N)
	f := at("x1", fig.Text, share, loadDrop).by("socket", fig)
	switch {
	case share > lampDrop:
		return f.as(verdict.Bad)
	case share > loadDrop:
		return f.as(verdict.Caution)
	}
	return f
}
