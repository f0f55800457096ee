package battery_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"epitrope/core/battery"
)

// A battery of a common size and recesses round it. Geometry: a slab 220 mm thick takes
// 220/sin θ of an opening, so 311 mm want 45°, and 330·sin 45° + 220·cos 45° = 389 mm of
// height.
func TestFitIn(t *testing.T) {
	box := battery.Box{L: 330, W: 173, H: 220}
	roomy := battery.Space{Recess: battery.Box{L: 340, W: 180, H: 245}, OpeningL: 340, OpeningW: 180, AboveMM: 300}
	cases := []struct {
		name   string
		c      battery.Chemistry
		change func(*battery.Space)
		goes   bool
		tilt   float64
		says   string
	}{
		{"goes", battery.AGM, func(*battery.Space) {}, true, 0, ""},
		{"either way round", battery.AGM, func(s *battery.Space) { s.Recess.L, s.Recess.W = 180, 340 }, true, 0, ""},
		{"a cell too narrow", battery.AGM, func(s *battery.Space) { s.Recess.W = 172 }, false, 0, "the recess 340 × 172 mm"},
		{"too high", battery.AGM, func(s *battery.Space) { s.Recess.H = 219 }, false, 0, "the recess 219 mm"},
		{"under a seat that comes down on it", battery.AGM, func(s *battery.Space) { s.Recess.H = 239 }, false, 0,
			"19 mm left over its terminals"},
		{"just clear of the seat", battery.AGM, func(s *battery.Space) { s.Recess.H = 240 }, true, 0, ""},
		{"tilted by 45°", battery.AGM, func(s *battery.Space) { s.OpeningL, s.AboveMM = 311.13, 150 }, true, 45, ""},
		{"no room to tilt", battery.AGM, func(s *battery.Space) { s.OpeningL, s.AboveMM = 311.13, 140 }, false, 0, "does not go through"},
		{"vented spills", battery.Flooded, func(s *battery.Space) { s.OpeningL, s.AboveMM = 311.13, 150 }, false, 45, "a vented battery spills"},
		{"smaller than it is thick", battery.AGM, func(s *battery.Space) { s.OpeningL = 215 }, false, 0, "does not go through"},
	}
	for _, c := range cases {
		s := roomy
		c.change(&s)
		fit := c.c.FitIn(box, s)
		assert.Equal(t, c.goes, fit.Goes, "%s: %v", c.name, fit.Problems)
		assert.InDelta(t, c.tilt, fit.TiltDeg, 0.1, c.name)
		if c.says != "" {
			assert.Contains(t, fit.Problems[0], c.says, c.name)
		}
	}
}
