package modes_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/judge"
	"epitrope/core/modes"
	"epitrope/internal/jobtest"
)

// rowAt is the line of a mode table with the key and the engine so.
func rowAt(t *testing.T, document, key, engine string) modes.Mode {
	t.Helper()
	for _, r := range modes.Of(jobtest.Design(t, document)).Rows {
		if r.Key == key && r.Engine == engine {
			return r
		}
	}
	require.Fail(t, "no such line", "%s, %s", key, engine)
	return modes.Mode{}
}

// A feed point that was found live with the key on is live there, whatever else was not tested: the
// batteries are joined, or the charger runs, with the engine stopped. Nobody knows where nobody looked.
func TestUntestedIsNotDead(t *testing.T) {
	for _, c := range []struct{ coupling, rule string }{{"contactor", "mode.feeds"}, {"dcdc", "mode.drains"}} {
		job := `{"aux":{"chemistry":"agm"},"pins":{"coupling":"` + c.coupling + `","chargerA":10},"signal":{"feed":"f1"},` +
			`"feeds":{"f1":{"name":"F22","off":"dead","on":"live"}}}`
		on := rowAt(t, job, "on", "stopped")
		assert.Equal(t, c.rule, on.Rule, on.Why)
		assert.False(t, on.Unknown)
		assert.True(t, on.Joined || on.Charging, c.coupling)
		for _, key := range []string{"off", "accessory"} {
			r := rowAt(t, job, key, "stopped")
			assert.True(t, r.Unknown, "%s with the key at %s: %s", c.coupling, key, r.Why)
			assert.Equal(t, "mode.unknown", r.Rule)
			assert.Equal(t, "not known", r.Lamp)
		}
		said := map[string]string{}
		for _, e := range judge.Signal(jobtest.Design(t, job)).Expected {
			said[e.At] = e.Is()
		}
		assert.Equal(t, "live", said["ignition on, engine stopped"])
		assert.Equal(t, "not known: test it", said["key out, after the bus sleeps"])
	}
}

// A point that was tested in every state leaves nothing open, and a plan without one asks for a
// signal that is live only while the engine runs.
func TestTestedIsKnown(t *testing.T) {
	for _, job := range []string{
		`{"signal":{"feed":"f1"},"feeds":{"f1":{"off":"dead","slept":"dead","accessory":"dead","on":"dead","cranking":"live","running":"live"}}}`,
		`{}`,
	} {
		for _, r := range modes.Of(jobtest.Design(t, job)).Rows {
			assert.False(t, r.Unknown, job)
			assert.NotEqual(t, "mode.drains", r.Rule, job)
		}
	}
}

// A relay is still closed for a while after the engine stops: with lead that ends by itself.
func TestRelayLingers(t *testing.T) {
	const relay = `{"alternator":{"regulation":"fixed","knownBy":"test","volts":14.4},"aux":{"chemistry":"%s","place":"seat"},` +
		`"pins":{"coupling":"vsr"}}`
	lead := fmt.Sprintf(relay, "agm")
	assert.Equal(t, "mode.lingers", rowAt(t, lead, "off", "just stopped").Rule)
	assert.False(t, rowAt(t, lead, "off", "stopped").Joined)
	lithium := fmt.Sprintf(relay, "lifepo4")
	assert.True(t, rowAt(t, lithium, "off", "just stopped").Joined)
	assert.Equal(t, "mode.flat", rowAt(t, lithium, "off", "stopped").Rule)
}

// A charger that watches voltage runs on after the engine stops, until the start battery has come down.
func TestDetectionOverruns(t *testing.T) {
	r := rowAt(t, `{"alternator":{"regulation":"fixed","knownBy":"test","volts":14.4},"day":{"trigger":"voltage"},"pins":{"chargerA":10},`+
		`"routes":{"startM":1,"auxM":1}}`, "off", "just stopped")
	assert.Equal(t, "mode.overruns", r.Rule, r.Why)
}
