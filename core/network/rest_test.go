package network_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"runtime"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/network"
	"epitrope/internal/jobtest"
	"epitrope/internal/networktest"
)

// random is the circuit of a seed.
func random(seed uint64) *network.Circuit {
	r := rand.New(rand.NewPCG(seed, 11))
	return networktest.Random(r, 3+r.IntN(10))
}

// outcome is what the solver makes of a circuit.
func outcome(c *network.Circuit) (got networktest.Outcome, s network.Solution, err error) {
	s, err = network.Solve(c)
	if err != nil {
		return networktest.Collapses, s, err
	}
	for _, at := range s.All() {
		if at.Status == network.Hunting {
			return networktest.Hunts, s, nil
		}
	}
	return networktest.Works, s, nil
}

// agreed compares the solver with what happens from rest. It returns what the two say where
// they differ; where something collapses as well as hunts, either may be said.
func agreed(c *network.Circuit) (want networktest.Rested, differ string) {
	want = networktest.FromRest(c)
	if differ = differs(c, want); differ != "" {
		want = networktest.FromRestSlowly(c)
		differ = differs(c, want)
	}
	return want, differ
}

func differs(c *network.Circuit, want networktest.Rested) string {
	got, s, err := outcome(c)
	switch {
	case err != nil:
		if len(want.Unfed) == 0 {
			return fmt.Sprintf("refused (%v), and it %v", err, want)
		}
		return ""
	case got != want.Outcome:
		if got == networktest.Hunts && len(want.Stops) > 0 {
			return ""
		}
		return fmt.Sprintf("%v by the solver, %v from rest; %v", got, want.Outcome, s.All())
	case got == networktest.Hunts:
		return "" // which of its positions it is caught in is chance
	}
	zero := networktest.Zeros(c)
	for i, v := range want.Volts {
		have, from := s.Volts[i]-s.Volts[zero[i]], v-want.Volts[zero[i]]
		if math.Abs(have-from) > 0.001*math.Max(1, math.Abs(from)) {
			return fmt.Sprintf("%s at %.5f V, from rest %.5f V", c.Names()[i], have, from)
		}
	}
	return ""
}

// atChargeLimit says whether some battery takes all it accepts.
func atChargeLimit(c *network.Circuit, v []float64) bool {
	for _, e := range c.Elements {
		if b, ok := e.(network.Battery); ok && b.MaxChargeA > 0 {
			ohm := b.Ohm
			if b.ChargeOhm > 0 {
				ohm = b.ChargeOhm
			}
			if v[b.Plus]-v[b.Minus]-b.Volts > b.MaxChargeA*ohm {
				return true
			}
		}
	}
	return false
}

// Whatever has a point to work at is solved, and at the point that it comes to when it is
// switched on from rest: found for each of many random circuits by letting it happen, with
// nothing of the solver. None is left out; those next to a collapse or a cut-out are
// counted apart.
func TestSolvedWhereItComesToFromRest(t *testing.T) {
	count := jobtest.Fewer(20000, 1000)
	var lock sync.Mutex
	tally := map[string]int{}
	var wrong []string
	var work sync.WaitGroup
	seeds := make(chan uint64)
	for range runtime.GOMAXPROCS(0) {
		work.Add(1)
		go func() {
			defer work.Done()
			for seed := range seeds {
				c := random(seed)
				want, differ := agreed(c)
				close := differ != "" && networktest.Close(c)
				second := want.Outcome == networktest.Works && seed%belowEach == 0 && !sameVolts(want.Volts, networktest.FromBelow(c).Volts)
				lock.Lock()
				tally[[]string{"work", "collapse", "hunt"}[want.Outcome]]++
				if atChargeLimit(c, want.Volts) {
					tally["at a charge limit"]++
				}
				if second {
					tally["with two points"] += belowEach
				}
				switch {
				case close:
					tally["close"]++
				case differ != "":
					wrong = append(wrong, fmt.Sprintf("seed %d: %s", seed, differ))
				}
				lock.Unlock()
			}
		}()
	}
	for seed := range uint64(count) {
		seeds <- seed
	}
	close(seeds)
	work.Wait()
	t.Logf("of %d circuits %v", count, tally)
	assert.Empty(t, wrong)
	assert.Equal(t, count, tally["work"]+tally["collapse"]+tally["hunt"])
	for what, least := range map[string]float64{"collapse": 0.05, "with two points": 0.10, "at a charge limit": 0.20, "hunt": 0.02} {
		assert.GreaterOrEqual(t, tally[what], int(least*float64(count)), what)
	}
	assert.LessOrEqual(t, tally["close"], count/100, "next to a collapse")
}

