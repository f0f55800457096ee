package study_test

import (
	"io/fs"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/coupling"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/modes"
	"epitrope/core/parts"
	"epitrope/core/study"
	"epitrope/testdata"
)

// Every way to put a run together is run for a week, its energy comes out even, its positions have an answer each,
// and its live map knows every wire. Each coupling has two such ways at least.
func TestArrangementsRunAndAreMapped(t *testing.T) {
	names, err := fs.Glob(testdata.Arranged, "arranged/*.json")
	require.NoError(t, err)
	of := map[coupling.Kind]int{}
	for _, name := range names {
		data, err := fs.ReadFile(testdata.Arranged, name)
		require.NoError(t, err)
		doc, problems := job.Decode(data)
		require.Empty(t, problems, name)
		d := design.Of(doc, parts.Stock())
		of[d.Kind]++
		week := study.Try(d, study.Window{}, nil)
		assert.Empty(t, week.Stopped, name)
		given, gone := 0.0, 0.0
		for _, e := range week.Energy {
			if e.Kind == "source" {
				given += e.Wh
			} else {
				gone += e.Wh
			}
		}
		assert.InDelta(t, given, gone, 0.005*given+8, "%s: what is given is kept, used or lost", name)
		m := modes.Of(d)
		for _, r := range m.Rows {
			assert.NotEmpty(t, r.Rule, name)
			assert.NotContains(t, r.Why, "%!", name)
		}
		known := map[string]bool{}
		for _, w := range m.Work {
			known[w.Place] = true
		}
		for _, row := range m.Live {
			for _, w := range row.Live {
				assert.True(t, known[w.Wire], "%s: %s", name, w.Wire)
			}
		}
		for _, w := range d.System.Wires {
			_, size := d.System.Component(w.From.Component)
			_, to := d.System.Component(w.To.Component)
			assert.True(t, size && to, "%s: %s ends on nothing", name, w.ID)
		}
	}
	for _, k := range coupling.Kinds() {
		assert.GreaterOrEqual(t, of[k], 2, "%s", k)
	}
}
