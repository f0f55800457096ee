package trace_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"epitrope/core/trace"
	"epitrope/internal/jobtest"
)

// A way past a relay is offered with what flows; past a lithium battery's charger, between two voltages, or where a fuse opens, none
// is, and it says why.
func TestABypassIsOfferedWhereItIsSafe(t *testing.T) {
	b := trace.BypassOf(jobtest.Design(t, relay))
	assert.Empty(t, b.Why)
	assert.Greater(t, b.Amps, 5.0)
	assert.Contains(t, b.Tag, "TEMPORARY")
	assert.Contains(t, strings.Join(b.Steps, " "), "open again before it stops")
	for document, why := range map[string]string{lithium: "lithium",
		strings.Replace(charger, `"aux":{`, `"aux":{"volts":24,`, 1):                                "one voltage",
		strings.Replace(charger, `"chargerA":30`, `"chargerA":30,"startFuseA":30,"auxFuseA":30`, 1): "opens at that"} {
		b := trace.BypassOf(jobtest.Design(t, document))
		assert.Contains(t, b.Why, why)
		assert.Empty(t, b.Steps)
		assert.Empty(t, b.Tag)
	}
}
