package parts_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/parts"
)

// set puts an entry into an item by its column's head.
func set(t *testing.T, i *parts.Item, head, text string) error {
	t.Helper()
	for _, c := range parts.ItemColumns {
		if c.Head == head {
			return c.Set(i, text)
		}
	}
	require.Fail(t, "no column "+head)
	return nil
}

// What is entered is read in any unit, kept in the book's own, and written back so that it
// reads again to the same.
func TestEntriesAreReadAndWritten(t *testing.T) {
	for _, c := range []struct{ head, text, written string }{
		{"kind", "CHARGER", "charger"}, {"kind", "kit", "kit"}, {"name", "  Lapwing 30 ", "Lapwing 30"},
		{"rating A", "30", "30"}, {"rating A", "30000 mA", "30"}, {"rating A", "62.5 A", "62.5"},
		{"size", "6 AWG", "6 AWG"}, {"size", "16mm2", "16 mm²"}, {"efficiency %", "90 %", "90"}, {"cut-out V", "11,8", "11.8"},
		{"full up to °C", "122 °F", "50"}, {"price", "4.60", "4.6"}, {"currency", "EUR", "EUR"}, {"priced on", "2030-05-01", "2030-05-01"},
		{"stock", "0", "0"}, {"counted on", "2030-05-02", "2030-05-02"}, {"remark", "per metre", "per metre"}, {"price", "   ", ""},
		{"profiles", "LiFePO4, agm agm", "agm lifepo4"}, {"lead days", "14", "14"},
		{"volts in", "24 12", "12 24"}, {"wakes by", "Either", "either"}, {"isolated", "YES", "yes"}, {"terminals", "m8", "M8"},
		{"terminals", "clamps", "clamps"}, {"largest cable", "16mm2", "16 mm²"}, {"has", "solar, probe", "probe solar"},
	} {
		var i, again parts.Item
		require.NoError(t, set(t, &i, c.head, c.text), "%s %q", c.head, c.text)
		for _, column := range parts.ItemColumns {
			if column.Head == c.head {
				assert.Equal(t, c.written, column.Get(i), "%s %q", c.head, c.text)
				require.NoError(t, column.Set(&again, column.Get(i)))
				assert.Equal(t, i, again, "%s %q: reads again to the same", c.head, c.text)
			}
		}
	}
}

// What cannot be used is named with its field, its value and what is allowed, and changes
// nothing.
func TestEntriesThatCannotBeUsed(t *testing.T) {
	long := "x"
	for len(long) < 80 {
		long += long
	}
	for _, c := range []struct{ head, text, allowed string }{
		{"kind", "gadget", "charger, relay"}, {"name", long, "up to 60 characters"}, {"name", "two\nlines", "one line"},
		{"rating A", "sixty", "0.5 to 600 A"}, {"rating A", "601", "0.5 to 600 A"}, {"rating A", "-3", "0.5 to 600 A"},
		{"rating A", "NaN", "0.5 to 600 A"},
		{"size", "8 mm", "not mm alone"}, {"efficiency %", "120", "50 to 99"}, {"cut-out V", "24", "9 to 14"},
		{"full up to °C", "400", "20 to 110"},
		{"price", "-1", "0 to 100000"}, {"currency", "euro", "three capital letters"}, {"priced on", "1 May", "such as"},
		{"counted on", "2030-02-30", "such as"}, {"profiles", "agm nickel", "lifepo4"}, {"lead days", "-1", "0 to 1000"},
		{"volts in", "48", "12, 24"}, {"wakes by", "magic", "signal, voltage, either"}, {"terminals", "M7", "clamps, M5"},
		{"largest cable", "16", "not mm alone"}, {"has", "wings", "solar, probe"}, {"isolated", "perhaps", "yes, no"},
	} {
		before := parts.Item{Kind: "fuse", Name: "as it was"}
		i := before
		err := set(t, &i, c.head, c.text)
		var wrong *parts.ItemError
		require.ErrorAs(t, err, &wrong, "%s %q", c.head, c.text)
		assert.Equal(t, c.head, wrong.Field)
		assert.NotEmpty(t, wrong.Wrong)
		assert.Contains(t, err.Error(), c.head)
		assert.LessOrEqual(t, len([]rune(wrong.Value)), 61, "a long value is cut")
		if c.allowed != "such as" {
			assert.Contains(t, wrong.Allowed, c.allowed, "%s %q", c.head, c.text)
		}
		assert.Equal(t, before, i, "%s %q changes nothing", c.head, c.text)
	}
}

