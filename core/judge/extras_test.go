package judge_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/day"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/plan"
	"epitrope/core/procedure"
	"epitrope/core/rig"
	"epitrope/internal/jobtest"
	"epitrope/internal/networktest"
)

// joined is a contactor job on lead, or on another chemistry, with extras.
func joinedJob(extras string) string {
	return `{"alternator":{"label":"90/180 A","regulation":"fixed","knownBy":"test"},"aux":{"chemistry":"agm","place":"middle",` +
		`"capacityAh":120},"pins":{"coupling":"contactor"},"wants":{"emergencyStart":"yes"},"extras":{` + extras + `}}`
}

func extraCases() []checkCase {
	with := func(extras string) string { return `{"extras":{` + extras + `}}` }
	open := func(mm2 string) string {
		return `{"bays":{"startLay":"open"},` + with(`"bond":"yes","bondSize":"` + mm2 + ` mm2"`)[1:]
	}
	agm := func(extras string) string {
		return `{"aux":{"chemistry":"agm","capacityAh":100},"use":{"dailyAh":40},"extras":{` + extras + `}}`
	}
	trailer := func(extras string) string { return `{"vehicle":{"kind":"tow-caravan"},"extras":{` + extras + `}}` }
	winch := func(extras, coupling string) string {
		return `{"bays":{"startLay":"open","auxLay":"open"},"vehicle":{"winch":"yes"},` +
			`"alternator":{"label":"90/180 A","regulation":"fixed","knownBy":"test"},"aux":{"chemistry":"agm",` +
			`"place":"bonnet"},"pins":{"coupling":"` + coupling + `"},"extras":{` + extras + `}}`
	}
	const lvd = `"disconnect":"yes",`
	return []checkCase{
		{"extra.isolator.parts", "good", with(`"isolator":"front"`), with(`"isolator":"none"`)},
		{"extra.isolator.first", "good", with(`"isolator":"aux","isolatorFirst":"yes"`), with(`"isolator":"aux"`)},
		{"extra.isolator.dump", "caution", with(`"isolator":"master","isolatorFirst":"no"`), with(`"isolator":"front","isolatorFirst":"no"`)},
		{"extra.isolator.open", "open", with(`"isolator":"master"`), with(`"isolator":"master","isolatorFirst":"yes"`)},
		{"extra.isolator.crank", "caution", joinedJob(`"isolator":"aux","isolatorA":50`), joinedJob(`"isolator":"aux","isolatorA":300`)},
		{"extra.shunt.reads", "good", with(`"monitor":"yes"`), with(`"monitor":"no"`)},
		{"extra.shunt.hours", "bad", `{"pins":{"chargerA":50},"extras":{"monitor":"yes","shuntA":74}}`,
			`{"pins":{"chargerA":50},"extras":{"monitor":"yes","shuntA":76}}`},
		{"extra.shunt.short", "caution", joinedJob(`"monitor":"yes","shuntA":200`), joinedJob(`"monitor":"yes","shuntA":600`)},
		{"extra.shunt.all", "good", with(`"monitor":"yes","shuntAll":"yes"`), with(`"monitor":"yes"`)},
		{"extra.shunt.past", "caution", with(`"monitor":"yes","shuntAll":"no"`), with(`"monitor":"yes","shuntAll":"yes"`)},
		{"extra.shunt.open", "open", with(`"monitor":"yes"`), with(`"monitor":"yes","shuntAll":"no"`)},
		{"extra.disconnect.right", "good", agm(lvd + `"opensV":12.3`), agm(lvd + `"opensV":11.5`)},
		{"extra.disconnect.late", "caution", agm(lvd + `"opensV":12.2`), agm(lvd + `"opensV":12.24`)},
		{"extra.disconnect.soon", "caution", agm(lvd + `"opensV":12.55`), agm(lvd + `"opensV":12.45`)},
		{"extra.disconnect.hunts", "bad", agm(lvd + `"opensV":12.2,"closesV":12.2`), agm(lvd + `"opensV":12.2,"closesV":12.3`)},
		{"extra.disconnect.over", "bad", agm(lvd + `"peakA":61,"disconnectA":60`), agm(lvd + `"peakA":59,"disconnectA":60`)},
		{"extra.disconnect.bears", "good", agm(lvd + `"peakA":60,"disconnectA":60`), agm(lvd + `"peakA":61,"disconnectA":60`)},
		{"extra.disconnect.open", "open", agm(lvd + `"disconnectA":60`), agm(lvd + `"peakA":40,"disconnectA":60`)},
		{"extra.disconnect.peak", "caution", agm(lvd + `"opensV":12.2,"peakA":60`), agm(lvd + `"opensV":12.2,"peakA":10`)},
		{"extra.disconnect.all", "bad", agm(lvd + `"cuts":"battery"`), agm(lvd + `"cuts":"loads"`)},
		{"extra.disconnect.cuts.open", "open", agm(lvd + `"opensV":12.2`), agm(lvd + `"cuts":"loads"`)},
		{"extra.bond.carries", "good", with(`"bond":"yes"`), with(`"bond":"no"`)},
		{"extra.bond.thin", "bad", with(`"bond":"yes","bondSize":"6 mm²"`), with(`"bond":"yes","bondSize":"16 mm²"`)},
		{"extra.bond.fuse", "bad", open("10"), open("16")},
		{"extra.bond.idle", "good", `{"pins":{"return":"cable"},"extras":{"bond":"yes"}}`, with(`"bond":"yes"`)},
		{"answers.bonded", "bad", `{"vehicle":{"bonded":"no"}}`, `{"vehicle":{"bonded":"no"},"extras":{"bond":"yes"}}`},
		{"extra.winch.fuse", "bad", winch(`"winchA":500,"winchFrom":"joined","winchMin":3`, "contactor"),
			winch(`"winchA":500,"winchFrom":"joined","winchMin":0.1`, "contactor")},
		{"extra.winch.contact", "bad", winch(`"winchA":400,"winchFrom":"joined","winchMin":0.1`, "contactor"),
			winch(`"winchA":100,"winchFrom":"joined","winchMin":0.1`, "contactor")},
		{"extra.winch.join", "good", winch(`"winchA":100,"winchFrom":"joined"`, "contactor"),
			winch(`"winchA":400,"winchFrom":"joined"`, "contactor")},
		{"extra.winch.apart", "caution", winch(`"winchFrom":"joined"`, "dcdc"), winch(`"winchFrom":"joined"`, "contactor")},
		{"extra.winch.volts", "caution", winch(`"winchA":600`, "dcdc"), winch(`"winchA":200`, "dcdc")},
		{"extra.winch.takes", "good", winch(`"winchA":200`, "dcdc"), `{}`},
		{"extra.management.open", "open", `{}`, with(`"managementA":100`)},
		{"extra.management.over", "bad", `{"pins":{"chargerA":50},"extras":{"managementA":49}}`,
			`{"pins":{"chargerA":50},"extras":{"managementA":51}}`},
		{"extra.management.bears", "good", `{"pins":{"chargerA":50},"extras":{"managementA":51}}`,
			`{"pins":{"chargerA":50},"extras":{"managementA":49}}`},
		{"extra.output.over", "bad", `{"profile":{"disable":"yes"},"extras":{"outputA":0.4}}`,
			`{"profile":{"disable":"yes"},"extras":{"outputA":0.5}}`},
		{"extra.output.bears", "good", `{"profile":{"disable":"yes"},"extras":{"outputA":0.5}}`, `{"extras":{"outputA":0.5}}`},
		{"extra.socket.over", "bad", trailer(`"socketA":15.5`), trailer(`"socketA":15`)},
		{"extra.socket.drop", "caution", trailer(`"socketA":6,"socketM":6`), trailer(`"socketA":3,"socketM":5`)},
		{"extra.socket.drop", "bad", trailer(`"socketA":12,"socketM":9`), trailer(`"socketA":5,"socketM":9`)},
		{"extra.socket.permanent", "caution", trailer(`"socketA":5`), trailer(`"socketA":5,"socketContact":"10"`)},
		{"extra.socket.switched", "good", trailer(`"socketA":5,"socketContact":"10"`), trailer(`"socketA":5`)},
		{"extra.socket.lamps", "bad", trailer(`"socketA":5,"socketReturn":"lamps"`), trailer(`"socketA":5,"socketReturn":"own"`)},
	}
}