// belowEach is every how many circuits it is seen whether there are two points.
const belowEach = 10

func sameVolts(a, b []float64) bool {
	for i := range a {
		if math.Abs(a[i]-b[i]) > 0.05 {
			return false
		}
	}
	return true
}

// At every node what flows in flows out, and the power that sources give is what the rest
// takes; the order of the elements does not matter; and solved again after a jump, as
// after none, the answer is the same.
func TestChargeAndPowerAreConserved(t *testing.T) {
	solved := 0
	for seed := range uint64(400) {
		c := random(seed)
		found, err := network.Solve(c)
		if err != nil {
			var named *network.Error
			require.ErrorAs(t, err, &named, "seed %d", seed)
			require.NotContains(t, err.Error(), "settle", "seed %d", seed)
			continue
		}
		solved++
		s := networktest.Read{T: t, Solution: found}
		into, power := networktest.Balance(c, s)
		for n, amps := range into[1:] {
			assert.InDelta(t, 0, amps, 2e-5, "seed %d at %s", seed, c.Names()[n+1])
		}
		assert.InDelta(t, 0, power, 1e-3, "seed %d", seed)

		shuffled := network.New()
		for _, name := range c.Names() {
			shuffled.Node(name)
		}
		shuffled.Add(c.Elements...)
		r := rand.New(rand.NewPCG(seed, 3))
		r.Shuffle(len(shuffled.Elements), func(i, j int) {
			shuffled.Elements[i], shuffled.Elements[j] = shuffled.Elements[j], shuffled.Elements[i]
		})
		again, err := network.Solve(shuffled)
		require.NoError(t, err, "seed %d", seed)
		for n, v := range s.Volts {
			assert.InDelta(t, v, again.Volts[n], 1e-5, "seed %d at %s", seed, c.Names()[n])
		}
	}
	assert.Greater(t, solved, 300)
}

func FuzzSolve(f *testing.F) {
	f.Add(uint64(1), 5, 14.2, 0.01, 500.0, 20.0)
	f.Add(uint64(9), 12, 0.0, 1e-9, 1e6, 0.0)
	f.Add(uint64(3), 3, -14.0, 1e12, 1e-6, 1e6)
	f.Fuzz(func(t *testing.T, seed uint64, n int, volts, ohm, watts, amps float64) {
		c := networktest.Random(rand.New(rand.NewPCG(seed, 2)), 2+int(uint(n)%20))
		at := func(i int) network.Node { return c.Node(fmt.Sprintf("n%d", i)) }
		c.Add(network.Battery{Name: "fuzzed", Plus: at(1), Volts: volts, Ohm: ohm, MaxChargeA: amps},
			network.PowerLoad{Name: "power", A: at(2), Watts: watts}, network.CurrentLoad{Name: "lamp", A: at(2), Amps: amps},
			network.Converter{Name: "fuzzed charger", InPlus: at(1), OutPlus: at(2), OutV: volts, MaxOutA: amps, Efficiency: 0.9,
				MaxInA:  watts,
				CutOutV: volts / 2})
		found, err := network.Solve(c)
		if err != nil {
			var named *network.Error
			require.ErrorAs(t, err, &named)
			require.NotEmpty(t, named.Element)
			return
		}
		s := networktest.Read{T: t, Solution: found}
		most := 1.0
		for _, e := range c.Elements {
			most = math.Max(most, math.Abs(s.Through(e.ElementName())))
		}
		for _, v := range s.Volts {
			require.False(t, math.IsNaN(v) || math.IsInf(v, 0))
		}
		into, _ := networktest.Balance(c, s)
		for i, amps := range into[1:] {
			require.InDelta(t, 0, amps, 2e-5*most, c.Names()[i+1])
		}
		_, err = c.Netlist("fuzzed")
		require.NoError(t, err)
	})
}
