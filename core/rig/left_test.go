package rig_test

import (
	"fmt"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/day"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/rig"
	"epitrope/internal/jobtest"
)

// Hours until a start battery is half empty with something left on agree with a day of the same job,
// parked, stepped finely, whose own verdict says when it is below half.
func TestLeftOnAgreesWithTheDay(t *testing.T) {
	jobs := []string{
		`{"day":{"trigger":"switch"},"pins":{"chargerA":10}}`,
		`{"startBattery":{"capacityAh":72},"day":{"trigger":"switch"},"pins":{"chargerA":25}}`,
		`{"aux":{"chemistry":"agm","capacityAh":600},"day":{"trigger":"switch"},"pins":{"chargerA":10,"startSize":"50 mm2"}}`,
		`{"aux":{"chemistry":"agm","capacityAh":600},"day":{"trigger":"switch"},"pins":{"chargerA":10,"startSize":"4 mm2"}}`,
		`{"aux":{"chemistry":"agm","place":"seat"},"day":{"trigger":"switch"},"pins":{"coupling":"contactor"}}`,
		`{"aux":{"chemistry":"lifepo4","place":"seat"},"day":{"trigger":"switch"},"pins":{"coupling":"contactor"}}`,
		`{"vehicle":{"systemVolts":24},"aux":{"chemistry":"gel","capacityAh":100},"day":{"trigger":"switch"},"pins":{"chargerA":10}}`,
		`{"vehicle":{"asleepA":0.5},"aux":{"chemistry":"agm","capacityAh":200},"day":{"trigger":"switch"},"pins":{"chargerA":15}}`,
	}
	count := jobtest.Fewer(300, 15)
	for i := range count {
		jobs = append(jobs, string(jobtest.Random(rand.New(rand.NewPCG(uint64(i), 18)))))
	}
	compared := 0
	for i, text := range jobs {
		doc, problems := job.Decode([]byte(text))
		require.Empty(t, problems)
		trigger := "switch"
		doc.Day.Trigger = &trigger
		d := design.Of(doc, parts.Stock())
		left := rig.NewLeaving(d).Live(design.KeyOut)
		halfH, ran := parkedToHalf(d)
		if !ran {
			continue
		}
		said := fmt.Sprintf("job %d: %s; run through time %.1f h", i, left.Says, halfH)
		if halfH > 0 {
			compared++
		}
		if left.HalfH > rig.LeftH {
			left.HalfH = 0 // the day ended before
		}
		within := halfH / 30
		if left.Begins >= 1000 {
			within = halfH / 3 // reckoned from there on
		}
		if left.NoStartAt >= 0.9 {
			continue // it says that, and no hours
		}
		assert.InDelta(t, halfH, left.HalfH, 0.1+within, said)
	}
	assert.Greater(t, compared, count/3)
}

// parkedToHalf runs a design parked with its signal live and says when its start battery is at risk; 0
// where it never is.
func parkedToHalf(d *design.Design) (hours float64, ran bool) {
	r := rig.Of(d, rig.Nominal)
	r.Start.SOC, r.Aux.SOC, r.Solar = 0.9, 0.75, nil
	if d.Kind.Charger() {
		r.Aux.SOC = 0.5
	}
	if d.Is.Senses {
		r.Join.By = day.Always
	}
	got, err := day.Run(r, day.Pattern{{Kind: day.Park, Seconds: 3600 * rig.LeftH}}, day.Conditions{OutsideC: 20}, day.Options{})
	return max(0, got.Verdict.RiskAtS/3600), err == nil
}
