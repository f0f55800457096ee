package cable

import (
	"epitrope/core/unit"
	"math"
)

// Bay is the surroundings of a run: how warm the place is, and how the cable lies
// there.
type Bay struct {
	Label    string
	AmbientC float64
	Laying   Laying
	engine   bool
}

// CabinC and EngineC are the ambient temperatures that the two named bays stand
// for. EngineC is what the factors of ISO 10133 stand for, and the hottest place
// that its tables know; CabinC is the tables' own reference.
const (
	CabinC  = 30.0
	EngineC = 50.0
)

// Cabin is inside the vehicle.
func Cabin() Bay { return Bay{Label: "cabin, 30 °C", AmbientC: CabinC} }

// EngineBay is the engine space.
func EngineBay() Bay {
	return Bay{Label: "engine space, about 50 °C", AmbientC: EngineC, engine: true}
}

// Ambient is a place of a known temperature.
func Ambient(c float64) Bay { return Bay{Label: unit.Plain(c, "°C", 0), AmbientC: c} }

// Laid is the bay with the cable laid in a way.
func (b Bay) Laid(l Laying) Bay {
	b.Laying = l
	return b
}

// Factor returns what share of the free-air figure a cable carries in a bay: the
// standards' factor in an engine space; elsewhere √((θ − T)/(θ − 30)), from heat
// given off in proportion to the difference in temperature, at most 1; zero where
// the place is as hot as the insulation bears.
//
// Source: ISO 10133, ABYC E-11 for the engine space; physics elsewhere.
func (b Bay) Factor(n Insulation) float64 {
	switch {
	case b.engine:
		return n.engine
	case b.AmbientC <= CabinC:
		return 1
	case b.AmbientC >= n.LimitC:
		return 0
	}
	return math.Sqrt((n.LimitC - b.AmbientC) / (n.LimitC - CabinC))
}

// Laying is how a cable lies along its run. The zero value is Open.
type Laying struct {
	ID      string
	Label   string
	Beside  int  // other cables, loaded alike, that it touches
	Conduit bool // all of them in one conduit
}

// The ways of laying.
var (
	Open        = Laying{ID: "open", Label: "open, on its own"}
	Pair        = Laying{ID: "pair", Label: "feed and return side by side", Beside: 1}
	Conduit     = Laying{ID: "conduit", Label: "on its own in conduit", Conduit: true}
	PairConduit = Laying{ID: "pair-conduit", Label: "feed and return in one conduit", Beside: 1, Conduit: true}
	Loom        = Laying{ID: "loom", Label: "in a loom with five more under load", Beside: 5}
	Layings     = []Laying{Open, Conduit, Pair, PairConduit, Loom}
)

// Describe is the way of laying in words; of the zero value too.
func (l Laying) Describe() string {
	if l.Label == "" {
		return Open.Label
	}
	return l.Label
}

// LayingByID finds a way of laying; Open where there is none such.
func LayingByID(id string) Laying {
	for _, l := range Layings {
		if l.ID == id {
			return l
		}
	}
	return Open
}

// loaded is how many loaded cables lie together where a size of count parallel
// cables is laid this way.
func (l Laying) loaded(count int) int { return (l.Beside + 1) * count }

// grouping is what each of touching loaded circuits carries of what one would, in
// free air or in conduit. Source: IEC 60364-5-52 table B.52.17 item 1 (from memory).
var grouping = []float64{1, 0.80, 0.70, 0.65, 0.60, 0.57, 0.54, 0.52, 0.50}

// Grouping returns the standard's factor for a number of loaded cables that touch;
// beyond nine, the last.
//
// Source: IEC 60364-5-52 table B.52.17 (from memory).
func Grouping(cables int) float64 {
	return grouping[min(max(cables, 1), len(grouping))-1]
}
