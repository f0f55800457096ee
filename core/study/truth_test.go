package study_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"epitrope/core/study"
	"epitrope/core/verdict"
	"epitrope/internal/jobtest"
)

// ran is a job run through its days.
func ran(t *testing.T, document string) study.Trial {
	t.Helper()
	return study.Try(jobtest.Design(t, document), study.Window{}, nil)
}

// verdictOf is a verdict of a run.
func verdictOf(r study.Trial, id string) study.Verdict {
	for _, v := range r.Verdicts {
		if v.ID == id {
			return v
		}
	}
	return study.Verdict{}
}

// A conductor's and a joint's temperature is held against its insulation in the day too.
func TestHeatKnowsInsulation(t *testing.T) {
	thin := ran(t, `{"cable":{"insulation":70},"routes":{"startM":2,"auxM":0.9},"pins":{"startSize":"6 mm2","chargerA":50,"startFuseA":125},
		"bays":{"startC":60},"day":{"pattern":"own","own":"crank 2 s, highway 3 h, park 3 h","outsideC":35},
		"alternator":{"label":"180 A","regulation":"fixed","knownBy":"test","volts":14.4}}`)
	heat := verdictOf(thin, "heat")
	assert.Equal(t, verdict.Bad, heat.Level, heat.Text)
	assert.Contains(t, heat.Text, "its insulation bears 70 °C")
	sound := ran(t, `{"alternator":{"label":"180 A","regulation":"fixed","knownBy":"test","volts":14.4}}`)
	assert.Equal(t, verdict.Good, verdictOf(sound, "heat").Level, verdictOf(sound, "heat").Text)
}

// Loads that the battery cannot feed go off, and the days go on: that is no end of a run, and no
// success either.
func TestLoadsGoDark(t *testing.T) {
	r := ran(t, `{"aux":{"chemistry":"agm","capacityAh":5},"day":{"pattern":"own","own":"park 1 h load 400 A, crank 2 s, highway 1 h"}}`)
	assert.Empty(t, r.Stopped)
	assert.Contains(t, r.Events[0].Text, "what it feeds goes off")
	for _, a := range r.Aims {
		if a.ID == "never-empty" {
			assert.False(t, a.Met)
		}
	}
}

// What stands in for an answer never makes the engine fail to start.
func TestStandInsStart(t *testing.T) {
	for _, engine := range []string{"petrol", "diesel", "hybrid"} {
		for _, capacity := range []string{"45", "60", "80", "110"} {
			r := ran(t, `{"vehicle":{"engine":"`+engine+`"},"startBattery":{"capacityAh":`+capacity+`},"day":{"days":2}}`)
			assert.Zero(t, r.Outcome.FailedStarts, "%s, %s Ah", engine, capacity)
		}
	}
}

// A contact run is sized for what the circuit drives: over ten minutes of the day a flat lead battery
// takes no more than its fuses carry for hours, 80 % of their rating, nor than its cables bear, and the
// rush of the join opens none.
func TestContactRunIsSizedForTheDay(t *testing.T) {
	for _, battery := range []string{`"chemistry":"calcium","capacityAh":95,"place":"bonnet"`,
		`"chemistry":"agm","capacityAh":120,"place":"rear"`} {
		document := `{"alternator":{"label":"140 A","regulation":"fixed","knownBy":"test","volts":14.4},"aux":{` + battery +
			`},"pins":{"coupling":"vsr"},"day":{"auxSOC":15,"days":2}}`
		d := jobtest.Design(t, document)
		for _, m := range ran(t, document).Fuses {
			assert.LessOrEqual(t, m.HeldA, 0.8*min(d.Start.Fuse.RatingA, d.Aux.Fuse.RatingA), "%s: %s", m.Fuse, battery)
			assert.LessOrEqual(t, m.HeldA, min(d.Start.Trial.AmpacityA, d.Aux.Trial.AmpacityA), "%s: %s", m.Fuse, battery)
			assert.Less(t, m.Heated, 100.0, "%s: %s", m.Fuse, battery)
		}
	}
}
