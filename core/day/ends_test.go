package day_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/alternator"
	"epitrope/core/coupling"
	"epitrope/core/day"
	"epitrope/core/network"
)

// A run that cannot go on says when and at which element, and keeps what it had.
func TestARunThatCannotGoOn(t *testing.T) {
	m := usual()
	m.join = relay(coupling.Usual)
	rig := m.rig(t)
	rig.Circuit.Add(network.PowerLoad{Name: "heater", A: rig.Circuit.Node("out"), Watts: 50000})
	got, err := day.Run(rig, pattern(t, "park 1 h, crank 2 s, idle 1 h"), day.Conditions{OutsideC: 20}, day.Options{})
	var stopped *day.Stopped
	require.ErrorAs(t, err, &stopped)
	assert.Equal(t, "heater", stopped.Element)
	assert.Equal(t, stopped.AtS, got.EndS)
}

func TestRunsThatAreToldToStopKeepWhatTheyHad(t *testing.T) {
	m := usual()
	m.join = relay(coupling.Usual)
	calls := 0
	got, err := day.Run(m.rig(t), pattern(t, "crank 2 s, town 20 h"), day.Conditions{OutsideC: 20},
		day.Options{Tolerance: 0.01, Halt: func() bool { calls++; return calls > 2 }})
	require.ErrorIs(t, err, day.ErrHalted)
	assert.Positive(t, got.EndS)
	assert.NotEmpty(t, got.Events)
}

func TestEmptyPatternIsNamed(t *testing.T) {
	_, err := day.Run(usual().rig(t), nil, day.Conditions{}, day.Options{})
	var named *day.PatternError
	require.ErrorAs(t, err, &named)
}

// Trade (§3): a recording of a variable machine shows spells under 13.2 V and jumps of
// 0.8 V and more on lift-off; of a fixed one less than 0.2 V.
func TestRegulationShowsInTheRecording(t *testing.T) {
	spread := func(r alternator.Regulation) (low, high float64) {
		m := usual()
		m.regulation, m.join = r, &day.Join{Switch: "relay", By: day.Never, Coil: "coil", HoldA: 1, WatchA: 1e-3}
		_, frames := run(t, m.rig(t), "crank 2 s, idle 5 min, highway 10 min, lift-off 20 s, highway 5 min")
		low, high = math.Inf(1), 0
		for _, f := range frames {
			if f.T > 60 {
				low, high = math.Min(low, f.BusV), math.Max(high, f.BusV)
			}
		}
		return low, high
	}
	low, high := spread(alternator.Variable)
	assert.Less(t, low, 13.2)
	assert.Greater(t, high-low, 0.8)
	low, high = spread(alternator.Fixed)
	assert.Less(t, high-low, 0.2)
	assert.InDelta(t, 14.4, low, 0.2)
}
