package study_test

import (
	"encoding/json"
	"io/fs"
	"math"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/study"
	"epitrope/testdata"
)

func document(t testing.TB, text string) job.Document {
	t.Helper()
	doc, problems := job.Decode([]byte(text))
	require.Empty(t, problems)
	return doc
}

const week = `{"alternator":{"label":"90/180 A"},"aux":{"capacityAh":100},"use":{"dailyAh":40,"drivenHours":2},"day":{"days":%s}}`

func days(t testing.TB, n string) job.Document {
	return document(t, strings.Replace(week, "%s", n, 1))
}

// Every demo job runs; what is shown is in order, finite, and of one length.
func TestEveryDemoJobIsTried(t *testing.T) {
	names, err := fs.Glob(testdata.Demo, "demo/*.json")
	require.NoError(t, err)
	for _, name := range names {
		data, err := fs.ReadFile(testdata.Demo, name)
		require.NoError(t, err)
		got := study.Try(design.Of(document(t, string(data)), parts.Stock()), study.Window{}, nil)
		assert.Empty(t, got.Stopped, name)
		s := got.Series
		require.Greater(t, len(s.T), 300, name)
		require.Less(t, len(s.T), 3000, name)
		for i, at := range s.T[1:] {
			require.GreaterOrEqual(t, at, s.T[i], "%s: time runs forward", name)
		}
		for _, l := range [][]float64{s.BusV, s.InV, s.OutV, s.AuxV, s.MachineA, s.StartA, s.AuxA, s.InA, s.CoupleA, s.StartSOC, s.AuxSOC,
			s.WindingC, s.CaseC, s.CableC} {
			require.Len(t, l, len(s.T), name)
		}
		require.Len(t, s.Grade, len(s.T))
		require.Len(t, s.Grade[0], 2*len(got.Columns))
		_, err = json.Marshal(got)
		require.NoError(t, err, "every number is finite")
		assert.NotEmpty(t, got.Verdicts)
		assert.Len(t, got.Aims, len(study.Aims))
		for _, e := range got.Events {
			assert.True(t, e.Text != "" && e.Part != "" && e.T <= s.T[len(s.T)-1]+1, name)
		}
		// What sources gave is what was used, lost and kept, to a few Wh of rounding.
		sum := map[string]float64{}
		for _, w := range got.Energy {
			sum[w.Kind] += w.Wh
		}
		assert.InDelta(t, sum["source"], sum["use"]+sum["loss"]+sum["stored"], 8, name)
	}
}

// The moments shown keep the peaks: the lowest voltage while cranking is among them.
func TestPeaksAreShown(t *testing.T) {
	got := study.Try(design.Of(days(t, "7"), parts.Stock()), study.Window{}, nil)
	low := math.Inf(1)
	for _, v := range got.Series.BusV {
		low = math.Min(low, v)
	}
	assert.InDelta(t, got.Outcome.CrankV, low, 0.02)
}

// A window shows more of less: it covers its days, the verdict stays that of the run.
func TestAWindowLooksCloser(t *testing.T) {
	all := study.Try(design.Of(days(t, "7"), parts.Stock()), study.Window{}, nil)
	one := study.Try(design.Of(days(t, "7"), parts.Stock()), study.Window{FromS: 86400, ToS: 2 * 86400}, nil)
	assert.Equal(t, all.Outcome, one.Outcome)
	assert.Equal(t, all.Events, one.Events)
	n := len(one.Series.T)
	assert.True(t, one.Series.T[0] <= 86400 && one.Series.T[n-1] >= 2*86400-1, "%g to %g", one.Series.T[0], one.Series.T[n-1])
	inside := 0
	for _, at := range all.Series.T {
		if at >= 86400 && at <= 2*86400 {
			inside++
		}
	}
	assert.Greater(t, n, inside*3/2)
}

// A better charger or a longer drive never leaves less in the battery.
func TestCompare(t *testing.T) {
	got, problems := study.Compare(design.Of(days(t, "3"), parts.Stock()), []study.Variant{
		{Label: "as it is"}, {Label: "10 A", Changes: map[string]any{"pins.chargerA": "10 A"}},
		{Label: "30 A", Changes: map[string]any{"pins.chargerA": 30.0}},
		{Label: "half an hour", Changes: map[string]any{"pins.chargerA": 30.0, "use.drivenHours": "30 min"}},
	}, nil)
	require.Empty(t, problems)
	require.Len(t, got, 4)
	assert.Less(t, got[1].Outcome.AuxEnd, got[2].Outcome.AuxEnd)
	assert.Less(t, got[3].Outcome.AuxEnd, got[2].Outcome.AuxEnd)
	_, problems = study.Compare(design.Of(days(t, "1"), parts.Stock()), []study.Variant{{Label: "wrong",
		Changes: map[string]any{"pins.chargerA": 33.0, "no.field": 1.0}}}, nil)
	require.Len(t, problems, 2)
	assert.Contains(t, problems.Error(), "wrong: no: ")
	assert.Contains(t, problems.Error(), "wrong: pins.chargerA")
}

