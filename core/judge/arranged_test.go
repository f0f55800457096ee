package judge_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"

	"epitrope/internal/jobtest"
)

// arrangedNoteCases are those of how the run is put together.
func arrangedNoteCases() []noteCase {
	of := func(arranged, rest string) string { return `{"arranged":{` + arranged + `}` + rest + `}` }
	stud := func(rest, more string) string { return of(`"from":"stud"`+rest, more) }
	const relay = `,"alternator":{"label":"90/180 A","regulation":"fixed","knownBy":"test","volts":14.4},` +
		`"aux":{"chemistry":"agm","place":"seat"},"pins":{"coupling":"vsr"}`
	link := func(startM, auxM float64) string {
		return fmt.Sprintf(`%s,"routes":{"startM":%v,"auxM":%v}`, relay, startM, auxM)
	}
	tap := func(row string) string {
		return `{"pins":{"coupling":"dcdc","chargerA":30},"taps":{"r1":{` + row + `}}}`
	}
	const hand = `,"pins":{"coupling":"changeover"},"wants":{"emergencyStart":"yes"}`
	const sunny = `,"day":{"solarW":200}`
	const camper = `,"vehicle":{"kind":"tow-camper"}`
	return []noteCase{
		{"outlet.over", stud(`,"fromA":40`, `,"pins":{"chargerA":30}`), stud(`,"fromA":45`, `,"pins":{"chargerA":30}`)},
		{"outlet.over", stud(`,"fromA":40`, `,"pins":{"chargerA":30}`), of(`"fromA":40`, `,"pins":{"chargerA":30}`)}, // no stud
		{"outlet.rush", stud(`,"fromA":80`, relay), stud(`,"fromA":200`, relay)},
		{"outlet.fuse", stud(`,"fromA":45`, `,"pins":{"chargerA":30}`), stud(`,"fromA":60`, `,"pins":{"chargerA":30}`)},
		{"outlet.hours", stud(`,"fromH":1.4`, ""), stud(`,"fromH":1.5`, "")},
		{"outlet.unknown", stud("", ""), stud(`,"fromA":200`, "")},
		{"outlet.live", stud("", ""), stud(`,"fromLive":"always"`, "")},
		{"outlet.dead", stud(`,"fromLive":"running"`, relay+`,"wants":{"emergencyStart":"yes"}`),
			stud(`,"fromLive":"always"`, relay+`,"wants":{"emergencyStart":"yes"}`)},
		{"return.box", of(`"plug":"start"`, `,"pins":{"return":"chassis"}`), of(`"plug":"start"`, "")},
		{"frame.unmeasured", of(`"frame":"yes"`, camper), of(`"frame":"yes"`, camper+`,"joints":{"frame":{"mOhm":1}}`)},
		{"frame.steel", of(`"frame":"yes"`, `,"vehicle":{"kind":"tow-camper","frame":"aluminium"}`), of(`"frame":"yes"`, camper)},
		{"unfused.long", of(`"fuses":"front"`, link(0.2, 2)), of(`"fuses":"front"`, link(0.2, 1.6))},
		{"unfused.long", of(`"fuses":"back"`, `,"bays":{"startLay":"open"}`+link(0.2, 0.1)), of(`"fuses":"back"`, link(0.2, 0.1))},
		{"unfused.sheathed", of(`"fuses":"back"`, link(0.2, 0.2)), of(`"fuses":"back"`, link(0.1, 0.1))},
		{"unfused.short", of(`"fuses":"front"`, link(0.1, 0.1)), of(`"fuses":"both"`, link(0.1, 0.1))},
		{"unfused.none", of(`"fuses":"none"`, link(0.1, 0.1)), of(`"fuses":"front"`, link(0.1, 0.1))},
		{"button.toggle", of(`"control":"toggle"`, hand), of(`"control":"momentary"`, hand)},
		{"interlock.blocks", of(`"interlock":"engine"`, hand+`,"day":{"trigger":"ignition"},"schools":{"emergency":"share"}`),
			of(`"interlock":"engine"`, hand+`,"day":{"trigger":"running"},"schools":{"emergency":"share"}`)},
		{"volts.join", of(``, `,"vehicle":{"systemVolts":24},"aux":{"volts":12},"pins":{"coupling":"vsr"}`),
			of(``, `,"vehicle":{"systemVolts":24},"aux":{"volts":12},"pins":{"coupling":"dcdc"}`)},
		{"tap.unfused", tap(`"fused":"no","amps":5`), tap(`"amps":5`)},
		{"tap.drains", tap(`"at":"start"`), tap(`"at":"start","when":"running"`)},
		{"tap.alone", tap(`"at":"aux"`), tap(`"at":"start"`)},
		{"tap.dark", tap(`"amps":400,"longM":15,"at":"start"},"r2":{"at":"start","amps":400,"longM":15`), tap(`"amps":5`)},
		{"tap.takes", tap(`"amps":30`), tap(`"amps":29.9`)},
		{"sun.uncounted", of(`"sunAt":"battery"`, sunny+`,"extras":{"monitor":"yes"}`), of(`"sunAt":"bus"`, sunny+`,"extras":{"monitor":"yes"}`)},
		{"sun.past", of(`"sunAt":"battery"`, sunny+`,"extras":{"isolator":"master"}`), of(`"sunAt":"battery"`, sunny)},
		{"sun.behind", of(`"sunAt":"charger"`, sunny), of(`"sunAt":"charger"`, "")},
		{"converter.rests", `{"alternator":{"machine":"converter"}}`, `{"alternator":{"machine":"alternator"}}`},
	}
}

