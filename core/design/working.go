package design

import (
	"maps"

	"epitrope/core/battery"
	"epitrope/core/cable"
	"epitrope/core/coupling"
	"epitrope/core/run"
	"epitrope/core/unit"
	"epitrope/core/working"
)

// BackUse is the driving that puts a day's use back at the current that
// flows at cruise; ok is false where none flows.
func (d *Design) BackUse() (fig working.Figure, ok bool) {
	amps := d.CruiseState().OutA
	unsure := d.Facts.Varies() && !d.Kind.Charger() && !d.Is.OwnMachine
	if amps <= 0 || unsure || d.CruiseState().Err != nil {
		return working.Figure{}, false
	}
	return putsBack.MustWork(d.Facts.DailyAh.Input(), working.Is(amps, "current at cruise"),
		working.From(d.Facts.Chemistry.Efficiency, working.Memory, d.Facts.Chemistry.Label)).In(d.CruiseState().Label), true
}

var putsBack = working.Declare("h = Q / (I·η)", "conservation of charge; bulk only, lead takes hours more for its last fifth",
	working.Symbol{Letter: "h", Name: "driving that puts a day's use back", Unit: "h", Digits: 1},
	working.Symbol{Letter: "Q", Name: "used in a day", Unit: "Ah", Digits: 0},
	working.Symbol{Letter: "I", Name: "charging current", Unit: "A", Digits: 1},
	working.Symbol{Letter: "η", Name: "charge efficiency", Unit: "", Digits: 2})

// Workings are the working of what was rated, sized and solved, by key.
func (d *Design) Workings() working.Figures {
	r := d.Rates
	all := working.Figures{"sun": r.Sun, "cycle": r.Cycle, "need": r.Need, "idle": r.Idle, "cruise": r.Cruise, "half": r.Half,
		"accepts": r.Accepts, "allowed": r.Allowed, "usable": d.Usable(), "autonomy": d.Autonomy()}
	if fig, ok := d.BackUse(); ok {
		all["back"] = fig
	}
	for _, l := range []*run.Sized{&d.Start, &d.Aux, &d.Trigger} {
		maps.Copy(all, l.Workings())
	}
	for _, key := range []string{"t1.drop", "f3.least"} {
		all[key] = all[key].Named("trigger wire, " + all[key].Name)
	}
	maps.Copy(all, d.couplingWorkings())
	maps.Copy(all, d.returnWorkings())
	return all
}

// Usable is what the aux battery has to give.
func (d *Design) Usable() working.Figure {
	return battery.UsableAh.MustWork(d.Facts.AuxAh.Input(), working.From(d.Facts.Chemistry.Usable, working.Practice, d.Facts.Chemistry.Label))
}

// Autonomy is how long that lasts.
func (d *Design) Autonomy() working.Figure {
	return lasts.MustWork(working.Of(d.Usable()), d.Facts.DailyAh.Input())
}

var lasts = working.Declare("t = Q_u / Q", "conservation of charge",
	working.Symbol{Letter: "t", Name: "lasts without driving", Unit: "days", Digits: 1},
	working.Symbol{Letter: "Q_u", Name: "usable charge", Unit: "Ah", Digits: 0},
	working.Symbol{Letter: "Q", Name: "used in a day", Unit: "Ah", Digits: 0})

// couplingWorkings are what decides a charger's input, or what a contact carries.
func (d *Design) couplingWorkings() working.Figures {
	if d.Isolates() {
		return nil
	}
	if d.Kind.Charger() {
		worst := d.States[d.Worst]
		return working.Figures{
			"input": coupling.InputCurrent.MustWork(
				d.chargerInput(), working.From(d.SetV(), working.Memory, d.Setting.Label+" setting"),
				working.From(d.Charger.EfficiencyLow, working.Part, "device card, at worst"),
				working.From(lowestInputV*d.Facts.N, working.Practice, "sized at")).Decided("what the start run is sized for"),
			"most": coupling.MostPower.MustWork(
				working.Is(worst.BusV, d.SourceName()+", "+worst.Label), working.Is(d.Start.TotalOhm(), "start run, out and back")),
		}
	}
	return working.Figures{"joined": coupling.Joined.MustWork(
		working.Is(d.CruiseState().BusV, "start battery at cruise"),
		working.From(d.AuxEmptyV(), working.Memory, "aux battery at half charge"),
		working.Is(d.Start.TotalOhm()+d.Aux.TotalOhm(), "both runs and the return"),
		working.Is(d.AuxOhm(), "aux battery")).In(d.CruiseState().Label)}
}

