package judge

import (
	"epitrope/core/coupling"
	"epitrope/core/design"
	"epitrope/core/unit"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// farM is how far a charger may be from its battery before that is remarked on.
// Source: common practice, no source.
const farM = 2.0

// ofChargers lets a rule speak of chargers alone.
func ofChargers(finds func(d *design.Design) []finding) func(d *design.Design) []finding {
	return func(d *design.Design) []finding {
		if !d.Kind.Charger() {
			return nil
		}
		return finds(d)
	}
}

// output is what the charger gives, in words.
func output(d *design.Design) string { return unit.Plain(d.Charger.OutputA, "A", 0) }

// chargerRules are about the charger.
var chargerRules = []rule{
	{"charger.limited", verdict.Remark, working.Physics,
		"By its sheet the charger draws no more than %s: it comes to about %s, not to %s.",
		"The input limit holds the charger below its output where the input is low. A higher limit, where its sheet has one to set.",
		ofChargers(func(d *design.Design) []finding {
			c := d.Charger
			full := d.FullInputA(c)
			return where(c.InputA > 0 && c.InputA < full, func() finding {
				return at("coupling", unit.Text(c.InputA, "A", 0), unit.Text(c.OutputA*c.InputA/full, "A", 0), unit.Text(c.OutputA, "A", 0))
			})
		})},
	{"charger.short", verdict.Beware, working.Physics,
		"%s falls short: %s would hold the balance of %s a day in %s of driving.",
		"A battery that only ever reaches about half charge lasts about a year.",
		ofChargers(func(d *design.Design) []finding {
			return where(d.Charger.OutputA < d.NeedA, func() finding {
				return at("coupling", output(d), unit.Text(d.NeedA, "A", 0), unit.Plain(d.Facts.DailyAh.Value, "Ah", 0),
					unit.Plain(d.Facts.DrivenHours.Value, "h", 2)).cure(largerCharger(d)...)
			})
		})},
	{"charger.acceptance", verdict.Beware, working.Memory,
		"%s is more than the battery accepts: %s.", "The battery's own sheet wins; without one, stay below.",
		ofChargers(func(d *design.Design) []finding {
			return where(d.Charger.OutputA > d.Rates.Accepts.Unrounded, func() finding {
				gives, takes := unit.Apart(d.Charger.OutputA, d.Rates.Accepts.Unrounded, "A", 0)
				return at("coupling", gives, takes).cure(verdict.Unpin("Let the plan choose", "pins.chargerA"))
			})
		})},
	{"charger.starved", verdict.Stop, working.Physics,
		"In the state “%s”, %s.",
		"A charger is a constant-power load: less voltage, more current, more drop. It hunts or collapses.",
		ofChargers(func(d *design.Design) []finding {
			s, fails := d.Starved()
			return where(fails, func() finding {
				return at("coupling", s.Label, s.Err.Error()).cure(starvedCures(d)...).ifVaries(s.Doubtful)
			})
		})},
	{"charger.idle", verdict.Remark, working.Physics,
		"At idle, hot, lamps and blower on, %s: it stops, and begins again, until the engine turns faster.",
		"The alternator has too little at idle, and the start battery's volts fall with it.",
		ofChargers(func(d *design.Design) []finding {
			s := d.IdleState()
			return where(s.Sags && s.Err != nil, func() finding { return at("coupling", s.Err.Error()) })
		})},
	{"charger.far", verdict.Beware, working.Practice,
		"The charger is %s of cable from the battery it charges.",
		"A charger makes up what is lost before it, not what is lost behind it. Lengths that were measured for a relay have to be " +
			"measured again.",
		ofChargers(func(d *design.Design) []finding {
			after := d.Facts.AuxM.Value
			return where(after > farM && after > d.Facts.StartM.Value, func() finding {
				return at("coupling", unit.Metres(after)).cure(verdict.Ask("Measure the routes", "start-route"))
			})
		})},
	{"charger.hot", verdict.Beware, working.Practice,
		"The charger sits where it gets about %s; its card allows %s at full output.", "Chargers give less in heat, or stop.",
		ofChargers(func(d *design.Design) []finding {
			bayC := d.Facts.AuxBay.AmbientC
			return where(bayC > d.Charger.MaxAmbientC, func() finding {
				return at("coupling", unit.Text(bayC, "°C", 0), unit.Text(d.Charger.MaxAmbientC, "°C", 0))
			})
		})},
}

// largerCharger offers the charger that meets the need where the alternator and
// the battery bear it.
func largerCharger(d *design.Design) []verdict.Cure {
	if d.Doc.Pins.ChargerA == nil || d.AutoChargerA <= d.Charger.OutputA {
		return nil
	}
	return []verdict.Cure{verdict.Unpin("Let the plan choose "+unit.Plain(d.AutoChargerA, "A", 0), "pins.chargerA")}
}

func starvedCures(d *design.Design) []verdict.Cure {
	var cures []verdict.Cure
	if d.Doc.Pins.StartSize != nil {
		cures = append(cures, verdict.Unpin("Fit "+d.Start.Auto.Label, "pins.startSize"))
	}
	if d.Doc.Pins.ChargerA != nil {
		cures = append(cures, verdict.Unpin("Let the plan choose the charger", "pins.chargerA"))
	}
	return cures
}

// otherCoupling offers a charger in place of a contact.
func otherCoupling() verdict.Cure {
	return verdict.Set("Fit a DC-DC charger", "pins.coupling", string(coupling.DCDC))
}
