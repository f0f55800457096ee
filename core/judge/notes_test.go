package judge_test

import (
	"encoding/json"
	"maps"
	"math/rand/v2"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/plan"
	"epitrope/core/verdict"
	"epitrope/internal/jobtest"
)

func noteCases() []noteCase {
	const fixed = `"alternator":{"label":"90/180 A","regulation":"fixed","knownBy":"test","volts":14.4}`
	return []noteCase{
		{"cable.burns", `{"pins":{"startSize":"4 mm2"}}`, `{"pins":{"startSize":"35 mm2"}}`},
		{"cable.thin", `{"pins":{"startSize":"16 mm2"}}`, `{"pins":{"startSize":"35 mm2"}}`},
		{"fuse.none", `{"pins":{"startSize":"1 mm2"}}`, `{"pins":{"startSize":"6 mm2"}}`},
		{"fuse.opens", `{"pins":{"startSize":"4 mm2"}}`, `{"pins":{"startSize":"16 mm2"}}`},
		{"fuse.tight", `{"pins":{"startSize":"10 mm2","chargerA":30}}`, `{"pins":{"startSize":"16 mm2","chargerA":30}}`},
		{"fuse.over", `{"pins":{"startFuseA":200,"startSize":"16 mm2"}}`, `{"pins":{"startFuseA":200}}`},
		{"fuse.under", `{"pins":{"startFuseA":60}}`, `{"pins":{"startFuseA":70}}`},
		{"fuse.sheet", `{"card":{"name":"own","outputA":30,"maxFuseA":60},"pins":{"startFuseA":80}}`,
			`{"card":{"name":"own","outputA":30,"maxFuseA":80},"pins":{"startFuseA":80}}`},
		{"emergency.crank", `{"aux":{"chemistry":"agm"},"pins":{"coupling":"changeover"},"schools":{"emergency":"crank"}}`,
			`{"aux":{"chemistry":"agm"},"pins":{"coupling":"changeover"},"schools":{"emergency":"precharge"}}`},
		{"emergency.share", `{"aux":{"chemistry":"lifepo4","capacityAh":300,"place":"seat"},"routes":{"startM":2,"auxM":0.3},` +
			`"pins":{"coupling":"changeover","chargerA":20},"schools":{"emergency":"share"}}`,
			`{"aux":{"chemistry":"agm","capacityAh":200},"pins":{"coupling":"changeover","chargerA":20},"schools":{"emergency":"share"}}`},
		{"place.gas", `{"aux":{"chemistry":"flooded","place":"rear"}}`, `{"aux":{"chemistry":"flooded","place":"bonnet"}}`},
		{"place.hot", `{"aux":{"chemistry":"lifepo4","place":"bonnet"}}`, `{"aux":{"chemistry":"agm","place":"bonnet"}}`},
		{"place.unfit", `{"vehicle":{"kind":"wagon"},"aux":{"place":"trailer"}}`,
			`{"vehicle":{"kind":"tow-camper"},"aux":{"place":"trailer"}}`},
		{"charger.short", `{"alternator":{"label":"55 A"},"use":{"dailyAh":60,"drivenHours":1}}`,
			`{"alternator":{"label":"180 A"},"use":{"dailyAh":30,"drivenHours":1}}`},
		{"charger.acceptance", `{"aux":{"capacityAh":50},"pins":{"chargerA":30}}`, `{"aux":{"capacityAh":60},"pins":{"chargerA":30}}`},
		{"charger.far", `{"routes":{"startM":0.8,"auxM":6.2}}`, `{"routes":{"startM":5,"auxM":2}}`},
		{"charger.hot", `{"bays":{"auxC":60}}`, `{"bays":{"auxC":50}}`},
		{"alternator.half", `{"alternator":{"label":"55 A"},"pins":{"chargerA":30}}`,
			`{"alternator":{"label":"180 A"},"pins":{"chargerA":30}}`},
		{"alternator.idle", `{"alternator":{"label":"55 A"}}`, `{"alternator":{"label":"150/250 A"}}`},
		{"regulation.unknown", `{}`, `{"alternator":{"regulation":"variable"}}`},
		{"method.pinned", `{"aux":{"chemistry":"lifepo4"},"pins":{"coupling":"vsr"}}`, `{"pins":{"coupling":"dcdc"}}`},
		{"relay.open", `{"pins":{"coupling":"vsr"},"aux":{"chemistry":"agm"}}`, `{` + fixed +
			`,"pins":{"coupling":"vsr"},"aux":{"chemistry":"agm"}}`},
		{"relay.surge", `{` + fixed + `,"pins":{"coupling":"vsr"},"aux":{"chemistry":"lifepo4"}}`, `{` + fixed +
			`,"pins":{"coupling":"vsr"},"aux":{"chemistry":"agm"}}`},
		{"relay.undercharge", `{` + fixed + `,"pins":{"coupling":"vsr"},"aux":{"chemistry":"calcium"}}`, `{` + fixed +
			`,"pins":{"coupling":"vsr"},"aux":{"chemistry":"agm"}}`},
		{"use.large", `{"aux":{"capacityAh":100},"use":{"dailyAh":90}}`, `{"aux":{"capacityAh":100},"use":{"dailyAh":80}}`},
		{"return.hitch", `{"vehicle":{"kind":"tow-camper"},"pins":{"return":"chassis"}}`, `{"vehicle":{"kind":"tow-camper"}}`},
	}
}

