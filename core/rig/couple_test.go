package rig_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/day"
	"epitrope/core/rig"
	"epitrope/internal/jobtest"
)

// through runs a pattern, and returns each frame of it, without what it cannot keep.
func through(t *testing.T, job, pattern string) (day.Result, []day.Frame) {
	t.Helper()
	p, err := day.ParsePattern(pattern)
	require.NoError(t, err)
	var frames []day.Frame
	built := rig.Of(jobtest.Design(t, job), rig.Nominal)
	got, err := day.Run(built, p, day.Conditions{OutsideC: 20}, day.Options{Watch: func(f day.Frame) { frames = append(frames, f) }})
	require.NoError(t, err)
	return got, frames
}

// A charger that asks more than its line can give is starved; its signal is not dead for that.
func TestAStarvedChargersSignalIsNotDead(t *testing.T) {
	const job = `{"pins":{"startSize":"4 mm2","chargerA":60}}`
	assert.Equal(t, day.Running, rig.Of(jobtest.Design(t, job), rig.Nominal).Charger.By)
	got, _ := through(t, job, "crank 2 s, highway 1 h")
	assert.Positive(t, got.Verdict.Starved)
}

// A charger begins at the efficiency of its full output, not at that of a charger that gives
// next to nothing and loses the same: it does not drag its input below its cut-out by beginning.
func TestAChargerBeginsAtFullOutput(t *testing.T) {
	_, frames := through(t, `{}`, "crank 2 s, highway 10 min")
	began := false
	for _, f := range frames {
		if f.CoupleA > 1 {
			began = true
			assert.InDelta(t, 0.9, f.World.Working, 0.04)
		}
	}
	assert.True(t, began)
}

// A sensing relay follows what it senses, whatever signal a charger in its place would have.
func TestARelayNeedsNoSignal(t *testing.T) {
	const job = `{"alternator":{"label":"90/180 A","regulation":"fixed","knownBy":"test","volts":14.4},` +
		`"aux":{"chemistry":"agm","place":"seat"},"day":{"trigger":"switch"},"pins":{"coupling":"vsr"}}`
	_, frames := through(t, job, "park 12 h")
	assert.False(t, frames[len(frames)-1].Joined)
}

// What hangs beside the charger is drawn through the run while the engine turns.
func TestTheFeedBesideIsDrawnThroughADay(t *testing.T) {
	const feed = `{"wants":{"feedA":20},"pins":{"chargerA":20,"startSize":"10 mm2"}}`
	const none = `{"pins":{"chargerA":20,"startSize":"10 mm2"}}`
	at := func(job string) (driven, parked float64) {
		_, frames := through(t, job, "crank 2 s, highway 1 h, park 1 h")
		for _, f := range frames {
			if f.Kind == day.Highway {
				driven = f.BusV - f.InV
			}
		}
		last := frames[len(frames)-1]
		return driven, last.BusV - last.InV
	}
	with, parked := at(feed)
	without, _ := at(none)
	assert.Greater(t, with, 1.5*without)
	assert.Less(t, parked, 0.01)
}

// A signal that is left live draws its half ampere (an input, from memory) out of the start battery
// all night: some 5 Ah in ten hours parked, beside what the vehicle takes anyway.
func TestSignalLeftLiveDraws(t *testing.T) {
	left := map[string]float64{}
	for _, trigger := range []string{"running", "switch"} {
		_, frames := through(t, `{"startBattery":{"capacityAh":70},"day":{"trigger":"`+trigger+`"},"card":{"outputA":20,"cutOutV":13}}`,
			"park 10 h")
		left[trigger] = frames[len(frames)-1].StartSOC
	}
	assert.InDelta(t, 10*0.5/70, left["running"]-left["switch"], 0.015)
}
