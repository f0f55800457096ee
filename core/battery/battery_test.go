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

// LiFePO4 has 10–15 % left at 12.8 V; a lead battery at 12.2 V is half full.
func TestChargeFromRestVoltage(t *testing.T) {
	left := battery.LiFePO4.Charge(12.8)
	assert.True(t, left >= 0.10 && left <= 0.15, "%g", left)
	assert.InDelta(t, 0.5, battery.Flooded.Charge(12.2), 1e-9)
	for _, c := range battery.Chemistries {
		for soc := 0.0; soc <= 1; soc += 0.01 {
			assert.InDelta(t, soc, c.Charge(c.RestV(soc)), 1e-9, c.ID)
		}
		assert.Zero(t, c.Charge(3))
		assert.Equal(t, 1.0, c.Charge(16))
	}
}

// From memory: an empty lead battery resists about twice as much, one at −18 °C
// about half as much again; LiFePO4 at −20 °C some four times.
func TestResistanceGrowsEmptyAndCold(t *testing.T) {
	base := battery.Flooded.Ohm(80, 1)
	assert.InDelta(t, base, battery.Flooded.OhmAt(80, 1, 1, 25), 1e-12)
	assert.InEpsilon(t, 2*base, battery.Flooded.OhmAt(80, 1, 0, 25), 0.01)
	assert.InEpsilon(t, 1.5*base, battery.Flooded.OhmAt(80, 1, 1, -18), 0.05)
	assert.InEpsilon(t, 4*battery.LiFePO4.Ohm(100, 1), battery.LiFePO4.OhmAt(100, 1, 1, -20), 0.05)
	for _, c := range battery.Chemistries {
		for soc := 0.0; soc < 0.95; soc += 0.1 {
			for temp := -30.0; temp < 50; temp += 10 {
				assert.Greater(t, c.OhmAt(100, 1, soc, temp), c.OhmAt(100, 1, soc+0.1, temp))
				assert.Greater(t, c.OhmAt(100, 1, soc, temp), c.OhmAt(100, 1, soc, temp+10))
			}
		}
	}
}

// hours integrates a lead battery's acceptance from one charge to another.
func hours(c battery.Chemistry, from, to, tempC float64) float64 {
	const step = 0.01
	t := 0.0
	for soc := from; soc < to; {
		amps := c.Accepts(100, soc, tempC, 14.4, 14.4)
		soc += amps * step * c.Efficiency / 100
		t += step
	}
	return t
}

// Bulk is fast to about 80 %, then a long tail; in the cold it takes much longer.
func TestAcceptance(t *testing.T) {
	bulk, tail := hours(battery.AGM, 0.5, 0.8, 25), hours(battery.AGM, 0.8, 0.98, 25)
	assert.Less(t, bulk, 1.5)
	assert.Greater(t, tail, 2*bulk)
	assert.Greater(t, hours(battery.AGM, 0.5, 0.8, 0), 1.8*bulk)
	assert.Equal(t, 40.0, battery.AGM.Accepts(100, 0.5, 25, 14.4, 14.4))
	assert.Less(t, battery.AGM.Accepts(100, 0.5, 25, 13.2, 14.4), 20.0, "less voltage, less charge")
	assert.Zero(t, battery.AGM.Accepts(100, 0.5, 25, 12.2, 14.4), "none below its own voltage")
	assert.Equal(t, 50.0, battery.LiFePO4.Accepts(100, 0.9, 5, 14.2, 14.4))
	assert.Zero(t, battery.LiFePO4.Accepts(100, 0.5, -1, 14.2, 14.4), "not below 0 °C")
}

// Common practice (no source): a starter takes 300–800 A, and the battery falls to
// some 9 to 10.5 V.
func TestCranking(t *testing.T) {
	ohm := battery.Flooded.Ohm(80, 1)
	starter := battery.StarterOhm.Value(12.7, 400, ohm)
	amps := 12.7 / (starter + ohm)
	assert.InDelta(t, 400, amps, 1e-9)
	assert.True(t, amps*starter > 9 && amps*starter < 10.5, "%g V", amps*starter)
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
	require.EqualError(t, err, `"nicd" is not a chemistry; allowed are lifepo4, agm, gel, calcium, flooded, efb, sodium`)
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

// The figure that is shown and the one that a day steps with are one.
func TestResistanceIsItsFormula(t *testing.T) {
	for _, c := range battery.Chemistries {
		assert.InDelta(t, battery.Internal.Value(2, c.Ohm(1, 1)*1000, 80), c.Ohm(80, 2), 1e-12, c.ID)
	}
}

// Every chemistry is whole: a profile that rises, rest voltages that rise with charge, and a
// charge that its harm does not reach.
func TestEveryChemistryIsWhole(t *testing.T) {
	for _, c := range battery.Chemistries {
		p := c.Profile
		assert.True(t, p.AbsorptionLow <= p.AbsorptionHigh && p.AbsorptionHigh < p.HarmV && p.FloatHigh <= p.AbsorptionHigh, c.ID)
		assert.Greater(t, p.AbsorptionLow, c.RestV(1), "%s: what fills it stands above it at rest", c.ID)
		for soc := 0.0; soc < 1; soc += 0.05 {
			assert.Less(t, c.RestV(soc), c.RestV(soc+0.05), "%s at %.2f", c.ID, soc)
		}
		assert.True(t, c.OpensV < c.ClosesV && c.OpensV > c.RestV(0)-0.2, c.ID)
		assert.True(t, c.Stages.AbsorptionS > 0 && c.Stages.AgainV < p.AbsorptionLow && c.Setting.How != "", c.ID)
		assert.True(t, c.MayCharge(20) && (c.Lead || !c.MayCharge(-40)), c.ID)
	}
}

// From memory: sodium-ion is charged in frost, rests at about 12.6 V half full, and falls far
// below what lead does.
func TestSodiumIon(t *testing.T) {
	c := battery.SodiumIon
	assert.True(t, c.MayCharge(-19) && !c.MayCharge(-21))
	assert.InDelta(t, 12.6, c.RestV(0.5), 0.01)
	assert.Less(t, c.RestV(0.1), 11.0)
	assert.Zero(t, c.Accepts(100, 0.5, -25, 15, 15.6))
	assert.Equal(t, 50.0, c.Accepts(100, 0.5, -10, 15, 15.6))
}
