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

// Item is a line of the workshop's own parts book: a device, a cable, a fuse, a connector,
// with what it bears and what it costs. Figures that nobody gave are nil.
type Item struct {
	Kind        string   `json:"kind" doc:"One of ItemKinds"`
	Name        string   `json:"name"`
	RatingA     *float64 `json:"ratingA,omitempty" doc:"A charger's output, a contact's or a fuse's current, a kit's charger's or relay's, in A"`
	Size        string   `json:"size,omitempty" doc:"A cable's name"`
	Efficiency  *float64 `json:"efficiency,omitempty" doc:"A charger's, in %"`
	CutInV      *float64 `json:"cutInV,omitempty" doc:"A relay that senses joins above this, at 12 V"`
	CutOutV     *float64 `json:"cutOutV,omitempty" doc:"A charger stops below this input, a relay parts, at 12 V"`
	RestartV    *float64 `json:"restartV,omitempty" doc:"… and begins again above, at 12 V"`
	InputA      *float64 `json:"inputA,omitempty" doc:"It draws at most"`
	MaxFuseA    *float64 `json:"maxFuseA,omitempty" doc:"Largest fuse that its sheet allows"`
	StandbyA    *float64 `json:"standbyA,omitempty" doc:"Taken while it rests; by a coil while it is closed"`
	MaxAmbientC *float64 `json:"maxAmbientC,omitempty" doc:"Full output up to here"`
	Profiles    []string `json:"profiles,omitempty" doc:"Chemistries that a charger has a profile for, or a battery's own"`
	LeadDays    *float64 `json:"leadDays,omitempty" doc:"How long it takes to come where none is in stock"`
	CrankA      *float64 `json:"crankA,omitempty" doc:"A contact bears it for the seconds of a start"`
	RestA       *float64 `json:"restA,omitempty" doc:"A changeover's rest contact bears it for hours"`
	BreaksA     *float64 `json:"breaksA,omitempty" doc:"A breaker's breaking capacity"`
	CapacityAh  *float64 `json:"capacityAh,omitempty" doc:"A battery's label"`
	LengthMM    *float64 `json:"lengthMM,omitempty"`
	WidthMM     *float64 `json:"widthMM,omitempty"`
	HeightMM    *float64 `json:"heightMM,omitempty"`
	WeightKg    *float64 `json:"weightKg,omitempty"`
	Price       *float64 `json:"price,omitempty" doc:"Of one, or of a metre"`
	Currency    string   `json:"currency,omitempty" doc:"ISO 4217"`
	PricedOn    string   `json:"pricedOn,omitempty" doc:"ISO 8601 date"`
	Stock       *float64 `json:"stock,omitempty" doc:"Pieces, or metres"`
	CountedOn   string   `json:"countedOn,omitempty" doc:"ISO 8601 date"`
	Remark      string   `json:"remark,omitempty"`
}

// ItemKinds are the kinds of part. Rated ones say a current, cables a size.
var ItemKinds = []string{"charger", "relay", "contactor", "selector", "changeover", "plug", "fuse", "holder", "cable", "connector", "kit",
	"breaker", "battery", "other"}

// rated are the kinds that are of no use without a current.
var rated = map[string]bool{"charger": true, "relay": true, "contactor": true, "selector": true, "changeover": true, "plug": true,
	"fuse": true, "kit": true, "breaker": true}

// Key names an item: its kind and its name, in which case and spaces do not matter.
func (i Item) Key() string {
	return i.Kind + "/" + strings.ToLower(strings.Join(strings.Fields(i.Name), " "))
}

