package harness

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/parts"
	"epitrope/core/system"
)

// A line is priced by the part that it says every word of, and by no other.
func TestWhatPartALineIs(t *testing.T) {
	book := []parts.Item{
		{Kind: "fuse", Name: "Strip 60 A", RatingA: figure(60)}, {Kind: "fuse", Name: "Strip fuse", RatingA: figure(80)},
		{Kind: "fuse", Name: "Single-bolt 60 A", RatingA: figure(60)},
		{Kind: "connector", Name: "Lug 16 mm² M8"}, {Kind: "connector", Name: "Ferrule 16 mm²"}, {Kind: "connector", Name: "Lug"},
		{Kind: "holder", Name: "Strip fuse holder"}, {Kind: "cable", Name: "Reel, 16 mm², red", Size: "16 mm²"},
		{Kind: "relay", Name: "Curlew", RatingA: figure(140)}, {Kind: "other", Name: "Corrugated conduit 10 mm"},
	}
	amps := func(a float64) spec { return spec{ratingA: a} }
	cable := func(size, colour string) spec { return spec{size: size, colour: colour} }
	for _, c := range []struct {
		kind, what string
		wants      spec
		part       string
	}{
		{"fuse", "60 A strip fuse, SF30", amps(60), "Strip 60 A"}, {"fuse", "60 A single-bolt fuse", amps(60), "Single-bolt 60 A"},
		{"fuse", "70 A strip fuse, SF30", amps(70), ""}, {"fuse", "80 A strip fuse, SF30", amps(80), "Strip fuse"},
		{"connector", "tube lug 16 mm², M8", spec{}, "Lug 16 mm² M8"}, {"connector", "tube lug 16 mm², M6", spec{}, ""},
		{"connector", "ferrule 16 mm²", spec{}, "Ferrule 16 mm²"}, {"connector", "ferrule 6 mm²", spec{}, ""},
		{"holder", "holder for a strip fuse, SF30", spec{}, "Strip fuse holder"}, {"holder", "holder for a single-bolt fuse", spec{}, ""},
		{"cable", "16 mm² red", cable("16 mm²", "red"), "Reel, 16 mm², red"}, {"cable", "16 mm² black", cable("16 mm²", "black"), ""},
		{"cable", "6 mm² red", cable("6 mm²", "red"), ""},
		{"relay", "voltage-sensing relay, 140 A", amps(140), "Curlew"}, {"relay", "voltage-sensing relay, 100 A", amps(100), ""},
		{"other", "corrugated conduit, 10 mm", spec{}, "Corrugated conduit 10 mm"}, {"other", "corrugated conduit, 13 mm", spec{}, ""},
		{"other", "printed label", spec{}, ""},
	} {
		got, _ := find(Line{Kind: c.kind, What: c.what, wants: c.wants}, book)
		assert.Equal(t, c.part, got.Name, c.what)
	}
}

// Two chargers side by side are two of one, not one of twice its current.
func TestTwoChargersAreTwoOfOne(t *testing.T) {
	one := parts.Charger{Label: "DC-DC charger, 30 A", OutputA: 30}
	s := system.System{}
	s.Add(system.Component{ID: "coupling", Kind: system.KindCharger, Name: "DC-DC", Rating: one.Times(2).Label,
		Device: system.Charger{Card: one.Times(2)}})
	price := 200.0
	book := []parts.Item{{Kind: "charger", Name: "Plover 30", RatingA: figure(30), Price: &price, Currency: "EUR"}}
	line := PartsList(&s, nil, book, nil).Lines[0]
	assert.Equal(t, "DC-DC charger, 30 A", line.What)
	assert.Equal(t, 2.0, line.Count)
	assert.Equal(t, 400.0, *line.Sum)
}

// Prices and stock of the workshop's book, each with its date; what there is too little of
// is to be ordered.
func TestPartsListIsPriced(t *testing.T) {
	book := []parts.Item{
		{Kind: "cable", Name: "16 mm² red", Size: "16 mm²", Price: figure(4.5), Currency: "EUR", PricedOn: "2030-05-01", Stock: figure(4),
			CountedOn: "2030-05-02"},
		{Kind: "cable", Name: "16 mm² red offcut", Size: "16 mm²", Stock: figure(0.2), CountedOn: "2030-05-02"},
		{Kind: "fuse", Name: "Strip 70", RatingA: figure(70), Price: figure(3.2), Currency: "EUR", PricedOn: "2030-05-01", Stock: figure(20),
			CountedOn: "2030-05-02"},
		{Kind: "charger", Name: "Own box", RatingA: figure(40), Price: figure(300), Currency: "USD", PricedOn: "2030-05-01"},
	}
	s := systems(t)["6-mobile-vet.json"]
	wires := Leads(&s, UsualScheme)
	list := PartsList(&s, wires, book, CutList(wires, Pieces(book, UsualScheme)))
	found := map[string]Line{}
	for _, l := range list.Lines {
		if l.Part != "" {
			found[l.Part] = l
		}
	}
	cable := found["16 mm² red"]
	require.NotNil(t, cable.Sum)
	assert.InDelta(t, cable.Count*4.5, *cable.Sum, 0.01)
	longest := 0.0
	for _, w := range wires {
		if w.Size == "16 mm²" && w.Colour == "red" {
			longest = max(longest, w.CutM)
		}
	}
	require.Greater(t, longest, 4.0, "it fits on no piece, so it is new, whatever is on the reel")
	assert.InDelta(t, longest, cable.Order, 1e-6)
	assert.InDelta(t, 4.2, *cable.Stock, 1e-9, "reel and offcut")
	assert.Equal(t, "2030-05-02", cable.Counted)
	assert.Zero(t, found["Strip 70"].Order)
	assert.InDelta(t, 1, found["Own box"].Order, 1e-9, "nobody counted it")
	kit := list.AsKit()
	unpriced := kit.Lines[0]
	assert.Equal(t, "kit", unpriced.Kind)
	assert.True(t, unpriced.Sum == nil && unpriced.Order == 1 && kit.Unpriced > 0,
		"the book has no kit: what it costs is not known, and that is counted")
	for i, l := range kit.Lines[1:] {
		assert.Equal(t, inKit[l.Kind], l.InKit, l.What)
		assert.Equal(t, list.Lines[i].Count, l.Count)
		if l.InKit {
			assert.Zero(t, l.Order, l.What)
		}
	}
	assert.Positive(t, list.Lines[0].Order, "the list itself stays")
	require.Len(t, list.Sums, 2)
	assert.Equal(t, Sum{"USD", 300}, list.Sums[1])
}
