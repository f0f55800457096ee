package plan

import (
	"fmt"
	"maps"
	"math"

	"epitrope/core/battery"
	"epitrope/core/cable"
	"epitrope/core/coupling"
	"epitrope/core/protect"
	"epitrope/core/working"
)

// workings are the working of what was rated, sized and solved, by key.
func (d *design) workings() working.Figures {
	r := d.rates
	all := working.Figures{"sun": r.sun, "cycle": r.cycle, "need": r.need, "idle": r.idle, "cruise": r.cruise, "half": r.half,
		"accepts": r.accepts, "allowed": r.allowed, "usable": d.usable(), "autonomy": d.autonomy()}
	if fig, ok := d.backUse(); ok {
		all["back"] = fig
	}
	for _, l := range []*leg{&d.start, &d.aux, &d.trigger} {
		maps.Copy(all, l.workings())
	}
	for _, key := range []string{"t1.drop", "f3.least"} {
		all[key] = all[key].Named("trigger wire, " + all[key].Name)
	}
	maps.Copy(all, d.couplingWorkings())
	maps.Copy(all, d.returnWorkings())
	return all
}

// usable is what the aux battery has to give.
func (d *design) usable() working.Figure {
	return battery.UsableAh.MustWork(d.facts.AuxAh.Input(), working.From(d.facts.Chemistry.Usable, working.Practice, d.facts.Chemistry.Label))
}

// autonomy is how long that lasts.
func (d *design) autonomy() working.Figure {
	return lasts.MustWork(working.Of(d.usable()), d.facts.DailyAh.Input())
}

var lasts = working.Declare("t = Q_u / Q", "conservation of charge",
	working.Symbol{Letter: "t", Name: "lasts without driving", Unit: "days", Digits: 1},
	working.Symbol{Letter: "Q_u", Name: "usable charge", Unit: "Ah", Digits: 0},
	working.Symbol{Letter: "Q", Name: "used in a day", Unit: "Ah", Digits: 0})

// couplingWorkings are what decides a charger's input, or what a contact carries.
func (d *design) couplingWorkings() working.Figures {
	if d.kind == coupling.SecondAlternator {
		return nil
	}
	if d.kind.Charger() {
		worst := d.states[d.worst]
		return working.Figures{
			"input": coupling.InputCurrent.MustWork(
				d.chargerInput(), working.From(d.setV(), working.Memory, d.setting.Label+" setting"),
				working.From(d.charger.EfficiencyLow, working.Part, "device card, at worst"),
				working.From(lowestInputV*d.facts.N, working.Practice, "sized at")).Decided("what the start run is sized for"),
			"most": coupling.MostPower.MustWork(
				working.Is(worst.busV, "start battery, "+worst.label), working.Is(d.start.totalOhm(), "start run, out and back")),
		}
	}
	return working.Figures{"joined": coupling.Joined.MustWork(
		working.Is(d.cruiseState().busV, "start battery at cruise"),
		working.From(d.auxEmptyV(), working.Memory, "aux battery at half charge"),
		working.Is(d.start.totalOhm()+d.aux.totalOhm(), "both runs and the return"),
		working.Is(d.auxOhm(), "aux battery")).In(d.cruiseState().label)}
}

func (d *design) chargerInput() working.Input {
	origin, why := working.Computed, "chosen by the plan"
	if d.doc.Card.OutputA != nil {
		origin, why = working.Part, "the job's own card"
	}
	if d.doc.Pins.ChargerA != nil {
		origin, why = working.Pinned, "pinned"
	}
	return working.From(d.charger.OutputA, origin, why)
}

// workings are what decided the leg's cable, under its id, and its fuse, under the fuse's.
func (l *leg) workings() working.Figures {
	t, key := l.trial, func(name string) string { return l.id + "." + name }
	length := working.Input{Value: l.cableM(), Origin: l.lengthM.Origin, Why: "all cable of this run; " + l.lengthM.Why}
	all := l.fuseWorkings()
	all[key("rule")] = cable.RuleArea.MustWork(
		working.Input{Value: 2 * l.lengthM.Value, Origin: l.lengthM.Origin, Why: "out and back"},
		working.Is(l.amps, "worst continuous current"), working.From(cable.Kappa, working.Standard, "IEC 60028"),
		working.Is(l.shownBudget(), "allowed")).Decided("the trade's rule, cold copper: for comparison")
	for name, fig := range thermalFigures(t, l.loop.Insulation, l.bay, l.amps) {
		all[key(name)] = fig
	}
	ohm := cable.Resistance.MustWork(
		working.From(t.Size.OhmPerM(), working.Standard, "IEC 60228 class 5, "+t.Size.Label), length,
		working.From(cable.Alpha, working.Standard, "IEC 60028"), working.Is(t.ConductorC, "conductor temperature"))
	loop := loopOhm.MustWork(working.Of(ohm), working.From(l.steelOhm, working.Practice, "chassis and earth joints"))
	all[key("copper")], all[key("loop")] = ohm, loop
	all[key("drop")] = cable.Drop.MustWork(working.Is(l.amps, "worst continuous current"), working.Of(loop)).
		Decided("allowed " + working.Text(l.shownBudget(), "V", 2))
	return all
}

