// Package harness is what to make: every wire with its number, colour, ends and length, how
// it is cut from what is there, what has to be fetched, and the drawing.
//
// All of it follows from the system, the components and wires that a job became. Nothing
// here chooses a size: that is decided before.
package harness

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"epitrope/core/cable"
	"epitrope/core/system"
)

// Scheme is the workshop's colours, by what a wire is for.
type Scheme struct{ Feed, Return, Signal, House string }

// UsualScheme is red for feeds, black for returns. Source: common practice, no source;
// the workshop's own wins.
var UsualScheme = Scheme{Feed: "red", Return: "black", Signal: "violet", House: "orange"}

// Or is a scheme with the usual colours where it says none.
func (c Scheme) Or(usual Scheme) Scheme {
	for _, p := range []struct{ own, usual *string }{{&c.Feed, &usual.Feed}, {&c.Return, &usual.Return}, {&c.Signal, &usual.Signal},
		{&c.House, &usual.House}} {
		if strings.TrimSpace(*p.own) == "" {
			*p.own = *p.usual
		}
	}
	return c
}

// Lead is a conductor to be made: one piece of cable with its two ends.
type Lead struct {
	Number  string  `json:"number" doc:"As on the drawing and on its labels"`
	ID      string  `json:"id" doc:"In the system"`
	Run     string  `json:"run"`
	Role    string  `json:"role" enum:"feed,return,signal"`
	From    End     `json:"from"`
	To      End     `json:"to"`
	Size    string  `json:"size"`
	MM2     float64 `json:"mm2" doc:"Copper of one cable"`
	Cables  int     `json:"cables" doc:"Side by side"`
	Colour  string  `json:"colour"`
	RouteM  float64 `json:"routeM" doc:"Along its route, with the route's slack"`
	CutM    float64 `json:"cutM" doc:"To be cut: with what its ends take"`
	Sleeve  float64 `json:"sleeveMM" doc:"Heat shrink with adhesive on each end, before it shrinks"`
	Conduit float64 `json:"conduitMM" doc:"Inner diameter; 0 where it is laid in none"`
	Clip    float64 `json:"clipMM" doc:"P-clips that hold it along its route; 0 where it only links two things"`
	Hole    float64 `json:"holeMM" doc:"Grommet hole through the bulkhead; 0 where it passes none"`

	each string // the size of one of several side by side
}

// one is the size of one cable.
func (w Lead) one() string {
	if w.each == "" {
		return w.Size
	}
	return w.each
}

// What an end takes, and how lengths are cut. Source: common practice, no source: 50 mm to
// strip, crimp and bend at each end; cut to the next 50 mm.
const (
	endM   = 0.05
	cutToM = 0.05
)

// bulkheadX is how far behind the front bumper the engine space ends, in m. Source:
// assumed, as the vehicle's shape is.
const bulkheadX = 1.4

// conduits are inner diameters of corrugated conduit, in mm; conduitOver is how much wider
// than the cable it has to be. Source: from memory.
var conduits = []float64{7, 10, 13, 17, 21, 26, 32, 40}

const conduitOver = 1.15

// Number is a wire's number: its id in capitals.
func Number(id string) string { return strings.ToUpper(id) }

// Leads are the wires to be made of a system: each followed by the one that goes on where it
// ends, and otherwise in the system's order.
func Leads(s *system.System, colours Scheme) []Lead {
	list := []Lead{}
	for _, w := range s.Wires {
		if w.Existing || w.Role == system.Chassis {
			continue
		}
		list = append(list, wire(s, w, colours))
	}
	for i := 1; i < len(list); i++ {
		goesOn := func(l Lead) bool { return l.Role == list[i-1].Role && l.From.Component == list[i-1].To.Component }
		if k := slices.IndexFunc(list[i:], goesOn); k > 0 {
			next := list[i+k]
			copy(list[i+1:i+k+1], list[i:i+k])
			list[i] = next
		}
	}
	return list
}

func wire(s *system.System, w system.Wire, colours Scheme) Lead {
	size, err := cable.Parse(w.Size)
	if err != nil { // only where a size was never chosen
		size = cable.Size{Label: w.Size, AreaMM2: w.CopperMM2, Count: 1}
	}
	_, outer := size.DiameterMM()
	out := Lead{Number: Number(w.ID), ID: w.ID, Run: w.Run, Role: string(w.Role), Size: w.Size, MM2: math.Round(size.AreaMM2*100) / 100,
		Cables: size.Count, each: size.One().Label,
		Colour: colours.of(w), RouteM: w.LengthM, CutM: cut(w.LengthM)}
	out.From, out.To = end(s, w.From, size), end(s, w.To, size)
	out.From.Label = fmt.Sprintf("%s  %s  to %s", out.Number, w.Size, out.To.place())
	out.To.Label = fmt.Sprintf("%s  %s  from %s", out.Number, w.Size, out.From.place())
	out.Sleeve = shrink(outer)
	over := outer * math.Sqrt(float64(size.Count))
	laid := w.LengthM > LaidM && w.Run != "bank"
	if laid && w.Conduit {
		out.Conduit = conduit(over)
	}
	if laid {
		out.Clip = clipFor(max(over, out.Conduit*conduitWall))
	}
	a, okA := s.Component(w.From.Component)
	b, okB := s.Component(w.To.Component)
	if okA && okB && (a.At.X < bulkheadX) != (b.At.X < bulkheadX) && w.LengthM > 1 {
		out.Hole = hole(max(out.Conduit, over))
	}
	return out
}

// conduitWall is how much wider a conduit is outside than inside, and clips the P-clips there are, in mm. Source:
// from memory.
const conduitWall = 1.25

var clips = []float64{6, 8, 10, 13, 16, 19, 22, 25, 32, 40, 50}

// clipFor is the smallest P-clip round a diameter, in mm; the largest where it is too thick for all.
func clipFor(outerMM float64) float64 {
	for _, d := range clips {
		if d >= outerMM {
			return d
		}
	}
	return clips[len(clips)-1]
}

// LaidM is the length above which a wire is laid along a route; what is
// shorter only links two things. Source: common practice, no source.
const LaidM = 0.25

// cut is the length to be cut for a route.
func cut(routeM float64) float64 {
	return math.Round(math.Ceil((routeM+2*endM)/cutToM-1e-9)*cutToM*100) / 100
}

// conduit is the smallest conduit for a cable of a diameter, in mm; the largest where it
// is too thick for all.
func conduit(outerMM float64) float64 {
	for _, d := range conduits {
		if d >= conduitOver*outerMM {
			return d
		}
	}
	return conduits[len(conduits)-1]
}

// hole is the hole for a grommet that takes a conduit: its wall and the grommet's own.
// Source: from memory.
func hole(conduitMM float64) float64 { return math.Ceil((conduitMM+3)*1.25) + 2 }

// shrinks are heat shrink tubes before they shrink, in mm. Source: from memory.
var shrinks = []float64{3, 6, 9, 12, 19, 24, 30, 40}

func shrink(outerMM float64) float64 {
	for _, d := range shrinks {
		if d >= 1.4*outerMM {
			return d
		}
	}
	return shrinks[len(shrinks)-1]
}

func (c Scheme) of(w system.Wire) string {
	switch {
	case w.Role == system.Return:
		return c.Return
	case w.Role == system.Signal:
		return c.Signal
	case w.Run == "h1":
		return c.House
	}
	return c.Feed
}

// place is where an end goes, in a few words.
func (e End) place() string { return strings.TrimSpace(e.Name + " " + e.Terminal) }
