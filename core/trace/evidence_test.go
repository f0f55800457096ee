package trace_test

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/prove"
	"epitrope/core/trace"
	"epitrope/internal/jobtest"
)

// What is no evidence is refused with the field, its value and what is allowed.
func TestWhatIsNoEvidenceIsRefused(t *testing.T) {
	for text, says := range map[string]string{
		``:   "no JSON",
		`[]`: "no JSON",
		`{"format":"epitrope-job","version":1,"seen":[]}`:                  `"epitrope-job"`,
		`{"format":"epitrope-evidence","version":2,"seen":[]}`:             "version 2",
		`{"format":"epitrope-evidence","version":1,"sene":[]}`:             "sene",
		`{"format":"epitrope-evidence","version":1,"seen":[]} {}`:          "one document",
		`{"format":"epitrope-evidence","version":1,"seen":[{"look":1}]}`:   "look",
		`{"format":"epitrope-evidence","version":1,"seen":[],"years":-1}`:  "years -1",
		`{"format":"epitrope-evidence","version":1,"years":1e9,"seen":[]}`: "0 to 100",
	} {
		_, err := trace.Decode([]byte(text))
		assert.ErrorContains(t, err, says, text)
	}
}

// What cannot be used of it is named by its place, and the rest counts.
func TestWhatCannotBeUsedIsNamed(t *testing.T) {
	tr := trace.Of(jobtest.Design(t, relay))
	b := tr.Believe(trace.Evidence{Seen: []trace.Observed{{Symptom: "no-charge"}, {Symptom: "ghosts"}, {Reading: "charge", Entry: "much"},
		{Reading: "nowhere", Entry: "1 V"}, {Look: "attic"}, {Look: "f1", Found: "open attic"}, {Mended: "ghosts"}, {}, {Symptom: "hot",
			Look: "f1"}, {Swap: "c1"}}, Baseline: []prove.Entry{{Reading: "charge", Text: "plenty"}, {Reading: "of another design", Text: "1 V"}}})
	require.Equal(t, "baseline", b.Problems[0].Field)
	b.Problems = b.Problems[1:]
	fields := map[int]string{}
	for _, p := range b.Problems {
		fields[p.At] = p.Field
		assert.NotEmpty(t, p.Allowed)
	}
	assert.Equal(t, map[int]string{1: "symptom", 2: "reading", 3: "reading", 4: "look", 5: "found", 6: "mended", 7: "symptom",
		8: "symptom", 9: "swap"},
		fields)
	assert.NotEmpty(t, b.Suspects, "what was complained of still counts")
}

// Whatever is sent, it is read or refused, and believed without falling; every share is one.
func FuzzEvidence(f *testing.F) {
	for _, seen := range []string{`[]`, `[{"symptom":"no-charge"}]`,
		`[{"reading":"charge","entry":"0.3 A"},{"look":"f1","found":"blown f1"}]`,
		`[{"mended":"blown f1"},{"reading":"lost-aux","entry":"jumps"}]`, `[{"reading":"charge","entry":"9e9 A"}]`,
		`[{"swap":"f1","helped":true}],"years":3,"baseline":[{"reading":"charge","text":"12 A"}]`} {
		f.Add([]byte(`{"format":"epitrope-evidence","version":1,"seen":` + seen + `}`))
	}
	tr := trace.Of(jobtest.Design(f, relay))
	f.Fuzz(func(t *testing.T, data []byte) {
		e, err := trace.Decode(data)
		if err != nil {
			return
		}
		b := tr.Believe(e)
		assert.True(t, b.None+b.Sound <= 1.01, "%v", b.None+b.Sound)
		for _, s := range b.Suspects {
			assert.True(t, s.Share >= 0 && s.Share <= 1+1e-9, "%s %v", s.ID, s.Share)
		}
		_, err = json.Marshal(b)
		require.NoError(t, err)
	})
}

// The last of two readings, or looks, counts; order otherwise matters little.
func TestTheLastReadingCounts(t *testing.T) {
	tr := trace.Of(jobtest.Design(t, relay))
	of := func(seen ...trace.Observed) trace.Belief { return tr.Believe(trace.Evidence{Seen: seen}) }
	once := of(trace.Observed{Symptom: "no-charge"}, trace.Observed{Reading: "charge", Entry: "0.1 A"})
	twice := of(trace.Observed{Reading: "charge", Entry: "22 A"}, trace.Observed{Symptom: "no-charge"}, trace.Observed{Reading: "charge",
		Entry: "0.1 A"})
	assert.InDelta(t, once.Suspects[0].Share, twice.Suspects[0].Share, 1e-9)
	a := of(trace.Observed{Reading: "charge", Entry: "0.1 A"}, trace.Observed{Reading: "start-running", Entry: "14.2 V"})
	b := of(trace.Observed{Reading: "start-running", Entry: "14.2 V"}, trace.Observed{Reading: "charge", Entry: "0.1 A"})
	assert.Contains(t, names(b)[:2], a.Suspects[0].ID, "two that are as likely may stand either way")
	assert.InDelta(t, a.Suspects[0].Share, b.Suspects[0].Share, 0.05)
}
