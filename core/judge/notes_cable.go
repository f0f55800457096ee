package judge

import (
	"fmt"
	"slices"

	"epitrope/core/cable"
	"epitrope/core/design"
	"epitrope/core/run"
	"epitrope/core/system"
	"epitrope/core/unit"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// leg is a stretch of the run, as the notes call it, with where its size and its fuse are
// pinned.
type leg struct {
	*run.Sized
	wire, fuse, sizePath, fusePath string
}

func legs(d *design.Design) []leg {
	list := []leg{{&d.Start, "C1", "F1", "pins.startSize", "pins.startFuseA"}, {&d.Aux, "C2", "F2", "pins.auxSize", "pins.auxFuseA"}}
	if d.FedHouse() {
		list = append(list, leg{&d.House, "H1", "F4", "", ""})
	}
	return list
}

// onLegs lets a rule look at each stretch of the run.
func onLegs(finds func(d *design.Design, l leg) []finding) func(d *design.Design) []finding {
	return func(d *design.Design) []finding {
		var list []finding
		for _, l := range legs(d) {
			list = append(list, finds(d, l)...)
		}
		return list
	}
}

// onReels says whether a stretch's cable is stocked, or nobody said what is.
func onReels(d *design.Design, l leg) bool {
	one := l.Trial.Size.One()
	return len(d.Facts.Stocked) == 0 || l.NoCable != nil || slices.ContainsFunc(d.Facts.Stocked, func(s cable.Size) bool {
		return s.Label == one.Label
	})
}

// cableRules are about the cables; of those for one cable only the worst speaks.
var cableRules = []rule{
	{"cable.place", verdict.Stop, working.Standard,
		"%s: it gets %s where it lies, and its insulation bears %s. No current is safe there.",
		"Insulation past its limit hardens and cracks, whatever the cable carries. Insulation that bears more, or a cooler way.",
		ofCables(tooHot, func(d *design.Design, l leg) finding {
			f := at(l.ID, l.wire, unit.Text(hottest(l), "°C", 0), l.Loop.Insulation.Label)
			if best := cable.Class105; hottest(l) < best.LimitC {
				f = f.cure(verdict.Set("Take "+best.Label+" insulation", d.InsulationPath(l.ID), fmt.Sprint(best.LimitC)))
			}
			return f
		})},
	{"cable.none", verdict.Stop, working.Standard,
		"%s: no cable on the reels does it.", "%s. Less current, a shorter route, or another place for the battery.",
		ofCables(noneDoes, func(_ *design.Design, l leg) finding { return at(l.ID, l.wire).since(l.NoCable.Error()) })},
	{"cable.reels", verdict.Remark, working.Practice,
		"%s is %s, which is not on the reels: have it in hand first.",
		"On the reels are %s. A thicker one that is there is taken before one that has to be bought; none of them does here.",
		onLegs(func(d *design.Design, l leg) []finding {
			return where(!onReels(d, l), func() finding {
				return at(l.ID, l.wire, l.Trial.Size.Label).since(cable.Labels(d.Facts.Stocked))
			})
		})},
	{"cable.burns", verdict.Stop, working.Standard,
		"%s is pinned to %s, which carries %s where it lies; it has to carry %s.",
		"The cable gets over %s. Drop alone approves cable that burns.",
		ofCables(burns, func(_ *design.Design, l leg) finding {
			bears, carries := unit.Apart(l.Trial.AmpacityA, l.Amps, "A", 0)
			return at(l.ID, l.wire, l.Trial.Size.Copper(), bears, carries).
				since(unit.Text(l.Trial.ConductorC, "°C", 0)).cure(verdict.Unpin("Fit "+l.Auto.Label, l.sizePath))
		})},
	{"cable.thin", verdict.Beware, working.Physics,
		"%s is pinned to %s: %s loses %s at %s, and %s may be lost.", "What is lost on the way is missing at the end.",
		ofCables(thin, func(d *design.Design, l leg) finding {
			way, loses, may := lost(d, l)
			return at(l.ID, l.wire, l.Trial.Size.Copper(), way, loses, unit.Text(l.DropA(), "A", 0), may).
				cure(verdict.Unpin("Fit "+l.Auto.Label, l.sizePath))
		})},
	{"cable.drop", verdict.Beware, working.Physics,
		"%s loses %s at %s, and %s may be lost.",
		"The length and the way back lose it, of that steel and its joints %s: no cable on the reels keeps the limit.",
		ofCables(losesAll, func(d *design.Design, l leg) finding {
			way, loses, may := lost(d, l)
			f := at(l.ID, unit.Capital(way), loses, unit.Text(l.DropA(), "A", 0), may).since(unit.Text(l.DropA()*l.SteelOhm, "V", 2))
			if d.Back.ByChassis && l.Sized == d.ReturnLeg() {
				f = f.cure(verdict.Set("A return cable beside the steel", "pins.return", "both"))
			}
			return f
		})},
	{"return.hitch", verdict.Stop, working.Practice,
		"The return may not cross the tow coupling through the steel.",
		"If its contact fails, the current finds the thin lighting earth and melts it.",
		func(d *design.Design) []finding {
			return where(d.Behind() == system.Trailer && d.BackCrosses() && d.Back.ByChassis, byCable(d))
		}},
	{"return.box", verdict.Stop, working.Practice,
		"The return of what comes out goes over its plug, not through the steel that it stands on.",
		"Lifted an inch it has no return, and a loose one finds thin earths elsewhere.",
		func(d *design.Design) []finding {
			return where(d.Behind() == system.Box && d.BackCrosses() && d.Back.ByChassis, byCable(d))
		}},
}

// byCable takes the return off the steel.
func byCable(d *design.Design) func() finding {
	return func() finding { return at(d.ReturnLeg().ID).cure(verdict.Unpin("Return by cable", "pins.return")) }
}

// unfit is what is wrong with a cable.
type unfit int

const (
	fit      unfit = iota
	tooHot         // no current is safe where it lies
	noneDoes       // the reels have none
	burns          // it carries more than it bears
	thin           // pinned, and loses too much
	losesAll       // none that loses less would help
)

// hottest is the hottest place that a stretch's cable passes.
func hottest(l leg) float64 { return max(l.Bay.AmbientC, l.ReturnBay().AmbientC) }

// wrongWith is the worst that is wrong with a stretch's cable.
func wrongWith(d *design.Design, l leg) unfit {
	t := l.Trial
	switch {
	case hottest(l) >= l.Loop.Insulation.LimitC:
		return tooHot
	case l.NoCable != nil && l.SizePin == nil:
		return noneDoes
	case t.AmpacityA < l.Amps:
		return burns
	case tooMuch(d, l) && l.SizePin != nil && l.Auto.CopperMM2() > t.Size.CopperMM2():
		return thin
	case tooMuch(d, l) && l.last(d):
		return losesAll
	}
	return fit
}

// tooMuch says whether more is lost than may be: of the whole run, where that has one limit.
func tooMuch(d *design.Design, l leg) bool {
	if loses, may, whole := d.RunLoses(); whole && l.ID != "h1" {
		return loses > may+0.0005
	}
	return l.Loses(l.Trial)
}

// last says whether what the whole run loses is told of this half: of the one with the return.
func (l leg) last(d *design.Design) bool {
	_, _, whole := d.RunLoses()
	return !whole || l.ID == "h1" || l.Sized == d.ReturnLeg()
}

// lost is what loses how much, of how much that may be lost, in words.
func lost(d *design.Design, l leg) (way, loses, may string) {
	way, is, most := l.wire, l.HeldV(), max(0, l.BudgetV)
	if v, m, whole := d.RunLoses(); whole && l.ID != "h1" {
		way, is, most = "the run from battery to battery", v, m
	}
	loses, may = unit.Apart(is, most, "V", 2)
	return way, loses, may
}

func ofCables(what unfit, says func(d *design.Design, l leg) finding) func(d *design.Design) []finding {
	return onLegs(func(d *design.Design, l leg) []finding {
		return where(wrongWith(d, l) == what, func() finding { return says(d, l) })
	})
}
