package retrofit_test

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/design"
	"epitrope/core/parts"
	"epitrope/core/retrofit"
	"epitrope/core/verdict"
	"epitrope/internal/jobtest"
)

func found(t testing.TB, text string) retrofit.Found {
	t.Helper()
	return retrofit.Of(design.Of(jobtest.Document(t, text), parts.Stock()))
}

func findings(f retrofit.Found) map[string]string {
	ids := map[string]string{}
	for _, w := range f.Wires {
		for _, one := range w.Findings {
			ids[one.ID] = string(one.Level)
		}
	}
	return ids
}

// Each finding with a wire that has it and one that just has not.
func TestFindingsFire(t *testing.T) {
	wire := func(rest string) string {
		row := map[string]any{"role": "start", "endA": "start battery", "endB": "relay", "size": "16 mm2", "insulation": 85, "lengthM": 4,
			"fuseA": 60, "fuseMM": 150}
		require.NoError(t, json.Unmarshal([]byte("{"+strings.TrimPrefix(rest, ",")+"}"), &row), rest)
		doc, err := json.Marshal(map[string]any{"bays": map[string]any{"startC": 30}, "found": map[string]any{"w1": row}})
		require.NoError(t, err)
		return string(doc)
	}
	cases := []struct{ id, level, fires, not string }{
		{"found.untraced", "open", `{"found":{"w1":{"role":"start","endA":"start battery"}}}`, wire("")},
		{"found.untraced", "open", `{"found":{"w1":{"role":"unknown","endA":"a","endB":"b"}}}`, wire("")},
		{"found.size", "open", `{"found":{"w1":{"role":"start","fuseA":60}}}`, wire("")},
		{"found.unfused", "bad", wire(`,"fuseA":0`), wire("")},
		{"found.unfused", "bad", wire(`,"sources":"both","fuseBA":0`), wire(`,"sources":"both","fuseBA":60`)},
		{"found.unfused", "bad", wire(`,"sources":"both","fuseBIs":"none"`), wire(`,"sources":"both"`)},
		{"found.fuse", "open", wire(`,"sources":"both"`), wire(`,"sources":"both","fuseBIs":"none"`)},
		{"found.unread", "caution", wire(`,"sources":"both","fuseBIs":"unreadable"`), wire(`,"sources":"both","fuseBIs":"none"`)},
		{"found.bare", "bad", wire(`,"fuseForm":"bare"`), wire(`,"fuseForm":"holder"`)},
		{"found.tapedin", "bad", wire(`,"fuseForm":"taped"`), wire(`,"fuseForm":"holder"`)},
		{"found.far", "caution", wire(`,"fuseMM":201`), wire(`,"fuseMM":200`)},
		{"found.over", "bad", wire(`,"fuseA":101`), wire(`,"fuseA":100`)},
		{"found.slow", "bad", `{"found":{"w1":{"role":"start","endA":"a","endB":"b","size":"16 AWG","insulation":105,"lengthM":40,"fuseA":20}}}`,
			wire("")},
		{"found.over", "bad", wire(`,"insulation":null,"fuseA":131`), wire(`,"insulation":null,"fuseA":130`)},
		{"found.overif", "caution", wire(`,"insulation":null,"fuseA":91`), wire(`,"insulation":null,"fuseA":90`)},
		{"found.burnsif", "caution", wire(`,"insulation":null,"amps":91`), wire(`,"insulation":70,"amps":90`)},
		{"found.over", "bad", `{"found":{"w1":{"role":"load","endA":"a","endB":"b","size":"2.5 mm2","insulation":70,"lengthM":3,"fuseA":30}}}`,
			`{"found":{"w1":{"role":"load","endA":"a","endB":"b","size":"2.5 mm2","insulation":70,"lengthM":3,"fuseA":25}}}`},
		{"found.burns", "bad", wire(`,"amps":101`), wire(`,"amps":100`)},
		{"found.drop", "caution", wire(`,"amps":60,"lengthM":4`), wire(`,"amps":20,"lengthM":4`)},
		{"found.joint", "caution", wire(`,"amps":20,"dropV":0.2`), wire(`,"amps":20,"dropV":0.15`)},
		{"found.joint", "bad", wire(`,"amps":20,"dropV":0.4`), wire(`,"amps":20,"dropV":0.25`)},
		{"found.corroded", "caution", wire(`,"state":"corroded"`), wire(`,"state":"good"`)},
		{"found.loose", "bad", wire(`,"state":"loose"`), wire("")},
		{"found.chafed", "bad", wire(`,"state":"chafed"`), wire("")},
		{"found.taped", "caution", wire(`,"state":"taped"`), wire("")},
		{"found.cut", "bad", wire(`,"state":"cut"`), wire("")},
		{"found.past", "bad", wire(`,"sources":"both","fuseBA":60`), wire(`,"sources":"a"`)},
		{"found.past", "bad", wire(`,"sources":"both","fuseBA":60`), wire(`,"sources":"both","fuseBA":60,"state":"cut"`)},
		{"found.good", "good", wire(""), wire(`,"state":"cut"`)},
	}
	for _, c := range cases {
		assert.Equal(t, c.level, findings(found(t, c.fires))[c.id], "%s of %s", c.id, c.fires)
		assert.NotEqual(t, c.level, findings(found(t, c.not))[c.id], "%s of %s", c.id, c.not)
		for _, w := range found(t, c.fires).Wires {
			for _, f := range w.Findings {
				assert.NotContains(t, f.Text, "%!", f.ID)
			}
			assert.NotEmpty(t, w.Why)
		}
	}
}

