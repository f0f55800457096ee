package battery

import (
	"fmt"
	"strings"

	"epitrope/core/unit"
)

// Curve is a battery's own rest voltage by its charge, for 12 V: from empty to full, rising.
type Curve []point

// CurveAllowed says how a curve is written.
const CurveAllowed = "charge and rest volts at 12 V from 0 to 100 %, both rising, such as 0 % 11.9, 50 % 13.1, 100 % 13.5"

// The least and the most points of a curve, and the voltages of a 12 V battery at rest.
const (
	leastPoints, mostPoints = 2, 30
	leastRestV, mostRestV   = 6.0, 17.0
)

// ParseCurve reads “0 % 11.9, 50 % 13.1, 100 % 13.5 V”: pairs of charge and volts, parted by
// commas or lines. It begins at 0 % and ends at 100 %; charge rises from pair to pair, and
// volts do not fall.
func ParseCurve(text string) (Curve, error) {
	var c Curve
	for _, pair := range strings.FieldsFunc(text, func(r rune) bool { return r == ',' || r == ';' || r == '\n' }) {
		charge, volts, ok := strings.Cut(strings.TrimSpace(pair), "%")
		if !ok {
			return nil, fmt.Errorf("%q has no charge in %%", strings.TrimSpace(pair))
		}
		soc, err := unit.Percent.Parse(strings.TrimSpace(charge) + "%")
		if err != nil {
			return nil, err
		}
		v, err := unit.Voltage.Parse(strings.TrimLeft(volts, " :"))
		if err != nil {
			return nil, err
		}
		if v < leastRestV || v > mostRestV {
			return nil, fmt.Errorf("%s is no rest voltage of a 12 V battery", unit.Plain(v, "V", 2))
		}
		if last := len(c) - 1; last >= 0 && (soc/100 <= c[last].soc || v < c[last].volts) {
			return nil, fmt.Errorf("%s at %s does not rise", unit.Plain(soc, "%", 1), unit.Plain(v, "V", 2))
		}
		c = append(c, point{soc / 100, v})
	}
	if len(c) < leastPoints || len(c) > mostPoints {
		return nil, fmt.Errorf("has %d points, not %d to %d", len(c), leastPoints, mostPoints)
	}
	if c[0].soc != 0 || c[len(c)-1].soc != 1 {
		return nil, fmt.Errorf("goes from %s to %s, not from 0 to 100 %%", unit.Plain(100*c[0].soc, "%", 1),
			unit.Plain(100*c[len(c)-1].soc, "%", 1))
	}
	return c, nil
}

// Resting is the chemistry with a battery's own rest voltages.
func (c Chemistry) Resting(own Curve) Chemistry {
	c.rest = own
	return c
}

// Resisting is the chemistry with what a battery of capacityAh was measured to resist, in Ω, at
// a system of n × 12 V, as good as full and warm.
func (c Chemistry) Resisting(ohm, capacityAh, n float64) Chemistry {
	c.mOhmAh = 1000 * capacityAh * ohm / n
	return c
}

// ByLoad is a battery's resistance by what a load does to it.
//
// Source: physics.
func ByLoad(restV, loadedV, amps float64) (ohm float64, ok bool) {
	if amps <= 0 || loadedV >= restV {
		return 0, false
	}
	return (restV - loadedV) / amps, true
}
