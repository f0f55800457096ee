package study_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/design"
	"epitrope/core/parts"
	"epitrope/core/study"
)

// Whatever is asked of a design, its energy adds up, and what its batteries kept is what
// their charge says: rest voltages of 12 V batteries lie between 11.5 and 13.6 V.
func TestEnergyOfOddJobs(t *testing.T) {
	for name, c := range map[string]struct {
		text  string
		volts float64 // of the system, over 12
		auxAh float64
	}{
		"a bank that takes nothing": {`{"aux":{"chemistry":"lifepo4","capacityAh":200},"day":{"days":2,"pattern":"long-haul",` +
			`"outsideC":-7}}`, 1, 200},
		"segments of their own": {`{"vehicle":{"kind":"tow-caravan"},"alternator":{"label":"150/250 A"},` +
			`"aux":{"chemistry":"lifepo4","capacityAh":300},"day":{"days":3,"pattern":"own",` +
			`"own":"park 3 h air -15 C, crank 2 s, highway 3 h air 5 C, park 6 h sun 90 % load 8 A, lamps 1 h","solarW":200}}`, 1, 300},
		"lamps left on, relay": {`{"alternator":{"label":"70/140 A","regulation":"fixed","knownBy":"test","volts":14.4},` +
			`"aux":{"chemistry":"agm","capacityAh":100,"place":"seat"},"pins":{"coupling":"vsr"},"day":{"days":2,"pattern":"own",` +
			`"own":"park 1 h, lamps 30 h"}}`, 1, 100},
		"24 V, in the cold": {`{"vehicle":{"systemVolts":24},"aux":{"chemistry":"agm","capacityAh":100},"day":{"days":3,` +
			`"outsideC":-10}}`, 2, 100},
		"lithium on a relay, in the heat": {`{"aux":{"chemistry":"lifepo4","capacityAh":100},"day":{"days":3,"outsideC":45,` +
			`"pattern":"idling"},"pins":{"coupling":"vsr"}}`, 1, 100},
		"changeover, joined by hand": {`{"aux":{"chemistry":"agm","capacityAh":100},"day":{"days":2,"pattern":"own",` +
			`"own":"park 2 h, joined 2 min, assist 2 s, highway 2 h, joined 1 min, highway 20 min, park 4 h"},"pins":{"coupling":"changeover"}}`, 1,
			100},
		"high-current stage": {`{"alternator":{"label":"250 A"},"aux":{"chemistry":"lifepo4","capacityAh":600},` +
			`"use":{"dailyAh":200},"day":{"days":3,"pattern":"long-haul"},"pins":{"coupling":"highcurrent"}}`, 1, 600},
		"second alternator": {`{"aux":{"chemistry":"lifepo4","capacityAh":400},"use":{"dailyAh":200,"drivenHours":2},` +
			`"day":{"days":3},"pins":{"coupling":"second"}}`, 1, 400},
		"contactor, key left on": {`{"alternator":{"regulation":"fixed","knownBy":"test"},"aux":{"chemistry":"flooded",` +
			`"capacityAh":100,"place":"bonnet"},"day":{"days":2,"pattern":"own","own":"park 1 h, crank 2 s, town 1 h, key 6 h, park 10 h"},` +
			`"pins":{"coupling":"contactor"}}`, 1, 100},
		"charger left in the tow vehicle": {`{"vehicle":{"kind":"tow-caravan"},"aux":{"chemistry":"agm","capacityAh":150},"day":{"days":3},` +
			`"pins":{"coupling":"dcdc"}}`, 1, 150},
		"both returns, selector for good": {`{"aux":{"chemistry":"agm","capacityAh":100},"day":{"days":2},"pins":{"coupling":"selector",` +
			`"selector":"always","return":"both"}}`, 1, 100},
		"gel, nearly full, much sun": {`{"aux":{"chemistry":"gel","capacityAh":150},"use":{"dailyAh":10},"day":{"days":4,"auxSOC":95,` +
			`"solarW":400,"sunHours":7}}`, 1, 150},
	} {
		t.Run(name, func(t *testing.T) {
			got := study.Try(design.Of(document(t, c.text), parts.Stock()), study.Window{}, nil)
			require.Empty(t, got.Stopped)
			wh := map[string]float64{}
			gives, goes := 0.0, 0.0
			for _, s := range got.Energy {
				require.False(t, math.IsNaN(s.Wh) || math.IsInf(s.Wh, 0), s.Label)
				wh[s.Label] = s.Wh
				if s.Kind == "source" {
					gives += s.Wh
				} else {
					goes += s.Wh
				}
			}
			assert.InDelta(t, gives, goes, 6+0.001*gives, "each line is rounded to 1 Wh")
			soc := got.Series.AuxSOC
			moved := (soc[len(soc)-1] - soc[0]) / 100 * c.auxAh * c.volts
			kept, slack := wh["kept by the aux battery"], 0.02*c.auxAh*c.volts*12
			low, high := math.Min(moved*11.5, moved*13.6)-slack, math.Max(moved*11.5, moved*13.6)+slack
			assert.True(t, low <= kept && kept <= high, "kept %.0f Wh of %.0f to %.0f", kept, low, high)
			assert.Less(t, wh["inside the aux battery"], 0.5*(gives+math.Abs(moved)*13), "more is lost inside than went through")
			assert.GreaterOrEqual(t, wh["inside the aux battery"], 0.0)
		})
	}
}