// A relay on 8 mm auto cable with one fuse, as somebody left it under a vehicle whose
// regulation turned out to vary.
const left = `{"title":"as left","alternator":{"label":"90/180 A","regulation":"variable","knownBy":"test"},"aux":{"chemistry":"agm",
"capacityAh":100,"place":"rear"},
	"routes":{"startM":6,"auxM":0.9},"use":{"dailyAh":40,"drivenHours":2},"have":{"coupling":"vsr","couplingA":60},
	"gear":{"g1":{"kind":"relay","name":"old relay","ratingA":60,"works":"works"},"g2":{"kind":"fusebox","works":"dead"},
"g3":{"kind":"charger","ratingA":30,"works":"works"}},
	"found":{"w1":{"role":"start","endA":"start battery","endB":"relay","size":"8 mm auto","lengthM":0.6,"fuseA":60,"fuseMM":150},
	         "w2":{"role":"aux","endA":"relay","endB":"aux battery","size":"8 mm auto","lengthM":6.2,"fuseBA":0}}}`

func TestRetrofit(t *testing.T) {
	f := found(t, left)
	assert.Empty(t, f.Missing)
	require.NotNil(t, f.Before)
	assert.NotEmpty(t, f.Before.Stops, "a relay on variable regulation never closes when it matters")
	assert.Contains(t, f.After.Coupling, "charger")
	assert.Less(t, f.Before.Early.Volts, f.After.Early.Volts+5)
	assert.Equal(t, verdict.Bad, f.Wires[1].Level, "the aux battery's end is a source and has no fuse")
	assert.Equal(t, "goes", f.Wires[0].Fate, "too short and too thin for a charger at the back")
	fates := map[string]string{}
	for _, g := range f.Gear {
		fates[g.Key] = g.Fate
	}
	assert.Equal(t, map[string]string{"g1": "goes", "g2": "goes", "g3": "stays"}, fates)
}

// A thick cable that was found stays; one that just bears the design becomes its
// bottleneck and says so.
func TestWhatCanBeUsedAgain(t *testing.T) {
	one := func(size string) retrofit.WireVerdict {
		return found(t, `{"pins":{"chargerA":30},"routes":{"startM":5,"auxM":0.9},"found":{"w1":{"role":"start","endA":"a","endB":"b",
"size":"`+size+`","lengthM":5.1,"fuseA":60,"fuseMM":100}}}`).Wires[0]
	}
	thick := one("35 mm2")
	assert.Equal(t, "stays", thick.Fate)
	require.NotNil(t, thick.Reuse)
	assert.Equal(t, "pins.startSize", thick.Reuse.Path)
	assert.Equal(t, "goes", one("6 mm2").Fate)
}

