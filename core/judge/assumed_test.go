package judge_test

import (
	"math/rand/v2"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/judge"
	"epitrope/core/parts"
	"epitrope/core/verdict"
	"epitrope/core/working"
	"epitrope/internal/jobtest"
)

// noteOf is a note of a job by its id.
func noteOf(t *testing.T, document, id string) judge.Note {
	t.Helper()
	for _, n := range judge.Notes(jobtest.Design(t, document)) {
		if n.ID == id {
			return n
		}
	}
	return judge.Note{}
}

// What nobody said stops nothing: it says “if”. Once it is said, it stops.
func TestUnknownStopsNothing(t *testing.T) {
	for _, c := range []struct{ id, open, said string }{
		{"place.hot", `{"aux":{"place":"bonnet"}}`, `{"aux":{"place":"bonnet","chemistry":"lifepo4"}}`},
		{"relay.night", `{"pins":{"coupling":"vsr"}}`, `{"pins":{"coupling":"vsr"},"aux":{"chemistry":"lifepo4"}}`},
		{"relay.night", `{"pins":{"coupling":"vsr"},"aux":{"chemistry":"undecided"}}`,
			`{"pins":{"coupling":"vsr"},"aux":{"chemistry":"lifepo4"}}`},
		{"relay.open", `{"pins":{"coupling":"vsr"}}`, `{"pins":{"coupling":"vsr"},"alternator":{"regulation":"variable"}}`},
	} {
		open, said := noteOf(t, c.open, c.id), noteOf(t, c.said, c.id)
		assert.Equal(t, verdict.Beware, open.Severity, "%s: %s", c.open, open.Text)
		assert.Contains(t, open.Text, "; if it", c.open)
		assert.Equal(t, verdict.Stop, said.Severity, "%s: %s", c.said, said.Text)
		assert.NotContains(t, said.Text, "; if it", c.said)
	}
}

// Only what is seen with the regulation eased off hangs on whether it varies: thin cable before a relay makes
// it chatter at cruise with a steady machine too.
func TestOnlyEasedStatesSayIfItVaries(t *testing.T) {
	notes := judge.Notes(jobtest.Design(t, `{"alternator":{"label":"85 A","regulation":"fixed","knownBy":"year","volts":14.0},
		"aux":{"chemistry":"agm","capacityAh":105},"routes":{"startM":4.4,"auxM":0.5},"pins":{"coupling":"vsr","startSize":"6 AWG"}}`))
	eased, other := 0, 0
	for _, n := range notes {
		if n.ID != "relay.open" && n.ID != "relay.chatter" {
			continue
		}
		if strings.Contains(n.Text, "regulation eased off") {
			eased++
			assert.Contains(t, n.Text, "if it varies", n.Text)
		} else {
			other++
			assert.NotContains(t, n.Text, "if it varies", n.Text)
		}
	}
	assert.Positive(t, eased)
	assert.Positive(t, other)
}

// Trade: by year before about 2000 is evidence for steady regulation, after that it is none.
func TestOldMachinesAreSteady(t *testing.T) {
	year := func(y string) string {
		return `{"vehicle":{"year":` + y + `},"alternator":{"regulation":"fixed","knownBy":"year"},"aux":{"chemistry":"agm"},` +
			`"pins":{"coupling":"vsr"}}`
	}
	for _, n := range judge.Notes(jobtest.Design(t, year("1992"))) {
		assert.NotEqual(t, verdict.Stop, n.Severity, n.Text)
		assert.NotEqual(t, "regulation.unknown", n.ID)
	}
	assert.Equal(t, "regulation.unknown", noteOf(t, year("2003"), "regulation.unknown").ID)
}

// No stop stands on what nobody answered: with those answers at the mild end of what is usual it still
// stands. One that does not says “if”, and stops once the answer is given.
func TestNoStopStandsOnAStandIn(t *testing.T) {
	for _, c := range []struct{ id, open, said string }{
		{"charger.starved", `{"pins":{"chargerA":60,"startSize":"16 mm2"}}`,
			`{"alternator":{"label":"120 A","regulation":"variable","volts":14.2},"routes":{"startM":6,"earthM":0.6},"vehicle":{"loadA":45},
			"startBattery":{"capacityAh":80},"bays":{"startC":50},"pins":{"chargerA":60,"startSize":"16 mm2"}}`},
		{"method.pinned", `{"pins":{"coupling":"highcurrent"}}`, `{"alternator":{"label":"120 A"},"pins":{"coupling":"highcurrent"}}`},
	} {
		open, said := noteOf(t, c.open, c.id), noteOf(t, c.said, c.id)
		assert.Equal(t, verdict.Beware, open.Severity, c.open)
		assert.Contains(t, open.Text, "If what stands in", c.open)
		assert.Equal(t, verdict.Stop, said.Severity, c.said)
		assert.NotContains(t, said.Text, "If what stands in", c.said)
	}
	mild := map[string]any{"alternator.label": "150/250 A", "vehicle.loadA": 20.0, "use.dailyAh": 10.0, "use.drivenHours": 4.0,
		"routes.startM": 1.0, "routes.auxM": 0.3, "bays.startC": 40.0, "bays.auxC": 20.0, "alternator.regulation": "fixed",
		"alternator.knownBy": "test"}
	stops := 0
	for seed := range uint64(150) {
		doc, problems := job.Decode(jobtest.Random(rand.New(rand.NewPCG(seed, 181))))
		require.Empty(t, problems)
		d := design.Of(doc, parts.Stock())
		answers := map[string]any{"pins.coupling": string(d.Kind)}
		if pin := d.PinOf(d.AutoChargerA); doc.Pins.ChargerA == nil && d.Kind.Charger() && pin != nil {
			answers["pins.chargerA"] = pin
		}
		for _, f := range d.Facts.List {
			if v, usual := mild[f.Path]; usual && f.Origin == working.Assumed {
				answers[f.Path] = v
			}
		}
		answered, problems := job.With(doc, answers)
		require.Empty(t, problems)
		then := map[string]bool{}
		for _, n := range judge.Notes(design.Of(answered, parts.Stock())) {
			then[n.ID+" "+n.Column] = then[n.ID+" "+n.Column] || n.Severity == verdict.Stop
		}
		for _, n := range judge.Notes(d) {
			if n.Severity == verdict.Stop {
				stops++
				assert.True(t, then[n.ID+" "+n.Column], "seed %d: %s", seed, n.Text)
			}
		}
	}
	assert.Greater(t, stops, 100)
}
