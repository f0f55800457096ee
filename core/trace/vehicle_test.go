package trace_test

import (
	"math"
	"math/rand/v2"
	"os"
	"sort"
	"strconv"
	"testing"

	"github.com/stretchr/testify/require"

	"epitrope/core/design"
	"epitrope/core/fault"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/prove"
	"epitrope/core/trace"
	"epitrope/internal/jobtest"
	"epitrope/internal/standin"
	"epitrope/testdata"
)

// documents are every job that stands here, and as many that anybody could have written.
func documents(t testing.TB, drawn int) (list []job.Document) {
	t.Helper()
	all, err := testdata.Documents()
	require.NoError(t, err)
	names := []string{}
	for name := range all {
		names = append(names, name)
	}
	sort.Strings(names)
	for _, name := range names {
		doc, problems := job.Decode(all[name])
		require.Empty(t, problems)
		list = append(list, doc)
	}
	r := rand.New(rand.NewPCG(25, seed()))
	for range drawn {
		doc, problems := job.Decode(jobtest.Random(r))
		require.Empty(t, problems)
		list = append(list, doc)
	}
	r.Shuffle(len(list), func(i, j int) { list[i], list[j] = list[j], list[i] })
	return list
}

// at is what a reading of a vehicle really is; NaN where there is none such, or where it comes to no stand.
func at(v *standin.Vehicle, id string) (float64, bool) {
	r, there := v.Proof.Reading(id)
	if !there {
		return math.NaN(), false
	}
	return v.Exact(r)
}

// owner is what an owner notices of a vehicle, by what it really does beside what it would do with nothing wrong; "" for nothing.
func owner(sound, faulty *standin.Vehicle) string {
	was, stood := at(sound, "charge")
	is, stands := at(faulty, "charge")
	warm, _ := at(faulty, "charge-warm")
	switch {
	case stood && !stands && !math.IsNaN(is):
		return "comes-and-goes"
	case was > 2 && is < 0.1*was:
		return "no-charge"
	case was > 2 && is < 0.7*was:
		return "slow-charge"
	case was > 2 && warm < 0.3*was:
		return "stops-warm"
	}
	if volts, ok := at(faulty, "start-running"); ok {
		if should, _ := at(sound, "start-running"); volts < should-0.8 {
			return "lamp"
		}
	}
	if amps, _ := at(faulty, "drain"); amps > 0.4 {
		if should, _ := at(sound, "drain"); should < 0.2 {
			return "start-flat"
		}
	}
	if amps, _ := at(faulty, "apart"); amps < -0.5 {
		if should, _ := at(sound, "apart"); should > -0.2 {
			return "house-flat"
		}
	}
	if volts, ok := at(faulty, "profile"); ok {
		if should, _ := at(sound, "profile"); volts > should+0.3 {
			return "too-high"
		}
	}
	if k, ok := at(faulty, "warmest"); ok && k > 20 {
		if should, _ := at(sound, "warmest"); should < k/2 {
			return "hot"
		}
	}
	if volts, ok := at(faulty, "aux-rest"); ok {
		if should, _ := at(sound, "aux-rest"); volts < should-0.7 {
			return "house-flat"
		}
	}
	return ""
}

// vehicle is one to be traced.
type vehicle struct {
	tr        *trace.Trace
	v         *standin.Vehicle
	complaint string
	reads     func(prove.Reading) (float64, bool)
	sound     *standin.Vehicle
	slips     int // which reading is a slip; 0 for none
	baseline  []prove.Entry
}

// wrongAnswers is how often an answer of the survey is wrong.
const wrongAnswers = 0.05

// vehicles are drawn, each with a fault of some that an installation may have, that its owner notices.
func vehicles(t *testing.T, most int, faultsOf func(*design.Design) []fault.Fault, each func(vehicle, *rand.Rand)) {
	t.Helper()
	list := documents(t, max(4, most/16))
	count := 0
	for i := 0; count < most; i++ {
		d := design.Of(list[i%len(list)], parts.Stock())
		p, tr, faults := prove.Wider(d), trace.Of(d), faultsOf(d)
		r := rand.New(rand.NewPCG(uint64(i), 2524+seed()))
		for range 3 {
			if count == most || len(faults) == 0 {
				break
			}
			for range 12 {
				f := faults[r.IntN(len(faults))]
				size, seed := f.Size(r.Float64()), r.Uint64()
				build := func() *standin.Vehicle {
					return standin.Build(d, p, seed).Misjudged(rand.New(rand.NewPCG(seed, 20)), wrongAnswers)
				}
				sound, faulty := build(), build().With(f, size)
				says := noticed(f, size, build, sound, faulty)
				if says == "" {
					continue
				}
				reads := faulty.Reads
				if seed%10 == 0 {
					reads = elsewhere(t, faulty)
				}
				count++
				each(vehicle{tr, faulty, says, reads, sound, 0, nil}, r)
				break
			}
		}
	}
}

// noticed is what an owner notices of a fault, be it always there or not.
func noticed(f fault.Fault, size float64, build func() *standin.Vehicle, sound, faulty *standin.Vehicle) string {
	if f.When != fault.ByHand {
		return owner(sound, faulty)
	}
	switch owner(sound, build().With(f.Standing(), size)) {
	case "no-charge", "slow-charge", "comes-and-goes":
		return "comes-and-goes"
	}
	return ""
}

// seed is by what vehicles are drawn: EPITROPE_SEED, or 1. Those that a change was tried on do not tell how good it is.
func seed() uint64 {
	if n, err := strconv.ParseUint(os.Getenv("EPITROPE_SEED"), 10, 64); err == nil {
		return n
	}
	return 1
}

// few is how many are tried with all tests, unless EPITROPE_VEHICLES says otherwise.
func few(all int) int {
	if n, err := strconv.Atoi(os.Getenv("EPITROPE_VEHICLES")); err == nil {
		return min(all, n)
	}
	return all
}
