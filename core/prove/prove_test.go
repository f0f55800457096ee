package prove_test

import (
	"math"
	"math/rand/v2"
	"slices"
	"sort"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/design"
	"epitrope/core/fault"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/prove"
	"epitrope/internal/jobtest"
	"epitrope/internal/standin"
	"epitrope/testdata"
)

// proofs are of every job that stands here and has nothing that stops it.
func proofs(t *testing.T, most int) (list []*prove.Proof, of []*design.Design, names []string) {
	t.Helper()
	documents, err := testdata.Documents()
	require.NoError(t, err)
	all := []string{}
	for name := range documents {
		all = append(all, name)
	}
	sort.Strings(all)
	rng := rand.New(rand.NewPCG(1, 22))
	rng.Shuffle(len(all), func(i, j int) { all[i], all[j] = all[j], all[i] })
	for _, name := range all {
		if len(list) == most {
			break
		}
		doc, problems := job.Decode(documents[name])
		require.Empty(t, problems)
		d := design.Of(doc, parts.Stock())
		if p := prove.Of(d); len(p.Stops) == 0 {
			list, of, names = append(list, p), append(of, d), append(names, name)
		}
	}
	return list, of, names
}

// proved takes the readings of a vehicle in their order.
func proved(p *prove.Proof, v *standin.Vehicle) prove.Findings {
	var taken []prove.Taken
	take := func(of func(prove.Reading) bool) prove.Findings {
		for _, r := range p.Readings {
			if of(r) {
				value, ok := v.Reads(r)
				taken = append(taken, prove.Taken{ID: r.ID, Value: value, Jumps: !ok})
			}
		}
		return p.Judge(taken)
	}
	first := take(func(r prove.Reading) bool { return r.Of == "" })
	if len(first.Causes) == 0 {
		return first
	}
	return take(func(r prove.Reading) bool { // a stretch that is out is read piece by piece
		_, asked := first.Bands[r.ID]
		return r.Of != "" && asked
	})
}

// Of sound vehicles, drawn wider and otherwise than the bands are, 92 to 98 of 100 readings are likely and at least 99.5 possible.
func TestSoundVehiclesAreAsExpected(t *testing.T) {
	list, of, names := proofs(t, jobtest.Fewer(40, 25))
	likely, possible, all, off := 0, 0, 0, map[string]int{}
	whole := 0
	for i, p := range list {
		for seed := range uint64(5) {
			good := true
			for _, v := range proved(p, standin.Build(of[i], p, 100*uint64(i)+seed)).Verdicts {
				all++
				switch v.Level {
				case prove.AsExpected:
					likely++
					possible++
				case prove.JustOut:
					possible++
					off[v.ID]++
				default:
					good = false
					off[v.ID]++
					t.Logf("%s seed %d: %s %v %v", names[i], seed, v.ID, v.Value, v.Band)
				}
			}
			if good {
				whole++
			}
		}
	}
	share := func(n, of int) float64 { return 100 * float64(n) / float64(of) }
	t.Logf("%d readings: %.1f %% likely, %.2f %% possible; %.1f %% of %d vehicles have nothing out; out: %v", all, share(likely, all),
		share(possible, all), share(whole, 5*len(list)), 5*len(list), off)
	assert.InDelta(t, 95, share(likely, all), 3)
	assert.GreaterOrEqual(t, share(possible, all), 99.5)
	assert.GreaterOrEqual(t, share(whole, 5*len(list)), 97.0)
}

// costs says whether a fault costs what anybody should notice: a fifth of a volt, a tenth of the current, or safety.
func costs(p *prove.Proof, sound, faulty *standin.Vehicle) bool {
	if faulty.Fault().Dangerous() && faulty.Fault().Least == 0 {
		return true
	}
	for _, r := range p.Readings {
		if r.Station != prove.FastIdle {
			continue
		}
		was, a := sound.Exact(r)
		is, b := faulty.Exact(r)
		switch {
		case a != b:
			return true
		case r.Unit == prove.Amps && math.Abs(is-was) > 0.1*math.Abs(was) && math.Abs(was) > 2, r.Drop && math.Abs(is-was) > 0.2:
			return true
		}
	}
	return false
}