// Each note with a document that gives it and one that just does not.
func TestNotesFire(t *testing.T) {
	for _, c := range noteCases() {
		assert.Contains(t, jobtest.NoteIDs(jobtest.Plan(t, c.fires)), c.id)
		assert.NotContains(t, jobtest.NoteIDs(jobtest.Plan(t, c.not)), c.id)
	}
}

// A cure that sets a field, taken, removes its note.
func TestCuresCure(t *testing.T) {
	for _, doc := range []string{`{"pins":{"startSize":"4 mm2"}}`, `{"pins":{"startFuseA":200,"startSize":"16 mm2"}}`,
		`{"pins":{"startFuseA":60}}`,
		`{"aux":{"chemistry":"flooded","place":"rear"}}`, `{"pins":{"coupling":"vsr"}}`,
		`{"alternator":{"label":"55 A"},"pins":{"chargerA":40}}`,
		`{"vehicle":{"kind":"tow-camper"},"pins":{"return":"chassis"}}`, `{"aux":{"capacityAh":50},"pins":{"chargerA":30}}`} {
		before := jobtest.Plan(t, doc)
		cured := 0
		for _, n := range before.Notes {
			for _, c := range n.Cures {
				if c.Path == "" {
					continue
				}
				after := jobtest.Plan(t, withField(t, doc, c.Path, c.Value))
				assert.NotContains(t, texts(after), n.Text, "%s by %q", n.ID, c.Label)
				cured++
			}
		}
		assert.Positive(t, cured, doc)
	}
}

func texts(p plan.Plan) []string {
	all := []string{}
	for _, n := range p.Notes {
		all = append(all, n.Text)
	}
	return all
}

// withField is a document with a field set as a screen sets it; empty takes it out.
func withField(t *testing.T, doc, path, value string) string {
	t.Helper()
	var raw map[string]any
	require.NoError(t, json.Unmarshal([]byte(doc), &raw))
	section, key, _ := strings.Cut(path, ".")
	inner, _ := raw[section].(map[string]any)
	if inner == nil {
		inner = map[string]any{}
	}
	inner[key] = value
	if value == "" {
		delete(inner, key)
	}
	raw[section] = inner
	b, err := json.Marshal(raw)
	require.NoError(t, err)
	return string(b)
}

// Whatever validation lets through: a cure that is offered, done, takes its note away or makes less of it,
// and fewer stops come than go.
func TestOfferedCuresCure(t *testing.T) {
	count, offered := jobtest.Fewer(2000, 30), 0
	for seed := range uint64(count) {
		doc, problems := job.Decode(jobtest.Random(rand.New(rand.NewPCG(seed, 191))))
		require.Empty(t, problems)
		before := plan.Decide(doc, parts.Stock())
		was := map[string]bool{}
		for _, n := range before.Notes {
			was[n.ID+n.Column] = was[n.ID+n.Column] || n.Severity == verdict.Stop
		}
		for _, n := range before.Notes {
			for _, c := range n.Cures {
				if c.Path == "" {
					continue
				}
				offered++
				var value any
				if c.Value != "" {
					value = c.Value
				}
				cured, problems := job.With(doc, map[string]any{c.Path: value})
				require.Empty(t, problems, "seed %d: %s by %s", seed, n.ID, c.Label)
				come, gone := 0, maps.Clone(was)
				for _, then := range plan.Decide(cured, parts.Stock()).Notes {
					if then.ID == n.ID && then.Column == n.Column {
						assert.Greater(t, verdict.Rank[then.Severity], verdict.Rank[n.Severity], "seed %d: %s stays by %q", seed, n.ID,
							c.Label)
					}
					if then.Severity == verdict.Stop && !was[then.ID+then.Column] {
						come++
					}
					delete(gone, then.ID+then.Column)
				}
				if come > 0 {
					maps.DeleteFunc(gone, func(_ string, stops bool) bool { return !stops })
					assert.GreaterOrEqual(t, len(gone), come, "seed %d: %s brings more than it takes", seed, c.Label)
				}
			}
		}
	}
	assert.Greater(t, offered, count/3)
}
