package study_test

import (
	"encoding/json"
	"fmt"
	"io/fs"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/coupling"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/plan"
	"epitrope/core/study"
	"epitrope/internal/jobtest"
	"epitrope/testdata"
)

func methods(t testing.TB, text string) map[coupling.Kind]study.Method {
	t.Helper()
	list := study.Methods(design.Of(document(t, text), parts.Stock()))
	require.Len(t, list, len(coupling.Kinds()))
	byKind := map[coupling.Kind]study.Method{}
	for _, m := range list {
		byKind[m.Method.Kind] = m
		assert.Empty(t, m.Stopped, m.Method.Kind)
		assert.NotEmpty(t, m.Fails.Dead, m.Method.Kind)
		assert.NotEmpty(t, m.Fails.Live, m.Method.Kind)
	}
	return byKind
}

// Trade, §7: on variable regulation a contact leaves the aux battery low and a charger
// fills it.
func TestVariableRegulationLeavesAContactShort(t *testing.T) {
	m := methods(t, `{"alternator":{"regulation":"variable"},"aux":{"chemistry":"agm","capacityAh":100,"place":"rear"},
		"use":{"dailyAh":30,"drivenHours":2}}`)
	assert.Greater(t, m[coupling.DCDC].FullH, 0.0)
	assert.Greater(t, m[coupling.DCDC].Week.AuxEnd, m[coupling.VSR].Week.AuxEnd+20)
	assert.Greater(t, m[coupling.VSR].FullH, 3*m[coupling.DCDC].FullH, "hours and hours")
	assert.True(t, m[coupling.DCDC].Method.Chosen && m[coupling.DCDC].Fitted)
	assert.True(t, m[coupling.VSR].Method.RuledOut)
}

// Trade, §7: a relay with lead near the start battery charges, costs a fraction, and its
// contact left closed flattens the start battery; a second alternator costs several.
func TestRelayWithLeadNear(t *testing.T) {
	m := methods(t, `{"alternator":{"label":"60/120 A","regulation":"fixed","knownBy":"test","volts":14.4},"aux":{"chemistry":"agm",`+
		`"capacityAh":100,"place":"seat"},"use":{"dailyAh":30,"drivenHours":2}}`)
	relay, charger := m[coupling.VSR], m[coupling.DCDC]
	assert.True(t, relay.Method.Chosen)
	assert.Greater(t, relay.FullH, relay.To80H)
	assert.Greater(t, relay.Early.Amps, relay.Idle.Amps)
	assert.Less(t, relay.Bill.Cost, 0.6*charger.Bill.Cost)
	assert.Greater(t, m[coupling.SecondAlternator].Bill.Cost, 3*charger.Bill.Cost)
	assert.Greater(t, relay.Fails.HalfAfter, 1.0)
	assert.Less(t, m[coupling.SwitchedContactor].Fails.HalfAfter, 100.0)
}

// What is driven to a full battery is what is fitted: where the sun gives back most of what
// is used, a small charger is, and it cannot bring more than its output.
func TestFullTakesAsLongAsTheFittedChargerNeeds(t *testing.T) {
	const job = `{"alternator":{"label":"75/150 A"},"aux":{"chemistry":"agm","capacityAh":150,"place":"middle"},"use":{"dailyAh":45,` +
		`"drivenHours":1.5},"day":{"solarW":200,"auxSOC":50}}`
	p := plan.Decide(document(t, job), parts.Stock())
	m := methods(t, job)[coupling.DCDC]
	require.True(t, m.Fitted)
	assert.Equal(t, 50.0, m.FromPct)
	assert.GreaterOrEqual(t, m.To80H+0.05, 0.30*150/p.States[0].OutA, "%g A at most", p.States[0].OutA)
}

// What is asked for one by one is what is asked for together.
func TestColumnsOneByOne(t *testing.T) {
	doc := document(t, `{"aux":{"chemistry":"lifepo4","capacityAh":200,"place":"rear"},"use":{"dailyAh":60,"drivenHours":2},`+
		`"pins":{"startSize":"50 mm2"}}`)
	together, without := study.Methods(design.Of(doc, parts.Stock())), study.Consequences(design.Of(doc, parts.Stock()))
	require.Len(t, without, len(together))
	for i, m := range together {
		assert.Equal(t, m.Consequence, without[i])
		assert.Equal(t, m.Driven, study.Drive(design.Of(doc, parts.Stock()), m.Method.Kind, nil), m.Method.Kind)
	}
}

