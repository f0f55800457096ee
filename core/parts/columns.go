package parts

import (
	"fmt"
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"epitrope/core/battery"
	"epitrope/core/cable"
	"epitrope/core/unit"
)

// ItemError says what is wrong with an entry of an item, and what is allowed.
type ItemError struct{ Field, Value, Wrong, Allowed string }

func (e *ItemError) Error() string {
	return fmt.Sprintf("%s %q %s; allowed: %s", e.Field, e.Value, e.Wrong, e.Allowed)
}

// ItemColumn is a column of the parts book: how it is called, set from text, and written.
type ItemColumn struct {
	Head string
	For  []string // the kinds of part that it is about; nil for all
	set  func(*Item, string) (wrong, allowed string)
	get  func(Item) string
}

// Set puts an entry into an item. Empty text leaves it as nobody gave it.
func (c ItemColumn) Set(i *Item, text string) error {
	text = strings.TrimSpace(text)
	if text == "" {
		return nil
	}
	if wrong, allowed := c.set(i, text); wrong != "" {
		return &ItemError{c.Head, clip(text), wrong, allowed}
	}
	return nil
}

// of is the column of some kinds of part.
func (c ItemColumn) of(kinds ...string) ItemColumn {
	c.For = kinds
	return c
}

// Get is the entry as written.
func (c ItemColumn) Get(i Item) string { return c.get(i) }

func clip(s string) string {
	if r := []rune(s); len(r) > 60 {
		return string(r[:60]) + "…"
	}
	return s
}

func words(head string, most int, at func(*Item) *string) ItemColumn {
	return ItemColumn{head, nil, func(i *Item, text string) (string, string) {
		if len([]rune(text)) > most || strings.ContainsAny(text, "\n\t") || strings.ContainsFunc(text, unit.Unwritable) {
			return "is too long, or has breaks or controls in it", fmt.Sprintf("one line, up to %d characters", most)
		}
		*at(i) = text
		return "", ""
	}, func(i Item) string { return *at(&i) }}
}

func number(head string, dim unit.Dimension, least, most float64, at func(*Item) **float64) ItemColumn {
	allowed := strings.TrimSpace(fmt.Sprintf("%g to %g %s", least, most, dim.Base))
	return ItemColumn{head, nil, func(i *Item, text string) (string, string) {
		v, err := dim.Parse(text)
		switch {
		case err != nil:
			return "is not a " + dim.Name, allowed
		case v < least || v > most || math.IsNaN(v):
			return "is out of range", allowed
		}
		v = math.Round(v*1e6) / 1e6 // a unit converted leaves dust
		*at(i) = &v
		return "", ""
	}, func(i Item) string {
		if v := *at(&i); v != nil {
			return strconv.FormatFloat(*v, 'f', -1, 64)
		}
		return ""
	}}
}

// one is a column of one word of several.
func one(head string, of []string, at func(*Item) *string) ItemColumn {
	return ItemColumn{head, nil, func(i *Item, text string) (string, string) {
		for _, word := range of {
			if strings.EqualFold(word, text) {
				*at(i) = word
				return "", ""
			}
		}
		return "is none of them", strings.Join(of, ", ")
	}, func(i Item) string { return *at(&i) }}
}

// some is a column of some words of several, kept in their order and each once.
func some(head, what string, of []string, at func(*Item) *[]string) ItemColumn {
	return ItemColumn{head, nil, func(i *Item, text string) (string, string) {
		list := []string{}
		for _, word := range strings.FieldsFunc(strings.ToLower(text), func(r rune) bool { return strings.ContainsRune(" ,;/", r) }) {
			if !slices.Contains(of, word) {
				return "names " + what + " that is not known", strings.Join(of, ", ") + "; several with a space between"
			}
			list = append(list, word)
		}
		slices.Sort(list)
		*at(i) = slices.Compact(list)
		return "", ""
	}, func(i Item) string { return strings.Join(*at(&i), " ") }}
}

// size is a column of a cable's name.
func size(head string, at func(*Item) *string) ItemColumn {
	return ItemColumn{head, nil, func(i *Item, text string) (string, string) {
		s, err := cable.Parse(text)
		if err != nil {
			return "is not a cable size", "such as 16 mm², 6 AWG, 8 mm auto; not mm alone"
		}
		*at(i) = s.Label
		return "", ""
	}, func(i Item) string { return *at(&i) }}
}

func date(head string, at func(*Item) *string) ItemColumn {
	return ItemColumn{head, nil, func(i *Item, text string) (string, string) {
		if _, _, _, err := unit.Date(text); err != nil {
			return err.Error(), unit.DateAllowed
		}
		*at(i) = text
		return "", ""
	}, func(i Item) string { return *at(&i) }}
}

// IsCurrency says whether a text is a currency's code.
func IsCurrency(text string) bool { return currencyCode.MatchString(text) }

var currencyCode = regexp.MustCompile(`^[A-Z]{3}$`)

// contacts are the kinds that join two batteries, fitted those and chargers.
var (
	contacts = []string{"relay", "contactor", "selector", "changeover"}
	fitted   = append([]string{"charger"}, contacts...)
)

