package prove

import (
	"math"

	"epitrope/core/unit"
)

// slips are what a hand may have done that gives a value, where the band would have held it otherwise.
func (p *Proof) slips(r Reading, b Bounds, value float64) []string {
	list := []string{}
	put := func(is bool, text string) {
		if is {
			list = append(list, text)
		}
	}
	turned := "the probes are changed over: red belongs on " + r.Red.Name
	if r.Unit == Amps {
		turned = "the clamp is the wrong way round: its arrow points to the aux battery"
	}
	other := value < 0 && b.Possible[0] > 0
	put(other && holds(b.Possible, -value), turned)
	put(other && !holds(b.Possible, -value), turned+"; turned round it would be "+r.Says(-value)+", which is not as expected either")
	for _, by := range []float64{10, 100, 1000} {
		if r.Unit == Kelvin || r.Unit == Ohms {
			break
		}
		put(holds(b.Likely, value/by) && math.Abs(b.Middle) > 0, unit.Say("the point, or the unit: %s would be as expected",
			r.Says(value/by)))
		put(value != 0 && holds(b.Likely, value*by) && math.Abs(value) > 1e-3,
			unit.Say("the point, or the unit: %s would be as expected", r.Says(value*by)))
	}
	put(r.Unit == Volts && b.Middle > 5 && (holds(b.Possible, value/2) || holds(b.Possible, 2*value)), "half or double of what is "+
		"expected: is this of another vehicle, of 24 V or of 12 V?")
	put(r.Drop && math.Abs(value) < b.Likely[0] && value >= 0, "a probe on the bolt instead of the lug, or on both sides of the "+
		"same joint; or less flows than "+
		"should: read the current again at the same moment")
	put(r.Unit == Volts && !r.Drop && math.Abs(value) < 0.2 && b.Middle > 5, "a probe without contact: paint, a boot, a loose "+
		"lead at the meter")
	put(r.Unit == Amps && b.Middle > 1 && math.Abs(value) < 0.3, "the clamp is on alternating current, or not shut")
	if r.Station == FastIdle && !r.Drop {
		put(value < b.Likely[0], "the engine is not held at its speed, or lamps and blower are on")
		put(value > b.Likely[1], "sun or mains give something too: panels covered, mains unplugged")
	}
	return list
}

// fullLead is at what share of what is expected a current says that the battery takes no more.
const fullLead = 0.25

// notYet says why a value that is as expected proves little.
func (p *Proof) notYet(r Reading, value float64) string {
	b := p.base[p.at(r.ID)]
	switch {
	case r.ID == "engages":
		return "A click or a lamp alone proves nothing: the current and the volts at both ends do."
	case r.Unit == Ohms:
		return "A common meter's ohms say only that it is not open: what it loses under load is its proof."
	case r.ID == "charge" && b.Middle > 2 && value < fullLead*b.Middle:
		return "So little flows that a full battery, or another source, may be all there is to see: take some charge out of the aux " +
			"battery, and read again."
	}
	return ""
}
