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
	Conduit float64 `json:"conduitMM" doc:"Inner diameter; 0 where it needs none"`
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

// End is one end of a wire.
type End struct {
	Component string `json:"component"`
	Name      string `json:"name"`
	Terminal  string `json:"terminal" doc:"DIN 72552"`
	Lug       string `json:"lug" doc:"Lug, ferrule or connector"`
	Label     string `json:"label" doc:"What its label says"`

	Stud string  `json:"-"` // the bolt that it goes on; "" where it goes on none
	Kind endKind `json:"-"`
}

// endKind is what a wire's end is made into.
type endKind int

const (
	otherEnd endKind = iota
	tubeLug
	ferrule
)

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
	if w.LengthM > LaidM {
		out.Conduit = conduit(outer * math.Sqrt(float64(size.Count)))
	}
	a, okA := s.Component(w.From.Component)
	b, okB := s.Component(w.To.Component)
	if okA && okB && (a.At.X < bulkheadX) != (b.At.X < bulkheadX) && w.LengthM > 1 {
		out.Hole = hole(out.Conduit)
	}
	return out
}

// LaidM is the length above which a wire is laid along a route and gets conduit; what is
// shorter only links two things. Source: common practice, no source.
const LaidM = 0.25

// cut is the length to be cut for a route.
func cut(routeM float64) float64 {
	return math.Ceil((routeM+2*endM)/cutToM-1e-9) * cutToM
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

// studs are the bolts at the terminals of components, by kind; ferrule and blade stand for
// terminals that are none. Source: from memory; the device's sheet wins.
var studs = map[system.ComponentKind]string{
	system.KindAlternator: "M8", system.KindBattery: "M8", system.KindFuse: "M6", system.KindRelay: "M6", system.KindContactor: "M8",
	system.KindIsolator: "M8", system.KindSplitter: "M8",
	system.KindSwitch: "M8", system.KindShunt: "M8", system.KindDisconnect: "M6", system.KindEarth: "M8", system.KindLoads: "M6",
	system.KindWinch: "M8", system.KindChangeover: "M6",
}

// studded are the terminals that carry a run: a thin wire from one shares its stud.
var studded = []string{"30", "87", "B+"}

// clampMM2 is the thickest cable that a charger's cage clamps take; one for more has studs.
// Source: from memory; the device's sheet wins.
const clampMM2 = 35.0

// end is what a wire ends in at a terminal.
func end(s *system.System, t system.Terminal, size cable.Size) End {
	c, _ := s.Component(t.Component)
	e := End{Component: t.Component, Name: c.Name, Terminal: t.Terminal}
	copper := lugSize(size)
	switch {
	case size.AreaMM2 <= 2.5 && c.Kind == system.KindEarth:
		e.Stud = "M6"
		e.Lug = "ring terminal " + copper + ", M6"
	case size.AreaMM2 <= 2.5 && c.Kind == system.KindFeedPoint:
		e.Lug = "tap holder with both fuses"
	case size.AreaMM2 <= 2.5 && c.Kind == system.KindCharger:
		e.Kind, e.Lug = ferrule, "ferrule "+copper
	case size.AreaMM2 <= 2.5 && slices.Contains(studded, t.Terminal) && studs[c.Kind] != "":
		e.Stud = studs[c.Kind]
		e.Lug = "ring terminal " + copper + ", " + e.Stud
	case size.AreaMM2 <= 2.5:
		e.Lug = "blade terminal 6.3 mm, " + copper
	case c.Kind == system.KindCharger && size.AreaMM2 <= clampMM2:
		e.Kind, e.Lug = ferrule, "ferrule "+copper
	case pluggedIn(c):
		e.Lug = "relay socket contact 9.5 mm, " + copper
	case c.Kind == system.KindPlug:
		e.Lug = "plug contact " + copper
	default:
		e.Kind, e.Stud = tubeLug, studs[c.Kind]
		if fuse, is := c.Device.(system.Fuse); is {
			e.Stud = fuse.Family.Stud()
		}
		if e.Stud == "" {
			e.Stud = "M8"
		}
		e.Lug = "tube lug " + copper + ", " + e.Stud
	}
	return e
}

// lugSize is how lugs and ferrules for a cable are sold: by gauge for gauge cable, by copper otherwise.
func lugSize(size cable.Size) string {
	if size.System == cable.AWG {
		return size.One().Label
	}
	return fmt.Sprintf("%g mm²", math.Round(size.AreaMM2*10)/10)
}

// pluggedIn says whether a contact sits in a socket.
func pluggedIn(c system.Component) bool {
	contact, ok := c.Device.(system.Contact)
	return ok && contact.PlugIn
}
