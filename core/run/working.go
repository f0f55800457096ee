package run

import (
	"fmt"
	"math"

	"epitrope/core/cable"
	"epitrope/core/protect"
	"epitrope/core/unit"
	"epitrope/core/working"
)

// Bearing is how long a cable bears something, in words.
func Bearing(s float64) string {
	if math.IsInf(s, 1) {
		return "for good"
	}
	return "for " + unit.Seconds(s)
}

// conductorArea is the copper that may be trusted of a size, for figures.
func conductorArea(s cable.Size) working.Input {
	return working.From(s.AreaMM2, working.Standard, s.Label)
}

// thermalFigures is the working of what a cable may carry where it lies and how warm
// it gets: "ampacity" by the tables, "balance" where the heat balance decides instead,
// "heating" and "warmth".
func thermalFigures(t cable.Trial, n cable.Insulation, b cable.Bay, amps float64) working.Figures {
	alpha := working.From(cable.Alpha, working.Standard, "IEC 60028")
	limit := working.From(n.LimitC, working.Standard, "insulation")
	place := working.From(b.AmbientC, working.Standard, b.Label)
	count := working.Is(float64(t.Size.Count), "as pinned")
	thermal, runs := n.Thermal(t.Size, b), t.ConductorC
	if t.InBack {
		runs = t.BackC
	}
	ohmPerM := working.From(thermal.OhmPerM, working.Standard, t.Size.OhmSource()+", one cable")

	where := b.Label
	if b.AmbientC > cable.EngineC {
		where = "as at 50 °C, the hottest that the tables know"
	}
	out := working.Figures{
		"ampacity": cable.Ampacity.MustWork(count, working.Input{Value: t.Carried.FreeAirA, Origin: working.Standard,
			Why: string(t.Carried.Table)},
			working.From(t.Carried.PlaceFactor, working.Standard, where+", "+n.Label+" insulation"),
			working.From(t.Carried.GroupFactor, working.Standard, b.Laying.Describe())),
	}
	switch {
	case b.AmbientC >= n.LimitC:
		out["balance"] = working.Given(working.Symbol{Name: "may carry", Unit: "A", Digits: 0}, 0, working.Computed,
			fmt.Sprintf("nothing: the place is at %s, and its insulation bears %s", unit.Text(b.AmbientC, "°C", 0), n.Label))
	case t.Carried.Balance:
		out["balance"] = cable.ByBalance.MustWork(count, working.Is(thermal.Gives(n.LimitC),
			"IEC 60287, Churchill and Chu: "+b.Laying.Describe()),
			limit, place, ohmPerM, alpha).Decided("lower than the tables, so it holds")
	}
	if t.Burns {
		out["warmth"] = working.Given(working.Symbol{Name: "conductor temperature, at least", Unit: "°C", Digits: 0},
			runs, working.Computed, "hotter than its insulation bears")
		return out
	}
	heating := cable.Heating.MustWork(working.Is(amps, "worst continuous current"), count, ohmPerM,
		working.Is(thermal.Gives(runs), "at this temperature, "+b.Laying.Describe()))
	out["heating"] = heating
	out["warmth"] = cable.Warmth.MustWork(place, working.Of(heating), alpha)
	if by := out["warmth"].Unrounded; by > n.LimitC {
		out["warmth"] = working.Given(working.Symbol{Name: "conductor temperature", Unit: "°C", Digits: 0}, n.LimitC, working.Standard,
			"the tables allow the current, so its limit; the heat balance alone says "+unit.Text(by, "°C", 0))
	}
	return out
}

