package spice_test

import (
	"errors"
	"fmt"
	"math"
	"math/rand/v2"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/network"
	"epitrope/internal/networktest"
	"epitrope/internal/spice"
)

func need(t testing.TB) {
	t.Helper()
	if spice.Missing() {
		t.Skip("ngspice is not installed; make test installs it")
	}
}

// agrees compares every node with ngspice within 0.1 %. It returns spice.ErrNoPoint
// where ngspice's own search does not settle.
func agrees(t *testing.T, c *network.Circuit, s network.Solution, what string) error {
	t.Helper()
	netlist, err := c.Netlist(what, s.Volts)
	require.NoError(t, err)
	volts, err := spice.Run(netlist)
	if errors.Is(err, spice.ErrNoPoint) {
		return err
	}
	require.NoError(t, err, what)
	for n, name := range c.Names()[1:] {
		want, found := volts[network.SpiceName(name)]
		require.True(t, found, "%s: ngspice does not print %s", what, name)
		have := s.Volts[n+1]
		assert.InDelta(t, want, have, 0.001*math.Max(1, math.Abs(want)), "%s at %s", what, name)
	}
	return nil
}

// 200 random networks: every node within 0.1 % of ngspice.
func TestRandomNetworksAgree(t *testing.T) {
	need(t)
	compared, unsettled := 0, 0
	for seed := uint64(0); compared < 200; seed++ {
		require.Less(t, seed, uint64(400))
		r := rand.New(rand.NewPCG(seed, 7))
		c := networktest.Random(r, 3+r.IntN(15))
		s, err := network.Solve(c)
		var named *network.Error
		if errors.As(err, &named) {
			continue // no steady state: nothing to compare
		}
		require.NoError(t, err)
		if agrees(t, c, s, fmt.Sprintf("seed %d", seed)) != nil {
			unsettled++
			continue
		}
		compared++
	}
	t.Logf("%d agree; for %d more ngspice found no operating point", compared, unsettled)
	assert.Less(t, unsettled, 10)
}

// The same circuits, ours and ngspice's: the ratio is printed.
func BenchmarkAgainstNgspice(b *testing.B) {
	need(b)
	var ours, theirs time.Duration
	for b.Loop() {
		c := networktest.Random(rand.New(rand.NewPCG(3, 7)), 15)
		start := time.Now()
		s, err := network.Solve(c)
		require.NoError(b, err)
		ours += time.Since(start)
		netlist, err := c.Netlist("bench", s.Volts)
		require.NoError(b, err)
		start = time.Now()
		_, err = spice.Run(netlist)
		require.NoError(b, err)
		theirs += time.Since(start)
	}
	b.ReportMetric(theirs.Seconds()/ours.Seconds(), "ngspice/ours")
}
