package job

import (
	"cmp"
	"encoding/json"

	"epitrope/core/parts"
)

// Under is the document with a workshop's own answers where it has none.
func (d Document) Under(h parts.Habits) Document {
	d.Cable.System = orElse(d.Cable.System, h.System)
	d.Cable.Insulation = orElse(d.Cable.Insulation, h.Insulation)
	d.Cable.Sizes = orElse(d.Cable.Sizes, h.Sizes)
	d.Cable.Lugs = orElse(d.Cable.Lugs, h.Lugs)
	d.Colours.Feed = cmp.Or(d.Colours.Feed, h.Feed)
	d.Colours.Return = cmp.Or(d.Colours.Return, h.Return)
	d.Colours.Signal = cmp.Or(d.Colours.Signal, h.Signal)
	d.Colours.House = cmp.Or(d.Colours.House, h.House)
	return d
}

// orElse is an answer, or the workshop's where there is none.
func orElse[T comparable](given *T, habit T) *T {
	var none T
	if given != nil || habit == none {
		return given
	}
	return &habit
}

// CheckHabits names which of a workshop's own answers no job takes, as a job names its own.
func CheckHabits(h parts.Habits) Problems {
	data, err := json.Marshal(New().Under(h))
	if err != nil {
		panic(err) // text and numbers
	}
	_, problems := Decode(data)
	return problems
}
