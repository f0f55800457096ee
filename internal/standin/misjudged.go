package standin

import (
	"math/rand/v2"

	"epitrope/core/fault"
	"epitrope/core/prove"
)

// Misjudged is a vehicle of which some answers of the survey are wrong, each as often as said: lengths by half to double, the machine,
// what the vehicle draws and what the battery takes likewise, the regulation by 0.4 V.
func (v *Vehicle) Misjudged(r *rand.Rand, often float64) *Vehicle {
	wrong := func() bool { return r.Float64() < often }
	times := func() float64 { return 0.5 + 1.5*r.Float64() }
	runs := map[string]float64{}
	for i := range v.sys.Wires {
		w := &v.sys.Wires[i]
		by, known := runs[w.Run]
		if !known || w.Run == "" {
			if by = 1; wrong() {
				by = times()
			}
			runs[w.Run] = by
		}
		w.Ohm *= by
	}
	for _, of := range []*float64{&v.machine, &v.draws, &v.accepts, &v.ohm} {
		if wrong() {
			*of *= times()
		}
	}
	if wrong() {
		v.shiftV += 0.8*r.Float64() - 0.4
	}
	return v
}

// there says whether the vehicle's fault is there as a station is read: what comes and goes may not be.
func (v *Vehicle) there(station string) bool {
	switch {
	case v.wrong == nil:
		return true
	case v.wrong.When == fault.ByHeat:
		return station == prove.Warm || station == prove.Full
	case v.wrong.When == fault.ByHand:
		return v.r.Float64() < v.often
	}
	return true
}
