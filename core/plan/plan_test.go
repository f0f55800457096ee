package plan_test

import (
	"encoding/json"
	"fmt"
	"io/fs"
	"math"
	"reflect"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/cable"
	"epitrope/core/coupling"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/modes"
	"epitrope/core/parts"
	"epitrope/core/plan"
	"epitrope/core/retrofit"
	"epitrope/core/verdict"
	"epitrope/internal/jobtest"
	"epitrope/testdata"
)

// The trade's method table (§7): what suits, and what is ruled out.
func TestWhichCoupling(t *testing.T) {
	const proven = `"alternator":{"label":"90/180 A","regulation":"fixed","knownBy":"test","volts":14.4}`
	cases := []struct{ name, doc, want string }{
		{"nothing known is taken as variable", `{}`, "dcdc"},
		{"fixed, lead, near", `{` + proven + `,"aux":{"chemistry":"agm","place":"bonnet"}}`, "vsr"},
		{"fixed by the year only", `{"alternator":{"regulation":"fixed","knownBy":"year"},"aux":{"chemistry":"agm","place":"bonnet"}}`, "dcdc"},
		{"lithium", `{` + proven + `,"aux":{"chemistry":"lifepo4","place":"seat"}}`, "dcdc"},
		{"lead at the back", `{` + proven + `,"aux":{"chemistry":"agm","place":"rear"}}`, "dcdc"},
		{"a trailer", `{"vehicle":{"kind":"tow-caravan"}}`, "trailer"},
		{"pinned against the rules", `{"pins":{"coupling":"vsr"}}`, "vsr"},
	}
	for _, c := range cases {
		assert.Equal(t, c.want, jobtest.Plan(t, c.doc).Coupling, c.name)
	}
}

// Trade check figures (§9): a 40 A charger draws about 53 A at worst, so 70 A
// where the cable bears it; a 30 A charger about 39 A, 50 A.
func TestFuseCheckFigures(t *testing.T) {
	for out, want := range map[int]string{25: "50 A strip", 30: "50 A strip", 40: "70 A strip"} {
		doc := fmt.Sprintf(`{"alternator":{"label":"120/220 A","regulation":"fixed","knownBy":"test"},"aux":{"capacityAh":200},`+
			`"pins":{"chargerA":%d}}`, out)
		p := jobtest.Plan(t, doc)
		assert.Equal(t, want, jobtest.Column(t, p, "f1").Part.Text, "%d A charger", out)
	}
	p := jobtest.Plan(t, `{"pins":{"chargerA":40}}`)
	assert.InDelta(t, 53, p.Figures["input"].Value, 0.1)
}

// Truth 1 (§19): 80 A of charging cannot exist at the end of 10 m of 8 AWG.
func TestThinTrailerLineStarves(t *testing.T) {
	const trailer = `{"vehicle":{"kind":"tow-caravan"},"alternator":{"label":"150/250 A","regulation":"fixed","knownBy":"test"},
		"aux":{"chemistry":"lifepo4","capacityAh":300,"place":"trailer"},"routes":{"startM":10},"pins":{"chargerA":80,"startSize":"%s"}}`
	thin := jobtest.Plan(t, fmt.Sprintf(trailer, "8 AWG"))
	assert.Contains(t, jobtest.NoteIDs(thin), "charger.starved")
	assert.Equal(t, "stop", thin.Notes[0].Severity)
	assert.Contains(t, jobtest.State(t, thin, "cruise").Fails, "its line can give at most")
	thick := jobtest.Plan(t, fmt.Sprintf(trailer, "2 AWG"))
	cruise := jobtest.State(t, thick, "cruise")
	assert.Empty(t, cruise.Fails)
	assert.InDelta(t, 12.5, cruise.InV, 0.25, "about 12.8 V at 99 A, less fuse, plug, joints and warm copper")
	assert.InDelta(t, 101, cruise.InA, 4)
}

// An assumed answer stays visibly assumed until it is given.
func TestAssumedPartsSaySo(t *testing.T) {
	for _, c := range jobtest.Plan(t, `{}`).Columns {
		assert.Equal(t, slices.Contains([]string{"alternator", "start", "c1", "c2", "aux"}, c.ID), c.Part.Assumed, c.ID)
	}
	p := jobtest.Plan(t, `{"alternator":{"label":"120 A"},"aux":{"capacityAh":100}}`)
	assert.False(t, jobtest.Column(t, p, "alternator").Part.Assumed)
	assert.True(t, jobtest.Column(t, p, "aux").Part.Assumed, "the chemistry is still assumed")
}

// Truth 3: a run between two batteries has two sources and two fuses.
func TestBothEndsAreFused(t *testing.T) {
	for _, doc := range []string{`{}`, `{"pins":{"coupling":"vsr"}}`, `{"vehicle":{"kind":"tow-camper"}}`} {
		p := jobtest.Plan(t, doc)
		require.Len(t, p.Covers, 2)
		for _, c := range p.Covers {
			assert.Equal(t, verdict.Good, c.Level, c.Text)
		}
	}
}

