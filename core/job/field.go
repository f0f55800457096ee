package job

import (
	"slices"
	"strings"

	"epitrope/core/battery"
	"epitrope/core/cable"
	"epitrope/core/coupling"
	"epitrope/core/day"
	"epitrope/core/parts"
	"epitrope/core/protect"
	"epitrope/core/unit"
)

// LugsByCable are lugs with barrels for the cable as it is sold.
const LugsByCable = "cable"

// Kind is how a field is answered.
type Kind string

// The kinds of field.
const (
	Choice   Kind = "choice" // one of Choices, text
	Level    Kind = "level"  // one of Choices, a number
	Number   Kind = "number" // a quantity with a unit
	CableKey Kind = "cable"  // a cable's name
	LabelKey Kind = "label"  // an alternator's label
	Text     Kind = "text"   // free words
	Driving  Kind = "driving"
	Date     Kind = "date"  // ISO 8601
	Resting  Kind = "curve" // a battery's own rest voltages
	Currency Kind = "currency"
	Cables   Kind = "cables" // names of cables, with commas between
)

// Option is one answer to a choice.
type Option struct {
	Value string `json:"value"`
	Label string `json:"label"`
}

// Field is one field of the document: what it is called, where on the section it
// is asked, and what is allowed. Min and Max are in the unit of Unit; where
// PerSystem is set they are for 12 V and grow with the system voltage.
type Field struct {
	Path      string   `json:"path"`
	Label     string   `json:"label"`
	Kind      Kind     `json:"kind" enum:"choice,level,number,cable,label,text,driving,date,curve,currency,cables"`
	Unit      string   `json:"unit,omitempty"`
	Min       float64  `json:"min,omitempty"`
	Max       float64  `json:"max,omitempty"`
	Digits    int      `json:"digits,omitempty"`
	PerSystem bool     `json:"perSystem,omitempty"`
	Choices   []Option `json:"choices"`
	Part      string   `json:"part,omitempty" doc:"The part of the section where it is asked"`
	Example   string   `json:"example,omitempty"`
	Pin       bool     `json:"pin,omitempty" doc:"A choice that the plan makes unless it is pinned"`
	When      *When    `json:"when,omitempty" doc:"It is asked only where another field has such an answer"`
	dim       func(n float64) unit.Dimension
}

// When is what another field has to be answered so that a field is asked: one of some choices,
// or a number above one. In a row, it is a field of the same row.
type When struct {
	Path  string   `json:"path"`
	Is    []string `json:"is,omitempty"`
	Above float64  `json:"above,omitempty"`
}

// OnAux says whether a field is about the aux side, whose voltage may be another than the vehicle's.
func (f Field) OnAux() bool { return f.Part == "aux" || strings.HasPrefix(f.Path, "bank.") }

func plain(d unit.Dimension) func(float64) unit.Dimension {
	return func(float64) unit.Dimension { return d }
}

func chargeAt(n float64) unit.Dimension { return unit.Charge(12 * n) }

var (
	current = plain(unit.Current)
	length  = plain(unit.Length)
	warmth  = plain(unit.Temperature)
	share   = plain(unit.Percent)
	tension = plain(unit.Voltage)
)

func chemistries() []Option {
	var o []Option
	for _, c := range battery.House() {
		o = append(o, Option{c.ID, c.Label})
	}
	return o
}

func layings() []Option {
	var o []Option
	for _, l := range cable.Layings {
		o = append(o, Option{l.ID, l.Label})
	}
	return o
}

func patterns() []Option {
	var o []Option
	for _, r := range day.ReadyPatterns {
		o = append(o, Option{r.ID, r.Label})
	}
	return append(o, Option{OwnPattern, "written out"})
}

// OwnPattern is the choice of a pattern of driving that is written out.
const OwnPattern = "own"

func couplings() []Option {
	var o []Option
	for _, k := range coupling.Kinds() {
		o = append(o, Option{string(k), k.Label()})
	}
	return o
}

func devices() []Option {
	var o []Option
	for _, d := range protect.Devices {
		o = append(o, Option{d.ID, d.Label})
	}
	return o
}

func amps(ratings []float64) []Option {
	o := make([]Option, len(ratings))
	for i, a := range ratings {
		o[i] = Option{unit.Plain(a, "", 1), unit.Plain(a, "A", 1)}
	}
	return o
}

// Fields lists every field once: the run's, then the survey's, then those of the rows of
// lists, whose row stands as * in the path.
var Fields = slices.Concat(runFields, surveyFields, useFields, schoolFields, extraFields, relayFields, jointFields,
	cellFields, machineFields, wayFields, cardFields, rowFields, leftFields, chargingFields, beliefFields,
	arrangedFields, tapFields, bankFields, drillingFields, fittedFields)

