package judge

import (
	"slices"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/unit"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// onChemistry are the notes that stand on what the aux battery is: where nobody said, they say “if”, and
// stop nothing.
var onChemistry = []string{"place.hot", "place.gas", "relay.surge", "relay.night", "profile.harms", "profile.high", "profile.low",
	"profile.frost", "profile.broken", "charger.acceptance", "charging.harms", "charging.high", "charging.low", "charging.float",
	"charging.compensates", "charging.frost", "charging.cold", "charging.rate"}

// ifSo is a note told as far as is known: where it stands on an answer that nobody gave, it says so and
// is a caution at most.
func ifSo(d *design.Design, of finding, n Note) Note {
	f, said := d.Facts, ""
	switch {
	case !f.ChemistryKnown && slices.Contains(onChemistry, n.ID):
		said = unit.Say("Nobody said what the aux battery is; if it is %s: ", f.Chemistry.Label)
	case f.Varies() && f.Regulation != "variable" && of.varies:
		said = "How the alternator is regulated is not proven; if it varies: "
	default:
		return n
	}
	n.Text = said + n.Text
	if n.Severity == verdict.Stop {
		n.Severity = verdict.Beware
	}
	return n
}

// kindly are the answers that make least of a job, by what they answer: what is still open may turn out so.
// Source: common practice, no source: the mild end of what is usual.
var kindly = map[string]any{"alternator.label": "150/250 A", "alternator.volts": 14.4, "vehicle.loadA": 20.0, "use.dailyAh": 10.0,
	"use.drivenHours": 4.0, "routes.startM": 1.0, "routes.auxM": 0.3, "routes.earthM": 0.3, "routes.triggerM": 0.5, "bays.startC": 40.0,
	"bays.auxC": 20.0, "startBattery.capacityAh": 100.0, "startBattery.crankA": 250.0}

// doubted are notes with each stop that stands on what nobody answered told as one that may be: it would
// not stand with those answers as mild as they may turn out.
func doubted(d *design.Design, list []Note) []Note {
	if !slices.ContainsFunc(list, func(n Note) bool { return n.Severity == verdict.Stop }) {
		return list
	}
	mild := map[string]any{}
	for _, f := range d.Facts.List {
		if v, ok := kindly[f.Path]; ok && f.Origin == working.Assumed {
			if volts, is := v.(float64); is && f.Path == "alternator.volts" {
				v = volts * d.Facts.N
			}
			mild[f.Path] = v
		}
	}
	if d.Facts.Varies() && d.Facts.Regulation != "variable" {
		mild["alternator.regulation"], mild["alternator.knownBy"] = "fixed", "test"
	}
	if len(mild) == 0 {
		return list
	}
	mild["pins.coupling"] = string(d.Kind) // the same installation, in a milder vehicle
	if pin := d.PinOf(d.AutoChargerA); d.Kind.Charger() && d.Doc.Pins.ChargerA == nil && pin != nil {
		mild["pins.chargerA"] = pin
	}
	doc, problems := job.With(d.Doc, mild)
	if len(problems) > 0 {
		return list
	}
	stand := map[string]bool{}
	for _, n := range notes(d.With(doc), false) {
		stand[n.ID+" "+n.Column] = stand[n.ID+" "+n.Column] || n.Severity == verdict.Stop
	}
	for i, n := range list {
		if n.Severity == verdict.Stop && !stand[n.ID+" "+n.Column] {
			list[i].Severity, list[i].Text = verdict.Beware, "If what stands in for open answers is right: "+n.Text
		}
	}
	return list
}
