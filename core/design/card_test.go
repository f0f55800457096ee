package design_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/study"
	"epitrope/internal/jobtest"
)

// A charger's card in the job is what the plan is made with: its output, what it draws,
// what its sheet allows as a fuse; another may still be pinned.
func TestOwnChargerIsPlannedWith(t *testing.T) {
	usual := jobtest.Plan(t, `{"aux":{"chemistry":"agm","capacityAh":200},"alternator":{"label":"150"}}`)
	own := jobtest.Plan(t, `{"aux":{"chemistry":"agm","capacityAh":200},"alternator":{"label":"150"},"card":{"name":"Bench box 35",`+
		`"outputA":35,`+
		`"efficiency":80,"maxAmbientC":30}}`)
	assert.NotEqual(t, 35.0, usual.Figures["input"].Inputs[0].Value)
	assert.InDelta(t, 35, own.Figures["input"].Inputs[0].Value, 1e-9)
	u := own.Figures["input"].Inputs[1].Value
	assert.InDelta(t, 35*u/(0.80*12.5), own.Figures["input"].Unrounded, 1e-6, "drawn at its own efficiency")
	assert.Equal(t, "Bench box 35", own.Settings.Card)
	pinned := jobtest.Plan(t, `{"aux":{"chemistry":"agm","capacityAh":200},"alternator":{"label":"150"},"card":{"outputA":35},`+
		`"pins":{"chargerA":20}}`)
	assert.InDelta(t, 20, pinned.Figures["input"].Inputs[0].Value, 1e-9, "a pin is above it")
}

// The sizes hold it once, and pinning it clears the pin.
func TestOwnChargerAmongSizes(t *testing.T) {
	doc, problems := job.Decode([]byte(`{"format":"epitrope-job","version":1,"card":{"name":"Bench box","outputA":35},` +
		`"pins":{"chargerA":20}}`))
	require.Empty(t, problems)
	own := 0
	for _, s := range study.Sizings(design.Of(doc, parts.Stock())) {
		if s.Label == "35 A" {
			own++
			assert.Nil(t, s.Changes["pins.chargerA"])
			assert.InDelta(t, 35, s.OutA, 1e-9)
		}
	}
	assert.Equal(t, 1, own)
}

// What a job takes over of a part is a document's fields, and stays when the book changes.
func TestPartInJob(t *testing.T) {
	rating, price := 45.0, 210.0
	item := parts.Item{Kind: "charger", Name: "Bench box 45", RatingA: &rating, Price: &price, Currency: "EUR", PricedOn: "2030-05-01"}
	doc, problems := job.With(job.New(), job.OfPart(item))
	require.Empty(t, problems)
	card, ok := doc.Card.Charger()
	require.True(t, ok)
	want := item.Card()
	assert.Equal(t, want.OutputA, card.OutputA)
	assert.Equal(t, want.Label, card.Label)
	assert.InDelta(t, 210, *doc.Card.Price, 1e-9)
	assert.Nil(t, job.OfPart(parts.Item{Kind: "fuse", Name: "Strip", RatingA: &rating}))
	_, problems = job.With(doc, job.OfPart(parts.Item{Kind: "charger", Name: "Another", RatingA: &rating}))
	require.Empty(t, problems)
}

func TestBookWith(t *testing.T) {
	stock := parts.Stock()
	assert.Len(t, stock.With(parts.Charger{OutputA: 30}).Chargers, len(stock.Chargers), "in the place of its like")
	for _, a := range []float64{1, 35, 300} {
		with := stock.With(parts.Charger{OutputA: a}).Chargers
		assert.Len(t, with, len(stock.Chargers)+1)
		for i := 1; i < len(with); i++ {
			assert.Less(t, with[i-1].OutputA, with[i].OutputA)
		}
	}
	assert.Len(t, parts.Stock().Chargers, len(stock.Chargers), "the stock is as it was")
}
