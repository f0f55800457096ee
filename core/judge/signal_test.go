package judge_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/day"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/modes"
	"epitrope/core/parts"
	"epitrope/core/plan"
	"epitrope/core/rig"
	"epitrope/internal/jobtest"
)

// Hours until the engine no longer starts with a switch forgotten on agree with the
// circuit run through time: well before that it starts, well after it does not.
func TestHoursToNoStart(t *testing.T) {
	doc, problems := job.Decode([]byte(`{"aux":{"chemistry":"agm","capacityAh":600},"use":{"dailyAh":1},"startBattery":{"crankA":420},` +
		`"pins":{"chargerA":10,"startSize":"50 mm2"},"day":{"trigger":"switch","startSOC":90,"auxSOC":40}}`))
	require.Empty(t, problems)
	s := modes.Of(design.Of(doc, parts.Stock())).Forgotten
	require.Positive(t, s.NoStartH)
	assert.InDelta(t, 80*(0.9-s.NoStartAt/100)/s.DrawA, s.NoStartH, 0.4, "C·(s0 − s1)/I, but for what the current does on the way")
	starts := func(after float64) bool {
		d := design.Of(doc, parts.Stock())
		pattern := day.Pattern{{Kind: day.Park, Seconds: after * 3600}, {Kind: day.Crank, Seconds: 2}, {Kind: day.Idle, Seconds: 60}}
		got, err := day.Run(rig.Of(d, rig.Nominal), pattern, day.Conditions{OutsideC: 20}, day.Options{})
		require.NoError(t, err)
		return got.Verdict.FailedStarts == 0
	}
	assert.True(t, starts(0.85*s.NoStartH))
	assert.False(t, starts(1.15*s.NoStartH))
	thin := jobtest.Modes(t, `{"aux":{"chemistry":"agm"},"pins":{"chargerA":10,"startSize":"4 mm2"}}`).Forgotten
	assert.Greater(t, thin.StopsAt, thin.NoStartAt, "its cut-out stops it long before, and its signal goes on taking")
	assert.Greater(t, thin.NoStartH, 3*s.NoStartH)
}

// A feed point that was taken decides how the signal behaves; a trap is noted.
func TestTheFeedPointThatIsTaken(t *testing.T) {
	const tested = `"off":"dead","slept":"dead","on":"live","running":"live","cranking":"live"`
	with := func(row string) plan.Plan {
		return jobtest.Plan(t, `{"signal":{"feed":"f1"},"feeds":{"f1":{"name":"F22","ratingA":15,`+row+`}}}`)
	}
	good := with(tested + `,"accessory":"dead"`)
	assert.True(t, good.Signal.Feeds[0].Candidate && good.Signal.Best == "f1")
	for _, id := range jobtest.NoteIDs(good) {
		assert.NotContains(t, id, "signal.")
	}
	cases := []struct{ id, row string }{
		{"signal.accessory", tested + `,"accessory":"live"`},
		{"signal.out", tested + `,"accessory":"dead","safety":"yes"`},
		{"signal.untested", `"off":"dead","on":"live"`},
	}
	for _, c := range cases {
		assert.Contains(t, jobtest.NoteIDs(with(c.row)), c.id)
	}
	assert.Contains(t, jobtest.NoteIDs(jobtest.Plan(t, `{"signal":{"feed":"gone"}}`)), "signal.gone")
	assert.NotContains(t, jobtest.NoteIDs(jobtest.Plan(t, `{}`)), "signal.gone")
	accessory := jobtest.Modes(t, `{"pins":{"chargerA":10},"signal":{"feed":"f1"},"feeds":{"f1":{`+tested+`,"accessory":"live"}}}`)
	assert.Equal(t, "forbidden", jobtest.Line(t, accessory, "–", "accessory", "stopped").Verdict, "the mode table follows the feed point")
}

// The best of several is named; a safety circuit never is.
func TestBestFeedPoint(t *testing.T) {
	const dead = `"off":"dead","slept":"dead","accessory":"dead","running":"live","cranking":"live"`
	p := jobtest.Plan(t, `{"feeds":{"a":{"name":"F3","ratingA":5,`+dead+`,"on":"live"},"b":{"name":"F9","ratingA":20,`+dead+`,"on":"dead"},
"c":{"name":"ABS","safety":"yes",`+dead+`,"on":"dead"}}}`)
	assert.Equal(t, "b", p.Signal.Best)
	assert.Equal(t, "Tap holder in F9: its own 20 A in the lower slot, 1 A in the upper.", p.Signal.Feeds[1].Tap)
	fuse, _ := p.System.Component("f3")
	assert.Contains(t, fuse.Rating, "1 A blade", "1–5 A for half an ampere (common practice, no source)")
}
