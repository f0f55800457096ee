package protect

import (
	"fmt"

	"epitrope/core/unit"
	"epitrope/core/working"
)

// Least is the lowest rating that carries a load for hours: a fuse is loaded to
// at most 80 % of its rating.
var Least = working.Declare("I_F = 1.25·I / f_T",
	"common practice, no source; 80 % loading as ISO 8820 and ABYC E-11 advise",
	working.Symbol{Letter: "I_F", Name: "lowest fuse rating", Unit: "A", Digits: 1},
	working.Symbol{Letter: "I", Name: "continuous current", Unit: "A", Digits: 1},
	working.Symbol{Letter: "f_T", Name: "factor for heat at the fuse", Unit: "", Digits: 3})

// Carries returns the current, in A, that it bears for hours at ambientC.
func (f Fuse) Carries(ambientC float64) float64 {
	return f.RatingA * 0.8 * f.Family.HeatFactor(ambientC)
}

// tolerance forgives the last bits of a division: 12 A × 1.25 fits a 15 A fuse.
const tolerance = 1e-9

// Fuse is a rating of a family.
type Fuse struct {
	Family  Family
	RatingA float64
}

// Label is "60 A strip fuse, SF30".
func (f Fuse) Label() string {
	return unit.Plain(f.RatingA, "A", 1) + " " + f.Family.Label
}

// Need is what a fuse has to do.
type Need struct {
	ContinuousA float64 // the worst continuous current
	AmbientC    float64 // where the fuse sits
	CableA      float64 // what the cable carries where it lies
	DeviceMaxA  float64 // the device's own limit; 0 where it states none
	FaultA      float64 // the greatest current it may have to break; 0 where unknown
	PassA       float64 // a current that passes for PassS seconds without opening it: inrush, cranking
	PassS       float64
}

// passes says whether a fuse lets the need's short current through.
func (n Need) passes(f Fuse) bool {
	if n.PassA <= 0 {
		return true
	}
	soonest, _ := f.Family.Opens(n.PassA / f.RatingA)
	return soonest > n.PassS
}

// Lowest is the bottom of the window for a family, in A.
func (n Need) Lowest(f Family) float64 { return Least.Value(n.ContinuousA, f.HeatFactor(n.AmbientC)) }

// Highest is the top of the window, in A: what the cable bears, or less where
// the device says so.
func (n Need) Highest() float64 {
	if n.DeviceMaxA > 0 && n.DeviceMaxA < n.CableA {
		return n.DeviceMaxA
	}
	return n.CableA
}

// NoFuse is a need that no rating meets.
type NoFuse struct {
	Need Need
	Why  string
}

func (e *NoFuse) Error() string { return e.Why }

// Choose returns the lowest rating in the window 1.25 × load … cable, from the
// first of families that has one and can break the fault. It returns *NoFuse
// where the window is empty, no rating lies in it, or none can break the fault.
func Choose(need Need, families []Family) (Fuse, error) {
	high := need.Highest()
	fits := false
	for _, family := range families {
		low := need.Lowest(family)
		for _, rating := range family.Ratings {
			if rating < low-tolerance || rating > high+tolerance || !need.passes(Fuse{family, rating}) {
				continue
			}
			fits = true
			if family.BreaksA >= need.FaultA {
				return Fuse{family, rating}, nil
			}
			break
		}
	}
	if fits {
		return Fuse{}, &NoFuse{need, unit.Say("no fuse can break %.1f kA", need.FaultA/1000)}
	}
	if need.PassA > 0 {
		return Fuse{}, &NoFuse{need, fmt.Sprintf("no rating up to %s carries %s for hours and lets %s through for %s",
			unit.Plain(high, "A", 1), unit.Plain(need.ContinuousA, "A", 1), unit.Plain(need.PassA, "A", 0), unit.Seconds(need.PassS))}
	}
	return Fuse{}, &NoFuse{need, fmt.Sprintf("no rating lies between %s and %s",
		unit.Plain(need.Lowest(families[0]), "A", 1), unit.Plain(high, "A", 1))}
}

// Find returns the fuse of a given rating from the first of families that has
// it and can break faultA; failing that, the first that has it. ok is false
// where none has the rating.
func Find(ratingA, faultA float64, families []Family) (fuse Fuse, ok bool) {
	for _, family := range families {
		for _, rating := range family.Ratings {
			if rating != ratingA {
				continue
			}
			if !ok {
				fuse, ok = Fuse{family, rating}, true
			}
			if family.BreaksA >= faultA {
				return Fuse{family, rating}, true
			}
		}
	}
	return fuse, ok
}
