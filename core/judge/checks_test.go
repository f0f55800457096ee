package judge_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/study"
	"epitrope/core/verdict"
	"epitrope/internal/jobtest"
)

const fits = `"lengthMM":330,"widthMM":173,"heightMM":220,"recessLengthMM":340,"recessWidthMM":180,"recessHeightMM":245,` +
	`"openingLengthMM":340,"openingWidthMM":180`

// restCases are what batteries rest at. Source: common practice, no source; AGM rests 0.1 V
// above flooded.
func restCases() []checkCase {
	start := func(answers string) string { return `{"startBattery":{` + answers + `}}` }
	lithium := func(answers string) string { return `{"aux":{"chemistry":"lifepo4",` + answers + `}}` }
	agm := func(answers string) string { return `{"aux":{"chemistry":"agm",` + answers + `}}` }
	return []checkCase{
		{"rest.fresh", "caution", start(`"restV":12.8,"restHours":3`), start(`"restV":12.8,"restHours":4`)},
		{"rest.high", "caution", start(`"restV":12.91`), start(`"restV":12.9`)},
		{"rest.high", "caution", agm(`"restV":13.01`), agm(`"restV":13`)},
		{"rest.charge", "good", start(`"restV":12.2`), start(`"restV":12.19`)},
		{"rest.low", "caution", start(`"restV":12.19`), start(`"restV":12.2`)},
		{"rest.flat", "caution", start(`"restV":11.8`), start(`"restV":11.81`)},
		{"rest.flat", "caution", agm(`"restV":11.2`), agm(`"restV":11.91`)},
		{"rest.ruined", "bad", start(`"restV":10.7`), start(`"restV":10.71`)},
		{"rest.ruined", "bad", `{"aux":{"chemistry":"gel","restV":3}}`, `{"aux":{"chemistry":"gel","restV":11}}`},
		{"rest.lithium.empty", "caution", lithium(`"restV":12.7`), lithium(`"restV":12.85`)},
		{"rest.lithium", "good", lithium(`"restV":13.2`), lithium(`"restV":12.7`)},
		{"rest.lithium.high", "caution", lithium(`"restV":13.6`), lithium(`"restV":13.4`)},
		{"rest.lithium.ruined", "bad", lithium(`"restV":4.6`), lithium(`"restV":10.6`)},
	}
}

