package procedure_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/harness"
	"epitrope/core/plan"
	"epitrope/core/procedure"
	"epitrope/core/prove"
	"epitrope/core/retrofit"
	"epitrope/core/unit"
	"epitrope/internal/jobtest"
)

// Trade §21.6: a return is judged by milliohms, or by millivolts at a known current, within what the design
// counts for it; a common meter's tenth of an ohm would pass four volts at 40 A.
func TestReturnsAreReadInMilliohms(t *testing.T) {
	d := jobtest.Design(t, `{"pins":{"chargerA":40}}`)
	p := plan.Of(d)
	sum := 0.0
	for _, r := range p.Returns {
		sum += r.MilliO
	}
	for _, s := range procedure.Steps(p, harness.Leads(&p.System, harness.UsualScheme), retrofit.Found{}, prove.Of(d)) {
		assert.NotContains(t, s.Figure, "0.1 Ω")
		if s.ID == "hold-connect" {
			assert.Contains(t, s.Figure, unit.Text(sum, "mΩ", 1))
			assert.Contains(t, s.Figure, unit.Text(20*sum, "mV", 0))
			assert.Less(t, sum, 20.0)
			return
		}
	}
	t.Fatal("no step reads the returns")
}

// Trade §21.13: what is expected is what a bay can produce, warm at a fast idle with the lamps off, and not
// the hottest cruise with lamps and blower on.
func TestReadingsABayCanProduce(t *testing.T) {
	d := jobtest.Design(t, `{"alternator":{"label":"70 A","regulation":"fixed","knownBy":"test","volts":14.1},
		"aux":{"chemistry":"flooded","capacityAh":85,"place":"bonnet"},"pins":{"coupling":"contactor"}}`)
	p := plan.Of(d)
	bay, cruise := jobtest.State(t, p, "bay"), jobtest.State(t, p, "cruise")
	assert.Less(t, cruise.StartV, 13.0, "lamps and blower on, the machine has not enough")
	assert.InDelta(t, 14.1, bay.StartV, 0.1)
	for _, s := range procedure.Steps(p, harness.Leads(&p.System, harness.UsualScheme), retrofit.Found{}, prove.Of(d)) {
		if s.ID != "prove-fast-idle" {
			continue
		}
		for _, r := range prove.Of(d).Readings {
			if r.ID == "start-running" {
				band := prove.Of(d).Judge(nil).Bands[r.ID]
				assert.True(t, band.Likely[0] < bay.StartV && bay.StartV < band.Likely[1], "%+v", band)
				assert.Contains(t, s.Checks, r.What+": "+r.Expects(band))
				return
			}
		}
	}
	t.Fatal("no step reads the start battery")
}

// With a machine of the run's own, the start battery is still where the start battery is.
func TestStartBatteryIsReadAtTheStartBattery(t *testing.T) {
	p, _, list := stepsOf(t, []byte(`{"alternator":{"label":"150/250 A","regulation":"fixed","knownBy":"test","volts":14.0},`+
		`"aux":{"chemistry":"lifepo4","capacityAh":400},"pins":{"coupling":"second"}}`))
	i := slices.IndexFunc(list, func(s procedure.Step) bool { return s.ID == "prove-fast-idle" })
	require.GreaterOrEqual(t, i, 0)
	assert.Regexp(t, `Start battery, engine on: 13\.\d\d V to 14\.\d\d V`, list[i].Checks[0])
	_, ok := p.System.Component("second")
	assert.True(t, ok)
}
