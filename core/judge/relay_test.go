package judge_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"epitrope/internal/jobtest"
)

// A relay is judged by its own label: the one that chatters as such are usually set holds where
// it parts lower; what is measured at its contact is lost there.
func TestRelayAsItsLabelSays(t *testing.T) {
	const job = `{"alternator":{"label":"90/180 A","regulation":"fixed","knownBy":"test","volts":13.9},"aux":{"chemistry":"agm",` +
		`"capacityAh":200,"place":"rear"},"routes":{"startM":4,"auxM":4},"pins":{"coupling":"vsr","startSize":"10 mm2","auxSize":"70 mm2"}%s}`
	with := func(relay string) string { return strings.Replace(job, "%s", relay, 1) }
	assert.Contains(t, jobtest.NoteIDs(jobtest.Plan(t, with(""))), "relay.chatter")
	assert.NotContains(t, jobtest.NoteIDs(jobtest.Plan(t, with(`,"relay":{"cutInV":12.9,"cutOutV":11.8}`))), "relay.chatter")

	good, burnt := jobtest.Design(t, with("")), jobtest.Design(t, with(`,"relay":{"contactMO":20}`))
	assert.Less(t, burnt.CruiseState().AuxV, good.CruiseState().AuxV)

	timed := jobtest.Design(t, with(`,"relay":{"closeS":30,"openS":0,"twoWay":"yes","coilA":0.4}`)).Contact
	assert.Equal(t, 30.0, timed.Sensing.CloseS)
	assert.Zero(t, timed.Sensing.OpenS)
	assert.True(t, timed.Sensing.TwoWay)
	assert.Equal(t, 13.4, timed.Sensing.CutInV, "two-way ones are set higher")
	assert.Equal(t, 0.4, timed.CoilA)
}
