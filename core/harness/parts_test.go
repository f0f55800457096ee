package harness

import (
	"testing"

	"github.com/stretchr/testify/assert"

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
