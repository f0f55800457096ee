package system_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/network"
	"epitrope/core/system"
	"epitrope/internal/networktest"
)

func at(component, terminal string) system.Terminal {
	return system.Terminal{Component: component, Terminal: terminal}
}

// A wire becomes its conductor with a joint at each end that is cut, and the way back
// to the start battery's minus is ground.
func TestLay(t *testing.T) {
	s := system.System{}
	s.Join(system.Wire{ID: "c1", Role: system.Feed, From: at("start", "30"), To: at("f1", "in"), Ohm: 0.004,
		Joint: system.Joints{From: 0.0003, To: 0.0002}})
	s.Join(system.Wire{ID: "n1", Role: system.Return, From: at("f1", "in"), To: at("e1", ""), Ohm: 0.002})
	s.Join(system.Wire{ID: "t1", Role: system.Signal, From: at("feed", "15"), To: at("e1", ""), Ohm: 0.1})
	c := network.New()
	c.Add(network.Battery{Name: "start", Plus: c.Node("start.30"), Volts: 12, Ohm: 0.0035})
	s.Lay(c, system.Feed, system.Return)
	found, err := network.Solve(c)
	require.NoError(t, err)
	solved := networktest.Read{T: t, Solution: found}
	assert.InDelta(t, 1200, solved.Through("c1"), 1e-6, "12 V over 3.5 + 0.3 + 4 + 0.2 + 2 mΩ")
	assert.InDelta(t, 0.36, solved.At("start.30")-solved.At("c1.from"), 1e-9)
	assert.InDelta(t, 0.24, solved.At("c1.to")-solved.At("f1.in"), 1e-9)
	assert.NotContains(t, c.Names(), "feed.15", "roles that were not asked for are not laid")
}

func TestNodes(t *testing.T) {
	assert.Equal(t, "0", at("start", "31").Node())
	assert.Equal(t, "0", at("e1", "").Node())
	assert.Equal(t, "e2", at("e2", "").Node())
	assert.Equal(t, "aux.30", at("aux", "30").Node())
	s := system.System{}
	s.Add(system.Component{ID: "f1", Name: "F1"})
	c, ok := s.Component("f1")
	assert.True(t, ok && c.Name == "F1")
	_, ok = s.Component("f9")
	assert.False(t, ok)
	_, ok = s.Wire("c1")
	assert.False(t, ok)
}
