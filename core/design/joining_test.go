package design_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/design"
	"epitrope/core/judge"
	"epitrope/core/parts"
	"epitrope/core/plan"
	"epitrope/core/system"
	"epitrope/internal/jobtest"
	"epitrope/internal/networktest"
)

// ends are the wires of a system as "from.terminal>to.terminal".
func ends(s system.System) map[string]string {
	out := map[string]string{}
	for _, w := range s.Wires {
		out[w.ID] = w.From.Component + "." + w.From.Terminal + ">" + w.To.Component + "." + w.To.Terminal
	}
	return out
}

// A relay beside the charger is wired by its terminals: rest over 87a, join over 87, the
// coil by whatever works it. Source: ISO 7588 (from memory) for 30, 85, 86, 87, 87a.
func TestWhatJoinsIsWired(t *testing.T) {
	const asked = `{"alternator":{"label":"90/180 A","regulation":"fixed","knownBy":"test"},"aux":{"chemistry":"agm","capacityAh":120},` +
		`"wants":{"emergencyStart":"yes"}`
	for name, c := range map[string]struct {
		more  string
		kinds map[string]system.ComponentKind
		wires map[string]string
		none  []string
	}{
		"changeover": {`,"pins":{"coupling":"changeover"}`,
			map[string]system.ComponentKind{"k1": system.KindChangeover, "coupling": system.KindCharger, "s1": system.KindControl,
				"f5": system.KindFuse},
			map[string]string{"c1": "f1.out>k1.30", "k1a": "k1.87a>coupling.30", "k1b": "coupling.out>k1.87", "c2": "k1.87>f2.in",
				"s1a": "k1.87>f5.in", "s1b": "f5.out>s1.2", "s1c": "s1.0>k1.86", "g2": "k1.85>coupling.31", "t1b": "f3.out>coupling.15"},
			[]string{"t1c", "k1c"}},
		"high-current stage": {`,"pins":{"coupling":"highcurrent"}`,
			map[string]system.ComponentKind{"k1": system.KindContactor, "coupling": system.KindCharger},
			map[string]string{"c1": "f1.out>k1.30", "k1a": "k1.30>coupling.30", "k1b": "coupling.out>k1.87", "k1c": "coupling.K1>k1.86",
				"g2": "k1.85>coupling.31"}, []string{"s1a", "s1c"}},
		"contactor with a button": {`,"pins":{"coupling":"contactor"}`,
			map[string]system.ComponentKind{"coupling": system.KindContactor, "s1": system.KindControl, "f5": system.KindFuse},
			map[string]string{"c1": "f1.out>coupling.30", "c2": "coupling.87>f2.in", "t1b": "f3.out>s1.1", "t1c": "s1.0>coupling.86",
				"s1a": "coupling.87>f5.in", "s1b": "f5.out>s1.2"}, []string{"k1a", "s1c"}},
		"selector": {`,"pins":{"coupling":"selector"}`,
			map[string]system.ComponentKind{"coupling": system.KindContactor, "s1": system.KindControl, "f5": system.KindFuse},
			map[string]string{"t1b": "f3.out>s1.1", "t1c": "s1.0>coupling.86", "s1a": "coupling.30>f5.in"}, []string{"k1a"}},
		"charger with a switch in its signal": {`,"pins":{"coupling":"dcdc"},"schools":{"inSeries":"yes"}`,
			map[string]system.ComponentKind{"coupling": system.KindCharger, "s1": system.KindControl},
			map[string]string{"c1": "f1.out>coupling.30", "t1b": "f3.out>s1.1", "t1c": "s1.0>coupling.15"}, []string{"k1a", "s1a"}},
		"changeover with a switch in its signal": {`,"pins":{"coupling":"changeover"},"schools":{"inSeries":"yes"}`,
			map[string]system.ComponentKind{"s1": system.KindControl, "s2": system.KindControl},
			map[string]string{"t1b": "f3.out>s2.1", "t1c": "s2.0>coupling.15", "s1c": "s1.0>k1.86"}, []string{"t1d"}},
		"contactor with a switch and a button": {`,"pins":{"coupling":"contactor"},"schools":{"inSeries":"yes"}`,
			map[string]system.ComponentKind{"s1": system.KindControl, "s2": system.KindControl},
			map[string]string{"t1b": "f3.out>s2.1", "t1c": "s2.0>s1.1", "t1d": "s1.0>coupling.86"}, []string{"s1c"}},
		"charger alone": {`,"pins":{"coupling":"dcdc"}`, map[string]system.ComponentKind{"coupling": system.KindCharger},
			map[string]string{"t1b": "f3.out>coupling.15", "c2": "coupling.out>f2.in"}, []string{"k1a", "t1c", "s1a", "g2"}},
	} {
		t.Run(name, func(t *testing.T) {
			p := plan.Decide(jobtest.Document(t, asked+c.more+`}`), parts.Stock())
			for id, kind := range c.kinds {
				got, ok := p.System.Component(id)
				require.True(t, ok, id)
				assert.Equal(t, kind, got.Kind, id)
			}
			got := ends(p.System)
			for id, want := range c.wires {
				assert.Equal(t, want, got[id], id)
			}
			for _, id := range c.none {
				assert.NotContains(t, got, id)
			}
		})
	}
}

