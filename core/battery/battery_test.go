package battery_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/battery"
	"epitrope/core/profile"
)

// Rest voltages of 12 V lead, from memory: 12.7 full, 12.4 at 75 %, 12.2 at half,
// 12.0 at 25 %, 11.8 empty; AGM about 0.1 V higher; LiFePO4 flat at 13.2–13.3.
func TestRestVoltages(t *testing.T) {
	for soc, want := range map[float64]float64{1: 12.7, 0.75: 12.4, 0.5: 12.2, 0.25: 12.0, 0: 11.8} {
		assert.InDelta(t, want, battery.Flooded.RestV(soc), 1e-9)
		assert.InDelta(t, want+0.1, battery.AGM.RestV(soc), 1e-9)
	}
	assert.InDelta(t, 12.3, battery.Flooded.RestV(0.625), 1e-9)
	for _, soc := range []float64{0.5, 0.6, 0.75} {
		v := battery.LiFePO4.RestV(soc)
		assert.True(t, v >= 13.2 && v <= 13.3, "%g V at %g", v, soc)
	}
}

func TestRestVoltageRisesWithCharge(t *testing.T) {
	for _, c := range battery.Chemistries {
		last := 0.0
		for soc := -0.1; soc <= 1.1; soc += 0.05 {
			assert.GreaterOrEqual(t, c.RestV(soc), last)
			last = c.RestV(soc)
		}
	}
}

// A LiFePO4 bank of a few mΩ gives several kA.
func TestLithiumBankIsStiff(t *testing.T) {
	ohm := battery.LiFePO4.Ohm(200, 1)
	assert.True(t, ohm > 0.001 && ohm < 0.004, "%g Ω", ohm)
	assert.Greater(t, battery.LiFePO4.RestV(1)/ohm, 3000.0)
	assert.InDelta(t, 2*ohm, battery.LiFePO4.Ohm(200, 2), 1e-12)
}

func TestByIDNamesWhatIsAllowed(t *testing.T) {
	c, err := battery.ByID("agm")
	require.NoError(t, err)
	assert.Equal(t, battery.AGM, c)
	_, err = battery.ByID("nicd")
	require.EqualError(t, err, `"nicd" is not a chemistry; allowed are lifepo4, agm, gel, calcium, flooded`)
}

// Trade's table of profiles, 12 V at 25 °C: absorption over float, gel at most 14.3.
func TestProfiles(t *testing.T) {
	for _, c := range battery.Chemistries {
		p := profile.For(c)
		assert.Greater(t, p.AbsorptionHigh, p.AbsorptionLow, c.ID)
		assert.Greater(t, p.AbsorptionLow, p.FloatHigh, c.ID)
	}
	assert.Less(t, profile.For(battery.Gel).AbsorptionHigh, 14.4)
	assert.Equal(t, 14.8, profile.For(battery.Calcium).AbsorptionLow, "undercharged by 14.2 V alternators")
}