// Card is the card of an item that is a charger, at 12 V; what the workshop does not say
// is as on a stock card.
func (i Item) Card() Charger {
	c := Charger{ID: i.Key(), Label: i.Name, OutputA: *i.RatingA, Efficiency: efficiency, EfficiencyLow: efficiencyLow, CutOutV: cutOutV,
		MaxAmbientC: maxAmbientC, StandbyA: standbyA, CaseKPerW: caseKPerW, RestartV: restartV}
	if i.Efficiency != nil {
		c.Efficiency, c.EfficiencyLow = *i.Efficiency/100, *i.Efficiency/100
	}
	or := func(at *float64, given *float64) {
		if given != nil {
			*at = *given
		}
	}
	or(&c.CutOutV, i.CutOutV)
	or(&c.RestartV, i.RestartV)
	or(&c.InputA, i.InputA)
	or(&c.MaxFuseA, i.MaxFuseA)
	or(&c.StandbyA, i.StandbyA)
	or(&c.MaxAmbientC, i.MaxAmbientC)
	return c
}

// With is the book with a charger's card in the place of the stock card of its output.
func (b Book) With(card Charger) Book {
	list := []Charger{}
	put := false
	for _, c := range b.Chargers {
		if !put && c.OutputA >= card.OutputA {
			list, put = append(list, card), true
		}
		if c.OutputA != card.OutputA {
			list = append(list, c)
		}
	}
	if !put {
		list = append(list, card)
	}
	b.Chargers = list
	return b
}

// ItemError says what is wrong with an entry of an item, and what is allowed.
type ItemError struct{ Field, Value, Wrong, Allowed string }

func (e *ItemError) Error() string {
	return fmt.Sprintf("%s %q %s; allowed: %s", e.Field, e.Value, e.Wrong, e.Allowed)
}

