package run

import (
	"math"

	"epitrope/core/cable"
	"epitrope/core/protect"
	"epitrope/core/system"
)

// FuseDevice is a leg's fuse in its holder.
func (l *Sized) FuseDevice() system.Fuse { return system.Fuse{Fuse: l.Fuse, Ohm: l.FuseOhm()} }

// FuseOhm is the resistance of the fuse.
func (l *Sized) FuseOhm() float64 { return protect.Resistance.Value(l.Fuse.RatingA) }

// FaultOhm is what a short at the leg's end meets on its way.
func (l *Sized) FaultOhm(fuse protect.Fuse, t cable.Trial) float64 {
	return t.LoopOhm + l.JointsOhm + l.PlugOhm + protect.Resistance.Value(fuse.RatingA)
}

// Need is what the fuse is chosen for, on a cable that carries ampacity amps: within the
// device's sheet as far as a fuse within it carries the load.
func (l *Sized) Need(ampacity float64) protect.Need {
	n := protect.Need{ContinuousA: l.Amps, AmbientC: l.Bay.AmbientC, CableA: ampacity, FaultA: l.NearFault, PassA: l.PassA, PassS: crankPassS}
	if l.SheetA > 0 {
		within := n
		within.DeviceMaxA = l.SheetA
		if _, err := protect.Choose(within, l.Device.Families); err == nil {
			return within
		}
	}
	return n
}

// crankPassS is how long a fuse has to bear the current of a start that shares the aux
// battery. Source: common practice, no source.
const crankPassS = 3.0

// Saved says whether some fuse carries the load and saves this cable.
func (l *Sized) Saved(t cable.Trial) bool {
	fuse, err := protect.Choose(l.Need(t.AmpacityA), l.Device.Families)
	return err == nil && l.covers(fuse, t).Saves
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

// fit puts a fuse in: the pinned one, the one the window allows, or, where there
// is none, the lowest that carries the load, so that the notes can say what it
// does to the cable.
func (l *Sized) fit() {
	need := l.Need(l.Trial.AmpacityA)
	families := l.Device.Families
	l.Fuse, l.NoFuse = protect.Choose(need, families)
	if l.NoFuse != nil {
		need.CableA = math.Inf(1)
		carries, err := protect.Choose(need, families)
		if err != nil {
			last := families[len(families)-1]
			carries = protect.Fuse{Family: last, RatingA: last.Ratings[len(last.Ratings)-1]}
		}
		l.Fuse = carries
	}
	l.Fuse = l.bySchool(l.Fuse, families)
	if l.FusePin != nil {
		l.Fuse = l.pinned(*l.FusePin, families)
	}
	l.Cover, l.Faulted = l.covers(l.Fuse, l.Trial), l.fault(l.Trial)
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
