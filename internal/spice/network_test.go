package spice_test

import (
	"errors"
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/network"
	"epitrope/internal/jobtest"
	"epitrope/internal/networktest"
	"epitrope/internal/spice"
)

func need(t testing.TB) {
	t.Helper()
	if spice.Missing() {
		t.Skip("ngspice is not installed; make test installs it")
	}
}

// compared is what comparing a circuit with ngspice came to.
type compared string

const (
	agrees   compared = "agree"
	refused  compared = "refused alike"
	hunts    compared = "hunt: no point to compare"
	restless compared = "ngspice came to no end"
	fallen   compared = "off after a fall: a netlist does not fall first"
	nextTo   compared = "next to a collapse"
	disputed compared = "ngspice falls on the way up, and a plain run through time does not"
)

// compare switches a circuit on in ngspice, from rest, and holds our solution against where
// it comes to, node by node within 0.1 %. Where we refuse, something must lie without
// volts there too.
func compare(t *testing.T, c *network.Circuit, what string) compared {
	t.Helper()
	s, refusal := network.Solve(c)
	if refusal == nil && slices.ContainsFunc(s.All(), func(a network.Converting) bool { return a.Status == network.Hunting }) {
		return hunts
	}
	netlist, err := c.Netlist(what, s.Resting()...)
	require.NoError(t, err)
	volts, err := rest(t, c, netlist)
	if errors.Is(err, spice.ErrNoPoint) {
		return restless
	}
	require.NoError(t, err, what)
	if refusal != nil {
		assert.NotEmpty(t, withoutVolts(c, volts), "%s: %v, and in ngspice all is fed", what, refusal)
		return refused
	}
	differ := differs(c, s, volts)
	if differ != "" {
		slow, err := rest(t, c, slowly.Replace(netlist))
		if err == nil {
			volts = slow
		}
		differ = differs(c, s, volts)
	}
	switch {
	case differ == "":
		return agrees
	case slices.ContainsFunc(s.All(), func(a network.Converting) bool { return wouldStart(c, a, volts) }):
		return fallen
	case networktest.Close(c):
		return nextTo
	case differs(c, s, networktest.FromRestSlowly(c).Volts) == "":
		return disputed
	}
	assert.Fail(t, what+" "+differ)
	return ""
}

// slowly ramps a netlist up ten times as slowly, so that charging the capacitances on the
// way asks for next to nothing besides.
var slowly = strings.NewReplacer("pwl(0 0 2m 0 10m 1)", "pwl(0 0 20m 0 100m 1)", "pwl(0 0 12m 0 18m 1)", "pwl(0 0 120m 0 180m 1)",
	"tran 5u 24m 0 20u", "tran 50u 240m 0 200u")

// rest is where ngspice comes to, by node.
func rest(t *testing.T, c *network.Circuit, netlist string) ([]float64, error) {
	t.Helper()
	theirs, err := spice.Rest(netlist)
	if err != nil {
		return nil, err
	}
	volts := make([]float64, len(c.Names()))
	for n, name := range c.Names()[1:] {
		v, found := theirs[network.SpiceName(name)]
		require.True(t, found, "ngspice does not print %s", name)
		volts[n+1] = v
	}
	return volts, nil
}

// differs names a node at which the two are more than 0.1 % apart.
func differs(c *network.Circuit, s network.Solution, volts []float64) string {
	zero := networktest.Zeros(c)
	for n, name := range c.Names()[1:] {
		want, have := volts[n+1]-volts[zero[n+1]], s.Volts[n+1]-s.Volts[zero[n+1]]
		if math.Abs(want-have) > 0.001*math.Max(1, math.Abs(want)) {
			return fmt.Sprintf("at %s: %.5f V, in ngspice %.5f V", name, have, want)
		}
	}
	return ""
}

// wouldStart says whether a converter that we have at rest sees enough to start where
// ngspice, which never had it on, came to.
func wouldStart(c *network.Circuit, a network.Converting, volts []float64) bool {
	for _, e := range c.Elements {
		if conv, ok := e.(network.Converter); ok && conv.Name == a.Name {
			return a.Status != network.Runs && volts[conv.InPlus]-volts[conv.InMinus] >= a.StartsV
		}
	}
	return false
}

