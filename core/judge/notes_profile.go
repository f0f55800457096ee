package judge

import (
	"math"

	"epitrope/core/charging"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/profile"
	"epitrope/core/unit"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// profileRules are about a charger's setting, the battery, and what arrives there.
var profileRules = []rule{
	{"profile.harms", verdict.Stop, working.Practice,
		"The charger is set to “%s”, %s: %s is harmed above %s.", "The battery would really get %s.",
		ofSettings(harms, func(d *design.Design) float64 { return profileOf(d).HarmV })},
	{"profile.high", verdict.Beware, working.Practice,
		"The charger is set to “%s”, %s, and %s wants at most %s.", "The battery would really get %s, gas, dry out and age sooner.",
		ofSettings(high, func(d *design.Design) float64 { return profileOf(d).AbsorptionHigh })},
	{"profile.low", verdict.Beware, working.Practice,
		"The charger is set to “%s”, %s, and %s wants at least %s.", "The battery would really get %s, and is seldom full.",
		ofSettings(low, func(d *design.Design) float64 { return profileOf(d).AbsorptionLow })},
	{"profile.other", verdict.Beware, working.Practice,
		"The charger is set to “%s” and the battery is %s: a default left as it was is the common mistake.",
		"The volts happen to do; float, stages and compensation need not.",
		ofChargers(func(d *design.Design) []finding {
			return where(wrongSetting(d) == other, func() finding {
				return at("coupling", d.Setting.Label, d.Facts.Chemistry.Label).cure(settingCures(d)...)
			})
		})},
	{"profile.broken", verdict.Stop, working.Practice,
		"A configuration lead is open: that is a setting too, “%s” in place of “%s”.",
		"A broken lead silently becomes another chemistry: measure each one at handover.",
		ofChargers(func(d *design.Design) []finding {
			return where(d.Facts.Set.Broken != nil && d.Setting.ID != d.Right.ID, func() finding {
				return at("coupling", d.Setting.Label, d.Right.Label).cure(mendedLead())
			})
		})},
	{"profile.float", verdict.Beware, working.Practice,
		"Float stands at %s; %s wants at most %s.", "Held there for days it ages.",
		ofChargers(func(d *design.Design) []finding {
			most := profileOf(d).FloatHigh
			return where(d.Setting.FloatV > math.Max(most, 0.1)+0.105, func() finding {
				return at("coupling", at12(d, d.Setting.FloatV), d.Facts.Chemistry.Label, at12(d, most)).cure(settingCures(d)...)
			})
		})},
	{"profile.compensates", verdict.Beware, working.Practice,
		"“%s” follows temperature, and %s wants none of that.",
		"In the cold it would be lifted past what its management system bears.",
		ofChargers(func(d *design.Design) []finding {
			return where(d.Setting.Compensated && profileOf(d).PerK == 0, func() finding {
				return at("coupling", d.Setting.Label, d.Facts.Chemistry.Label).cure(settingCures(d)...)
			})
		})},
	{"profile.loads", verdict.Remark, working.Practice,
		"The charger is set to %s: all that is used off the aux side stands at that, and commonly bears %s.",
		"Lamps and electronics suffer above it: see each load's own sheet, or feed what does not bear it by a regulator.",
		ofChargers(func(d *design.Design) []finding {
			return where(d.Setting.AbsorptionV > profile.ClampHighV, func() finding {
				return at("aux", at12(d, d.Setting.AbsorptionV), at12(d, profile.ClampHighV))
			})
		})},
	{"profile.cold", verdict.Beware, working.Practice,
		"At %s outside: %s must not be charged below %s.",
		"The management system may open under charge. Its charge-disable output should stop the charger first: is that wired?",
		ofChargers(func(d *design.Design) []finding {
			f := d.Facts
			return where(freezes(d) && f.Set.Disable == nil, func() finding {
				return at("aux", outside(d), f.Chemistry.Label, unit.Text(f.Chemistry.NoChargeBelowC, "°C", 0)).cure(disableWired())
			})
		})},
	{"profile.frost", verdict.Stop, working.Practice,
		"At %s outside nothing stops the charger: %s must not be charged below %s.",
		"The management system would open under charge, each frosty morning. Wire its charge-disable, or a probe at the cells.",
		ofChargers(func(d *design.Design) []finding {
			f := d.Facts
			return where(freezes(d) && job.Str(f.Set.Disable) == string(job.No), func() finding {
				return at("aux", outside(d), f.Chemistry.Label, unit.Text(f.Chemistry.NoChargeBelowC, "°C", 0)).cure(disableWired())
			})
		})},
	{"profile.probe", verdict.Remark, working.Practice,
		"The charger's own probe at the cells stops it below %s.",
		"The probe has to touch a cell: on the case, or in the air, it is hours late.",
		ofChargers(func(d *design.Design) []finding {
			f := d.Facts
			return where(!f.Chemistry.MayCharge(f.Day.OutsideC.Value) && probed(d), func() finding {
				return at("aux", unit.Text(f.Chemistry.NoChargeBelowC, "°C", 0))
			})
		})},
	{"profile.disable", verdict.Beware, working.Practice,
		"The management system's charge-disable is not wired to the charger.",
		"When it opens under charge, what is connected sees the load dump; its output should stop the charger first.",
		ofChargers(func(d *design.Design) []finding {
			return where(d.Facts.Chemistry.Managed() && job.Str(d.Facts.Set.Disable) == string(job.No), func() finding {
				return at("aux").cure(disableWired())
			})
		})},
	{"profile.clamp", verdict.Remark, working.Practice,
		"At %s outside compensation would ask %s and is held at %s.", "More than lamps and electronics bear.",
		ofChargers(func(d *design.Design) []finding {
			out, perK := d.Facts.Day.OutsideC.Value, profileOf(d).PerK
			held, clamped := profile.Compensated(d.Setting.AbsorptionV, perK, out)
			return where(d.Setting.Compensated && clamped, func() finding {
				return at("coupling", outside(d), at12(d, d.Setting.AbsorptionV+perK*(out-25)), at12(d, held))
			})
		})},
	{"profile.uncompensated", verdict.Beware, working.Practice,
		"At %s outside “%s” is not compensated by temperature.",
		"Lead wants some 24 mV for each kelvin: too little in the cold, too much in the heat.",
		ofChargers(func(d *design.Design) []finding {
			out := d.Facts.Day.OutsideC.Value
			return where(!d.Setting.Compensated && d.Facts.Chemistry.Lead && (out < charging.ColdOutC || out > charging.HotOutC), func() finding {
				return at("coupling", outside(d), d.Setting.Label)
			})
		})},
}

// freezes says whether the cells may get too cold to be charged, with no probe of the charger's own at
// them.
func freezes(d *design.Design) bool {
	return !d.Facts.Chemistry.MayCharge(d.Facts.Day.OutsideC.Value) && !probed(d)
}

// probed says whether the charger has a probe of its own at the cells.
func probed(d *design.Design) bool { return job.Str(d.Doc.Card.Probe) == string(job.Yes) }

func profileOf(d *design.Design) profile.Profile { return profile.For(d.Facts.Chemistry) }

// at12 is a voltage at 12 V, in words at the system's.
func at12(d *design.Design, v float64) string { return unit.Text(v*d.Facts.AuxN, "V", 1) }

func outside(d *design.Design) string { return unit.Text(d.Facts.Day.OutsideC.Value, "°C", 0) }

func mendedLead() verdict.Cure { return verdict.Unpin("The lead is mended", "profile.broken") }
func disableWired() verdict.Cure {
	return verdict.Set("Charge-disable is wired", "profile.disable", string(job.Yes))
}

// settingCures set the charger as it should be.
func settingCures(d *design.Design) []verdict.Cure {
	switch {
	case d.Setting.ID == d.Right.ID:
		return nil
	case d.Facts.Set.Broken != nil:
		return []verdict.Cure{mendedLead()}
	}
	return []verdict.Cure{verdict.Unpin("Set it to "+d.Right.Label, "profile.setting")}
}

// mismatch is how a setting does not suit its battery.
type mismatch int

const (
	suits mismatch = iota
	harms
	high
	low
	other // another battery's, whose volts happen to do
)

// wrongSetting is the worst of how the charger's setting does not suit the battery.
func wrongSetting(d *design.Design) mismatch {
	p, s := profileOf(d), d.Setting
	switch {
	case s.AbsorptionV > p.HarmV+0.005:
		return harms
	case s.AbsorptionV > p.AbsorptionHigh+0.005:
		return high
	case s.AbsorptionV < p.AbsorptionLow-0.005:
		return low
	case s.For != "" && s.For != d.Facts.Chemistry.ID:
		return other
	}
	return suits
}

func ofSettings(what mismatch, limit func(d *design.Design) float64) func(d *design.Design) []finding {
	return ofChargers(func(d *design.Design) []finding {
		return where(wrongSetting(d) == what, func() finding {
			return at("coupling", d.Setting.Label, at12(d, d.Setting.AbsorptionV), d.Facts.Chemistry.Label, at12(d, limit(d))).
				since(unit.Text(charging.GetsV(d), "V", 1)).cure(settingCures(d)...)
		})
	})
}
