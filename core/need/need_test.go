package need_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"epitrope/core/need"
)

// The trade's examples (common practice, no source): a pump of 10 A, a lamp of 30 W that
// takes 2.5 A.
func TestLoads(t *testing.T) {
	assert.Equal(t, 2.5, need.FromWatts.Value(30, 12))
	assert.InDelta(t, 10, need.ApplianceByID("pump").Watts/12, 1e-9)
	assert.InDelta(t, 2*(2.5*4*1+0.1*24), need.LoadAh.Value(2, 2.5, 4, 1, 0.1), 1e-9)
	assert.Equal(t, "other", need.ApplianceByID("no such thing").ID)
}

// Every appliance can be picked: sensible power, hours of a day, a share, an id of its own.
func TestAppliances(t *testing.T) {
	seen := map[string]bool{}
	for _, a := range need.Appliances {
		assert.False(t, seen[a.ID], a.ID)
		seen[a.ID] = true
		assert.True(t, a.Watts > 0 && a.Watts <= 5000 && a.Hours > 0 && a.Hours <= 24 && a.Duty > 0 && a.Duty <= 1 && a.StandbyA >= 0, a.ID)
	}
}

// Conservation of charge: what is put back in excess leaves it full; what is missing sinks
// it until it stands empty before each drive.
func TestReaches(t *testing.T) {
	after, before := need.Reaches(100, 40, 60)
	assert.Equal(t, 1.0, after)
	assert.InDelta(t, 0.6, before, 1e-9)
	after, before = need.Reaches(100, 40, 25)
	assert.InDelta(t, 0.25, after, 1e-9)
	assert.Zero(t, before)
	_, before = need.Reaches(50, 80, 90)
	assert.Zero(t, before, "more is used than it holds")
	for used := 0.0; used <= 200; used += 10 {
		for back := 0.0; back <= 200; back += 10 {
			a, b := need.Reaches(100, used, back)
			assert.True(t, a >= b && a <= 1 && b >= 0, "%g used, %g back", used, back)
		}
	}
}

// Days parked multiply what a drive has to put back; sun and mains come off each day.
func TestCycle(t *testing.T) {
	assert.InDelta(t, 90, need.CycleAh.Value(40, 8, 2, 2), 1e-9)
	assert.InDelta(t, 28, need.SunAh.Value(0.7, 120, 4, 12), 1e-9)
	assert.InDelta(t, 20.6, need.Current.Value(40, 2, 0.97), 0.05)
	assert.InDelta(t, 80, need.BankAh.Value(40, 0.5), 1e-9)
	assert.InDelta(t, 0.9*(30*1.5+10*0.5), need.PutBackAh.Value(0.9, 30, 2, 0.5, 10), 1e-9)
}