// arrangedCheckCases likewise.
func arrangedCheckCases() []checkCase {
	const allClear = `{"drilling":{"tank":"clear","airbags":"clear","looms":"clear","lines":"clear","exhaust":"clear"}}`
	held := func(how string) string { return `{"drilling":{"batteryKg":60,` + how + `}}` }
	return []checkCase{
		{"place.halves", "caution", `{"arranged":{"plug":"start"}}`, `{"arranged":{"plug":"start","from":"stud","fromLive":"running"}}`},
		{"place.halves", "caution", `{"arranged":{"plug":"aux"}}`, `{}`},
		{"drill.near", "bad", `{"drilling":{"tank":"near"}}`, `{"drilling":{"tank":"clear"}}`},
		{"drill.clear", "good", `{"drilling":{"tank":"clear"}}`, `{}`},
		{"drill.open", "open", `{}`, allClear},
		{"drill.weight", "good", `{"drilling":{"batteryKg":30,"spareKg":60}}`, `{"drilling":{"batteryKg":30}}`},
		{"drill.weight.open", "open", `{"drilling":{"batteryKg":30}}`, `{"drilling":{"batteryKg":30,"spareKg":60}}`},
		{"drill.behind", "good", `{"aux":{"place":"rear"}}`, `{"aux":{"place":"seat"}}`},
		{"drill.trailer", "open", `{"vehicle":{"kind":"tow-caravan"}}`, `{}`},
		{"drill.overweight", "bad", `{"drilling":{"batteryKg":30,"spareKg":30}}`, `{"drilling":{"batteryKg":30,"spareKg":40}}`},
		{"drill.holds", "good", held(`"bolts":4,"thread":"M6"`), held(`"bolts":1,"thread":"M6"`)},
		{"drill.loose", "bad", held(`"bolts":1,"thread":"M6"`), held(`"bolts":4,"thread":"M6"`)},
		{"drill.sheet", "bad", held(`"bolts":4,"thread":"M6","into":"sheet"`), held(`"bolts":4,"thread":"M6","into":"plates"`)},
		{"drill.anchor.open", "open", held(`"bolts":4`), held(`"bolts":4,"thread":"M6"`)},
		{"bank.kinds", "bad", `{"bank":{"r1":{"chemistry":"agm"},"r2":{"chemistry":"lifepo4"}}}`,
			`{"bank":{"r1":{"chemistry":"agm"},"r2":{"chemistry":"agm"}}}`},
		{"bank.mixed", "bad", `{"bank":{"r1":{"ageYears":1},"r2":{"ageYears":3}}}`, `{"bank":{"r1":{"ageYears":1},"r2":{"ageYears":2}}}`},
		{"place.halves.good", "good", `{"arranged":{"plug":"start","from":"stud","fromLive":"running"}}`, `{"arranged":{"plug":"start"}}`},
	}
}

func TestNotesOfArrangementsFire(t *testing.T) {
	for _, c := range arrangedNoteCases() {
		assert.Contains(t, jobtest.NoteIDs(jobtest.Plan(t, c.fires)), c.id, "%s", c.fires)
		assert.NotContains(t, jobtest.NoteIDs(jobtest.Plan(t, c.not)), c.id, "%s", c.not)
	}
	for _, c := range arrangedCheckCases() {
		assert.Equal(t, c.level, jobtest.CheckLevel(jobtest.Plan(t, c.fires), c.id), "%s of %s", c.id, c.fires)
		assert.NotEqual(t, c.level, jobtest.CheckLevel(jobtest.Plan(t, c.not), c.id), "%s of %s", c.id, c.not)
	}
}
