package charging

import (
	"fmt"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/profile"
	"epitrope/core/unit"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// offV is how far a setting may be beside what is wanted before that is said, and apartV how far two sources
// of charging may be apart, at 12 V. Source: from memory.
const (
	offV   = 0.05
	apartV = 0.3
)

// A mains charger's efficiency, and the share of a generator's label that it gives for hours. Source: from memory.
const (
	mainsEfficiency = 0.85
	generatorShare  = 0.8
)

// asksW is what a mains charger asks of its feed; 0 where nobody said what it gives.
func asksW(d *design.Design, s job.SourceFacts) float64 {
	return num(s.OutputA) * d.MainsV(s) / mainsEfficiency
}

func num(v *float64) float64 {
	if v == nil {
		return 0
	}
	return *v
}

// chargingLooks hold what charges the aux battery besides the coupling against the battery, and against what
// the coupling holds. The charger's own setting has notes of its own.
var sourceRules = []rule{
	{"charging.open", verdict.Open, working.Practice, chargingPaths("absorptionV", "floatV"),
		"Look: what is the %s set to? %s wants %s.",
		ofSources(func(_ *design.Design, s job.SourceFacts) bool { return s.AbsorptionV == nil },
			func(d *design.Design, s job.SourceFacts) finding {
				return at("aux", s.Name, d.Facts.Chemistry.Name(), wants(d))
			})},
	{"charging.harms", verdict.Bad, working.Memory, chargingPaths("absorptionV"),
		"The %s is set to %.1f V: %s is harmed above %.1f V.",
		ofSources(func(d *design.Design, s job.SourceFacts) bool { return sets(d, s) > profileOf(d).HarmV+0.005 },
			func(d *design.Design, s job.SourceFacts) finding {
				return absorbs(d, s, profileOf(d).HarmV)
			})},
	{"charging.high", verdict.Caution, working.Memory, chargingPaths("absorptionV"),
		"The %s is set to %.1f V, and %s wants at most %.1f V: it gasses, dries out, ages sooner.",
		ofSources(func(d *design.Design, s job.SourceFacts) bool {
			v, p := sets(d, s), profileOf(d)
			return v > p.AbsorptionHigh+offV && v <= p.HarmV+0.005
		}, func(d *design.Design, s job.SourceFacts) finding { return absorbs(d, s, profileOf(d).AbsorptionHigh) })},
	{"charging.low", verdict.Caution, working.Memory, chargingPaths("absorptionV"),
		"The %s is set to %.1f V, and %s wants at least %.1f V: it is seldom full.",
		ofSources(func(d *design.Design, s job.SourceFacts) bool {
			return s.AbsorptionV != nil && sets(d, s) < profileOf(d).AbsorptionLow-offV
		}, func(d *design.Design, s job.SourceFacts) finding { return absorbs(d, s, profileOf(d).AbsorptionLow) })},
	{"charging.float", verdict.Caution, working.Memory, chargingPaths("floatV"),
		"The %s floats at %.1f V, and %s wants at most %.1f V: held there for days it ages.",
		ofSources(func(d *design.Design, s job.SourceFacts) bool {
			return s.FloatV != nil && *s.FloatV/d.Facts.AuxN > profileOf(d).FloatHigh+2*offV
		}, func(d *design.Design, s job.SourceFacts) finding {
			most := profileOf(d).FloatHigh * d.Facts.AuxN
			return at("aux", s.Name, *s.FloatV, d.Facts.Chemistry.Label, most).
				cure(verdict.Set(unit.Say("Float is set to %.1f V", most), s.Section+".floatV", fmt.Sprint(unit.Round(most, 2))))
		})},
	{"charging.compensates", verdict.Caution, working.Memory, chargingPaths("compensated"),
		"The %s follows temperature, and %s wants none of that: in the cold it is lifted past what its management system bears.",
		ofSources(func(d *design.Design, s job.SourceFacts) bool {
			return s.Compensated == job.Yes && profileOf(d).PerK == 0
		},
			func(d *design.Design, s job.SourceFacts) finding {
				return at("aux", s.Name, d.Facts.Chemistry.Name()).
					cure(verdict.Set("It is switched off", s.Section+".compensated", string(job.No)))
			})},
	{"charging.uncompensated", verdict.Caution, working.Memory, chargingPaths("compensated"),
		"At %.0f °C outside the %s does not follow temperature: lead wants some %.0f mV less for each kelvin warmer, and more colder.",
		ofSources(func(d *design.Design, s job.SourceFacts) bool {
			out := d.Facts.Day.OutsideC.Value
			return s.Compensated == job.No && profileOf(d).PerK != 0 && (out < ColdOutC || out > HotOutC)
		}, func(d *design.Design, s job.SourceFacts) finding {
			return at("aux", d.Facts.Day.OutsideC.Value, s.Name, -1000*profileOf(d).PerK*d.Facts.AuxN)
		})},
	{"charging.frost", verdict.Bad, working.Practice, chargingPaths("disable", "probe"),
		"At %.0f °C outside nothing stops the %s, and %s must not be charged below %.0f °C. Wire its charge-disable, or a probe at the cells.",
		ofSources(func(d *design.Design, s job.SourceFacts) bool { return unstopped(d, s) && s.Disable == job.No }, inFrost)},
	{"charging.cold", verdict.Caution, working.Practice, chargingPaths("disable", "probe"),
		"At %.0f °C outside nobody said what stops the %s, and %s must not be charged below %.0f °C.",
		ofSources(func(d *design.Design, s job.SourceFacts) bool { return unstopped(d, s) && s.Disable == job.Asked }, inFrost)},
	{"charging.rate", verdict.Caution, working.Memory, []string{"mains.outputA", "aux.capacityAh"},
		"The %s gives %.0f A, and the battery takes %.0f A at most: its own sheet wins; without one, stay below.",
		ofSources(func(d *design.Design, s job.SourceFacts) bool {
			return s.OutputA != nil && *s.OutputA > d.Rates.Accepts.Unrounded
		},
			func(d *design.Design, s job.SourceFacts) finding {
				return at("aux", s.Name, *s.OutputA, d.Rates.Accepts.Unrounded)
			})},
	{"charging.generator", verdict.Caution, working.Memory, []string{"mains.outputA", "mains.generatorW"},
		"The %s asks some %.0f W, and a generator of %.0f W gives %.0f W for hours: its breaker trips, or it stalls with whatever else is on.",
		ofSources(func(d *design.Design, s job.SourceFacts) bool {
			return s.Section == "mains" && asksW(d, s) > generatorShare*num(d.Facts.GeneratorW) && d.Facts.GeneratorW != nil
		}, func(d *design.Design, s job.SourceFacts) finding {
			return at("aux", s.Name, asksW(d, s), *d.Facts.GeneratorW, generatorShare**d.Facts.GeneratorW)
		})},
	{"charging.apart", verdict.Caution, working.Practice, chargingPaths("absorptionV"),
		"The %s is set to %.1f V and the %s to %.1f V: the lower one rests while the other still charges, and what it shows as full is not.",
		ofSources(func(d *design.Design, s job.SourceFacts) bool {
			return d.Kind.Charger() && s.AbsorptionV != nil && away(sets(d, s), d.Setting.AbsorptionV) > apartV
		}, func(d *design.Design, s job.SourceFacts) finding {
			return at("aux", s.Name, *s.AbsorptionV, "charger", d.SetV()).remark()
		})},
	{"setting.hangs", verdict.Caution, working.Practice, []string{"profile.fed", "profile.setting"},
		"The setting “%s” hangs on a lead to plus that can be switched off: without it the charger takes “%s”.",
		func(d *design.Design) []finding {
			becomes, hangs := withoutPlus(d)
			return where(hangs && job.Str(d.Facts.Set.Fed) == job.FedSwitched, func() finding {
				return at("coupling", d.Setting.Label, becomes).cure(verdict.Set("It is fed by the battery itself", "profile.fed", "steady"))
			})
		}},
	{"setting.hangs.open", verdict.Open, working.Practice, []string{"profile.fed"},
		"Look: can what feeds the configuration lead to plus be switched off? Without it the charger takes “%s”.",
		func(d *design.Design) []finding {
			becomes, hangs := withoutPlus(d)
			return says(hangs && d.Facts.Set.Fed == nil, "coupling", becomes)
		}},
	{"charging.good", verdict.Good, working.Memory, chargingPaths("absorptionV"),
		"The %s, set to %.1f V, suits %s, which wants %s.",
		ofSources(func(d *design.Design, s job.SourceFacts) bool {
			v, p := sets(d, s), profileOf(d)
			return s.AbsorptionV != nil && v <= p.AbsorptionHigh+offV && v >= p.AbsorptionLow-offV
		}, func(d *design.Design, s job.SourceFacts) finding {
			return at("aux", s.Name, *s.AbsorptionV, d.Facts.Chemistry.Label, wants(d))
		})},
}

// withoutPlus is the setting that the charger takes where no lead has plus, and whether its own needs it.
func withoutPlus(d *design.Design) (becomes string, hangs bool) {
	s := d.Setting
	if !d.Kind.Charger() || s.A != profile.Battery && s.B != profile.Battery {
		return "", false
	}
	a, b := s.A, s.B
	if a == profile.Battery {
		a = profile.Open
	}
	if b == profile.Battery {
		b = profile.Open
	}
	becomes = "another setting"
	if other, ok := profile.ByLeads(d.Facts.Settings, a, b); ok {
		becomes = unit.Say("%s, %.1f V", other.Label, other.AbsorptionV*d.Facts.AuxN)
	}
	return becomes, true
}

func chargingPaths(names ...string) []string {
	var list []string
	for _, n := range names {
		list = append(list, "mains."+n, "solar."+n)
	}
	return list
}

// ofSources lets a look speak of each source that is so.
func ofSources(is func(d *design.Design, s job.SourceFacts) bool,
	says func(d *design.Design, s job.SourceFacts) finding) func(d *design.Design) []finding {
	return func(d *design.Design) []finding {
		var list []finding
		for _, s := range d.Facts.Sources {
			if is(d, s) {
				f := says(d, s)
				f.source = s.ID
				list = append(list, f)
			}
		}
		return list
	}
}

// sets is what a source is set to at 12 V; 0 where nobody said.
func sets(d *design.Design, s job.SourceFacts) float64 {
	if s.AbsorptionV == nil {
		return 0
	}
	return *s.AbsorptionV / d.Facts.AuxN
}

// absorbs says what a source is set to, what the battery wants, at 12 V, and sets it so.
func absorbs(d *design.Design, s job.SourceFacts, wanted float64) finding {
	right := profileOf(d).AbsorptionHigh * d.Facts.AuxN
	return at("aux", s.Name, *s.AbsorptionV, d.Facts.Chemistry.Label, wanted*d.Facts.AuxN).
		cure(verdict.Set(unit.Say("It is set to %.1f V", right), s.Section+".absorptionV", fmt.Sprint(unit.Round(right, 2))))
}

// wants is what the battery wants of all that charges it, in words.
func wants(d *design.Design) string {
	p, n := profileOf(d), d.Facts.AuxN
	float := unit.Text(p.FloatHigh*n, "V", 1) + " or none"
	if p.FloatLow > 0 {
		float = unit.Say("%.1f to %.1f V", p.FloatLow*n, p.FloatHigh*n)
	}
	return unit.Say("%.1f to %.1f V, float %s", p.AbsorptionLow*n, p.AbsorptionHigh*n, float)
}

// unstopped says whether the cells may get too cold to be charged, with no probe at them.
func unstopped(d *design.Design, s job.SourceFacts) bool {
	return !d.Facts.Chemistry.MayCharge(d.Facts.Day.OutsideC.Value) && s.Probe != job.Yes
}

func inFrost(d *design.Design, s job.SourceFacts) finding {
	return at("aux", d.Facts.Day.OutsideC.Value, s.Name, d.Facts.Chemistry.Label, d.Facts.Chemistry.NoChargeBelowC).
		cure(verdict.Set("Charge-disable is wired", s.Section+".disable", string(job.Yes)))
}