func checkCases() []checkCase {
	const relay = `{"alternator":{"label":"90/180 A","regulation":"fixed","knownBy":"test","volts":14.4},"aux":{"chemistry":"agm",` +
		`"place":"seat"%s},"pins":{"coupling":"vsr"}%s}`
	vsr := func(aux, rest string) string {
		return strings.Replace(strings.Replace(relay, "%s", aux, 1), "%s", rest, 1)
	}
	return []checkCase{
		{"place.exhaust", "bad", `{"placing":{"exhaust":"yes"}}`, `{"placing":{"exhaust":"no"}}`},
		{"place.spray", "caution", `{"placing":{"spray":"yes"}}`, `{"placing":{"spray":"no"}}`},
		{"place.gas", "bad", `{"placing":{"gas":"yes"}}`, `{}`},
		{"place.gas.open", "open", `{}`, `{"placing":{"gas":"no"}}`},
		{"place.moving", "bad", `{"placing":{"moving":"no"}}`, `{"placing":{"moving":"yes"}}`},
		{"place.visible", "caution", `{"placing":{"visible":"no"}}`, `{"placing":{"visible":"yes"}}`},
		{"place.access", "caution", `{"placing":{"access":"no"}}`, `{"placing":{"access":"yes"}}`},
		{"place.terminals", "caution", `{"placing":{"terminals":"down"}}`, `{"placing":{"terminals":"level"}}`},
		{"place.sensing", "caution", `{"alternator":{"label":"90/180 A","regulation":"fixed","knownBy":"test",` +
			`"volts":14.4},"aux":{"chemistry":"agm"},"routes":{"startM":5,"auxM":1},` +
			`"pins":{"coupling":"vsr","startSize":"6 mm2"}}`, vsr("", `,"routes":{"startM":4.4,"auxM":1}`)},
		{"place.box", "bad", `{"placing":{"lengthMM":250,"widthMM":200,"heightMM":120}}`, `{"placing":{"lengthMM":250,"widthMM":200}}`},
		{"place.socket", "caution", `{"vehicle":{"kind":"tow-caravan"}}`, `{}`},
		{"fit.open", "open", `{"fit":{"lengthMM":330}}`, `{"fit":{` + fits + `,"aboveMM":300}}`},
		{"fit.goes", "good", `{"fit":{` + fits + `,"aboveMM":220}}`, `{"fit":{` + fits + `,"aboveMM":100}}`},
		{"fit.not", "bad", `{"fit":{` + strings.Replace(fits, `"recessHeightMM":245`, `"recessHeightMM":239`, 1) + `,"aboveMM":300}}`,
			`{"fit":{` + strings.Replace(fits, `"recessHeightMM":245`, `"recessHeightMM":240`, 1) + `,"aboveMM":300}}`},
		{"bank.shares", "caution", `{"aux":{"count":2,"feed":"end","linkM":0.5}}`, `{"aux":{"count":1}}`},
		{"bank.shares", "good", `{"aux":{"count":2,"feed":"corners","linkM":0.5}}`, `{}`},
		{"bank.mixed", "bad", `{"aux":{"count":2,"same":"no"}}`, `{"aux":{"count":2,"same":"yes"}}`},
		{"bank.same.open", "open", `{"aux":{"count":2}}`, `{"aux":{"count":2,"same":"yes"}}`},
		{"place.housed", "caution", `{"placing":{"housed":"no"}}`, `{"placing":{"housed":"yes"}}`},
		{"place.ground", "caution", `{"placing":{"ground":"no"}}`, `{"placing":{"ground":"yes"}}`},
		{"place.against", "caution", vsr("", `,"relay":{"against":"aux"}`), vsr("", `,"relay":{"against":"start"}`)},
		{"fit.bare", "bad", `{"aux":{"place":"seat"},"fit":{"covered":"no"}}`, `{"aux":{"place":"seat"},"fit":{"covered":"yes"}}`},
		{"fit.bare", "caution", `{"aux":{"place":"rear"},"fit":{"covered":"no"}}`, `{"aux":{"place":"rear"}}`},
		{"fit.bare", "bad",
			`{"fit":{"covered":"no",` + strings.Replace(fits, `"recessHeightMM":245`, `"recessHeightMM":249`, 1) + `,"aboveMM":300}}`,
			`{"fit":{"covered":"no",` + strings.Replace(fits, `"recessHeightMM":245`, `"recessHeightMM":290`, 1) + `,"aboveMM":300}}`},
		{"fit.covered", "good", `{"fit":{"covered":"yes"}}`, `{"fit":{"covered":"no"}}`},
		{"fit.covered.open", "open", `{}`, `{"fit":{"covered":"no"}}`},
		{"rest.asleep", "caution", `{"vehicle":{"asleepA":0.05},"use":{"parkedDays":60}}`,
			`{"vehicle":{"asleepA":0.05},"use":{"parkedDays":5}}`},
		{"rest.asleep", "good", `{"vehicle":{"asleepA":0.02},"use":{"parkedDays":10}}`, `{"use":{"parkedDays":6}}`},
		{"join.open", "open", vsr("", ""), vsr(`,"restV":12.4`, `,"startBattery":{"restV":12.6}`)},
		{"join.ruined", "bad", vsr(`,"restV":10.7`, `,"startBattery":{"restV":12.6}`), vsr(`,"restV":10.8`, `,"startBattery":{"restV":12.6}`)},
		{"join.flows", "good", vsr(`,"restV":12.4`, `,"startBattery":{"restV":12.6}`), vsr("", "")},
		{"join.large", "bad", vsr(`,"restV":10.8,"capacityAh":60`, `,"startBattery":{"restV":14},"routes":{"startM":0.3,"auxM":0.3}`),
			vsr(`,"restV":12.4`, `,"startBattery":{"restV":12.6}`)},
		{"answers.use", "caution", `{"use":{"dailyAh":80},"loads":{"a1":{"kind":"fridge"}}}`,
			`{"use":{"dailyAh":33},"loads":{"a1":{"kind":"fridge"}}}`},
		{"answers.idle", "caution", `{"use":{"drivenHours":1,"idleHours":1.1}}`, `{"use":{"drivenHours":1,"idleHours":1}}`},
		{"answers.suspect", "caution", `{"vehicle":{"year":2008},"alternator":{"regulation":"fixed","knownBy":"label"}}`,
			`{"vehicle":{"year":2007},"alternator":{"regulation":"fixed","knownBy":"label"}}`},
		{"answers.suspect", "caution", `{"vehicle":{"stopStart":"yes"},"alternator":{"regulation":"fixed","knownBy":"label"}}`,
			`{"vehicle":{"stopStart":"yes"},"alternator":{"regulation":"fixed","knownBy":"test"}}`},
		{"answers.sensor", "bad", `{"vehicle":{"sensor":"yes"},"schools":{"negative":"post"}}`, `{"vehicle":{"sensor":"yes"}}`},
		{"answers.frame", "bad", `{"vehicle":{"frame":"aluminium"},"pins":{"return":"chassis"}}`, `{"vehicle":{"frame":"aluminium"}}`},
		{"answers.bonded", "bad", `{"vehicle":{"bonded":"no"}}`, `{"vehicle":{"bonded":"no"},"pins":{"return":"cable"}}`},
		{"answers.startold", "caution", `{"startBattery":{"ageYears":6}}`, `{"startBattery":{"ageYears":5.9}}`},
		{"answers.start.load", "caution", `{"startBattery":{"restV":12.6,"loadedV":12.6,"loadedA":20}}`,
			`{"startBattery":{"restV":12.6,"loadedV":12.4,"loadedA":20}}`},
		{"answers.aux.load", "caution", `{"aux":{"restV":13.2,"loadedV":13.3,"loadedA":20}}`,
			`{"aux":{"restV":13.2,"loadedV":13.1,"loadedA":20}}`},
		{"answers.crank", "caution", `{"startBattery":{"crankV":9.5}}`, `{"startBattery":{"crankV":9.6}}`},
		{"answers.crank.long", "caution", `{"startBattery":{"crankS":6}}`, `{"startBattery":{"crankS":5}}`},
		{"answers.load", "caution", `{"alternator":{"label":"40 A"},"vehicle":{"loadA":45}}`,
			`{"alternator":{"label":"180 A"},"vehicle":{"loadA":45}}`},
	}
}

