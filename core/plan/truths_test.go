package plan_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"

	"epitrope/core/coupling"
	"epitrope/core/design"
	"epitrope/core/parts"
	"epitrope/core/plan"
	"epitrope/core/protect"
	"epitrope/core/retrofit"
	"epitrope/internal/jobtest"
)

// The truths of the trade that are easy to get wrong (§19) and that concern a choice: each
// with a job that shows it and one that does not. raised says where it turns up: a note, a
// check, a line of the mode table or a reason against a coupling.
func TestTruthsThatConcernAChoice(t *testing.T) {
	const fixed = `"alternator":{"label":"90/180 A","regulation":"fixed","knownBy":"test","volts":14.4}`
	note := func(id string) func(string) bool {
		return func(text string) bool { return contains(jobtest.NoteIDs(jobtest.Plan(t, text)), id) }
	}
	check := func(id, level string) func(string) bool {
		return func(text string) bool { return jobtest.CheckLevel(jobtest.Plan(t, text), id) == level }
	}
	mode := func(rule string) func(string) bool {
		return func(text string) bool {
			for _, r := range jobtest.Modes(t, text).Rows {
				if r.Rule == rule {
					return true
				}
			}
			return false
		}
	}
	reason := func(id string, kind string) func(string) bool {
		return func(text string) bool {
			for _, m := range jobtest.Plan(t, text).Methods {
				for _, r := range m.Reasons {
					if string(m.Kind) == kind && r.ID == id {
						return true
					}
				}
			}
			return false
		}
	}
	cases := []struct {
		truth  int
		says   string
		raised func(string) bool
		shows  string
		not    string
	}{
		{1, "a charger is a constant-power load", note("charger.starved"),
			`{"vehicle":{"kind":"tow-caravan"},` + fixed +
				`,"aux":{"chemistry":"lifepo4","capacityAh":300},"routes":{"startM":10},"pins":{"chargerA":80,"startSize":"8 AWG"}}`,
			`{"vehicle":{"kind":"tow-caravan"},"alternator":{"label":"250 A","regulation":"fixed","knownBy":"test","volts":14.4},` +
				`"aux":{"chemistry":"lifepo4","capacityAh":300},"routes":{"startM":10},"pins":{"chargerA":80,"startSize":"2/0 AWG"}}`},
		{2, "drop alone approves cable that burns", note("cable.burns"),
			`{"routes":{"startM":0.5,"auxM":0.5},"pins":{"startSize":"2.5 mm2","chargerA":30}}`,
			`{"routes":{"startM":0.5,"auxM":0.5},"pins":{"startSize":"16 mm2","chargerA":30}}`},
		{3, "the fuse protects the cable", note("fuse.over"), `{"pins":{"startFuseA":200,"startSize":"16 mm2"}}`, `{}`},
		{4, "every element in series carries the same amps", note("chain.over"),
			`{"vehicle":{"kind":"tow-caravan"},"alternator":{"label":"250 A"},"pins":{"chargerA":40,"plugA":50}}`,
			`{"vehicle":{"kind":"tow-caravan"},"alternator":{"label":"250 A"},"pins":{"chargerA":40,"plugA":120}}`},
		{5, "a headline rating is not that of the rest contact", reason("changeover.rest", "changeover"),
			`{"alternator":{"label":"300 A"},"aux":{"capacityAh":400},"use":{"dailyAh":150,"drivenHours":2}}`,
			`{"alternator":{"label":"180 A"},"aux":{"capacityAh":100},"use":{"dailyAh":40,"drivenHours":2}}`},
		{6, "a relay detects voltage, not charge", note("relay.open"),
			`{"alternator":{"regulation":"variable"},"aux":{"chemistry":"agm"},"pins":{"coupling":"vsr"}}`, `{` + fixed +
				`,"aux":{"chemistry":"agm"},"pins":{"coupling":"vsr"}}`},
		{7, "where the relay sits decides chatter", check("place.sensing", "caution"), `{` + fixed +
			`,"aux":{"chemistry":"agm"},"routes":{"startM":5,"auxM":1},"pins":{"coupling":"vsr","startSize":"6 mm2"}}`, `{` + fixed +
			`,"aux":{"chemistry":"agm"},"routes":{"startM":1,"auxM":5},"pins":{"coupling":"vsr"}}`},
		{8, "lithium rests above a relay's cut-out", mode("mode.flat"), `{` + fixed +
			`,"aux":{"chemistry":"lifepo4","place":"seat"},"pins":{"coupling":"vsr"}}`, `{` + fixed +
			`,"aux":{"chemistry":"agm","place":"seat"},"pins":{"coupling":"vsr"}}`},
		{9, "drop depends on current", note("relay.undercharge"),
			`{"alternator":{"regulation":"fixed","knownBy":"test","volts":14.2},"aux":{"chemistry":"calcium"},"pins":{"coupling":"vsr"}}`, `{` +
				fixed + `,"aux":{"chemistry":"agm"},"pins":{"coupling":"vsr"}}`},
		{13, "accessory, ignition and engine-running are different facts", mode("mode.drains"),
			`{"pins":{"chargerA":10},"day":{"trigger":"accessory"}}`, `{"pins":{"chargerA":10}}`},
		{14, "joined by ignition means joined while cranking", mode("mode.shares"), `{` + fixed +
			`,"aux":{"chemistry":"agm","place":"bonnet"},"pins":{"coupling":"contactor"}}`, `{` + fixed +
			`,"aux":{"chemistry":"agm","place":"bonnet"},"pins":{"coupling":"contactor"},"day":{"trigger":"running"}}`},
		{17, "label is not available current", note("alternator.idle"), `{"alternator":{"label":"70/140 A"},"pins":{"chargerA":40}}`,
			`{"alternator":{"label":"150/250 A"},"pins":{"chargerA":10}}`},
		{18, "equal path resistance per parallel battery", check("bank.shares", "caution"), `{"aux":{"count":2,"feed":"end","linkM":0.5}}`,
			`{"aux":{"count":2,"feed":"corners","linkM":0.5}}`},
		{19, "the return must not cross a tow coupling", note("return.hitch"), `{"vehicle":{"kind":"tow-caravan"},"pins":{"return":"chassis"}}`,
			`{"vehicle":{"kind":"tow-caravan"}}`},
		{19, "aluminium is no return", note("answers.frame"), `{"vehicle":{"frame":"aluminium"},"pins":{"return":"chassis"}}`,
			`{"vehicle":{"frame":"steel"},"pins":{"return":"chassis"}}`},
		{20, "one fuse out does not make it dead", func(text string) bool { return len(jobtest.ToWorkOn(t, jobtest.Modes(t, text), "C1")) > 1 },
			`{"pins":{"coupling":"vsr"}}`, `{}`},
		{21, "a battery under 10 V is not joined", note("join.ruined"), `{` + fixed +
			`,"aux":{"chemistry":"agm","place":"seat","restV":9},"startBattery":{"restV":12.6},"pins":{"coupling":"vsr"}}`, `{` + fixed +
			`,"aux":{"chemistry":"agm","place":"seat","restV":12.2},"startBattery":{"restV":12.6},"pins":{"coupling":"vsr"}}`},
		{25, "a bypass is tagged temporary", func(text string) bool {
			b := retrofit.BypassOf(jobtest.Design(t, text))
			return b != nil && b.Tag != ""
		},
			`{"have":{"fuseA":80,"size":"16 mm2","metres":9,"fuses":2,"relayA":100}}`, `{}`},
	}
	for _, c := range cases {
		assert.True(t, c.raised(c.shows), "%d: %s", c.truth, c.says)
		assert.False(t, c.raised(c.not), "%d, not: %s", c.truth, c.says)
	}
}