// Each check of an extra with a job that raises it and one that just does not.
func TestExtraChecksFire(t *testing.T) {
	tried := map[string]bool{}
	for _, c := range extraCases() {
		tried[c.id] = true
		fires := jobtest.Plan(t, c.fires)
		assert.Equal(t, c.level, jobtest.CheckLevel(fires, c.id), "%s of %s", c.id, c.fires)
		assert.NotEqual(t, c.level, jobtest.CheckLevel(jobtest.Plan(t, c.not), c.id), "%s of %s", c.id, c.not)
		for _, k := range fires.Checks {
			assert.NotContains(t, k.Text, "%!", k.ID)
			for _, path := range k.Fields {
				_, ok := job.FieldAt(path)
				assert.True(t, ok, "%s asks %s", k.ID, path)
			}
			if k.Figure != "" {
				assert.Contains(t, fires.Figures, k.Figure, k.ID)
			}
		}
	}
	for _, c := range jobtest.Plan(t,
		`{"aux":{"chemistry":"agm","capacityAh":100},"use":{"dailyAh":40},"extras":{"disconnect":"yes","opensV":12.2}}`).Checks {
		if strings.HasPrefix(c.ID, "extra.") {
			assert.True(t, tried[c.ID], "%s has no case", c.ID)
		}
	}
}

