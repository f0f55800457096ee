package judge_test

import (
	"fmt"
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

// Trade §19.7: a ground lead shared with the aux battery shifts what a relay senses by I·R, and the shift is told.
func TestASharedGroundShiftsByWhatItLoses(t *testing.T) {
	d := jobtest.Design(t, `{"vehicle":{"kind":"ute-tray"},"alternator":{"label":"90/180 A","regulation":"fixed","knownBy":"test",
		"volts":14.4},"aux":{"chemistry":"agm","capacityAh":100},"pins":{"coupling":"vsr"},"relay":{"against":"aux"}}`)
	early := d.StateBy("early")
	lost := early.OutA * (d.SteelOhm(d.Back.ChassisM) + d.BodyOhm())
	require.Greater(t, lost, 0.05)
	for _, c := range judge.Checks(d) {
		if c.ID == "place.against" {
			var amps, shift float64
			_, err := fmt.Sscanf(c.Text, "The relay senses against the aux battery's earth point: %f A in that lead shift what it sees by %f V.",
				&amps, &shift)
			require.NoError(t, err)
			assert.InDelta(t, 1.15*lost, shift, 0.15*lost+0.005, "steel and body, and the lugs of the way back")
			assert.Len(t, c.Cures, 1)
			return
		}
	}
	t.Fatal("nothing is said")
}

// A state that nobody has proven is told only where no other fails, and with an “if”.
func TestAStateThatIsNotProvenComesLast(t *testing.T) {
	for _, n := range judge.Notes(jobtest.Design(t, `{"pins":{"coupling":"vsr"},"aux":{"chemistry":"agm","place":"seat"}}`)) {
		if n.ID == "relay.open" {
			assert.True(t, strings.Contains(n.Text, "if it varies") == strings.Contains(n.Text, "eased"), n.Text)
		}
	}
}
