package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/job"
	"epitrope/core/parts"
)

func decoded(t *testing.T, text string) job.Document {
	t.Helper()
	doc, problems := job.Decode([]byte(text))
	require.Empty(t, problems)
	return doc
}

// What was fitted stands in the place of what was designed, in any unit; the design itself
// is left as it is, and what cannot be used is named and stays as designed.
func TestAsBuilt(t *testing.T) {
	doc := decoded(t, `{"routes":{"startM":5},"pins":{"startSize":"16 mm²"},"built":{"routes/startM":"18 ft","pins/startFuseA":"100",`+
		`"pins/startSize":"6 AWG"}}`)
	built, problems := doc.AsBuilt()
	require.Empty(t, problems)
	assert.InDelta(t, 5.49, *built.Routes.StartM, 0.01)
	assert.Equal(t, 100.0, *built.Pins.StartFuseA)
	assert.Equal(t, "6 AWG", *built.Pins.StartSize)
	assert.Nil(t, built.Built)
	assert.Equal(t, 5.0, *doc.Routes.StartM, "the design stays")
	assert.Len(t, doc.Built, 3)

	paths := map[string]bool{}
	for _, c := range job.Diff(decoded(t, `{"routes":{"startM":5},"pins":{"startSize":"16 mm²"}}`), built) {
		paths[c.Path] = true
		assert.NotEqual(t, c.From, c.To, c.Path)
	}
	assert.Equal(t, map[string]bool{"routes.startM": true, "pins.startFuseA": true, "pins.startSize": true}, paths)
}

// Every answer that may turn out otherwise is a field of the document, once.
func TestBuiltPathsAreFields(t *testing.T) {
	seen := map[string]bool{}
	for _, path := range job.BuiltPaths {
		_, ok := job.FieldAt(path)
		assert.True(t, ok, path)
		assert.False(t, seen[path], path)
		seen[path] = true
	}
}

func TestWhatCannotBeBuiltIsNamed(t *testing.T) {
	for text, field := range map[string]string{
		`{"built":{"routes/startM":"far"}}`:      "startM",
		`{"built":{"pins/startFuseA":"9000"}}`:   "startFuseA",
		`{"built":{"routes/nowhere":"1"}}`:       "nowhere",
		`{"built":{"vehicle/kind":"panel-van"}}`: "vehicle/kind", // a vehicle is not fitted otherwise
		`{"built":{"built/x":"1"}}`:              "built/x",
		`{"built":{"pins/startSize":"8 mm"}}`:    "startSize",
	} {
		doc, problems := job.Decode([]byte(text))
		if len(problems) == 0 { // said when it is put in its place
			_, problems = doc.AsBuilt()
		}
		if assert.NotEmpty(t, problems, text) {
			assert.Contains(t, problems[0].Field+" "+problems[0].Wrong, field, text)
			assert.NotEmpty(t, problems[0].Allowed, text)
		}
	}
	_, problems := job.Decode([]byte(`{"built":{"vehicle/kind":"panel-van"}}`))
	require.NotEmpty(t, problems)
	assert.Contains(t, problems[0].Allowed, "one of pins/startSize, pins/startFuseA")
}

// A job takes over the card of a charger that it uses, and only that: what the card does not
// say is cleared, so that nothing is left of the one before.
func TestOfPart(t *testing.T) {
	amps, price := 35.0, 210.0
	own := parts.Item{Kind: "charger", Name: "Bench box", RatingA: &amps, Price: &price, Currency: "EUR", PricedOn: "2030-05-01"}
	doc := decoded(t, `{"card":{"name":"Another","outputA":20,"efficiency":95,"maxFuseA":40,"inputA":22,"idleInputA":9,`+
		`"restartV":12.9,"softStartS":40,"isolated":"yes","signalV":8,"detectOnV":13.3},"pins":{"chargerA":20}}`)
	got, problems := job.With(doc, job.OfPart(own))
	require.Empty(t, problems)
	assert.Equal(t, "Bench box", got.Card.Name)
	assert.Equal(t, 35.0, *got.Card.OutputA)
	assert.Nil(t, got.Card.Efficiency)
	assert.Nil(t, got.Card.MaxFuseA)
	got.Card.Name, got.Card.OutputA, got.Card.Price, got.Card.Currency, got.Card.PricedOn = "", nil, nil, "", ""
	assert.Equal(t, job.Card{}, got.Card, "nothing else is left")
	got, _ = job.With(doc, job.OfPart(own))
	assert.Nil(t, got.Pins.ChargerA)
	card, ok := got.Card.Charger()
	require.True(t, ok)
	assert.Equal(t, "Bench box", card.Label)
	stock, _ := parts.Stock().Charger(30)
	assert.Equal(t, stock.Efficiency, card.Efficiency, "what nobody says is as on a stock card")
	assert.Nil(t, job.OfPart(parts.Item{Kind: "fuse", Name: "x"}))
	_, ok = job.Card{Name: "without an output"}.Charger()
	assert.False(t, ok)
}