func (d *Design) chargerInput() working.Input {
	origin, why := working.Computed, "chosen by the plan"
	if d.Doc.Card.OutputA != nil {
		origin, why = working.Part, "the job's own card"
	}
	if d.Doc.Pins.ChargerA != nil {
		origin, why = working.Pinned, "pinned"
	}
	return working.From(d.Charger.OutputA, origin, why)
}

var steelOhm = working.Declare("R_s = 2·R_e + r·l", "common practice, no source: steel at eight times copper's resistivity, 700 mm² of it",
	working.Symbol{Letter: "R_s", Name: "return by the chassis", Unit: "Ω", Digits: 5},
	working.Symbol{Letter: "R_e", Name: "earth joint", Unit: "Ω", Digits: 5},
	working.Symbol{Letter: "r", Name: "chassis per metre", Unit: "Ω/m", Digits: 6},
	working.Symbol{Letter: "l", Name: "between the earth points", Unit: "m", Digits: 2})

// returnWorkings are both ways back, so that they can be compared.
func (d *Design) returnWorkings() working.Figures {
	length := d.Facts.StartM.Value
	if !d.Kind.Charger() {
		length += d.Facts.AuxM.Value
	}
	steel := steelOhm.MustWork(working.From(run.EarthOhm, working.Practice, "a clean joint"),
		working.From(run.ChassisOhmPer, working.Practice, "chassis"), working.Is(d.Back.ChassisM, "on the drawing"))
	if ohm, ok := d.Doc.Joints["chassis"].Ohm(); ok {
		steel = working.Given(working.Symbol{Name: "return by the chassis", Unit: "Ω", Digits: 5}, ohm, working.Surveyed,
			"measured from E2 to E1; by its length it would be "+unit.Text(steel.Unrounded*1000, "mΩ", 1))
	}
	all := working.Figures{}
	if d.ByBody() {
		body := working.Symbol{Name: "return by tray, canopy or body", Unit: "Ω", Digits: 5}
		all["return.body"] = working.Given(body, d.BodyOhm(), working.Memory, "its bolts and paint: nobody measured it")
		if _, ok := d.Doc.Joints["body"].Ohm(); ok {
			all["return.body"] = working.Given(body, d.BodyOhm(), working.Surveyed, "measured from E2 to the chassis")
		}
	}
	maps.Copy(all, working.Figures{
		"return.chassis": steel,
		"return.cable":   d.ReturnCopper(length, "as the feed").Named("return by cable, copper alone"),
		"return.lead":    d.ReturnCopper(d.Back.CableM, "return cable").Named("return lead"),
	})
	return all
}

// ReturnCopper is some metres of the return's cable, as warm as it runs.
func (d *Design) ReturnCopper(lengthM float64, what string) working.Figure {
	l := d.ReturnLeg()
	return cable.Resistance.MustWork(working.From(l.Trial.Size.OhmPerM(), working.Standard, l.Trial.Size.OhmSource()+", "+l.Trial.Size.Label),
		working.Is(lengthM, what), working.From(cable.Alpha, working.Standard, "IEC 60028"),
		working.Is(l.Trial.BackC, "conductor temperature"))
}

// ReturnLeg is the leg that the return's resistance counts in.
func (d *Design) ReturnLeg() *run.Sized {
	if !d.Kind.Charger() {
		return &d.Aux
	}
	return &d.Start
}
