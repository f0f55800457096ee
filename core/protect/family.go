// Package protect knows fuses and breakers: the families of ISO 8820 with their
// ratings, how long they take to open, what they can break, and which rating saves
// a cable.
//
// A fuse protects the cable from heat. Its size tells nothing of what a device
// draws.
package protect

import (
	"math"
	"slices"
)

// Family is a kind of fuse or breaker with its ratings and its opening-time band.
type Family struct {
	ID      string
	Label   string
	Short   string    // the same in a word
	Ratings []float64 // A, lowest first
	BreaksA float64   // breaking capacity at 32 V
	bands   []band
	heat    heat
	Resets  Reset
}

// Reset is what happens after it opened.
type Reset string

// The ways of resetting.
const (
	Never  Reset = ""       // a fuse is replaced
	ByHand Reset = "hand"   // a breaker that somebody closes again
	Itself Reset = "itself" // a breaker that closes on the fault again
)

// heat is how a rating falls in a hot place: by perK of it for each kelvin above
// coolC.
type heat struct{ coolC, perK float64 }

// The 80 % loading already covers a warm place up to 65 °C for a fuse; hotter ones
// cost 0.25 % a kelvin. Fuses lose about 10 % at 65 °C. Breakers are thermal: they
// lose half a per cent a kelvin from 40 °C. Source: common practice, no source.
var (
	fuseHeat    = heat{65, 0.0025}
	breakerHeat = heat{40, 0.005}
)

// HeatFactor returns what share of its 80 % one of the family keeps at ambientC
// (−40 to 120 °C).
func (f Family) HeatFactor(ambientC float64) float64 {
	return 1 - f.heat.perK*max(0, ambientC-f.heat.coolC)
}

// Holds returns what share of its rating one of the family carries for hours at ambientC
// (−40 to 120 °C) before it may open: a fuse loses about 10 % from 25 to 65 °C, a breaker
// as HeatFactor.
//
// Source: common practice, no source.
func (f Family) Holds(ambientC float64) float64 {
	if f.Resets != Never {
		return f.HeatFactor(ambientC)
	}
	return 1 - f.heat.perK*max(0, ambientC-25)
}

// band is the least and the greatest opening time, in seconds, at a multiple of
// the rating.
type band struct{ multiple, min, max float64 }

const hour = 3600

// The families, bands after ISO 8820 (from memory). The single-bolt ratings, and
// the breakers' ratings, bands and breaking capacity, are from memory.
var (
	Blade = Family{"blade", "blade fuse, type C", "blade", []float64{1, 2, 3, 4, 5, 7.5, 10, 15, 20, 25, 30, 40}, 1000,
		[]band{{1.10, 100 * hour, math.Inf(1)}, {1.35, 0.75, 600}, {2, 0.15, 5}, {3.5, 0.04, 0.5}, {6, 0.02, 0.1}}, fuseHeat, Never}
	Strip30 = Family{"sf30", "strip fuse, SF30", "strip", []float64{30, 40, 50, 60, 70, 80, 100, 125, 150, 200}, 2000,
		[]band{{1.10, 4 * hour, math.Inf(1)}, {1.35, 60, 1800}, {2, 1, 15}, {3.5, 0.3, 5}, {6, 0.1, 1}}, fuseHeat, Never}
	Strip51 = Family{"sf51", "strip fuse, SF51", "strip", []float64{100, 125, 150, 175, 200, 225, 250, 300, 350, 400, 425, 500}, 2000,
		[]band{{1.10, 4 * hour, math.Inf(1)}, {1.35, 120, 1800}, {2, 1, 15}, {3.5, 0.3, 5}, {6, 0.1, 1}}, fuseHeat, Never}
	Bolt = Family{"bolt", "single-bolt fuse", "single-bolt", []float64{30, 40, 50, 60, 80, 100, 125, 150, 175, 200, 225, 250, 300}, 10000,
		[]band{{1.10, 100 * hour, math.Inf(1)}, {1.35, 60, 1800}, {2, 1, 30}, {3.5, 0.2, 5}, {6, 0.05, 1}}, fuseHeat, Never}
	Ceramic = Family{"ceramic", "ceramic high-breaking fuse", "ceramic", []float64{110, 125, 150, 175, 200, 225, 250, 300, 350, 400}, 20000,
		[]band{{1.10, 4 * hour, math.Inf(1)}, {1.35, 60, 1800}, {2, 1, 60}, {3.5, 0.1, 2}, {6, 0.01, 0.1}}, fuseHeat, Never}
	Breaker     = Family{"breaker", "breaker, reset by hand", "breaker", breakerRatings, 3000, breakerBands, breakerHeat, ByHand}
	AutoBreaker = Family{"auto-breaker", "breaker that resets itself", "breaker", breakerRatings, 3000, breakerBands, breakerHeat, Itself}
)

var (
	breakerRatings = []float64{30, 40, 50, 60, 70, 80, 100, 120, 135, 150, 200}
	breakerBands   = []band{{1.10, hour, math.Inf(1)}, {1.35, 60, hour}, {2, 10, 60}, {3.5, 2, 12}, {6, 0.5, 3}}
)

// Power lists the families for the runs between batteries, cheapest first; Small
// those for thin wires.
var (
	Power = []Family{Strip30, Strip51, Bolt, Ceramic}
	Small = []Family{Blade}
	All   = []Family{Blade, Strip30, Strip51, Bolt, Ceramic, Breaker, AutoBreaker}
)

// Device is a way of protecting a run between batteries.
type Device struct {
	ID       string
	Label    string
	Families []Family
}

// Devices lists the ways, the usual one first.
var Devices = []Device{
	{"fuse", "fuse", Power},
	{"breaker", "breaker, reset by hand", []Family{Breaker}},
	{"auto-breaker", "breaker that resets itself", []Family{AutoBreaker}},
}

// DeviceByID finds a way of protecting; the usual one where there is none such.
func DeviceByID(id string) Device {
	for _, d := range Devices {
		if d.ID == id {
			return d
		}
	}
	return Devices[0]
}

// PowerRatings lists every rating of the devices once, lowest first.
func PowerRatings() []float64 {
	all := slices.Clone(breakerRatings)
	for _, f := range Power {
		all = append(all, f.Ratings...)
	}
	slices.Sort(all)
	return slices.Compact(all)
}

// Opens returns the shortest and the longest time, in seconds, in which a fuse
// of the family opens at a multiple of its rating, interpolated on logarithms.
// Up to 1.1 times it need not open at all: max is +Inf. Beyond 6 times the times
// fall with the square of the current, as the element no longer gives off heat.
//
// Source: ISO 8820 (from memory); physics beyond 6 times.
func (f Family) Opens(multiple float64) (min, max float64) {
	first, last := f.bands[0], f.bands[len(f.bands)-1]
	if multiple <= first.multiple {
		return first.min, math.Inf(1)
	}
	if multiple >= last.multiple {
		faster := (last.multiple / multiple) * (last.multiple / multiple)
		return last.min * faster, last.max * faster
	}
	i := 1
	for f.bands[i].multiple < multiple {
		i++
	}
	low, high := f.bands[i-1], f.bands[i]
	share := math.Log(multiple/low.multiple) / math.Log(high.multiple/low.multiple)
	between := func(a, b float64) float64 { return math.Exp(math.Log(a)*(1-share) + math.Log(b)*share) }
	if multiple == high.multiple {
		return high.min, high.max
	}
	if math.IsInf(low.max, 1) {
		return between(low.min, high.min), math.Inf(1)
	}
	return between(low.min, high.min), between(low.max, high.max)
}
