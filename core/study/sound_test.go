package study_test

import (
	"fmt"
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

// sound draws a job as a careful survey leaves it: every first question answered, regulation and feed
// point tested, nothing pinned, no more used than such a vehicle can put back.
func sound(r *rand.Rand) string {
	pick := func(of ...string) string { return of[r.IntN(len(of))] }
	kind := pick("panel-van", "people-mover", "ute-tub", "ute-tray", "ute-canopy", "wagon", "motorhome", "tow-caravan", "tow-camper")
	place := pick("rear", "rear", "seat")
	if kind == "tow-caravan" || kind == "tow-camper" {
		place = pick("trailer", "rear")
	}
	chemistry := pick("lifepo4", "agm", "gel")
	return fmt.Sprintf(`{"vehicle":{"kind":"%s","loadA":30},"alternator":{"label":"%s","regulation":"%s","knownBy":"test","volts":14.4},
		"aux":{"chemistry":"%s","capacityAh":%s,"place":"%s"},"use":{"dailyAh":%s,"drivenHours":%s},
		"startBattery":{"capacityAh":80,"crankA":400},"profile":{"disable":"yes"},"signal":{"feed":"f"},
		"feeds":{"f":{"name":"F22","ratingA":15,"off":"dead","slept":"dead","accessory":"dead","on":"dead","cranking":"live","running":"live"}}}`,
		kind, pick("75/140 A", "90/180 A", "110/220 A"), pick("fixed", "compensated", "variable", "variable"), chemistry,
		pick("100", "120", "200"), place, pick("15", "20", "25", "30"), pick("2", "3"))
}

// What a sound job's plan says holds through its week: no automatic fuse opens, nothing hunts, nothing
// is above its insulation, unless a note on that part says so. And the plan does not cry wolf: half of
// such jobs have one caution at most, and no caution is on more than a tenth of them.
func TestSoundPlansHold(t *testing.T) {
	count := jobtest.Fewer(1000, 60)
	fires := map[string]int{}
	var cautions []int
	for seed := range uint64(count) {
		text := sound(rand.New(rand.NewPCG(seed, 33)))
		doc, problems := job.Decode([]byte(text))
		require.Empty(t, problems)
		d := design.Of(doc, parts.Stock())
		said, heavy := map[string]bool{}, 0
		for _, n := range judge.Notes(d) {
			if n.Severity != verdict.Remark {
				said[n.Column], heavy = true, heavy+1
				fires[n.ID]++
			}
		}
		cautions = append(cautions, heavy)
		for _, v := range study.Try(d, study.Window{}, nil).Verdicts {
			if v.Level == verdict.Bad && v.ID != "aux" { // what is used is the customer's
				assert.True(t, said[v.Part], "seed %d, %s: %s, and no note on it: %s", seed, v.Label, v.Text, text)
			}
		}
	}
	slices.Sort(cautions)
	assert.LessOrEqual(t, cautions[count/2], 1)
	for id, n := range fires {
		assert.LessOrEqual(t, n, count/10, "%s is on %d of %d sound jobs", id, n, count)
	}
}

// Sound vehicles in other hands: driven otherwise, told otherwise that the engine runs, joined otherwise.
// Where relay or charger drops out in the week, a caution on the way says so.
func TestNoPlanIsContentWhereTheDayHunts(t *testing.T) {
	count := jobtest.Fewer(960, 48)
	onTheWay := []string{"coupling", "f1", "c1", "c2", "f2", "alternator"}
	patterns, triggers := []string{"idling", "deliveries", "short-trips", "weekend"}, []string{"running", "voltage", "ignition", "switch"}
	couplings := []string{"dcdc", "vsr", "highcurrent", "contactor"}
	dropped := 0
	for i := range count {
		doc, problems := job.Decode([]byte(sound(rand.New(rand.NewPCG(uint64(i), 34)))))
		require.Empty(t, problems)
		doc, problems = job.With(doc, map[string]any{"day.pattern": patterns[i%4], "day.trigger": triggers[i/4%4],
			"pins.coupling": couplings[i/16%4]})
		require.Empty(t, problems)
		d := design.Of(doc, parts.Stock())
		week := study.Try(d, study.Window{}, nil)
		if week.Outcome.DropsOut() == 0 {
			continue
		}
		dropped++
		assert.True(t, slices.ContainsFunc(judge.Notes(d), func(n judge.Note) bool {
			return n.Severity != verdict.Remark && slices.Contains(onTheWay, n.Column)
		}), "job %d, %s by %s, %s: %+v", i, d.Kind, triggers[i/4%4], patterns[i%4], week.Outcome)
	}
	assert.Greater(t, dropped, count/20)
}
