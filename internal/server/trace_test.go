package server_test

import (
	"fmt"
	"net/http"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/internal/answers"
	"epitrope/internal/dbtest"
)

// What is entered while a fault is traced stands among all that was entered on a job, by its case; what names no case, or names one and
// belongs to none, is refused.
func TestCasesAreKept(t *testing.T) {
	h := serve(t, dbtest.Store(t))
	id := opened(t, h)
	complaint := entry("complaint", "no-charge", "gains nothing")
	complaint.Case = uuid.NewString()
	nameless, reading := entry("looked", "f1", "well"), entry("reading", "start-rest", "12.6 V")
	reading.Case = complaint.Case
	got := send(t, h, id, complaint, nameless, reading)
	require.Len(t, got.Refused, 2)
	for _, r := range got.Refused {
		assert.Equal(t, "case", r.Problems[0].Field)
	}
	require.Len(t, got.Entries, 1)
	assert.Equal(t, complaint.Case, got.Entries[0].Case)
	assert.False(t, got.Entries[0].Waits)
	assert.Len(t, send(t, h, id, complaint).Entries, 1, "sent twice it counts once")
	bridged := entry("bypass", "coupling", "TEMPORARY: bridge")
	bridged.Case = complaint.Case
	assert.Len(t, send(t, h, id, bridged).Entries, 2, "a way past for now is kept with its case")
}

// A trace is answered for whatever document there is, and names what of the evidence it cannot use.
func TestATraceIsAnswered(t *testing.T) {
	h := serve(t, dbtest.Store(t))
	ask := func(seen string) (int, answers.Traced) {
		var out answers.Traced
		body := fmt.Sprintf(`{"document":%s,"evidence":{"format":"epitrope-evidence","version":1,"seen":%s}}`, provenJob, seen)
		res := call(t, http.MethodPost, h.URL+"/api/trace", body, &out)
		return res.StatusCode, out
	}
	status, out := ask(`[{"symptom":"no-charge"}]`)
	require.Equal(t, 200, status)
	assert.NotEmpty(t, out.Suspects)
	assert.NotEmpty(t, out.Next)
	assert.NotEmpty(t, out.Symptoms)
	for _, n := range out.Next {
		if !n.Look && !n.Swap {
			assert.NotEmpty(t, n.Where)
			assert.NotEmpty(t, n.Means)
		}
	}
	status, out = ask(`[{"symptom":"ghosts"}]`)
	require.Equal(t, 200, status)
	require.Len(t, out.Problems, 1)
	assert.Equal(t, "symptom", out.Problems[0].Field)
}
