package judge_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"

	"epitrope/core/judge"
	"epitrope/internal/jobtest"
)

// noteCase is a note with a job that raises it and one that just does not; checkCase a check's
// sentence, with its level.
type (
	noteCase  struct{ id, fires, not string }
	checkCase struct{ id, level, fires, not string }
)

// moreNoteCases are those of the runs, the chain, the relay and the signal.
func moreNoteCases() []noteCase {
	const fixed = `"alternator":{"label":"90/180 A","regulation":"fixed","knownBy":"test","volts":14.4}`
	const agm = fixed + `,"aux":{"chemistry":"agm","place":"seat"}`
	const tested = `"off":"dead","slept":"dead","on":"live","running":"live","cranking":"live"`
	feed := func(row string) string {
		return `{"signal":{"feed":"f1"},"feeds":{"f1":{"name":"F22","ratingA":15,` + row + `}}}`
	}
	pinned := func(job, coupling, rest string) string {
		return `{` + job + `,"pins":{"coupling":"` + coupling + `"}` + rest + `}`
	}
	frost := func(rest string) string { return `{"aux":{"chemistry":"lifepo4"},"day":{"outsideC":-8},` + rest + `}` }
	tray := func(rest string) string { return `{"vehicle":{"kind":"ute-tray"},` + rest + `}` }
	thin := func(start, aux string) string {
		return `{"alternator":{"label":"90/180 A","regulation":"fixed","knownBy":"test","volts":13.9},"aux":{"chemistry":"agm",` +
			`"capacityAh":200,"place":"rear"},"routes":{"startM":4,"auxM":4},"pins":{"coupling":"vsr","startSize":"` + start +
			`","auxSize":"` + aux + `"}}`
	}
	splits := func(machine string) string {
		return `{"alternator":{"label":"90/180 A","regulation":"fixed","knownBy":"test","volts":14.4` + machine +
			`},"aux":{"chemistry":"agm","place":"seat"},"pins":{"coupling":"splitter"}}`
	}
	good := feed(tested + `,"accessory":"dead"`)
	const byVoltage = `,"day":{"trigger":"voltage"}`
	return []noteCase{
		{"cable.drop", `{"routes":{"startM":9,"auxM":1},"limits":{"chargerDrop":1}}`,
			`{"routes":{"startM":9,"auxM":1},"limits":{"chargerDrop":2}}`},
		{"cable.none", `{"bays":{"startC":84}}`, `{"bays":{"startC":80}}`},
		{"cable.reels", `{"cable":{"sizes":"1.5 mm², 2.5 mm²"}}`, `{"cable":{"sizes":"1.5 mm², 35 mm²"}}`},
		{"start.weak", `{"startBattery":{"capacityAh":80,"crankA":700}}`, `{"startBattery":{"capacityAh":80,"crankA":400}}`},
		{"cable.place", `{"bays":{"startC":85}}`, `{"bays":{"startC":84}}`},
		{"chain.limit", `{"extras":{"isolator":"front","isolatorA":60}}`, `{"extras":{"isolator":"front","isolatorA":80}}`},
		{"chain.over", `{"vehicle":{"kind":"tow-caravan"},"pins":{"chargerA":40,"plugA":50}}`,
			`{"vehicle":{"kind":"tow-caravan"},"pins":{"chargerA":20,"plugA":50}}`},
		{"changeover.cable", `{"pins":{"contactA":60},"wants":{"emergencyStart":"yes"}}`, `{"wants":{"emergencyStart":"yes"}}`},
		{"plug.cable", `{"vehicle":{"kind":"tow-caravan"},"pins":{"plugA":50,"startSize":"25 mm2","auxSize":"25 mm2"}}`,
			`{"vehicle":{"kind":"tow-caravan"},"pins":{"plugA":50,"startSize":"16 mm2","auxSize":"16 mm2"}}`},
		{"charger.clamps", `{"pins":{"chargerA":30,"startSize":"25 mm2"}}`, `{"pins":{"chargerA":30,"startSize":"16 mm2","auxSize":"16 mm2"}}`},
		{"charger.starved", `{"pins":{"startSize":"6 mm2","chargerA":40}}`, `{"pins":{"startSize":"35 mm2","chargerA":40}}`},
		{"splitter.excite", splits(`,"excites":"own"`), splits(`,"excites":"key"`)},
		{"splitter.excite.unknown", splits(``), splits(`,"excites":"own"`)},
		{"splitter.senses", splits(`,"senses":"own"`), splits(`,"senses":"battery"`)},
		{"splitter.senses.unknown", splits(``), splits(`,"senses":"battery"`)},
		{"charger.idle", `{"alternator":{"label":"55 A"},"pins":{"chargerA":40}}`, `{"alternator":{"label":"150/250 A"},"pins":{"chargerA":20}}`},
		{"signal.dead", `{"day":{"trigger":"dead"}}`, `{"day":{"trigger":"ignition"}}`},
		{"button.breaks", `{"aux":{"chemistry":"lifepo4","capacityAh":800},"routes":{"startM":1,"auxM":0.3},"pins":{"coupling":"changeover"}}`,
			`{"aux":{"chemistry":"agm","capacityAh":60},"routes":{"startM":5,"auxM":0.9},"pins":{"coupling":"changeover"}}`},
		{"fuse.breaks", `{"pins":{"auxFuseA":425}}`, `{"pins":{"auxFuseA":400}}`},
		{"fuse.main", `{"vehicle":{"systemVolts":24},"aux":{"chemistry":"lifepo4","capacityAh":600}}`,
			`{"vehicle":{"systemVolts":24},"aux":{"chemistry":"lifepo4","capacityAh":100}}`},
		{"stud.lug", `{"pins":{"device":"breaker","startSize":"95 mm2"}}`, `{"pins":{"device":"breaker","startSize":"70 mm2"}}`},
		{"fuse.kind", `{"pins":{"device":"breaker","startFuseA":125}}`, `{"pins":{"device":"breaker","startFuseA":120}}`},
		{"fuse.overload", `{"aux":{"capacityAh":1847},"bays":{"auxLay":"pair-conduit"},"cable":{"insulation":105}}`,
			`{"aux":{"capacityAh":100}}`},
		{"fuse.resets", `{"pins":{"device":"auto-breaker"}}`, `{"pins":{"device":"breaker"}}`},
		{"fuse.slow", `{"bays":{"auxLay":"open"},"pins":{"auxFuseA":40,"auxSize":"4 mm2"},"routes":{"auxM":17.5}}`,
			`{"bays":{"auxLay":"open"},"pins":{"auxFuseA":40,"auxSize":"4 mm2"},"routes":{"auxM":2}}`},
		{"relay.chatter", thin("10 mm2", "70 mm2"), thin("70 mm2", "10 mm2")}, // truth 7
		{"joint.burns", `{"joints":{"c1to":{"mOhm":10}}}`, `{"joints":{"c1to":{"mOhm":9.9}}}`},
		{"joint.worn", `{"joints":{"c1to":{"mV":60,"atA":40}}}`, `{"joints":{"c1to":{"mV":20,"atA":40}}}`},
		{"joint.half", `{"joints":{"c1to":{"mV":60}}}`, `{"joints":{"c1to":{"mV":60,"atA":40}}}`},
		{"joint.half", `{"joints":{"c1to":{"mV":60}}}`, `{"joints":{"c1to":{"mV":0,"atA":40}}}`}, // a measured zero is measured
		{"joint.half", `{"joints":{"c1to":{"atA":60}}}`, `{"joints":{"c1to":{"mOhm":0}}}`},
		{"path.poor", `{"joints":{"f1":{"mOhm":5}}}`, `{"joints":{"f1":{"mOhm":2}}}`},
		{"path.poor", `{"joints":{"chassis":{"mV":400,"atA":40}}}`, `{"joints":{"chassis":{"mV":60,"atA":40}}}`},
		{"path.poor", `{"joints":{"c1":{"mOhm":30}}}`, `{"joints":{"c1":{"mOhm":6}}}`},
		{"path.poor", tray(`"joints":{"body":{"mOhm":8}}`), tray(`"joints":{"body":{"mOhm":3}}`)},
		{"measured.hot", `{"joints":{"c1to":{"tempC":85}}}`, `{"joints":{"c1to":{"tempC":84}}}`},
		{"measured.warm", `{"joints":{"c1":{"tempC":70}}}`, `{"joints":{"c1":{"tempC":69}}}`},
		{"earth.holds", `{"routes":{"earthBy":"holds"}}`, `{"routes":{"earthBy":"stud"}}`},
		{"earth.holds", `{"routes":{"earthBy":"pane"}}`, `{"routes":{"earthBy":"screw"}}`},
		{"contact.headline", pinned(agm, "vsr", `,"relay":{"ratedA":60,"ratedBy":"label"}`),
			pinned(agm, "vsr", `,"relay":{"ratedA":60,"ratedBy":"sheet"}`)},
		{"use.left", `{"aux":{"chemistry":"agm"},"use":{"parkedDays":60},"loads":{"r1":{"kind":"inverter"}}}`,
			`{"aux":{"chemistry":"agm"},"use":{"parkedDays":60},"loads":{"r1":{"kind":"lights"}}}`},
		{"use.left", `{"aux":{"chemistry":"agm"},"use":{"parkedDays":60},"loads":{"r1":{"kind":"inverter"}}}`,
			`{"aux":{"chemistry":"agm"},"use":{"parkedDays":60},"loads":{"r1":{"kind":"inverter"}},"extras":{"isolator":"master"}}`},
		{"earth.screw", `{"routes":{"earthBy":"screw"}}`, `{"routes":{"earthBy":"nut"}}`},
		{"hole.bare", `{"routes":{"guarded":"no"}}`, `{"routes":{"guarded":"yes"}}`},
		{"body.unmeasured", tray(`"title":"x"`), tray(`"joints":{"body":{"mOhm":0}}`)},
		{"joint.nowhere", `{"joints":{"zz9to":{"mOhm":1}}}`, `{"joints":{"c1to":{"mOhm":1}}}`},
		{"alternator.low", `{"alternator":{"volts":13.1}}`, `{"alternator":{"volts":13.2}}`},
		{"vehicle.drain", `{"vehicle":{"asleepA":0.06}}`, `{"vehicle":{"asleepA":0.05}}`},
		{"charger.limited", `{"card":{"inputA":20},"pins":{"chargerA":40}}`, `{"card":{"inputA":80},"pins":{"chargerA":40}}`},
		{"coil.undamped", pinned(agm, "contactor", `,"relay":{"damped":"no"}`), pinned(agm, "contactor", `,"relay":{"damped":"yes"}`)},
		{"profile.frost", frost(`"profile":{"disable":"no"}`), frost(`"profile":{"disable":"no"},"card":{"probe":"yes"}`)},
		{"profile.frost", frost(`"profile":{"disable":"no"}`), `{"aux":{"chemistry":"lifepo4"},"profile":{"disable":"no"}}`},
		{"profile.cold", frost(`"title":"x"`), frost(`"card":{"probe":"yes"}`)},
		{"profile.probe", frost(`"card":{"probe":"yes"}`), frost(`"card":{"probe":"no"}`)},
		{"engine.hybrid", `{"vehicle":{"engine":"hybrid"}}`, `{"vehicle":{"engine":"diesel"}}`},
		{"join.contact", pinned(agm, "vsr", `,"relay":{"joinA":20}`), pinned(agm, "vsr", `,"relay":{"joinA":900}`)},
		{"use.stands", `{"aux":{"chemistry":"agm"},"use":{"parkedDays":181}}`, `{"aux":{"chemistry":"agm"},"use":{"parkedDays":180}}`},
		{"use.stands", `{"aux":{"chemistry":"agm"},"use":{"parkedDays":100},"day":{"outsideC":30}}`,
			`{"aux":{"chemistry":"agm"},"use":{"parkedDays":90},"day":{"outsideC":30}}`},
		{"join.fuse", `{` + agm + `,"pins":{"coupling":"vsr","startFuseA":40,"auxFuseA":40}}`, pinned(agm, "vsr", "")},
		{"alternator.cruise", `{"alternator":{"label":"55 A"},"pins":{"chargerA":40}}`,
			`{"alternator":{"label":"150/250 A"},"pins":{"chargerA":40}}`},
		{"emergency.contact", pinned(agm, "contactor", `,"schools":{"emergency":"crank"},"wants":{"emergencyStart":"yes"},"relay":{"crankA":50}`),
			pinned(agm, "contactor", `,"schools":{"emergency":"crank"},"wants":{"emergencyStart":"yes"},"relay":{"crankA":2000}`)},
		{"relay.idle", `{"alternator":{"label":"55 A","regulation":"fixed","knownBy":"test","volts":14.4},` +
			`"aux":{"chemistry":"agm","place":"seat"},"pins":{"coupling":"vsr"}}`,
			`{"alternator":{"label":"150/250 A","regulation":"fixed","knownBy":"test","volts":14.4},` +
				`"aux":{"chemistry":"agm","place":"seat"},"pins":{"coupling":"vsr"}}`},
		{"relay.night", pinned(fixed+`,"aux":{"chemistry":"lifepo4","place":"seat"}`, "vsr", ""), pinned(agm, "vsr", "")},
		{"signal.accessory", feed(tested + `,"accessory":"live"`), good},
		{"signal.out", feed(tested + `,"accessory":"dead","safety":"yes"`), good},
		{"bypass.hunts", `{"alternator":{"label":"110/220 A","regulation":"variable","knownBy":"test"},"aux":{"chemistry":"agm",` +
			`"place":"seat"},"pins":{"coupling":"highcurrent"}}`,
			`{"alternator":{"label":"110/220 A","regulation":"fixed","knownBy":"test","volts":14.4},` +
				`"aux":{"chemistry":"agm","place":"seat"},"pins":{"coupling":"highcurrent"}}`},
		{"aux.unnamed", `{"aux":{"chemistry":"unknown"}}`, `{"aux":{"chemistry":"agm"}}`},
		{"alternator.cruise", pinned(`"alternator":{"label":"70 A","regulation":"fixed","knownBy":"test"},"aux":{"chemistry":"agm",`+
			`"place":"seat"}`, "vsr", ""), pinned(agm, "vsr", "")},
		{"signal.left", `{"day":{"trigger":"switch"}}`, `{"day":{"trigger":"running"}}`},
		{"signal.untested", feed(`"off":"dead","on":"live"`), good},
		{"signal.weak", pinned(agm, "contactor", `,"signal":{"feed":"f1"},"feeds":{"f1":{"kind":"dplus"}}`),
			pinned(agm, "contactor", `,"relay":{"coilA":0.2},"signal":{"feed":"f1"},"feeds":{"f1":{"kind":"dplus"}}`)},
		{"signal.gone", `{"signal":{"feed":"gone"}}`, good},
		{"signal.delay", `{"schools":{"delayMin":20},"use":{"drivenHours":1.6}}`, `{"schools":{"delayMin":10},"use":{"drivenHours":1.6}}`},
		{"signal.detect.low", `{"day":{"trigger":"voltage"}}`, `{}`},
		{"signal.detect.none", pinned(agm, "contactor", byVoltage), pinned(agm, "contactor", "")},
		{"signal.detect.joined", pinned(fixed, "changeover", byVoltage), pinned(agm, "changeover", byVoltage)},
		{"signal.detect.surface", pinned(agm, "changeover", byVoltage), pinned(agm, "dcdc", byVoltage)},
	}
}