// ItemColumns are the columns of the parts book, in their order. Limits are what is
// physically sensible; beyond them a typing error is likelier than a part.
var ItemColumns = []ItemColumn{
	one("kind", ItemKinds, func(i *Item) *string { return &i.Kind }),
	words("name", 60, func(i *Item) *string { return &i.Name }),
	number("rating A", unit.Current, 0.5, 600, func(i *Item) **float64 { return &i.RatingA }).of(append(slices.Clip(fitted),
		"plug", "fuse", "kit", "breaker", "holder")...),
	size("size", func(i *Item) *string { return &i.Size }).of("cable", "connector"),
	number("efficiency %", unit.Percent, 50, 99, func(i *Item) **float64 { return &i.Efficiency }).of("charger"),
	number("cut-out V", unit.Voltage, 9, 14, func(i *Item) **float64 { return &i.CutOutV }).of("charger", "relay"),
	number("largest fuse A", unit.Current, 1, 600, func(i *Item) **float64 { return &i.MaxFuseA }).of("charger"),
	number("standby A", unit.Current, 0, 5, func(i *Item) **float64 { return &i.StandbyA }).of("charger", "contactor",
		"selector", "changeover"),
	number("full up to °C", unit.Temperature, 20, 110, func(i *Item) **float64 { return &i.MaxAmbientC }).of("charger"),
	number("price", unit.Count, 0, 100000, func(i *Item) **float64 { return &i.Price }),
	{"currency", nil, func(i *Item, text string) (string, string) {
		if !currencyCode.MatchString(text) {
			return "is not a currency", "its three capital letters, ISO 4217"
		}
		i.Currency = text
		return "", ""
	}, func(i Item) string { return i.Currency }},
	date("priced on", func(i *Item) *string { return &i.PricedOn }),
	number("stock", unit.Count, 0, 100000, func(i *Item) **float64 { return &i.Stock }),
	date("counted on", func(i *Item) *string { return &i.CountedOn }),
	number("lead days", unit.Count, 0, 1000, func(i *Item) **float64 { return &i.LeadDays }),
	number("restart V", unit.Voltage, 9, 14.5, func(i *Item) **float64 { return &i.RestartV }).of("charger"),
	number("cut-in V", unit.Voltage, 12.4, 14.8, func(i *Item) **float64 { return &i.CutInV }).of("relay"),
	number("cranks A", unit.Current, 1, 3000, func(i *Item) **float64 { return &i.CrankA }).of(contacts...),
	number("rest contact A", unit.Current, 1, 1000, func(i *Item) **float64 { return &i.RestA }).of("changeover"),
	number("breaks A", unit.Current, 50, 100000, func(i *Item) **float64 { return &i.BreaksA }).of("breaker", "fuse"),
	number("capacity Ah", unit.Charge(12), 1, 2000, func(i *Item) **float64 { return &i.CapacityAh }).of("battery"),
	number("length mm", unit.Millimetres, 20, 2000, func(i *Item) **float64 { return &i.LengthMM }).of("battery"),
	number("width mm", unit.Millimetres, 20, 2000, func(i *Item) **float64 { return &i.WidthMM }).of("battery"),
	number("height mm", unit.Millimetres, 20, 2000, func(i *Item) **float64 { return &i.HeightMM }).of("battery"),
	number("weight kg", unit.Mass, 0.1, 500, func(i *Item) **float64 { return &i.WeightKg }),
	number("draws at most A", unit.Current, 1, 500, func(i *Item) **float64 { return &i.InputA }).of("charger"),
	some("profiles", "a chemistry", chemistries, func(i *Item) *[]string { return &i.Profiles }).of("charger", "battery"),
	some("volts in", "a system", volts, func(i *Item) *[]string { return &i.VoltsIn }).of(append(slices.Clip(fitted), "battery")...),
	some("volts out", "a system", volts, func(i *Item) *[]string { return &i.VoltsOut }).of("charger"),
	one("wakes by", []string{WakesBySignal, WakesByVoltage, "either"}, func(i *Item) *string { return &i.WakesBy }).of("charger"),
	number("live from V", unit.Voltage, 1, 11, func(i *Item) **float64 { return &i.LiveV }).of("charger"),
	one("isolated", []string{"yes", "no"}, func(i *Item) *string { return &i.Isolated }).of("charger"),
	one("terminals", append([]string{Clamps}, Studs...), func(i *Item) *string { return &i.Terminals }).of(fitted...),
	size("largest cable", func(i *Item) *string { return &i.LargestSize }).of(fitted...),
	some("has", "an extra", extras, func(i *Item) *[]string { return &i.Has }).of("charger"),
	words("remark", 200, func(i *Item) *string { return &i.Remark }),
}

// How a charger knows that the engine runs.
const (
	WakesBySignal  = "signal"
	WakesByVoltage = "voltage"
)

// What may be in a charger besides: a regulator for panels, a probe of its own at the cells, an input for a battery's
// charge-disable, the upkeep of the start battery; none is none of them.
const (
	HasSolar   = "solar"
	HasProbe   = "probe"
	HasDisable = "disable"
	HasCare    = "care"
	HasNone    = "none"
)

var (
	extras = []string{HasSolar, HasProbe, HasDisable, HasCare, HasNone}
	volts  = []string{"12", "24"}
)

// chemistries are those that a charger may have a profile for.
var chemistries = func() (ids []string) {
	for _, c := range battery.Chemistries {
		ids = append(ids, c.ID)
	}
	return ids
}()
