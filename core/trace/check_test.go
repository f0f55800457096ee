package trace_test

import (
	"math"
	"math/rand/v2"
	"os"
	"slices"
	"sort"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/design"
	"epitrope/core/fault"
	"epitrope/core/prove"
	"epitrope/core/trace"
	"epitrope/internal/jobtest"
)

// traced is a vehicle's fault looked for: how many tests it took until nothing more was asked, or to a most, whether it is then
// named first, in how many minutes, and with what share.
type traced struct {
	tests   int
	first   bool
	six     bool // it was named first after six tests, or after the last before
	minutes float64
	share   float64
	none    float64
	name    string
	said    []saying
	three   bool // it is among the first three
}

// saying is a share of the first that was said on the way, and whether that one was right.
type saying struct {
	share float64
	right bool
}

// is says whether a suspect is a vehicle's fault, or one that no test that is left tells from it.
func is(s trace.Suspect, f *fault.Fault) bool {
	return f != nil && slices.ContainsFunc(append([]string{s.ID}, s.Same...), func(id string) bool {
		return id == f.ID ||
			id == f.Standing().ID
	})
}

// look takes tests as they are proposed, until a suspect is to be looked at, or a number of them are taken. Whoever is sent to look where
// nothing is wrong finds nothing, and goes on.
func look(t *testing.T, v vehicle, most int, r *rand.Rand, log bool) (out traced) {
	t.Helper()
	readings := 0
	e := trace.Evidence{Format: trace.Format, Version: trace.Version, Baseline: v.baseline, Seen: []trace.Observed{{Symptom: v.complaint}}}
	truth, faults := v.v.Fault(), fault.Of(v.v.Design)
	for {
		b := v.tr.Believe(e)
		require.Empty(t, b.Problems)
		out.three = slices.ContainsFunc(b.Suspects[:min(3, len(b.Suspects))], func(s trace.Suspect) bool { return is(s, truth) })
		out.none, out.first, out.name, out.share = b.None, false, "", 0
		if len(b.Suspects) > 0 {
			s := b.Suspects[0]
			out.name, out.share, out.first = s.ID, s.Share, is(s, truth)
			out.said = append(out.said, saying{s.Share, out.first})
		}
		if out.tests <= 6 {
			out.six = out.first
		}
		if log {
			t.Logf("   none %.2f sound %.2f: %s", b.None, b.Sound, shares(b))
		}
		if b.Act != "" && !out.first && out.tests < most {
			out.tests++
			out.minutes += b.Suspects[0].Minutes
			for _, id := range append(slices.Clone(b.Suspects[0].Faults), b.Suspects[0].Same...) {
				e.Seen = append(e.Seen, looks(placeOf(faults, id), truth, r))
			}
			continue
		}
		if b.Found != "" && !out.first { // a fuse that blows again
			e.Seen = append(e.Seen, trace.Observed{Mended: b.Found}, trace.Observed{Symptom: "blows"})
			continue
		}
		if b.Found != "" || out.tests == most || b.Act != "" || len(b.Next) == 0 {
			return out
		}
		n := b.Next[0]
		out.tests++
		out.minutes += n.Minutes
		if n.Swap {
			helped := truth != nil && truth.At == n.ID && r.Float64() < 0.95
			e.Seen = append(e.Seen, trace.Observed{Swap: n.ID, Helped: helped})
			continue
		}
		if n.ID == trace.Warmth {
			e.Seen = append(e.Seen, felt(n, v.tr, v.reads))
			if log {
				t.Logf("   warmest: %s", e.Seen[len(e.Seen)-1].Found)
			}
			continue
		}
		if n.Look {
			e.Seen = append(e.Seen, looks(n.ID, truth, r))
			if log {
				t.Logf("   look %s: %s", n.ID, e.Seen[len(e.Seen)-1].Found)
			}
			continue
		}
		reading, _ := v.tr.Reading(n.ID)
		value, ok := v.reads(reading)
		if readings++; readings == v.slips {
			value, ok = slip(reading, value, r), true
		}
		entry := reading.Says(value)
		if !ok {
			entry = jumping(reading, value)
		}
		if log {
			t.Logf("   %s: %s", n.ID, entry)
		}
		e.Seen = append(e.Seen, trace.Observed{Reading: n.ID, Entry: entry})
	}
}

// placeOf is where a fault is, be it always there or not.
func placeOf(faults []fault.Fault, id string) string {
	i := slices.IndexFunc(faults, func(f fault.Fault) bool {
		return f.ID == id || f.ID == (fault.Fault{ID: id, When: fault.ByHand}).Standing().ID ||
			f.ID == (fault.Fault{ID: id, When: fault.ByHeat}).Standing().ID
	})
	return faults[i].At
}

// seen says whether somebody who looks sees what is wrong there: four times of five, and a fuse that is measured through or a handle that
// stands wrong nearly always. Source: from memory.
func seen(kind fault.Kind, r *rand.Rand) bool {
	often := 0.8
	switch kind {
	case fault.Blown, fault.Isolated, fault.Forgotten:
		often = 0.95
	}
	return r.Float64() < often
}

// looks is what comes of a look at a place.
func looks(at string, truth *fault.Fault, r *rand.Rand) trace.Observed {
	switch {
	case truth == nil:
	case truth.At == at && seen(truth.Kind, r):
		return trace.Observed{Look: at, Found: truth.Standing().ID}
	case slices.Contains(truth.Blows, at) && seen(fault.Blown, r):
		return trace.Observed{Look: at, Found: trace.BlownAt(at)}
	}
	return trace.Observed{Look: at}
}

