package modes_test

import (
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/circuit"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/modes"
	"epitrope/core/parts"
	"epitrope/core/system"
	"epitrope/core/unit"
	"epitrope/internal/jobtest"
	"epitrope/testdata"
)

const steady = `"alternator":{"label":"90/180 A","regulation":"fixed","knownBy":"test","volts":14.4}`

// Truth 8: LiFePO4 rests above a relay's cut-out, so house and vehicle live on one bank
// all night; lead lets go.
func TestRelayOnLithiumStaysJoined(t *testing.T) {
	lithium := jobtest.Line(t, jobtest.Modes(t, `{`+steady+`,"aux":{"chemistry":"lifepo4","place":"seat"},"pins":{"coupling":"vsr"}}`), "–",
		"off",
		"stopped")
	assert.True(t, lithium.Joined)
	assert.Equal(t, "forbidden", lithium.Verdict)
	assert.NotEmpty(t, lithium.Interlock)
	lead := jobtest.Line(t, jobtest.Modes(t, `{`+steady+`,"aux":{"chemistry":"agm","place":"seat"},"pins":{"coupling":"vsr"}}`), "–", "off",
		"stopped")
	assert.False(t, lead.Joined)
	assert.Equal(t, "normal", lead.Verdict)
}

// Truth 14: joined by ignition means joined while cranking: both batteries give, by their
// resistances.
func TestContactorSharesTheCranking(t *testing.T) {
	m := jobtest.Modes(t, `{`+steady+`,"aux":{"chemistry":"agm","place":"bonnet"},"pins":{"coupling":"contactor"}}`)
	crank := jobtest.Line(t, m, "–", "start", "cranking")
	assert.True(t, crank.Joined)
	assert.Less(t, crank.AuxA, -50.0)
	assert.Less(t, crank.StartA, 400.0, "the aux battery takes its share")
	assert.Contains(t, []string{"caution", "forbidden"}, crank.Verdict)
	key := jobtest.Line(t, m, "–", "on", "stopped")
	assert.True(t, key.Joined && key.Verdict == "caution", "the ignition left on")
	assert.False(t, jobtest.Line(t, m, "–", "off", "stopped").Joined)
}

// A join left energised with the engine running bypasses the charger; cranking through it
// opens a small fuse.
func TestChangeoverIsForbiddenWithTheEngineRunning(t *testing.T) {
	m := jobtest.Modes(t, `{"aux":{"chemistry":"agm"},"wants":{"emergencyStart":"yes"}}`)
	require.Equal(t, "changeover", m.Coupling)
	assert.Equal(t, "forbidden", jobtest.Line(t, m, "button held", "on", "running").Verdict)
	charges := jobtest.Line(t, m, "button released", "on", "running")
	assert.True(t, charges.Charging && !charges.Joined && charges.Lamp == "charging")
	small := jobtest.Modes(t, `{"aux":{"chemistry":"lifepo4","capacityAh":300},"wants":{"emergencyStart":"yes"},`+
		`"startBattery":{"crankA":800},`+
		`"pins":{"coupling":"changeover","chargerA":10,"auxFuseA":30}}`)
	crank := jobtest.Line(t, small, "button held", "start", "cranking")
	assert.Equal(t, "forbidden", crank.Verdict)
	assert.Contains(t, crank.Why, "opens after")
	assert.NotEmpty(t, crank.Interlock)
}

// A switch forgotten on lets the charger empty the start battery; the same charger on a
// running signal rests.
func TestForgottenSwitch(t *testing.T) {
	m := jobtest.Modes(t, `{"day":{"trigger":"switch"},"pins":{"chargerA":10}}`)
	left := jobtest.Line(t, m, "switch on", "off", "stopped")
	assert.Equal(t, "forbidden", left.Verdict)
	apart := jobtest.Line(t, m, "switch off", "off", "stopped")
	assert.InEpsilon(t, 80*0.4/apart.StartA, m.Figures[apart.Figure].Value, 0.1, "C·s / I")
	assert.Equal(t, "normal", apart.Verdict)
	assert.Equal(t, "normal", jobtest.Line(t, jobtest.Modes(t, `{}`), "–", "off", "stopped").Verdict)
	hunts := jobtest.Line(t, jobtest.Modes(t, `{"day":{"trigger":"switch"},"pins":{"chargerA":80}}`), "switch on", "off", "stopped")
	assert.Contains(t, hunts.Why, "begins again")
}

// Accessory, ignition and engine-running are different facts.
func TestSignalsDiffer(t *testing.T) {
	for trigger, want := range map[string][3]bool{"accessory": {true, true, true}, "ignition": {false, true, true},
		"running": {false, false, true}, "dead": {false, false, false}} {
		m := jobtest.Modes(t, `{"pins":{"chargerA":10},"day":{"trigger":"`+trigger+`"}}`)
		for i, k := range [][2]string{{"accessory", "stopped"}, {"on", "stopped"}, {"on", "running"}} {
			r := jobtest.Line(t, m, "–", k[0], k[1])
			assert.Equal(t, want[i], r.Lamp == "charging", "%s with the key at %s, %s", trigger, k[0], k[1])
		}
	}
}

