package cable_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/cable"
)

// Source: ASTM B258, areas as given in the trade's tables.
func TestGaugeAreas(t *testing.T) {
	for gauge, want := range map[int]float64{8: 8.37, 6: 13.3, 4: 21.2, 2: 33.6, 0: 53.5, -1: 67.4, -3: 107} {
		assert.InEpsilon(t, want, cable.GaugeArea(gauge), 0.003, "%d AWG", gauge)
	}
}

func TestParseTakesEveryName(t *testing.T) {
	cases := []struct {
		text, label string
		area        float64
	}{
		{"16 mm²", "16 mm²", 16}, {"16mm2", "16 mm²", 16}, {" 2,5 MM2 ", "2.5 mm²", 2.5}, {"35 sqmm", "35 mm²", 35},
		{"6 AWG", "6 AWG", 13.30}, {"8 b&s", "8 AWG", 8.37}, {"AWG 4", "4 AWG", 21.15}, {"2/0 AWG", "2/0 AWG", 67.4}, {"00 awg", "2/0 AWG", 67.4},
		{"2x16mm2", "2 × 16 mm²", 16}, {"3 × 6 awg", "3 × 6 AWG", 13.30},
		{"6 mm auto", "6 mm auto", 4.6}, {"8mm auto cable", "8 mm auto", 8},
	}
	for _, c := range cases {
		got, err := cable.Parse(c.text)
		require.NoError(t, err, c.text)
		assert.Equal(t, c.label, got.Label, c.text)
		assert.InEpsilon(t, c.area, got.AreaMM2, 0.003, c.text)
	}
	six, _ := cable.Parse("6 mm auto")
	assert.Equal(t, "6 mm auto (4.6 mm² copper)", six.Copper())
}

// "8 mm" may be 8 mm² or 8 mm outside: luck is not a reading.
func TestParseRefusesWhatIsAmbiguous(t *testing.T) {
	_, err := cable.Parse("6 mm")
	require.ErrorContains(t, err, `"6 mm²" or "6 mm auto" (about 4.6 mm² of copper)`)
	for _, text := range []string{"", "16", "300 mm²", "0 mm²", "25 AWG", "7 mm auto", "five", "16 mm² x", "-16 mm2", "5/0 AWG", "1 x 16 mm²",
		"5 x 16 mm²", "2 x 2 x 4 mm²", "2 x 8 mm"} {
		_, err := cable.Parse(text)
		var named *cable.NameError
		require.ErrorAs(t, err, &named, text)
	}
}

// Reading "6 mm" auto as 6 mm² is 23 % less copper and 30 % more drop.
func TestSixMillimetreAutoTrap(t *testing.T) {
	auto, _ := cable.Parse("6 mm auto")
	assert.InDelta(t, 0.23, 1-auto.AreaMM2/6, 0.005)
	assert.InDelta(t, 1.30, 6/auto.AreaMM2, 0.01)
}

// Source: IEC 60228 class 5, Ω/km at 20 °C.
func TestClass5Resistances(t *testing.T) {
	table := map[float64]float64{1.5: 13.3, 2.5: 7.98, 4: 4.95, 6: 3.30, 10: 1.91, 16: 1.21, 25: 0.780, 35: 0.554,
		50: 0.386, 70: 0.272, 95: 0.206, 120: 0.161}
	for area, want := range table {
		assert.InDelta(t, want, cable.OhmPerM(area)*1000, 1e-9, "%g mm²", area)
	}
	// Between sizes it stays above ideal copper and falls with area.
	last := math.Inf(1)
	for area := cable.MinAreaMM2; area <= cable.MaxAreaMM2; area *= 1.05 {
		r := cable.OhmPerM(area)
		assert.Greater(t, r, 1/(cable.Kappa*area))
		assert.Less(t, r, last)
		last = r
	}
}

// Resistance rises about 20 % from 20 to 70 °C.
func TestResistanceRisesWithHeat(t *testing.T) {
	cold := cable.Resistance.Value(cable.OhmPerM(16), 10, cable.Alpha, 20)
	hot := cable.Resistance.Value(cable.OhmPerM(16), 10, cable.Alpha, 70)
	assert.InDelta(t, 1.20, hot/cold, 0.005)
}

