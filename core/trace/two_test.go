package trace_test

import (
	"fmt"
	"math/rand/v2"
	"os"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"

	"epitrope/core/fault"
	"epitrope/core/prove"
	"epitrope/core/trace"
	"epitrope/internal/jobtest"
	"epitrope/internal/standin"
)

// Two faults at once: each is found and mended, one after the other.
func TestTwoFaultsAreFound(t *testing.T) {
	both, all, missed := 0, 0, map[string]int{}
	vehicles(t, jobtest.Fewer(few(200), 2), fault.Of, func(v vehicle, r *rand.Rand) {
		faults := fault.Of(v.v.Design)
		first, size := *v.v.Fault(), v.v.Size()
		for range 20 {
			f := faults[r.IntN(len(faults))]
			second := f.Size(r.Float64())
			seed := r.Uint64()
			alone := standin.Build(v.v.Design, v.v.Proof, seed).With(f, second)
			if f.At == first.At || owner(standin.Build(v.v.Design, v.v.Proof, seed), alone) == "" {
				continue
			}
			all++
			if found := mendBoth(t, v, seed, prove.Sized{Fault: first, Size: size}, prove.Sized{Fault: f, Size: second}, r); found {
				both++
			} else {
				missed[string(first.Kind)+"+"+string(f.Kind)]++
				t.Logf("--- %s and %s", first.ID, f.ID)
			}
			return
		}
	})
	assert.GreaterOrEqual(t, 100*float64(both), ofSo(all, 80, 30)*float64(all))
	t.Logf("%d vehicles with two faults: both mended within 14 tests in %.0f %%; missed %v", all, 100*float64(both)/float64(all), missed)
}

// shares are what is believed, in a line.
func shares(b trace.Belief) (line string) {
	for _, s := range b.Suspects[:min(4, len(b.Suspects))] {
		line += fmt.Sprintf("%s %.0f %% ", s.ID, 100*s.Share)
	}
	return line
}

// seenAt is what somebody finds who looks at a place.
func seenAt(left []prove.Sized, place string, r *rand.Rand) (found string) {
	for _, f := range left {
		switch {
		case f.At == place && seen(f.Kind, r):
			found = f.ID
		case slices.Contains(f.Blows, place) && seen(fault.Blown, r):
			found = trace.BlownAt(place)
		}
	}
	return found
}

// mendBoth traces and mends until nothing is complained of, within fourteen tests.
func mendBoth(t *testing.T, v vehicle, seed uint64, a, b prove.Sized, r *rand.Rand) bool {
	t.Helper()
	faults := fault.Of(v.v.Design)
	left := []prove.Sized{a, b}
	build := func() *standin.Vehicle {
		out := standin.Build(v.v.Design, v.v.Proof, seed)
		for _, f := range left {
			out = out.Also(f.Fault, f.Size)
		}
		return out
	}
	sound := standin.Build(v.v.Design, v.v.Proof, seed)
	e := trace.Evidence{Format: trace.Format, Version: trace.Version}
	now := build()
	complaint := owner(sound, now)
	if complaint == "" {
		return true
	}
	e.Seen = append(e.Seen, trace.Observed{Symptom: complaint})
	mends := 0
	for tests := 0; tests < 14; {
		bel := v.tr.Believe(e)
		if os.Getenv("EPITROPE_TRACE") != "" {
			t.Logf("   none %.2f sound %.2f: %v; act %s", bel.None, bel.Sound, shares(bel), bel.Act)
			if last := len(e.Seen) - 1; last >= 0 {
				t.Logf("   after %+v", e.Seen[last])
			}
		}
		if bel.Found != "" || bel.Act != "" || len(bel.Next) == 0 {
			if len(bel.Suspects) == 0 || mends > 5 {
				return false
			}
			mends++
			mended := false
			for _, id := range append(slices.Clone(bel.Suspects[0].Faults), bel.Suspects[0].Same...) {
				at := slices.IndexFunc(left, func(f prove.Sized) bool { return f.ID == id })
				if at < 0 {
					continue
				}
				left = slices.Delete(slices.Clone(left), at, at+1)
				e.Seen = append(e.Seen, trace.Observed{Mended: id})
				mended = true
				break
			}
			if !mended && bel.Found != "" { // a fuse that blows again
				e.Seen = append(e.Seen, trace.Observed{Mended: bel.Found}, trace.Observed{Symptom: "blows"})
				tests++
				continue
			}
			if !mended { // nothing is wrong there: it was looked at
				for _, s := range bel.Suspects[:1] {
					for _, id := range s.Faults {
						place := placeOf(faults, id)
						e.Seen = append(e.Seen, trace.Observed{Look: place, Found: seenAt(left, place, r)})
					}
				}
				tests++
				continue
			}
			if len(left) == 0 {
				return true
			}
			now = build()
			says := owner(sound, now)
			if says == "" {
				return true
			}
			e.Seen = append(e.Seen, trace.Observed{Symptom: says})
			continue
		}
		n := bel.Next[0]
		tests++
		if n.Swap {
			helped := len(left) == 1 && left[0].At == n.ID
			e.Seen = append(e.Seen, trace.Observed{Swap: n.ID, Helped: helped})
			continue
		}
		if n.ID == trace.Warmth {
			e.Seen = append(e.Seen, felt(n, v.tr, now.Reads))
			continue
		}
		if n.Look {
			e.Seen = append(e.Seen, trace.Observed{Look: n.ID, Found: seenAt(left, n.ID, r)})
			continue
		}
		reading, _ := v.tr.Reading(n.ID)
		value, ok := now.Reads(reading)
		entry := reading.Says(value)
		if !ok {
			entry = jumping(reading, value)
		}
		e.Seen = append(e.Seen, trace.Observed{Reading: n.ID, Entry: entry})
	}
	return false
}
