package harness

import (
	"cmp"
	"slices"
	"strings"

	"epitrope/core/parts"
	"epitrope/core/system"
)

// spec is what a part of the book has to be: a cable by its size and colour, what is sold by a
// current by that.
type spec struct {
	size, colour string
	ratingA      float64
}

// find is the part of a book that a line is; ok is false where there is none.
func find(l Line, book []parts.Item) (item parts.Item, ok bool) {
	at := slices.IndexFunc(book, l.is)
	if at < 0 {
		return parts.Item{}, false
	}
	return book[at], true
}

// eachBought calls with all that is bought for a component: a charger of two sizes is two.
func eachBought(c system.Component, buy func(what string, count float64, wants spec)) {
	if d, is := c.Device.(system.Charger); is && len(d.Card.Parts) > 0 {
		for _, one := range d.Card.Parts {
			buy(one.Label, 1, spec{ratingA: one.OutputA})
		}
		return
	}
	buy(bought(c))
}

// bought is what is bought for a component, how many of it, and what it has to be.
func bought(c system.Component) (what string, count float64, wants spec) {
	switch d := c.Device.(type) {
	case system.Fuse:
		return c.Rating, 1, spec{ratingA: d.RatingA}
	case system.Charger:
		if d.Card.Count > 1 {
			return d.Card.Each, d.Card.Count, spec{ratingA: d.Card.OutputA / d.Card.Count}
		}
		return c.Rating, 1, spec{ratingA: d.Card.OutputA}
	case system.Contact:
		return c.Rating, 1, spec{ratingA: d.RatingA}
	case system.Link:
		return c.Rating, 1, spec{ratingA: d.RatingA}
	case system.Plug: // two halves that mate
		return c.Rating, 2, spec{ratingA: d.Card.RatingA}
	case system.Bank:
		return cmp.Or(d.Each, c.Rating), 1, spec{}
	case system.Machine:
		return c.Rating, 1, spec{ratingA: d.Label.RatedA}
	}
	return c.Rating, 1, spec{}
}

// is says whether a line is a part of the book: a cable by its size and the colour that the
// workshop gave it a name with, what has its maker's name by its current, all else by what the
// workshop calls it.
func (l Line) is(i parts.Item) bool {
	if i.Kind != l.Kind {
		return false
	}
	name, named := strings.ToLower(i.Name), strings.ToLower(l.What)
	switch {
	case name == named:
		return true
	case l.Kind == "cable" && i.Size != "" && i.Size == l.wants.size:
		return slices.Contains(strings.FieldsFunc(name, apart), strings.ToLower(l.wants.colour))
	case byMaker[l.Kind] && i.RatingA != nil && *i.RatingA == l.wants.ratingA:
		return true
	}
	return within(name, named) && (i.RatingA == nil || *i.RatingA == l.wants.ratingA)
}

// byMaker are the kinds whose names are their makers': the current tells which it is.
var byMaker = map[string]bool{"charger": true, "relay": true, "contactor": true, "selector": true, "changeover": true, "plug": true}

// within says whether a line says every word of a name, as “Strip 60 A” is within “60 A strip
// fuse, SF30”. A single word says too little.
func within(name, line string) bool {
	words := strings.FieldsFunc(name, apart)
	said := strings.FieldsFunc(line, apart)
	return len(words) > 1 && !slices.ContainsFunc(words, func(w string) bool { return !slices.Contains(said, w) })
}

func apart(r rune) bool { return r == ' ' || r == ',' || r == '/' }
