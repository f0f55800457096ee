package study_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/study"
	"epitrope/core/verdict"
)

// shelfJob is a job that a whole shelf is held against, with what of it decides.
type shelfJob struct {
	doc       string
	chemistry string
	varies    bool    // its machine is known to vary
	steady    bool    // its machine is proven steady
	labelA    float64 // of the machine
}

func shelfJobs() (jobs []shelfJob) {
	for _, j := range []shelfJob{
		{chemistry: "agm", steady: true, labelA: 140}, {chemistry: "agm", varies: true, labelA: 140}, {chemistry: "lifepo4", varies: true,
			labelA: 180},
		{chemistry: "lifepo4", steady: true, labelA: 180}, {chemistry: "gel", steady: true, labelA: 110}, {chemistry: "flooded",
			steady: true, labelA: 140},
		{chemistry: "agm", labelA: 90}, {chemistry: "lifepo4", labelA: 220}, {chemistry: "flooded", varies: true, labelA: 110},
		{chemistry: "agm", steady: true, labelA: 200},
	} {
		regulation := ""
		if j.steady {
			regulation = `,"regulation":"fixed","knownBy":"test","volts":14.3`
		}
		if j.varies {
			regulation = `,"regulation":"variable","knownBy":"test"`
		}
		j.doc = fmt.Sprintf(`{"format":"epitrope-job","version":1,"alternator":{"label":"%.0f A"%s},"aux":{"chemistry":"%s","capacityAh":120},
			"use":{"dailyAh":20},"routes":{"startM":1.5,"auxM":2}}`, j.labelA, regulation, j.chemistry)
		jobs = append(jobs, j)
	}
	return jobs
}

// fault is one thing that may be wrong with a part, and on which jobs that must end in which verdict.
type fault struct {
	name string
	do   func(*parts.Item)
	must func(j shelfJob) verdict.Level // the best that it may get; "" where nothing is said
}

func on(level verdict.Level, when func(shelfJob) bool) func(shelfJob) verdict.Level {
	return func(j shelfJob) verdict.Level {
		if when(j) {
			return level
		}
		return ""
	}
}

func always(shelfJob) bool { return true }

