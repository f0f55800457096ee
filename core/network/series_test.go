package network_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/network"
)

// Nodes inside a run are found from its ends: the voltage falls along it in proportion
// to what each piece resists, whichever way round the pieces are given.
func TestVoltagesInsideARun(t *testing.T) {
	c := network.New()
	c.Add(network.Battery{Name: "source", Plus: c.Node("n0"), Volts: 12, Ohm: 0.001})
	sum := 0.0
	for i := range 10 {
		a, b := c.Node(fmt.Sprintf("n%d", i)), c.Node(fmt.Sprintf("n%d", i+1))
		if i%3 == 1 {
			a, b = b, a
		}
		c.Add(network.Resistance{Name: fmt.Sprintf("piece%d", i), A: a, B: b, Ohm: 0.001 * float64(i+1)})
		sum += 0.001 * float64(i+1)
	}
	c.Add(network.CurrentLoad{Name: "load", A: c.Node("n10"), Amps: 20})
	s := solve(t, c)
	volts := 12 - 20*0.001
	for i := range 11 {
		assert.InDelta(t, volts, s.At(fmt.Sprintf("n%d", i)), 1e-7)
		volts -= 20 * 0.001 * float64(i+1)
	}
	assert.InDelta(t, 20, s.Through("piece2"), 1e-6)
	assert.InDelta(t, -20, s.Through("piece1"), 1e-6, "given the other way round")
	_, err := s.Solution.Through("none such")
	require.EqualError(t, err, `"none such" is not an element of the circuit`)
	_, err = s.Solution.At("none such")
	require.EqualError(t, err, `"none such" is not a node of the circuit`)
}

// A loop of cable from a node back to itself, and one through ground, carry nothing or
// what they must, and nothing of them is lost.
func TestRings(t *testing.T) {
	c := network.New()
	c.Add(network.Battery{Name: "source", Plus: c.Node("a"), Volts: 12, Ohm: 0.01},
		network.Resistance{Name: "out", A: c.Node("a"), B: c.Node("x"), Ohm: 1},
		network.Resistance{Name: "on", A: c.Node("x"), B: c.Node("y"), Ohm: 1},
		network.Resistance{Name: "back", A: c.Node("y"), B: c.Node("a"), Ohm: 1},
		network.Resistance{Name: "down", A: c.Node("a"), B: c.Node("z"), Ohm: 5}, network.Resistance{Name: "ground", A: c.Node("z"), Ohm: 6.99})
	s := solve(t, c)
	assert.InDelta(t, 0, s.Through("on"), 1e-9)
	assert.InDelta(t, s.At("a"), s.At("y"), 1e-9)
	assert.InDelta(t, 1, s.Through("ground"), 1e-9)
	assert.InDelta(t, 6.99, s.At("z"), 1e-9)
}

// FuzzNetlist: whatever a part or a job is called, the netlist stays one line an
// element, so that a name cannot become an instruction to the simulator.
func FuzzNetlist(f *testing.F) {
	f.Add("aux battery", "coupling.30", "Mobile vet")
	f.Add("x\n.control\nshell rm", "a b", "t\r\n.end")
	f.Add("é", "", "\x00")
	f.Fuzz(func(t *testing.T, element, node, title string) {
		c := network.New()
		c.Add(network.Battery{Name: "b" + element, Plus: c.Node("n" + node), Volts: 12, Ohm: 0.01},
			network.Resistance{Name: "r" + element, A: c.Node("n" + node), Ohm: 1})
		netlist, err := c.Netlist(title)
		if err != nil {
			t.Skip()
		}
		assert.Equal(t, 15, countLines(netlist), netlist)
	})
}

func countLines(s string) int {
	n := 0
	for _, r := range s {
		if r == '\n' || r == '\r' {
			n++
		}
	}
	return n
}
