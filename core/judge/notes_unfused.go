package judge

import (
	"epitrope/core/design"
	"epitrope/core/unit"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// How far from its source a fuse may be. Source: ISO 10133 for the first; ABYC E-11 for the second, where the
// cable is sheathed all the way; both from memory.
const (
	nearM     = 0.2
	sheathedM = 1.83
)

// unfusedRules are about an end of the run that has no fuse.
var unfusedRules = []rule{
	{"unfused.long", verdict.Stop, working.Standard,
		"%s of cable hang on %s past no fuse: a short in it draws %s.",
		"A fuse at the other end does not see that current. Each source has its own, within 200 mm.",
		unfused(func(m float64, sheathed bool) bool { return m > sheathedM || m > nearM && !sheathed })},
	{"unfused.sheathed", verdict.Beware, working.Standard,
		"%s of cable hang on %s past no fuse, in conduit: a short in it draws %s.",
		"One school allows that up to 1.8 m where the cable is sheathed all the way, the other stops at 200 mm. A fuse there ends the argument.",
		unfused(func(m float64, sheathed bool) bool { return m > nearM && m <= sheathedM && sheathed })},
	{"unfused.short", verdict.Remark, working.Standard,
		"%s of cable hang on %s past no fuse: a short in it draws %s.",
		"So short it may be, clear of metal, booted and not under anything that moves.",
		unfused(func(m float64, _ bool) bool { return m <= nearM })},
	{"unfused.none", verdict.Stop, working.Practice,
		"Nothing opens between the two batteries: there is no fuse on the run.",
		"A cell that shorts in one is fed by all that the other has. One fuse at the least.",
		func(d *design.Design) []finding {
			through := !d.Kind.Charger() && !d.Is.Splits && !d.Is.OwnMachine
			return where(d.Start.Unfused && d.Aux.Unfused && through, func() finding {
				return at("coupling").cure(fuseBoth())
			})
		}},
}

func fuseBoth() verdict.Cure { return verdict.Set("A fuse at each end", "arranged.fuses", "both") }

// unfused lets a rule speak of each end without a fuse, where its length says so.
func unfused(holds func(m float64, sheathed bool) bool) func(d *design.Design) []finding {
	return func(d *design.Design) []finding {
		fromStart, fromAux := d.UnfusedM()
		sheathed := d.Start.Bay.Laying.Conduit && d.Aux.Bay.Laying.Conduit
		var list []finding
		if fromStart > 0 && holds(fromStart, sheathed) {
			list = append(list, at("c1", unit.Metres(fromStart), "the "+d.SourceName(), unit.Kilo(d.Start.NearFault)).cure(fuseBoth()))
		}
		if fromAux > 0 && holds(fromAux, sheathed) {
			list = append(list, at("c2", unit.Metres(fromAux), "the aux battery", unit.Kilo(d.Aux.NearFault)).cure(fuseBoth()))
		}
		return list
	}
}