func contains(ids []string, id string) bool {
	for _, one := range ids {
		if one == id {
			return true
		}
	}
	return false
}

// Truth 7: thin cable before the relay's sensing point makes it chatter; the same copper
// after it only slows the charge.
func TestThinCableBeforeTheSensingPointChatters(t *testing.T) {
	job := func(start, aux string) plan.Plan {
		return jobtest.Plan(t, `{"alternator":{"label":"90/180 A","regulation":"fixed","knownBy":"test","volts":13.9},"aux":{"chemistry":"agm",
"capacityAh":200,"place":"rear"},
			"routes":{"startM":4,"auxM":4},"pins":{"coupling":"vsr","startSize":"`+start+`","auxSize":"`+aux+`"}}`)
	}
	before, after := job("10 mm2", "70 mm2"), job("70 mm2", "10 mm2")
	assert.Contains(t, jobtest.NoteIDs(before), "relay.chatter")
	assert.NotContains(t, jobtest.NoteIDs(after), "relay.chatter")
}

// A feed to the trailer beside the charger is carried by the same run: more copper, a
// larger fuse.
func TestFeedBesideTheCharger(t *testing.T) {
	const trailer = `{"vehicle":{"kind":"tow-caravan"},"pins":{"chargerA":20}%s}`
	plain, fed := jobtest.Plan(t, fmt.Sprintf(trailer, "")), jobtest.Plan(t, fmt.Sprintf(trailer, `,"wants":{"feedA":15}`))
	assert.InDelta(t, 15, jobtest.State(t, fed, "cruise").InA-jobtest.State(t, plain, "cruise").InA, 2)
	assert.Greater(t, jobtest.StartFuse(fed), jobtest.StartFuse(plain))
}

