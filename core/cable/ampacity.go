package cable

import (
	"fmt"
	"math"

	"epitrope/core/unit"
	"epitrope/core/working"
)

// Insulation is a cable's insulation class by its highest conductor temperature.
type Insulation struct {
	LimitC float64
	Label  string
	engine float64                  // factor for engine spaces of about 50 °C
	column []struct{ a, i float64 } // area in mm² to amps, free air at 30 °C
	source working.Source
}

// mm2Source is where the ampacity columns by area come from.
const mm2Source = "ISO 10133 / ISO 13297, single conductor in free air at 30 °C (from memory)"

// The insulation classes. Factors for engine spaces: ISO 10133, ABYC E-11.
var (
	Class70 = Insulation{70, "70 °C", 0.75, []struct{ a, i float64 }{{1, 14}, {1.5, 18}, {2.5, 25}, {4, 35}, {6, 45}, {10, 65},
		{16, 90}, {25, 120}, {35, 160}, {50, 210}, {70, 265}, {95, 310}, {120, 360}}, mm2Source}
	Class85 = Insulation{85, "85 °C", 0.82, []struct{ a, i float64 }{{1, 18}, {1.5, 21}, {2.5, 30}, {4, 40}, {6, 50}, {10, 70},
		{16, 100}, {25, 140}, {35, 185}, {50, 230}, {70, 285}, {95, 330}, {120, 400}}, mm2Source}
	Class105 = Insulation{105, "105 °C", 0.86, []struct{ a, i float64 }{{1, 20}, {1.5, 25}, {2.5, 35}, {4, 45}, {6, 60}, {10, 90},
		{16, 130}, {25, 170}, {35, 210}, {50, 270}, {70, 330}, {95, 390}, {120, 450}}, mm2Source}
)

// awg105 is the ampacity of AWG conductors with 105 °C insulation.
// Source: ABYC E-11 table VI, outside engine spaces.
var awg105 = map[int]float64{16: 25, 14: 35, 12: 45, 10: 60, 8: 80, 6: 120, 4: 160, 2: 210, 1: 245,
	0: 285, -1: 330, -2: 385, -3: 445}

// InsulationFor returns the class that insulation rated for limitC belongs to:
// 70, 85 or 105 °C, the next lower one. It returns an error below 70 °C.
func InsulationFor(limitC float64) (Insulation, error) {
	switch {
	case limitC >= 105:
		return Class105, nil
	case limitC >= 85:
		return Class85, nil
	case limitC >= 70:
		return Class70, nil
	}
	return Insulation{}, fmt.Errorf("%s insulation is not for vehicles; allowed are 70, 85 and 105 °C", unit.Plain(limitC, "°C", 0))
}

// FreeAir returns what one cable of a size carries in free air at 30 °C, in A, and
// the table it comes from; between the table's sizes it is interpolated on the
// logarithms of area and current.
//
// Source: ISO 10133 / ISO 13297 by area; ABYC E-11 for AWG with 105 °C insulation.
func (n Insulation) FreeAir(s Size) (amps float64, source working.Source) {
	if i, ok := awg105[s.Gauge]; ok && s.System == AWG && n.LimitC == 105 {
		return i, "ABYC E-11 table VI, 105 °C"
	}
	i := 1
	for i < len(n.column)-1 && n.column[i].a < s.AreaMM2 {
		i++
	}
	low, high := n.column[i-1], n.column[i]
	if s.AreaMM2 == low.a {
		return low.i, n.source
	}
	if s.AreaMM2 == high.a {
		return high.i, n.source
	}
	slope := math.Log(high.i/low.i) / math.Log(high.a/low.a)
	amps = low.i * math.Pow(s.AreaMM2/low.a, slope)
	return amps, n.source + ", interpolated by area"
}

// Ampacity is what a cable may carry where it lies.
var Ampacity = working.Declare("I_z = n·I_30·f·g",
	"ISO 10133 / ISO 13297, ABYC E-11; g from IEC 60364-5-52",
	working.Symbol{Letter: "I_z", Name: "may carry, by table", Unit: "A", Digits: 0},
	working.Symbol{Letter: "n", Name: "cables in parallel", Unit: "", Digits: 0},
	working.Symbol{Letter: "I_30", Name: "one in free air at 30 °C", Unit: "A", Digits: 0},
	working.Symbol{Letter: "f", Name: "factor for the place", Unit: "", Digits: 2},
	working.Symbol{Letter: "g", Name: "factor for loaded cables that touch", Unit: "", Digits: 2})

// Carried is what a size may carry where it lies, and what says so.
type Carried struct {
	Amps     float64
	TableA   float64 // by the tables and their factors, at 50 °C where it is hotter
	BalanceA float64 // by the heat balance
	Balance  bool    // the heat balance decided
	FreeAirA float64 // one cable, free air, 30 °C
	Table    working.Source
	// PlaceFactor and GroupFactor are the tables' factors for heat and for company.
	PlaceFactor, GroupFactor float64
}

// Carries returns what a size may carry in a bay. In free air up to 50 °C the tables
// decide. In conduit and bundles it is the lower of the table with the standard's
// grouping factor and the heat balance. In hotter places the heat balance decides,
// never above what the table allows at 50 °C, so that heat never helps.
func (n Insulation) Carries(s Size, b Bay) Carried {
	c := Carried{BalanceA: n.Thermal(s, b).Amps(n.LimitC)}
	c.FreeAirA, c.Table = n.FreeAir(s)
	known := b
	if b.AmbientC > EngineC {
		known = Ambient(EngineC)
	}
	together := b.Laying.loaded(s.Count)
	c.PlaceFactor, c.GroupFactor = known.Factor(n), Grouping(together)
	c.TableA = Ampacity.Value(float64(s.Count), c.FreeAirA, c.PlaceFactor, c.GroupFactor)
	inTable := b.AmbientC <= EngineC && together == 1 && !b.Laying.Conduit
	c.Balance = !inTable && c.BalanceA < c.TableA
	c.Amps = c.TableA
	if c.Balance {
		c.Amps = c.BalanceA
	}
	return c
}
