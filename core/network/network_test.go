package network_test

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/network"
	"epitrope/internal/networktest"
)

func solve(t testing.TB, c *network.Circuit) networktest.Read {
	t.Helper()
	s, err := network.Solve(c)
	require.NoError(t, err)
	return networktest.Read{T: t, Solution: s}
}

// converts is what a converter does in a solution.
func converts(t testing.TB, s networktest.Read, name string) network.Converting {
	t.Helper()
	got, err := s.Converting(name)
	require.NoError(t, err)
	return got
}

// line is a source, a resistance and what hangs at its end.
func line(volts, ohm float64, end func(c *network.Circuit, n network.Node)) *network.Circuit {
	c := network.New()
	c.Add(network.Battery{Name: "source", Plus: c.Node("a"), Volts: volts, Ohm: 1e-6},
		network.Resistance{Name: "line", A: c.Node("a"), B: c.Node("b"), Ohm: ohm})
	end(c, c.Node("b"))
	return c
}

// Truth 1: 46 mΩ from 14.2 V carry at most about 1,100 W; below that the stable
// solution is the closed form's upper one.
func TestConstantPowerOnALongThinCable(t *testing.T) {
	for _, watts := range []float64{0, 100, 700, 1000, 1090} {
		s := solve(t, line(14.2, 0.046, func(c *network.Circuit, n network.Node) {
			c.Add(network.PowerLoad{Name: "charger", A: n, Watts: watts})
		}))
		ohm := 0.046 + 1e-6
		want := (14.2 + math.Sqrt(14.2*14.2-4*ohm*watts)) / 2
		assert.InDelta(t, want, s.At("b"), 1e-6, "%g W", watts)
	}
	_, err := network.Solve(line(14.2, 0.046, func(c *network.Circuit, n network.Node) {
		c.Add(network.PowerLoad{Name: "charger", A: n, Watts: 1262})
	}))
	var named *network.Error
	require.ErrorAs(t, err, &named)
	assert.Equal(t, "charger", named.Element)
	assert.Contains(t, err.Error(), "asks 1262 W and its line can give at most 1096 W")
}

// Truth 1: 2 AWG, 14 mΩ with joints, gives about 12.8 V at 99 A.
func TestThickTrailerLine(t *testing.T) {
	s := solve(t, line(14.2, 0.014, func(c *network.Circuit, n network.Node) {
		c.Add(network.PowerLoad{Name: "charger", A: n, Watts: 80 * 14.2 / 0.90})
	}))
	assert.InDelta(t, 12.8, s.At("b"), 0.05)
	assert.InDelta(t, 99, (14.2-s.At("b"))/0.014, 0.7)
}

func charger(c *network.Circuit, in network.Node) network.Converter {
	return network.Converter{Name: "charger", InPlus: in, OutPlus: c.Node("out"), OutV: 14.4, MaxOutA: 40, Efficiency: 0.9}
}

func TestConverterInBulkAndAtItsVoltage(t *testing.T) {
	// In bulk: its full current into a battery that is low.
	var conv network.Converter
	c := line(14, 0.005, func(c *network.Circuit, n network.Node) {
		conv = charger(c, n)
		c.Add(conv, network.Battery{Name: "aux", Plus: c.Node("out"), Volts: 13.2, Ohm: 0.004})
	})
	s := solve(t, c)
	in, out := converts(t, s, conv.Name).InA, converts(t, s, conv.Name).OutA
	assert.InDelta(t, 40, out, 1e-3)
	assert.InDelta(t, 13.2+40*0.004, s.At("out"), 1e-4)
	assert.InDelta(t, out*s.At("out")/0.9, in*s.At("b"), 1e-3, "power in is power out over efficiency")
	// At its voltage: less current into a battery that is nearly full.
	c = line(14, 0.005, func(c *network.Circuit, n network.Node) {
		conv = charger(c, n)
		c.Add(conv, network.Battery{Name: "aux", Plus: c.Node("out"), Volts: 14.36, Ohm: 0.004})
	})
	s = solve(t, c)
	out = converts(t, s, conv.Name).OutA
	assert.InDelta(t, 0.04/0.0041, out, 0.01)
}