// Two chargers side by side give and draw twice what one does.
func TestTwoChargers(t *testing.T) {
	one, two := jobtest.Plan(t, `{"pins":{"chargerA":20}}`), jobtest.Plan(t, `{"pins":{"chargerA":20,"chargerCount":2}}`)
	assert.InDelta(t, 2*jobtest.State(t, one, "cruise").OutA, jobtest.State(t, two, "cruise").OutA, 0.5)
	assert.Contains(t, jobtest.Column(t, two, "coupling").Part.Text, "40 A")
}

// Whatever else is decided, the alternator's part says what it has for charging at idle and
// at cruise.
func TestHeadroomIsAlwaysThere(t *testing.T) {
	for _, kind := range coupling.Kinds() {
		p := jobtest.Plan(t, `{"pins":{"coupling":"`+string(kind)+`"}}`)
		for _, key := range []string{"idle", "cruise"} {
			assert.Contains(t, p.Figures, key, kind)
			if kind != coupling.SecondAlternator {
				assert.Contains(t, jobtest.Column(t, p, "alternator").Figures, key, kind)
			}
		}
	}
}

// A cable whose place is hotter than its insulation bears may carry nothing: that is said of
// the cable, with the insulation that bears it, and nothing else is made of it.
func TestAPlaceHotterThanTheInsulation(t *testing.T) {
	for _, warmC := range []string{"70", "90"} {
		p := jobtest.Plan(t, `{"cable":{"insulation":"70"},"bays":{"startC":`+warmC+`}}`)
		assert.Contains(t, jobtest.NoteIDs(p), "cable.place")
		assert.NotContains(t, jobtest.NoteIDs(p), "fuse.none", "the fuse is not what is wrong")
		for _, n := range p.Notes {
			if n.ID == "cable.place" {
				assert.Equal(t, "c1", n.Column)
				assert.Contains(t, n.Text, warmC+" °C")
				assert.Len(t, n.Cures, 1)
			}
		}
		assert.Equal(t, 0.0, p.Figures["c1.balance"].Value)
		assert.Contains(t, jobtest.Column(t, p, "c1").Carries.Text, "of 0 A")
	}
	assert.NotContains(t, jobtest.NoteIDs(jobtest.Plan(t, `{"cable":{"insulation":"105"},"bays":{"startC":90}}`)), "cable.place")
}

// Two chargers side by side draw twice what one does beside a bypass, too.
func TestTwoChargersBesideABypass(t *testing.T) {
	const job = `{"alternator":{"label":"300 A"},"aux":{"chemistry":"lifepo4","capacityAh":600},"pins":{"coupling":"highcurrent",` +
		`"chargerA":50,"chargerCount":%s}}`
	one, two := jobtest.Plan(t, fmt.Sprintf(job, "1")), jobtest.Plan(t, fmt.Sprintf(job, "2"))
	more := two.Chain[0].Amps - one.Chain[0].Amps
	assert.InDelta(t, 50*14.4/(0.9*12.5), more, 15, "what the second draws at worst, and what the thicker cable lets through")
}

// A wire of the run that was there before and was not measured stays open, however it looks.
func TestAWireThatWasNotMeasured(t *testing.T) {
	doc := jobtest.Document(t, `{"found":{"w1":{"role":"start","fuseA":60,"state":"taped"}}}`)
	assert.Equal(t, "open", retrofit.Of(design.Of(doc, parts.Stock())).Wires[0].Fate)
}

// A fuse of any rating, also one that only breakers come in, is held against the cable it
// was found on.
func TestFoundFusesOfEveryRating(t *testing.T) {
	for _, ratingA := range protect.PowerRatings() {
		text := fmt.Sprintf(`{"found":{"w1":{"role":"start","size":"1.5 mm2","lengthM":3,"fuseA":%g,"amps":5}}}`, ratingA)
		found := retrofit.Of(design.Of(jobtest.Document(t, text), parts.Stock()))
		if ratingA > 30 {
			assert.Equal(t, "goes", found.Wires[0].Fate, "%g A on 1.5 mm²", ratingA)
		}
		thick := fmt.Sprintf(`{"found":{"w1":{"role":"start","size":"120 mm2","lengthM":3,"fuseA":%g,"amps":5}}}`, ratingA)
		assert.NotEmpty(t, retrofit.Of(design.Of(jobtest.Document(t, thick), parts.Stock())).Wires[0].Findings)
	}
}
