package plan_test

import (
	"encoding/json"
	"flag"
	"io/fs"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/plan"
	"epitrope/core/system"
	"epitrope/testdata"
)

var writeSystems = flag.Bool("systems", false, "write testdata/systems.json anew")

// What testdata/systems.json says a job becomes is what it becomes. After a change that is
// meant: go test ./core/plan -run TestSystemsAreThoseOfTheJobs -systems.
func TestSystemsAreThoseOfTheJobs(t *testing.T) {
	all := map[string]system.System{}
	documents, err := testdata.Documents()
	require.NoError(t, err)
	for name, data := range documents {
		doc, problems := job.Decode(data)
		require.Empty(t, problems)
		all[name] = plan.Decide(doc, parts.Stock()).System
	}
	got, err := json.MarshalIndent(all, "", " ")
	require.NoError(t, err)
	if *writeSystems {
		require.NoError(t, os.WriteFile("../../testdata/systems.json", append(got, '\n'), 0o600))
	}
	want, err := fs.ReadFile(testdata.Systems, "systems.json")
	require.NoError(t, err)
	assert.JSONEq(t, string(want), string(got))
}