// Every combination is there once, and what is forbidden says why and what prevents it.
func TestModeTableIsWhole(t *testing.T) {
	for name, doc := range jobtest.Complete(t) {
		m := modes.Of(design.Of(doc, parts.Stock()))
		seen := map[[4]string]bool{}
		for _, r := range m.Rows {
			at := [4]string{r.Switch, r.Key, r.Engine, r.Sun}
			assert.False(t, seen[at], "%s: %v stands twice", name, at)
			seen[at] = true
			assert.NotEmpty(t, r.Why, "%s: %v", name, at)
			assert.NotContains(t, r.Why, "%!", "%s: %v", name, at)
			if r.Verdict == "forbidden" {
				assert.NotEmpty(t, r.Interlock, "%s: %v", name, at)
			}
			if r.Figure != "" {
				assert.Contains(t, m.Figures, r.Figure)
			}
		}
		suns := 1
		if doc.Day.SolarW != nil {
			suns = 2
		}
		positions := 5 // of key and engine
		if slices.ContainsFunc(m.Rows, func(r modes.Mode) bool { return r.Engine == "just stopped" }) {
			positions = 6
		}
		assert.Zero(t, len(m.Rows)%(positions*suns), name)
	}
}

// Truth 20: what stays live, and from where. A plug of a removed box is live; one fuse out
// does not make what two batteries feed dead.
func TestLiveMap(t *testing.T) {
	charger := jobtest.Modes(t, `{"day":{"solarW":200}}`)
	out := jobtest.LiveAfter(t, charger, "DC-DC taken out or open")
	assert.Equal(t, []string{"start battery"}, out["C1"])
	assert.Equal(t, []string{"aux battery", "solar"}, out["C2"])
	assert.Equal(t, []string{"F1 taken out"}, jobtest.ToWorkOn(t, charger, "C1"), "a charger lets nothing back")
	assert.NotContains(t, jobtest.LiveAfter(t, charger, "F1 taken out"), "C1")
	relay := jobtest.Modes(t, `{"pins":{"coupling":"vsr"}}`)
	assert.Equal(t, []string{"aux battery"}, jobtest.LiveAfter(t, relay, "F1 taken out")["C1"], "through a closed relay")
	assert.Equal(t, []string{"F1 taken out", "F2 taken out"}, jobtest.ToWorkOn(t, relay, "C1"), "trip both to work here")
	assert.True(t, slices.Contains(jobtest.LiveAfter(t, relay, "start battery's negative off")["C1"], "aux battery"))
	trailer := jobtest.Modes(t, `{"vehicle":{"kind":"tow-caravan"}}`)
	assert.NotContains(t, jobtest.LiveAfter(t, trailer, "X1 unplugged"), "C1 in the trailer")
	assert.Contains(t, jobtest.LiveAfter(t, trailer, "X1 unplugged"), "C1", "the socket")
}

// Volts while cranking are one figure: in the state, and in the table with everything where it usually
// stands, where nothing joins the batteries.
func TestCrankingIsOneFigure(t *testing.T) {
	compared := 0
	for seed := range uint64(80) {
		doc, problems := job.Decode(jobtest.Random(rand.New(rand.NewPCG(seed, 183))))
		require.Empty(t, problems)
		d := design.Of(doc, parts.Stock())
		crank := d.StateBy("crank")
		row := modes.ModeAt(d, "", design.CrankKey, "no")
		if row.Rule != "mode.cranks" || crank.Joined || crank.Err != nil {
			continue
		}
		compared++
		assert.Contains(t, row.Why, unit.Text(circuit.Had(crank.Solved.At("start.30")), "V", 1), "seed %d, %s", seed, d.Kind)
	}
	assert.Greater(t, compared, 20)
}

// What is live in a position is reached from a source at all; with nothing opened nothing else can be.
func TestWhatIsLiveIsReached(t *testing.T) {
	all, err := testdata.Documents()
	require.NoError(t, err)
	for name, data := range all {
		doc, _ := job.Decode(data)
		d := design.Of(doc, parts.Stock())
		reached := map[string]bool{}
		for id := range d.LiveWires() {
			reached[id] = true
		}
		for _, m := range modes.Of(d).Rows {
			assert.Contains(t, m.Live, "start", "%s: the start battery is live with key %s", name, m.Key)
			for _, id := range m.Live {
				if w, is := d.System.Wire(id); is && w.Role == system.Feed {
					assert.True(t, reached[id], "%s: %s is live with key %s, engine %s, and is reached from nowhere", name, id, m.Key, m.Engine)
				}
			}
		}
	}
}
