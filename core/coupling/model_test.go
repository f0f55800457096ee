package coupling_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"epitrope/core/battery"
	"epitrope/core/coupling"
)

// Thresholds seen (common practice, no source): 13.3 / 12.8; drop-out held for 10 s;
// 13.4 two-way.
func TestSensing(t *testing.T) {
	cases := []struct {
		name       string
		relay      coupling.Sensing
		closed     bool
		start, aux float64
		want       bool
		after      float64
	}{
		{"engine runs", coupling.Usual, false, 13.8, 12.3, true, 2},
		{"at rest", coupling.Usual, false, 12.7, 12.3, false, 0},
		{"between the thresholds it stays open", coupling.Usual, false, 13.0, 12.3, false, 0},
		{"between the thresholds it stays closed", coupling.Usual, true, 13.0, 12.9, true, 0},
		{"drops out", coupling.Usual, true, 12.7, 12.6, false, 10},
		{"one-way does not see solar on the aux", coupling.Usual, false, 12.7, 13.8, false, 0},
		{"two-way sees it", coupling.UsualTwoWay, false, 12.7, 13.8, true, 2},
		// LiFePO4 rests above the cut-out: the relay stays closed after parking.
		{"lithium holds it closed", coupling.Usual, true, 13.25, 13.25, true, 0},
	}
	for _, c := range cases {
		closes, after := c.relay.Wants(c.closed, c.start, c.aux)
		assert.Equal(t, c.want, closes, c.name)
		assert.Equal(t, c.after, after, c.name)
	}
}

// Efficiency 0.87–0.92 (common practice, no source).
func TestEfficiencyCurve(t *testing.T) {
	c := coupling.UsualCurve
	assert.InDelta(t, 0.90, c.Efficiency(1, 1), 0.002)
	assert.InDelta(t, 0.87, c.Efficiency(1, 12.5/14.4), 0.01)
	for share := 0.3; share <= 1; share += 0.1 {
		e := c.Efficiency(share, 1)
		assert.True(t, e > 0.87 && e < 0.92, "%g at %g", e, share)
	}
	assert.Less(t, c.Efficiency(0.05, 1), c.Efficiency(0.5, 1), "little output, poor efficiency")
	assert.Zero(t, c.Efficiency(0, 1))
}

func TestDerate(t *testing.T) {
	assert.Equal(t, 1.0, coupling.Derate(30, 50))
	assert.InDelta(t, 0.5, coupling.Derate(65, 50), 1e-9)
	assert.Zero(t, coupling.Derate(90, 50))
}

// Bulk, absorption, float, and bulk again when the battery is drawn down.
func TestStages(t *testing.T) {
	s := coupling.UsualStages(14.4, 13.5, battery.AGM.Stages)
	next, _ := s.Next(coupling.Bulk, 13.9, 1, 600)
	assert.Equal(t, coupling.Bulk, next)
	next, _ = s.Next(coupling.Bulk, 14.4, 1, 600)
	assert.Equal(t, coupling.Absorption, next)
	next, _ = s.Next(coupling.Absorption, 14.4, 0.4, 600)
	assert.Equal(t, coupling.Absorption, next)
	next, _ = s.Next(coupling.Absorption, 14.4, 0.05, 600)
	assert.Equal(t, coupling.Float, next)
	next, _ = s.Next(coupling.Absorption, 14.4, 0.4, 5*3600)
	assert.Equal(t, coupling.Float, next, "or after its time")
	next, after := s.Next(coupling.Float, 12.9, 1, 600)
	assert.Equal(t, coupling.Bulk, next)
	assert.Equal(t, 60.0, after)
	assert.Equal(t, 13.5, s.SetV(coupling.Float))
	assert.Zero(t, s.SetV(coupling.Resting))
	assert.Equal(t, "absorption", coupling.Absorption.String())
}

func TestHighCurrentStage(t *testing.T) {
	h := coupling.UsualHighCurrent
	assert.True(t, h.Wants(false, true, 13.9, 13.2))
	assert.False(t, h.Wants(false, false, 13.9, 13.2), "both stages need an ignition feed")
	assert.False(t, h.Wants(false, true, 13.9, 14.1), "the charger ends the charge")
	assert.False(t, h.Wants(false, true, 12.9, 12.5))
}

// A charger in a box settles where what it loses and what the heat lets it give agree.
func TestInBox(t *testing.T) {
	share, c := coupling.InBox(30, 50, 0.2, 50)
	assert.InDelta(t, 1, share, 1e-9, "40 °C is cool enough")
	assert.InDelta(t, 40, c, 1e-9)
	share, c = coupling.InBox(40, 60, 1, 50)
	assert.InDelta(t, coupling.Derate(c, 50), share, 1e-9)
	assert.InDelta(t, 40+60*share, c, 1e-6)
	assert.InDelta(t, 40.0/90, share, 1e-6, "s = 1 − (40 + 60·s − 50)/30")
	share, _ = coupling.InBox(90, 60, 1, 50)
	assert.Less(t, share, 1e-6)
	assert.InDelta(t, 0.22, coupling.BoxAreaM2(200, 100, 300), 1e-12)
}