func TestConverterAtItsInputLimit(t *testing.T) {
	var conv network.Converter
	c := line(13, 0.005, func(c *network.Circuit, n network.Node) {
		conv = charger(c, n)
		conv.MaxInA = 30
		c.Add(conv, network.Battery{Name: "aux", Plus: c.Node("out"), Volts: 13.2, Ohm: 0.004})
	})
	s := solve(t, c)
	in, out := converts(t, s, conv.Name).InA, converts(t, s, conv.Name).OutA
	assert.True(t, converts(t, s, "charger").Limited)
	assert.InDelta(t, 30, in, 1e-9)
	assert.InDelta(t, 30*s.At("b")*0.9, out*s.At("out"), 1e-6)
	assert.Less(t, out, 40.0)
}

// A battery that takes next to nothing leaves a converter its load alone: it holds its
// voltage and is not taken for one that cannot be fed.
func TestConverterWithABatteryThatTakesNothing(t *testing.T) {
	for _, takesOhm := range []float64{1, 1e3, 1.2e6} {
		c := network.New()
		in, out := c.Node("in"), c.Node("out")
		converter := network.Converter{Name: "charger", InPlus: in, OutPlus: out, OutV: 14.2, MaxOutA: 40, Efficiency: 0.9, CutOutV: 11.8}
		c.Add(network.Battery{Name: "start", Plus: c.Node("bus"), Volts: 12.9, Ohm: 0.006},
			network.Resistance{Name: "line", A: c.Node("bus"), B: in, Ohm: 0.02}, converter,
			network.Battery{Name: "aux", Plus: out, Volts: 13.15, Ohm: 0.003, ChargeOhm: takesOhm},
			network.CurrentLoad{Name: "house", A: out, Amps: 2})
		s := solve(t, c)
		require.Equal(t, network.Runs, converts(t, s, "charger").Status, "%g Ω", takesOhm)
		assert.InDelta(t, 14.2, s.At("out"), 1e-3, "%g Ω", takesOhm)
		given := converts(t, s, converter.Name).OutA
		assert.InDelta(t, 2+(14.2-13.15)/takesOhm, given, 0.01, "%g Ω", takesOhm)
	}
}

func TestAlternatorInCurrentLimit(t *testing.T) {
	alternator := network.Alternator{Name: "alternator", Volts: 14.2, MaxA: 50}
	start := network.Battery{Name: "start", Volts: 12.7, Ohm: 0.0075, ChargeOhm: 1}
	for amps, want := range map[float64]float64{20: 14.2, 80: 12.7 - 30*0.0075} {
		c := network.New()
		alternator.Plus, start.Plus = c.Node("bus"), c.Node("bus")
		c.Add(alternator, start, network.CurrentLoad{Name: "load", A: c.Node("bus"), Amps: amps})
		s := solve(t, c)
		assert.InDelta(t, want, s.At("bus"), 0.015, "%g A", amps)
		assert.InDelta(t, amps, alternator.Current(s.Volts)+start.Current(s.Volts), 1e-6)
	}
}

// A relay that joins two batteries: the inrush is the difference over the loop.
func TestJoiningTwoBatteries(t *testing.T) {
	c := network.New()
	relay := network.Resistance{Name: "relay", A: c.Node("a"), B: c.Node("b"), Ohm: 0.010}
	c.Add(network.Battery{Name: "start", Plus: c.Node("a"), Volts: 12.7, Ohm: 0.0075}, relay,
		network.Battery{Name: "aux", Plus: c.Node("b"), Volts: 11.8, Ohm: 0.004})
	assert.InDelta(t, 0.9/0.0215, relay.Current(solve(t, c).Volts), 1e-6)
}

func TestBatteryAcceptsNoMoreThanItTakes(t *testing.T) {
	aux := network.Battery{Name: "aux", Volts: 12.2, Ohm: 0.004, MaxChargeA: 25}
	c := line(14.4, 0.010, func(_ *network.Circuit, n network.Node) { aux.Plus = n })
	c.Add(aux)
	s := solve(t, c)
	assert.InDelta(t, -25, aux.Current(s.Volts), 1e-6)
	assert.InDelta(t, 14.4-25*0.010, s.At("b"), 1e-4)
}

