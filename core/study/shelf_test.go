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

// stops are those of a plan that are about the run.
func stops(d *design.Design) (list []string) {
	for _, n := range judge.Notes(d) {
		if n.Severity == verdict.Stop && slices.Contains(append(onTheWay, "coupling"), n.Column) && n.Column != "x1" && n.Column != "return" {
			list = append(list, n.Text)
		}
	}
	return list
}

func of(v float64) *float64 { return &v }

// whole is a charger whose card says everything.
func whole(name string, outputA float64) parts.Item {
	return parts.Item{Kind: "charger", Name: name, RatingA: of(outputA), Efficiency: of(92), CutOutV: of(11), RestartV: of(12.6),
		MaxFuseA: of(3 * outputA),
		StandbyA: of(0.01), MaxAmbientC: of(60), Profiles: []string{"agm", "lifepo4"}, Price: of(10 * outputA), Currency: "EUR", Stock: of(2),
		VoltsIn: []string{"12"}, VoltsOut: []string{"12"}, WakesBy: "either", Isolated: "no", Terminals: "M8", LargestSize: "70 mm²",
		Has: []string{"disable", "solar"}}
}

func held(t *testing.T, doc string, items ...parts.Item) []study.Shelved {
	t.Helper()
	d, problems := job.Decode([]byte(doc))
	require.Empty(t, problems)
	shelf := study.ShelfOf(design.Of(d, parts.Stock()), items, nil)
	assert.Zero(t, shelf.Left)
	return shelf.Chargers
}

const agm = `{"format":"epitrope-job","version":1,"alternator":{"label":"120/200 A"},"aux":{"chemistry":"agm",` +
	`"capacityAh":100},"use":{"dailyAh":20}}`

func TestTheShelfSaysWhatFitsAndWhyNot(t *testing.T) {
	for _, c := range []struct {
		name   string
		change func(*parts.Item)
		level  verdict.Level
		says   string
	}{
		{"as it is", func(*parts.Item) {}, verdict.Good, ""},
		{"stops where the run never comes", func(i *parts.Item) { i.CutOutV = of(13) }, verdict.Bad, "stops below 13.0 V"},
		{"no profile", func(i *parts.Item) { i.Profiles = []string{"gel", "lifepo4"} }, verdict.Bad, "no profile for AGM"},
		{"none there", func(i *parts.Item) { i.Stock, i.LeadDays = of(0), of(5) }, verdict.Caution, "none in stock"},
		{"hot place", func(i *parts.Item) { i.MaxAmbientC = of(20) }, verdict.Caution, "in the heat of its place it gives"},
		{"its fuse is too small", func(i *parts.Item) { i.MaxFuseA = of(10) }, verdict.Bad, "its sheet allows 10 A"},
		{"for another vehicle", func(i *parts.Item) { i.VoltsIn = []string{"24"} }, verdict.Bad, "it is for 24 V, and this vehicle has 12 V"},
		{"for another battery", func(i *parts.Item) { i.VoltsOut = []string{"24"} }, verdict.Bad, "the aux battery is of 12 V"},
		{"for both", func(i *parts.Item) { i.VoltsIn, i.VoltsOut = []string{"12", "24"}, []string{"12", "24"} }, verdict.Good, ""},
		{"knows by voltage alone", func(i *parts.Item) { i.WakesBy = "voltage" }, verdict.Caution, "by the voltage alone"},
		{"two minus apart", func(i *parts.Item) { i.Isolated = "yes" }, verdict.Caution, "isolated from each other"},
		{"small clamps", func(i *parts.Item) { i.Terminals, i.LargestSize = "clamps", "4 mm²" }, verdict.Caution, "clamps take 4 mm²"},
		{"small studs", func(i *parts.Item) { i.Terminals, i.LargestSize = "M5", "" }, verdict.Open, ""},
		{"too much for a card", func(i *parts.Item) { i.RatingA = of(600) }, verdict.Bad, "600"},
	} {
		item := whole("Lapwing", 20)
		c.change(&item)
		list := held(t, agm, item)
		require.Len(t, list, 1)
		assert.Equal(t, c.level, list[0].Sizing.Level, "%s: %v", c.name, list[0].Sizing.Against)
		assert.Contains(t, fmt.Sprint(list[0].Sizing.Against), c.says, c.name)
		if c.level != verdict.Open {
			assert.Empty(t, list[0].Unsaid, c.name)
		}
	}
}

