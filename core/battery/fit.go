package battery

import (
	"epitrope/core/unit"
	"math"
)

// Box is a length, a width and a height, in mm.
type Box struct{ L, W, H float64 }

// Space is where a battery is to go: the recess up to its lid (or to the seat above it at
// its lowest), and the opening that it goes in by, with the room free above that.
type Space struct {
	Recess             Box
	OpeningL, OpeningW float64
	AboveMM            float64
}

// Fit is whether and how a battery goes into a space.
type Fit struct {
	Goes     bool
	ClearMM  float64 // left over the terminals
	TiltDeg  float64 // it has to be tilted so far to go in; 0 upright
	Problems []string
}

// Clearances. Source: from memory: 20 mm over booted terminals; a vented battery is not
// tilted beyond 25°.
const (
	terminalMM = 20.0
	ventedTilt = 25.0
)

// FitIn returns whether a battery goes into a space. All measures are positive and in mm.
//
// Through an opening shorter than itself it goes tilted, along its length: a slab of
// thickness H at an angle θ takes H / sin θ of the opening, and L·sin θ + H·cos θ of
// height, recess and free room above together.
//
// Source: geometry.
func (c Chemistry) FitIn(b Box, s Space) Fit {
	f := Fit{ClearMM: s.Recess.H - b.H}
	say := func(format string, args ...any) { f.Problems = append(f.Problems, unit.Say(format, args...)) }
	if !lies(b.L, b.W, s.Recess.L, s.Recess.W) {
		say("it is %.0f × %.0f mm and the recess %.0f × %.0f mm", b.L, b.W, s.Recess.L, s.Recess.W)
	}
	switch {
	case f.ClearMM < 0:
		say("it is %.0f mm high and the recess %.0f mm", b.H, s.Recess.H)
	case f.ClearMM < terminalMM:
		say("%.0f mm left over its terminals; %.0f mm keep a lid or a seat off them", f.ClearMM, terminalMM)
	}
	f.enter(c, b, s, say)
	f.Goes = len(f.Problems) == 0
	return f
}

// lies says whether a footprint lies in a rectangle, either way round.
func lies(l, w, inL, inW float64) bool { return l <= inL && w <= inW || w <= inL && l <= inW }

// enter finds how the battery goes through the opening.
func (f *Fit) enter(c Chemistry, b Box, s Space, say func(string, ...any)) {
	room := s.Recess.H + s.AboveMM
	if lies(b.L, b.W, s.OpeningL, s.OpeningW) && s.AboveMM >= b.H {
		return // let down upright
	}
	best := math.Inf(1)
	for _, way := range [][3]float64{{b.L, b.W, s.OpeningL}, {b.L, b.W, s.OpeningW}, {b.W, b.L, s.OpeningL}, {b.W, b.L, s.OpeningW}} {
		long, across, open := way[0], way[1], way[2]
		other := s.OpeningW
		if open == s.OpeningW {
			other = s.OpeningL
		}
		if across > other || b.H >= open {
			continue
		}
		angle := math.Asin(b.H / open)
		if long*math.Sin(angle)+b.H*math.Cos(angle) <= room {
			best = math.Min(best, angle*180/math.Pi)
		}
	}
	f.TiltDeg = best
	switch {
	case math.IsInf(best, 1):
		f.TiltDeg = 0
		say("it does not go through an opening of %.0f × %.0f mm with %.0f mm free above, tilted or not", s.OpeningL, s.OpeningW, s.AboveMM)
	case c.Vented && best > ventedTilt:
		say("it goes in only tilted by %.0f°, and a vented battery spills beyond %.0f°", best, ventedTilt)
	}
}
