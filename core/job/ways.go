package job

import "epitrope/core/cable"

// How an earth is fastened.
const (
	WeldedStud = "stud"
	CaptiveNut = "nut"
	SheetScrew = "screw"
	HoldsBolt  = "holds"
	PaneFrame  = "pane"
)

// Where the aux side's earth point is.
const (
	EarthOnChassis = "chassis"
	EarthOnBody    = "body"
)

// wayFields are how wires and the way back really lie: each with the place and insulation of its
// own, where these differ from what is taken.
var wayFields = []Field{
	{Path: "cable.startInsulation", Label: "Start run's insulation", Kind: Level, Unit: "°C", Choices: insulations, Part: "c1"},
	{Path: "cable.auxInsulation", Label: "Aux run's insulation", Kind: Level, Unit: "°C", Choices: insulations, Part: "c2"},
	{Path: "bays.returnC", Label: "Warmest along the return cable", Kind: Number, Unit: "°C", Min: -20, Max: 100, dim: warmth,
		Part: "return", Example: "40 °C"},
	{Path: "bays.returnLay", Label: "Return cable is laid", Kind: Choice, Choices: layings(), Part: "return"},
	{Path: "routes.returnM", Label: "Return cable, where it is longer or shorter than the feed", Kind: Number, Unit: "m", Min: 0.1, Max: 40,
		Digits: 2, dim: length, Part: "return", Example: "6.5 m"},
	{Path: "routes.auxBackM", Label: "Aux battery's minus to the charger", Kind: Number, Unit: "m", Min: 0.1, Max: 30, Digits: 2, dim: length,
		Part: "c2", Example: "1.2 m"},
	{Path: "routes.earthAt", Label: "Earth point is on", Kind: Choice, Part: "return",
		Choices: []Option{{EarthOnChassis, "the chassis"}, {EarthOnBody, "tray, canopy or body"}}},
	{Path: "routes.earthBy", Label: "Earth is fastened by", Kind: Choice, Part: "return",
		Choices: []Option{{WeldedStud, "a welded stud"}, {CaptiveNut, "a captive nut"}, {SheetScrew, "a screw into sheet"},
			{HoldsBolt, "a bolt of seat, belt or hinge"}, {PaneFrame, "a pane's frame"}}},
	ask("routes.guarded", "Every hole that a cable passes has its edge guarded", "c1"),
}

var insulations = []Option{{"70", "70 °C"}, {"85", "85 °C"}, {"105", "105 °C"}}

// WayFacts are how the return really goes.
type WayFacts struct {
	ReturnM, AuxBackM *float64   // of cable, where they were measured
	ReturnBay         *cable.Bay // where the return cable lies elsewhere
	OnBody            bool       // the earth point is on tray, canopy or body
	EarthBy           string     // "" where nobody looked
	Guarded           Tri
}

// ways notes them.
func (f *Facts) ways(r *resolver, d Document) {
	w := WayFacts{ReturnM: r.some("routes.returnM", d.Routes.ReturnM), AuxBackM: r.some("routes.auxBackM", d.Routes.AuxBackM),
		EarthBy: string(r.tri("routes.earthBy", d.Routes.EarthBy)), Guarded: r.tri("routes.guarded", d.Routes.Guarded)}
	at, why := EarthOnChassis, "where it should be"
	if f.Place.OnBody || f.Survey.Bonded == No {
		at, why = EarthOnBody, "the nearest metal of such a place"
	}
	w.OnBody = r.text("routes.earthAt", d.Routes.EarthAt, at, why) == EarthOnBody
	if d.Bays.ReturnC != nil || d.Bays.ReturnLay != nil {
		b := f.StartBay
		if d.Bays.ReturnC != nil {
			b = bay(r, "bays.returnC", d.Bays.ReturnC, false).Laid(f.StartBay.Laying)
		}
		if d.Bays.ReturnLay != nil {
			b = b.Laid(laying(r, "bays.returnLay", d.Bays.ReturnLay, false))
		}
		w.ReturnBay = &b
	}
	f.Ways = w
	f.StartInsulation, f.AuxInsulation = f.insulation(r, "cable.startInsulation", d.Cable.StartInsulation),
		f.insulation(r, "cable.auxInsulation", d.Cable.AuxInsulation)
}

// insulation is a run's own, or that of the reels.
func (f *Facts) insulation(r *resolver, path string, own *float64) cable.Insulation {
	if own == nil {
		return f.Insulation
	}
	r.note(path, *own, true, "")
	n, _ := cable.InsulationFor(*own) // only classes are choices
	return n
}
