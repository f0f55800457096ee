package study_test

import (
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/judge"
	"epitrope/core/parts"
	"epitrope/core/study"
	"epitrope/core/verdict"
	"epitrope/internal/jobtest"
)

// near are the columns whose notes speak of what a run shows at a part: the part itself, and what carries
// the same current.
var near = map[string][]string{"f1": {"f1", "c1"}, "c1": {"c1", "f1"}, "f2": {"f2", "c2"}, "c2": {"c2", "f2"},
	"coupling": {"coupling"}, "x1": {"x1"}, "alternator": {"alternator"}}

// onTheWay are those whose stops explain a coupling that hunts.
var onTheWay = []string{"f1", "c1", "c2", "f2", "x1", "return"}

// overused says whether more is used than the battery has, which the plan says: then anything may follow.
func overused(notes []judge.Note) bool {
	return slices.ContainsFunc(notes, func(n judge.Note) bool { return n.ID == "use.large" })
}

// Whatever validation lets through: what a week shows of fuses, coupling, conductors and alternator is
// among the notes on that part. What is used, and whether a start battery lasts, is the driver's.
func TestTheWeekIsSaid(t *testing.T) {
	count := jobtest.Fewer(1000, 16)
	bad := 0
	for seed := range uint64(count) {
		doc, problems := job.Decode(jobtest.Random(rand.New(rand.NewPCG(seed, 77))))
		require.Empty(t, problems, "seed %d", seed)
		d := design.Of(doc, parts.Stock())
		notes := judge.Notes(d)
		week := study.Try(d, study.Window{}, nil)
		if week.Stopped != "" {
			assert.Empty(t, week.Aims, "seed %d: %s", seed, week.Stopped)
			continue
		}
		for _, v := range week.Verdicts {
			if v.Level != verdict.Bad || v.ID == "aux" || v.ID == "start" || overused(notes) {
				continue
			}
			bad++
			columns, known := near[v.Part]
			if !known { // a conductor of the return
				columns = []string{"c1", "c2", "return"}
			}
			assert.True(t, slices.ContainsFunc(notes, func(n judge.Note) bool {
				return slices.Contains(columns, n.Column) ||
					v.Part == "coupling" && n.Severity == verdict.Stop && slices.Contains(onTheWay, n.Column)
			}), "seed %d, %s: %s %s, and no note on it", seed, d.Kind, v.Label, v.Text)
		}
	}
	assert.Greater(t, bad, count/8, "something is found among them")
}
