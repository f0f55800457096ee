package trace_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/prove"
	"epitrope/core/trace"
	"epitrope/internal/jobtest"
)

// What a look finds is mended before anything else is asked, whatever it explains; once it is mended the rest is asked again.
func TestWhatIsFoundIsMendedFirst(t *testing.T) {
	tr := trace.Of(jobtest.Design(t, charger))
	seen := []trace.Observed{said("no-charge"), took("input", "14.1 V"), {Look: "n1", Found: "joint n1 to"}}
	b := tr.Believe(trace.Evidence{Seen: seen})
	assert.Equal(t, "joint n1 to", b.Found)
	assert.Equal(t, "joint n1 to", b.Suspects[0].ID)
	assert.Empty(t, b.Act)
	b = tr.Believe(trace.Evidence{Seen: append(seen, trace.Observed{Mended: "joint n1 to"}, said("no-charge"))})
	assert.Empty(t, b.Found)
	assert.NotEqual(t, "joint n1 to", b.Suspects[0].ID)
}

// A reading that does not go with the rest is taken again before all else, once; if it comes to the same it counts, if not the last does.
func TestADoubtedReadingIsTakenAgain(t *testing.T) {
	tr := trace.Of(jobtest.Design(t, relay))
	seen := []trace.Observed{said("no-charge"), took("start-running", "14.2 V"), took("at-f1-in-fast-idle", "14.2 V"),
		took("at-f1-out-fast-idle", "0.0 V"), took("across-f1-out", "14.2 V"), took("start-rest", "1.2 V")}
	b := tr.Believe(trace.Evidence{Seen: seen})
	require.NotEmpty(t, b.Next)
	assert.Equal(t, "start-rest", b.Next[0].ID)
	assert.True(t, b.Next[0].Again)
	assert.Empty(t, b.Act)
	none := map[bool]float64{}
	for entry, sure := range map[string]bool{"12.6 V": true, "1.2 V": false} {
		b := tr.Believe(trace.Evidence{Seen: append(seen[:len(seen):len(seen)], took("start-rest", entry))})
		for _, n := range b.Next {
			assert.False(t, n.ID == "start-rest", "%s: not a third time", entry)
		}
		none[sure] = b.None
		if sure {
			assert.Contains(t, b.Suspects[0].Faults, "blown f1")
			assert.Empty(t, b.Doubted)
		}
	}
	assert.Greater(t, none[false], 3*none[true], "twice the same: something is not as it is thought")
}

// The joint that is the warmest of the run speaks for its ends; that none is warm speaks against a bad one.
func TestTheWarmestJointSpeaks(t *testing.T) {
	tr := trace.Of(jobtest.Design(t, charger))
	hot := tr.Believe(trace.Evidence{Seen: []trace.Observed{said("hot"), {Look: trace.Warmth, Found: "c1"}}})
	assert.Contains(t, []string{"joint c1 from", "joint c1 to"}, hot.Suspects[0].ID)
	for _, n := range hot.Next {
		assert.False(t, n.Station == prove.FastIdle && n.Minutes < 30, "%s: all is warm now", n.ID)
	}
	cold := tr.Believe(trace.Evidence{Seen: []trace.Observed{said("hot"), {Look: trace.Warmth}}})
	share := func(b trace.Belief) (sum float64) {
		for _, s := range b.Suspects {
			if s.ID == "joint c1 from" || s.ID == "joint c1 to" {
				sum += s.Share
			}
		}
		return sum
	}
	assert.Greater(t, share(hot), 4*share(cold))
	wrong := tr.Believe(trace.Evidence{Seen: []trace.Observed{{Look: trace.Warmth, Found: "attic"}}})
	require.Len(t, wrong.Problems, 1)
	assert.Equal(t, "found", wrong.Problems[0].Field)
}

// A fuse that was found blown, was changed, and blows again was blown by something: its wire on steel, not one more thing that is wrong.
func TestAFuseThatBlowsAgainWasBlownBySomething(t *testing.T) {
	tr := trace.Of(jobtest.Design(t, relay))
	b := tr.Believe(trace.Evidence{Seen: []trace.Observed{said("no-charge"), took("at-f1-in-fast-idle", "14.2 V"),
		took("at-f1-out-fast-idle", "0.0 V"), {Look: "f1", Found: trace.BlownAt("f1")}, {Mended: trace.BlownAt("f1")}, said("blows")}})
	assert.Contains(t, b.Suspects[0].ID, "chafed c1")
	assert.Greater(t, b.Suspects[0].Share, 0.5)
}