// shownBudget is the allowed drop, never below a millivolt, so that the rule's
// area stays finite where joints alone lose the limit.
func (l *leg) shownBudget() float64 { return max(l.budgetV, 0.001) }

var loopOhm = working.Declare("R_l = R + R_s", "series resistances add",
	working.Symbol{Letter: "R_l", Name: "cable and its return", Unit: "Ω", Digits: 5},
	working.Symbol{Letter: "R", Name: "cable", Unit: "Ω", Digits: 5},
	working.Symbol{Letter: "R_s", Name: "the return's steel and joints", Unit: "Ω", Digits: 5})

// fuseWorkings are what decided the leg's fuse.
func (l *leg) fuseWorkings() working.Figures {
	all := working.Figures{}
	keep := func(name string, fig working.Figure) { all[l.fuseID+"."+name] = fig }
	keep("least", protect.Least.MustWork(working.Is(l.amps, "worst continuous current"),
		working.From(l.fuse.Family.HeatFactor(l.bay.AmbientC), working.Practice, l.bay.Label)).Decided("the lowest that carries the load warm"))
	keep("most", working.Given(working.Symbol{Name: "highest fuse rating", Unit: "A", Digits: 0},
		l.trial.AmpacityA, working.Computed, "what "+l.trial.Size.Label+" carries where it lies"))
	fault := protect.FaultCurrent.MustWork(working.Is(l.sourceV, "source"),
		working.From(l.sourceOhm, working.Memory, "battery"), working.Is(l.faultOhm(l.fuse, l.trial), "fuse, joints, cable and return"))
	k := cable.ShortConstant.MustWork(working.From(cable.ShortLimitC, working.Standard, "IEC 60949"),
		working.Is(min(l.trial.ConductorC, cable.ShortLimitC-1), "conductor temperature"))
	keep("fault", fault)
	keep("k", k)
	keep("bears", cable.BearsFor.MustWork(working.Of(k), conductorArea(l.trial.Size), working.Of(fault)))
	keep("near", working.Given(working.Symbol{Name: "fault current at the battery", Unit: "A", Digits: 0},
		l.nearFault, working.Memory, "battery voltage over its own resistance and two joints"))
	band := func(a float64) string {
		return fmt.Sprintf("ISO 8820 band of %s at %s times its rating", l.fuse.Family.Label, working.Text(a/l.fuse.RatingA, "", 2))
	}
	if far := l.cover.Far; far.OpensMaxS < math.Inf(1) {
		keep("opens", working.Given(working.Symbol{Name: "opens at the latest after", Unit: "s", Digits: 2},
			far.OpensMaxS, working.Memory, band(far.Amps)))
	}
	over := l.cover.Overload
	keep("overload", working.Given(working.Symbol{Name: "overload it may hold", Unit: "A", Digits: 0}, over.Amps, working.Memory,
		fmt.Sprintf("%s: up to %s; %s bears it %s", band(over.Amps), working.Seconds(over.OpensMaxS), l.trial.Size.Label, bearing(over.BearsS))))
	return all
}

var steelOhm = working.Declare("R_s = 2·R_e + r·l", "common practice, no source: steel at eight times copper's resistivity, 700 mm² of it",
	working.Symbol{Letter: "R_s", Name: "return by the chassis", Unit: "Ω", Digits: 5},
	working.Symbol{Letter: "R_e", Name: "earth joint", Unit: "Ω", Digits: 5},
	working.Symbol{Letter: "r", Name: "chassis per metre", Unit: "Ω/m", Digits: 6},
	working.Symbol{Letter: "l", Name: "between the earth points", Unit: "m", Digits: 2})

// returnWorkings are both ways back, so that they can be compared.
func (d *design) returnWorkings() working.Figures {
	length := d.facts.StartM.Value
	if !d.kind.Charger() {
		length += d.facts.AuxM.Value
	}
	return working.Figures{
		"return.chassis": steelOhm.MustWork(working.From(earthOhm, working.Practice, "a clean joint"),
			working.From(chassisOhmPer, working.Practice, "chassis"), working.Is(d.back.chassisM, "on the drawing")),
		"return.cable": d.returnCopper(length, "as the feed").Named("return by cable, copper alone"),
		"return.lead":  d.returnCopper(d.back.cableM, "return cable").Named("return lead"),
	}
}

// returnCopper is some metres of the return's cable, as warm as it runs.
func (d *design) returnCopper(lengthM float64, what string) working.Figure {
	l := d.returnLeg()
	return cable.Resistance.MustWork(working.From(l.trial.Size.OhmPerM(), working.Standard, "IEC 60228 class 5, "+l.trial.Size.Label),
		working.Is(lengthM, what), working.From(cable.Alpha, working.Standard, "IEC 60028"), working.Is(l.trial.ConductorC, "conductor temperature"))
}

// returnLeg is the leg that the return's resistance counts in.
func (d *design) returnLeg() *leg {
	if !d.kind.Charger() {
		return &d.aux
	}
	return &d.start
}