// felt is which place somebody feels to be the warmest.
func felt(n trace.NextTest, tr *trace.Trace, reads func(prove.Reading) (float64, bool)) trace.Observed {
	most, at := 12.0, ""
	for _, id := range n.Places {
		r, _ := tr.Reading("warm-" + id)
		if k, _ := reads(r); k > most {
			most, at = k, id
		}
	}
	return trace.Observed{Look: trace.Warmth, Found: at}
}

// jumping is what is entered of a reading that comes to no stand: with the most that it shows, where it shows anything.
func jumping(r prove.Reading, most float64) string {
	if math.IsNaN(most) {
		return prove.Jumping
	}
	return prove.Jumping + " " + r.Says(most)
}

// tally is what came of many vehicles.
type tally struct {
	all, six, nine int
	minutes, usual []float64
	said           [5][2]float64
	shares         float64 // of all that were said, together
	missed         map[string]int
}

func (c *tally) count(t *testing.T, v vehicle, r *rand.Rand) {
	t.Helper()
	if c.missed == nil {
		c.missed = map[string]int{}
	}
	seed := r.Uint64()
	out := look(t, v, 9, rand.New(rand.NewPCG(seed, 1)), false)
	c.all++
	if out.six {
		c.six++
	}
	if out.first {
		c.nine++
	} else {
		c.missed[string(v.v.Fault().Kind)+" as "+out.name]++
		if os.Getenv("EPITROPE_TRACE") != "" {
			t.Logf("--- %s of size %.3g, %s", v.v.Fault().ID, v.v.Size(), v.complaint)
			look(t, v, 9, rand.New(rand.NewPCG(seed, 1)), true)
		}
	}
	for _, s := range out.said {
		bin := &c.said[min(4, int(5*s.share))]
		bin[0]++
		c.shares += s.share
		if s.right {
			bin[1]++
		}
	}
	c.minutes = append(c.minutes, out.minutes)
	if v.v.Fault().When == fault.Standing {
		if minutes, found := halved(v, seed); found {
			c.usual = append(c.usual, out.minutes/minutes)
		}
	}
}

// ofSo is the share in % that is held: what is asked for, of as many as tell it, and of a few less, as chance has it.
func ofSo(count int, many, few float64) float64 {
	if count >= 200 {
		return many
	}
	return few
}

// calibrated holds what was said against how often it was right: over all within 12 points or what chance allows, and where enough was
// said, each fifth within
// ten of its middle.
func (c *tally) calibrated(t *testing.T) {
	t.Helper()
	count, right := 0.0, 0.0
	for k, bin := range c.said {
		count, right = count+bin[0], right+bin[1]
		if bin[0] >= enoughSaid {
			assert.InDelta(t, 20*float64(k)+10, 100*bin[1]/bin[0], 10, "said %d–%d %%", 20*k, 20*k+20)
		}
	}
	assert.InDelta(t, c.shares/count, right/count, max(0.12, 1.5/math.Sqrt(count)))
}

// enoughSaid is how often something is said of so much for its share to be known to some points.
const enoughSaid = 150

func (c *tally) share(n int) float64 { return 100 * float64(n) / float64(c.all) }

func (c *tally) log(t *testing.T) {
	t.Helper()
	sort.Float64s(c.minutes)
	t.Logf("%d vehicles: within six %.1f %%, within nine %.1f %%; median %.1f minutes; missed %v", c.all, c.share(c.six), c.share(c.nine),
		c.minutes[len(c.minutes)/2], c.missed)
	sort.Float64s(c.usual)
	if n := len(c.usual); n > 0 {
		t.Logf("halving finds %d of them; of its minutes ours takes, in the median, %.2f", n, c.usual[n/2])
	}
	for k, bin := range c.said {
		t.Logf("said %d–%d %%: %.0f times, right in %.0f %%", 20*k, 20*k+20, bin[0], 100*bin[1]/bin[0])
	}
}

// Of vehicles with one fault of any size, and a survey that is wrong here and there, that is named first within six tests in nine of
// ten, and within nine in 95 of 100; in at most 0.7 of the minutes that halving takes; and as often as is said.
func TestOneFaultIsFound(t *testing.T) {
	c := tally{}
	vehicles(t, jobtest.Fewer(few(2000), 12), fault.Of, func(v vehicle, r *rand.Rand) { c.count(t, v, r) })
	c.log(t)
	assert.LessOrEqual(t, c.usual[len(c.usual)/2], 0.7)
	c.calibrated(t)
	assert.GreaterOrEqual(t, c.share(c.six), ofSo(c.all, 90, 80))
	assert.GreaterOrEqual(t, c.share(c.nine), ofSo(c.all, 95, 87))
}

// Those that come and go are found too.
func TestWhatComesAndGoesIsFound(t *testing.T) {
	c := tally{}
	vehicles(t, jobtest.Fewer(few(300), 12), func(d *design.Design) []fault.Fault { return fault.AtTimes(fault.Of(d)) }, func(v vehicle,
		r *rand.Rand) {
		c.count(t, v, r)
	})
	c.log(t)
	assert.GreaterOrEqual(t, c.share(c.six), ofSo(c.all, 60, 40))
	assert.GreaterOrEqual(t, c.share(c.nine), ofSo(c.all, 80, 60))
}