// Common practice (no source): area = A × loop / 12.4 at 2 % of 10.7 V.
func TestTradeRule(t *testing.T) {
	assert.InDelta(t, 4.45, cable.RuleArea.Value(4.6, 12, cable.Kappa, 0.02*10.7), 0.005)
	assert.InDelta(t, 3.87, cable.RuleArea.Value(4.0, 12, cable.Kappa, 0.02*10.7), 0.005)
	// 36 A over 0.3 m by the drop rule is 1.7 mm².
	assert.InDelta(t, 1.7, cable.RuleArea.Value(0.6, 36, cable.Kappa, 0.02*10.7), 0.05)
}

// Source: ISO 10133 / ISO 13297 columns; ABYC E-11 table VI.
func TestAmpacityColumns(t *testing.T) {
	columns := map[float64]map[float64]float64{
		70:  {1: 14, 1.5: 18, 2.5: 25, 4: 35, 6: 45, 10: 65, 16: 90, 25: 120, 35: 160, 50: 210, 70: 265, 95: 310, 120: 360},
		85:  {1: 18, 1.5: 21, 2.5: 30, 4: 40, 6: 50, 10: 70, 16: 100, 25: 140, 35: 185, 50: 230, 70: 285, 95: 330, 120: 400},
		105: {1: 20, 1.5: 25, 2.5: 35, 4: 45, 6: 60, 10: 90, 16: 130, 25: 170, 35: 210, 50: 270, 70: 330, 95: 390, 120: 450},
	}
	for limit, column := range columns {
		n, err := cable.InsulationFor(limit)
		require.NoError(t, err)
		for area, want := range column {
			got, _ := n.FreeAir(cable.Square(area))
			assert.InDelta(t, want, got, 1e-9, "%g mm² at %g °C", area, limit)
		}
	}
	for gauge, want := range map[int]float64{16: 25, 14: 35, 12: 45, 10: 60, 8: 80, 6: 120, 4: 160, 2: 210, 1: 245, 0: 285, -1: 330, -2: 385,
		-3: 445} {
		got, source := cable.Class105.FreeAir(cable.Gauge(gauge))
		assert.Equal(t, want, got)
		assert.Contains(t, source, "ABYC")
	}
	got, source := cable.Class85.FreeAir(cable.Gauge(6))
	assert.True(t, got > 70 && got < 100, "6 AWG lies between 10 and 16 mm²: %g", got)
	assert.Contains(t, source, "interpolated")
}

func TestInsulationFor(t *testing.T) {
	for limit, want := range map[float64]float64{70: 70, 84: 70, 90: 85, 105: 105, 125: 105} {
		n, err := cable.InsulationFor(limit)
		require.NoError(t, err)
		assert.Equal(t, want, n.LimitC)
	}
	_, err := cable.InsulationFor(60)
	require.ErrorContains(t, err, "allowed are 70, 85 and 105 °C")
}

// ISO 10133: 0.75, 0.82, 0.86 in engine spaces; in an engine bay 85 °C
// insulation of 16 mm² bears 82 A; 85 °C cable at 80 °C carries about 0.3.
func TestPlaceDerates(t *testing.T) {
	assert.Equal(t, 0.75, cable.EngineBay().Factor(cable.Class70))
	assert.Equal(t, 0.86, cable.EngineBay().Factor(cable.Class105))
	free, _ := cable.Class85.FreeAir(cable.Square(16))
	assert.InDelta(t, 82, cable.Ampacity.Value(1, free, cable.EngineBay().Factor(cable.Class85), 1), 1e-9)
	assert.InDelta(t, 0.30, cable.Ambient(80).Factor(cable.Class85), 0.005)
	assert.Zero(t, cable.Ambient(90).Factor(cable.Class85))
	assert.Equal(t, 1.0, cable.Ambient(-20).Factor(cable.Class85))
	// The factors stand for about 50 °C: the formula there is close to them.
	for _, n := range []cable.Insulation{cable.Class70, cable.Class85, cable.Class105} {
		assert.InDelta(t, cable.EngineBay().Factor(n), cable.Ambient(50).Factor(n), 0.05)
	}
}