// runDay runs a job through a pattern of its own.
func runDay(t *testing.T, text string, pattern string) day.Result {
	t.Helper()
	doc, problems := job.Decode([]byte(text))
	require.Empty(t, problems)
	p, err := day.ParsePattern(pattern)
	require.NoError(t, err)
	got, err := day.Run(rig.Of(design.Of(doc, parts.Stock()), rig.Nominal), p, day.Conditions{OutsideC: 20}, day.Options{})
	require.NoError(t, err)
	return got
}

func events(r day.Result, id string) []day.Event {
	var list []day.Event
	for _, e := range r.Events {
		if e.ID == id {
			list = append(list, e)
		}
	}
	return list
}

// A disconnect opens once the battery has given what the check says it gives, and closes
// again once it is charged; one that closes too low goes on and off.
func TestDisconnectThroughADay(t *testing.T) {
	const parked = `{"aux":{"chemistry":"agm","capacityAh":100},"use":{"dailyAh":60},"day":{"auxSOC":80},"extras":{"disconnect":"yes",` +
		`"opensV":12.2,"closesV":%s}}`
	got := runDay(t, strings.Replace(parked, "%s", "12.9", 1), "park 48 h, crank 2 s, highway 3 h")
	opens := events(got, "disconnect.opens")
	require.Len(t, opens, 1)
	require.Len(t, events(got, "disconnect.closes"), 1)
	assert.Contains(t, jobtest.CheckText(jobtest.Plan(t, strings.Replace(parked, "%s", "12.9", 1)), "extra.disconnect.right"), "41 %")
	assert.InDelta(t, 24*(80-41)/60.0, opens[0].AtS/3600, 3, "a day's use from 80 % down to 41 %, more of it in the evening")
	assert.Greater(t, got.Verdict.AuxLeast, 0.30)
	hunts := runDay(t, strings.Replace(parked, "%s", "12.2", 1), "park 48 h")
	assert.Greater(t, hunts.Verdict.Cuts, 3)
}

// The extras' parts in the circuit: a shunt shows its volts by Ohm's law, an isolator and a
// shunt lose what their cards say, and the way back goes through the bonding lead.
func TestExtrasInTheCircuit(t *testing.T) {
	const all = `{"aux":{"place":"rear"},"extras":{"isolator":"%s","isolatorA":200,"monitor":"yes","shuntA":500,"shuntMV":50,"bond":"yes",` +
		`"disconnect":"yes","peakA":40,"disconnectA":60}}`
	for _, where := range []string{"front", "aux", "master"} {
		doc, problems := job.Decode([]byte(strings.Replace(all, "%s", where, 1)))
		require.Empty(t, problems)
		_, found, err := design.Of(doc, parts.Stock()).CircuitAt("cruise")
		require.NoError(t, err)
		s := networktest.Read{T: t, Solution: found}
		through := map[string]float64{"front": s.Through("c1"), "aux": s.Through("c2"), "master": s.Through("c2")}[where]
		assert.InDelta(t, through, s.Through("q1"), 1e-6*through, where)
		assert.InDelta(t, s.Through("q1")*0.0003, s.Across("q1.1", "q1.2"), 1e-6, where)
		assert.InDelta(t, s.Through("c2"), s.Through("r1"), 1e-4*s.Through("c2"), "all comes back through R1")
		assert.InDelta(t, s.Through("r1")*(0.050/500+2*0.0003), s.Across("aux.31", "r1.load"), 1e-6)
		assert.InDelta(t, s.Through("chassis"), s.Through("b1"), 1e-6*s.Through("b1"))
		_, found, err = design.Of(doc, parts.Stock()).CircuitAt("parked")
		require.NoError(t, err)
		parked := networktest.Read{T: t, Solution: found}
		assert.InDelta(t, parked.Through("q3"), parked.Through("h1"), 1e-6)
		assert.Positive(t, parked.Through("q3"), "what is used goes by the disconnect")
		if where != "master" {
			assert.InDelta(t, 0, parked.Through("q1"), 0.01)
		}
	}
	assert.Equal(t, []string{"alternator", "lead", "start", "f1", "c1", "coupling", "c2", "f2", "q1", "aux"},
		columnIDs(jobtest.Plan(t, strings.Replace(all, "%s", "master", 1))))
}

