package spice_test

import (
	"io/fs"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/plan"
	"epitrope/internal/jobtest"
	"epitrope/internal/networktest"
	"epitrope/testdata"
)

// Every demo job in every state: each node within 0.1 % of where ngspice comes to from
// rest, on the netlist that the product exports, and the plan's own figures are those
// voltages.
func TestDemoJobsAgree(t *testing.T) {
	need(t)
	tally := agree(t, testdata.Demo, "demo/*.json")
	assert.GreaterOrEqual(t, tally[agrees], 40)
}

// So does every job that is put together otherwise than usual.
func TestArrangementsAgree(t *testing.T) {
	need(t)
	tally := agree(t, testdata.Arranged, "arranged/*.json")
	assert.GreaterOrEqual(t, tally[agrees], jobtest.Fewer(100, 35))
}

// agree compares every state of the jobs of some files.
func agree(t *testing.T, files fs.FS, glob string) map[compared]int {
	t.Helper()
	names, err := fs.Glob(files, glob)
	require.NoError(t, err)
	tally := map[compared]int{}
	every := jobtest.Fewer(1, 3) // of what there is more than a handful of
	for i, name := range names {
		if len(names) > 20 && i%every != 0 {
			continue
		}
		data, err := fs.ReadFile(files, name)
		require.NoError(t, err)
		doc, problems := job.Decode(data)
		require.Empty(t, problems)
		for _, s := range plan.Decide(doc, parts.Stock()).States {
			c, solved, err := design.Of(doc, parts.Stock()).CircuitAt(s.ID)
			require.NoError(t, err, "%s %s", name, s.ID)
			tally[compare(t, c, name+" "+s.ID)]++
			if s.Fails == "" {
				assert.InDelta(t, s.AuxV, networktest.Read{T: t, Solution: solved}.Across("aux.30", "aux.31"), 0.0051, "%s %s", name, s.ID)
			}
		}
	}
	t.Logf("%v", tally)
	assert.Zero(t, tally[hunts]+tally[restless]+tally[refused])
	return tally
}
