package modes_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"epitrope/core/design"
	"epitrope/core/modes"
	"epitrope/internal/jobtest"
)

// Each judgement of the mode table with a job and a position that have it, and a job that has
// not in that position, or the same job with nobody's hand on anything. None is without.
func TestEveryJudgementHasACase(t *testing.T) {
	const fixed = `"alternator":{"label":"90/180 A","regulation":"fixed","knownBy":"test","volts":14.4}`
	const agm = fixed + `,"aux":{"chemistry":"agm","place":"seat"}`
	const ignition = `,"day":{"trigger":"ignition"}`
	off, on := design.KeyState{Key: "off", Engine: "stopped"}, design.KeyState{Key: "on", Engine: "stopped"}
	crank, runs := design.KeyState{Key: "start", Engine: "cranking"}, design.KeyState{Key: "on", Engine: "running"}
	changeover, contactor := `{`+agm+`,"pins":{"coupling":"changeover"}}`, `{`+agm+ignition+`,"pins":{"coupling":"contactor"}}`
	hard := `{` + agm + ignition + `,"startBattery":{"crankA":800},"pins":{"coupling":"contactor","auxFuseA":100}}`
	byRunning := `{` + agm + `,"day":{"trigger":"running"},"pins":{"coupling":"contactor"}}`
	switched := func(amps string) string { return `{"day":{"trigger":"switch"},"pins":{"chargerA":` + amps + `}}` }
	isolated := func(where string) string { return `{"extras":{"isolator":"` + where + `","isolatorFirst":"no"}}` }
	sunny := func(priority string) string {
		return `{"day":{"solarW":200,"trigger":"switch"},"solar":{"through":"yes","priority":"` + priority + `"},"pins":{"chargerA":10}}`
	}
	twoWay := func(more string) string {
		return `{` + agm + `,"pins":{"coupling":"vsr"},"relay":{"twoWay":"yes"}` + more + `}`
	}
	const handsOff = ""
	tried := map[string]bool{}
	for _, c := range []struct {
		rule, has, hasNot, position string
		key                         design.KeyState
		sun                         string
	}{
		{"mode.apart", `{}`, contactor, design.NoSwitch, on, "no"},
		{"mode.blocked", sunny("vehicle"), sunny("sun"), design.SwitchOn, crank, "yes"},
		{"mode.bypass", changeover, contactor, design.Held, runs, "no"},
		{"mode.charges", `{}`, `{"day":{"trigger":"dead"}}`, design.NoSwitch, runs, "no"},
		{"mode.crank", hard, contactor, design.NoSwitch, crank, "no"},
		{"mode.cranks", byRunning, contactor, design.NoSwitch, crank, "no"},
		{"mode.drains", switched("10"), switched("80"), design.SwitchOn, off, "no"},
		{"mode.dump", isolated("aux"), isolated("front"), design.Isolated, runs, "no"},
		{"mode.feeds", contactor, byRunning, design.NoSwitch, on, "no"},
		{"mode.flat", `{` + agm + `,"pins":{"coupling":"selector"}}`, byRunning, design.AtAlways, off, "no"},
		{"mode.held", changeover, handsOff, design.Held, off, "no"},
		{"mode.hunts", switched("80"), switched("10"), design.SwitchOn, off, "no"},
		{"mode.isolated", isolated("front"), isolated("aux"), design.Isolated, runs, "no"},
		{"mode.mains", `{"mains":{"outputA":20}}`, `{"mains":{"how":"x"}}`, design.NoSwitch, off, "mains"},
		{"mode.keeps", twoWay(`,"mains":{"outputA":30}`), twoWay(``), design.NoSwitch, off, "mains"},
		{"mode.plugged", `{"extras":{"isolator":"master"},"mains":{"outputA":20}}`, `{"extras":{"isolator":"aux"},"mains":{"outputA":20}}`,
			design.Isolated, off, "mains"},
		{"mode.nocharge", `{"day":{"trigger":"dead"}}`, `{}`, design.NoSwitch, runs, "no"},
		{"mode.lingers", `{` + agm + `,"pins":{"coupling":"vsr"}}`, contactor, design.NoSwitch, design.JustStopped, "no"},
		{"mode.overruns", `{` + agm + `,"day":{"trigger":"voltage"},"pins":{"coupling":"dcdc","chargerA":10},"routes":{"startM":1,"auxM":1}}`,
			contactor, design.NoSwitch, design.JustStopped, "no"},
		{"mode.off", switched("10"), `{}`, design.SwitchOff, runs, "no"},
		{"mode.shares", contactor, hard, design.NoSwitch, crank, "no"},
		{"mode.starved", `{"pins":{"startSize":"4 mm2","chargerA":60}}`, `{}`, design.NoSwitch, runs, "no"},
		{"mode.sun", `{"day":{"solarW":200}}`, `{"day":{"solarW":0}}`, design.NoSwitch, off, "yes"},
	} {
		tried[c.rule] = true
		has := modes.ModeAt(jobtest.Design(t, c.has), c.position, c.key, c.sun)
		assert.Equal(t, c.rule, has.Rule, "%s: %s", c.has, has.Why)
		assert.NotContains(t, has.Why, "%!", c.rule)
		if c.hasNot == handsOff {
			c.hasNot, c.position = c.has, design.NoSwitch
		}
		assert.NotEqual(t, c.rule, modes.ModeAt(jobtest.Design(t, c.hasNot), c.position, c.key, c.sun).Rule, c.hasNot)
	}
	for _, rule := range modes.Rules() {
		assert.True(t, tried[rule], "%s has no case", rule)
	}
}
