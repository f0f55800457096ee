package job

import (
	"cmp"
	"maps"
	"slices"

	"epitrope/core/feed"
	"epitrope/core/need"
	"epitrope/core/profile"
)

// MostRows is how many rows a list may have.
const MostRows = 80

func appliances() []Option {
	o := []Option{}
	for _, a := range need.Appliances {
		o = append(o, Option{a.ID, a.Label})
	}
	return o
}

// rowFields are the fields of the rows of lists.
var rowFields = []Field{
	{Path: "loads.*.kind", Label: "Load", Kind: Choice, Choices: appliances()},
	{Path: "loads.*.name", Label: "Called", Kind: Text, Max: 60},
	{Path: "loads.*.count", Label: "How many", Kind: Number, Min: 1, Max: 50, dim: count},
	{Path: "loads.*.watts", Label: "Power each", Kind: Number, Unit: "W", Max: 5000, Digits: 1, dim: power},
	{Path: "loads.*.amps", Label: "Current each", Kind: Number, Unit: "A", Max: 400, Digits: 2, dim: current},
	{Path: "loads.*.hours", Label: "Hours a day", Kind: Number, Unit: "h", Max: 24, Digits: 2, dim: hours},
	{Path: "loads.*.duty", Label: "Of these it runs", Kind: Number, Unit: "%", Min: 1, Max: 100, dim: share},
	{Path: "loads.*.standbyA", Label: "Standby each", Kind: Number, Unit: "A", Max: 20, Digits: 3, dim: current},

	{Path: "feeds.*.kind", Label: "Signal from", Kind: Choice, Choices: []Option{{string(feed.Slot), "a fuse"},
		{string(feed.Interface), "body-builder's interface"}, {string(feed.DPlus), "61 or D+"}}},
	{Path: "feeds.*.name", Label: "Called", Kind: Text, Max: 40},
	{Path: "feeds.*.ratingA", Label: "The circuit's fuse", Kind: Number, Unit: "A", Max: 100, Digits: 1, dim: current},
	{Path: "feeds.*.circuit", Label: "The circuit feeds", Kind: Text, Max: 60},
	{Path: "feeds.*.safety", Label: "Brakes, airbag, steering or engine", Kind: Choice, Choices: yesNo},
	{Path: "feeds.*.only", Label: "Live only with this on", Kind: Text, Max: 60},
	{Path: "feeds.*.off", Label: "Key out", Kind: Choice, Choices: liveDead},
	{Path: "feeds.*.on", Label: "Ignition on", Kind: Choice, Choices: liveDead},
	{Path: "feeds.*.accessory", Label: "Accessory", Kind: Choice, Choices: liveDead},
	{Path: "feeds.*.running", Label: "Engine running", Kind: Choice, Choices: liveDead},
	{Path: "feeds.*.cranking", Label: "Cranking", Kind: Choice, Choices: liveDead},
	{Path: "feeds.*.slept", Label: "Key out, after the bus sleeps", Kind: Choice, Choices: liveDead},
	{Path: "signal.feed", Label: "Feed point taken", Kind: Text, Max: mostKey, Part: "coupling"},

	{Path: "dates.*.kind", Label: "What for", Kind: Choice, Choices: []Option{{TopUpDate, "charge a battery that stands"},
		{TemporaryDate, "undo a temporary repair"}, {FitDate, "in the bay"}, {RevisitDate, "revisit"}, {OtherDate, "something else"}}},
	{Path: "dates.*.what", Label: "What is to be done", Kind: Text, Max: 200},
	{Path: "dates.*.due", Label: "Due on", Kind: Date, Example: "2030-05-01"},
	{Path: "dates.*.everyDays", Label: "Again every", Kind: Number, Unit: "days", Min: 1, Max: 3650, dim: days},
	{Path: "dates.*.bay", Label: "Bay", Kind: Text, Max: 30, When: &When{Path: "dates.*.kind", Is: []string{FitDate}}},
	{Path: "dates.*.done", Label: "Last done on", Kind: Date, Example: "2030-05-01"},

	{Path: "points.*.kind", Label: "What", Kind: Choice, Choices: []Option{{"earth", "earth point"}, {"grommet", "grommet"},
		{"fastener", "seat or trim fastener"}, {"stud", "positive stud"}}},
	{Path: "points.*.where", Label: "Where", Kind: Text, Max: 120},
	{Path: "points.*.size", Label: "Size, torque, tool", Kind: Text, Max: 60},
	{Path: "card.name", Label: "Charger's card", Kind: Text, Max: 60, Part: "coupling"},
	{Path: "card.way", Label: "The charger is set by", Kind: Choice, Part: "coupling",
		Choices: []Option{{"leads", "joined sense wires"}, {"button", "a mode button held"}, {"switches", "switches"},
			{"link", "a link to battery or ground"}}},
	{Path: "card.outputA", Label: "Output", Kind: Number, Unit: "A", Min: 1, Max: 300, Digits: 1, dim: current, Part: "coupling"},
	{Path: "card.efficiency", Label: "Efficiency", Kind: Number, Unit: "%", Min: 50, Max: 99, Digits: 1, dim: share, Part: "coupling"},
	{Path: "card.cutOutV", Label: "The charger stops below, at 12 V", Kind: Number, Unit: "V", Min: 9, Max: 13, Digits: 2, dim: tension,
		Part: "coupling"},
	{Path: "card.maxFuseA", Label: "Largest fuse its sheet allows", Kind: Number, Unit: "A", Min: 1, Max: 600, Digits: 1, dim: current,
		Part: "coupling"},
	{Path: "card.standbyA", Label: "The charger takes at rest", Kind: Number, Unit: "A", Max: 5, Digits: 3, dim: current, Part: "coupling"},
	{Path: "card.maxAmbientC", Label: "Full output up to", Kind: Number, Unit: "°C", Min: 20, Max: 110, Digits: 0, dim: warmth,
		Part: "coupling"},
	{Path: "card.detectOnV", Label: "By voltage it starts above, at 12 V", Kind: Number, Unit: "V", Min: 12.5, Max: 14.5, Digits: 2,
		dim: tension, Part: "coupling"},
	{Path: "card.detectOffV", Label: "… and stops below, at 12 V", Kind: Number, Unit: "V", Min: 11.5, Max: 14, Digits: 2, dim: tension,
		Part: "coupling"},
	{Path: "card.price", Label: "Price", Kind: Number, Max: 100000, Digits: 2, dim: count, Part: "coupling"},
	{Path: "card.currency", Label: "In", Kind: Currency, Part: "coupling"},
	{Path: "card.pricedOn", Label: "Priced on", Kind: Date, Part: "coupling"},
	{Path: "settings.*.name", Label: "Setting", Kind: Text, Max: 40},
	{Path: "settings.*.for", Label: "Meant for", Kind: Choice, Choices: chemistries()},
	{Path: "settings.*.absorptionV", Label: "Absorption", Kind: Number, Unit: "V", Min: 13, Max: 16, Digits: 2, dim: tension},
	{Path: "settings.*.floatV", Label: "Float", Kind: Number, Unit: "V", Max: 14.5, Digits: 2, dim: tension},
	{Path: "settings.*.compensated", Label: "Compensated by temperature", Kind: Choice, Choices: yesNo},
	{Path: "settings.*.how", Label: "How it is made", Kind: Text, Max: 120},
	{Path: "settings.*.leadA", Label: "Lead A", Kind: Choice, Choices: leadChoices},
	{Path: "settings.*.leadB", Label: "Lead B", Kind: Choice, Choices: leadChoices},
	{Path: "profile.setting", Label: "Charger is set to", Kind: Text, Max: mostKey, Pin: true, Part: "coupling"},
	{Path: "profile.broken", Label: "Configuration lead found open", Kind: Choice, Part: "coupling",
		Choices: []Option{{"a", "A"}, {"b", "B"}, {"both", "both"}}},
	{Path: "profile.disable", Label: "Charge-disable wired to the charger", Kind: Choice, Choices: yesNo, Part: "coupling"},
	{Path: "profile.fed", Label: "Configuration leads to plus are fed by", Kind: Choice, Part: "coupling",
		Choices: []Option{{"steady", "the battery itself, never switched off"}, {FedSwitched, "something that can be switched off"}}},

	{Path: "have.coupling", Label: "Found coupling", Kind: Choice, Choices: append(couplings(), Option{"none", "none"}), Part: "coupling"},
	{Path: "have.couplingA", Label: "Found coupling is rated", Kind: Number, Unit: "A", Min: 1, Max: 600, dim: current, Part: "coupling"},
	{Path: "have.fuseA", Label: "In the van: fuse", Kind: Number, Unit: "A", Min: 1, Max: 600, Digits: 1, dim: current},
	{Path: "have.size", Label: "In the van: cable", Kind: CableKey, Example: "16 mm², 6 AWG, 8 mm auto"},
	{Path: "have.metres", Label: "In the van: metres of it", Kind: Number, Unit: "m", Min: 0.2, Max: 100, Digits: 1, dim: length},
	{Path: "have.fuses", Label: "In the van: how many such fuses", Kind: Number, Min: 0, Max: 20, dim: count},
	{Path: "have.relayA", Label: "In the van: relay", Kind: Number, Unit: "A", Min: 1, Max: 600, dim: current},

	{Path: "built.*", Label: "As built", Kind: Text, Max: 120},
	{Path: "known.*", Label: "Known by", Kind: Choice, Choices: []Option{{"measured", "measured"}, {"book", "vehicle book"}, {"told", "told"},
		{"assumed", "assumed"}}},
}

