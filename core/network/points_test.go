package network_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/network"
	"epitrope/internal/networktest"
)

// bench is a start battery, a line to a converter, and an aux battery behind it.
func bench(start network.Battery, lineOhm float64, charger network.Converter, aux network.Battery,
	more ...func(c *network.Circuit)) *network.Circuit {
	c := network.New()
	start.Name, start.Plus = "start", c.Node("bus")
	charger.Name, charger.InPlus, charger.OutPlus = "charger", c.Node("in"), c.Node("out")
	aux.Name, aux.Plus = "aux", c.Node("out")
	c.Add(start, network.Resistance{Name: "line", A: c.Node("bus"), B: c.Node("in"), Ohm: lineOhm}, charger, aux)
	for _, add := range more {
		add(c)
	}
	return c
}

func house(amps float64) func(c *network.Circuit) {
	return func(c *network.Circuit) {
		c.Add(network.CurrentLoad{Name: "house", A: c.Node("out"), Amps: amps})
	}
}

// A charger before a battery that takes only so much, with a house on it, holds its
// voltage: 20 A into the battery and 3 A into the house.
func TestChargerBeforeABatteryAtItsChargeLimit(t *testing.T) {
	s := solve(t, bench(network.Battery{Volts: 13, Ohm: 0.002}, 0.002, network.Converter{OutV: 14.4, MaxOutA: 30, Efficiency: 0.9},
		network.Battery{Volts: 13.2, Ohm: 0.004, MaxChargeA: 20}, house(3)))
	assert.InDelta(t, 14.4, s.At("out"), 0.003)
	assert.InDelta(t, 23, s.Through("charger"), 1e-3)
	assert.InDelta(t, -20, s.Through("aux"), 1e-3)
}

// Sun beside a charger on one output, at its limit or without sun.
func TestChargerBesidePanels(t *testing.T) {
	for sun, fromCharger := range map[float64]float64{10: 13, 0: 23} {
		s := solve(t, bench(network.Battery{Volts: 13, Ohm: 0.002}, 0.002, network.Converter{OutV: 14.3, MaxOutA: 30, Efficiency: 0.9},
			network.Battery{Volts: 13.2, Ohm: 0.004, MaxChargeA: 20}, house(3), func(c *network.Circuit) {
				c.Add(network.Alternator{Name: "sun", Plus: c.Node("out"), Volts: 14.4, MaxA: sun})
			}))
		assert.InDelta(t, sun, s.Through("sun"), 1e-3, "panels hold more, so they give all they have")
		assert.InDelta(t, fromCharger, s.Through("charger"), 1e-3)
		assert.InDelta(t, 14.3, s.At("out"), 0.003)
	}
}

// A converter that feeds another, with no battery between.
func TestConverterFeedsAConverter(t *testing.T) {
	c := network.New()
	c.Add(network.Battery{Name: "start", Plus: c.Node("bus"), Volts: 12.8, Ohm: 0.005},
		network.Converter{Name: "first", InPlus: c.Node("bus"), OutPlus: c.Node("mid"), OutV: 24, MaxOutA: 20, Efficiency: 0.9},
		network.Converter{Name: "second", InPlus: c.Node("mid"), OutPlus: c.Node("out"), OutV: 14.4, MaxOutA: 25, Efficiency: 0.95},
		network.Battery{Name: "aux", Plus: c.Node("out"), Volts: 13, Ohm: 0.01})
	s := solve(t, c)
	second := 25 * (13 + 25*0.01) / 0.95
	assert.InDelta(t, 24, s.At("mid"), 0.01)
	assert.InDelta(t, second, s.Through("first")*s.At("mid"), 0.1)
	assert.InDelta(t, second/0.9, converts(t, s, "first").InA*s.At("bus"), 0.1)
}

// Two regulated sources on one node: the one that holds more gives first.
func TestTwoRegulatedSourcesOnOneNode(t *testing.T) {
	c := network.New()
	bus := c.Node("bus")
	c.Add(network.Alternator{Name: "low", Plus: bus, Volts: 14.0, MaxA: 60},
		network.Alternator{Name: "high", Plus: bus, Volts: 14.4, MaxA: 50},
		network.CurrentLoad{Name: "load", A: bus, Amps: 80})
	s := solve(t, c)
	assert.InDelta(t, 50, s.Through("high"), 1e-3)
	assert.InDelta(t, 30, s.Through("low"), 1e-3)
	assert.InDelta(t, 14.0, s.At("bus"), 0.004)
}

// lowerPoint is a machine that two points suit: its regulation holding, at 12.06 V at the
// charger, or at its limit with the battery helping out, at 8.89 V. Switched on from rest,
// regulation holds.
func lowerPoint() *network.Circuit {
	c := network.New()
	bus := c.Node("bus")
	c.Add(network.Alternator{Name: "machine", Plus: c.Node("B+"), Sense: bus, Volts: 14.3, MaxA: 130},
		network.Resistance{Name: "lead", A: c.Node("B+"), B: bus, Ohm: 0.001},
		network.Battery{Name: "start", Plus: bus, Volts: 12.0, Ohm: 0.008, ChargeOhm: 0.25},
		network.CurrentLoad{Name: "vehicle", A: bus, Amps: 40},
		network.Resistance{Name: "line", A: bus, B: c.Node("in"), Ohm: 0.030},
		network.Converter{Name: "charger", InPlus: c.Node("in"), OutPlus: c.Node("out"), OutV: 14.4, MaxOutA: 60, Efficiency: 0.9},
		network.Battery{Name: "aux", Plus: c.Node("out"), Volts: 13.2, Ohm: 0.004})
	return c
}