// withoutVolts are what gets no volts to work at.
func withoutVolts(c *network.Circuit, v []float64) (names []string) {
	for _, e := range c.Elements {
		switch e := e.(type) {
		case network.PowerLoad:
			if v[e.A]-v[e.B] < network.LeastV {
				names = append(names, e.Name)
			}
		case network.CurrentLoad:
			if e.Amps > 0 && v[e.A]-v[e.B] < network.LeastV {
				names = append(names, e.Name)
			}
		case network.Converter:
			if v[e.InPlus]-v[e.InMinus] < network.LeastV {
				names = append(names, e.Name)
			}
		}
	}
	return names
}

// Some hundreds of random circuits, each node within 0.1 % of where ngspice comes to from
// rest. None is left out in silence.
func TestRandomNetworksAgree(t *testing.T) {
	need(t)
	count := jobtest.Fewer(600, 100)
	tally := map[compared]int{}
	for seed := range uint64(count) {
		r := rand.New(rand.NewPCG(seed, 7))
		c := networktest.Random(r, 3+r.IntN(10))
		tally[compare(t, c, fmt.Sprintf("seed %d", seed))]++
	}
	t.Logf("of %d: %v", count, tally)
	assert.GreaterOrEqual(t, tally[agrees], count*7/10)
	assert.GreaterOrEqual(t, tally[refused], count/50)
	assert.LessOrEqual(t, tally[hunts], count/5)
	assert.LessOrEqual(t, tally[restless], count/20)
	assert.LessOrEqual(t, tally[fallen]+tally[nextTo]+tally[disputed], count/50)
}

// sweep is a circuit as a netlist that solves it for many voltages of one of its batteries,
// from 12 to 13 V, with everything ramped up, and tells how long that took.
func sweep(c *network.Circuit, b network.Battery, points int) string {
	names := c.Names()
	var out strings.Builder
	fmt.Fprintf(&out, "* sweep\nv_ramp ramp 0 1\nv_swept swept 0 12\n%s", c.Lines(b.Name))
	fmt.Fprintf(&out, "b_swept %s %s i=(v(swept)-v(%[2]s,%[1]s))/%.9[3]g\n", network.SpiceName(names[b.Minus]),
		network.SpiceName(names[b.Plus]), b.Ohm)
	for _, name := range names[1:] {
		fmt.Fprintf(&out, ".nodeset v(%s)=13\n", network.SpiceName(name))
	}
	fmt.Fprintf(&out, ".options gmin=1e-15 itl1=1000 itl2=1000\n.control\nsave v(swept)\ndc v_swept 12 13 %.9g\nrusage "+
		"all\nquit\n.endc\n.end\n", 1/float64(points))
	return out.String()
}

// A run of cables with a charger and loads, ours and ngspice's own solving time for many
// points in one process: the ratio is printed.
func BenchmarkAgainstNgspice(b *testing.B) {
	need(b)
	const points = 5000
	c := network.New()
	at := func(i int) network.Node { return c.Node(fmt.Sprintf("n%d", i)) }
	start := network.Battery{Name: "start", Plus: at(1), Volts: 12.7, Ohm: 0.007}
	c.Add(start)
	for i := 2; i <= 39; i++ {
		c.Add(network.Resistance{Name: fmt.Sprintf("cable%d", i), A: at(i - 1), B: at(i), Ohm: 0.001})
		if i%4 == 0 {
			c.Add(network.CurrentLoad{Name: fmt.Sprintf("load%d", i), A: at(i), Amps: 0.5})
		}
	}
	c.Add(network.Converter{Name: "charger", InPlus: at(20), OutPlus: at(40), OutV: 14.4, MaxOutA: 30, Efficiency: 0.9},
		network.Battery{Name: "aux", Plus: at(40), Volts: 13.2, Ohm: 0.003})
	netlist := sweep(c, start, points)
	solver, err := network.NewSolver(c)
	require.NoError(b, err)
	battery := solver.Battery("start")
	var ours, theirs time.Duration
	for b.Loop() {
		seconds, err := spice.SolvingTime(netlist)
		require.NoError(b, err)
		theirs += time.Duration(seconds * float64(time.Second))
		begin := time.Now()
		for i := range points {
			battery.Volts = 12 + float64(i)/points
			require.NoError(b, solver.Solve())
		}
		ours += time.Since(begin)
	}
	b.ReportMetric(theirs.Seconds()/ours.Seconds(), "ngspice/ours")
}