// Every wire joins terminals of components that are there, and no power wire is
// without its size and length.
func TestSystemHoldsTogether(t *testing.T) {
	for _, doc := range []string{`{}`, `{"pins":{"coupling":"vsr"}}`, `{"vehicle":{"kind":"tow-camper"}}`, `{"pins":{"return":"cable"}}`} {
		p := jobtest.Plan(t, doc)
		ids := map[string]bool{}
		for _, c := range p.System.Components {
			assert.False(t, ids[c.ID], "%s stands twice", c.ID)
			ids[c.ID] = true
		}
		touched := map[string]bool{}
		for _, w := range p.System.Wires {
			assert.True(t, ids[w.From.Component] && ids[w.To.Component], "%s from %s to %s", w.ID, w.From.Component, w.To.Component)
			touched[w.From.Component], touched[w.To.Component] = true, true
			assert.Greater(t, w.LengthM, 0.0, w.ID)
			if !w.Existing {
				assert.NotEmpty(t, w.Size, w.ID)
				assert.Greater(t, w.CopperMM2, 0.0, w.ID)
			}
		}
		for id := range ids {
			assert.True(t, touched[id], "%s is joined to nothing", id)
		}
	}
}

// The return never crosses a tow coupling through the steel (truth 19).
func TestTrailerReturnsByCable(t *testing.T) {
	p := jobtest.Plan(t, `{"vehicle":{"kind":"tow-caravan"}}`)
	for _, s := range p.Returns {
		assert.NotEqual(t, "chassis", s.Kind)
	}
	pinned := jobtest.Plan(t, `{"vehicle":{"kind":"tow-caravan"},"pins":{"return":"chassis"}}`)
	assert.Contains(t, jobtest.NoteIDs(pinned), "return.hitch")
}

// What is drawn arrives: while it charges the volts fall from column to column, between
// two columns by no more than their joint loses, and only a coupling raises them.
func TestGradeLineIsContinuous(t *testing.T) {
	for _, doc := range []string{`{}`, `{"pins":{"coupling":"vsr"}}`, `{"vehicle":{"kind":"tow-camper"}}`,
		`{"vehicle":{"kind":"tow-camper"},"pins":{"coupling":"vsr"}}`, `{"vehicle":{"systemVolts":24}}`,
		`{"extras":{"isolator":"front"}}`, `{"extras":{"isolator":"aux"}}`, `{"extras":{"isolator":"master"}}`,
		`{"extras":{"isolator":"master"},"vehicle":{"kind":"tow-camper"},"pins":{"coupling":"second"}}`} {
		p := jobtest.Plan(t, doc)
		jointed := map[string]bool{}
		for _, j := range p.Joints {
			jointed[j.After] = true
		}
		for _, s := range p.States {
			require.Len(t, s.Points, len(p.Columns))
			for i, at := range s.Points {
				assert.Equal(t, p.Columns[i].ID, at.Column)
				if s.Kind != "charging" {
					continue
				}
				if i > 0 {
					lost := s.Points[i-1].OutV - at.InV
					most := 0.0011
					if jointed[s.Points[i-1].Column] {
						most += 0.0003 * math.Max(s.InA, s.OutA)
					}
					assert.True(t, lost >= -0.0011 && lost <= most, "%s at %s: %g", s.ID, at.Column, lost)
				}
				if at.Column != "coupling" {
					assert.LessOrEqual(t, at.OutV, at.InV+0.0011, "%s at %s", s.ID, at.Column)
				}
			}
		}
	}
}

// More copper never lowers the far voltage.
func TestMoreCopperNeverHurts(t *testing.T) {
	for _, kind := range []string{"dcdc", "vsr"} {
		last := 0.0
		for _, s := range cable.Shelf(cable.Metric)[4:] {
			doc := fmt.Sprintf(`{"alternator":{"label":"120/220 A","regulation":"fixed","knownBy":"test"},"aux":{"chemistry":"agm",`+
				`"capacityAh":100},"pins":{"coupling":%q,"chargerA":20,"startSize":%q,"auxSize":%q}}`, kind, s.Label, s.Label)
			v := jobtest.State(t, jobtest.Plan(t, doc), "cruise").AuxV
			assert.GreaterOrEqual(t, v, last-0.011, "%s %s", kind, s.Label)
			last = v
		}
	}
}

// Same job, same parts: same plan.
func TestDecideIsDeterministic(t *testing.T) {
	first, err := json.Marshal(jobtest.Plan(t, `{}`))
	require.NoError(t, err)
	for range 5 {
		again, err := json.Marshal(jobtest.Plan(t, `{}`))
		require.NoError(t, err)
		require.Equal(t, string(first), string(again))
	}
}

