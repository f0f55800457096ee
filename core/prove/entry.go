package prove

import (
	"errors"
	"fmt"
	"strings"

	"epitrope/core/unit"
)

// EntryError says what is wrong with a reading as it was entered, and what is allowed.
type EntryError struct {
	Field   string `json:"field" doc:"The reading"`
	Value   string `json:"value"`
	Wrong   string `json:"wrong"`
	Allowed string `json:"allowed"`
}

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
	switch r.Unit {
	case Amps:
		dim, example = unit.Current, "such as 31.5 A or 400 mA"
	case Ohms:
		dim, example = unit.Ohms, "such as 0.3 Ω or 4 mΩ, or OL"
	case Kelvin:
		dim, example = unit.Rise, "such as 8 K, or 15 °F"
	case Seen:
		example = "yes or no"
	}
	refuse := func(wrong string) (Taken, error) {
		allowed := example
		if r.Unit != Seen && r.Unit != Ohms {
			allowed += "; “" + Jumping +
				"” where the meter comes to no stand, or it never comes about, with the most that it shows where it shows one"
		}
		return Taken{}, &EntryError{r.ID, shown(text), wrong, allowed}
	}
	switch word := strings.ToLower(strings.TrimSpace(text)); word {
	case "":
		return refuse("is missing")
	case Jumping:
		return Taken{ID: r.ID, Jumps: true}, nil
	case "yes", "no":
		if r.Unit == Seen {
			return Taken{ID: r.ID, Value: map[string]float64{"yes": 1}[word]}, nil
		}
	case "ol", "o.l", "0l", "overload", "over":
		if r.Unit == Ohms {
			return Taken{ID: r.ID, Value: openOhm}, nil
		}
		return refuse("is over the meter's range, or an open way: is the range right, and do both probes touch metal?")
	}
	if r.Unit == Seen {
		return refuse("is neither yes nor no")
	}
	figure, peak := strings.TrimSpace(text), false
	if n := len(Jumping); len(figure) > n && strings.EqualFold(figure[:n], Jumping) && r.Unit != Ohms {
		figure, peak = strings.TrimPrefix(strings.TrimSpace(figure[n:]), "to "), true
	}
	value, err := dim.Parse(figure)
	if r.Unit == Ohms && strings.Contains(text, "mΩ") { // MΩ is not meant
		value, err = unit.Milliohms.Parse(text)
		value /= 1000
	}
	if err != nil {
		return refuse("is not a " + dim.Name)
	}
	return Taken{ID: r.ID, Value: value, Jumps: peak, Peak: peak}, nil
}

// Entry is a reading as somebody entered it.
type Entry struct {
	Reading string `json:"reading"`
	Text    string `json:"text"`
}

// Read are readings as they were entered, in their order. What cannot be used is refused with its reason; one of a reading
// that is none of this proof's, such as from before the design was changed, is left out.
func (p *Proof) Read(entries []Entry) (taken []Taken, refused []EntryError) {
	taken, refused = []Taken{}, []EntryError{}
	for _, e := range entries {
		r, there := p.Reading(e.Reading)
		if !there {
			continue
		}
		t, err := r.Entered(e.Text)
		var wrong *EntryError
		if errors.As(err, &wrong) {
			refused = append(refused, *wrong)
			continue
		}
		taken = append(taken, t)
	}
	return taken, refused
}
