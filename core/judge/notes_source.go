package judge

import (
	"strings"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/method"
	"epitrope/core/rig"
	"epitrope/core/unit"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// leastChargingV is the least a 12 V machine holds to charge anything, mostAsleepA the most a sound
// vehicle takes asleep. Source: common practice, no source.
const (
	leastChargingV = 13.2
	mostAsleepA    = 0.05
)

// sourceRules are about what gives and what is used.
var sourceRules = []rule{
	{"alternator.cruise", verdict.Beware, working.Physics,
		"At cruise, hot, lamps and blower on, the alternator has %s for charging and is asked for %s: the start battery makes up the rest as " +
			"long as it is driven.",
		"No drive puts back what it takes. Less that charges, or less load.",
		func(d *design.Design) []finding {
			asked := d.CruiseState().InA
			short := !d.Is.OwnMachine && asked > max(0, d.CruiseA)+0.5
			return where(short, func() finding {
				has, asks := unit.Apart(max(0, d.CruiseA), asked, "A", 0)
				return at("alternator", has, asks).cure(chargerWithin(d, d.CruiseA)...)
			})
		}},
	{"alternator.idle", verdict.Remark, working.Physics,
		"At idle, hot, lamps and blower on, the alternator has %s for charging and is asked for %s: the start battery makes up the rest.",
		"Short spells of it are normal driving. The charging side then sees %s. %s",
		func(d *design.Design) []finding {
			return where(d.StartAsksA() > max(0.5, d.IdleA), func() finding {
				has, asks := unit.Apart(max(0, d.IdleA), d.StartAsksA(), "A", 0)
				f := at("alternator", has, asks).later(func() []any {
					return []any{unit.Text(d.IdleState().InV, "V", 1), rig.NewLeaving(d).Idling()}
				})
				if idles(d) {
					f = f.heavier(verdict.Beware).cure(chargerWithin(d, d.IdleA)...)
				}
				return f
			})
		}},
	{"converter.rests", verdict.Remark, working.Practice,
		"A converter of %s feeds the vehicle's side: it charges while the vehicle stands ready, moving or not, and not before.",
		"Its rating is for the vehicle and for charging together, and its maker's word decides whether anything may be added. " +
			"Orange cables are " +
			"for a licensed person.",
		func(d *design.Design) []finding {
			return where(d.Facts.Label.Converter, func() finding { return at("alternator", unit.Plain(d.Facts.LabelA.Value, "A", 0)) })
		}},
	{"alternator.half", verdict.Beware, working.Practice,
		"Charging draws %s at worst, %s of the alternator's label.",
		"More than half the label for hours overheats most machines. Idle leaves %s, cruise %s.",
		func(d *design.Design) []finding {
			half := d.Rates.Half.Unrounded
			return where(!d.Facts.Label.Converter && d.DrawsA() > half+0.5, func() finding {
				return at("alternator", unit.Text(d.DrawsA(), "A", 0), unit.Text(100*d.DrawsA()/d.Facts.LabelA.Value, "%", 0)).
					since(unit.Text(max(0, d.IdleA), "A", 0), unit.Text(max(0, d.CruiseA), "A", 0)).cure(chargerWithin(d, half)...)
			})
		}},
	{"engine.hybrid", verdict.Beware, working.Practice,
		"In a hybrid no alternator charges the 12 V side: a converter does, from the traction battery.",
		"The label is the converter's, and that may rest while the vehicle drives or stands ready. Orange cables are for a licensed person: " +
			"nothing is drilled, tapped or clamped near them.",
		func(d *design.Design) []finding {
			return where(d.Facts.Survey.Engine == job.Hybrid && !d.Facts.Label.Converter, func() finding { return at("alternator") })
		}},
	{"alternator.low", verdict.Beware, working.Practice,
		"Warm, at cruise, the alternator holds %s: under %s nothing is charged.",
		"A steady machine holds 13.8 to 14.7 V. Lower than that it eases off by itself, its belt slips, or it is worn: record it, test it.",
		func(d *design.Design) []finding {
			v, least := d.Facts.RegulatedV.Value, leastChargingV*d.Facts.N
			return where(v < least, func() finding {
				holds, charges := unit.Apart(v, least, "V", 1)
				return at("alternator", holds, charges)
			})
		}},
	{"vehicle.drain", verdict.Beware, working.Practice,
		"Asleep the vehicle takes %s; 20 to 50 mA is usual.",
		"By itself that takes half of the start battery in %s. Find what stays awake before the new installation takes the blame.",
		func(d *design.Design) []finding {
			asleep := d.Facts.Machine.AsleepA.Value
			return where(asleep > mostAsleepA, func() finding {
				return at("start", unit.Text(1000*asleep, "mA", 0)).since(unit.Span(d.Facts.StartAh.Value / 2 / asleep))
			})
		}},
	{"aux.unnamed", verdict.Remark, working.Practice,
		"Nobody said what the aux battery is: it is taken as %s, and the charging as that wants it.",
		"Read its label before anything is switched on: what one kind wants harms another.",
		func(d *design.Design) []finding {
			return where(!d.Facts.ChemistryKnown, func() finding {
				return at("aux", d.Facts.Chemistry.Label).cure(verdict.Ask("Say which battery", "battery"))
			})
		}},
	{"regulation.unknown", verdict.Remark, working.Practice,
		"How the alternator is regulated is not proven: it is taken as variable.",
		"Model years mislead. Twenty minutes of logged voltage settle it.",
		func(d *design.Design) []finding {
			return where(d.Facts.Varies() && d.Facts.Regulation != "variable", func() finding {
				f := at("alternator").cure(verdict.Ask("Say how the regulation is known", "regulation"))
				if d.Is.CanJoin && !d.Kind.Charger() {
					f = f.heavier(verdict.Beware) // a join hangs on it
				}
				return f
			})
		}},
	{"use.stands", verdict.Beware, working.Practice,
		"The vehicle stands %s between drives; left full, %s wants charging again after %s.",
		"A battery that stands discharged loses capacity for good. Mains or sun meanwhile, its loads off, a date in the calendar.",
		func(d *design.Design) []finding {
			_, days := d.TopUp()
			parked := d.Facts.Need.ParkedDays.Value
			return where(parked > days, func() finding {
				return at("aux", unit.Plain(parked, "days", 0), d.AuxRating(), unit.Text(days, "days", 0))
			})
		}},
	{"use.left", verdict.Beware, working.Physics,
		"The vehicle is left for %s, and what stays on at %s takes %s of the %s that the aux battery has to give.",
		"A load at standby, or a display, empties what is to rest. A master switch at its post, or unplug them.",
		func(d *design.Design) []finding {
			days, amps := d.Facts.Need.ParkedDays.Value, d.StaysOnA()
			takes := amps * 24 * days
			return where(days >= restsDays && takes > restsShare*d.Usable().Unrounded, func() finding {
				left := unit.Text(1000*amps, "mA", 0)
				if amps >= 1 {
					left = unit.Text(amps, "A", 1)
				}
				f := at("aux", unit.Plain(days, "days", 0), left, unit.Text(takes, "Ah", 0), d.Usable().Text)
				if d.Facts.Extras.Isolator == job.NoIsolator {
					f = f.cure(verdict.Set("A master switch at the aux battery", "extras.isolator", job.MasterSwitch))
				}
				return f
			})
		}},
	{"use.large", verdict.Beware, working.Physics,
		"A day uses %s and the battery has %s to use.", "The battery is flat before the next drive.",
		func(d *design.Design) []finding {
			return where(d.Facts.DailyAh.Value > d.Usable().Unrounded, func() finding {
				return at("aux", unit.Plain(d.Facts.DailyAh.Value, "Ah", 0), d.Usable().Text).cure(verdict.Ask("Change the battery",
					"battery"))
			})
		}},
}

// An aux battery rests that is left for so many days; what stays on then is said above such a share of what
// it has to give. Source: from memory.
const (
	restsDays  = 14.0
	restsShare = 0.2
)

// idles says whether idling matters on this job: it is wished for, or goes on for an hour a day.
func idles(d *design.Design) bool {
	return d.Facts.Survey.Idling == job.Yes || d.Facts.Need.IdleHours.Value >= idlingH
}

// idlingH is idling for so long that it has to come out even, in h. Source: common practice, no source.
const idlingH = 1.0

// chargerWithin offers the largest charger whose input stays within amps, where
// there is one smaller than the one now.
func chargerWithin(d *design.Design, amps float64) []verdict.Cure {
	best := 0.0
	if d.Kind.Charger() && !d.Kind.Joins() {
		for _, c := range d.Book.Chargers {
			if d.InputA(c) <= amps && c.OutputA < d.Charger.OutputA && d.PinOf(c.OutputA) != nil {
				best = c.OutputA
			}
		}
	}
	if best == 0 {
		return nil
	}
	return []verdict.Cure{verdict.Set("Set charger to "+unit.Plain(best, "A", 0), "pins.chargerA", unit.Plain(best, "", 0))}
}

// placeRules are about where the aux battery sits.
var placeRules = []rule{
	{"place.unfit", verdict.Beware, working.Practice,
		"This vehicle has no place called “%s”: the plan takes “%s”.", "The kind of vehicle was changed after the place was chosen.",
		func(d *design.Design) []finding {
			return where(!d.Facts.PlaceFits, func() finding {
				return at("aux", *d.Doc.Aux.Place, d.Facts.Place.Label).cure(verdict.Ask("Say where it sits", "place"))
			})
		}},
	{"place.gas", verdict.Stop, working.Practice,
		"A %s battery gives off gas and acid: it may not sit inside.",
		"Only where it vents outside, so usually under the bonnet. Inside: sealed AGM or gel, or LiFePO4.",
		func(d *design.Design) []finding {
			return where(d.Facts.Chemistry.Vented && !d.Facts.Place.Outside, func() finding {
				return at("aux", d.Facts.Chemistry.Label).
					cure(verdict.Set("Take AGM", "aux.chemistry", "agm"), verdict.Set("Put it under the bonnet", "aux.place", "bonnet"))
			})
		}},
	{"start.weak", verdict.Beware, working.Physics,
		"By its figures the start battery does not start the engine even when it is full: %s in a start pull it down to %s.",
		"No charging changes that. Look at the starter's current, the battery's capacity and its resistance: one of them is not as it is said.",
		func(d *design.Design) []finding {
			return where(d.Facts.CrankA.Origin == working.Surveyed && !rig.NewLeaving(d).Starts(), func() finding {
				s := d.StateBy("crank")
				return at("start", unit.Text(d.Facts.CrankA.Value, "A", 0), unit.Text(s.BusV, "V", 1)).
					cure(verdict.Ask("Say what it is", "start-battery"))
			})
		}},
	{"place.hot", verdict.Stop, working.Practice,
		"%s under the bonnet is in the heat.",
		"Most batteries with a management system are not allowed there: see the battery's own sheet.",
		func(d *design.Design) []finding {
			return where(d.Facts.Chemistry.Managed() && d.Facts.Place.Hot, func() finding {
				return at("aux", d.Facts.Chemistry.Name()).
					cure(verdict.Ask("Say where it sits", "place"), verdict.Set("Take AGM", "aux.chemistry", "agm"))
			})
		}},
}

// methodRules are about the coupling that was pinned.
var methodRules = []rule{
	{"method.pinned", verdict.Stop, working.Practice,
		"The %s is pinned, and the rules are against it: %s", "What it would need: %s", pinnedAgainst},
}

func pinnedAgainst(d *design.Design) []finding {
	if d.Doc.Pins.Coupling == nil {
		return nil
	}
	var list []finding
	for _, m := range d.Methods {
		if m.Kind != d.Kind || !m.RuledOut {
			continue
		}
		var against, unless []string
		for _, r := range m.Reasons {
			if r.Effect == method.RulesOut {
				against, unless = append(against, r.Text), append(unless, r.Unless)
			}
		}
		list = append(list, at("coupling", m.Label, strings.Join(against, " ")).since(strings.Join(unless, " ")).
			cure(verdict.Unpin("Let the plan choose", "pins.coupling")))
	}
	return list
}
