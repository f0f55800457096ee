package network_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/network"
)

// What asks too much is named, with what it asks there and what its line could give.
func TestWhatAsksTooMuchIsNamed(t *testing.T) {
	loads := func(volts, ohm float64, watts ...float64) *network.Circuit {
		return line(volts, ohm, func(c *network.Circuit, n network.Node) {
			for i, w := range watts {
				c.Add(network.PowerLoad{Name: "load " + string(rune('a'+i)), A: n, Watts: w})
			}
		})
	}
	machine := func(maxA float64, load network.Element) *network.Circuit {
		c := network.New()
		c.Add(network.Alternator{Name: "machine", Plus: c.Node("B+"), Volts: 14.2, MaxA: maxA},
			network.Resistance{Name: "lead", A: c.Node("B+"), B: c.Node("bus"), Ohm: 0.001}, load)
		return c
	}
	for name, c := range map[string]struct {
		circuit *network.Circuit
		want    string
		others  []string
	}{
		"three equal loads": {loads(13.6, 0.045, 350, 350, 350),
			"load c: together with load b, load a asks 1050 W and their line can give about 1028 W", []string{"load b", "load a"}},
		"one alone":                  {loads(13.6, 0.045, 1200), "load a: asks 1200 W and its line can give at most 1028 W", nil},
		"one large beside one small": {loads(13.6, 0.045, 40, 1200), "load b: asks 1200 W and its line can give at most 1028 W", nil},
		"a power beyond a machine": {machine(50, network.PowerLoad{Name: "inverter", A: 2, Watts: 900}),
			"inverter: asks 900 W and its line can give at most 707 W", nil},
		"a current beyond a machine": {machine(50, network.CurrentLoad{Name: "lamps", A: 2, Amps: 60}),
			"lamps: asks 60.0 A and its line can give at most 50.0 A", nil},
		"a current beyond a thin battery": {line(12, 1, func(c *network.Circuit,
			n network.Node) {
			c.Add(network.CurrentLoad{Name: "lamps", A: n, Amps: 30})
		}),
			"lamps: asks 30.0 A and its line can give at most 11.8 A", nil},
	} {
		_, err := network.Solve(c.circuit)
		var named *network.Error
		require.ErrorAs(t, err, &named, name)
		assert.Equal(t, c.want, err.Error(), name)
		assert.Equal(t, c.others, named.Others, name)
	}
	// What it asks there is not what its label would ask.
	_, err := network.Solve(bench(network.Battery{Volts: 12, Ohm: 0.01}, 0.09, network.Converter{OutV: 14.4, MaxOutA: 60, Efficiency: 0.9},
		network.Battery{Volts: 11, Ohm: 0.01}))
	require.EqualError(t, err, "charger: asks 773 W and its line can give at most 360 W") // 60 A at 11.6 V over 0.9; 12²/(4 × 0.1)
}

// A charger with a cut-out: off where it cannot start, hunting where it starts, pulls its
// input under, stops and starts again; running where its input stays above.
func TestChargerWithACutOut(t *testing.T) {
	for name, c := range map[string]struct {
		volts, ohm, cutOut, restart float64
		want                        network.Status
	}{
		"fed well":                        {13, 0.005, 12, 0, network.Runs},
		"sags below and recovers":         {13, 0.03, 12, 0, network.Hunting},
		"cannot be fed at all":            {13, 0.2, 12, 0, network.Hunting},
		"sags to between the two":         {13, 0.012, 12, 12.9, network.Runs},
		"sags below, recovers not enough": {12.5, 0.03, 12, 12.6, network.Off},
		"too low to start":                {11.5, 0.001, 12, 0, network.Off},
		"between the two at rest":         {12.5, 0.001, 12, 12.6, network.Off},
	} {
		s := solve(t, bench(network.Battery{Volts: c.volts, Ohm: 1e-6}, c.ohm,
			network.Converter{OutV: 14.4, MaxOutA: 40, Efficiency: 0.9, CutOutV: c.cutOut, RestartV: c.restart},
			network.Battery{Volts: 13.2, Ohm: 0.004}))
		at := converts(t, s, "charger")
		assert.Equal(t, c.want, at.Status, name)
		if c.want != network.Runs {
			assert.Zero(t, at.InA+at.OutA, name)
			assert.InDelta(t, c.volts, at.SeesV, 1e-4, name)
			assert.InDelta(t, max(c.cutOut, c.restart), at.StartsV, 1e-9, name)
		}
	}
}