func TestMoreNotesFire(t *testing.T) {
	for _, c := range moreNoteCases() {
		assert.Contains(t, jobtest.NoteIDs(jobtest.Plan(t, c.fires)), c.id, c.fires)
		assert.NotContains(t, jobtest.NoteIDs(jobtest.Plan(t, c.not)), c.id, c.not)
	}
}

// moreCheckCases are those that look well, or at which nobody has looked.
func moreCheckCases() []checkCase {
	var list []checkCase
	for _, c := range []struct{ id, good, wrong string }{
		{"exhaust", "no", "yes"}, {"spray", "no", "yes"}, {"gas", "no", "yes"}, {"moving", "yes", "no"}, {"visible", "yes", "no"},
		{"access", "yes", "no"}, {"housed", "yes", "no"}, {"ground", "yes", "no"}, {"terminals", "level", "down"},
	} {
		answered := func(how string) string { return `{"placing":{"` + c.id + `":"` + how + `"}}` }
		list = append(list, checkCase{"place." + c.id + ".good", "good", answered(c.good), answered(c.wrong)},
			checkCase{"place." + c.id + ".open", "open", `{}`, answered(c.good)})
	}
	const fit = `"lengthMM":330,"widthMM":173,"heightMM":120,"recessLengthMM":400,"recessWidthMM":200,"recessHeightMM":300,` +
		`"openingWidthMM":180`
	return append(list,
		checkCase{"place.beside", "caution", `{"aux":{"chemistry":"calcium","place":"bonnet"},"routes":{"auxM":0.6},"pins":{"coupling":"dcdc"}}`,
			`{"aux":{"chemistry":"calcium","place":"bonnet"},"routes":{"auxM":0.6},"placing":{"gas":"no"},"pins":{"coupling":"dcdc"}}`},
		checkCase{"answers.relay", "bad", `{"pins":{"coupling":"vsr"},"relay":{"cutInV":13,"cutOutV":13}}`,
			`{"pins":{"coupling":"vsr"},"relay":{"cutInV":13,"cutOutV":12.9}}`},
		checkCase{"answers.charger", "bad", `{"card":{"restartV":11}}`, `{"card":{"restartV":12}}`},
		checkCase{"answers.detects", "bad", `{"day":{"trigger":"voltage"},"card":{"detectOnV":12.5,"detectOffV":12.6}}`,
			`{"day":{"trigger":"voltage"},"card":{"detectOnV":12.7,"detectOffV":12.6}}`},
		checkCase{"answers.isolated", "caution", `{"card":{"isolated":"yes"}}`, `{"card":{"isolated":"no"}}`},
		checkCase{"place.heat", "caution", `{"bays":{"auxC":51}}`, `{"bays":{"auxC":50}}`},
		checkCase{"place.socket.good", "good", `{"vehicle":{"kind":"tow-caravan"},"pins":{"coupling":"dcdc"}}`,
			`{"vehicle":{"kind":"tow-caravan"}}`},
		checkCase{"fit.tilted", "caution", `{"fit":{` + fit + `,"openingLengthMM":300,"aboveMM":300}}`,
			`{"fit":{` + fit + `,"openingLengthMM":400,"aboveMM":300}}`},
		checkCase{"extra.winch.fails", "bad", `{"day":{"trigger":"switch"},"startBattery":{"capacityAh":20},"vehicle":{"winch":"yes"}}`,
			`{"vehicle":{"winch":"yes"}}`})
}

func TestMoreChecksFire(t *testing.T) {
	for _, c := range moreCheckCases() {
		assert.Equal(t, c.level, jobtest.CheckLevel(jobtest.Plan(t, c.fires), c.id), "%s of %s", c.id, c.fires)
		assert.NotEqual(t, c.level, jobtest.CheckLevel(jobtest.Plan(t, c.not), c.id), "%s of %s", c.id, c.not)
	}
}

// No note and no sentence of a check is without a case.
func TestEverySentenceHasACase(t *testing.T) {
	var notes, checks []string
	for _, c := range slices.Concat(noteCases(), settingCases(), moreNoteCases(), arrangedNoteCases()) {
		notes = append(notes, c.id)
	}
	for _, c := range slices.Concat(checkCases(), restCases(), extraCases(), moreCheckCases(), arrangedCheckCases()) {
		checks = append(checks, c.id)
	}
	for _, id := range judge.NoteIDs() {
		assert.Contains(t, notes, id)
	}
	for _, id := range judge.CheckIDs() {
		assert.Contains(t, checks, id)
	}
}
