package study_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/coupling"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/study"
)

// By a workshop's own prices: what the book names is summed, what it does not is named, hours are at its rate.
func TestPricedByTheBook(t *testing.T) {
	doc, problems := job.Decode([]byte(agm))
	require.Empty(t, problems)
	d := design.Of(doc, parts.Stock())
	joined, problems := job.With(doc, map[string]any{"pins.coupling": "vsr"})
	require.Empty(t, problems)
	bears := design.Of(joined, parts.Stock()).Contact.ContinuousA
	relays := []parts.Item{relay(func(i *parts.Item) { i.Price, i.RatingA = of(60), of(bears) }), whole("Heron 30", 30)}

	none := study.Prices{}.Of(d, 3)
	assert.Equal(t, "no price in the parts book", none.Text)
	assert.Zero(t, none.Parts)

	list := study.Consequences(d)
	study.Prices{Book: relays, HourlyRate: 100}.Methods(d, list)
	seen := map[coupling.Kind]*study.Priced{}
	for _, m := range list {
		require.NotNil(t, m.Priced, m.Method.Kind)
		seen[m.Method.Kind] = m.Priced
		assert.Equal(t, "EUR", m.Priced.Currency)
		assert.InDelta(t, 100*m.Work.Hours, m.Priced.Work, 0.01)
		assert.NotEmpty(t, m.Priced.Unpriced, "%s: nobody prices its cable", m.Method.Kind)
		assert.Contains(t, m.Priced.Text, "cable")
	}
	assert.Equal(t, 60.0, seen[coupling.VSR].Parts, "the relay alone has a price")
	assert.NotContains(t, seen[coupling.VSR].Unpriced, "relay")
	assert.Contains(t, seen[coupling.SwitchedContactor].Unpriced, "contactor")

	foreign := study.Prices{Book: relays, Currency: "AUD"}.Of(d, 3)
	assert.Zero(t, foreign.Parts, "a price in another currency is none")
	assert.Zero(t, foreign.Work)
	assert.NotContains(t, foreign.Text, "work")
}

// A school that takes dearer cable says by how much, where the book prices that cable.
func TestSchoolsArePriced(t *testing.T) {
	doc, problems := job.Decode([]byte(agm))
	require.Empty(t, problems)
	d := design.Of(doc, parts.Stock())
	var book []parts.Item
	for i, size := range []string{"1.5 mm²", "2.5 mm²", "4 mm²", "6 mm²", "10 mm²", "16 mm²", "25 mm²", "35 mm²", "50 mm²", "70 mm²"} {
		for _, colour := range []string{"red", "black"} {
			book = append(book, parts.Item{Kind: "cable", Name: size + " " + colour, Size: size, Price: of(float64(10 * (i + 1))), Currency: "EUR"})
		}
	}
	list := study.Schools(d)
	study.Prices{Book: book}.Schools(d, list)
	costs := map[string]string{}
	for _, s := range list {
		for _, o := range s.Options {
			if o.Costs != "" {
				costs[s.Path+"="+o.Value] = o.Costs
			}
			assert.False(t, o.Now && o.Costs != "", "%s: what is there costs no more than it does", s.Path)
		}
	}
	assert.Contains(t, costs["limits.chargerDrop=2"], "EUR more", "thicker cable for a smaller drop")
	assert.Contains(t, costs["pins.return=cable"], "EUR more", "a return by cable")
}