// What a job counts on in a charger is missed where its sheet says that it is not there, and open where nobody says.
func TestWhatIsInACharger(t *testing.T) {
	const sun = `{"format":"epitrope-job","version":1,"alternator":{"label":"120/200 A"},"aux":{"chemistry":"agm","capacityAh":100},` +
		`"use":{"dailyAh":20},"solar":{"through":"yes"},"day":{"solarW":200}}`
	const lithium = `{"format":"epitrope-job","version":1,"alternator":{"label":"120/200 A"},"aux":{"chemistry":"lifepo4","capacityAh":100},` +
		`"use":{"dailyAh":20},"profile":{"disable":"yes"}}`
	for _, c := range []struct {
		doc  string
		has  []string
		bad  bool
		says string
	}{
		{sun, []string{"solar"}, false, ""}, {sun, []string{"none"}, true, "no regulator"}, {sun, []string{"probe"}, true, "no regulator"},
		{sun, nil, false, "what is in it besides"}, {agm, []string{"none"}, false, ""}, {agm, nil, false, ""},
		{lithium, []string{"disable"}, false, ""}, {lithium, []string{"solar"}, true, "no input for one"},
		{lithium, nil, false, "what is in it besides"},
	} {
		item := whole("Lapwing", 20)
		item.Has = c.has
		one := held(t, c.doc, item)[0]
		assert.Equal(t, c.bad, one.Sizing.Level == verdict.Bad, "%s %v: %v", c.doc, c.has, one.Sizing.Against)
		assert.Contains(t, fmt.Sprint(one.Sizing.Against, one.Unsaid), c.says, "%v", c.has)
		if c.says == "" {
			assert.NotContains(t, fmt.Sprint(one.Unsaid), "besides", "%v", c.has)
		}
	}
}

// A charger that has to be told is none for a job that brings it no signal; what a card says of its terminals goes into the plan.
func TestASheetsWordsGoIntoThePlan(t *testing.T) {
	const byVoltage = `{"format":"epitrope-job","version":1,"alternator":{"label":"120/200 A","regulation":"fixed","knownBy":"test"},` +
		`"aux":{"chemistry":"agm","capacityAh":100},"use":{"dailyAh":20},"day":{"trigger":"voltage"}}`
	item := whole("Lapwing", 20)
	item.WakesBy = "signal"
	one := held(t, byVoltage, item)[0]
	assert.Equal(t, verdict.Bad, one.Sizing.Level)
	assert.Contains(t, fmt.Sprint(one.Sizing.Against), "it waits for a signal")

	item.WakesBy, item.Terminals = "voltage", "M8"
	doc, _ := job.Decode([]byte(agm))
	taken, problems := job.With(doc, held(t, agm, item)[0].Sizing.Changes)
	require.Empty(t, problems)
	d := design.Of(taken, parts.Stock())
	assert.True(t, d.ByVoltage())
	charger, _ := d.System.Component("coupling")
	assert.Equal(t, "M8", charger.Stud())
	assert.Zero(t, d.Charger.ClampMM2())
}

// What a card does not say is named with what is reckoned in its stead, and is never good.
func TestWhatACardDoesNotSayIsOpen(t *testing.T) {
	for name, drop := range map[string]func(*parts.Item){
		"where it stops: 11.8 V":        func(i *parts.Item) { i.CutOutV = nil },
		"how hot its place may be":      func(i *parts.Item) { i.MaxAmbientC = nil },
		"where it begins again: 12.5 V": func(i *parts.Item) { i.RestartV = nil },
		"its efficiency":                func(i *parts.Item) { i.Efficiency = nil }, "the largest fuse": func(i *parts.Item) { i.MaxFuseA = nil },
		"how it knows that the engine runs": func(i *parts.Item) { i.WakesBy = "" },
		"whether its two minus are joined":  func(i *parts.Item) { i.Isolated = "" },
		"how thick a cable":                 func(i *parts.Item) { i.LargestSize = "" },
		"what its cables go on":             func(i *parts.Item) { i.Terminals = "" },
		"whether it has a profile for AGM":  func(i *parts.Item) { i.Profiles = nil },
	} {
		item := whole("Lapwing", 20)
		drop(&item)
		one := held(t, agm, item)[0]
		require.Len(t, one.Unsaid, 1, name)
		assert.Contains(t, one.Unsaid[0], name)
		assert.Equal(t, verdict.Open, one.Sizing.Level)
	}
	in24 := held(t, `{"format":"epitrope-job","version":1,"vehicle":{"systemVolts":24},"alternator":{"label":"100 A"},`+
		`"aux":{"chemistry":"agm","capacityAh":100}}`,
		func() parts.Item { i := whole("Lapwing", 20); i.VoltsIn, i.VoltsOut = nil, nil; return i }())[0]
	assert.Contains(t, fmt.Sprint(in24.Unsaid), "made for 24 V in", "a card is of 12 V")
	assert.Contains(t, fmt.Sprint(in24.Unsaid), "made for 24 V out")
}

