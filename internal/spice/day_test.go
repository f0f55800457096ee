package spice_test

import (
	"math"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/day"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/rig"
	"epitrope/internal/spice"
)

// relayVan is a job with a relay, a steady alternator and lead, as a day runs it: with
// the relay's delays left out, its cables cold and its batteries outside, as in the netlist.
func relayVan(t testing.TB, document string) *day.Rig {
	t.Helper()
	doc, problems := job.Decode([]byte(document))
	require.Empty(t, problems)
	rig := rig.Of(design.Of(doc, parts.Stock()), rig.Nominal)
	rig.Join.HoldA = rig.Join.WatchA // the netlist's coil does not know that it pulls
	rig.Wires, rig.Start.EngineSpace, rig.Aux.EngineSpace = nil, false, false
	// Without its delay a relay must not be dragged down by the first rush.
	rig.Join.Sensing.CloseS, rig.Join.Sensing.OpenS, rig.Join.Sensing.CutOutV = 0, 0, 12.5
	return rig
}

// The lead van's cables and fuses are pinned: on thicker ones ngspice finds no step across the relay's
// closing.
const (
	leadVan = `{"alternator":{"label":"90/180 A","regulation":"fixed","knownBy":"test","volts":14.4},"aux":{"chemistry":"agm",
"capacityAh":100,"place":"seat"},
		"startBattery":{"capacityAh":70},"pins":{"coupling":"vsr","startSize":"25 mm2","auxSize":"25 mm2","startFuseA":50,"auxFuseA":50},
		"day":{"auxSOC":80,"startSOC":85}}`
	lithiumVan = `{"alternator":{"label":"70/140 A","regulation":"fixed","knownBy":"test","volts":14.2},"aux":{"chemistry":"lifepo4",
"capacityAh":100,"place":"rear"},
		"pins":{"coupling":"vsr"},"day":{"auxSOC":60,"startSOC":95}}`
)

// Against ngspice on the exported netlist through time: resistive wiring, batteries with
// their RC, a relay with hysteresis. Volts within 0.5 %, events within 20 ms.
func TestDaysAgree(t *testing.T) {
	need(t)
	cases := []struct {
		name, doc, pattern string
		step               float64
		switches           int
	}{
		{"start, charge, park, start again, lamps", leadVan,
			"park 20 s, crank 2 s, highway 4 min, park 30 s, crank 2 s, highway 1 min, lamps 1 min", 0.02, 3},
		{"a lithium bank that holds the relay", lithiumVan, "crank 2 s, highway 5 min, park 10 min", 0.02, 1},
		{"hours of highway and a night", leadVan, "crank 2 s, highway 3 h, park 8 h", 2, 1},
	}
	for _, c := range cases {
		rig := relayVan(t, c.doc)
		p, err := day.ParsePattern(c.pattern)
		require.NoError(t, err)
		cond := day.Conditions{OutsideC: 20}
		netlist, err := day.Netlist(rig, p, cond, c.step)
		require.NoError(t, err)
		theirs, err := spice.Transient(netlist)
		require.NoError(t, err, c.name)
		var frames []day.Frame
		got, err := day.Run(rig, p, cond, day.Options{Tolerance: 0.05, Watch: func(f day.Frame) { frames = append(frames, f) }})
		require.NoError(t, err)

		var ours []float64
		for _, e := range got.Events {
			if e.ID == "join.closes" || e.ID == "join.opens" {
				ours = append(ours, e.AtS)
			}
		}
		require.Len(t, ours, c.switches, c.name)
		if c.step <= 0.02 {
			for i, at := range switched(theirs) {
				require.Less(t, i, len(ours), c.name)
				assert.InDelta(t, at, ours[i], 0.02, "%s: switches", c.name)
			}
		}
		compared := 0
		for _, f := range frames {
			if near(f.T, ours, p) {
				continue // the two step through a jump at moments of their own
			}
			for column, have := range map[int]float64{1: f.BusV, 2: f.InV, 4: f.AuxV} {
				want := theirs.At(column, f.T)
				assert.InDelta(t, want, have, 0.005*math.Abs(want), "%s: column %d at %.3f s", c.name, column, f.T)
				compared++
			}
		}
		assert.Greater(t, compared, 60, c.name)
	}
}

// switched are the times at which the two sides of the relay jump together or apart: what
// it senses falls at once when it closes, and parts from the other side when it opens.
func switched(rows spice.Through) []float64 {
	const jump = 0.05 // V
	var at []float64
	closed := false
	for i, row := range rows[1:] {
		gap, before := math.Abs(row[2]-row[3]), math.Abs(rows[i][2]-rows[i][3])
		if !closed && before-gap > jump && gap < jump*2 && row[2] > 12.7 || closed && gap-before > jump {
			closed = !closed
			at = append(at, row[0])
		}
	}
	return at
}

// near says whether a moment is within a tenth of a second of a jump.
func near(t float64, events []float64, p day.Pattern) bool {
	edge := 0.0
	for _, s := range p {
		if math.Abs(t-edge) < 0.1 {
			return true
		}
		edge += s.Seconds
	}
	for _, e := range events {
		if math.Abs(t-e) < 0.1 {
			return true
		}
	}
	return math.Abs(t-edge) < 0.1
}

func TestWhatHasNoNetlistSaysSo(t *testing.T) {
	doc, _ := job.Decode([]byte(`{}`))
	rig := rig.Of(design.Of(doc, parts.Stock()), rig.Nominal)
	p, err := day.ParsePattern("park 1 h")
	require.NoError(t, err)
	_, err = day.Netlist(rig, p, day.Conditions{}, 1)
	var named *day.NoNetlistError
	require.ErrorAs(t, err, &named)
}

// A day of the same installation, ours and ngspice's: the ratio is printed.
func BenchmarkDayAgainstNgspice(b *testing.B) {
	need(b)
	rig := relayVan(b, leadVan)
	p, err := day.ParsePattern("crank 2 s, highway 3 h, park 8 h")
	require.NoError(b, err)
	netlist, err := day.Netlist(rig, p, day.Conditions{OutsideC: 20}, 2)
	require.NoError(b, err)
	var ours, theirs time.Duration
	for b.Loop() {
		begin := time.Now()
		_, err = day.Run(rig, p, day.Conditions{OutsideC: 20}, day.Options{})
		require.NoError(b, err)
		ours += time.Since(begin)
		begin = time.Now()
		_, err = spice.Transient(netlist)
		require.NoError(b, err)
		theirs += time.Since(begin)
	}
	b.ReportMetric(theirs.Seconds()/ours.Seconds(), "ngspice/ours")
}
