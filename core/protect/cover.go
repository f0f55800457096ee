package protect

import (
	"math"

	"epitrope/core/cable"
	"epitrope/core/working"
)

// Resistance is the resistance of a fuse element: about 80 mV at rated current.
// Source: ISO 8820 allows about 100 mV (from memory).
var Resistance = working.Declare("R_F = 0.08 / I_F", "ISO 8820, from memory: about 80 mV at rated current",
	working.Symbol{Letter: "R_F", Name: "fuse resistance", Unit: "Ω", Digits: 5},
	working.Symbol{Letter: "I_F", Name: "fuse rating", Unit: "A", Digits: 1})

// FaultCurrent is the current into a dead short at a place along a run.
var FaultCurrent = working.Declare("I_k = U / (R_b + R_l)", "physics: Ohm's law",
	working.Symbol{Letter: "I_k", Name: "fault current", Unit: "A", Digits: 0},
	working.Symbol{Letter: "U", Name: "source voltage", Unit: "V", Digits: 2},
	working.Symbol{Letter: "R_b", Name: "battery resistance", Unit: "Ω", Digits: 5},
	working.Symbol{Letter: "R_l", Name: "fuse, cable and return", Unit: "Ω", Digits: 5})

// OverloadMultiple is up to what multiple of its rating a fuse may hold for a long
// time. Source: ISO 8820 (from memory): half an hour or more at 135 %.
const OverloadMultiple = 1.35

// Opening is a fuse and its cable at one current.
type Opening struct {
	Amps      float64
	OpensMinS float64 // the fastest it may open
	OpensMaxS float64 // the slowest; +Inf where it need not open
	BearsS    float64 // how long the cable bears the current; +Inf for ever
}

// Saves says whether the fuse opens, at its slowest, before the cable is past its
// limit.
func (o Opening) Saves() bool { return o.OpensMaxS <= o.BearsS }

// Cover is whether a fuse saves a cable from shorts anywhere along it, and from what
// it may hold for long.
type Cover struct {
	Near, Far Opening // a short right behind the fuse, and at the cable's end
	Overload  Opening // at OverloadMultiple, which the fuse may hold for half an hour
	Saves     bool    // at every current from Far to Near
	Breaks    bool    // the fuse can break the greatest fault
}

// At puts a fuse and a cable to a current.
func (f Fuse) At(amps float64, c cable.Fault) Opening {
	o := Opening{Amps: amps, BearsS: c.Bears(amps)}
	o.OpensMinS, o.OpensMaxS = f.Family.Opens(amps / f.RatingA)
	return o
}

// looks is at how many currents between two a verdict is taken.
const looks = 10

// Covers judges a fuse on a cable against shorts along it, from farA at its end to
// nearA behind the fuse. Where farA is not below nearA only the two are looked at.
func (f Fuse) Covers(nearA, farA float64, c cable.Fault) Cover {
	v := Cover{Near: f.At(nearA, c), Far: f.At(farA, c), Overload: f.At(f.RatingA*OverloadMultiple, c), Breaks: nearA <= f.Family.BreaksA}
	v.Saves = v.Near.Saves() && v.Far.Saves()
	for _, amps := range Between(farA, nearA, looks) {
		v.Saves = v.Saves && f.At(amps, c).Saves()
	}
	return v
}

// Curve is the picture of time against current: what the fuse does and what its cable
// bears at count currents, evenly by ratio, from its rating to mostA.
func (f Fuse) Curve(mostA float64, count int, c cable.Fault) []Opening {
	points := []Opening{f.At(f.RatingA, c)}
	for _, amps := range Between(f.RatingA, mostA, count-2) {
		points = append(points, f.At(amps, c))
	}
	return append(points, f.At(math.Max(mostA, f.RatingA), c))
}

// Between returns count currents strictly between two, evenly by ratio; none where
// low is not positive and below high.
func Between(low, high float64, count int) []float64 {
	if low <= 0 || low >= high {
		return nil
	}
	out := make([]float64, count)
	for i := range out {
		out[i] = low * math.Pow(high/low, float64(i+1)/float64(count+1))
	}
	return out
}

// Series is how two fuses in series share a fault.
type Series struct {
	// Selective says that the downstream one always opens first.
	Selective bool
	// FromA is the current from which either may open first; 0 where Selective.
	FromA float64
}

// InSeries judges two fuses that carry the same fault, up to mostA: the one nearer
// the fault should open alone. They discriminate where the upstream one's fastest
// time is above the downstream one's slowest at every current that opens either.
func InSeries(upstream, downstream Fuse, mostA float64) Series {
	from := downstream.RatingA * OverloadMultiple
	for _, amps := range append(Between(from, mostA, 4*looks), mostA) {
		fastest, _ := upstream.Family.Opens(amps / upstream.RatingA)
		_, slowest := downstream.Family.Opens(amps / downstream.RatingA)
		if amps >= from && fastest <= slowest {
			return Series{FromA: amps}
		}
	}
	return Series{Selective: true}
}
