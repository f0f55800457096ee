package retrofit

import (
	"fmt"
	"slices"
	"strings"

	"epitrope/core/coupling"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/unit"
	"epitrope/core/verdict"
)

var gearCouplings = map[string][]coupling.Kind{"relay": {coupling.VSR}, "contactor": {coupling.SwitchedContactor},
	"selector":   {coupling.ManualSelector},
	"charger":    {coupling.DCDC, coupling.TrailerCharger, coupling.DCDCChangeover, coupling.DCDCHighCurrent},
	"changeover": {coupling.DCDCChangeover}, "splitter": {coupling.DiodeSplitter}}

// foundGear says what becomes of a device.
func foundGear(d *design.Design, row job.Row[job.Gear]) GearVerdict {
	g := row.Of
	field, _ := job.FieldAt("gear.x.kind")
	out := GearVerdict{Key: row.Key, Name: g.Name, Level: verdict.Good, Fate: "stays", Why: "Not in the way.",
		FactoryFeed: job.Str(g.FactoryFeed) == "yes"}
	if out.Name == "" && g.Kind != nil {
		out.Name = field.Show(*g.Kind)
	}
	kinds, is := gearCouplings[job.Str(g.Kind)]
	switch {
	case job.Str(g.Works) == "dead":
		out.Level, out.Fate, out.Why = verdict.Bad, "goes", "Dead: take it out with its wires, or they stay live."
	case out.FactoryFeed:
		out.Level, out.Fate, out.Why = verdict.Caution, "stays",
			"The factory's ignition feed comes off its coil and is insulated: otherwise it joins the batteries whenever the key is on."
	case job.Str(g.Works) == "" || job.Str(g.Works) == "unknown":
		out.Level, out.Fate, out.Why = verdict.Open, "open", "Try it before anything relies on it."
	case !is:
	case !slices.Contains(kinds, d.Kind):
		out.Level, out.Fate = verdict.Caution, "goes"
		out.Why = "The new design couples by " + d.Kind.Label() + ": left in, it would join what is meant to be apart."
		if job.Str(g.Kind) == "splitter" {
			out.Why = "The new design couples by " + d.Kind.Label() + ": left in, it would feed the aux battery past that. The vehicle's own " +
				"charge cable goes back to the start battery."
		}
	case d.Kind.Charger() && job.Str(g.Kind) == "charger" && num(g.RatingA) > 0 && num(g.RatingA) < d.NeedA:
		out.Level, out.Fate, out.Why = verdict.Caution, "goes", fmt.Sprintf("%s of the %s that would hold the balance.",
			unit.Plain(num(g.RatingA), "A", 0), unit.Text(d.NeedA, "A", 0))
	case !d.Kind.Charger() && num(g.RatingA) > 0 && num(g.RatingA)*parts.ContactFactor(d.Start.Bay.AmbientC) < d.Start.Amps:
		out.Level, out.Fate, out.Why = verdict.Bad, "goes", fmt.Sprintf("Rated %s and the new design carries %s.",
			unit.Plain(num(g.RatingA), "A", 0), unit.Text(d.Start.Amps, "A", 0))
	default:
		out.Why = "Can be used again."
	}
	if job.Str(g.Works) == "doubtful" {
		out.Level, out.Fate, out.Why = verdict.Caution, "goes", "Half dead: "+orWords(g.Fault, "its fault comes back")+"."
	}
	return out
}

func orWords(s, otherwise string) string {
	if s == "" {
		return otherwise
	}
	return strings.TrimSuffix(s, ".")
}
