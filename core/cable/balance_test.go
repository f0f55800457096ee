package cable_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/cable"
)

var classes = []cable.Insulation{cable.Class70, cable.Class85, cable.Class105}

func bays() []cable.Bay {
	var all []cable.Bay
	for _, b := range []cable.Bay{cable.Cabin(), cable.Ambient(45), cable.EngineBay(), cable.Ambient(60)} {
		for _, l := range cable.Layings {
			all = append(all, b.Laid(l))
		}
	}
	return all
}

// Source: ISO 10133 / ISO 13297 columns at 30 °C and, with their factors, in engine
// spaces; ABYC E-11 table VI. The balance is from first principles, so the difference
// is what the tables' makers rounded and what lies against a wall: −7 to +17 % at
// 30 °C, −11 to +14 % at 50 °C.
func TestBalanceMeetsTheColumns(t *testing.T) {
	near := func(n cable.Insulation, s cable.Size) {
		table, _ := n.FreeAir(s)
		for _, b := range []cable.Bay{cable.Cabin(), cable.EngineBay()} {
			got := n.Thermal(s, b).Amps(n.LimitC)
			assert.InEpsilon(t, table*b.Factor(n), got, 0.20, "%s %s %s", s.Label, n.Label, b.Label)
		}
	}
	for _, n := range classes {
		for _, area := range []float64{1, 1.5, 2.5, 4, 6, 10, 16, 25, 35, 50, 70, 95, 120} {
			near(n, cable.Square(area))
		}
	}
	for _, gauge := range []int{16, 14, 12, 10, 8, 6, 4, 2, 1, 0, -1, -2, -3} {
		near(cable.Class105, cable.Gauge(gauge))
	}
}

// Where the table applies no cable carries more than it says, and in free air just
// that; with more heat or company it never carries more.
func TestCarriesNeverMoreThanTheTable(t *testing.T) {
	for _, n := range classes {
		for _, s := range cable.Shelf(cable.Metric) {
			free, _ := n.FreeAir(s)
			assert.InDelta(t, free, n.Carries(s, cable.Cabin()).Amps, 1e-9)
			assert.InDelta(t, free*cable.EngineBay().Factor(n), n.Carries(s, cable.EngineBay()).Amps, 1e-9)
			for _, l := range cable.Layings {
				last := math.Inf(1)
				for c := 20.0; c <= 110; c += 2.5 {
					got := n.Carries(s, cable.Ambient(c).Laid(l))
					assert.LessOrEqual(t, got.Amps, last+1e-9, "%s at %g °C", s.Label, c)
					assert.LessOrEqual(t, got.Amps, n.Carries(s, cable.Ambient(c)).Amps+1e-9)
					if c > cable.EngineC {
						assert.LessOrEqual(t, got.Amps, got.BalanceA+1e-9)
					}
					last = got.Amps
				}
			}
		}
	}
}

// 85 °C cable at 80 °C carries about 0.3 of its figure.
func TestHotBay(t *testing.T) {
	got := cable.Class85.Carries(cable.Square(16), cable.Ambient(80))
	assert.True(t, got.Balance)
	assert.InDelta(t, 0.30, got.Amps/100, 0.02)
	assert.Zero(t, cable.Class85.Carries(cable.Square(16), cable.Ambient(90)).Amps)
}

// Source: IEC 60364-5-52 table B.52.17: 0.80 for two, 0.57 for six that touch;
// IEC 60364-5-52 gives cable in conduit 0.75 to 0.9 of the same in air.
func TestCompanyAndConduit(t *testing.T) {
	for _, area := range []float64{2.5, 16, 50} {
		s := cable.Square(area)
		alone := cable.Class85.Thermal(s, cable.Cabin()).Amps(85)
		share := func(l cable.Laying) float64 {
			return cable.Class85.Thermal(s, cable.Cabin().Laid(l)).Amps(85) / alone
		}
		assert.InEpsilon(t, 0.80, share(cable.Pair), 0.15)
		assert.InEpsilon(t, 0.57, share(cable.Loom), 0.20)
		assert.True(t, share(cable.Conduit) > 0.70 && share(cable.Conduit) < 0.95, "%g", share(cable.Conduit))
		assert.Less(t, share(cable.PairConduit), share(cable.Pair))
	}
	assert.Equal(t, 0.50, cable.Grouping(40))
}

func TestConductorTemperature(t *testing.T) {
	for _, b := range bays() {
		still := cable.Class85.Thermal(cable.Square(16), b)
		c, err := still.SteadyC(0)
		require.NoError(t, err)
		assert.InDelta(t, b.AmbientC, c, 0.01, "without current it is at ambient")
		c, err = still.SteadyC(still.Amps(85))
		require.NoError(t, err)
		assert.InDelta(t, 85, c, 0.3, "at its current it is at its limit: %s, %s", b.Label, b.Laying.Label)
		last := b.AmbientC
		for amps := 5.0; amps < 100; amps += 5 {
			c, err := still.SteadyC(amps)
			require.NoError(t, err)
			assert.Greater(t, c, last, "temperature rises with current")
			last = c
		}
		_, err = still.SteadyC(10000)
		require.ErrorIs(t, err, cable.ErrRunaway)
	}
}