// A big lithium bank: the bypass brings more at cruise than the charger alone.
func TestHighCurrentStageBringsMore(t *testing.T) {
	m := methods(t, `{"alternator":{"label":"300 A"},"aux":{"chemistry":"lifepo4","capacityAh":600,"place":"rear"},"use":{"dailyAh":250,`+
		`"drivenHours":2}}`)
	assert.Greater(t, m[coupling.DCDCHighCurrent].Early.Amps, m[coupling.DCDC].Early.Amps)
	assert.Greater(t, m[coupling.DCDCHighCurrent].Bill.CopperKg, m[coupling.DCDC].Bill.CopperKg, "everything is sized for the sum")
}

// Every complete job in every coupling goes through its days and comes to finite numbers.
func TestMethodsOnCompleteJobs(t *testing.T) {
	if testing.Short() {
		t.Skip("half a minute")
	}
	names, err := fs.Glob(testdata.Jobs, "jobs/*.json")
	require.NoError(t, err)
	for i, name := range names {
		if i%6 != 0 { // the plans of all are tested in plan; these go through time
			continue
		}
		data, err := fs.ReadFile(testdata.Jobs, name)
		require.NoError(t, err)
		doc, problems := job.Decode(data)
		require.Empty(t, problems)
		list := study.Methods(design.Of(doc, parts.Stock()))
		_, err = json.Marshal(list)
		require.NoError(t, err, name)
		for _, m := range list {
			assert.Empty(t, m.Stopped, "%s: %s", name, m.Method.Kind)
		}
	}
}

func TestRetrofitRunsBoth(t *testing.T) {
	r := study.RetrofitOf(design.Of(document(t, `{"alternator":{"label":"90/180 A","regulation":"variable","knownBy":"test"},
"aux":{"chemistry":"agm","capacityAh":100,"place":"rear"},"use":{"dailyAh":30,"drivenHours":2},
		"have":{"coupling":"vsr","couplingA":60},"found":{"w1":{"role":"start","size":"8 mm auto","lengthM":0.6,"fuseA":60},"w2":{"role":"aux",
"size":"8 mm auto","lengthM":6,"fuseBA":60}}}`), parts.Stock()), nil)
	require.NotNil(t, r.BeforeWeek)
	assert.Greater(t, r.AfterWeek.AuxEnd, r.BeforeWeek.AuxEnd)
	assert.Len(t, r.BeforeAims, len(study.Aims))
	assert.Nil(t, study.RetrofitOf(design.Of(document(t, `{}`), parts.Stock()), nil).BeforeWeek)
}

// The smallest bank and charger of the balance hold it through days of driving: the bank
// ends no lower than it began and is never empty.
func TestSmallestBankAndChargerHold(t *testing.T) {
	for _, c := range []struct{ use, rest string }{
		{`"dailyAh":40,"drivenHours":2`, ``},
		{`"dailyAh":25,"drivenHours":3,"parkedDays":1`, ``},
		{`"dailyAh":60,"drivenHours":2`, `,"day":{"solarW":150,"sunHours":4}`},
	} {
		text := `{"alternator":{"label":"150/250 A"},"aux":{"chemistry":"lifepo4","capacityAh":%g},"use":{` + c.use + `}` + c.rest + `}`
		needs := plan.Decide(document(t, fmt.Sprintf(text, 100.0)), parts.Stock()).Needs
		require.Positive(t, needs.ChargerA)
		doc := document(t, fmt.Sprintf(text, needs.BankAh+5))
		doc.Pins.ChargerA = &needs.ChargerA
		full, days := 95.0, 6.0
		doc.Day.AuxSOC, doc.Day.Days = &full, &days
		got := study.Try(design.Of(doc, parts.Stock()), study.Window{}, nil)
		assert.Zero(t, got.Outcome.Empty, c.use)
		last := got.Outcome.AuxLeast
		assert.Greater(t, last, 2.0, c.use)
		if c.rest != "" {
			continue // the day takes panels at their label, the balance at what arrives
		}
		less := parts.ChargerRatings[0]
		for _, a := range parts.ChargerRatings {
			if a < 0.7*needs.ChargerA {
				less = a
			}
		}
		doc.Pins.ChargerA = &less
		assert.Less(t, study.Try(design.Of(doc, parts.Stock()), study.Window{}, nil).Outcome.AuxLeast, last-3, "a smaller charger does not: %s",
			c.use)
	}
}

// What the methods screen asks at once, and the longest of what then follows, column by column.
func BenchmarkMethods(b *testing.B) {
	now := jobtest.Design(b, `{"aux":{"chemistry":"lifepo4","capacityAh":200},"use":{"dailyAh":80,"drivenHours":2}}`)
	b.Run("at once", func(b *testing.B) {
		for b.Loop() {
			study.Consequences(now)
			study.Schools(now)
			study.Sizings(now)
		}
	})
	for _, kind := range coupling.Kinds() {
		b.Run("through time/"+string(kind), func(b *testing.B) {
			for b.Loop() {
				study.Drive(now, kind, nil)
			}
		})
	}
}
