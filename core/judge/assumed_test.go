package judge_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"epitrope/core/judge"
	"epitrope/core/verdict"
	"epitrope/internal/jobtest"
)

// noteOf is a note of a job by its id.
func noteOf(t *testing.T, document, id string) judge.Note {
	t.Helper()
	for _, n := range judge.Notes(jobtest.Design(t, document)) {
		if n.ID == id {
			return n
		}
	}
	return judge.Note{}
}

// What nobody said stops nothing: it says “if”. Once it is said, it stops.
func TestUnknownStopsNothing(t *testing.T) {
	for _, c := range []struct{ id, open, said string }{
		{"place.hot", `{"aux":{"place":"bonnet"}}`, `{"aux":{"place":"bonnet","chemistry":"lifepo4"}}`},
		{"relay.night", `{"pins":{"coupling":"vsr"}}`, `{"pins":{"coupling":"vsr"},"aux":{"chemistry":"lifepo4"}}`},
		{"relay.night", `{"pins":{"coupling":"vsr"},"aux":{"chemistry":"undecided"}}`,
			`{"pins":{"coupling":"vsr"},"aux":{"chemistry":"lifepo4"}}`},
		{"relay.open", `{"pins":{"coupling":"vsr"}}`, `{"pins":{"coupling":"vsr"},"alternator":{"regulation":"variable"}}`},
	} {
		open, said := noteOf(t, c.open, c.id), noteOf(t, c.said, c.id)
		assert.Equal(t, verdict.Beware, open.Severity, "%s: %s", c.open, open.Text)
		assert.Contains(t, open.Text, "; if it", c.open)
		assert.Equal(t, verdict.Stop, said.Severity, "%s: %s", c.said, said.Text)
		assert.NotContains(t, said.Text, "; if it", c.said)
	}
}

// Trade: by year before about 2000 is evidence for steady regulation, after that it is none.
func TestOldMachinesAreSteady(t *testing.T) {
	year := func(y string) string {
		return `{"vehicle":{"year":` + y + `},"alternator":{"regulation":"fixed","knownBy":"year"},"aux":{"chemistry":"agm"},` +
			`"pins":{"coupling":"vsr"}}`
	}
	for _, n := range judge.Notes(jobtest.Design(t, year("1992"))) {
		assert.NotEqual(t, verdict.Stop, n.Severity, n.Text)
		assert.NotEqual(t, "regulation.unknown", n.ID)
	}
	assert.Equal(t, "regulation.unknown", noteOf(t, year("2003"), "regulation.unknown").ID)
}