func TestDiodePassesOneWay(t *testing.T) {
	for volts, want := range map[float64]float64{13: 0.0, 14.5: (14.5 - 0.5 - 13.5) / 0.021} {
		c := network.New()
		aux := network.Battery{Name: "aux", Plus: c.Node("b"), Volts: 13.5, Ohm: 0.01}
		c.Add(network.Battery{Name: "start", Plus: c.Node("a"), Volts: volts, Ohm: 0.01},
			network.Diode{Name: "diode", A: c.Node("a"), K: c.Node("b"), ForwardV: 0.5, Ohm: 0.001}, aux)
		assert.InDelta(t, want, -aux.Current(solve(t, c).Volts), 1e-5, "%g V", volts)
	}
}

// A dead short: the current is the source's voltage over all that is in series.
func TestShort(t *testing.T) {
	short := network.Resistance{Name: "short", Ohm: 1e-6}
	c := line(12.7, 0.010, func(_ *network.Circuit, n network.Node) { short.A = n })
	c.Add(short)
	assert.InDelta(t, 12.7/0.010002, short.Current(solve(t, c).Volts), 1e-3)
}

func TestWhatMakesNoSenseIsNamed(t *testing.T) {
	c := network.New()
	c.Add(network.Battery{Name: "start", Plus: c.Node("a"), Volts: 12, Ohm: 0.01},
		network.Resistance{Name: "loose", A: c.Node("x"), B: c.Node("y"), Ohm: 1})
	_, err := network.Solve(c)
	require.EqualError(t, err, "loose: floats: node x has no way to ground")
	for why, e := range map[string]network.Element{
		"Ohm 0 must be from 1e-09 to 1e+12":           network.Resistance{Name: "bad", Ohm: 0},
		"Ohm NaN must be":                             network.Resistance{Name: "bad", Ohm: math.NaN()},
		"Ohm +Inf must be":                            network.Resistance{Name: "bad", Ohm: math.Inf(1)},
		"Ohm -1 must be":                              network.Diode{Name: "bad", Ohm: -1},
		"Volts NaN must be":                           network.Battery{Name: "bad", Volts: math.NaN(), Ohm: 1},
		"ChargeOhm -1 must be":                        network.Battery{Name: "bad", Volts: 12, Ohm: 1, ChargeOhm: -1},
		"MaxChargeA -20 must be":                      network.Battery{Name: "bad", Volts: 12, Ohm: 1, MaxChargeA: -20},
		"MaxA +Inf must be":                           network.Alternator{Name: "bad", MaxA: math.Inf(1)},
		"MaxA -5 must be":                             network.Alternator{Name: "bad", MaxA: -5},
		"Efficiency 0 must be from 0.01 to 1":         network.Converter{Name: "bad", OutV: 14, MaxOutA: 1},
		"Efficiency 90 must be from 0.01 to 1":        network.Converter{Name: "bad", OutV: 14, MaxOutA: 1, Efficiency: 90},
		"MaxInA -30 must be":                          network.Converter{Name: "bad", OutV: 14, MaxOutA: 1, Efficiency: 0.9, MaxInA: -30},
		"CutOutV -1 must be":                          network.Converter{Name: "bad", OutV: 14, MaxOutA: 1, Efficiency: 0.9, CutOutV: -1},
		"Amps NaN must be":                            network.CurrentLoad{Name: "bad", Amps: math.NaN()},
		"Amps -3 must be":                             network.CurrentLoad{Name: "bad", Amps: -3},
		"Watts +Inf must be":                          network.PowerLoad{Name: "bad", Watts: math.Inf(1)},
		"Volts 1e+07 must be":                         network.Source{Name: "bad", Volts: 1e7},
		"joins a node that the circuit does not have": network.Resistance{Name: "bad", Ohm: 1, A: 7},
	} {
		c := network.New()
		c.Add(e)
		_, err := network.Solve(c)
		var named *network.Error
		require.ErrorAs(t, err, &named, "%+v", e)
		assert.Equal(t, "bad", named.Element)
		assert.Contains(t, named.Why, why)
	}
	twice := network.New()
	r := network.Resistance{Name: "r", A: twice.Node("a"), Ohm: 1}
	twice.Add(r, r)
	_, err = network.Solve(twice)
	require.ErrorContains(t, err, "once each")
}

