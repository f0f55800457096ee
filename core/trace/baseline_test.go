package trace_test

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/fault"
	"epitrope/core/prove"
	"epitrope/core/trace"
	"epitrope/internal/jobtest"
)

// proven is what was read of a vehicle when nothing was wrong with it, in a proof.
func proven(v vehicle) (list []prove.Entry) {
	for _, r := range v.v.Proof.Readings {
		if value, ok := v.sound.Reads(r); ok && r.Unit != prove.Seen && !r.Extra {
			list = append(list, prove.Entry{Reading: r.ID, Text: r.Says(value)})
		}
	}
	return list
}

// Who has the readings of the proof finds more, or as much: of the same vehicles with the same faults.
func TestTheProofHelps(t *testing.T) {
	with, without := tally{}, tally{}
	vehicles(t, jobtest.Fewer(few(300), 3), fault.Of, func(v vehicle, r *rand.Rand) {
		seed := r.Uint64()
		v.baseline = proven(v)
		with.count(t, v, rand.New(rand.NewPCG(seed, 3)))
		v.baseline = nil
		without.count(t, v, rand.New(rand.NewPCG(seed, 3)))
	})
	t.Log("with the proof")
	with.log(t)
	t.Log("without")
	without.log(t)
	assert.GreaterOrEqual(t, with.share(with.nine), without.share(without.nine)-2)
}

// What the survey saw, how old it is and what a try with another part came to speak for what they should.
func TestWhatSpeaksBesidesReadings(t *testing.T) {
	share := func(text string, e trace.Evidence, id string) float64 {
		e.Seen = append([]trace.Observed{said("no-charge")}, e.Seen...)
		b := trace.Of(jobtest.Design(t, text)).Believe(e)
		require.Empty(t, b.Problems)
		for _, s := range b.Suspects {
			if is(s, &fault.Fault{ID: id}) {
				return s.Share
			}
		}
		return 0
	}
	swapped := func(helped bool) trace.Evidence {
		return trace.Evidence{Seen: []trace.Observed{{Swap: "f1", Helped: helped}}}
	}
	plain := share(relay, trace.Evidence{}, "blown f1")
	require.Positive(t, plain)
	assert.Greater(t, share(relay, swapped(true), "blown f1"), 0.4)
	assert.Less(t, share(relay, swapped(false), "blown f1"), plain/2)

	fresh, old := 0.02, 9.0
	assert.Greater(t, share(relay, trace.Evidence{Years: &fresh}, "open c1"), share(relay, trace.Evidence{Years: &old}, "open c1"))
	assert.Greater(t, share(relay, trace.Evidence{Years: &old}, "parted aux")+1e-9, share(relay, trace.Evidence{Years: &fresh}, "parted aux"))

	found := relay[:len(relay)-1] + `,"have":{"coupling":"vsr"},"found":{"k1":{"role":"aux","size":"16 mm²","state":"cut"}}}`
	assert.Greater(t, share(found, trace.Evidence{}, "open c2"), share(relay, trace.Evidence{}, "open c2"))
}
