package judge_test

import (
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/design"
	"epitrope/core/judge"
	"epitrope/internal/jobtest"
)

// What fails in several states is told once, of the worst of them while it drives: not of the first that comes.
func TestTheWorstStateIsTold(t *testing.T) {
	const doc = `{"alternator":{"label":"90/180 A","regulation":"fixed","knownBy":"test","volts":13.9},"aux":{"chemistry":"agm",` +
		`"capacityAh":200,"place":"rear"},"routes":{"startM":4,"auxM":4},"pins":{"coupling":"vsr","startSize":"6 mm2","auxSize":"70 mm2"}}`
	d := jobtest.Design(t, doc)
	out := d.Contact.Sensing.CutOutV
	worst, chatters := math.Inf(1), []string{}
	var label string
	for _, s := range d.States {
		if s.Kind == design.Charging && s.Joined && s.BusV >= out && s.SensedV < out {
			chatters = append(chatters, s.Label)
			if s.SensedV < worst && !s.Idles {
				worst, label = s.SensedV, s.Label
			}
		}
	}
	require.Greater(t, len(chatters), 1, "a job in which it chatters in several states")
	var told []string
	for _, n := range judge.Notes(d) {
		if n.ID == "relay.chatter" {
			told = append(told, n.Text)
		}
	}
	require.Len(t, told, 1)
	assert.Contains(t, told[0], label)
}

// A state that nobody has proven is told only where no other fails, and with an “if”.
func TestAStateThatIsNotProvenComesLast(t *testing.T) {
	for _, n := range judge.Notes(jobtest.Design(t, `{"pins":{"coupling":"vsr"},"aux":{"chemistry":"agm","place":"seat"}}`)) {
		if n.ID == "relay.open" {
			assert.True(t, strings.Contains(n.Text, "if it varies") == strings.Contains(n.Text, "eased"), n.Text)
		}
	}
}