// Sixty parts on ten jobs. What must come of each fault was written before it was tried; every verdict that is not good has
// a reason beside it, and a part without a fault is good wherever the job is one for it.
func TestAWholeShelf(t *testing.T) {
	chargerFaults := []fault{
		{name: "none", do: func(*parts.Item) {}},
		{name: "only for gel", do: func(i *parts.Item) { i.Profiles = []string{"gel"} },
			must: on(verdict.Bad, func(j shelfJob) bool { return j.chemistry != "gel" })},
		{name: "none in stock", do: func(i *parts.Item) { i.Stock = of(0) }, must: on(verdict.Caution, always)},
		{name: "nobody says where it stops", do: func(i *parts.Item) { i.CutOutV = nil }, must: on(verdict.Open, always)},
		{name: "nobody says its profiles", do: func(i *parts.Item) { i.Profiles = nil }, must: on(verdict.Open, always)},
		{name: "bare", do: func(i *parts.Item) { *i = parts.Item{Kind: i.Kind, Name: i.Name, RatingA: i.RatingA} }, must: on(verdict.Open,
			always)},
		{name: "stops at 13.9 V", do: func(i *parts.Item) { i.CutOutV, i.RestartV = of(13.9), of(14.2) },
			must: on(verdict.Bad, func(j shelfJob) bool { return j.varies })},
		{name: "a fuse of 5 A at most", do: func(i *parts.Item) { i.MaxFuseA = of(5) }, must: on(verdict.Bad, always)},
	}
	relayFaults := []fault{
		{name: "none", do: func(*parts.Item) {}, must: on(verdict.Bad, func(j shelfJob) bool { return j.varies })},
		{name: "bears 15 A", do: func(i *parts.Item) { i.RatingA = of(15) }, must: on(verdict.Bad, always)},
		{name: "none in stock", do: func(i *parts.Item) { i.Stock = of(0) }, must: on(verdict.Caution, always)},
		{name: "nobody says when it joins", do: func(i *parts.Item) { i.CutInV = nil }, must: on(verdict.Open, always)},
		{name: "joins at 14.8 V", do: func(i *parts.Item) { i.CutInV, i.CutOutV = of(14.8), of(13) }, must: on(verdict.Bad, always)},
		{name: "bare", do: func(i *parts.Item) { *i = parts.Item{Kind: i.Kind, Name: i.Name, RatingA: i.RatingA} }, must: on(verdict.Open,
			always)},
	}
	var items []parts.Item
	faults := map[string]fault{}
	put := func(i parts.Item, f fault) {
		i.Name = fmt.Sprintf("%s %.0f, %s", i.Name, *i.RatingA, f.name)
		if f.do != nil {
			f.do(&i)
		}
		items, faults[i.Key()] = append(items, i), f
	}
	for _, a := range []float64{10, 20, 30, 40, 50} {
		for _, f := range chargerFaults {
			i := whole("Heron", a)
			i.Profiles = []string{"agm", "flooded", "gel", "lifepo4"}
			put(i, f)
		}
	}
	for _, a := range []float64{140, 200, 240} {
		for _, f := range relayFaults {
			put(relay(func(i *parts.Item) { i.RatingA = of(a) }), f)
		}
	}
	put(parts.Item{Kind: "contactor", Name: "Rail", RatingA: of(200), CrankA: of(900), StandbyA: of(0.4), Terminals: "M8"},
		fault{must: on(verdict.Bad, func(j shelfJob) bool { return j.varies })})
	put(parts.Item{Kind: "contactor", Name: "Wren", RatingA: of(12), CrankA: of(900), StandbyA: of(0.4)}, fault{must: on(verdict.Bad, always)})
	require.Len(t, items, 60)

	best := []verdict.Level{verdict.Good, verdict.Open, verdict.Caution, verdict.Bad}
	at := func(l verdict.Level) int {
		for i, b := range best {
			if l == b {
				return i
			}
		}
		return -1
	}
	good := map[string]int{}
	for n, j := range shelfJobs() {
		doc, problems := job.Decode([]byte(j.doc))
		require.Empty(t, problems)
		shelf := study.ShelfOf(design.Of(doc, parts.Stock()), items, nil)
		require.Len(t, shelf.Chargers, 40)
		require.Len(t, shelf.Others, 20)
		check := func(key string, level verdict.Level, reasons int) {
			f := faults[key]
			if level == verdict.Good {
				good[f.name]++
			} else {
				assert.Positive(t, reasons, "job %d: %s is %s without a reason", n, key, level)
			}
			if f.must != nil && f.must(j) != "" {
				assert.GreaterOrEqual(t, at(level), at(f.must(j)), "job %d: %s is %s", n, key, level)
			}
		}
		for _, s := range shelf.Chargers {
			check(s.Key, s.Sizing.Level, len(s.Sizing.Against)+len(s.Unsaid))
		}
		for _, o := range shelf.Others {
			check(o.Key, o.Level, len(o.Against)+len(o.Unsaid))
		}
	}
	assert.Greater(t, good["none"], 20, "what is sound is good on many jobs")
}

// Sixty parts: aim 300 ms on two processors.
func BenchmarkShelf60(b *testing.B) {
	var items []parts.Item
	for n := range 60 {
		if n%3 == 0 {
			items = append(items, relay(func(i *parts.Item) { i.Name = fmt.Sprint(n) }))
		} else {
			items = append(items, whole(fmt.Sprint(n), 10+float64(n)))
		}
	}
	doc, _ := job.Decode([]byte(agm))
	d := design.Of(doc, parts.Stock())
	for b.Loop() {
		study.ShelfOf(d, items, nil)
	}
}