// Each kind says what it is of no use without; a price and a count carry their day.
func TestWhatAnItemLacks(t *testing.T) {
	lacks := func(i parts.Item) []string {
		fields := []string{}
		for _, e := range i.Check("2030-06-01") {
			assert.Equal(t, "is missing", e.Wrong)
			assert.NotEmpty(t, e.Allowed)
			fields = append(fields, e.Field)
		}
		return fields
	}
	amps, price, stock := 60.0, 3.2, 4.0
	assert.Equal(t, []string{"kind", "name"}, lacks(parts.Item{}))
	for _, kind := range []string{"charger", "relay", "contactor", "selector", "changeover", "plug", "fuse", "kit"} {
		assert.Equal(t, []string{"rating A"}, lacks(parts.Item{Kind: kind, Name: "x"}), kind)
		assert.Empty(t, lacks(parts.Item{Kind: kind, Name: "x", RatingA: &amps}), kind)
	}
	for _, kind := range []string{"holder", "connector", "other"} {
		assert.Empty(t, lacks(parts.Item{Kind: kind, Name: "x"}), kind)
	}
	assert.Equal(t, []string{"size"}, lacks(parts.Item{Kind: "cable", Name: "x"}))
	assert.Equal(t, []string{"currency"}, lacks(parts.Item{Kind: "other", Name: "x", Price: &price}))
	dated := parts.Item{Kind: "other", Name: "x", Price: &price, Currency: "EUR", Stock: &stock}
	assert.Empty(t, dated.Check("2030-06-01"))
	assert.Equal(t, "2030-06-01", dated.PricedOn)
	assert.Equal(t, "2030-06-01", dated.CountedOn)
	kept := parts.Item{Kind: "other", Name: "x", Price: &price, Currency: "EUR", PricedOn: "2029-01-01"}
	assert.Empty(t, kept.Check("2030-06-01"))
	assert.Equal(t, "2029-01-01", kept.PricedOn)
}

// None is said alone.
func TestNoneIsSaidAlone(t *testing.T) {
	amps := 30.0
	wrong := (&parts.Item{Kind: "charger", Name: "x", RatingA: &amps, Has: []string{"none", "solar"}}).Check("2030-06-01")
	require.Len(t, wrong, 1)
	assert.Equal(t, "has", wrong[0].Field)
	assert.Empty(t, (&parts.Item{Kind: "charger", Name: "x", RatingA: &amps, Has: []string{"none"}}).Check("2030-06-01"))
}

// A charger of the workshop's stands in the place of the stock card of its output, or
// between its neighbours; what it does not say is as on a stock card.
func TestCardsOfTheWorkshop(t *testing.T) {
	amps, efficiency, cutOut := 30.0, 91.0, 11.2
	own := parts.Item{Kind: "charger", Name: "Own box", RatingA: &amps, Efficiency: &efficiency, CutOutV: &cutOut}.Card()
	stock := parts.Stock()
	was, _ := stock.Charger(30)
	assert.Equal(t, 0.91, own.Efficiency)
	assert.Equal(t, 11.2, own.CutOutV)
	assert.Equal(t, was.StandbyA, own.StandbyA)
	assert.Equal(t, was.MaxAmbientC, own.MaxAmbientC)
	for _, output := range []float64{5, 30, 33, 200} {
		card := own
		card.OutputA = output
		book := stock.With(card)
		got, ok := book.Charger(output)
		assert.True(t, ok && got.Label == "Own box", "%g A", output)
		last := 0.0
		for _, c := range book.Chargers {
			assert.Greater(t, c.OutputA, last, "smallest first")
			last = c.OutputA
		}
		extra := 1
		if output == 30 {
			extra = 0
		}
		assert.Len(t, book.Chargers, len(stock.Chargers)+extra)
	}
	_, ok := stock.Charger(33)
	assert.False(t, ok, "the stock book stays as it was")
	two := was.Times(2)
	assert.Equal(t, 60.0, two.OutputA)
	assert.Equal(t, 2*was.StandbyA, two.StandbyA)
}

// An isolator is the smallest that bears its current; its name is its kind and rating.
func TestIsolators(t *testing.T) {
	for amps, want := range map[float64]float64{1: 100, 100: 100, 101: 200, 450: 500, 2000: 500} {
		assert.Equal(t, want, parts.IsolatorFor(amps).ContinuousA, "%g A", amps)
	}
	card := parts.IsolatorOf(275)
	assert.Equal(t, "isolator, 275 A", card.Label)
	assert.Equal(t, 4*275.0, card.CrankA)
	assert.IsIncreasing(t, parts.PlugRatings())
}

// A book knows an item by kind and name, however that was typed.
func TestKeys(t *testing.T) {
	assert.Equal(t, "fuse/strip 60 a", parts.Item{Kind: "fuse", Name: "  Strip  60 A "}.Key())
	assert.NotEqual(t, parts.Item{Kind: "fuse", Name: "x"}.Key(), parts.Item{Kind: "holder", Name: "x"}.Key())
}
