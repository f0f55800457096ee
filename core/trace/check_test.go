package trace_test

import (
	"fmt"
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
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/prove"
	"epitrope/core/trace"
	"epitrope/internal/jobtest"
	"epitrope/internal/standin"
	"epitrope/testdata"
)

// fewer is how many are tried with all tests, and with the long ones.
func fewer(long, short int) int {
	if os.Getenv("EPITROPE_CHECK") == "all" {
		return long
	}
	return short
}

// documents are every job that stands here, and as many that anybody could have written.
func documents(t testing.TB, drawn int) (list []job.Document) {
	t.Helper()
	t.Helper()
	all, err := testdata.Documents()
	require.NoError(t, err)
	names := []string{}
	for name := range all {
		names = append(names, name)
	}
	sort.Strings(names)
	for _, name := range names {
		doc, problems := job.Decode(all[name])
		require.Empty(t, problems)
		list = append(list, doc)
	}
	r := rand.New(rand.NewPCG(25, 1))
	for range drawn {
		doc, problems := job.Decode(jobtest.Random(r))
		require.Empty(t, problems)
		list = append(list, doc)
	}
	r.Shuffle(len(list), func(i, j int) { list[i], list[j] = list[j], list[i] })
	return list
}

// owner is what an owner notices of a vehicle, by what it really does beside what it would do with nothing wrong; "" for nothing.
func owner(p *prove.Proof, sound, faulty *standin.Vehicle) string {
	at := func(v *standin.Vehicle, id string) (float64, bool) {
		r, there := p.Reading(id)
		if !there {
			return math.NaN(), false
		}
		return v.Exact(r)
	}
	was, stood := at(sound, "charge")
	is, stands := at(faulty, "charge")
	switch {
	case stood && !stands && !math.IsNaN(is):
		return "comes-and-goes"
	case was > 2 && is < 0.1*was:
		return "no-charge"
	case was > 2 && is < 0.7*was:
		return "slow-charge"
	}
	if volts, ok := at(faulty, "start-running"); ok {
		if should, _ := at(sound, "start-running"); volts < should-0.8 {
			return "lamp"
		}
	}
	if amps, _ := at(faulty, "drain"); amps > 0.4 {
		if should, _ := at(sound, "drain"); should < 0.2 {
			return "start-flat"
		}
	}
	if amps, _ := at(faulty, "apart"); amps < -0.5 {
		if should, _ := at(sound, "apart"); should > -0.2 {
			return "house-flat"
		}
	}
	if volts, ok := at(faulty, "profile"); ok {
		if should, _ := at(sound, "profile"); volts > should+0.3 {
			return "too-high"
		}
	}
	if k, ok := at(faulty, "warmest"); ok && k > 20 {
		return "hot"
	}
	if volts, ok := at(faulty, "aux-rest"); ok {
		if should, _ := at(sound, "aux-rest"); volts < should-0.7 {
			return "house-flat"
		}
	}
	return ""
}

// traced is a vehicle's fault looked for: how many tests it took until nothing more was asked, or to a most, whether it is then
// named first, in how many minutes, and with what share.
type traced struct {
	tests   int
	first   bool
	minutes float64
	share   float64
	none    float64
	name    string
}

