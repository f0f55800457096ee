package server

import (
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/modes"
	"epitrope/core/parts"
	"epitrope/core/plan"
)

// One document is decided once for all who ask, at once or later, and what one asks of the
// design leaves it as it is for the others.
func TestOneDecisionServesAll(t *testing.T) {
	k := newDecided(parts.Stock(), newAllSettled(nil))
	doc, problems := job.Decode([]byte(`{"aux":{"chemistry":"lifepo4"},"pins":{"coupling":"changeover"}}`))
	require.Empty(t, problems)
	alone := design.Of(doc, parts.Stock())
	wantPlan, wantModes := plan.Of(alone), modes.Of(alone)
	got := make([]*design.Design, 8)
	var wait sync.WaitGroup
	for i := range got {
		wait.Go(func() {
			got[i] = k.of(t.Context(), doc)
			assert.Equal(t, wantModes, modes.Of(got[i]))
			assert.Equal(t, wantPlan, plan.Of(got[i]))
		})
	}
	wait.Wait()
	for _, d := range got {
		assert.Same(t, got[0], d)
	}
	other := doc
	other.Title = "another"
	assert.NotSame(t, got[0], k.of(t.Context(), other), "another document is another design, were it by its title alone")
}