// Each check with a job that raises it and one that just does not.
func TestChecksFire(t *testing.T) {
	for _, c := range slices.Concat(checkCases(), restCases()) {
		fires := jobtest.Plan(t, c.fires)
		assert.Equal(t, c.level, jobtest.CheckLevel(fires, c.id), "%s of %s", c.id, c.fires)
		assert.NotEqual(t, c.level, jobtest.CheckLevel(jobtest.Plan(t, c.not), c.id), "%s of %s", c.id, c.not)
		for _, k := range fires.Checks {
			assert.NotContains(t, k.Text, "%!", k.ID)
			assert.NotEmpty(t, k.Mark, k.ID)
			for _, path := range k.Fields {
				_, ok := job.FieldAt(path)
				assert.True(t, ok, "%s asks %s", k.ID, path)
			}
		}
	}
}

// Truth 4: a breaker, a relay and a plug of 100 A that carry 99 A in a hot bay are beyond
// what they bear; the weakest is named.
func TestChainNamesItsWeakest(t *testing.T) {
	const hot = `{"alternator":{"label":"150/250 A","regulation":"fixed","knownBy":"test"},"aux":{"chemistry":"lifepo4","capacityAh":300,
"place":"rear"},
		"bays":{"startC":60},"pins":{"chargerA":80,"coupling":"changeover","contactA":100}}`
	p := jobtest.Plan(t, hot)
	assert.Contains(t, jobtest.NoteIDs(p), "chain.over")
	weakest := 0
	for _, l := range p.Chain {
		if l.Weakest {
			weakest++
			assert.Equal(t, "coupling", l.Column, "the rest contact, not the headline")
			for _, o := range p.Chain {
				assert.LessOrEqual(t, o.Share, l.Share)
			}
		}
		assert.InDelta(t, 100*l.Amps/l.BearsA, l.Share, 0.02*l.Share+1)
	}
	assert.Equal(t, 1, weakest)
	small := jobtest.Plan(t, `{"vehicle":{"kind":"tow-caravan"},"alternator":{"label":"250 A"},"aux":{"chemistry":"lifepo4",`+
		`"capacityAh":300},`+
		`"pins":{"chargerA":40,"plugA":50}}`)
	assert.Contains(t, jobtest.NoteIDs(small), "chain.over", "a 50 A plug starves a caravan")
	assert.NotContains(t, jobtest.NoteIDs(jobtest.Plan(t, `{"vehicle":{"kind":"tow-caravan"},"pins":{"chargerA":20}}`)), "chain.over")
}