// look takes tests as they are proposed, until a suspect is to be looked at, or a number of them are taken.
func look(t *testing.T, tr *trace.Trace, v *standin.Vehicle, complaint string, most int, r *rand.Rand, log bool) (out traced) {
	t.Helper()
	e := trace.Evidence{Format: trace.Format, Version: trace.Version, Seen: []trace.Observed{{Symptom: complaint}}}
	truth, faults := v.Fault(), fault.Of(v.Design)
	for {
		b := tr.Believe(e)
		require.Empty(t, b.Problems)
		out.none, out.first, out.name, out.share = b.None, false, "", 0
		if len(b.Suspects) > 0 {
			s := b.Suspects[0]
			out.name, out.share = s.ID, s.Share
			out.first = truth != nil && (s.ID == truth.ID || slices.Contains(s.Same, truth.ID))
		}
		if log {
			line := ""
			for _, s := range b.Suspects[:min(4, len(b.Suspects))] {
				line += fmt.Sprintf("%s %.0f %% ", s.ID, 100*s.Share)
			}
			t.Logf("   none %.2f sound %.2f: %s", b.None, b.Sound, line)
		}
		if b.Act != "" && truth == nil && out.tests < most { // whoever looks there finds nothing
			out.tests++
			for _, id := range append(slices.Clone(b.Suspects[0].Faults), b.Suspects[0].Same...) {
				at := slices.IndexFunc(faults, func(f fault.Fault) bool { return f.ID == id })
				e.Seen = append(e.Seen, trace.Observed{Look: faults[at].At})
			}
			continue
		}
		if out.tests == most || b.Act != "" || len(b.Next) == 0 {
			return out
		}
		n := b.Next[0]
		out.tests++
		out.minutes += n.Minutes
		if n.Look {
			found := ""
			if truth != nil && truth.At == n.ID && r.Float64() < 0.8 {
				found = truth.ID
			}
			if log {
				t.Logf("   look %s: %s", n.ID, found)
			}
			e.Seen = append(e.Seen, trace.Observed{Look: n.ID, Found: found})
			continue
		}
		reading, _ := tr.Reading(n.ID)
		value, ok := v.Reads(reading)
		entry := reading.Says(value)
		if !ok {
			entry = prove.Jumping
		}
		if log {
			t.Logf("   %s: %s", n.ID, entry)
		}
		e.Seen = append(e.Seen, trace.Observed{Reading: n.ID, Entry: entry})
	}
}

// vehicle is one to be traced.
type vehicle struct {
	name      string
	tr        *trace.Trace
	v         *standin.Vehicle
	complaint string
}

// vehicles are drawn, each with a fault of the library that its owner notices.
func vehicles(t *testing.T, most int, each func(vehicle, *rand.Rand)) {
	t.Helper()
	list := documents(t, max(4, most/16))
	count := 0
	for i := 0; count < most; i++ {
		doc := list[i%len(list)]
		d := design.Of(doc, parts.Stock())
		p := prove.Wider(d)
		tr := trace.Of(d)
		faults := fault.Of(d)
		r := rand.New(rand.NewPCG(uint64(i), 2525))
		for range 8 {
			if count == most {
				break
			}
			for range 12 {
				f := faults[r.IntN(len(faults))]
				size, seed := f.Size(r.Float64()), r.Uint64()
				sound, faulty := standin.Build(d, p, seed), standin.Build(d, p, seed).With(f, size)
				if says := owner(p, sound, faulty); says != "" {
					count++
					each(vehicle{f.ID, tr, faulty, says}, r)
					break
				}
			}
		}
	}
}

// Of vehicles with one fault of any size, that is named first within six tests in nine of ten, and within nine in 95 of 100.
func TestOneFaultIsFound(t *testing.T) {
	six, nine, all, kinds := 0, 0, 0, map[string]int{}
	minutes := []float64{}
	bins := map[int][2]float64{}
	vehicles(t, fewer(2000, 14), func(v vehicle, r *rand.Rand) {
		all++
		out := look(t, v.tr, v.v, v.complaint, 6, r, false)
		later := out
		if !out.first && out.tests == 6 {
			later = look(t, v.tr, v.v, v.complaint, 9, r, false)
		}
		if out.first {
			six++
		}
		bin := bins[min(4, int(5*out.share))]
		bin[0]++
		if out.first {
			bin[1]++
		}
		bins[min(4, int(5*out.share))] = bin
		if out.first || later.first {
			nine++
		} else {
			kinds[string(v.v.Fault().Kind)+" as "+later.name]++
			if os.Getenv("EPITROPE_TRACE") != "" {
				t.Logf("--- %s of size %.3g, %s", v.name, v.v.Size(), v.complaint)
				look(t, v.tr, v.v, v.complaint, 9, r, true)
			}
		}
		minutes = append(minutes, later.minutes)
	})
	sort.Float64s(minutes)
	t.Logf("%d vehicles: within six %.1f %%, within nine %.1f %%; median %.1f minutes; missed %v", all, 100*float64(six)/float64(all),
		100*float64(nine)/float64(all), minutes[len(minutes)/2], kinds)
	assert.GreaterOrEqual(t, float64(six), 0.8*float64(all))
	assert.GreaterOrEqual(t, float64(nine), 0.87*float64(all))
	for k := range 5 {
		t.Logf("said %d–%d %%: %.0f of them, right in %.0f %%", 20*k, 20*k+20, bins[k][0], 100*bins[k][1]/bins[k][0])
	}
}