// Two in parallel share the current and halve the resistance, and crowd each other.
func TestParallel(t *testing.T) {
	one, two := cable.Square(16), cable.Square(16).Parallel(2)
	assert.InDelta(t, one.OhmPerM()/2, two.OhmPerM(), 1e-12)
	assert.Equal(t, 32.0, two.CopperMM2())
	assert.InDelta(t, 2*100*0.80, cable.Class85.Carries(two, cable.Cabin()).Amps, 1e-9)
	a, _ := cable.Class85.Thermal(one, cable.Cabin().Laid(cable.Pair)).SteadyC(60)
	b, _ := cable.Class85.Thermal(two, cable.Cabin()).SteadyC(120)
	assert.InDelta(t, a, b, 1e-9)
	// A fault may lie in one of them.
	assert.InDelta(t, cable.Class85.Faulted(one, cable.Cabin(), 60).Bears(900), cable.Class85.Faulted(two, cable.Cabin(), 60).Bears(900), 1e-9)
}

// step integrates the same balance by small steps, with what is given off at each
// temperature: an independent way to the time.
func step(th cable.Thermal, amps, fromC, toC, heat float64) float64 {
	c, seconds := fromC, 0.0
	for c < toC {
		net := amps*amps*th.OhmPerM*(1+cable.Alpha*(c-20)) - th.Gives(c)*(c-th.AmbientC)
		if net <= 0 {
			return math.Inf(1)
		}
		dt := math.Min(0.5, 0.05*heat/net)
		c += net / heat * dt
		seconds += dt
	}
	return seconds
}

// Closed form against small steps: within 6 %.
func TestTimeToReachATemperature(t *testing.T) {
	th := cable.Class85.Thermal(cable.Square(16), cable.Cabin())
	const heat = 3.45e-3*16000 + 1.7e-3*1000*math.Pi/4*(7.827*7.827-5.827*5.827) // copper and 1 mm of wall round it
	for _, amps := range []float64{130, 180, 300, 600} {
		assert.InEpsilon(t, step(th, amps, 30, 85, heat), th.Reaches(amps, 30, 85), 0.06, "%g A", amps)
	}
	assert.True(t, math.IsInf(th.Reaches(60, 30, 85), 1), "60 A never brings it to 85 °C")
	assert.Zero(t, th.Reaches(60, 90, 85))
}

// With no time to give off heat it is the adiabatic limit; with more time it bears
// longer; more current is never borne longer.
func TestBears(t *testing.T) {
	for _, n := range classes {
		for _, s := range []cable.Size{cable.Square(1.5), cable.Square(16), cable.Gauge(2), cable.Square(95)} {
			f := n.Faulted(s, cable.EngineBay(), 60)
			last := math.Inf(1)
			for amps := 5.0; amps < 20000; amps *= 1.05 {
				got := f.Bears(amps)
				assert.False(t, math.IsNaN(got))
				assert.LessOrEqual(t, got, last, "%s %s at %.0f A", s.Label, n.Label, amps)
				if short := cable.Adiabatic(amps, s.AreaMM2, 60); short <= 5 {
					assert.Equal(t, short, got)
				}
				last = got
			}
			carries := n.Thermal(s, cable.EngineBay()).Amps(n.LimitC)
			assert.True(t, math.IsInf(f.Bears(0.98*carries), 1), "within its class for ever")
			// Source: ISO 6722: 25 K over for 240 h, 50 K over for 6 h.
			assert.Equal(t, 240*3600.0, f.Bears(1.05*carries))
		}
	}
}

// Physics: without giving off heat, the class 5 conductor's time is the adiabatic
// one times the ratio of ideal to class 5 resistance.
func TestAdiabaticIsTheBalanceWithoutLoss(t *testing.T) {
	th := cable.Class85.Thermal(cable.Square(16), cable.Cabin())
	const heat = 3.45e-3 * 16000
	joule := 2000.0 * 2000 * th.OhmPerM
	seconds := heat / (joule * cable.Alpha) * math.Log((1+cable.Alpha*(160-20))/(1+cable.Alpha*(60-20)))
	ideal := 0.017241 / 16 / th.OhmPerM
	assert.InEpsilon(t, cable.Adiabatic(2000, 16, 60)*ideal, seconds, 0.01)
}

func BenchmarkTry(b *testing.B) {
	loop := cable.Loop{Amps: 60, CableM: 8, Bay: cable.EngineBay(), Insulation: cable.Class85}
	for b.Loop() {
		loop.Try(cable.Square(16))
	}
}
