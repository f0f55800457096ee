package study_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/study"
)

// What was built is judged by the same rules: a larger fuse on the same cable is noted, and
// the design stays as it was.
func TestBuiltAgainstDesign(t *testing.T) {
	doc, problems := job.Decode([]byte(`{"alternator":{"label":"90/180 A"},"pins":{"coupling":"dcdc","chargerA":30},` +
		`"built":{"pins/startFuseA":"125 A","routes/startM":"22 ft"}}`))
	require.Empty(t, problems)
	b := study.BuiltOf(design.Of(doc, parts.Stock()))
	require.Len(t, b.Changes, 2)
	assert.Equal(t, "pins.startFuseA", b.Changes[0].Path)
	assert.NotEmpty(t, b.Changes[0].From, "what the plan chose")
	assert.Equal(t, "125 A", b.Changes[0].To)
	ids := map[string]bool{}
	for _, n := range b.New {
		ids[n.ID] = true
	}
	assert.True(t, ids["fuse.over"], "%v", ids)
	designedOnly := doc
	designedOnly.Built = nil
	same := study.BuiltOf(design.Of(designedOnly, parts.Stock()))
	assert.Empty(t, same.Changes)
	assert.Empty(t, same.New)
	assert.Empty(t, same.Gone)
	assert.Greater(t, len(same.Asked), 6)
	wrong, problems := job.Decode([]byte(`{"built":{"pins/startFuseA":"lots","pins/auxFuseA":"60"}}`))
	require.Empty(t, problems, "kept as it was typed")
	b = study.BuiltOf(design.Of(wrong, parts.Stock()))
	require.Len(t, b.Problems, 1)
	assert.Equal(t, "pins.startFuseA", b.Problems[0].Field)
	require.Len(t, b.Changes, 1)
	_, problems = job.Decode([]byte(`{"built":{"known/routes/startM":"x","nothing/here":"y"}}`))
	assert.Len(t, problems, 2)
}