// Workings are what decided the leg's cable, under its id, and its fuse, under the fuse's.
func (l *Sized) Workings() working.Figures {
	t, key := l.Trial, func(name string) string { return l.ID + "." + name }
	length := working.Input{Value: l.CableM() - l.Loop.BackM, Origin: l.LengthM.Origin, Why: "all cable of this run; " + l.LengthM.Why}
	all := l.fuseWorkings()
	all[key("rule")] = cable.RuleArea.MustWork(
		working.Input{Value: 2 * l.LengthM.Value, Origin: l.LengthM.Origin, Why: "out and back"},
		working.Is(l.DropA(), "continuous current"), working.From(cable.Kappa, working.Standard, "IEC 60028"),
		working.Is(l.shownBudget(), "allowed")).Decided("for comparison; at 2 % of 10.7 V it is the trade's rule")
	for name, fig := range thermalFigures(t, l.Loop.Insulation, l.HardBay(), l.Amps) {
		all[key(name)] = fig
	}
	ohm := cable.Resistance.MustWork(
		working.From(t.Size.OhmPerM(), working.Standard, t.Size.OhmSource()+", "+t.Size.Label), length,
		working.From(cable.Alpha, working.Standard, "IEC 60028"), working.Is(t.ConductorC, "conductor temperature"))
	elsewhere, what := l.SteelOhm, "chassis and earth joints"
	if l.Loop.BackM > 0 {
		back := cable.Resistance.MustWork(working.From(t.Size.OhmPerM(), working.Standard, t.Size.OhmSource()+", "+t.Size.Label),
			working.Is(l.Loop.BackM, "return cable, "+l.ReturnBay().Label), working.From(cable.Alpha, working.Standard, "IEC 60028"),
			working.Is(t.BackC, "its temperature there"))
		all[key("copper.back")] = back.Named("return cable in its own place")
		elsewhere, what = elsewhere+back.Unrounded, "return cable in its own place, chassis and earth joints"
	}
	loop := loopOhm.MustWork(working.Of(ohm), working.From(elsewhere, working.Practice, what))
	all[key("copper")], all[key("loop")] = ohm, loop
	all[key("drop")] = cable.Drop.MustWork(working.Is(l.Amps, "worst continuous current"), working.Of(loop)).
		Decided(unit.Say("allowed %s at %s", unit.Text(l.shownBudget(), "V", 2), unit.Text(l.DropA(), "A", 0)))
	return all
}

// shownBudget is the allowed drop, never below a millivolt, so that the rule's
// area stays finite where joints alone lose the limit.
func (l *Sized) shownBudget() float64 { return max(l.BudgetV, 0.001) }

var loopOhm = working.Declare("R_l = R + R_s", "series resistances add",
	working.Symbol{Letter: "R_l", Name: "cable and its return", Unit: "Ω", Digits: 5},
	working.Symbol{Letter: "R", Name: "cable", Unit: "Ω", Digits: 5},
	working.Symbol{Letter: "R_s", Name: "the return's steel and joints", Unit: "Ω", Digits: 5})

// source is what resists behind the run's beginning.
func (l *Sized) source() working.Input {
	if l.Measured {
		return working.From(l.SourceOhm, working.Surveyed, "battery, measured")
	}
	return working.From(l.SourceOhm, working.Memory, "battery")
}

// fuseWorkings are what decided the leg's fuse.
func (l *Sized) fuseWorkings() working.Figures {
	all := working.Figures{}
	keep := func(name string, fig working.Figure) { all[l.FuseID+"."+name] = fig }
	keep("least", protect.Least.MustWork(working.Is(l.Amps, "worst continuous current"),
		working.From(l.Fuse.Family.HeatFactor(l.Bay.AmbientC), working.Practice, l.Bay.Label)).Decided("the lowest that carries the load warm"))
	keep("most", working.Given(working.Symbol{Name: "highest fuse rating", Unit: "A", Digits: 0},
		l.Trial.AmpacityA, working.Computed, "what "+l.Trial.Size.Label+" carries where it lies"))
	fault := protect.FaultCurrent.MustWork(working.Is(l.SourceV, "source"),
		l.source(), working.Is(l.FaultOhm(l.Fuse, l.Trial), "fuse, joints, cable and return"))
	k := cable.ShortConstant.MustWork(working.From(cable.ShortLimitC, working.Standard, "IEC 60949"),
		working.Is(min(l.Trial.ConductorC, cable.ShortLimitC-1), "conductor temperature"))
	keep("fault", fault)
	keep("k", k)
	keep("bears", cable.BearsFor.MustWork(working.Of(k), conductorArea(l.Trial.Size), working.Of(fault)))
	keep("near", working.Given(working.Symbol{Name: "fault current at the battery", Unit: "A", Digits: 0},
		l.NearFault, l.source().Origin, "battery voltage over its own resistance and two joints"))
	band := func(a float64) string {
		return fmt.Sprintf("ISO 8820 band of %s at %s times its rating", l.Fuse.Family.Label, unit.Text(a/l.Fuse.RatingA, "", 2))
	}
	if far := l.Cover.Far; far.OpensMaxS < math.Inf(1) {
		keep("opens", working.Given(working.Symbol{Name: "opens at the latest after", Unit: "s", Digits: 2},
			far.OpensMaxS, working.Memory, band(far.Amps)))
	}
	over := l.Cover.Overload
	keep("overload", working.Given(working.Symbol{Name: "overload it may hold", Unit: "A", Digits: 0}, over.Amps, working.Memory,
		fmt.Sprintf("%s: up to %s; %s bears it %s", band(over.Amps), unit.Seconds(over.OpensMaxS), l.Trial.Size.Label, Bearing(over.BearsS))))
	return all
}