// runFields are what the run is planned from. Limits are what is physically sensible for a
// vehicle; beyond them a typing error is likelier than a job.
var runFields = []Field{
	{Path: "title", Label: "Title", Kind: Text, Max: 120},
	{Path: "customer", Label: "Customer", Kind: Text, Max: 120},
	{Path: "plate", Label: "Number plate", Kind: Text, Max: 30},
	{Path: "remarks", Label: "Remarks", Kind: Text, Max: 4000},

	{Path: "vehicle.kind", Label: "Vehicle", Kind: Choice, Choices: vehicleOptions(), Part: "vehicle"},
	{Path: "vehicle.systemVolts", Label: "System voltage", Kind: Level, Unit: "V", Choices: []Option{{"12", "12 V"}, {"24", "24 V"}},
		Part: "start"},
	{Path: "vehicle.loadA", Label: "Vehicle's own load, lamps and blower on", Kind: Number, Unit: "A", Min: 5, Max: 120, dim: current,
		Part: "alternator"},

	{Path: "alternator.label", Label: "Alternator label", Kind: LabelKey, Example: "90/180 A", Part: "alternator"},
	{Path: "alternator.regulation", Label: "Regulation", Kind: Choice, Part: "alternator", Choices: []Option{
		{"fixed", "fixed"}, {"compensated", "temperature-compensated"}, {"variable", "variable"}, {"unknown", "not known"}}},
	{Path: "alternator.knownBy", Label: "Regulation known by", Kind: Choice, Part: "alternator", Choices: []Option{
		{"test", "logged test"}, {"label", "label or workshop data"}, {"year", "model year only"}, {"guess", "not known"}}},
	{Path: "alternator.volts", Label: "Charging voltage, warm, at cruise", Kind: Number, Unit: "V", Min: 10, Max: 16, Digits: 2,
		PerSystem: true, dim: tension, Part: "alternator"},

	{Path: "startBattery.capacityAh", Label: "Start battery capacity", Kind: Number, Unit: "Ah", Min: 20, Max: 400, dim: chargeAt,
		Part: "start"},

	{Path: "startBattery.crankA", Label: "Starter takes", Kind: Number, Unit: "A", Min: 80, Max: 1500, dim: current, Part: "start"},

	{Path: "aux.volts", Label: "Aux side's voltage, where it is another", Kind: Level, Unit: "V", Choices: []Option{{"12", "12 V"},
		{"24", "24 V"}},
		Part: "aux"},
	{Path: "aux.chemistry", Label: "Aux battery chemistry", Kind: Choice, Part: "aux",
		Choices: append(chemistries(), Option{Undecided, "not decided"}, Option{Unknown, "not known"})},
	{Path: "aux.capacityAh", Label: "Aux battery capacity", Kind: Number, Unit: "Ah", Min: 5, Max: 2000, dim: chargeAt, Part: "aux"},
	{Path: "aux.place", Label: "Aux battery sits", Kind: Choice, Choices: placeOptions(), Part: "aux"},

	{Path: "use.dailyAh", Label: "Daily use", Kind: Number, Unit: "Ah", Min: 1, Max: 1000, dim: chargeAt, Part: "aux"},
	{Path: "use.drivenHours", Label: "Hours driven a day", Kind: Number, Unit: "h", Min: 0.1, Max: 24, Digits: 2, dim: plain(unit.Hours),
		Part: "aux"},

	{Path: "routes.startM", Label: "Route, start battery to coupling", Kind: Number, Unit: "m", Min: 0.1, Max: 30, Digits: 2, dim: length,
		Part: "c1"},
	{Path: "routes.auxM", Label: "Route, coupling to aux battery", Kind: Number, Unit: "m", Min: 0.1, Max: 30, Digits: 2, dim: length,
		Part: "c2"},
	{Path: "routes.earthM", Label: "Negative lead to its earth point", Kind: Number, Unit: "m", Min: 0.1, Max: 10, Digits: 2, dim: length,
		Part: "return"},
	{Path: "routes.triggerM", Label: "Route, feed point to coupling", Kind: Number, Unit: "m", Min: 0.1, Max: 30, Digits: 2, dim: length,
		Part: "coupling"},

	{Path: "bays.startC", Label: "Warmest along the start run", Kind: Number, Unit: "°C", Min: -20, Max: 100, dim: warmth, Part: "c1"},
	{Path: "bays.auxC", Label: "Warmest at the aux battery", Kind: Number, Unit: "°C", Min: -20, Max: 80, dim: warmth, Part: "c2"},

	{Path: "bays.startLay", Label: "Start run is laid", Kind: Choice, Choices: layings(), Part: "c1"},
	{Path: "bays.auxLay", Label: "Aux run is laid", Kind: Choice, Choices: layings(), Part: "c2"},

	{Path: "cable.system", Label: "Cable on the reels", Kind: Choice, Part: "c1", Choices: []Option{
		{string(cable.Metric), "mm²"}, {string(cable.AWG), "AWG / B&S"}, {string(cable.Auto), "auto cable"}}},
	{Path: "cable.insulation", Label: "Insulation", Kind: Level, Unit: "°C",
		Choices: insulations, Part: "c1"},

	{Path: "cable.sizes", Label: "Sizes on the reels", Kind: Cables, Max: 160, Example: "4 mm², 16 mm², 35 mm²", Part: "c1"},
	{Path: "cable.lugs", Label: "Lugs in stock", Kind: Choice, Part: "c1", Choices: []Option{
		{LugsByCable, "as the cable is sold"}, {string(cable.Metric), "metric barrels"}, {string(cable.AWG), "gauge barrels"}}},

	{Path: "limits.chargerDrop", Label: "Drop allowed into a charger", Kind: Number, Unit: "%", Min: 0.5, Max: 10, Digits: 1, dim: share,
		Part: "c1"},
	{Path: "limits.batteryDrop", Label: "Drop allowed to a battery", Kind: Number, Unit: "%", Min: 0.5, Max: 10, Digits: 1, dim: share,
		Part: "c2"},

	{Path: "day.pattern", Label: "How it is driven", Kind: Choice, Choices: patterns(), Part: "day"},
	{Path: "day.own", Label: "Driving, written out", Kind: Driving, Max: 60000, Part: "day",
		Example: "park 8 h, crank 2 s, town 20 min, highway 1h30 @ 2600, park 14 h"},
	{Path: "day.days", Label: "Days", Kind: Number, Unit: "days", Min: 1, Max: 28, dim: plain(unit.Days), Part: "day"},
	{Path: "day.outsideC", Label: "Outside", Kind: Number, Unit: "°C", Min: -30, Max: 50, dim: warmth, Part: "day"},
	{Path: "day.solarW", Label: "Solar panels on the aux battery", Kind: Number, Unit: "W", Max: 3000, dim: plain(unit.Power), Part: "day"},
	{Path: "day.sunHours", Label: "Hours of full sun a day", Kind: Number, Unit: "h", Max: 10, Digits: 1, dim: plain(unit.Hours), Part: "day"},
	{Path: "day.startSOC", Label: "Start battery to begin with", Kind: Number, Unit: "%", Min: 5, Max: 100, dim: share, Part: "day"},
	{Path: "day.auxSOC", Label: "Aux battery to begin with", Kind: Number, Unit: "%", Max: 100, dim: share, Part: "day"},
	{Path: "day.trigger", Label: "The coupling is told to run", Kind: Choice, Part: "day", Choices: []Option{
		{"running", "while the engine runs"}, {"ignition", "with the ignition"}, {"accessory", "with the accessory position"},
		{"switch", "by a switch, forgotten on"}, {"voltage", "by the voltage that the charger sees"}, {"dead", "never: its signal is dead"}}},

	{Path: "pins.coupling", Label: "Coupling", Kind: Choice, Pin: true, Part: "coupling", Choices: couplings()},
	{Path: "pins.chargerA", Label: "Charger output", Kind: Level, Unit: "A", Pin: true, Part: "coupling",
		Choices: amps(parts.ChargerRatings)},
	{Path: "pins.chargerCount", Label: "Chargers side by side", Kind: Level, Pin: true, Part: "coupling",
		Choices: []Option{{"1", "1"}, {"2", "2"}}},
	{Path: "pins.contactA", Label: "Contact that joins", Kind: Level, Unit: "A", Pin: true, Part: "coupling",
		Choices: amps(parts.ContactRatings())},
	{Path: "pins.plugA", Label: "Trailer plug", Kind: Level, Unit: "A", Pin: true, Part: "x1", Choices: amps(parts.PlugRatings())},
	{Path: "pins.secondA", Label: "Second alternator", Kind: Level, Unit: "A", Pin: true, Part: "alternator",
		Choices: amps(parts.MachineRatings)},
	{Path: "pins.splitter", Label: "Splitter's diodes", Kind: Choice, Pin: true, Part: "coupling", Choices: []Option{
		{"silicon", "silicon"}, {"fet", "FET"}}},
	{Path: "pins.selector", Label: "Selector stands at", Kind: Choice, Pin: true, Part: "coupling", Choices: []Option{
		{string(coupling.WithIgnition), "joined with ignition"}, {string(coupling.JoinedForGood), "joined always"},
		{string(coupling.Off), "off"}}},
	{Path: "pins.startSize", Label: "Start run cable", Kind: CableKey, Pin: true, Example: "16 mm², 6 AWG, 8 mm auto", Part: "c1"},
	{Path: "pins.auxSize", Label: "Aux run cable", Kind: CableKey, Pin: true, Example: "16 mm², 6 AWG, 8 mm auto", Part: "c2"},
	{Path: "pins.startFuseA", Label: "Fuse at the start battery", Kind: Level, Unit: "A", Pin: true, Part: "f1",
		Choices: amps(protect.PowerRatings())},
	{Path: "pins.auxFuseA", Label: "Fuse at the aux battery", Kind: Level, Unit: "A", Pin: true, Part: "f2",
		Choices: amps(protect.PowerRatings())},
	{Path: "pins.device", Label: "Protected by", Kind: Choice, Pin: true, Part: "f1", Choices: devices()},
	{Path: "pins.return", Label: "Return", Kind: Choice, Pin: true, Part: "return",
		Choices: []Option{{"chassis", "chassis"}, {"cable", "cable"}, {"both", "both"}}},
}