// Two chargers that can run singly but not together hunt, both named; where one line feeds
// one alone, the other is none of it.
func TestChargersThatCannotRunTogether(t *testing.T) {
	build := func(firstA, secondA float64) *network.Circuit {
		return line(13.5, 0.06, func(c *network.Circuit, n network.Node) {
			for name, amps := range map[string]float64{"first": firstA, "second": secondA} {
				c.Add(network.Converter{Name: name, InPlus: n, OutPlus: c.Node(name), OutV: 14.4, MaxOutA: amps, Efficiency: 0.9, CutOutV: 11.5},
					network.Battery{Name: name + " bank", Plus: c.Node(name), Volts: 12.5, Ohm: 0.004})
			}
		})
	}
	s := solve(t, build(20, 20))
	first, second := converts(t, s, "first"), converts(t, s, "second")
	hunts := first
	if hunts.Status != network.Hunting {
		hunts = second
	}
	require.Equal(t, network.Hunting, hunts.Status)
	other := map[string]string{"first": "second", "second": "first"}[hunts.Name]
	assert.Equal(t, []string{other}, hunts.With)
	s = solve(t, build(10, 10))
	assert.Equal(t, network.Runs, converts(t, s, "first").Status)
	assert.Equal(t, network.Runs, converts(t, s, "second").Status)
	s = solve(t, build(60, 3))
	assert.Equal(t, network.Hunting, converts(t, s, "first").Status)
	assert.Empty(t, converts(t, s, "first").With, "it cannot run alone either")
}

// An isolated charger's side has its own zero: its output is what it is across it, and no
// current crosses.
func TestIsolatedCharger(t *testing.T) {
	c := network.New()
	c.Add(network.Battery{Name: "start", Plus: c.Node("bus"), Volts: 13, Ohm: 0.005},
		network.Converter{Name: "charger", InPlus: c.Node("bus"), OutPlus: c.Node("out"), OutMinus: c.Node("zero"), OutV: 14.4, MaxOutA: 30,
			Efficiency: 0.9},
		network.Battery{Name: "aux", Plus: c.Node("out"), Minus: c.Node("zero"), Volts: 12.8, Ohm: 0.01})
	s := solve(t, c)
	assert.InDelta(t, 12.8+30*0.01, s.Across("out", "zero"), 1e-4)
	assert.InDelta(t, 30, s.Through("charger"), 1e-4)
	watts, err := s.Power("charger")
	require.NoError(t, err)
	assert.InDelta(t, -30*13.1*(1/0.9-1), watts, 0.01, "what it loses")
}

// A source without resistance holds its voltage; what it gives follows from the rest.
func TestSourceWithoutResistance(t *testing.T) {
	c := network.New()
	c.Add(network.Source{Name: "supply", Plus: c.Node("a"), Volts: 13.8},
		network.Source{Name: "on top", Plus: c.Node("b"), Minus: c.Node("a"), Volts: 12},
		network.Resistance{Name: "low", A: c.Node("a"), Ohm: 2}, network.Resistance{Name: "high", A: c.Node("b"), Ohm: 4})
	s := solve(t, c)
	assert.InDelta(t, 25.8, s.At("b"), 1e-12)
	assert.InDelta(t, 25.8/4, s.Through("on top"), 1e-9)
	assert.InDelta(t, 25.8/4+13.8/2, s.Through("supply"), 1e-9)
	c.Add(network.Source{Name: "round", Plus: c.Node("b"), Volts: 25})
	_, err := network.Solve(c)
	require.ErrorContains(t, err, "is in a ring of sources without resistance")
}
