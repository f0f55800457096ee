package prove

import (
	"math"
	"math/rand/v2"
	"slices"

	"gonum.org/v1/gonum/stat"
)

// Bounds is what a reading is expected to be: in the likely one in 95 of 100 sound installations, in the possible one in 999
// of 1,000.
type Bounds struct {
	Middle   float64    `json:"middle"`
	Likely   [2]float64 `json:"likely"`
	Possible [2]float64 `json:"possible"`
	MayJump  bool       `json:"mayJump,omitempty" doc:"Some sound ones go on and off here"`
}

// beyond is how much further the possible reaches than the likely, on each side: 3.29 standard deviations over 1.96, and
// something for tails that are heavier than the bell curve's.
const beyond = 2.2

// jumpShare is of how many sound installations some going on and off is nothing wrong.
const jumpShare = 0.02

// band is what the reading in a column is expected to be, a meter's error with it.
func (e *ensemble) band(i int, r Reading) Bounds {
	values := e.column(i)
	if len(values) == 0 {
		return Bounds{MayJump: true}
	}
	shake := rand.New(rand.NewPCG(uint64(i), 23))
	for k, v := range values {
		values[k] = v + r.error(v)*shake.NormFloat64()
	}
	slices.Sort(values)
	at := func(share float64) float64 { return stat.Quantile(share, stat.LinInterp, values, nil) }
	b := Bounds{MayJump: e.jumps(i) > jumpShare, Middle: at(0.5), Likely: [2]float64{at(0.035), at(0.965)}}
	least := 1.8 * r.error(b.Middle) // no narrower than the meter
	b.Likely[0], b.Likely[1] = math.Min(b.Likely[0], b.Middle-least), math.Max(b.Likely[1], b.Middle+least)
	b.Possible = [2]float64{further(b.Middle, b.Likely[0], 5*r.error(0)), further(b.Middle, b.Likely[1], 5*r.error(0))}
	b.Likely, b.Possible = r.shown(b.Likely), r.shown(b.Possible)
	return b
}

// shown is a range as far as it is written: what prints as its edge is within it.
func (r Reading) shown(in [2]float64) [2]float64 {
	digit := 0.01
	switch {
	case r.Unit == Amps:
		digit = 0.1
	case r.Unit == Kelvin:
		digit = 1
	case r.Drop:
		digit = 0.001
	}
	const half = 0.499 // what is rounded to the edge
	return [2]float64{(math.Floor(in[0]/digit) - half) * digit, (math.Ceil(in[1]/digit) + half) * digit}
}

// further is beyond a likely edge: by share of the middle where both are of one sign and more than what a meter shows of
// nothing, and so never past that; else by difference.
func further(middle, edge, nothing float64) float64 {
	if middle*edge > 0 && min(math.Abs(middle), math.Abs(edge)) > nothing {
		return middle * math.Pow(edge/middle, beyond)
	}
	return middle + beyond*(edge-middle)
}

// holds says whether a value is in a range.
func holds(in [2]float64, v float64) bool { return v >= in[0] && v <= in[1] }
