package harness

import (
	"fmt"
	"math"
	"slices"

	"epitrope/core/parts"
	"epitrope/core/unit"
)

// Kit is a kit of the workshop's book against the same parts one by one.
type Kit struct {
	Name     string   `json:"name"`
	Price    float64  `json:"price"`
	Currency string   `json:"currency"`
	PricedOn string   `json:"pricedOn,omitempty"`
	Loose    *float64 `json:"loose,omitempty" doc:"What those of its parts come to that have a price, one by one; absent where none has, in this currency"`
	Unpriced int      `json:"unpriced" doc:"Of its parts, those that have no price"`
	Says     string   `json:"says"`
}

// inKit are the kinds of part that come in a kit. Source: common practice, no source.
var inKit = map[string]bool{"charger": true, "relay": true, "contactor": true, "fuse": true, "holder": true, "cable": true,
	"connector": true}

// coupled are the kinds whose current says which kit it is.
var coupled = []string{"charger", "relay", "contactor"}

// kits are those of the book that come with this list's coupling, in the book's order.
func (l List) kits(book []parts.Item) []Kit {
	list := []Kit{}
	for _, item := range book {
		fits := func(line Line) bool {
			return slices.Contains(coupled, line.Kind) && item.RatingA != nil && *item.RatingA == line.wants.ratingA
		}
		if item.Kind != "kit" || item.Price == nil || !slices.ContainsFunc(l.Lines, fits) {
			continue
		}
		list = append(list, l.against(Kit{Name: item.Name, Price: *item.Price, Currency: item.Currency, PricedOn: item.PricedOn}))
	}
	return list
}

// against holds a kit against the lines that come in it.
func (l List) against(k Kit) Kit {
	loose := 0.0
	for _, line := range l.Lines {
		switch {
		case !inKit[line.Kind]:
		case line.Sum != nil && line.Currency == k.Currency:
			loose += *line.Sum
		default:
			k.Unpriced++
		}
	}
	money := func(v float64) string { return unit.Say("%.2f %s", v, k.Currency) }
	if loose == 0 {
		k.Says = "Its parts have no price one by one."
		return k
	}
	loose = math.Round(loose*100) / 100
	k.Loose = &loose
	switch more := k.Price - loose; {
	case more > 0 && k.Unpriced == 0:
		k.Says = fmt.Sprintf("One by one its parts cost %s: %s less.", money(loose), money(more))
	case more > 0:
		k.Says = fmt.Sprintf("One by one those with a price cost %s, and %s.", money(loose), without(k.Unpriced))
	default:
		k.Says = fmt.Sprintf("One by one its parts cost %s more%s.", money(-more),
			map[bool]string{true: ", and " + without(k.Unpriced)}[k.Unpriced > 0])
	}
	return k
}

func without(count int) string {
	if count == 1 {
		return "one line has none"
	}
	return unit.Plain(float64(count), "lines have none", 0)
}

// AsKit is the list where a kit is bought: what comes in it is not paid or ordered, but has to
// be held against the list, as kits know nothing of this vehicle's lengths and fuses. The kit
// is a line of its own: the cheapest of the book that comes with the coupling, or one without
// a price where the book has none.
func (l List) AsKit() List {
	l.Lines = slices.Clone(l.Lines)
	for i := range l.Lines {
		if line := &l.Lines[i]; inKit[line.Kind] {
			line.InKit, line.Order = true, 0
			line.Price, line.Sum, line.Currency, line.PricedOn = nil, nil, "", ""
		}
	}
	best := -1
	for i, k := range l.Kits {
		if best < 0 || k.Currency == l.Kits[best].Currency && k.Price < l.Kits[best].Price {
			best = i
		}
	}
	kit := Line{Kind: "kit", What: "kit for this coupling", Count: 1, Of: []string{}, Order: 1}
	if best >= 0 {
		k := l.Kits[best]
		kit.What, kit.Part, kit.Price, kit.Sum, kit.Currency, kit.PricedOn = k.Name, k.Name, &k.Price, &k.Price, k.Currency, k.PricedOn
	}
	l.Lines = append([]Line{kit}, l.Lines...)
	l.add()
	return l
}
