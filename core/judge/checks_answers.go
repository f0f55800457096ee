package judge

import (
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// oldBattery is the age in years from which a start battery is near its end. Source: from
// memory.
const oldBattery = 6.0

// leastCrankV is the least a healthy 12 V start battery falls to while it cranks, and longStartS a
// start that takes too long, in s. Source: from memory.
const (
	leastCrankV = 9.6
	longStartS  = 5.0
)

// rises finds a battery that stands as high under a load as at rest.
func rises(restV, loadedV *float64, column string) []finding {
	if restV == nil || loadedV == nil {
		return nil
	}
	return says(*loadedV >= *restV, column, *loadedV, *restV)
}

// answers are answers that contradict each other, or speak of danger.
var answers = lookGroup{"answers", []look{
	{"answers.use", verdict.Caution, working.Physics, []string{"use.dailyAh"},
		"Daily use says %.0f Ah and the loads come to %.0f Ah: one of them is wrong.",
		func(d *design.Design) []finding {
			f := d.Facts
			return says(f.Need.Differs, "aux", f.DailyAh.Value, f.Need.Listed.Value)
		}},
	{"answers.idle", verdict.Caution, working.Physics, []string{"use.idleHours", "use.drivenHours"},
		"%.1f h at idle of %.1f h driven cannot be.",
		func(d *design.Design) []finding {
			idle, driven := d.Facts.Need.IdleHours.Value, d.Facts.DrivenHours.Value
			return says(idle > driven, "aux", idle, driven)
		}},
	{"answers.suspect", verdict.Caution, working.Practice, []string{"alternator.regulation", "alternator.knownBy"},
		"Steady regulation is taken from a label on a vehicle that stops and starts by itself, is built to Euro 5 or 6, or is from 2008 on: " +
			"record it before the first cable is cut.",
		func(d *design.Design) []finding { return says(d.Facts.Suspect() && !d.Facts.Varies(), "alternator") }},
	{"answers.sensor", verdict.Bad, working.Practice, []string{"schools.negative"},
		"The negative goes on the battery's post, and there is a sensor on it: the vehicle will miscount all that the aux battery takes.",
		func(d *design.Design) []finding {
			return says(d.Facts.Survey.Sensor == job.Yes && d.Facts.Schools.Negative == "post", "start")
		}},
	{"answers.sensor", verdict.Caution, working.Practice, []string{"vehicle.sensor", "schools.negative"},
		"The negative goes on the battery's post, and nobody said whether there is a sensor on it: if there is, the vehicle will " +
			"miscount all " +
			"that the aux battery takes.",
		func(d *design.Design) []finding {
			return says(d.Facts.Survey.Sensor == job.Asked && d.Facts.Schools.Negative == "post", "start")
		}},
	{"answers.frame", verdict.Bad, working.Practice, []string{"pins.return"},
		"The frame is %s: it is no return. The current needs a cable all the way.",
		func(d *design.Design) []finding {
			return says(d.NoSteel() && d.Back.ByChassis, "c1", d.Facts.Survey.Frame)
		}},
	{"answers.bonded", verdict.Bad, working.Practice, []string{"vehicle.bonded", "pins.return"},
		"The tray, canopy or body is not bonded to the chassis, and the return goes by it: a bonding lead, or a cable all the way.",
		func(d *design.Design) []finding {
			return says(d.Facts.Survey.Bonded == job.No && d.ByBody(), "c1")
		}},
	{"answers.startold", verdict.Caution, working.Memory, []string{"startBattery.ageYears"},
		"The start battery is %.0f years old: test it before it takes the blame for the new installation, or the other way round.",
		func(d *design.Design) []finding {
			age := d.Facts.Survey.StartAgeYears
			return where(age != nil && *age >= oldBattery, func() finding { return at("start", *age) })
		}},
	{"answers.start.load", verdict.Caution, working.Physics, []string{"startBattery.loadedV", "startBattery.loadedA"},
		"Under its load the start battery is said to stand at %.2f V, no lower than at rest, %.2f V: a load pulls it down. Read both again.",
		func(d *design.Design) []finding {
			s := d.Doc.StartBattery
			return rises(s.RestV, s.LoadedV, "start")
		}},
	{"answers.aux.load", verdict.Caution, working.Physics, []string{"aux.loadedV", "aux.loadedA"},
		"Under its load the aux battery is said to stand at %.2f V, no lower than at rest, %.2f V: a load pulls it down. Read both again.",
		func(d *design.Design) []finding {
			a := d.Doc.Aux
			return rises(a.RestV, a.LoadedV, "aux")
		}},
	{"answers.crank", verdict.Caution, working.Memory, []string{"startBattery.crankV"},
		"While cranking the start battery falls to %.1f V, under %.1f V: test it, its posts and the starter before the new " +
			"installation takes " +
			"the blame.",
		func(d *design.Design) []finding {
			v, least := d.Facts.Survey.CrankV, leastCrankV*d.Facts.N
			return where(v != nil && *v < least, func() finding { return at("start", *v, least) })
		}},
	{"answers.crank.long", verdict.Caution, working.Memory, []string{"startBattery.crankS"},
		"A start takes %.0f s: a healthy engine starts within %.0f. What is joined while it is cranked carries its share for as long.",
		func(d *design.Design) []finding {
			s := d.Facts.CrankS.Value
			return says(s > longStartS, "start", s, longStartS)
		}},
	{"answers.relay", verdict.Bad, working.Physics, []string{"relay.cutInV", "relay.cutOutV"},
		"The relay joins above %.2f V and parts below %.2f V: one that parts above where it joins never rests. Read its label again.",
		func(d *design.Design) []finding {
			r := d.Facts.Relay
			return says(d.Is.Senses && r.CutOutV.Value >= r.CutInV.Value, "coupling", r.CutInV.Value, r.CutOutV.Value)
		}},
	{"answers.charger", verdict.Bad, working.Physics, []string{"card.restartV", "card.cutOutV"},
		"The charger stops below %.2f V and starts again above %.2f V: one that starts where it stops never rests. Read its sheet again.",
		func(d *design.Design) []finding {
			c := d.Charger
			return says(d.Kind.Charger() && c.RestartV < c.CutOutV, "coupling", c.CutOutV, c.RestartV)
		}},
	{"answers.detects", verdict.Bad, working.Physics, []string{"card.detectOnV", "card.detectOffV"},
		"The charger takes the engine for running above %.2f V and for stopped below %.2f V: it never knows. Read its sheet again.",
		func(d *design.Design) []finding {
			s := d.Facts.Detects
			return says(d.ByVoltage() && s.CutOutV >= s.CutInV, "coupling", s.CutInV, s.CutOutV)
		}},
	{"answers.isolated", verdict.Caution, working.Practice, []string{"card.isolated"},
		"The charger's two minus are isolated from each other, and the plan takes them as joined: join them at its earth, or what returns by " +
			"the body has no way back to the aux battery.",
		func(d *design.Design) []finding {
			return says(d.Kind.Charger() && job.Str(d.Doc.Card.Isolated) == string(job.Yes), "coupling")
		}},
	{"answers.load", verdict.Caution, working.Physics, []string{"vehicle.loadA", "alternator.label"},
		"The vehicle takes %.0f A with lamps and blower on, and the alternator gives %.0f A at idle, hot: the start battery makes up the " +
			"rest before anything is charged.",
		func(d *design.Design) []finding {
			takes, gives := d.Facts.LoadA.Value, d.MachineA(d.Facts.IdleTurns())
			return says(takes > gives, "alternator", takes, gives)
		}},
}}