func TestTheUpperOfTwoPoints(t *testing.T) {
	s := solve(t, lowerPoint())
	assert.InDelta(t, 14.29, s.At("bus"), 0.005)
	assert.InDelta(t, 12.06, s.At("in"), 0.005)
	// So it does with a cut-out that the lower point would be under.
	solver, err := network.NewSolver(lowerPoint())
	require.NoError(t, err)
	solver.Converter("charger").CutOutV = 11
	require.NoError(t, solver.Solve())
	assert.Equal(t, network.Runs, solver.Converting(solver.Converter("charger")).Status)
}

// What was solved before does not matter: after a jump the answer is that of a circuit that
// never was anything else.
func TestSolvedAgainAfterAJump(t *testing.T) {
	build := func(volts, amps float64) *network.Circuit {
		return bench(network.Battery{Volts: volts, Ohm: 0.001}, 0.049, network.Converter{OutV: 14.4, MaxOutA: amps, Efficiency: 0.9},
			network.Battery{Volts: 12.2, Ohm: 0.01})
	}
	solver, err := network.NewSolver(build(6.4, 0.5))
	require.NoError(t, err)
	start, charger, in := solver.Battery("start"), solver.Converter("charger"), solver.Point("in")
	for _, at := range []struct{ volts, amps float64 }{{6.4, 0.5}, {14.6, 50}, {6.4, 0.5}, {14.6, 50}, {12, 20}, {14.6, 50}} {
		start.Volts, charger.MaxOutA = at.volts, at.amps
		require.NoError(t, solver.Solve())
		assert.InDelta(t, solve(t, build(at.volts, at.amps)).At("in"), solver.At(in), 1e-6, "%+v", at)
	}
	assert.Greater(t, solver.At(in), 7.3, "the upper of two")
}

// From random circuits to random values and back: warm is cold.
func TestWarmIsCold(t *testing.T) {
	for seed := range uint64(150) {
		c := random(seed)
		solver, err := network.NewSolver(c)
		require.NoError(t, err)
		before := solver.Solve()
		var first network.Solution
		if before == nil {
			first = solver.Solution()
		}
		for _, e := range c.Elements {
			switch e := e.(type) {
			case network.Battery:
				solver.Battery(e.Name).Volts = e.Volts * 0.6
			case network.Converter:
				solver.Converter(e.Name).MaxOutA = e.MaxOutA * 1.7
			}
		}
		_ = solver.Solve()
		for _, e := range c.Elements {
			switch e := e.(type) {
			case network.Battery:
				solver.Battery(e.Name).Volts = e.Volts
			case network.Converter:
				solver.Converter(e.Name).MaxOutA = e.MaxOutA
			}
		}
		after := solver.Solve()
		require.Equal(t, before, after, "seed %d", seed)
		if after == nil {
			for n, v := range solver.Solution().Volts {
				require.InDelta(t, first.Volts[n], v, 1e-6, "seed %d at %s", seed, c.Names()[n])
			}
		}
	}
}

// A machine that says how it gives way is as soft as that.
func TestAlternatorOfItsOwnSlope(t *testing.T) {
	c := network.New()
	c.Add(network.Alternator{Name: "machine", Plus: c.Node("bus"), Volts: 14.4, MaxA: 100, SlopeOhm: 0.005},
		network.CurrentLoad{Name: "load", A: c.Node("bus"), Amps: 60})
	assert.InDelta(t, 14.4-60*0.005, solve(t, c).At("bus"), 1e-6)
}

// What hangs on a line that is as good as open gets nothing and asks too much of nobody.
func TestBehindAnOpenSwitchAllIsDark(t *testing.T) {
	c := line(13, 0.01, func(c *network.Circuit, n network.Node) {
		far := c.Node("far")
		c.Add(network.Switch{Name: "open", A: n, B: far, Ohm: 0.001},
			network.CurrentLoad{Name: "lamps", A: far, Amps: 20}, network.PowerLoad{Name: "fridge", A: far, Watts: 60},
			network.Converter{Name: "charger", InPlus: far, OutPlus: c.Node("out"), OutV: 14.4, MaxOutA: 20, Efficiency: 0.9},
			network.Battery{Name: "aux", Plus: c.Node("out"), Volts: 12.9, Ohm: 0.01})
	})
	s := solve(t, c)
	assert.InDelta(t, 0, s.At("far"), 0.01)
	assert.InDelta(t, 0, s.Through("lamps")+s.Through("fridge")+s.Through("charger"), 1e-3)
	assert.Equal(t, network.Off, converts(t, s, "charger").Status)
	assert.InDelta(t, 12.9, s.At("out"), 1e-4)
}

// Every element can be read by its name, and an unknown name is an error.
func TestEveryElementIsRead(t *testing.T) {
	c := random(5)
	found, err := network.Solve(c)
	require.NoError(t, err)
	s := networktest.Read{T: t, Solution: found}
	for _, e := range c.Elements {
		s.Through(e.ElementName())
		_, err := s.Power(e.ElementName())
		require.NoError(t, err)
	}
	_, err = found.Power("nobody")
	require.EqualError(t, err, `"nobody" is not an element of the circuit`)
	_, err = found.Converting("nobody")
	require.EqualError(t, err, `"nobody" is not a converter of the circuit`)
	_, err = network.Solution{}.At("0")
	require.EqualError(t, err, "the circuit was not solved")
}