// Source: IEC 60949 / IEC 60364-4-43: k = 115 for 70 to 160 °C, 143 for 90 to 250 °C, 88 from 105 to 160 °C.
func TestShortCircuitConstant(t *testing.T) {
	assert.InDelta(t, 115, cable.ShortK(70, 160), 0.5)
	assert.InDelta(t, 143, cable.ShortK(90, 250), 0.5)
	assert.InDelta(t, 88, cable.ShortK(105, 160), 1)
	assert.Zero(t, cable.ShortK(160, 160))
	assert.InDelta(t, 16*16*115*115/1e6, cable.Adiabatic(1000, 16, 70), 0.02)
}

func anyFuse(cable.Trial) bool { return true }

// Common practice (no source): the pump of the trade's example.
func TestChoosePump(t *testing.T) {
	loop := cable.Loop{Amps: 12, CableM: 4.6, Bay: cable.Cabin(), Insulation: cable.Class85}
	got, by, err := loop.Choose(cable.Shelf(cable.Metric), 0.02*10.7, anyFuse)
	require.NoError(t, err)
	assert.Equal(t, "6 mm²", got.Size.Label)
	assert.Equal(t, cable.ByDrop, by)
	loop.CableM = 4.0 // the rule says 4 mm²; warm class 5 copper says 6
	got, _, err = loop.Choose(cable.Shelf(cable.Metric), 0.02*10.7, anyFuse)
	require.NoError(t, err)
	assert.Equal(t, "6 mm²", got.Size.Label)
}

// Drop alone approves cable that burns: 36 A over 0.3 m.
func TestDropAloneBurns(t *testing.T) {
	loop := cable.Loop{Amps: 36, CableM: 0.6, Bay: cable.Cabin(), Insulation: cable.Class85}
	got, by, err := loop.Choose(cable.Shelf(cable.Metric), 0.02*10.7, anyFuse)
	require.NoError(t, err)
	assert.Equal(t, cable.ByAmpacity, by)
	assert.Equal(t, "4 mm²", got.Size.Label)
}

func TestChooseSaysWhichTestFoundNoCable(t *testing.T) {
	loop := cable.Loop{Amps: 10000, CableM: 4, Bay: cable.Cabin(), Insulation: cable.Class85}
	_, _, err := loop.Choose(cable.Shelf(cable.Metric), 0.24, anyFuse)
	var none *cable.NoSize
	require.ErrorAs(t, err, &none)
	assert.Equal(t, "no cable up to 120 mm² passes the ampacity test at 10000 A", err.Error())
}

// More copper never loses more.
func TestMoreCopperLosesLess(t *testing.T) {
	for _, system := range []cable.System{cable.Metric, cable.AWG, cable.Auto} {
		last := math.Inf(1)
		for _, s := range cable.Shelf(system) {
			trial := cable.Loop{Amps: 15, CableM: 6, Bay: cable.EngineBay(), Insulation: cable.Class105}.Try(s)
			assert.Less(t, trial.DropV, last, s.Label)
			last = trial.DropV
		}
	}
}

func FuzzName(f *testing.F) {
	for _, s := range []string{"16 mm²", "6 AWG", "2/0 AWG", "6 mm auto", "8 mm", "awg 4", "000 awg"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, text string) {
		s, err := cable.Parse(text)
		if err != nil {
			return
		}
		assert.True(t, s.AreaMM2 >= cable.MinAreaMM2 && s.AreaMM2 <= cable.MaxAreaMM2, "%q is %g mm²", text, s.AreaMM2)
		again, err := cable.Parse(s.Label)
		require.NoError(t, err, "a label reads back: %q", s.Label)
		assert.Equal(t, s, again)
	})
}

// Trade: 10 m one way of 8 AWG, out and back, have 41 mΩ of copper, and 2 AWG 10 mΩ; class 5 of the same area
// is some 12 % more.
func TestGaugeResists(t *testing.T) {
	assert.InDelta(t, 0.0415, 20*cable.Gauge(8).OhmPerM(), 0.0006)
	assert.InDelta(t, 0.0103, 20*cable.Gauge(2).OhmPerM(), 0.0003)
	assert.InDelta(t, 1.10, cable.OhmPerM(cable.GaugeArea(8))/cable.Gauge(8).OhmPerM(), 0.03)
	assert.InDelta(t, cable.Gauge(4).OhmPerM()/2, cable.Gauge(4).Parallel(2).OhmPerM(), 1e-12)
	assert.Contains(t, cable.Gauge(8).OhmSource(), "ASTM B258")
	assert.Contains(t, cable.Square(16).OhmSource(), "IEC 60228")
}