// Those that fit come first, and of them the cheapest; other things of the book are none of them.
func TestTheShelfsOrder(t *testing.T) {
	dear, cheap, wrong := whole("Dear", 20), whole("Cheap", 20), whole("Wrong", 20)
	dear.Price, cheap.Price, wrong.Profiles = of(300), of(100), []string{"gel"}
	list := held(t, agm, dear, wrong, parts.Item{Kind: "fuse", Name: "a fuse", RatingA: of(30)}, cheap)
	names := []string{}
	for _, s := range list {
		names = append(names, s.Item.Name)
	}
	assert.Equal(t, []string{"Cheap", "Dear", "Wrong"}, names)
}

// Sixty chargers of anybody's shelf on jobs of any kind: one that is not refused is planned with its own card,
// sees what it needs at its input, and has before it no fuse that its sheet forbids.
func TestSixtyChargersOnAnyJob(t *testing.T) {
	rng := rand.New(rand.NewPCG(60, 21))
	var items []parts.Item
	for n := range 60 {
		one := whole(fmt.Sprintf("number %d", n), 5+float64(rng.IntN(100)))
		one.CutOutV, one.MaxFuseA = of(9+4*rng.Float64()), of(10+150*rng.Float64())
		one.MaxAmbientC, one.Efficiency = of(20+float64(rng.IntN(90))), of(50+float64(rng.IntN(49)))
		items = append(items, one)
	}
	fits := 0
	jobs := [][]byte{[]byte(agm), []byte(`{"format":"epitrope-job","version":1,"vehicle":{"kind":"tow-caravan"},` +
		`"aux":{"chemistry":"lifepo4"}}`)}
	for seed := range uint64(3) {
		jobs = append(jobs, jobtest.Random(rand.New(rand.NewPCG(seed, 2160))))
	}
	for seed, document := range jobs {
		doc, problems := job.Decode(document)
		require.Empty(t, problems)
		shelf := study.ShelfOf(design.Of(doc, parts.Stock()), items, nil)
		require.Len(t, shelf.Chargers, 60, "job %d", seed)
		for _, s := range shelf.Chargers {
			if s.Sizing.Level == verdict.Bad {
				assert.NotEmpty(t, s.Sizing.Against, "job %d: %s", seed, s.Key)
				continue
			}
			fits++
			taken, problems := job.With(doc, s.Sizing.Changes)
			require.Empty(t, problems)
			d := design.Of(taken, parts.Stock())
			assert.True(t, d.Kind.Charger())
			assert.InDelta(t, *s.Item.RatingA, d.Charger.OutputA, 1e-9, "job %d: %s", seed, s.Key)
			for _, state := range d.States {
				if state.Kind == design.Charging && !state.Sags && state.OutA > 1 {
					assert.GreaterOrEqual(t, state.InV, *s.Item.CutOutV*d.Facts.N-0.005, "job %d: %s in %s", seed, s.Key, state.ID)
				}
			}
			if d.Start.Fuse.RatingA > *s.Item.MaxFuseA {
				assert.Contains(t, fmt.Sprint(s.Sizing.Against), "its sheet allows", "job %d: %s", seed, s.Key)
			}
			assert.Empty(t, stops(d), "job %d: %s", seed, s.Key)
		}
	}
	assert.Positive(t, fits)
	many := slices.Repeat(items, 5)
	doc, _ := job.Decode([]byte(agm))
	assert.Equal(t, 100, study.ShelfOf(design.Of(doc, parts.Stock()), many, nil).Left, "three hundred are not looked at all")
}
