package prove_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/fault"
	"epitrope/core/prove"
	"epitrope/internal/jobtest"
	"epitrope/internal/standin"
)

// What is entered wrongly is met with the slip that gives it.
func TestSlips(t *testing.T) {
	p := proof(t, relay)
	for _, c := range []struct {
		id    string
		value float64
		level prove.Level
		says  string
	}{
		{"start-rest", 12.5, prove.AsExpected, ""}, {"start-rest", 125, prove.Impossible, "12.50 V would be as expected"},
		{"start-rest", -12.5, prove.Out, "changed over"}, {"start-rest", 0.05, prove.Out, "a probe without contact"},
		{"charge", -25, prove.Out, "the wrong way round"}, {"charge", 0, prove.Out, "alternating current"},
		{"start-running", 12.3, prove.JustOut, "not held at its speed"}, {"aux-charge", 15.4, prove.Out, "sun or mains"},
		{"lost-start", 0.0001, prove.Out, "a probe on the bolt"}, {"charge", 25000, prove.Impossible, "25.0 A would be as expected"},
	} {
		v := p.Judge([]prove.Taken{{ID: c.id, Value: c.value}}).Verdicts[0]
		assert.Equal(t, c.level, v.Level, "%s %g: %+v", c.id, c.value, v.Band)
		if c.says == "" {
			assert.Empty(t, v.Slips, "%s %g", c.id, c.value)
			continue
		}
		assert.Contains(t, strings.Join(v.Slips, "; "), c.says, "%s %g", c.id, c.value)
	}
}

// A later reading stands for an earlier one; what is none of the proof's is left out.
func TestATakenAgainReadingStands(t *testing.T) {
	p := proof(t, relay)
	out := p.Judge([]prove.Taken{{ID: "start-rest", Value: 3}, {ID: "nothing", Value: 1}, {ID: "start-rest", Value: 12.6}})
	require.Len(t, out.Verdicts, 1)
	assert.Equal(t, prove.AsExpected, out.Verdicts[0].Level)
	assert.Empty(t, out.Causes)
}

// While a stop stands, nothing is expected.
func TestAStopStopsTheProof(t *testing.T) {
	p := proof(t, `{"aux":{"chemistry":"flooded","place":"rear"},"pins":{"coupling":"vsr"}}`)
	assert.NotEmpty(t, p.Stops)
	assert.Empty(t, p.Readings)
	assert.Empty(t, p.Judge([]prove.Taken{{ID: "start-rest", Value: 12}}).Verdicts)
}

// Wrong polarity, a way past the coupling and a signal that is live with the key out are seen before anything is hurt by them.
func TestDangersAreSeenFirst(t *testing.T) {
	charger := jobtest.Design(t, `{"alternator":{"label":"120/200 A"},"aux":{"chemistry":"agm","capacityAh":100},"use":{"dailyAh":20}}`)
	p := prove.Of(charger)
	require.Empty(t, p.Stops)
	for id, station := range map[string]string{"swapped aux": prove.FusesOut, "bypassed": prove.Asleep, "always feed": prove.KeyOut} {
		at := slices.IndexFunc(fault.Of(charger), func(f fault.Fault) bool { return f.ID == id })
		require.GreaterOrEqual(t, at, 0, id)
		f := fault.Of(charger)[at]
		assert.True(t, f.Dangerous(), id)
		out := proved(p, standin.Build(charger, p, 6).With(f, f.Most))
		first := out.Verdicts[slices.IndexFunc(out.Verdicts, func(v prove.Meaning) bool { return v.Level == prove.Out })]
		r, _ := p.Reading(first.ID)
		assert.Equal(t, station, r.Station, "%s: %s", id, first.ID)
		named := slices.IndexFunc(out.Causes, func(c prove.Cause) bool { return c.ID == id || slices.Contains(c.Same, id) })
		assert.True(t, named >= 0 && named < 3, "%s: %v", id, out.Causes)
	}
}