// A map over cable and charger: where the design stands is marked, and the best are
// those that meet most aims.
func TestSweep(t *testing.T) {
	var mutex sync.Mutex
	last := 0
	got, problems := study.SweepOver(design.Of(days(t, "2"), parts.Stock()),
		study.SweepRequest{Across: study.Axis{Path: "use.drivenHours"}, Up: study.Axis{Path: "pins.chargerA",
			Values: []string{"10", "20", "30"}}},
		func(done, of int) bool {
			mutex.Lock()
			defer mutex.Unlock()
			last = max(last, done)
			assert.Equal(t, 21, of)
			return true
		})
	require.Empty(t, problems)
	assert.True(t, got.Whole)
	assert.Equal(t, 21, last)
	require.Len(t, got.Cells, 21)
	assert.Equal(t, 3, got.Across.Now, "two hours, as it is")
	for row := range 3 {
		for i := 1; i < 7; i++ {
			a, b := got.Cells[row*7+i-1], got.Cells[row*7+i]
			assert.GreaterOrEqual(t, b.Outcome.AuxInAh, a.Outcome.AuxInAh-2, "more driving, more charge, until it is full")
			assert.True(t, a.Done && b.Done)
		}
	}
	best := 0
	for _, c := range got.Cells {
		if c.Best {
			best++
		}
	}
	assert.Positive(t, best)
}

func TestSweepRefusesWhatItCannot(t *testing.T) {
	ask := func(across, up study.Axis) job.Problems {
		_, problems := study.SweepOver(design.Of(days(t, "1"), parts.Stock()), study.SweepRequest{Across: across, Up: up}, nil)
		return problems
	}
	hours := study.Axis{Path: "use.drivenHours"}
	for _, wrong := range []study.Axis{{Path: "none"}, {Path: "title"}, {Path: "day.own"},
		{Path: "pins.startSize", Values: []string{"16 mm2", "8 mm"}}, {Path: "use.dailyAh", Values: []string{"1"}}, {Path: "use.drivenHours"}} {
		assert.NotEmpty(t, ask(hours, wrong), wrong.Path)
	}
	assert.Empty(t, ask(hours, study.Axis{Path: "day.outsideC", Values: []string{"50F", "20 °C"}}), "any unit")
}

// Told to stop, a sweep and a spread keep what was done.
func TestStoppedHalfWay(t *testing.T) {
	stop := func(done, _ int) bool { return done < 4 }
	got, problems := study.SweepOver(design.Of(days(t, "1"), parts.Stock()),
		study.SweepRequest{Across: study.Axis{Path: "use.drivenHours"}, Up: study.Axis{Path: "use.dailyAh"}}, stop)
	require.Empty(t, problems)
	assert.False(t, got.Whole)
	done := 0
	for _, c := range got.Cells {
		if c.Done {
			done++
		}
	}
	assert.True(t, done >= 4 && done < len(got.Cells), "%d", done)
	tolerances := study.Usual
	tolerances.Runs = 100
	spread, problems := study.SpreadOver(design.Of(days(t, "1"), parts.Stock()), tolerances, stop)
	require.Empty(t, problems)
	assert.False(t, spread.Whole)
	assert.True(t, spread.Runs >= 4 && spread.Runs < 100)
}

// The same seed gives the same to the last digit; another one something else; and no
// tolerance gives no band.
func TestSpreadRepeats(t *testing.T) {
	ask := study.Usual
	ask.Runs = 40
	spread := func(t study.Tolerances) study.Spread {
		got, problems := study.SpreadOver(design.Of(document2, parts.Stock()), t, nil)
		if len(problems) > 0 {
			panic(problems)
		}
		return got
	}
	first, again := spread(ask), spread(ask)
	assert.Equal(t, first, again)
	other := ask
	other.Seed = 2
	assert.NotEqual(t, first.Bands, spread(other).Bands)
	still := study.Tolerances{Runs: 20, JointLow: 0.3, JointHigh: 0.3}
	for _, b := range spread(still).Bands {
		assert.Equal(t, b.Low, b.High, b.ID)
	}
	for _, c := range first.Chances {
		assert.LessOrEqual(t, c.Met, c.Of)
		assert.NotContains(t, c.Text, "%", "no percentage finer than its evidence")
	}
	for i := range first.Hours {
		assert.True(t, first.SOCLow[i] <= first.SOCMid[i] && first.SOCMid[i] <= first.SOCHigh[i])
	}
}

var document2 = func() job.Document {
	doc, _ := job.Decode([]byte(strings.Replace(week, "%s", "1", 1)))
	return doc
}()

func TestSpreadRefusesWhatIsOutOfRange(t *testing.T) {
	bad := study.Usual
	bad.Runs, bad.JointHigh, bad.HoursPercent = 3, 0.01, math.NaN()
	_, problems := study.SpreadOver(design.Of(document2, parts.Stock()), bad, nil)
	require.Len(t, problems, 3)
	assert.Contains(t, problems.Error(), "runs: 3 is out of range (allowed: 20 to 1000)")
}

// A week of one design: aim 150 ms.
func BenchmarkWeek(b *testing.B) {
	names, _ := fs.Glob(testdata.Demo, "demo/*.json")
	for _, name := range names {
		data, _ := fs.ReadFile(testdata.Demo, name)
		doc := document(b, string(data))
		b.Run(strings.TrimSuffix(strings.TrimPrefix(name, "demo/"), ".json"), func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				study.Try(design.Of(doc, parts.Stock()), study.Window{}, nil)
			}
		})
	}
}

// 300 runs of a day: aim 10 s on two processors.
func BenchmarkSpread300Days(b *testing.B) {
	for b.Loop() {
		_, problems := study.SpreadOver(design.Of(document2, parts.Stock()), study.Usual, nil)
		require.Empty(b, problems)
	}
}
