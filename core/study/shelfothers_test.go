package study_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/study"
	"epitrope/core/verdict"
)

// steady is a job that a voltage-sensing relay does for: a proven fixed machine, lead on both sides, a short way.
const steady = `{"format":"epitrope-job","version":1,"alternator":{"label":"80/140 A","regulation":"fixed","knownBy":"test","volts":14.3},
	"aux":{"chemistry":"flooded","capacityAh":100,"place":"bonnet"},"use":{"dailyAh":20},"routes":{"startM":0.6,"auxM":1.2},
	"fit":{"recessLengthMM":340,"recessWidthMM":180,"recessHeightMM":260,
	"openingLengthMM":400,"openingWidthMM":250,"aboveMM":400}}`

func relay(change func(*parts.Item)) parts.Item {
	i := parts.Item{Kind: "relay", Name: "Dunnock", RatingA: of(140), CutInV: of(13.3), CutOutV: of(12.8), CrankA: of(400), Price: of(60),
		Currency: "EUR", Stock: of(2), VoltsIn: []string{"12"}, Terminals: "M8"}
	change(&i)
	return i
}

func accumulator(change func(*parts.Item)) parts.Item {
	i := parts.Item{Kind: "battery", Name: "Moorhen", CapacityAh: of(110), Profiles: []string{"flooded"}, LengthMM: of(330), WidthMM: of(172),
		HeightMM: of(220), WeightKg: of(27), Price: of(150), Currency: "EUR", Stock: of(1)}
	change(&i)
	return i
}

func breaker(ratedA, breaksA float64) parts.Item {
	i := parts.Item{Kind: "breaker", Name: "Plover", RatingA: of(ratedA), Stock: of(1)}
	if breaksA > 0 {
		i.BreaksA = of(breaksA)
	}
	return i
}

// Written before the code: what a workshop is told of each, and by which word.
func TestTheShelfHoldsJoinsAndBatteriesToo(t *testing.T) {
	with := func(doc, more string) string { return strings.TrimSuffix(doc, "}") + "," + more + "}" }
	for _, c := range []struct {
		name  string
		doc   string
		item  parts.Item
		level verdict.Level
		says  string
	}{
		{"a relay that does", steady, relay(func(*parts.Item) {}), verdict.Good, ""},
		{"too small for what flows", steady, relay(func(i *parts.Item) { i.RatingA = of(20) }), verdict.Bad, "20 A"},
		{"joins above what the machine gives", steady, relay(func(i *parts.Item) { i.CutInV, i.CutOutV = of(14.7), of(13) }), verdict.Bad,
			"14.7 V"},
		{"nobody says when it joins", steady, relay(func(i *parts.Item) { i.CutInV = nil }), verdict.Open, "when it joins"},
		{"none there", steady, relay(func(i *parts.Item) { i.Stock = of(0) }), verdict.Caution, "none in stock"},
		{"for another vehicle", steady, relay(func(i *parts.Item) { i.VoltsIn = []string{"24"} }), verdict.Bad, "it is for 24 V"},
		{"nobody says what its cables go on", steady, relay(func(i *parts.Item) { i.Terminals = "" }), verdict.Open, "its cables go on"},
		{"terminals that are too small", with(steady, `"pins":{"startSize":"50 mm2"}`), relay(func(i *parts.Item) { i.Terminals = "M5" }),
			verdict.Caution, "terminals take 35 mm²"},
		{"a battery of 24 V", steady, accumulator(func(i *parts.Item) { i.VoltsIn = []string{"24"} }), verdict.Bad, "the aux side has 12 V"},
		{"a machine that varies", with(steady, `"vehicle":{"euro56":"yes"},"pins":{}`), relay(func(*parts.Item) {}), verdict.Good, ""},
		{"parts above where it joins", steady, relay(func(i *parts.Item) { i.CutInV, i.CutOutV = of(12.8), of(13.3) }), verdict.Bad, ""},
		{"a contactor", steady, parts.Item{Kind: "contactor", Name: "Rail", RatingA: of(200), CrankA: of(900)}, verdict.Open, "coil"},
		{"a contactor that is too small", steady, parts.Item{Kind: "contactor", Name: "Wren", RatingA: of(15), StandbyA: of(0.3),
			CrankA: of(900)},
			verdict.Bad, "15 A"},
		{"a breaker that does", steady, breaker(100, 3000), verdict.Good, ""},
		{"a breaker that opens under its load", steady, breaker(15, 3000), verdict.Bad, ""},
		{"a breaker that cannot break a short", steady, breaker(100, 60), verdict.Bad, "it breaks 0.1 kA"},
		{"nobody says what it breaks", steady, breaker(100, 0), verdict.Open, "what it breaks"},
		{"no breaker has that rating", steady, breaker(77, 3000), verdict.Bad, "77"},
		{"a battery that does", steady, accumulator(func(*parts.Item) {}), verdict.Good, ""},
		{"too long for its recess", steady, accumulator(func(i *parts.Item) { i.LengthMM = of(400) }), verdict.Bad, "400 × 172 mm"},
		{"too high", steady, accumulator(func(i *parts.Item) { i.HeightMM = of(270) }), verdict.Bad, "270 mm high"},
		{"nobody says how large it is", steady, accumulator(func(i *parts.Item) { i.LengthMM = nil }), verdict.Open, "how large"},
		{"too small for a day", steady, accumulator(func(i *parts.Item) { i.CapacityAh = of(15) }), verdict.Bad, ""},
		{"lithium that a relay joins", with(steady, `"pins":{"coupling":"vsr"}`),
			accumulator(func(i *parts.Item) { i.Profiles = []string{"lifepo4"} }), verdict.Bad, ""},
		{"nobody says what it is", steady, accumulator(func(i *parts.Item) { i.Profiles = nil }), verdict.Open, "what it is made of"},
	} {
		doc, problems := job.Decode([]byte(c.doc))
		require.Empty(t, problems, c.name)
		shelf := study.ShelfOf(design.Of(doc, parts.Stock()), []parts.Item{c.item}, nil)
		require.Len(t, shelf.Others, 1, c.name)
		got := shelf.Others[0]
		assert.Equal(t, c.level, got.Level, "%s: %v %v", c.name, got.Against, got.Unsaid)
		if c.says != "" {
			assert.Contains(t, strings.Join(append(got.Against, got.Unsaid...), "; "), c.says, c.name)
		}
		if c.level == verdict.Bad {
			assert.NotEmpty(t, got.Against, c.name)
		}
		if c.level != verdict.Good {
			continue
		}
		taken, problems := job.With(doc, got.Changes)
		require.Empty(t, problems, c.name)
		again := study.ShelfOf(design.Of(taken, parts.Stock()), []parts.Item{c.item}, nil)
		assert.True(t, again.Others[0].Now, c.name)
	}
}
