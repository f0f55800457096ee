package judge

import (
	"strings"

	"epitrope/core/cable"
	"epitrope/core/coupling"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/protect"
	"epitrope/core/run"
	"epitrope/core/system"
	"epitrope/core/unit"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// chainRules are about what the run's current passes besides cables and fuses, which have rules
// of their own.
var chainRules = []rule{
	{"chain.over", verdict.Stop, working.Memory,
		"%s carries %s and bears %s where it sits.",
		"Everything in series carries the same current: this is the weakest of it, and trips or burns.",
		ofLinks(verdict.Bad)},
	{"chain.limit", verdict.Beware, working.Memory,
		"%s carries %s of the %s it bears where it sits: at its limit.", "A hot day or a dirty contact takes it over.",
		ofLinks(verdict.Caution)},
	{"contact.headline", verdict.Beware, working.Memory,
		"The %s is taken at the %s of its name or label, and %s flow: for hours such a contact bears perhaps %s.",
		"A headline is for minutes, in the cool, or for the make contact alone. Its sheet's figure for hours decides.",
		func(d *design.Design) []finding {
			r := d.Doc.Relay
			headline := r.RatedA != nil && job.Str(r.RatedBy) == job.RatedByLabel && d.Contact.ContinuousA+d.Changeover.Relay.MakeA > 0
			return where(headline && d.Start.Amps > headlineShare*num(r.RatedA), func() finding {
				flows, bears := unit.Apart(d.Start.Amps, headlineShare*num(r.RatedA), "A", 0)
				name := d.Kind.Label()
				if d.Kind.Charger() {
					name = "relay beside the charger"
				}
				return at("coupling", name, unit.Plain(*r.RatedA, "A", 0), flows, bears)
			})
		}},
	{"plug.cable", verdict.Beware, working.Memory,
		"%s is %s; a %s takes up to %s.",
		"The cable does not go into the housing: a larger plug, or two cables in parallel with a joint.",
		ofRuns(func(d *design.Design, l *run.Sized) []finding {
			return where(d.Crosses(l) && !d.PlugCard.Takes(l.Trial.Size.CopperMM2()), func() finding {
				return at("x1", strings.ToUpper(l.ID), l.Trial.Size.Copper(), d.PlugCard.Label, unit.Plain(d.PlugCard.MostMM2, "mm²", 1))
			})
		})},
	{"stud.lug", verdict.Beware, working.Memory,
		"%s is %s, and lugs for the %s stud of %s are sold up to %s.",
		"A lug that is bored out or filed down to fit carries less than its cable. Thinner cable, or a part with a larger stud.",
		func(d *design.Design) []finding {
			var list []finding
			for _, w := range d.System.Wires {
				size, err := cable.Parse(w.Size)
				for _, end := range []system.Terminal{w.From, w.To} {
					c, _ := d.System.Component(end.Component)
					most := protect.LugMost(c.Stud())
					if w.Existing || err != nil || size.AreaMM2 <= thinMM2 || most == 0 || size.AreaMM2 <= most*1.02 {
						continue
					}
					f := at(columnOf(d, w, c), w.Name, size.Copper(), c.Stud(), c.Name, unit.Plain(most, "mm²", 0))
					if path, pinned := sizePin(d, w); pinned {
						f = f.cure(verdict.Unpin("Let the plan choose the cable", path))
					}
					list = append(list, f)
				}
			}
			return list
		}},
	{"charger.clamps", verdict.Remark, working.Memory,
		"%s is %s, and the %s of a charger of %s take %s.",
		"A reducing pin at that end, or a stud beside the charger and a short link: bared strands that are cut off to fit carry nothing.",
		ofRuns(func(d *design.Design, l *run.Sized) []finding {
			takes, of := d.Charger.TakesMM2(), "clamps"
			if d.Charger.Stud() != "" {
				of = "terminals"
			}
			return where(d.Kind.Charger() && takes > 0 && l.Trial.Size.AreaMM2 > takes*1.02, func() finding {
				return at("coupling", strings.ToUpper(l.ID), l.Trial.Size.Copper(), of, unit.Plain(d.Charger.OutputA, "A", 0), unit.Plain(takes,
					"mm²", 0))
			})
		})},
	{"changeover.cable", verdict.Beware, working.Memory,
		"%s is %s; a %s takes up to %s.",
		"Its socket's contacts take no thicker cable: a relay with studs, or a stud beside it and a short link that its fuse saves.",
		ofRuns(func(d *design.Design, l *run.Sized) []finding {
			return where(d.Is.Beside == design.RestContact && !d.Changeover.Takes(l.Trial.Size.CopperMM2()), func() finding {
				return at("coupling", strings.ToUpper(l.ID), l.Trial.Size.Copper(), d.Changeover.Label,
					unit.Plain(d.Changeover.MostMM2, "mm²", 0)).cure(verdict.Unpin("Let the plan choose", "pins.contactA"))
			})
		})},
}

// thinMM2 is up to what a wire ends in a ring or blade terminal.
const thinMM2 = 2.5

// columnOf is where a note about a wire's end stands: at its fuse, at the coupling, or at the wire's run.
func columnOf(d *design.Design, w system.Wire, c system.Component) string {
	switch c.ID {
	case d.Start.FuseID, d.Aux.FuseID, "coupling", "aux", "start":
		return c.ID
	case "k1":
		return "coupling"
	}
	return w.Run
}

// sizePin is where the size of a wire's run is pinned.
func sizePin(d *design.Design, w system.Wire) (path string, pinned bool) {
	for _, l := range legs(d) {
		if l.ID == w.Run && l.SizePin != nil {
			return l.sizePath, true
		}
	}
	return "", false
}

// headlineShare is what of a headline figure a contact bears for hours. Source: from memory: 60 to 80 %.
const headlineShare = 0.7

// num is an answer's number; 0 where there is none.
func num(v *float64) float64 {
	if v == nil {
		return 0
	}
	return *v
}

// pinned are where what a link stands for can be pinned, by its column.
var pinned = map[string]struct {
	path string
	is   func(d *design.Design) bool
}{
	"coupling": {"pins.contactA", func(d *design.Design) bool { return d.Doc.Pins.ContactA != nil }},
	"x1":       {"pins.plugA", func(d *design.Design) bool { return d.Doc.Pins.PlugA != nil }},
	"q1":       {"extras.isolatorA", func(d *design.Design) bool { return d.Doc.Extras.IsolatorA != nil }},
}

// ofLinks finds the links of the chain that stand so.
func ofLinks(level verdict.Level) func(d *design.Design) []finding {
	return func(d *design.Design) []finding {
		var list []finding
		for _, l := range Chain(d) {
			pin, ours := pinned[l.Column]
			if !ours || l.Level != level {
				continue
			}
			flows, bears := unit.Apart(l.Amps, l.BearsA, "A", 0)
			f := at(l.Column, unit.Capital(l.Name), flows, bears)
			switch {
			case pin.is(d):
				f = f.cure(verdict.Unpin("Let the plan choose", pin.path))
			case l.Column == "coupling" && d.Is.Beside == design.RestContact:
				f = f.cure(verdict.Set("Fit a charger without changeover", "pins.coupling", string(coupling.DCDC)))
			}
			list = append(list, f)
		}
		return list
	}
}

// ofRuns lets a rule look at both halves of the run.
func ofRuns(finds func(d *design.Design, l *run.Sized) []finding) func(d *design.Design) []finding {
	return func(d *design.Design) []finding { return append(finds(d, &d.Start), finds(d, &d.Aux)...) }
}
