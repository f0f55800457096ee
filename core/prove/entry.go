package prove

import (
	"fmt"
	"strings"

	"epitrope/core/unit"
)

// EntryError says what is wrong with a reading as it was entered, and what is allowed.
type EntryError struct{ Field, Value, Wrong, Allowed string }

func (e *EntryError) Error() string {
	return fmt.Sprintf("%s %q %s; allowed: %s", e.Field, e.Value, e.Wrong, e.Allowed)
}

// Jumping is entered where the meter comes to no stand.
const Jumping = "jumps"

// shown is as much of an entry as is repeated.
func shown(text string) string {
	if r := []rune(text); len(r) > 60 {
		return string(r[:60]) + "…"
	}
	return text
}

// Entered is a reading as somebody entered it: a figure in the reading's unit or with its own, or that the meter jumps.
func (r Reading) Entered(text string) (Taken, error) {
	dim, example := unit.Voltage, "such as 14.2 V or 210 mV"
	if r.Unit == Amps {
		dim, example = unit.Current, "such as 31.5 A or 400 mA"
	}
	refuse := func(wrong string) (Taken, error) {
		return Taken{}, &EntryError{r.ID, shown(text), wrong, example + "; “" + Jumping + "” where the meter comes to no stand"}
	}
	switch word := strings.ToLower(strings.TrimSpace(text)); word {
	case "":
		return refuse("is missing")
	case Jumping:
		return Taken{ID: r.ID, Jumps: true}, nil
	case "ol", "o.l", "0l", "overload", "over":
		return refuse("is over the meter's range, or an open way: is the range right, and do both probes touch metal?")
	}
	value, err := dim.Parse(text)
	if err != nil {
		return refuse("is not a " + dim.Name + ": " + err.Error())
	}
	return Taken{ID: r.ID, Value: value}, nil
}
