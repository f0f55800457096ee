package job

import (
	"epitrope/core/mount"
	"epitrope/core/unit"
)

// Drilling is what is looked at before the first hole.
type Drilling struct {
	Tank    *string `json:"tank,omitempty"`
	Airbags *string `json:"airbags,omitempty"`
	Looms   *string `json:"looms,omitempty"`
	Lines   *string `json:"lines,omitempty"`
	Exhaust *string `json:"exhaust,omitempty"`

	Class     *string  `json:"class,omitempty"`
	BatteryKg *float64 `json:"batteryKg,omitempty"`
	OtherKg   *float64 `json:"otherKg,omitempty"`
	SpareKg   *float64 `json:"spareKg,omitempty"`
	Bolts     *float64 `json:"bolts,omitempty"`
	Thread    *string  `json:"thread,omitempty"`
	Into      *string  `json:"into,omitempty"`
}

// How far a zone is from what is drilled.
const (
	ZoneClear = "clear"
	ZoneNear  = "near"
)

// What the fastening goes into.
const (
	IntoStructure = "structure"
	IntoPlates    = "plates"
	IntoSheet     = "sheet"
)

// Zone is a thing that is kept clear of drills and screws.
type Zone struct{ ID, Name, Why string }

// Zones are those that are looked for.
var Zones = []Zone{
	{"tank", "the fuel tank and its pipes", "a drill through it is a fire"},
	{"airbags", "airbags, their sensors and belt anchors", "what is disturbed there fails when it is needed, or goes off"},
	{"looms", "the vehicle's looms", "a nicked wire fails months later, somewhere else"},
	{"lines", "brake and fuel lines", "they run where cables would like to"},
	{"exhaust", "exhaust and its shields", "insulation melts and plastic burns within a hand's breadth of it"},
}

var zoneChoices = []Option{{ZoneClear, "clear, seen"}, {ZoneNear, "close by or behind"}}

// drillingFields are what is looked at before drilling.
var drillingFields = func() []Field {
	classes, threads := []Option{}, []Option{}
	for _, c := range mount.Classes {
		classes = append(classes, Option{c.ID, c.Label})
	}
	for _, t := range mount.Threads {
		threads = append(threads, Option{t.ID, t.ID})
	}
	kilos := plain(unit.Mass)
	list := []Field{}
	for _, z := range Zones {
		list = append(list, Field{Path: "drilling." + z.ID, Label: unit.Capital(z.Name), Kind: Choice, Choices: zoneChoices, Part: "c1"})
	}
	return append(list,
		Field{Path: "drilling.class", Label: "For a crash the vehicle counts as", Kind: Choice, Choices: classes, Part: "aux"},
		Field{Path: "drilling.batteryKg", Label: "Aux battery weighs", Kind: Number, Unit: "kg", Min: 0.5, Max: 500, Digits: 1, dim: kilos,
			Part:    "aux",
			Example: "28 kg"},
		Field{Path: "drilling.otherKg", Label: "Box, trays and what else is added", Kind: Number, Unit: "kg", Max: 500, Digits: 1,
			dim: kilos, Part: "aux", Example: "6 kg"},
		Field{Path: "drilling.spareKg", Label: "The vehicle may still carry", Kind: Number, Unit: "kg", Max: 10000, dim: kilos, Part: "vehicle",
			Example: "180 kg"},
		Field{Path: "drilling.bolts", Label: "Battery or box is held by bolts", Kind: Number, Min: 1, Max: 20, dim: count, Part: "aux",
			Example: "4"},
		Field{Path: "drilling.thread", Label: "Of size", Kind: Choice, Choices: threads, Part: "aux"},
		Field{Path: "drilling.into", Label: "Through", Kind: Choice, Part: "aux", Choices: []Option{{IntoStructure, "the vehicle's structure"},
			{IntoPlates, "sheet, with plates behind"}, {IntoSheet, "sheet alone"}}})
}()

// DrillingFacts are what was seen, weighed and counted.
type DrillingFacts struct {
	Zones              map[string]string // by id; "" where nobody looked
	Class              mount.Class
	ClassKnown         bool
	BatteryKg, OtherKg *float64
	SpareKg, Bolts     *float64
	Thread             *mount.Thread
	Into               string
}

// drilling notes them.
func (f *Facts) drilling(r *resolver, d Document) {
	g := d.Drilling
	out := DrillingFacts{Zones: map[string]string{}}
	for id, given := range map[string]*string{"tank": g.Tank, "airbags": g.Airbags, "looms": g.Looms, "lines": g.Lines, "exhaust": g.Exhaust} {
		out.Zones[id] = Str(given)
	}
	for _, z := range Zones { // in their order
		if at := out.Zones[z.ID]; at != "" {
			r.note("drilling."+z.ID, at, true, "")
		}
	}
	out.Class, out.ClassKnown = mount.ClassOf(string(r.tri("drilling.class", g.Class))), g.Class != nil
	out.BatteryKg, out.OtherKg = r.some("drilling.batteryKg", g.BatteryKg), r.some("drilling.otherKg", g.OtherKg)
	out.SpareKg, out.Bolts = r.some("drilling.spareKg", g.SpareKg), r.some("drilling.bolts", g.Bolts)
	if t, ok := mount.ThreadOf(string(r.tri("drilling.thread", g.Thread))); ok {
		out.Thread = &t
	}
	out.Into = string(r.tri("drilling.into", g.Into))
	f.Drilling = out
}
