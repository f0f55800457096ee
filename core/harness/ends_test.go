package harness

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"epitrope/core/parts"
	"epitrope/core/protect"
	"epitrope/core/system"
)

// What a wire ends in follows from what it ends at and how thick it is: lugs on studs, in
// the size of the stud; ferrules in clamps; blades where there are no studs.
func TestWhatAWireEndsIn(t *testing.T) {
	s := system.System{}
	for id, kind := range map[string]system.ComponentKind{"battery": system.KindBattery, "fuse": system.KindFuse,
		"relay": system.KindRelay, "contactor": system.KindContactor,
		"earth": system.KindEarth, "feed": system.KindFeedPoint, "plug": system.KindPlug, "control": system.KindControl} {
		s.Add(system.Component{ID: id, Kind: kind, Name: id})
	}
	for id, outputA := range map[string]float64{"charger": 40, "small": 20, "large": 60} {
		s.Add(system.Component{ID: id, Kind: system.KindCharger, Device: system.Charger{Card: parts.Charger{OutputA: outputA}}})
	}
	s.Add(system.Component{ID: "stud", Kind: system.KindChangeover, Device: system.Contact{}})
	s.Add(system.Component{ID: "socket", Kind: system.KindChangeover, Device: system.Contact{PlugIn: true}})
	s.Add(system.Component{ID: "strip", Kind: system.KindFuse, Device: system.Fuse{Fuse: protect.Fuse{Family: protect.Strip30, RatingA: 60}}})
	for _, c := range []struct{ component, terminal, size, want string }{
		{"battery", "30", "16 mm²", "tube lug 16 mm², M8"}, {"fuse", "in", "16 mm²", "tube lug 16 mm², M6"},
		{"strip", "in", "16 mm²", "tube lug 16 mm², M5"},
		{"relay", "30", "25 mm²", "tube lug 25 mm², M6"},
		{"contactor", "87", "70 mm²", "tube lug 70 mm², M8"}, {"earth", "", "16 mm²", "tube lug 16 mm², M8"},
		{"stud", "87a", "16 mm²", "tube lug 16 mm², M6"},
		{"charger", "30", "16 mm²", "ferrule 16 mm²"}, {"charger", "31", "35 mm²", "reducing pin, 35 mm² to 16 mm²"},
		{"small", "30", "16 mm²", "reducing pin, 16 mm² to 10 mm²"}, {"large", "30", "50 mm²", "tube lug 50 mm², M8"},
		{"charger", "30", "4 AWG", "reducing pin, 4 AWG to 16 mm²"},
		{"charger", "15", "1.5 mm²", "ferrule 1.5 mm²"}, {"socket", "30", "6 mm²", "relay socket contact 9.5 mm, 6 mm²"},
		{"plug", "+", "35 mm²", "plug contact 35 mm²"},
		{"contactor", "86", "1.5 mm²", "blade terminal 6.3 mm, 1.5 mm²"}, {"stud", "86", "1.5 mm²", "blade terminal 6.3 mm, 1.5 mm²"},
		{"control", "0", "1.5 mm²", "blade terminal 6.3 mm, 1.5 mm²"},
		{"stud", "87", "1.5 mm²", "ring terminal 1.5 mm², M6"}, {"contactor", "30", "1.5 mm²", "ring terminal 1.5 mm², M8"},
		{"earth", "", "1.5 mm²", "ring terminal 1.5 mm², M6"},
		{"feed", "15", "1.5 mm²", "blade terminal 6.3 mm, 1.5 mm²"}, {"battery", "30", "6 AWG", "tube lug 6 AWG, M8"},
		{"battery", "30", "2 × 35 mm²", "tube lug 35 mm², M8"},
	} {
		w := system.Wire{ID: "c1", Role: system.Feed, From: system.Terminal{Component: c.component, Terminal: c.terminal},
			To: system.Terminal{Component: "battery", Terminal: "30"}, Size: c.size, LengthM: 2}
		assert.Equal(t, c.want, wire(&s, w, UsualScheme).From.Lug, "%s %s, %s", c.component, c.terminal, c.size)
	}
}

// Lengths are the route's and what both ends take, to the next 50 mm; what goes over a cable
// is the next size that it fits into.
func TestWhatIsCutAndWhatGoesOverIt(t *testing.T) {
	for route, want := range map[float64]float64{0.1: 0.2, 0.15: 0.25, 1: 1.1, 1.01: 1.15, 5.25: 5.35} {
		assert.InDelta(t, want, cut(route), 1e-9, "%g m", route)
	}
	for outer, want := range map[float64]float64{2: 7, 6.1: 10, 8: 10, 9: 13, 18: 21, 34: 40, 60: 40} {
		assert.Equal(t, want, conduit(outer), "%g mm", outer)
	}
	for outer, want := range map[float64]float64{2: 3, 4: 6, 6: 9, 8.5: 12, 13: 19, 60: 40} {
		assert.Equal(t, want, shrink(outer), "%g mm", outer)
	}
	last := 0.0
	for _, c := range conduits {
		assert.Greater(t, hole(c), c+3, "a hole takes the conduit's wall and the grommet")
		assert.Greater(t, hole(c), last)
		last = hole(c)
	}
}

