package retrofit

import (
	"fmt"
	"slices"
	"strings"

	"epitrope/core/coupling"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/run"
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
		across(d, g, &out)
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
	case job.Str(g.Kind) == "changeover":
		atRest(d, g, &out)
	default:
		out.Why = "Can be used again."
	}
	if job.Str(g.Works) == "doubtful" {
		out.Level, out.Fate, out.Why = verdict.Caution, "goes", "Half dead: "+orWords(g.Fault, "its fault comes back")+"."
	}
	return out
}

// across says what becomes of a device that is no coupling, by where it sits.
func across(d *design.Design, g job.Gear, out *GearVerdict) {
	switch job.Str(g.Across) {
	case job.AcrossBatteries:
		out.Level, out.Fate = verdict.Bad, "goes"
		out.Why = "Closed, it makes the coupling pointless. " + pastSays(d, contactOhm+2*run.JointOhm+d.Start.Trial.Size.OhmPerM()*
			(d.Facts.StartM.Value+d.Facts.AuxM.Value))
	case "start":
		inLead(g, d.Start.Amps, out)
	case "aux":
		inLead(g, d.Aux.Amps, out)
	case "loads":
	default:
		if k := job.Str(g.Kind); k == "isolator" || k == "fusebox" || k == "other" {
			out.Level, out.Fate = verdict.Open, "open"
			out.Why = "Follow both its leads: between the batteries it joins what is meant to be apart."
		}
	}
}

// contactOhm is what a closed isolator adds. Source: from memory.
const contactOhm = 0.0003

// inLead holds a device in a battery's lead against what the new design carries there.
func inLead(g job.Gear, carriesA float64, out *GearVerdict) {
	switch rated := num(g.RatingA); {
	case rated == 0:
		out.Level, out.Fate = verdict.Open, "open"
		out.Why = unit.Say("Read its rating: the new design carries %s there.", unit.Text(carriesA, "A", 0))
	case rated < carriesA:
		out.Level, out.Fate = verdict.Bad, "goes"
		out.Why = unit.Say("Rated %s and the new design carries %s.", unit.Plain(rated, "A", 0), unit.Text(carriesA, "A", 0))
	default:
		out.Why = unit.Say("Stays in its lead: rated %s, and the new design carries %s there.", unit.Plain(rated, "A", 0),
			unit.Text(carriesA, "A", 0))
	}
}

// atRest holds a changeover relay's rest contact against what the charger draws through it for hours:
// its headline figure is not that contact's.
func atRest(d *design.Design, g job.Gear, out *GearVerdict) {
	draws := d.DrawsA()
	switch rest := num(g.RestA); {
	case rest == 0:
		out.Level, out.Fate = verdict.Open, "open"
		out.Why = unit.Say("Find out what its rest contact (87a) bears: the charger draws %s through it for hours, and the figure on the case "+
			"is that of the other contact.", unit.Text(draws, "A", 0))
	case rest < draws:
		out.Level, out.Fate = verdict.Bad, "goes"
		out.Why = unit.Say("Its rest contact (87a) bears %s and the charger draws %s through it for hours.", unit.Plain(rest, "A", 0),
			unit.Text(draws, "A", 0))
	default:
		out.Why = unit.Say("Can be used again: its rest contact (87a) bears %s, and the charger draws %s.", unit.Plain(rest, "A", 0),
			unit.Text(draws, "A", 0))
	}
}

func orWords(s, otherwise string) string {
	if s == "" {
		return otherwise
	}
	return strings.TrimSuffix(s, ".")
}