// Every key that a plan refers to has its figure, and every figure its working.
func TestFiguresAreThere(t *testing.T) {
	for _, k := range coupling.Kinds() {
		p := jobtest.Plan(t, fmt.Sprintf(`{"pins":{"coupling":%q}}`, k))
		for _, c := range p.Columns {
			for _, key := range append(c.Figures, c.Carries.Figure, c.Loses.Figure, c.Heat.Figure) {
				if key == "" {
					continue
				}
				fig, ok := p.Figures[key]
				require.True(t, ok, "%s of %s", key, c.ID)
				assert.True(t, fig.Formula != "" || fig.DecidedBy != "", "%s has no working", key)
				for _, in := range fig.Inputs {
					assert.NotEmpty(t, in.Origin, "%s of %s", in.Letter, key)
					assert.NotEmpty(t, in.Why, "%s of %s", in.Letter, key)
				}
			}
		}
	}
}

// The demo jobs: different vehicles, regulations, chemistries and distances, one
// wrong and saying why.
func TestDemoJobs(t *testing.T) {
	names, err := fs.Glob(testdata.Demo, "demo/*.json")
	require.NoError(t, err)
	require.Len(t, names, 7)
	stops := map[string]int{}
	kinds, couplings := map[string]bool{}, map[string]bool{}
	for _, name := range names {
		data, err := fs.ReadFile(testdata.Demo, name)
		require.NoError(t, err)
		p := jobtest.Plan(t, string(data))
		kinds[p.Vehicle.Kind], couplings[p.Coupling] = true, true
		for _, n := range p.Notes {
			if n.Severity == "stop" {
				stops[name]++
			}
		}
	}
	assert.GreaterOrEqual(t, len(kinds), 5)
	assert.GreaterOrEqual(t, len(couplings), 3)
	assert.Equal(t, map[string]int{"demo/5-clay-studio.json": 4}, stops)
}

// Nothing that a document may say makes a plan that cannot be written: no panic,
// no number that is not finite.
func FuzzDecide(f *testing.F) {
	f.Add("panel-van", "90/180 A", "lifepo4", 100.0, 50.0, 2.0, "16 mm2", 5.0, 4, 12.4)
	f.Add("tow-caravan", "55 A", "calcium", 5.0, 1000.0, 0.1, "20 AWG", 30.0, 1, 9.0)
	f.Add("wagon", "600 A", "gel", 2000.0, 1.0, 24.0, "240 mm2", 0.1, 7, 14.0)
	f.Fuzz(func(t *testing.T, kind, label, chemistry string, capacity, daily, hours float64, size string, route float64, kindOf int,
		rest float64) {
		kinds := coupling.Kinds()
		pins := map[string]any{"startSize": size, "coupling": kinds[((kindOf%len(kinds))+len(kinds))%len(kinds)]}
		raw, err := json.Marshal(map[string]any{
			"vehicle": map[string]any{"kind": kind}, "alternator": map[string]any{"label": label},
			"aux": map[string]any{"chemistry": chemistry, "capacityAh": finite(capacity), "restV": finite(rest), "count": 3},
			"found": map[string]any{"w1": map[string]any{"role": "start", "size": size, "lengthM": finite(route), "fuseA": finite(capacity),
				"amps": finite(daily), "dropV": finite(rest)}, "w2": map[string]any{"role": "aux", "size": size}},
			"have": map[string]any{"coupling": "contactor", "couplingA": finite(capacity), "fuseA": finite(capacity), "size": size,
				"metres": finite(route)},
			"day":    map[string]any{"solarW": finite(capacity)},
			"use":    map[string]any{"dailyAh": finite(daily), "drivenHours": finite(hours)},
			"routes": map[string]any{"startM": finite(route)}, "pins": pins})
		require.NoError(t, err)
		doc, _ := job.Decode(raw)
		p := plan.Decide(doc, parts.Stock())
		_, err = json.Marshal(p)
		require.NoError(t, err)
		require.NotContains(t, fmt.Sprint(p.Columns, p.Notes, p.Title), "NaN")
		requireFinite(t, reflect.ValueOf(p.States))
		for _, judged := range []any{modes.Of(design.Of(doc, parts.Stock())), retrofit.Of(design.Of(doc, parts.Stock()))} {
			_, err = json.Marshal(judged)
			require.NoError(t, err, "every number is finite")
		}
	})
}

func finite(v float64) float64 {
	if math.IsNaN(v) || math.IsInf(v, 0) {
		return 1
	}
	return v
}

func requireFinite(t *testing.T, v reflect.Value) {
	switch v.Kind() {
	case reflect.Slice:
		for i := range v.Len() {
			requireFinite(t, v.Index(i))
		}
	case reflect.Struct:
		for i := range v.NumField() {
			requireFinite(t, v.Field(i))
		}
	case reflect.Float64:
		require.False(t, math.IsNaN(v.Float()) || math.IsInf(v.Float(), 0))
	}
}

func BenchmarkDecide(b *testing.B) {
	doc := job.New()
	book := parts.Stock()
	b.ReportAllocs()
	for b.Loop() {
		plan.Decide(doc, book)
	}
}
