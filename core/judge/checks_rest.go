package judge

import (
	"epitrope/core/battery"
	"epitrope/core/design"
	"epitrope/core/rig"
	"epitrope/core/unit"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// Rest volts of a 12 V lead battery. Above restMostV it is not at rest; under restFlatV it is
// deeply flat. Source: common practice, no source.
const (
	restMostV = 12.9
	restFlatV = 11.8
)

// settledH is how long after a charge a battery's volts are those of rest, in h. Source: common
// practice, no source: surface charge after two hours still flatters.
const settledH = 4.0

// rested is a battery that was measured at rest.
type rested struct {
	column, name string
	chemistry    battery.Chemistry
	volts        float64  // at 12 V
	hours        *float64 // since it was charged
	n            float64
}

// restedOf are those of the two batteries that were measured.
func restedOf(d *design.Design) []rested {
	var list []rested
	s, n := d.Facts.Survey, d.Facts.N
	if s.StartV != nil {
		list = append(list, rested{"start", "start", d.StartChemistry(), *s.StartV / n, s.StartHours, n})
	}
	if s.AuxV != nil {
		list = append(list, rested{"aux", "aux", d.Facts.Chemistry, *s.AuxV / d.Facts.AuxN, s.AuxHours, d.Facts.AuxN})
	}
	return list
}

// above is by how much a chemistry of lead rests higher than flooded.
func (b rested) above() float64 { return b.chemistry.RestV(1) - battery.Flooded.RestV(1) }

// lead says whether it is lead and rests between two voltages, the lower one left out.
func (b rested) lead(low, high float64) bool {
	v := unit.Round(b.volts-b.above(), 4)
	return b.chemistry.Lead && v > low && v <= high
}

// fresh says whether it was charged so short a time ago that its volts flatter.
func (b rested) fresh() bool { return b.hours != nil && *b.hours < settledH }

// say is a finding about it, with its volts first.
func (b rested) say(more ...any) finding {
	return at(b.column, append([]any{b.name, b.volts * b.n}, more...)...)
}

var restLooks = []look{
	{"rest.asleep", verdict.Caution, working.Physics, []string{"vehicle.asleepA", "use.parkedDays"},
		"Asleep the vehicle takes %.0f mA, and it is parked for %.0f days: %s.",
		asleep(func(halfH, parkedH float64) bool { return halfH < parkedH })},
	{"rest.asleep", verdict.Good, working.Physics, []string{"vehicle.asleepA", "use.parkedDays"},
		"Asleep the vehicle takes %.0f mA, and it is parked for %.0f days between drives: %s.",
		asleep(func(halfH, parkedH float64) bool { return halfH >= parkedH })},
	{"rest.fresh", verdict.Caution, working.Practice, []string{"startBattery.restHours", "aux.restHours"},
		"The %s battery was measured at %.2f V, %s after it was charged: surface charge flatters it. Measure again after %s, or put a " +
			"lamp on " +
			"it for some minutes first.",
		rests(rested.fresh, func(b rested) []any { return []any{unit.Text(*b.hours, "h", 1), unit.Text(settledH, "h", 0)} })},
	{"rest.high", verdict.Caution, working.Practice, restFields,
		"The %s battery is said to rest at %.2f V: above %.1f V lead is not at rest. Something charges it, or it was charged a short time ago.",
		rests(func(b rested) bool { return b.lead(restMostV, 99) && !b.fresh() }, func(b rested) []any {
			return []any{(restMostV + b.above()) * b.n}
		})},
	{"rest.charge", verdict.Good, working.Memory, restFields,
		"The %s battery rests at %.2f V, about %.0f %% full.",
		rests(func(b rested) bool { return b.lead(restFlatV, restMostV) && !b.fresh() && b.charge() >= half }, rested.percent)},
	{"rest.low", verdict.Caution, working.Memory, restFields,
		"The %s battery rests at %.2f V, about %.0f %% full: charge it before anything is tested.",
		rests(func(b rested) bool { return b.lead(restFlatV, restMostV) && b.charge() < half }, rested.percent)},
	{"rest.flat", verdict.Caution, working.Practice, restFields,
		"The %s battery rests at %.2f V: deeply flat. Charge it alone, let it rest and load-test it before it is joined to anything.",
		rests(func(b rested) bool { return b.lead(joinLeastV, restFlatV) }, nothing)},
	{"rest.ruined", verdict.Bad, working.Practice, restFields,
		"The %s battery rests at %.2f V: perhaps a cell is short. Do not join it to another; charge it alone, let it rest, load-test it. One " +
			"that jumps from 3 to 12 V in minutes has lost its capacity.",
		rests(func(b rested) bool { return b.lead(-1, joinLeastV) }, nothing)},
	{"rest.lithium.empty", verdict.Caution, working.Practice, restFields,
		"The %s battery rests at %.2f V: nearly empty. Charge it before anything is tested.",
		rests(func(b rested) bool {
			return !b.chemistry.Lead && b.charge() < nearlyEmpty && b.volts >= b.chemistry.RestV(0)
		}, nothing)},
	{"rest.lithium.ruined", verdict.Bad, working.Practice, restFields,
		"The %s battery stands at %.2f V: its management system has opened, or cells are ruined. Nothing is joined to it and no charger is " +
			"started on it before its maker's procedure says how.",
		rests(func(b rested) bool { return !b.chemistry.Lead && b.volts < b.chemistry.RestV(0) }, nothing)},
	{"rest.lithium", verdict.Good, working.Practice, restFields,
		"The %s battery rests at %.2f V: with %s that says little of its charge. Amps in and out say more.",
		rests(func(b rested) bool {
			return !b.chemistry.Lead && b.charge() >= nearlyEmpty && b.volts <= b.chemistry.RestV(0.96)
		},
			func(b rested) []any { return []any{b.chemistry.Label} })},
	{"rest.lithium.high", verdict.Caution, working.Practice, restFields,
		"The %s battery is said to rest at %.2f V: higher than %s rests. Something charges it, or it was charged a short time ago.",
		rests(func(b rested) bool { return !b.chemistry.Lead && b.volts > b.chemistry.RestV(1) && !b.fresh() },
			func(b rested) []any { return []any{b.chemistry.Label} })},
}

// asleep finds a vehicle asleep whose start battery lasts so long, where somebody measured what it takes or it
// is left for a week and more.
func asleep(so func(halfH, parkedH float64) bool) func(d *design.Design) []finding {
	return func(d *design.Design) []finding {
		m, days := d.Facts.Machine.AsleepA, d.Facts.Need.ParkedDays.Value
		if m.Origin == working.Assumed && days < 7 {
			return nil
		}
		return where(so(rig.HalfAsleepH(d), 24*days), func() finding {
			return at("start").later(func() []any { return []any{1000 * m.Value, days, rig.NewLeaving(d).With(0).Says} })
		})
	}
}

// half is charge under which a lead battery is charged before it is tested, nearlyEmpty what is
// left of lithium at 12.8 V. Source: common practice, no source.
const (
	half        = 0.5
	nearlyEmpty = 0.13
)

func (b rested) charge() float64 { return b.chemistry.Charge(b.volts) }
func (b rested) percent() []any  { return []any{100 * b.charge()} }
func nothing(rested) []any       { return nil }

// rests finds batteries by what they rest at; with is what more fills the sentence.
func rests(is func(b rested) bool, with func(b rested) []any) func(d *design.Design) []finding {
	return func(d *design.Design) []finding {
		var list []finding
		for _, b := range restedOf(d) {
			if is(b) {
				list = append(list, b.say(with(b)...))
			}
		}
		return list
	}
}
