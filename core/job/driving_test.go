package job_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/coupling"
	"epitrope/core/day"
	"epitrope/core/job"
)

// Whether it is plugged in is known of the days that are run alone, and of a ready pattern without writing that out.
func TestPluggedIn(t *testing.T) {
	for _, c := range []struct {
		day string
		is  bool
	}{
		{`{}`, false}, {`{"pattern":"deliveries","days":28}`, false},
		{`{"pattern":"own","own":"park 20 h mains, crank 2 s, town 20 min","days":1}`, true},
		{`{"pattern":"own","own":"park 20 h, crank 2 s, town 20 min","days":28}`, false},
		{`{"pattern":"own","own":"park 40 h, park 2 h mains","days":1}`, false},
		{`{"pattern":"own","own":"park 40 h, park 2 h mains","days":2}`, true},
		{`{"pattern":"deliveries","own":"park 20 h mains"}`, false},
	} {
		doc, problems := job.Decode([]byte(`{"format":"epitrope-job","version":1,"day":` + c.day + `}`))
		require.Empty(t, problems, c.day)
		facts := doc.Resolve(coupling.DCDC)
		assert.Equal(t, c.is, facts.PluggedIn(), c.day)
		driven := slices.ContainsFunc(facts.Driving(1), func(s day.Segment) bool { return s.Own.Mains })
		assert.Equal(t, driven, c.is, "%s: as what is driven says", c.day)
	}
	doc, _ := job.Decode([]byte(`{"format":"epitrope-job","version":1,"day":{"pattern":"deliveries","days":28}}`))
	facts := doc.Resolve(coupling.DCDC)
	assert.Zero(t, testing.AllocsPerRun(10, func() { facts.PluggedIn() }), "nothing is written out for it")
}