// A machine that senses at the battery holds the voltage there: its own is higher by
// what its lead loses, until it is at its limit.
func TestAlternatorSensesAtTheBattery(t *testing.T) {
	c := network.New()
	c.Add(network.Alternator{Name: "alternator", Plus: c.Node("B+"), Sense: c.Node("start"), Volts: 14.2, MaxA: 100},
		network.Resistance{Name: "lead", A: c.Node("B+"), B: c.Node("start"), Ohm: 0.002},
		network.CurrentLoad{Name: "load", A: c.Node("start"), Amps: 60})
	s := solve(t, c)
	assert.InDelta(t, 14.2, s.At("start"), 0.01)
	assert.InDelta(t, 14.32, s.At("B+"), 0.01)
}

// More copper never lowers the far voltage.
func TestMoreCopperNeverHurts(t *testing.T) {
	last := 0.0
	for _, ohm := range []float64{0.03, 0.02, 0.012, 0.008, 0.005, 0.002} {
		s := solve(t, line(14, ohm, func(c *network.Circuit, n network.Node) { c.Add(network.PowerLoad{Name: "load", A: n, Watts: 500}) }))
		assert.Greater(t, s.At("b"), last)
		last = s.At("b")
	}
}

// forty is a circuit of 40 nodes: two runs with loads, a charger and a trailer.
func forty() *network.Circuit {
	c := network.New()
	at := func(i int) network.Node { return c.Node(fmt.Sprintf("n%d", i)) }
	c.Add(network.Alternator{Name: "alternator", Plus: at(1), Volts: 14.2, MaxA: 120},
		network.Battery{Name: "start", Plus: at(1), Volts: 12.7, Ohm: 0.007, ChargeOhm: 1})
	for i := 2; i <= 39; i++ {
		c.Add(network.Resistance{Name: fmt.Sprintf("cable%d", i), A: at(i - 1), B: at(i), Ohm: 0.001})
		if i%4 == 0 {
			c.Add(network.CurrentLoad{Name: fmt.Sprintf("load%d", i), A: at(i), Amps: 0.5})
		}
	}
	c.Add(network.Converter{Name: "charger", InPlus: at(20), OutPlus: at(40), OutV: 14.4, MaxOutA: 30, Efficiency: 0.9},
		network.Battery{Name: "aux", Plus: at(40), Volts: 13.2, Ohm: 0.003})
	return c
}

func BenchmarkSolveForty(b *testing.B) {
	s, err := network.NewSolver(forty())
	require.NoError(b, err)
	b.ReportAllocs()
	for b.Loop() {
		if err := s.Solve(); err != nil {
			b.Fatal(err)
		}
	}
}

// A solution when values have moved, as from step to step of a day.
func BenchmarkSolveFortyChanging(b *testing.B) {
	s, err := network.NewSolver(forty())
	require.NoError(b, err)
	aux, i := s.Battery("aux"), 0
	b.ReportAllocs()
	for b.Loop() {
		i++
		aux.Volts = 13.2 + 0.001*float64(i%100)
		if err := s.Solve(); err != nil {
			b.Fatal(err)
		}
	}
}

// And from nothing.
func BenchmarkSolveFortyFresh(b *testing.B) {
	c := forty()
	for b.Loop() {
		if _, err := network.Solve(c); err != nil {
			b.Fatal(err)
		}
	}
}

// The loop that runs a day does not allocate.
func TestSolvingAgainDoesNotAllocate(t *testing.T) {
	s, err := network.NewSolver(forty())
	require.NoError(t, err)
	aux, cable := s.Battery("aux"), s.Wire("cable7")
	assert.Zero(t, testing.AllocsPerRun(20, func() {
		aux.Volts += 0.001
		cable.Set(cable.Ohm() * 1.001)
		_ = s.Solve()
		_ = s.Heat()
	}))
}