// FedSwitched is a supply of the configuration leads that can be switched off.
const FedSwitched = "switched"

var liveDead = []Option{{string(feed.Is), "live"}, {string(feed.Dead), "dead"}}

var leadChoices = []Option{{string(profile.Open), "open"}, {string(profile.Ground), "to ground"},
	{string(profile.Battery), "to battery plus"}}

// What a date is for.
const (
	TopUpDate     = "topup"
	TemporaryDate = "temporary"
	RevisitDate   = "revisit"
	FitDate       = "fit" // the work itself; its days follow from the steps
	OtherDate     = "other"
)

// Due is a row of the job's calendar. Dates are ISO 8601.
type Due struct {
	Kind      *string  `json:"kind,omitempty"`
	What      string   `json:"what,omitempty"`
	Due       *string  `json:"due,omitempty"`
	EveryDays *float64 `json:"everyDays,omitempty"`
	Bay       string   `json:"bay,omitempty"`
	Done      *string  `json:"done,omitempty"`
}

// Open says whether it is still to be done: it has a date, and was not done on it or after
// it.
func (d Due) Open() bool {
	return d.Due != nil && (d.Done == nil || *d.Done < *d.Due)
}

// Spot is a row of places on the vehicle: earth points, grommets, fasteners.
type Spot struct {
	Kind  *string `json:"kind,omitempty"`
	Where string  `json:"where,omitempty"`
	Size  string  `json:"size,omitempty"`
}

