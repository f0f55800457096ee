package judge

import (
	"slices"

	"epitrope/core/design"
	"epitrope/core/protect"
	"epitrope/core/unit"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// fuseRules are about the fuses of the run. Where a cable lies too hot for any current, and where
// no fuse fits, nothing else is said of the fuse.
var fuseRules = []rule{
	{"fuse.none", verdict.Stop, working.Standard,
		"%s: %s bears no fuse that is made.", "%s. Thicker cable.",
		onLegs(func(d *design.Design, l leg) []finding {
			return where(!l.Unfused && wrongWith(d, l) != tooHot && noFuse(l) && l.over(), func() finding {
				return at(l.FuseID, l.fuse, l.Trial.Size.Label).since(unit.Capital(l.NoFuse.Error())).cure(l.thicker(d)...)
			})
		})},
	{"fuse.opens", verdict.Stop, working.Standard,
		"%s at %s opens at this load: it carries %s and holds %s for hours where it sits.",
		"A fuse above its cable is none. Thicker cable bears the fuse that the load needs.",
		onLegs(func(d *design.Design, l leg) []finding {
			return where(!l.Unfused && wrongWith(d, l) != tooHot && l.opens(), func() finding {
				return at(l.FuseID, l.fuse, l.rating(), unit.Text(l.Amps, "A", 0), unit.Text(l.holds(), "A", 0)).cure(l.thicker(d)...)
			})
		})},
	{"fuse.tight", verdict.Beware, working.Standard,
		"%s at %s, the highest that %s bears, carries %s: more than 80 %% of what it holds for hours.",
		"The fuse may open on a hot day, far from home. Thicker cable bears the next rating.",
		onLegs(func(d *design.Design, l leg) []finding {
			return where(!l.Unfused && wrongWith(d, l) != tooHot && noFuse(l) && !l.over() && !l.opens(), func() finding {
				return at(l.FuseID, l.fuse, l.rating(), l.wire, unit.Text(l.Amps, "A", 0)).cure(l.thicker(d)...)
			})
		})},
	{"fuse.over", verdict.Stop, working.Standard,
		"%s at %s is more than %s bears: %s.", "The fuse protects the cable. This one lets the cable burn first.",
		ofFuses(func(l leg) bool { return l.over() && l.FusePin != nil }, func(l leg) finding {
			is, bears := unit.Apart(l.Fuse.RatingA, l.Trial.AmpacityA, "A", 0)
			return at(l.FuseID, l.fuse, is, l.wire, bears).cure(l.fuseCures()...)
		})},
	{"fuse.slow", verdict.Stop, working.Standard,
		"%s opens after up to %s on a short at the far end; %s bears it for %s.",
		"The cable would be past its limit before the fuse opens.",
		ofFuses(leg.slow, func(l leg) finding {
			return at(l.FuseID, l.fuse, unit.Seconds(l.Cover.Far.OpensMaxS), l.wire, unit.Seconds(l.Cover.Far.BearsS)).
				cure(l.fuseCures()...)
		})},
	{"fuse.overload", verdict.Beware, working.Standard,
		"%s may hold %s for up to %s; %s bears that for %s.",
		"An overload, not a short: it heats the cable slowly past what its insulation bears.",
		ofFuses(func(l leg) bool { return !l.over() && !l.slow() && !l.Cover.Overload.Saves() }, func(l leg) finding {
			o := l.Cover.Overload
			return at(l.FuseID, l.fuse, unit.Text(o.Amps, "A", 0), unit.Seconds(o.OpensMaxS), l.wire, unit.Seconds(o.BearsS)).
				cure(l.fuseCures()...)
		})},
	{"fuse.resets", verdict.Stop, working.Practice,
		"%s resets itself: it closes on the fault again and again.",
		"A battery's fault is switched on again each time, until something burns. A fuse, or a breaker reset by hand.",
		ofFuses(func(l leg) bool { return l.Fuse.Family.Resets == protect.Itself }, func(l leg) finding {
			return at(l.FuseID, l.fuse).cure(verdict.Unpin("Fit a fuse", "pins.device"))
		})},
	{"fuse.kind", verdict.Beware, working.Practice,
		"%s at %s does not come as a %s.", "Take a rating that it comes in, or another kind.",
		ofFuses(func(l leg) bool {
			return !slices.ContainsFunc(l.Device.Families, func(f protect.Family) bool { return f.ID == l.Fuse.Family.ID })
		}, func(l leg) finding { return at(l.FuseID, l.fuse, l.rating(), l.Device.Label).cure(l.fuseCures()...) })},
	{"fuse.sheet", verdict.Beware, working.Practice,
		"%s at %s is more than the %s that the charger's sheet allows.",
		"The sheet's fuse saves what is inside the charger, not the cable alone. A smaller charger takes a smaller fuse.",
		ofFuses(func(l leg) bool { return l.SheetA > 0 && l.Fuse.RatingA > l.SheetA }, func(l leg) finding {
			return at(l.FuseID, l.fuse, l.rating(), unit.Plain(l.SheetA, "A", 1)).cure(l.fuseCures()...)
		})},
	{"fuse.breaks", verdict.Stop, working.Memory,
		"%s can break %s; a short at the battery drives about %s.", "A fuse that cannot break its fault burns on as an arc.",
		ofFuses(func(l leg) bool { return l.NearFault > l.Fuse.Family.BreaksA }, func(l leg) finding {
			return at(l.FuseID, l.fuse, unit.Kilo(l.Fuse.Family.BreaksA), unit.Kilo(l.NearFault)).cure(l.fuseCures()...)
		})},
	{"fuse.main", verdict.Remark, working.Memory,
		"%s is %s, and %s has to bear it: of what carries %s, nothing lower breaks the %s that a short at the battery drives.",
		"A main fuse of that kind on the battery's post, and a lower fuse behind it, let the cable be thinner.",
		ofFuses(func(l leg) bool { _, other := l.Unbreaking(); return other }, func(l leg) finding {
			return at(l.FuseID, l.fuse, l.Fuse.Label(), l.wire, unit.Text(l.Amps, "A", 0), unit.Kilo(l.NearFault))
		})},
	{"fuse.under", verdict.Beware, working.Practice,
		"%s carries %s for hours; warm, %s bears %s.", "The fuse opens on a hot day, far from home.",
		ofFuses(func(l leg) bool { return l.Amps > l.carries()+0.05 && !l.opens() }, func(l leg) finding {
			return at(l.FuseID, l.fuse, unit.Text(l.Amps, "A", 0), l.rating(), unit.Text(l.carries(), "A", 0)).cure(l.fuseCures()...)
		})},
}

// noFuse says whether no fuse fits a stretch's cable.
func noFuse(l leg) bool { return l.FusePin == nil && l.NoFuse != nil }

// over says whether the fuse is rated above what its cable bears, slow whether it opens on a
// short after its cable is past its limit.
func (l leg) over() bool { return l.Fuse.RatingA > l.Trial.AmpacityA }
func (l leg) slow() bool { return !l.over() && !l.Cover.Saves }

func (l leg) rating() string { return unit.Plain(l.Fuse.RatingA, "A", 1) }

// carries is what the fuse holds for hours where it sits.
func (l leg) carries() float64 { return l.Fuse.Carries(l.Bay.AmbientC) }

// holds is what the fuse holds for hours before it opens where it sits, and opens whether it is asked
// for more.
func (l leg) holds() float64 { return l.Fuse.RatingA * l.Fuse.Family.Holds(l.Bay.AmbientC) }
func (l leg) opens() bool    { return l.Amps > l.holds()*(1+design.SettledWithin) }

// thicker is the next cable on the reels on which a fuse fits.
func (l leg) thicker(d *design.Design) []verdict.Cure {
	cures := l.fuseCures()
	if size, ok := l.Thicker(d.Facts.Reels); ok && l.sizePath != "" && l.SizePin == nil {
		cures = append(cures, verdict.Set("Fit "+size.Label, l.sizePath, size.Label))
	}
	return cures
}

// fuseCures leave fuse and cable to the plan, where they are pinned and it would do better.
func (l leg) fuseCures() []verdict.Cure {
	var cures []verdict.Cure
	if l.FusePin != nil && l.AutoFuse.RatingA != l.Fuse.RatingA && l.AutoFuse.RatingA <= l.Trial.AmpacityA && l.AutoFuse.RatingA >= l.Amps {
		cures = append(cures, verdict.Unpin("Fit "+unit.Plain(l.AutoFuse.RatingA, "A", 1), l.fusePath))
	}
	if l.SizePin != nil && l.Auto != l.Trial.Size {
		cures = append(cures, verdict.Unpin("Fit "+l.Auto.Label, l.sizePath))
	}
	return cures
}

func ofFuses(wrong func(l leg) bool, says func(l leg) finding) func(d *design.Design) []finding {
	return onLegs(func(d *design.Design, l leg) []finding {
		return where(!l.Unfused && wrongWith(d, l) != tooHot && !noFuse(l) && wrong(l), func() finding { return says(l) })
	})
}
