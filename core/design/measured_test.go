package design_test

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"epitrope/core/design"
	"epitrope/internal/jobtest"
)

// Check value (trade): 60 mV at 40 A are 1.5 mΩ. What a joint was measured to lose is lost there in
// every state, over what a usual joint loses; the cable stays as it was.
func TestMeasuredJoint(t *testing.T) {
	usual := jobtest.Design(t, `{}`)
	worn := jobtest.Design(t, `{"joints":{"c1to":{"mV":60,"atA":40}}}`)
	wire, ok := worn.System.Wire("c1")
	assert.True(t, ok)
	assert.InDelta(t, 0.0015, wire.Joint.To, 1e-12)
	was, _ := usual.System.Wire("c1")
	assert.Equal(t, was.Size, wire.Size)
	for i, s := range worn.States {
		before := usual.States[i]
		if s.Kind != design.Charging || s.Sags || s.Err != nil || s.InA == 0 {
			continue
		}
		amps, err := s.Solved.Through("c1")
		assert.NoError(t, err)
		assert.InDelta(t, math.Abs(amps)*(0.0015-was.Joint.To), before.InV-s.InV, 0.02, s.ID)
	}
}

// A measurement that lacks its current is none, and a measured zero is a measurement.
func TestMeasuredNothingAndZero(t *testing.T) {
	usual, _ := jobtest.Design(t, `{}`).System.Wire("c1")
	for joint, want := range map[string]float64{`{"mV":60}`: usual.Joint.To, `{"mV":0,"atA":40}`: 0, `{"mOhm":0.3}`: 0.0003} {
		got, _ := jobtest.Design(t, fmt.Sprintf(`{"joints":{"c1to":%s}}`, joint)).System.Wire("c1")
		assert.InDelta(t, want, got.Joint.To, 1e-12, joint)
	}
}