func columnIDs(p plan.Plan) []string {
	var ids []string
	for _, c := range p.Columns {
		ids = append(ids, c.ID)
	}
	return ids
}

// An isolator opened while the charger runs leaves it without a battery, unless it breaks
// the signal first; one at the front takes its input away.
func TestIsolatorInTheModeTable(t *testing.T) {
	with := func(extras string) string { return `{"extras":{` + extras + `}}` }
	bad := jobtest.Line(t, jobtest.Modes(t, with(`"isolator":"master"`)), "Q1 open", "on", "running")
	assert.Equal(t, "forbidden", bad.Verdict)
	assert.Equal(t, "mode.dump", bad.Rule)
	assert.NotEmpty(t, bad.Interlock)
	for _, extras := range []string{`"isolator":"master","isolatorFirst":"yes"`, `"isolator":"front"`} {
		m := jobtest.Line(t, jobtest.Modes(t, with(extras)), "Q1 open", "on", "running")
		assert.Equal(t, "normal", m.Verdict, extras)
		assert.LessOrEqual(t, m.AuxA, 0.1)
	}
	live := jobtest.Modes(t, with(`"isolator":"front"`)).Live
	for _, row := range live {
		if row.Off == "Q1 open" {
			assert.NotEmpty(t, row.Live)
			return
		}
	}
	t.Fatal("Q1 is not among what can be opened")
}

// A charger that takes voltage for its signal starts after the engine and stops after it;
// a low start side stops it with the engine running, a bank joined to it starts it without.
func TestDetectionByVoltage(t *testing.T) {
	const fixed = `"alternator":{"label":"120/200 A","regulation":"fixed","knownBy":"test","volts":14.3},"day":{"trigger":"voltage",` +
		`"auxSOC":40}`
	good := jobtest.Plan(t, `{`+fixed+`,"pins":{"chargerA":20}}`)
	for _, id := range jobtest.NoteIDs(good) {
		assert.NotContains(t, id, "signal.detect")
	}
	_, found := good.System.Wire("t1")
	assert.False(t, found, "no signal wire")
	assert.Contains(t, jobtest.NoteIDs(jobtest.Plan(t, `{"day":{"trigger":"voltage"}}`)), "signal.detect.low",
		"variable regulation eases off below what it takes for a running engine")
	assert.Contains(t, jobtest.NoteIDs(jobtest.Plan(t, `{`+fixed+`,"pins":{"coupling":"changeover"}}`)), "signal.detect.joined")
	assert.Contains(t, jobtest.NoteIDs(jobtest.Plan(t, `{`+fixed+`,"aux":{"chemistry":"agm"},"pins":{"coupling":"changeover"}}`)),
		"signal.detect.surface")
	assert.Contains(t, jobtest.NoteIDs(jobtest.Plan(t, `{`+fixed+`,"pins":{"coupling":"contactor"}}`)), "signal.detect.none")
	assert.NotContains(t, jobtest.NoteIDs(jobtest.Plan(t, `{"pins":{"coupling":"contactor"}}`)), "signal.detect.none")

	got := runDay(t, `{`+fixed+`,"pins":{"chargerA":20}}`, "park 1 h, crank 2 s, highway 1 h, park 2 h")
	begins, ends := events(got, "charger.takes.running"), events(got, "charger.takes.stopped")
	require.Len(t, begins, 1)
	require.Len(t, ends, 1)
	assert.InDelta(t, 3607, begins[0].AtS, 60)
	assert.Greater(t, ends[0].AtS, 7202.0, "surface charge holds it for a while after the engine has stopped")
	assert.Less(t, ends[0].AtS, 7202.0+1800)
	fooled := runDay(t, `{`+strings.Replace(fixed, `"auxSOC":40`, `"auxSOC":90,"startSOC":80`, 1)+
		`,"pins":{"coupling":"changeover"},"card":{"detectOnV":12.9}}`, "park 5 min, joined 15 min, park 30 min")
	assert.NotEmpty(t, events(fooled, "charger.takes.running"), "truth 15: no engine ran")
	assert.Positive(t, fooled.Verdict.Mistaken)
}