// ItemColumn is a column of the parts book: how it is called, set from text, and written.
type ItemColumn struct {
	Head string
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

// Get is the entry as written.
func (c ItemColumn) Get(i Item) string { return c.get(i) }

func clip(s string) string {
	if r := []rune(s); len(r) > 60 {
		return string(r[:60]) + "…"
	}
	return s
}

func words(head string, most int, at func(*Item) *string) ItemColumn {
	return ItemColumn{head, func(i *Item, text string) (string, string) {
		if len([]rune(text)) > most || strings.ContainsAny(text, "\n\t") || strings.ContainsFunc(text, unit.Unwritable) {
			return "is too long, or has breaks or controls in it", fmt.Sprintf("one line, up to %d characters", most)
		}
		*at(i) = text
		return "", ""
	}, func(i Item) string { return *at(&i) }}
}

func number(head string, dim unit.Dimension, least, most float64, at func(*Item) **float64) ItemColumn {
	allowed := strings.TrimSpace(fmt.Sprintf("%g to %g %s", least, most, dim.Base))
	return ItemColumn{head, func(i *Item, text string) (string, string) {
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

func date(head string, at func(*Item) *string) ItemColumn {
	return ItemColumn{head, func(i *Item, text string) (string, string) {
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

// ItemColumns are the columns of the parts book, in their order. Limits are what is
// physically sensible; beyond them a typing error is likelier than a part.
var ItemColumns = []ItemColumn{
	{"kind", func(i *Item, text string) (string, string) {
		for _, k := range ItemKinds {
			if strings.EqualFold(k, text) {
				i.Kind = k
				return "", ""
			}
		}
		return "is not a kind of part", strings.Join(ItemKinds, ", ")
	}, func(i Item) string { return i.Kind }},
	words("name", 60, func(i *Item) *string { return &i.Name }),
	number("rating A", unit.Current, 0.5, 600, func(i *Item) **float64 { return &i.RatingA }),
	{"size", func(i *Item, text string) (string, string) {
		s, err := cable.Parse(text)
		if err != nil {
			return "is not a cable size", "such as 16 mm², 6 AWG, 8 mm auto; not mm alone"
		}
		i.Size = s.Label
		return "", ""
	}, func(i Item) string { return i.Size }},
	number("efficiency %", unit.Percent, 50, 99, func(i *Item) **float64 { return &i.Efficiency }),
	number("cut-out V", unit.Voltage, 9, 14, func(i *Item) **float64 { return &i.CutOutV }),
	number("largest fuse A", unit.Current, 1, 600, func(i *Item) **float64 { return &i.MaxFuseA }),
	number("standby A", unit.Current, 0, 5, func(i *Item) **float64 { return &i.StandbyA }),
	number("full up to °C", unit.Temperature, 20, 110, func(i *Item) **float64 { return &i.MaxAmbientC }),
	number("price", unit.Count, 0, 100000, func(i *Item) **float64 { return &i.Price }),
	{"currency", func(i *Item, text string) (string, string) {
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
	number("restart V", unit.Voltage, 9, 14.5, func(i *Item) **float64 { return &i.RestartV }),
	number("cut-in V", unit.Voltage, 12.4, 14.8, func(i *Item) **float64 { return &i.CutInV }),
	number("cranks A", unit.Current, 1, 3000, func(i *Item) **float64 { return &i.CrankA }),
	number("rest contact A", unit.Current, 1, 1000, func(i *Item) **float64 { return &i.RestA }),
	number("breaks A", unit.Current, 50, 100000, func(i *Item) **float64 { return &i.BreaksA }),
	number("capacity Ah", unit.Charge(12), 1, 2000, func(i *Item) **float64 { return &i.CapacityAh }),
	number("length mm", unit.Millimetres, 20, 2000, func(i *Item) **float64 { return &i.LengthMM }),
	number("width mm", unit.Millimetres, 20, 2000, func(i *Item) **float64 { return &i.WidthMM }),
	number("height mm", unit.Millimetres, 20, 2000, func(i *Item) **float64 { return &i.HeightMM }),
	number("weight kg", unit.Mass, 0.1, 500, func(i *Item) **float64 { return &i.WeightKg }),
	number("draws at most A", unit.Current, 1, 500, func(i *Item) **float64 { return &i.InputA }),
	{"profiles", func(i *Item, text string) (string, string) {
		i.Profiles = nil
		for _, word := range strings.FieldsFunc(strings.ToLower(text), func(r rune) bool { return strings.ContainsRune(" ,;/", r) }) {
			if !slices.Contains(chemistries, word) {
				i.Profiles = nil
				return "names a chemistry that is not known", strings.Join(chemistries, ", ") + "; several with a space between"
			}
			i.Profiles = append(i.Profiles, word)
		}
		slices.Sort(i.Profiles)
		i.Profiles = slices.Compact(i.Profiles)
		return "", ""
	}, func(i Item) string { return strings.Join(i.Profiles, " ") }},
	words("remark", 200, func(i *Item) *string { return &i.Remark }),
}

// chemistries are those that a charger may have a profile for.
var chemistries = func() (ids []string) {
	for _, c := range battery.Chemistries {
		ids = append(ids, c.ID)
	}
	return ids
}()

// Check says what an item lacks. A price and a count carry their date: today's where none
// is given, as that is the day they are entered.
func (i *Item) Check(today string) []ItemError {
	var errs []ItemError
	lacks := func(field, allowed string) { errs = append(errs, ItemError{field, "", "is missing", allowed}) }
	if i.Kind == "" {
		lacks("kind", strings.Join(ItemKinds, ", "))
	}
	if i.Name == "" {
		lacks("name", "what the workshop calls it")
	}
	if rated[i.Kind] && i.RatingA == nil {
		lacks("rating A", "a "+i.Kind+" says its current")
	}
	if i.Kind == "battery" && i.CapacityAh == nil {
		lacks("capacity Ah", "a battery says its capacity")
	}
	if i.Kind == "cable" && i.Size == "" {
		lacks("size", "such as 16 mm², 6 AWG, 8 mm auto")
	}
	if i.Price != nil && i.Currency == "" {
		lacks("currency", "a price says its currency: three capital letters, ISO 4217")
	}
	if i.Price != nil && i.PricedOn == "" {
		i.PricedOn = today
	}
	if i.Stock != nil && i.CountedOn == "" {
		i.CountedOn = today
	}
	return errs
}
