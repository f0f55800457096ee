package prove_test

import (
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/prove"
	"epitrope/internal/jobtest"
	"epitrope/internal/standin"
)

// Of all that an installation may be, those that are chosen by what was read of one come nearer to it, in what was not told too.
func TestTheNearestComeNearer(t *testing.T) {
	nearest, any := 0.0, 0.0
	for seed := range uint64(jobtest.Fewer(40, 12)) {
		doc, problems := job.Decode([]byte(`{"alternator":{"label":"80/140 A","regulation":"fixed","knownBy":"test","volts":14.3},
			"aux":{"chemistry":"agm","capacityAh":100},"routes":{"startM":1,"auxM":4},"pins":{"coupling":"vsr"}}`))
		require.Empty(t, problems)
		p := prove.Wider(design.Of(doc, parts.Stock()))
		v := standin.Build(design.Of(doc, parts.Stock()), p, seed)
		taken := []prove.Taken{}
		for _, id := range []string{"start-running", "charge", "lost-start", "lost-aux", "lost-back"} {
			if r, there := p.Reading(id); there {
				value, _ := v.Reads(r)
				taken = append(taken, prove.Taken{ID: id, Value: value})
			}
		}
		r, _ := p.Reading("charge")
		flows, _ := v.Exact(r)
		charge := slices.IndexFunc(p.Readings, func(r prove.Reading) bool { return r.ID == "charge" })
		off := func(draws []prove.Draw) (sum float64) {
			at := map[string]bool{prove.FastIdle: true}
			for _, d := range draws {
				shown := p.Try().Takes(d, nil, at)
				for i, r := range p.Readings {
					if r.Station != prove.FastIdle || !r.Drop || math.IsNaN(shown.Values[i]) {
						continue
					}
					exact, ok := v.Exact(r)
					far := math.Log(math.Abs(shown.Values[i]/shown.Values[charge]) / math.Abs(exact/flows)) // what it resists lasts
					if ok && math.Abs(exact) > 0.02 && !math.IsNaN(far) {
						sum += min(1, far*far)
					}
				}
			}
			return sum
		}
		usual := []prove.Draw{}
		for k := range uint64(8) {
			usual = append(usual, p.Drawn(k))
		}
		nearest, any = nearest+off(p.Nearest(taken, 8)), any+off(usual)
	}
	t.Logf("of what any installation is off, the nearest are off %.2f", nearest/any)
	assert.Less(t, nearest, 0.95*any)
}

// With nothing read, or nothing that this proof knows, there are as many draws as were asked for.
func TestNothingReadChoosesNothing(t *testing.T) {
	doc, _ := job.Decode([]byte(`{}`))
	p := prove.Wider(design.Of(doc, parts.Stock()))
	assert.Len(t, p.Nearest(nil, 8), 8)
	assert.Len(t, p.Nearest([]prove.Taken{{ID: "of another design", Value: 1}}, 3), 3)
}