// A wire through the bulkhead has a hole of its own; one that stays on a side has none, and
// a link beside a device neither hole nor conduit.
func TestHolesAndLinks(t *testing.T) {
	s := system.System{}
	s.Add(system.Component{ID: "start", Kind: system.KindBattery})
	s.Add(system.Component{ID: "aux", Kind: system.KindBattery})
	s.Components[1].At.X = 4
	lead := func(lengthM float64) Lead {
		return wire(&s, system.Wire{ID: "c1", Role: system.Feed, From: system.Terminal{Component: "start", Terminal: "30"},
			To: system.Terminal{Component: "aux", Terminal: "30"}, Size: "16 mm²", LengthM: lengthM, Conduit: true}, UsualScheme)
	}
	assert.Equal(t, 10.0, lead(5).Conduit)
	assert.Equal(t, hole(10), lead(5).Hole)
	assert.Zero(t, lead(0.2).Conduit)
	assert.Zero(t, lead(0.2).Hole)
	s.Components[1].At.X = 1
	assert.Zero(t, lead(5).Hole, "both before the bulkhead")
	two := wire(&s, system.Wire{ID: "c1", Role: system.Feed, From: system.Terminal{Component: "start"}, To: system.Terminal{Component: "aux"},
		Size: "2 × 16 mm²", LengthM: 5, Conduit: true}, UsualScheme)
	assert.Equal(t, 2, two.Cables)
	assert.Greater(t, two.Conduit, lead(5).Conduit, "two side by side")
	open := wire(&s, system.Wire{ID: "c1", Role: system.Feed, From: system.Terminal{Component: "start"}, To: system.Terminal{Component: "aux"},
		Size: "16 mm²", LengthM: 5}, UsualScheme)
	assert.Zero(t, open.Conduit, "ampacity took it as open")
	assert.Positive(t, open.Clip)
}

// Trade §21.14: a tap holder in a slot has the new circuit's fuse: no lead to another one beside it. What has a
// terminal of its own is wired to a holder.
func TestATapHolderHasItsFuse(t *testing.T) {
	for slot, want := range map[bool][]string{true: {"T1B"}, false: {"T1", "T1B"}} {
		s := system.System{}
		s.Add(system.Component{ID: "feed", Kind: system.KindFeedPoint, Device: system.FeedPoint{Slot: slot}})
		s.Add(system.Component{ID: "f3", Kind: system.KindFuse,
			Device: system.Fuse{Fuse: protect.Fuse{Family: protect.Blade, RatingA: 3}}})
		s.Add(system.Component{ID: "coupling", Kind: system.KindCharger, Device: system.Charger{}})
		at := func(c, t string) system.Terminal { return system.Terminal{Component: c, Terminal: t} }
		s.Join(system.Wire{ID: "t1", Role: system.Signal, From: at("feed", "15"), To: at("f3", "in"), Size: "1.5 mm²", LengthM: 0.15,
			Existing: slot})
		s.Join(system.Wire{ID: "t1b", Role: system.Signal, From: at("f3", "out"), To: at("coupling", "15"), Size: "1.5 mm²", LengthM: 4})
		wires := Leads(&s, UsualScheme)
		numbers := []string{}
		for _, w := range wires {
			numbers = append(numbers, w.Number)
		}
		assert.Equal(t, want, numbers)
		holders := []string{}
		for _, l := range PartsList(&s, wires, nil, CutList(wires, nil)).Lines {
			if l.Kind == "holder" {
				holders = append(holders, l.What)
			}
		}
		assert.Equal(t, map[bool][]string{true: {"tap holder for two blade fuses, with its lead"},
			false: {"holder for a blade fuse, type C"}}[slot], holders)
	}
}

// Colours are the workshop's, by what a wire is for; what it does not say is as usual.
func TestColours(t *testing.T) {
	own := Scheme{Return: "blue", Signal: "  "}.Or(UsualScheme)
	assert.Equal(t, Scheme{Feed: "red", Return: "blue", Signal: "violet", House: "orange"}, own)
	for _, c := range []struct {
		wire system.Wire
		want string
	}{
		{system.Wire{Run: "c1", Role: system.Feed}, "red"}, {system.Wire{Run: "c1", Role: system.Return}, "blue"},
		{system.Wire{Run: "t1", Role: system.Signal}, "violet"}, {system.Wire{Run: "h1", Role: system.Feed}, "orange"},
		{system.Wire{Run: "h1", Role: system.Return}, "blue"},
	} {
		assert.Equal(t, c.want, own.of(c.wire))
	}
}
