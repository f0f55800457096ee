package run

import (
	"math"

	"epitrope/core/cable"
	"epitrope/core/protect"
	"epitrope/core/system"
	"epitrope/core/unit"
)

// FuseDevice is a leg's fuse in its holder.
func (l *Sized) FuseDevice() system.Fuse { return system.Fuse{Fuse: l.Fuse, Ohm: l.FuseOhm()} }

// FuseOhm is the resistance of the fuse.
func (l *Sized) FuseOhm() float64 {
	if l.Unfused {
		return 0
	}
	return protect.Resistance.Value(l.Fuse.RatingA)
}

// Label is the fuse by its rating, or that there is none.
func (l *Sized) Label() string {
	if l.Unfused {
		return "no fuse"
	}
	return "fuse " + unit.Plain(l.Fuse.RatingA, "A", 1)
}

// FaultOhm is what a short at the leg's end meets on its way.
func (l *Sized) FaultOhm(fuse protect.Fuse, t cable.Trial) float64 {
	return t.LoopOhm + l.JointsOhm + l.PlugOhm + protect.Resistance.Value(fuse.RatingA)
}

// Need is what the fuse is chosen for, on a cable that carries ampacity amps: within the
// device's sheet as far as a fuse within it carries the load. Where nothing of the device's kind
// breaks the fault, no cable helps, and it is not asked for.
func (l *Sized) Need(ampacity float64) protect.Need {
	n := protect.Need{ContinuousA: l.Amps, AmbientC: l.Bay.AmbientC, CableA: ampacity, FaultA: l.breakable(), PassA: l.PassA,
		PassS: CrankPassS}
	if l.SheetA > 0 {
		within := n
		within.DeviceMaxA = l.SheetA
		if _, err := protect.Choose(within, l.Device.Families); err == nil {
			return within
		}
	}
	return n
}

// breakable is the fault that the fuse has to break, 0 where no family of the device can.
func (l *Sized) breakable() float64 {
	for _, f := range l.Device.Families {
		if f.BreaksA >= l.NearFault {
			return l.NearFault
		}
	}
	return 0
}

// Unbreaking is the fuse that would do were it not for the short that it has to break: a lower rating than
// the one that is fitted. ok is false where there is none.
func (l *Sized) Unbreaking() (fuse protect.Fuse, ok bool) {
	need := l.Need(l.Trial.AmpacityA)
	need.FaultA = 0
	fuse, err := protect.Choose(need, protect.Bolting(l.Device.Families, l.Trial.Size.AreaMM2))
	return fuse, err == nil && l.FusePin == nil && l.NoFuse == nil && fuse.RatingA < l.Fuse.RatingA
}

// CrankPassS is how long a fuse has to bear the current of a start that shares the aux
// battery. Source: common practice, no source.
const CrankPassS = 3.0

// Saved says whether some fuse carries the load and saves this cable: the pinned one, where one is.
func (l *Sized) Saved(t cable.Trial) bool {
	if l.FusePin != nil {
		fuse := l.pinned(*l.FusePin, protect.Bolting(l.Device.Families, t.Size.AreaMM2))
		return fuse.RatingA <= t.AmpacityA && l.covers(fuse, t).Saves
	}
	return l.window(t)
}

// window says whether a fuse of the device lies between the load and what this cable bears.
func (l *Sized) window(t cable.Trial) bool {
	fuse, err := protect.Choose(l.Need(t.AmpacityA), protect.Bolting(l.Device.Families, t.Size.AreaMM2))
	return err == nil && l.covers(fuse, t).Saves
}

// Thicker is the next thicker size on the shelf on which a fuse fits; ok is false where none does.
func (l *Sized) Thicker(shelf []cable.Size) (s cable.Size, ok bool) {
	for _, size := range shelf {
		if size.CopperMM2() <= l.Trial.Size.CopperMM2() {
			continue
		}
		if t := l.Loop.Try(size); l.Saved(t) && t.AmpacityA >= l.Amps {
			return size, true
		}
	}
	return cable.Size{}, false
}

// covers judges a fuse against shorts all along the leg, and against the overloads
// that it may hold for long.
func (l *Sized) covers(fuse protect.Fuse, t cable.Trial) protect.Cover {
	far := protect.FaultCurrent.Value(l.SourceV, l.SourceOhm, l.FaultOhm(fuse, t))
	return fuse.Covers(l.NearFault, far, l.fault(t))
}

// fault is the leg's cable as a fault finds it.
func (l *Sized) fault(t cable.Trial) cable.Fault {
	return l.Loop.Insulation.Faulted(t.Size, l.Bay, math.Min(t.ConductorC, cable.ShortLimitC-1))
}

// fit puts a fuse in: the pinned one, the one the window allows, or, where there is none, the
// highest that the cable bears: doubt goes lower, and no fuse is above its cable. The plan's own for
// this cable is kept beside a pinned one.
func (l *Sized) fit() {
	need := l.Need(l.Trial.AmpacityA)
	families := protect.Bolting(l.Device.Families, l.Trial.Size.AreaMM2)
	l.Fuse, l.NoFuse = protect.Choose(need, families)
	if l.NoFuse != nil {
		l.Fuse = l.highest(families)
	}
	l.Fuse = l.bySchool(l.Fuse, families)
	l.AutoFuse = l.Fuse
	if l.FusePin != nil {
		l.Fuse = l.pinned(*l.FusePin, families)
	}
	l.Cover, l.Faulted = l.covers(l.Fuse, l.Trial), l.fault(l.Trial)
}

// highest is the highest rating that the cable bears, of those that clear a short at its far end if
// any does; the lowest rating there is where the cable bears none.
func (l *Sized) highest(families []protect.Family) protect.Fuse {
	best := protect.Fuse{Family: families[0], RatingA: families[0].Ratings[0]}
	clears := false
	for _, f := range families {
		for _, a := range f.Ratings {
			fuse := protect.Fuse{Family: f, RatingA: a}
			if a > l.Trial.AmpacityA || f.BreaksA < l.breakable() {
				continue
			}
			saves := l.covers(fuse, l.Trial).Saves
			if saves && !clears || saves == clears && a > best.RatingA {
				best, clears = fuse, saves
			}
		}
	}
	return best
}

// bySchool is the fuse that another way of choosing takes; the plan's own where that finds
// none.
func (l *Sized) bySchool(own protect.Fuse, families []protect.Family) protect.Fuse {
	best, found := own, false
	for _, f := range families {
		for _, a := range f.Ratings {
			if f.BreaksA < l.NearFault {
				continue
			}
			switch {
			case l.School == "1.2" && a >= 1.2*l.Amps && (!found || a < best.RatingA),
				l.School == "cable" && a <= l.Trial.AmpacityA && a > best.RatingA,
				l.School == "below" && a < own.RatingA && (!found || a > best.RatingA):
				best, found = protect.Fuse{Family: f, RatingA: a}, true
			}
		}
	}
	return best
}

// pinned is the fuse of a pinned rating, of the usual fuses where the pinned kind of
// device does not come in it.
func (l *Sized) pinned(ratingA float64, families []protect.Family) protect.Fuse {
	if fuse, ok := protect.Find(ratingA, l.NearFault, families); ok {
		return fuse
	}
	fuse, ok := protect.Find(ratingA, l.NearFault, protect.Power)
	if !ok {
		fuse, _ = protect.Find(ratingA, l.NearFault, protect.All)
	}
	return fuse
}