// What is judged is what is fitted: the changeover of the chain is that of the parts, the
// wires and the drawing, whatever the run comes to, and it takes the run's cable.
func TestTheChangeoverThatIsJudgedIsFitted(t *testing.T) {
	for _, amps := range []string{"20", "30", "40", "50", "60"} {
		for _, metres := range []string{"1", "4", "8"} {
			p := jobtest.Plan(t, `{"alternator":{"label":"110/220 A"},"aux":{"chemistry":"agm","capacityAh":300},"routes":{"startM":`+metres+`,
"auxM":1},
"pins":{"coupling":"changeover","chargerA":`+amps+`}}`)
			k1, ok := p.System.Component("k1")
			require.True(t, ok)
			contact := k1.Device.(system.Contact)
			c1, _ := p.System.Wire("c1")
			judged := slices.ContainsFunc(p.Chain, func(l judge.Link) bool { return l.Name == "87a of the "+k1.Rating })
			assert.True(t, judged, "%s A, %s m: %s is fitted, %v judged", amps, metres, k1.Rating, p.Chain)
			if contact.PlugIn {
				assert.LessOrEqual(t, c1.CopperMM2, 10.2, "%s A, %s m: a socket takes no more", amps, metres)
			}
		}
	}
}

// Held, the button draws the coil's current off the aux side over F5, and the charger's
// input hangs on an open contact; released, neither.
func TestButtonWorksTheCoil(t *testing.T) {
	doc := jobtest.Document(t, `{"alternator":{"label":"90/180 A"},"aux":{"chemistry":"agm","capacityAh":120},`+
		`"pins":{"coupling":"changeover"}}`)
	held, found, err := design.Of(doc, parts.Stock()).CircuitAt("precharge")
	require.NoError(t, err)
	solved := networktest.Read{T: t, Solution: found}
	coil := parts.Stock().Changeovers[len(parts.Stock().Changeovers)-1].Relay.CoilA
	assert.InDelta(t, coil, solved.Through("f5"), 0.15*coil, "12 V of coil at the aux battery's voltage")
	assert.InDelta(t, 0, solved.At("coupling.30")-solved.At("coupling.31"), 1e-3, "the charger is dead")
	assert.Contains(t, held.Names(), "k1.86")
	_, found, err = design.Of(doc, parts.Stock()).CircuitAt("cruise")
	require.NoError(t, err)
	solved = networktest.Read{T: t, Solution: found}
	assert.Less(t, solved.Through("f5"), 1e-3)
	assert.Greater(t, solved.At("coupling.30")-solved.At("coupling.31"), 11.0)
}

// A changeover lets either side through, never both: the aux battery does not reach the
// charger's input, and the start battery reaches it over the rest contact.
func TestLiveMapOfAChangeover(t *testing.T) {
	m := jobtest.Modes(t, `{"aux":{"chemistry":"agm"},"pins":{"coupling":"changeover"}}`)
	from := map[string]map[string][]string{}
	for _, row := range m.Live {
		from[row.Off] = map[string][]string{}
		for _, w := range row.Live {
			from[row.Off][w.Wire] = w.From
		}
	}
	assert.NotContains(t, from["F1 taken out"], "link K1 to charger")
	assert.Equal(t, []string{"aux battery"}, from["F1 taken out"]["link charger to K1"])
	assert.Equal(t, []string{"start battery"}, from["F2 taken out"]["link K1 to charger"])
	assert.Contains(t, from["F5 taken out"], "S1 before F5")
	assert.NotContains(t, from["F5 taken out"], "S1 to the coil")
	for _, row := range m.Work {
		assert.NotEmpty(t, row.Open, "%s can be made dead", row.Place)
	}
}

// What no small fuse breaks is said, with the figures.
func TestShortBehindTheButtonsFuse(t *testing.T) {
	near := func(text string) string {
		for _, n := range plan.Decide(jobtest.Document(t, text), parts.Stock()).Notes {
			if n.ID == "button.breaks" {
				return n.Text
			}
		}
		return ""
	}
	says := near(`{"aux":{"chemistry":"lifepo4","capacityAh":300,"place":"rear"},"pins":{"coupling":"changeover","auxSize":"35 mm²"}}`)
	assert.True(t, strings.HasPrefix(says, "A short behind F5 draws ") && strings.Contains(says, "kA"), says)
	assert.Empty(t, near(`{"aux":{"chemistry":"agm","capacityAh":80},"pins":{"coupling":"changeover"}}`))
}
