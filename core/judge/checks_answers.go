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
	{"answers.frame", verdict.Bad, working.Practice, []string{"pins.return"},
		"The frame is %s: it is no return. The current needs a cable all the way.",
		func(d *design.Design) []finding {
			return says(d.NoSteel() && d.Back.ByChassis, "c1", d.Facts.Survey.Frame)
		}},
	{"answers.bonded", verdict.Bad, working.Practice, []string{"vehicle.bonded", "pins.return"},
		"The tray, canopy or body is not bonded to the chassis, and the return goes by it: a bonding lead, or a cable all the way.",
		func(d *design.Design) []finding {
			return says(d.Facts.Survey.Bonded == job.No && d.Back.ByChassis && !d.Facts.Extras.Bond, "c1")
		}},
	{"answers.startflat", verdict.Caution, working.Memory, []string{"startBattery.restV"},
		"The start battery rests at %.2f V, about %.0f %% full: charge it before anything is tested.",
		func(d *design.Design) []finding {
			v, n := d.Facts.Survey.StartV, d.Facts.N
			return where(v != nil && *v < 12.2*n, func() finding { return at("start", *v, 100*d.StartChemistry().Charge(*v/n)) })
		}},
	{"answers.startold", verdict.Caution, working.Memory, []string{"startBattery.ageYears"},
		"The start battery is %.0f years old: test it before it takes the blame for the new installation, or the other way round.",
		func(d *design.Design) []finding {
			age := d.Facts.Survey.StartAgeYears
			return where(age != nil && *age >= oldBattery, func() finding { return at("start", *age) })
		}},
	{"answers.ruined", verdict.Bad, working.Practice, []string{"aux.restV"},
		"The aux battery rests at %.1f V: ruined, not flat.",
		func(d *design.Design) []finding {
			v := d.Facts.Survey.AuxV
			return where(v != nil && *v < joinLeastV*d.Facts.N, func() finding { return at("aux", *v) })
		}},
	{"answers.relay", verdict.Bad, working.Physics, []string{"relay.cutInV", "relay.cutOutV"},
		"The relay joins above %.2f V and parts below %.2f V: one that parts above where it joins never rests. Read its label again.",
		func(d *design.Design) []finding {
			r := d.Facts.Relay
			return says(d.Is.Senses && r.CutOutV.Value >= r.CutInV.Value, "coupling", r.CutInV.Value, r.CutOutV.Value)
		}},
	{"answers.load", verdict.Caution, working.Physics, []string{"vehicle.loadA", "alternator.label"},
		"The vehicle takes %.0f A with lamps and blower on, and the alternator gives %.0f A at idle, hot: the start battery makes up the " +
			"rest before anything is charged.",
		func(d *design.Design) []finding {
			takes, gives := d.Facts.LoadA.Value, d.MachineA(design.IdleRPM)
			return says(takes > gives, "alternator", takes, gives)
		}},
}}
