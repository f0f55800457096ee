package retrofit

import (
	"math"
	"slices"

	"epitrope/core/cable"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/protect"
	"epitrope/core/run"
	"epitrope/core/unit"
	"epitrope/core/verdict"
)

// judgeCopper holds a wire's copper against what it carries, its fuses and what was
// measured on it.
func judgeCopper(d *design.Design, w job.FoundWire, size cable.Size, say func(id string, level verdict.Level, args ...any)) {
	like, bay := legOf(d, w), placeOf(d, w)
	amps, length := num(w.Amps), num(w.LengthM)
	best, least := insulated(w)
	try := func(n cable.Insulation) cable.Trial {
		return cable.Loop{Amps: max(amps, 0.1), CableM: max(length, 0.1), Bay: bay, Insulation: n}.Try(size)
	}
	t, doubt := try(best), try(least)
	switch {
	case amps > t.AmpacityA:
		say("found.burns", verdict.Bad, amps, t.AmpacityA)
	case amps > doubt.AmpacityA:
		say("found.burnsif", verdict.Caution, amps, doubt.AmpacityA)
	}
	for _, fuse := range []float64{num(w.FuseA), num(w.FuseBA)} {
		switch {
		case fuse > t.AmpacityA:
			say("found.over", verdict.Bad, fuse, size.Copper(), t.AmpacityA)
		case fuse > doubt.AmpacityA:
			say("found.overif", verdict.Caution, fuse, size.Copper(), doubt.AmpacityA)
		case fuse > 0 && length > 0:
			f, ok := foundFuse(fuse)
			if !ok {
				continue
			}
			near := like.SourceV / (like.SourceOhm + 2*run.JointOhm)
			far := like.SourceV / (like.SourceOhm + t.LoopOhm + run.FuseJoints*run.JointOhm)
			fault := best.Faulted(size, bay, math.Min(t.ConductorC, cable.ShortLimitC-1))
			if v := f.Covers(near, far, fault); !v.Saves {
				say("found.slow", verdict.Bad, fuse, size.Copper(), unit.Seconds(v.Far.BearsS))
			}
		}
	}
	copperV := amps * t.LoopOhm
	if amps > 0 && length > 0 && copperV > d.Facts.BatteryDrop.Value/100*12*d.Facts.N && job.Str(w.Role) != "trigger" {
		say("found.drop", verdict.Caution, copperV, amps)
	}
	if w.DropV != nil && amps > 0 && length > 0 {
		extra := (*w.DropV - copperV) / amps
		if extra >= suspectOhm {
			level := verdict.Caution
			if extra >= burnsOhm {
				level = verdict.Bad
			}
			say("found.joint", level, *w.DropV, copperV, extra*1000, extra*amps*amps)
		}
	}
}

// insulated is what a wire's insulation is at its best and at its least: one and the same where it was read.
func insulated(w job.FoundWire) (best, least cable.Insulation) {
	if w.Insulation == nil {
		return cable.Class105, cable.Class70
	}
	n, _ := cable.InsulationFor(*w.Insulation) // a document holds only classes that there are
	return n, n
}

// placeOf is where a wire lies: feeds to loads and signals where people live. How it is laid nobody looked at,
// so that nothing is held against it for that.
func placeOf(d *design.Design, w job.FoundWire) cable.Bay {
	if role := job.Str(w.Role); role == "load" || role == "trigger" {
		return d.Facts.AuxBay.Laid(cable.Open)
	}
	return legOf(d, w).Bay.Laid(cable.Open)
}

// leastPowerA is the least rating that fuses of the runs come in: below it a fuse is one for thin wires.
const leastPowerA = 30.0

// foundFuse is a fuse of a rating that was found; one that only breakers come in is a breaker.
func foundFuse(ratingA float64) (protect.Fuse, bool) {
	if ratingA < leastPowerA {
		return protect.Find(nearest(ratingA, protect.Blade.Ratings), 0, protect.Small)
	}
	return protect.Find(nearest(ratingA, protect.PowerRatings()), 0, slices.Concat(protect.Power, protect.All))
}
