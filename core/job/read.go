package job

import (
	"encoding/json"
	"fmt"
	"math"
	"strconv"
	"strings"
	"unicode/utf8"

	"epitrope/core/alternator"
	"epitrope/core/battery"
	"epitrope/core/cable"
	"epitrope/core/day"
	"epitrope/core/parts"
	"epitrope/core/unit"
)

// Allowed says in words what the field takes, in a system of n × 12 V.
func (f Field) Allowed(n float64) string {
	switch f.Kind {
	case Choice, Level:
		values := make([]string, len(f.Choices))
		for i, c := range f.Choices {
			values[i] = c.Value
		}
		return strings.TrimSpace("one of " + strings.Join(values, ", ") + " " + f.Unit)
	case CableKey:
		return "a cable size such as " + f.Example
	case Cables:
		return "cable sizes with commas between, such as " + f.Example
	case LabelKey:
		return fmt.Sprintf("a label such as 180 A or 90/180 A, %d to %d A", alternator.MinRatedA, alternator.MaxRatedA)
	case Driving:
		return unit.Say("what it does and for how long, up to %.0f days, such as %s", day.MaxDays, f.Example)
	case Date:
		return unit.DateAllowed
	case Currency:
		return "a currency's three capital letters, ISO 4217, such as EUR"
	case Resting:
		return battery.CurveAllowed
	case Text:
		return unit.Say("text of up to %.0f characters", f.Max)
	}
	low, high := f.limits(n)
	example := f.dim(n).Example
	if f.Example != "" && !f.PerSystem {
		example = f.Example
	}
	return fmt.Sprintf("%s to %s, such as %s", unit.Plain(low, "", 2), unit.Plain(high, f.Unit, 2), example)
}

func (f Field) limits(n float64) (low, high float64) {
	if !f.PerSystem {
		n = 1
	}
	return f.Min * n, f.Max * n
}

// Read takes a value as it stands in JSON, or as typed, and returns it in the
// document's own form. The error says what is wrong and what is allowed.
func (f Field) Read(value any, n float64) (any, error) {
	switch f.Kind {
	case Text:
		return f.readText(value)
	case Driving:
		return f.readAs(value, func(text string) error { _, err := day.ParsePattern(text); return err })
	case Resting:
		return f.readAs(value, func(text string) error { _, err := battery.ParseCurve(text); return err })
	case Date:
		text := fmt.Sprint(value)
		_, _, _, err := unit.Date(text)
		return text, err
	case Currency:
		text, ok := value.(string)
		if !ok || text != "" && !parts.IsCurrency(text) {
			return nil, fmt.Errorf("is not a currency")
		}
		return text, nil
	case Choice:
		return f.readChoice(value)
	case Level:
		return f.readLevel(value)
	case Number:
		return f.readNumber(value, n)
	case CableKey:
		text, ok := value.(string)
		if !ok {
			return nil, fmt.Errorf("is not a cable's name")
		}
		size, err := cable.Parse(text)
		return size.Label, err
	case Cables:
		return f.readAs(value, func(text string) error { _, err := cable.ParseList(text); return err })
	default:
		text := fmt.Sprint(value)
		label, err := alternator.ParseLabel(text)
		return label.String(), err
	}
}

func (f Field) readText(value any) (any, error) {
	text, ok := value.(string)
	if !ok {
		return nil, fmt.Errorf("is not text")
	}
	if count := utf8.RuneCountInString(text); float64(count) > f.Max {
		return nil, fmt.Errorf("has %d characters", count)
	}
	if at := strings.IndexFunc(text, unit.Unwritable); at >= 0 {
		r, _ := utf8.DecodeRuneInString(text[at:])
		return nil, fmt.Errorf("holds U+%04X, which no page shows as it is", r)
	}
	return text, nil
}

// readAs takes text that has a form of its own, or is empty.
func (f Field) readAs(value any, parse func(string) error) (any, error) {
	text, err := f.readText(value)
	if err != nil || text == "" {
		return text, err
	}
	return text, parse(text.(string))
}

func (f Field) readChoice(value any) (any, error) {
	for _, c := range f.Choices {
		if c.Value == value {
			return c.Value, nil
		}
	}
	return nil, fmt.Errorf("is not known")
}

func (f Field) readLevel(value any) (any, error) {
	text := strings.TrimSpace(strings.TrimSuffix(strings.TrimSpace(fmt.Sprint(value)), f.Unit))
	v, err := unit.Number(text)
	if err != nil {
		return nil, fmt.Errorf("is not one of them")
	}
	for _, c := range f.Choices {
		if is, err := strconv.ParseFloat(c.Value, 64); err == nil && is == v {
			return is, nil
		}
	}
	return nil, fmt.Errorf("is not one of them")
}

func (f Field) readNumber(value any, n float64) (any, error) {
	var v float64
	var err error
	switch typed := value.(type) {
	case json.Number:
		v, err = typed.Float64()
	case float64:
		v = typed
	case string:
		v, err = f.dim(n).Parse(typed)
	default:
		err = fmt.Errorf("is not a quantity")
	}
	if err != nil {
		return nil, err
	}
	low, high := f.limits(n)
	if math.IsNaN(v) || v < low || v > high {
		return nil, fmt.Errorf("is out of range")
	}
	return unit.Round(v, 4), nil
}

// Show is a value of the field as shown.
func (f Field) Show(value any) string {
	switch v := value.(type) {
	case float64:
		return unit.Plain(v, f.Unit, max(f.Digits, 1))
	case string:
		for _, c := range f.Choices {
			if c.Value == v {
				return c.Label
			}
		}
		return v
	}
	return fmt.Sprint(value)
}