// A timer in a contactor's feed joins so many minutes later.
func TestTimerInAJoin(t *testing.T) {
	const contactor = `{"alternator":{"regulation":"fixed","knownBy":"test"},"aux":{"chemistry":"agm"},"pins":{"coupling":"contactor"},` +
		`"schools":{"delayMin":%s}}`
	for _, c := range []struct {
		min string
		at  float64
	}{{"0", 60}, {"4", 60 + 240}} {
		got := runDay(t, strings.Replace(contactor, "%s", c.min, 1), "park 1 min, crank 2 s, highway 1 h, park 1 h")
		joins := events(got, "join.closes")
		require.Len(t, joins, 1)
		assert.InDelta(t, c.at, joins[0].AtS, 3, c.min)
	}
}

// A timer before a sensing relay closes it so many minutes later.
func TestTimerBeforeASensingRelay(t *testing.T) {
	const relay = `{"alternator":{"label":"90/180 A","regulation":"fixed","knownBy":"test","volts":14.4},"aux":{"chemistry":"agm"},` +
		`"pins":{"coupling":"vsr"},"schools":{"delayMin":%s},"day":{"startSOC":100}}`
	first := map[string]float64{}
	for _, min := range []string{"0", "4"} {
		joins := events(runDay(t, strings.Replace(relay, "%s", min, 1), "park 1 min, crank 2 s, highway 1 h, park 1 h"), "join.closes")
		require.NotEmpty(t, joins)
		first[min] = joins[0].AtS
	}
	assert.InDelta(t, 240, first["4"]-first["0"], 15)
}

// A full AGM battery that stands loses a quarter in about ten months by itself, and is charged
// within six; in far less time with something left on; what is in the calendar is not offered again.
func TestCalendarOf(t *testing.T) {
	of := func(text string) procedure.Calendar {
		doc, problems := job.Decode([]byte(text))
		require.Empty(t, problems)
		return procedure.CalendarOf(design.Of(doc, parts.Stock()))
	}
	alone := of(`{"aux":{"chemistry":"agm","capacityAh":100}}`)
	assert.InDelta(t, 180, alone.TopUpDays, 0.5, "within half a year, whatever it loses by itself")
	assert.InDelta(t, alone.TopUpDays, alone.Figure.Value, 0.5, "its working says the same")
	drained := of(`{"aux":{"chemistry":"agm","capacityAh":100},"loads":{"a":{"kind":"fridge","standbyA":0.05}}}`)
	assert.InDelta(t, 25/(2.5/30+24*0.05), drained.TopUpDays, 0.5)
	parted := of(`{"aux":{"chemistry":"agm","capacityAh":100},"extras":{"isolator":"master"},"loads":{"a":{"kind":"fridge","standbyA":0.05}}}`)
	assert.InDelta(t, alone.TopUpDays, parted.TopUpDays, 0.5)
	kinds := func(c procedure.Calendar) (list []string) {
		for _, o := range c.Offers {
			list = append(list, o.Kind)
			assert.Positive(t, o.Days)
		}
		return list
	}
	assert.Equal(t, []string{"topup", "revisit", "other"}, kinds(alone))
	assert.Equal(t, []string{"temporary", "revisit"},
		kinds(of(`{"have":{"fuseA":80,"size":"16 mm2","metres":9,"fuses":2,"relayA":100},"dates":{"d1":{"kind":"topup"},
"d2":{"kind":"other"}}}`)))
}
