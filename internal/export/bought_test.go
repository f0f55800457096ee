package export_test

import (
	"math/rand/v2"
	"regexp"
	"slices"
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/cable"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/unit"
	"epitrope/internal/export"
	"epitrope/internal/jobtest"
	"epitrope/internal/pack"
)

// What shops sell, from memory: copper in mm² of metric cable, gauges, studs with the thickest cable that lugs
// for them are made for (trade §21.14), conduit and P-clips.
var (
	soldMM2   = []string{"1", "1.5", "2.5", "4", "6", "10", "16", "25", "35", "50", "70", "95", "120"}
	soldAWG   = []string{"18", "16", "14", "12", "10", "8", "6", "4", "2", "1", "1/0", "2/0", "3/0", "4/0"}
	studsMost = map[string]float64{"M5": 35, "M6": 70, "M8": 120, "M10": 150}
	lugged    = regexp.MustCompile(`^(?:tube lug|ring terminal) (.+), (M\d+)$`)
	sized     = regexp.MustCompile(`^(?:ferrule|plug contact|reducing pin,|` +
		`relay socket contact 9.5 mm,|blade terminal 6.3 mm,|butt splice) (.+?)(?:, with adhesive| to [\d.]+ mm²)?$`)
	metricSize = regexp.MustCompile(`^([\d.]+) mm²$`)
	gaugeSize  = regexp.MustCompile(`^([\d/]+) AWG$`)
)

// sold says whether a shop knows such a size.
func sold(size string) bool {
	if m := metricSize.FindStringSubmatch(size); m != nil {
		return slices.Contains(soldMM2, m[1])
	}
	if m := gaugeSize.FindStringSubmatch(size); m != nil {
		return slices.Contains(soldAWG, m[1])
	}
	return false
}

// Whatever validation lets through: every end has a name that a shop sells, a stud that its lug fits, or a note
// that says it does not; every cable goes through its conduit, its clip and its hole.
func TestEveryPartCanBeBought(t *testing.T) {
	count := jobtest.Fewer(400, 20)
	ends := 0
	for seed := range uint64(count) {
		doc, problems := job.Decode(jobtest.Random(rand.New(rand.NewPCG(seed, 193))))
		require.Empty(t, problems)
		d := design.Of(doc, parts.Stock())
		pack := pack.New(d, pack.Workshop{})
		noted := slices.Contains(jobtest.NoteIDs(pack.Plan), "stud.lug")
		for _, w := range pack.Leads {
			size, err := cable.Parse(w.Size)
			require.NoError(t, err, "seed %d: %s", seed, w.Size)
			for _, lug := range []string{w.From.Lug, w.To.Lug} {
				ends++
				if m := lugged.FindStringSubmatch(lug); m != nil {
					assert.True(t, sold(m[1]), "seed %d: %s", seed, lug)
					assert.True(t, size.AreaMM2 <= 1.02*studsMost[m[2]] || noted, "seed %d: %s on %s, and no note", seed, w.Size, m[2])
					continue
				}
				m := sized.FindStringSubmatch(lug)
				if assert.NotNil(t, m, "seed %d: nobody sells “%s”", seed, lug) {
					assert.True(t, sold(m[1]), "seed %d: %s", seed, lug)
				}
			}
			_, outer := size.DiameterMM()
			if w.Conduit > 0 && w.Conduit < 40 && size.Count == 1 {
				assert.Greater(t, w.Conduit, outer, "seed %d: %s in its conduit", seed, w.Number)
			}
			if w.Hole > 0 {
				assert.Greater(t, w.Hole, max(w.Conduit, outer), "seed %d: %s through its hole", seed, w.Number)
			}
			if w.Clip > 0 && w.Clip < 50 {
				assert.GreaterOrEqual(t, w.Clip, max(w.Conduit, outer), "seed %d: %s in its clip", seed, w.Number)
			}
		}
		for _, l := range pack.Parts.Lines {
			assert.NotRegexp(t, `\d\.\d{4,}`, l.What+" "+strconv.FormatFloat(l.Count, 'g', -1, 64), "seed %d", seed)
			assert.Positive(t, l.Count, "seed %d: %s", seed, l.What)
			assert.NotContains(t, l.What, "holder for a breaker", "seed %d", seed)
		}
		for _, data := range [][]byte{export.WiresCSV(pack.Leads, unit.Metric), export.CutsCSV(pack.Cuts, unit.Metric),
			export.PartsCSV(pack.Parts, unit.Metric)} {
			assert.NotRegexp(t, `\d\.\d{5,}`, string(data), "seed %d: noise in a file", seed)
		}
	}
	assert.Greater(t, ends, 10*count)
}