// A day's loads: 45 W for a third of the day at 12 V and a pump of 10 A for a quarter of an
// hour come to 31.5 + 2.5 Ah; sun and mains come off; days parked multiply.
func TestNeeds(t *testing.T) {
	const loads = `"loads":{"a1":{"kind":"fridge"},"a2":{"kind":"pump","amps":10,"hours":"15 min"}}`
	n := jobtest.Plan(t, `{`+loads+`,"use":{"drivenHours":2}}`).Needs
	require.Len(t, n.Loads, 2)
	assert.InDelta(t, 31.5, n.Loads[0].DayAh, 0.01, "45 W / 12 V × 24 h × 35 %")
	assert.InDelta(t, 2.5, n.Loads[1].DayAh, 0.01)
	assert.True(t, n.Loads[0].Assumed)
	assert.InDelta(t, 34, n.DailyAh, 0.01)
	assert.InDelta(t, 34, n.CycleAh, 0.01)
	assert.InDelta(t, 42.5, n.BankAh, 0.6, "34 Ah of LiFePO4 at 80 %")
	assert.Equal(t, 20.0, n.ChargerA, "34 / (2·0.97) = 17.5 A")
	parked := jobtest.Plan(t, `{`+loads+`,"use":{"drivenHours":2,"parkedDays":2,"mainsAh":4},"day":{"solarW":100,"sunHours":4}}`).Needs
	sun := 0.7 * 100 * 4 / 12.0
	assert.InDelta(t, (34-sun-4)*3, parked.CycleAh, 0.06)
	assert.Equal(t, "good", string(jobtest.Plan(t, `{"use":{"dailyAh":5,"mainsAh":10}}`).Needs.Level), "mains give it all")
	thirsty := jobtest.Plan(t, `{"use":{"dailyAh":200,"drivenHours":0.5}}`)
	assert.Equal(t, "bad", string(thirsty.Needs.Level))
	assert.Zero(t, thirsty.Needs.Before)
	low := jobtest.Plan(t, `{"aux":{"chemistry":"agm","capacityAh":60},"use":{"dailyAh":40,"drivenHours":5}}`).Needs
	assert.Equal(t, "caution", string(low.Level), "40 of 60 Ah of AGM is more than half")
	for _, key := range n.Figures {
		assert.Contains(t, jobtest.Plan(t, `{`+loads+`}`).Figures, key)
	}
}

// Known answers say how they are known; one that is entered as assumed stays assumed.
func TestHowAnswersAreKnown(t *testing.T) {
	p := jobtest.Plan(t, `{"routes":{"startM":3,"auxM":1},"known":{"routes/startM":"measured","routes/auxM":"assumed"}}`)
	known := map[string]string{}
	origin := map[string]string{}
	for _, f := range p.Facts {
		known[f.Path], origin[f.Path] = f.Known, string(f.Origin)
	}
	assert.Equal(t, "measured", known["routes.startM"])
	assert.Equal(t, "surveyed", origin["routes.startM"])
	assert.Equal(t, "assumed", origin["routes.auxM"])
	assert.True(t, jobtest.Column(t, p, "c2").Part.Assumed && !jobtest.Column(t, p, "c1").Part.Assumed)
}

