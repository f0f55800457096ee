package judge

import (
	"math"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/mount"
	"epitrope/core/system"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// copperKgPerM is a metre of a square millimetre of copper. Source: IEC 60028, 8,890 kg/m³.
const copperKgPerM = 0.00889

// drillLooks are what is looked at before drilling: zones to keep clear, what is added where, and what holds the
// battery in a crash.
var drillLooks = []look{
	{"drill.near", verdict.Bad, working.Practice, zonePaths,
		"Close to where it is drilled or screwed there are %s: %s. Another place, or it is moved aside by who may.",
		ofZones(job.ZoneNear, func(z job.Zone) []any { return []any{z.Name, z.Why} })},
	{"drill.clear", verdict.Good, working.Practice, zonePaths, "Clear of %s: looked at from both sides.",
		ofZones(job.ZoneClear, func(z job.Zone) []any { return []any{z.Name} })},
	{"drill.open", verdict.Open, working.Practice, zonePaths, "Look, from both sides, before drilling: where are %s?",
		ofZones("", func(z job.Zone) []any { return []any{z.Name} })},
	{"drill.weight", verdict.Good, working.Memory, []string{"drilling.batteryKg", "drilling.otherKg", "drilling.spareKg"},
		"The installation adds %.0f kg, and the rear axle gets %.0f kg more; the vehicle may still carry %.0f kg.",
		func(d *design.Design) []finding {
			adds, rear := addedKg(d)
			spare := d.Facts.Drilling.SpareKg
			return where(spare != nil && !d.Facts.Place.Trailer && adds <= *spare, func() finding { return at("aux", adds, rear, *spare) })
		}},
	{"drill.weight.open", verdict.Open, working.Memory, []string{"drilling.batteryKg", "drilling.otherKg", "drilling.spareKg"},
		"The installation adds %.0f kg, and the rear axle gets %.0f kg more: see what the vehicle, and that axle, may still carry.",
		func(d *design.Design) []finding {
			adds, rear := addedKg(d)
			return says(d.Facts.Drilling.SpareKg == nil && !d.Facts.Place.Trailer, "aux", adds, rear)
		}},
	{"drill.behind", verdict.Good, working.Physics, []string{"drilling.batteryKg"},
		"So far back the installation relieves the front axle: of %.0f kg added the rear axle gets %.0f kg.",
		func(d *design.Design) []finding {
			adds, rear := addedKg(d)
			return says(!d.Facts.Place.Trailer && rear > adds, "aux", adds, rear)
		}},
	{"drill.trailer", verdict.Open, working.Memory, []string{"drilling.batteryKg", "drilling.otherKg"},
		"The installation adds %.0f kg, most of it in the trailer: see what it may still carry, and the weight on its coupling.",
		func(d *design.Design) []finding {
			adds, _ := addedKg(d)
			return says(d.Facts.Place.Trailer, "aux", adds)
		}},
	{"drill.overweight", verdict.Bad, working.Physics, []string{"drilling.spareKg"},
		"The installation adds %.0f kg, and the vehicle may still carry %.0f kg.",
		func(d *design.Design) []finding {
			adds, _ := addedKg(d)
			spare := d.Facts.Drilling.SpareKg
			return where(spare != nil && !d.Facts.Place.Trailer && adds > *spare, func() finding { return at("aux", adds, *spare) })
		}},
	{"drill.holds", verdict.Good, working.Memory, []string{"drilling.bolts", "drilling.thread", "drilling.into", "drilling.class"},
		"In a crash %.0f kg pull with %.1f kN along the vehicle and %.1f kN across; its bolts hold %.1f kN. The local code decides.",
		anchored(func(along, holds float64, g job.DrillingFacts) bool { return along <= holds && g.Into != job.IntoSheet })},
	{"drill.loose", verdict.Bad, working.Memory, []string{"drilling.bolts", "drilling.thread"},
		"In a crash %.0f kg pull with %.1f kN along the vehicle and %.1f kN across; its bolts hold %.1f kN: more of them, or larger ones.",
		anchored(func(along, holds float64, _ job.DrillingFacts) bool { return along > holds })},
	{"drill.sheet", verdict.Bad, working.Practice, []string{"drilling.into"},
		"In a crash %.0f kg pull with %.1f kN along the vehicle and %.1f kN across; bolts that hold %.1f kN tear out of sheet: " +
			"plates behind it, or the vehicle's structure.",
		anchored(func(along, holds float64, g job.DrillingFacts) bool { return along <= holds && g.Into == job.IntoSheet })},
	{"drill.anchor.open", verdict.Open, working.Practice, []string{"drilling.bolts", "drilling.thread", "drilling.into"},
		"Say how the battery is held: in a crash %.0f kg pull with %.1f kN along the vehicle, %.0f times their weight.",
		func(d *design.Design) []finding {
			g, kg := d.Facts.Drilling, heldKg(d)
			return says(g.Bolts == nil || g.Thread == nil, "aux", kg, mount.Pull.Value(kg, g.Class.Along)/1000, g.Class.Along)
		}},
}

var zonePaths = func() (paths []string) {
	for _, z := range job.Zones {
		paths = append(paths, "drilling."+z.ID)
	}
	return paths
}()

// ofZones speaks of every zone of which somebody said so.
func ofZones(said string, text func(z job.Zone) []any) func(d *design.Design) []finding {
	return func(d *design.Design) []finding {
		var list []finding
		for _, z := range job.Zones {
			if d.Facts.Drilling.Zones[z.ID] == said {
				list = append(list, at("c1", text(z)...))
			}
		}
		return list
	}
}

// anchored speaks of a fastening whose bolts were counted.
func anchored(holds func(along, holds float64, g job.DrillingFacts) bool) func(d *design.Design) []finding {
	return func(d *design.Design) []finding {
		g, kg := d.Facts.Drilling, heldKg(d)
		if g.Bolts == nil || g.Thread == nil {
			return nil
		}
		along, across := mount.Pull.Value(kg, g.Class.Along), mount.Pull.Value(kg, g.Class.Across)
		bears := mount.Holds.Value(math.Floor(*g.Bolts), g.Thread.AsMM2)
		return where(holds(along, bears, g), func() finding { return at("aux", kg, along/1000, across/1000, bears/1000) })
	}
}

// heldKg is what the fastening holds: the battery, or all of a bank, and its box.
func heldKg(d *design.Design) float64 {
	g, kg := d.Facts.Drilling, 0.0
	switch {
	case g.BatteryKg != nil:
		kg = *g.BatteryKg
	case len(d.Facts.Bank) > 0:
		for _, b := range d.Facts.Bank {
			kg += mount.BatteryKg(b.Ah*d.Facts.AuxN, b.Chemistry.Lead)
		}
	default:
		kg = mount.BatteryKg(d.Facts.AuxAh.Value*d.Facts.AuxN, d.Facts.Chemistry.Lead)
	}
	if g.OtherKg != nil {
		kg += *g.OtherKg
	}
	return kg
}

// addedKg is what the installation weighs, and what of it the rear axle carries: the battery at its place, cables
// and charger between.
func addedKg(d *design.Design) (kg, rear float64) {
	copper := 0.0
	for _, w := range d.System.Wires {
		if !w.Existing && w.Role != system.Chassis {
			copper += w.LengthM * w.CopperMM2 * copperKgPerM
		}
	}
	charger := 0.0
	if d.Kind.Charger() {
		charger = mount.ChargerKg(d.Charger.OutputA)
	}
	between := mount.CableKg(copper) + charger
	kg = heldKg(d) + between
	b := d.Facts.Body
	front, back := b.Wheels[0].X, b.Wheels[1].X
	rear = heldKg(d)*mount.RearShare(d.Facts.Place.At.X, front, back) + between*mount.RearShare(d.CouplingAt().X, front, back)
	return kg, max(0, rear)
}