// A device is judged by where it sits, a changeover by its rest contact, and not by the figure on the
// case (trade §21.4 and §21.10).
func TestGearByWhereItSits(t *testing.T) {
	for _, c := range []struct{ gear, fate, says string }{
		{`"kind":"isolator","ratingA":200,"across":"batteries"`, "goes", "in a ring"},
		{`"kind":"isolator","ratingA":200`, "open", "Follow both its leads"},
		{`"kind":"other","across":"unknown"`, "open", "Follow both its leads"},
		{`"kind":"isolator","ratingA":20,"across":"start"`, "goes", "Rated 20 A and the new design carries"},
		{`"kind":"isolator","ratingA":300,"across":"aux"`, "stays", "rated 300 A"},
		{`"kind":"isolator","across":"aux"`, "open", "Read its rating"},
		{`"kind":"isolator","across":"loads"`, "stays", "Not in the way."},
		{`"kind":"solar"`, "stays", "Not in the way."},
		{`"kind":"changeover","ratingA":100`, "open", "rest contact (87a)"},
		{`"kind":"changeover","ratingA":100,"restA":20`, "goes", "bears 20 A"},
		{`"kind":"changeover","ratingA":100,"restA":90`, "stays", "Can be used again"},
	} {
		g := found(t, `{"aux":{"chemistry":"agm"},"pins":{"coupling":"changeover","chargerA":30},"gear":{"g1":{"works":"works",`+c.gear+`}}}`)
		assert.Equal(t, c.fate, g.Gear[0].Fate, c.gear)
		assert.Contains(t, g.Gear[0].Why, c.says, c.gear)
	}
	relay := found(t, `{"alternator":{"regulation":"fixed","knownBy":"test"},"aux":{"chemistry":"agm","place":"seat"},
		"pins":{"coupling":"vsr"},
		"found":{"w1":{"role":"load","endA":"a","endB":"b","size":"6 mm2","lengthM":3,"sources":"both","fuseA":30,"fuseBA":30}}}`)
	assert.Contains(t, relay.Wires[0].Findings[0].Text, "past the coupling", "a load fed from both ends joins too")
	assert.Equal(t, "goes", relay.Wires[0].Fate)
}

// "I have an 80 A fuse, 7 m of 16 mm² and this relay."
func TestBypassFromWhatIsInTheVan(t *testing.T) {
	const van = `{"alternator":{"label":"60/120 A","regulation":"fixed","knownBy":"test","volts":14.2},"aux":{"chemistry":"%s",
"capacityAh":100,"place":"rear"},"routes":{"startM":5.2,"auxM":0.9},
		"have":{"fuseA":80,"size":"16 mm2","metres":%s,"fuses":%s,"relayA":100}}`
	with := func(chemistry, metres, fuses string) *retrofit.Bypass {
		return found(t, fmt.Sprintf(van, chemistry, metres, fuses)).Bypass
	}
	good := with("agm", "7", "2")
	require.NotNil(t, good)
	assert.Equal(t, verdict.Good, good.Level, "%v", good.Against)
	assert.InDelta(t, 64, good.CarryA, 1, "80 % of the fuse")
	assert.Contains(t, good.Tag, "TEMPORARY")
	assert.Equal(t, verdict.Bad, with("agm", "6", "2").Level, "6.1 m are needed")
	assert.Equal(t, verdict.Bad, with("agm", "7", "1").Level, "both ends are sources")
	assert.Equal(t, verdict.Bad, with("lifepo4", "7", "2").Level)
	assert.Nil(t, found(t, `{"have":{"fuseA":80}}`).Bypass)
}

// What is missing is named; nothing is guessed as a whole.
func TestTooLittleIsKnown(t *testing.T) {
	f := found(t, `{"found":{"w1":{"role":"start","endA":"a"}}}`)
	assert.Nil(t, f.Before)
	assert.Equal(t, []string{"the cable of the aux run", "the cable of the start run", "which coupling was found"}, f.Missing)
}