// Faults of any size that costs something are noticed, and named among the first three.
func TestFaultsAreNoticedAndNamed(t *testing.T) {
	list, of, names := proofs(t, jobtest.Fewer(20, 4))
	noticed, named, all, missed := 0, 0, 0, map[string]int{}
	for i, p := range list {
		faults := fault.Of(of[i])
		r := rand.New(rand.NewPCG(uint64(i), 40))
		r.Shuffle(len(faults), func(a, b int) { faults[a], faults[b] = faults[b], faults[a] })
		tried := 0
		for k, f := range faults {
			if tried == 12 {
				break
			}
			seed := 1000*uint64(i) + uint64(k)
			size := f.Size(r.Float64())
			faulty := standin.Build(of[i], p, seed).With(f, size)
			if !costs(p, standin.Build(of[i], p, seed), faulty) {
				continue
			}
			tried++
			all++
			outcome := proved(p, faulty)
			wrong := slices.ContainsFunc(outcome.Verdicts, func(v prove.Meaning) bool {
				return v.Level == prove.Out ||
					v.Level == prove.Impossible
			})
			if wrong {
				noticed++
			} else {
				missed[string(f.Kind)]++
				t.Logf("%s: %s of %.3g %s is not noticed", names[i], f.ID, size, f.Unit)
			}
			assert.True(t, wrong || !f.Dangerous() || f.Least > 0, "%s: %s is dangerous and not noticed", names[i], f.ID)
			at := slices.IndexFunc(outcome.Causes, func(c prove.Cause) bool { return c.ID == f.ID || slices.Contains(c.Same, f.ID) })
			if at >= 0 && at < 3 {
				named++
			} else if wrong {
				missed["named "+string(f.Kind)]++
			}
		}
	}
	share := func(n int) float64 { return 100 * float64(n) / float64(all) }
	t.Logf("%d faults: %.1f %% noticed, %.1f %% among the first three; %v", all, share(noticed), share(named), missed)
	assert.GreaterOrEqual(t, share(noticed), 95.0)
	assert.GreaterOrEqual(t, share(named), 90.0)
}

func proof(t *testing.T, document string) *prove.Proof {
	t.Helper()
	return prove.Of(jobtest.Design(t, document))
}

const relay = `{"alternator":{"label":"80/140 A","regulation":"fixed","knownBy":"test","volts":14.3},"aux":{"chemistry":"agm",
	"capacityAh":100},"use":{"dailyAh":20},"routes":{"startM":1,"auxM":2},"pins":{"coupling":"vsr"}}`

// A simple relay job takes at most sixteen readings; a stretch is read end to end, its pieces only where it is out.
func TestASimpleRelayTakesSixteenReadings(t *testing.T) {
	p := proof(t, relay)
	require.Empty(t, p.Stops)
	whole := slices.DeleteFunc(slices.Clone(p.Readings), func(r prove.Reading) bool { return r.Of != "" })
	looks := slices.DeleteFunc(slices.Clone(whole), func(r prove.Reading) bool { return r.Unit != prove.Seen })
	t.Logf("%d readings, and %d looks", len(whole)-len(looks), len(looks))
	assert.LessOrEqual(t, len(whole)-len(looks), 16)
	out := p.Judge(nil)
	assert.Len(t, out.Bands, len(whole))
	assert.Equal(t, whole[0].ID, out.Next)
	bad := p.Judge([]prove.Taken{{ID: "lost-start", Value: 1.5}})
	assert.Contains(t, bad.Bands, "across-f1-out")
	assert.NotContains(t, bad.Bands, "across-f2-out", "that stretch is not out")
}

// Readings narrow what follows: with the current known, a drop's band is under two fifths of its value, or 10 mV.
func TestBandsAreNarrowedByWhatWasRead(t *testing.T) {
	list, of, _ := proofs(t, 12)
	widths := []float64{}
	for i, p := range list {
		v := standin.Build(of[i], p, 77)
		taken := []prove.Taken{}
		for _, r := range p.Readings {
			if r.Of != "" {
				continue
			}
			if b := p.Judge(taken).Bands[r.ID]; r.Drop {
				width := b.Likely[1] - b.Likely[0]
				if width > 0.010 {
					widths = append(widths, width/math.Abs(b.Middle))
				}
			}
			value, ok := v.Reads(r)
			taken = append(taken, prove.Taken{ID: r.ID, Value: value, Jumps: !ok})
		}
	}
	sort.Float64s(widths)
	t.Logf("median width of %d bands of more than 10 mV: %.0f %%", len(widths), 100*widths[len(widths)/2])
	assert.Less(t, widths[len(widths)/2], 0.40)
	p := proof(t, relay)
	before := p.Judge(nil).Bands["aux-charge"]
	after := p.Judge([]prove.Taken{{ID: "start-running", Value: 14.25}, {ID: "charge", Value: 20}}).Bands["aux-charge"]
	assert.Less(t, after.Likely[1]-after.Likely[0], 0.8*(before.Likely[1]-before.Likely[0]))
}

// The meter's range holds what is expected.
func TestRangesHoldWhatIsExpected(t *testing.T) {
	for volts, most := range map[string]float64{"12": 20, "24": 60} {
		p := proof(t, `{"vehicle":{"systemVolts":`+volts+`},"alternator":{"label":"120/200 A"},"aux":{"chemistry":"agm","capacityAh":100},`+
			`"use":{"dailyAh":20}}`)
		require.NotEmpty(t, p.Readings, volts)
		for id, b := range p.Judge(nil).Bands {
			if r, _ := p.Reading(id); r.Unit == prove.Volts && !r.Drop {
				assert.Less(t, b.Possible[1], most, id)
				assert.True(t, strings.HasPrefix(r.Range, map[string]string{"12": "20 V", "24": "60 V"}[volts]), "%s: %s", id, r.Range)
			}
		}
	}
}
