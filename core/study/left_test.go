package study_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/coupling"
	"epitrope/core/modes"
	"epitrope/core/plan"
	"epitrope/core/study"
	"epitrope/internal/jobtest"
)

// How long a forgotten switch lasts has one answer: in the mode table, beside it, among the methods and
// the schools; and that of a feed point live at accessory in its note (trade §7).
func TestOneAnswerForWhatIsLeftOn(t *testing.T) {
	for _, text := range []string{
		`{"vehicle":{"kind":"wagon"},"startBattery":{"capacityAh":72},"pins":{"chargerA":25},"day":{"trigger":"switch"}}`,
		`{"vehicle":{"kind":"motorhome"},"aux":{"chemistry":"agm"},"pins":{"chargerA":10,"startSize":"35 mm2"},"day":{"trigger":"switch"}}`,
	} {
		d := jobtest.Design(t, text)
		m := modes.Of(d)
		says := strings.TrimSuffix(m.Forgotten.Says, ".")[1:]
		require.NotEmpty(t, says)
		assert.Contains(t, jobtest.Line(t, m, "switch on", "off", "stopped").Why, says)
		assert.Contains(t, study.Drive(d, coupling.DCDC, nil).Fails.Live, says)
		var told []string
		for _, s := range study.Schools(d) {
			for _, o := range s.Options {
				if s.ID == "signal" && o.Value == "switch" {
					told = append(told, o.Comes)
				}
			}
		}
		require.Len(t, told, 1)
		assert.Contains(t, told[0], says)
	}
	d := jobtest.Design(t, `{"pins":{"chargerA":10},"signal":{"feed":"f1"},"feeds":{"f1":{"name":"F7","off":"dead","slept":"dead",
		"accessory":"live","on":"live","running":"live","cranking":"dead","circuit":"radio"}}}`)
	for _, n := range plan.Of(d).Notes {
		if n.ID == "signal.accessory" {
			row := jobtest.Line(t, modes.Of(d), "–", "accessory", "stopped").Why
			_, takes, _ := strings.Cut(n.Text, "the charger takes ")
			takes, _, _ = strings.Cut(takes, ".")
			assert.Contains(t, row, takes)
			return
		}
	}
	t.Fatal("nothing is said of a feed point that is live at accessory")
}