// Every school is told on every job, with exactly one answer taken at most, in words with
// their numbers.
func TestSchoolsOnCompleteJobs(t *testing.T) {
	for name, doc := range jobtest.Complete(t) {
		for _, s := range study.Schools(design.Of(doc, parts.Stock())) {
			now := 0
			for _, o := range s.Options {
				assert.NotEmpty(t, o.Comes, "%s: %s %s", name, s.ID, o.Value)
				assert.NotContains(t, o.Comes, "%!", "%s: %s %s", name, s.ID, o.Value)
				assert.NotContains(t, o.Comes, "NaN", "%s: %s %s", name, s.ID, o.Value)
				if o.Now {
					now++
				}
			}
			assert.LessOrEqual(t, now, 1, "%s: %s", name, s.ID)
			_, ok := job.FieldAt(s.Path)
			assert.True(t, ok, s.Path)
		}
	}
}

// What the schools differ in is computed: less drop is more copper; the cable's limit is
// a larger fuse than the lowest; a forgotten switch is worse than a running signal.
func TestSchoolsDiffer(t *testing.T) {
	comes := func(text, school, value string) study.SchoolOption {
		doc, _ := job.Decode([]byte(text))
		for _, s := range study.Schools(design.Of(doc, parts.Stock())) {
			for _, o := range s.Options {
				if s.ID == school && o.Value == value {
					return o
				}
			}
		}
		t.Fatalf("no %s %s", school, value)
		return study.SchoolOption{}
	}
	assert.NotEqual(t, comes(`{}`, "drop", "2").Comes, comes(`{}`, "drop", "10").Comes)
	assert.Equal(t, verdict.Bad, comes(`{}`, "signal", "switch").Level)
	assert.Equal(t, verdict.Good, comes(`{}`, "signal", "running").Level)
	assert.Equal(t, verdict.Caution, comes(`{}`, "fuse", "below").Level)
	assert.Equal(t, verdict.Bad, comes(`{"vehicle":{"kind":"tow-caravan"}}`, "return", "chassis").Level, "not over a tow coupling")
	assert.Equal(t, verdict.Bad, comes(`{"vehicle":{"sensor":"yes"}}`, "negative", "post").Level)
	assert.Equal(t, verdict.Bad, comes(`{"pins":{"coupling":"changeover"}}`, "emergency", "crank").Level,
		"cranking current is more than the fuse bears")
	cable := jobtest.Plan(t, `{"schools":{"fuse":"cable"}}`)
	lowest := jobtest.Plan(t, `{}`)
	assert.Greater(t, jobtest.StartFuse(cable), jobtest.StartFuse(lowest))
	assert.Less(t, jobtest.StartFuse(jobtest.Plan(t, `{"schools":{"fuse":"below"}}`)), jobtest.StartFuse(lowest))
}

// Charger sizes: more output draws more and wants more copper; the advised one holds the
// balance with nothing against it.
func TestOptions(t *testing.T) {
	doc, _ := job.Decode([]byte(`{"use":{"dailyAh":40,"drivenHours":2}}`))
	list := study.Sizings(design.Of(doc, parts.Stock()))
	last, advised := 0.0, 0
	for _, o := range list {
		if !strings.HasPrefix(o.Label, "two of") && !strings.Contains(o.Label, "high-current") {
			assert.Greater(t, o.InA, last, o.Label)
			assert.Greater(t, o.InA, o.OutA, "more in than out")
			last = o.InA
		}
		if o.Advised {
			advised++
			assert.GreaterOrEqual(t, o.OutA, 40/(2*0.97))
			assert.Empty(t, o.Against)
		}
		if o.OutA > 50 {
			assert.NotEqual(t, verdict.Good, o.Level, "%s: over half the label, and more than the battery accepts", o.Label)
		}
		_, problems := job.With(doc, o.Changes)
		assert.Empty(t, problems, o.Label)
	}
	assert.Equal(t, 1, advised)
	assert.True(t, slices.ContainsFunc(list, func(o study.Sizing) bool { return o.Now }))
	boxed, _ := job.Decode([]byte(`{"bays":{"auxC":40},"placing":{"lengthMM":250,"widthMM":200,"heightMM":120}}`))
	assert.True(t, slices.ContainsFunc(study.Sizings(design.Of(boxed, parts.Stock())), func(o study.Sizing) bool { return o.GivesA < o.OutA }),
		"a closed box holds it back")
}