// CardSetting is a row of a charger's card: one way that it can be set, at 12 V.
type CardSetting struct {
	Name        string   `json:"name,omitempty"`
	For         *string  `json:"for,omitempty"`
	AbsorptionV *float64 `json:"absorptionV,omitempty"`
	FloatV      *float64 `json:"floatV,omitempty"`
	Compensated *string  `json:"compensated,omitempty"`
	How         string   `json:"how,omitempty"`
	LeadA       *string  `json:"leadA,omitempty"`
	LeadB       *string  `json:"leadB,omitempty"`
}

// Feed is a row of the feed points that were tested.
type Feed struct {
	Kind      *string  `json:"kind,omitempty"`
	Name      string   `json:"name,omitempty"`
	RatingA   *float64 `json:"ratingA,omitempty"`
	Circuit   string   `json:"circuit,omitempty"`
	Safety    *string  `json:"safety,omitempty"`
	Only      string   `json:"only,omitempty"`
	Off       *string  `json:"off,omitempty"`
	On        *string  `json:"on,omitempty"`
	Accessory *string  `json:"accessory,omitempty"`
	Running   *string  `json:"running,omitempty"`
	Cranking  *string  `json:"cranking,omitempty"`
	Slept     *string  `json:"slept,omitempty"`
}

// Point is the row as the rules of feed points look at it.
func (f Feed) Point(key string) feed.Point {
	text := func(p *string) string {
		if p == nil {
			return ""
		}
		return *p
	}
	p := feed.Point{Name: f.Name, Kind: feed.Slot, Circuit: f.Circuit, Safety: feed.Safe(text(f.Safety)), Only: f.Only,
		Off: feed.Live(text(f.Off)), On: feed.Live(text(f.On)), Accessory: feed.Live(text(f.Accessory)),
		Running: feed.Live(text(f.Running)), Cranking: feed.Live(text(f.Cranking)), Slept: feed.Live(text(f.Slept))}
	if f.Kind != nil {
		p.Kind = feed.Kind(*f.Kind)
	}
	if f.RatingA != nil {
		p.RatingA = *f.RatingA
	}
	if p.Name == "" {
		p.Name = "feed point " + key
	}
	return p
}

// Load is a row of the loads.
type Load struct {
	Kind     *string  `json:"kind,omitempty"`
	Name     string   `json:"name,omitempty"`
	Count    *float64 `json:"count,omitempty"`
	Watts    *float64 `json:"watts,omitempty"`
	Amps     *float64 `json:"amps,omitempty"`
	Hours    *float64 `json:"hours,omitempty"`
	Duty     *float64 `json:"duty,omitempty"`
	StandbyA *float64 `json:"standbyA,omitempty"`
}

// Row is a row of a list with its name.
type Row[T any] struct {
	Key string
	Of  T
}

// Rows are a list's rows by their names, which are given in the order of time.
func Rows[T any](list map[string]T) []Row[T] {
	rows := make([]Row[T], 0, len(list))
	for _, key := range slices.SortedFunc(maps.Keys(list), cmp.Compare) {
		rows = append(rows, Row[T]{key, list[key]})
	}
	return rows
}
