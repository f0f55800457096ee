package judge_test

import (
	"epitrope/internal/jobtest"
	"testing"

	"github.com/stretchr/testify/assert"
)

func settingCases() []noteCase {
	return []noteCase{
		// Gel on the AGM default (trade §12): harmed above 14.4 V.
		{"profile.harms", `{"aux":{"chemistry":"gel"},"profile":{"setting":"agm"}}`, `{"aux":{"chemistry":"gel"},"profile":{"setting":"gel"}}`},
		{"profile.high", `{"aux":{"chemistry":"agm"},"profile":{"setting":"flooded"}}`,
			`{"aux":{"chemistry":"agm"},"profile":{"setting":"agm"}}`},
		{"profile.low", `{"aux":{"chemistry":"calcium","place":"bonnet"},"profile":{"setting":"agm"}}`,
			`{"aux":{"chemistry":"calcium","place":"bonnet"},"profile":{"setting":"calcium"}}`},
		// A wet battery left on the AGM default: the volts happen to do.
		{"profile.other", `{"aux":{"chemistry":"flooded","place":"bonnet"},"profile":{"setting":"agm"}}`,
			`{"aux":{"chemistry":"flooded","place":"bonnet"}}`},
		// A broken configuration lead silently becomes the default.
		{"profile.broken", `{"aux":{"chemistry":"gel"},"profile":{"broken":"b"}}`, `{"aux":{"chemistry":"gel"},"profile":{"broken":"a"}}`},
		{"profile.float", `{"settings":{"s1":{"name":"one","absorptionV":14.4,"floatV":13.7}}}`,
			`{"settings":{"s1":{"name":"one","absorptionV":14.4,"floatV":13.6}}}`},
		{"profile.compensates", `{"settings":{"s1":{"absorptionV":14.4,"compensated":"yes"}}}`,
			`{"settings":{"s1":{"absorptionV":14.4,"compensated":"no"}}}`},
		{"profile.cold", `{"day":{"outsideC":-1}}`, `{"day":{"outsideC":0}}`},
		{"profile.cold", `{"day":{"outsideC":-1}}`, `{"day":{"outsideC":-1},"profile":{"disable":"yes"}}`},
		{"profile.cold", `{"aux":{"chemistry":"sodium"},"day":{"outsideC":-21}}`, `{"aux":{"chemistry":"sodium"},"day":{"outsideC":-19}}`},
		{"profile.loads", `{"aux":{"chemistry":"sodium"}}`, `{}`},
		{"profile.disable", `{"profile":{"disable":"no"}}`, `{"profile":{"disable":"no"},"aux":{"chemistry":"agm"}}`},
		{"profile.clamp", `{"aux":{"chemistry":"flooded","place":"bonnet"},"day":{"outsideC":-10}}`,
			`{"aux":{"chemistry":"flooded","place":"bonnet"},"day":{"outsideC":20}}`},
		{"profile.uncompensated", `{"aux":{"chemistry":"agm"},"settings":{"s1":{"absorptionV":14.6,"floatV":13.6}},"day":{"outsideC":4}}`,
			`{"aux":{"chemistry":"agm"},"settings":{"s1":{"absorptionV":14.6,"floatV":13.6}},"day":{"outsideC":5}}`},
	}
}

// Each note on the charger's setting with a job that raises it and one that just does not.
func TestSettingsNotes(t *testing.T) {
	for _, c := range settingCases() {
		fires := jobtest.Plan(t, c.fires)
		assert.Contains(t, jobtest.NoteIDs(fires), c.id, c.fires)
		assert.NotContains(t, jobtest.NoteIDs(jobtest.Plan(t, c.not)), c.id, c.not)
		for _, n := range fires.Notes {
			assert.NotContains(t, n.Text+n.Why, "%!", n.ID)
		}
	}
}

// What the battery really gets is what the circuit says in the setting that holds.
func TestWhatTheBatteryReallyGets(t *testing.T) {
	right, wrong := jobtest.Plan(t, `{"aux":{"chemistry":"gel"}}`), jobtest.Plan(t, `{"aux":{"chemistry":"gel"},"profile":{"setting":"agm"}}`)
	assert.Equal(t, "gel", right.Settings.Now)
	assert.Equal(t, "gel", wrong.Settings.Right)
	lost := 14.7 - jobtest.State(t, wrong, "cruise").AuxV
	assert.InDelta(t, 14.7-0.1*lost, wrong.Settings.GetsV, 0.011, "at a tenth of the current a tenth is lost")
	assert.InDelta(t, 0.4, wrong.Settings.GetsV-right.Settings.GetsV, 0.05, "14.7 for 14.3")
	assert.Len(t, right.Settings.Leads, 2)
	assert.Equal(t, "to ground", right.Settings.Leads[1].Joined)
}

// A card made from scratch is used: its settings take the place of the stock card's, and
// the one for this battery is found among them.
func TestOwnCard(t *testing.T) {
	p := jobtest.Plan(t, `{"aux":{"chemistry":"gel"},"card":{"name":"Bench box 30","way":"button"},"settings":{"a":{"name":"green",`+
		`"absorptionV":14.4,"for":"lifepo4"},"b":{"name":"amber","absorptionV":14.2,"floatV":13.6,"for":"gel","compensated":"yes",`+
		`"how":"hold five seconds"},"c":{"name":"unfinished"}}}`)
	assert.Equal(t, "Bench box 30", p.Settings.Card)
	assert.Equal(t, "a mode button held", p.Settings.Way)
	assert.Equal(t, "b", p.Settings.Now)
	assert.Len(t, p.Settings.List, 2)
	assert.InDelta(t, 14.2, p.Figures["input"].Inputs[1].Value, 1e-9, "the charger is sized at what it is set to")
}

// 24 V systems take twice the figures.
func TestSettingsAt24V(t *testing.T) {
	p := jobtest.Plan(t, `{"vehicle":{"systemVolts":24},"aux":{"chemistry":"agm"}}`)
	assert.InDelta(t, 28.8, p.Settings.Wants.LowV, 1e-9)
	assert.InDelta(t, 29.4, p.Settings.List[1].AbsorptionV, 1e-9)
	for _, line := range p.Settings.Temps {
		assert.InDelta(t, line.Wants, line.Volts, 1e-9, "rightly set, it holds what is wanted")
	}
}
