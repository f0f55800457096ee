package parts

import (
	"slices"
	"strings"

	"epitrope/core/cable"
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
	VoltsIn     []string `json:"voltsIn,omitempty" doc:"Systems that it is made for, of a charger at its input: 12, 24"`
	VoltsOut    []string `json:"voltsOut,omitempty" doc:"Batteries that a charger charges: 12, 24"`
	WakesBy     string   `json:"wakesBy,omitempty" doc:"How a charger knows that the engine runs: signal, voltage, either"`
	LiveV       *float64 `json:"liveV,omitempty" doc:"A charger's signal counts as live from, at 12 V"`
	Isolated    string   `json:"isolated,omitempty" doc:"A charger's input and output are isolated from each other: yes, no"`
	Terminals   string   `json:"terminals,omitempty" doc:"What its cables go on: clamps, or a stud such as M6"`
	LargestSize string   `json:"largestSize,omitempty" doc:"The thickest cable that its terminals take"`
	Has         []string `json:"has,omitempty" doc:"What is in a charger besides: solar, probe, disable, care; none"`
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
	c.Terminals = i.Terminals
	if size, err := cable.Parse(i.LargestSize); err == nil {
		c.MostMM2 = size.CopperMM2()
	}
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
	if len(i.Has) > 1 && slices.Contains(i.Has, HasNone) {
		errs = append(errs, ItemError{"has", strings.Join(i.Has, " "), "says none, and more", "none alone, or what there is"})
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
