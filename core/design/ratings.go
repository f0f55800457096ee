package design

import (
	"epitrope/core/alternator"
	"epitrope/core/battery"
	"epitrope/core/coupling"
	"epitrope/core/need"
	"epitrope/core/parts"
	"epitrope/core/run"
	"epitrope/core/unit"
	"epitrope/core/working"
)

// lowestInputV is the input voltage, at 12 V, that a charger's current is sized
// at. Source: common practice, no source; the trade's check figures use it.
const lowestInputV = 12.5

// Allowed is the largest output whose input stays within the alternator's share.
var Allowed = working.Declare("I_a = I_max·η·U_in / U_out", "physics: conservation of energy",
	working.Symbol{Letter: "I_a", Name: "charger output that the alternator allows", Unit: "A", Digits: 1},
	working.Symbol{Letter: "I_max", Name: "continuous charging at most", Unit: "A", Digits: 1},
	working.Symbol{Letter: "η", Name: "efficiency, at worst", Unit: "", Digits: 2},
	working.Symbol{Letter: "U_in", Name: "lowest input voltage", Unit: "V", Digits: 2},
	working.Symbol{Letter: "U_out", Name: "output voltage, end of bulk", Unit: "V", Digits: 2})

// Accepts is the charging current that a battery takes.
var Accepts = working.Declare("I_b = c·C", "from memory; the battery's own sheet wins",
	working.Symbol{Letter: "I_b", Name: "battery accepts at most", Unit: "A", Digits: 0},
	working.Symbol{Letter: "c", Name: "charge rate", Unit: "/h", Digits: 2},
	working.Symbol{Letter: "C", Name: "capacity", Unit: "Ah", Digits: 0})

// Rates are what is needed, and what alternator and battery allow, with their working.
type Rates struct{ Sun, Cycle, Need, Idle, Cruise, Half, Accepts, Allowed working.Figure }

// rateNeed works out what is needed, and what alternator and battery allow.
func (d *Design) rateNeed() {
	f := d.Facts
	r := &d.Rates
	r.Sun = need.SunAh.MustWork(working.From(need.SunShare, working.Memory, "lying flat, warm, not quite clean"),
		f.Day.SolarW.Input(), f.Day.SunHours.Input(), f.AuxV.Input())
	r.Cycle = need.CycleAh.MustWork(f.DailyAh.Input(), working.Of(r.Sun), f.Need.MainsAh.Input(), f.Need.ParkedDays.Input())
	d.CycleAh = min(max(0, r.Cycle.Unrounded), f.AuxAh.Value) // more than it holds was not taken out
	spent := r.Cycle
	spent.Unrounded = d.CycleAh
	r.Need = need.Current.MustWork(working.Of(spent), f.DrivenHours.Input(),
		working.From(f.Chemistry.Efficiency, working.Memory, f.Chemistry.Label))
	d.NeedA = r.Need.Unrounded
	r.Idle = d.headroom(f.IdleTurns(), d.idleWhy()).Named(leftAtIdle)
	r.Cruise = d.headroom(CruiseRPM, "alternator label").Named(leftAtCruise)
	d.IdleA, d.CruiseA = r.Idle.Unrounded, r.Cruise.Unrounded
	r.Half = alternator.HalfLabel.MustWork(f.LabelA.Input())
	r.Accepts = Accepts.MustWork(
		working.From(f.Chemistry.ChargeHigh, working.Memory, f.Chemistry.Label), f.AuxAh.Input())
	d.LimitA = d.allowed()
	d.Second = d.machineFor(d.NeedA)
}

// allowed is what the share of the alternator lets a charger give, with its working.
func (d *Design) allowed() float64 {
	d.Rates.Allowed = Allowed.MustWork(working.Of(d.Rates.Half),
		working.From(d.Book.Chargers[0].EfficiencyLow, working.Part, "device card"),
		working.From(lowestInputV*d.Facts.N, working.Practice, "sized at"),
		working.From(d.SetV(), working.Memory, d.Setting.Label+" setting"))
	return d.Rates.Allowed.Unrounded
}

// rate decides what the coupling gives and draws at its worst.
func (d *Design) rate() {
	accepts := d.Rates.Accepts
	if !d.Kind.Charger() {
		d.rateContact(accepts.Unrounded)
		return
	}
	d.AutoChargerA = d.pickCharger(min(d.LimitA, accepts.Unrounded))
	wanted := d.AutoChargerA
	if pin := d.Doc.Pins.ChargerA; pin != nil {
		wanted = *pin
	}
	d.Charger, _ = d.Book.Charger(wanted) // pins are ratings of the book
	d.Charger = d.Doc.Card.On(d.Charger)
	if f := d.Facts; f.N != f.AuxN {
		d.Charger.Label += unit.Say(", %.0f V to %.0f V", f.SystemV.Value, f.AuxV.Value)
	}
	d.Start.Amps = d.InputA(d.Charger)
	if count := d.Doc.Pins.Chargers; count != nil && *count > 1 {
		d.Charger = d.Charger.Times(*count)
		d.Start.Amps *= *count
	}
	if beside := d.Facts.Arranged.BesideA; beside != nil && d.Charger.Count == 0 {
		other, _ := d.Book.Charger(*beside) // ratings of the book
		d.Charger = d.Charger.Beside(other)
		d.Start.Amps = d.InputA(d.Charger)
	}
	d.Start.Amps += d.Facts.Survey.FeedA.Value + d.tapsA(false)
	d.Aux.Amps = d.Charger.OutputA + d.sunBehindA()
	if d.Is.Beside == Bypass {
		d.Start.Amps += min(accepts.Unrounded, d.Facts.LabelA.Value)
		d.Aux.Amps += min(accepts.Unrounded, d.Facts.LabelA.Value)
	}
	d.fitContacts()
}

// fitContacts takes the contacts that bear what the run carries, or what is pinned, and says
// whether they are others than before.
func (d *Design) fitContacts() (changed bool) {
	contact, changeover, plug := d.Contact.ID, d.Changeover.ID, d.PlugCard.ID
	amps := run.FuseShare * d.Start.Amps
	if pin := d.Doc.Pins.ContactA; pin != nil {
		amps = *pin
	}
	d.Contact = d.Facts.Relay.On(d.Book.Contact(d.Kind, amps))
	d.Changeover = d.Book.Changeover(d.Start.Amps, max(d.Start.Trial.Size.CopperMM2(), d.Aux.Trial.Size.CopperMM2()))
	if pin := d.Doc.Pins.ContactA; pin != nil && d.Is.Beside == RestContact {
		d.Changeover = d.Book.Changeover(0, 0)
		for _, c := range d.Book.Changeovers {
			if c.Relay.MakeA <= *pin {
				d.Changeover = c
			}
		}
	}
	d.Changeover = d.Facts.Relay.OnChangeover(d.Changeover)
	ahead := d.fitAhead()
	d.plugIn()
	return ahead || contact != d.Contact.ID || d.Is.Beside == RestContact && changeover != d.Changeover.ID || d.Plugged() &&
		plug != d.PlugCard.ID
}

// machineFor is the machine of a run of its own: the pinned one, or the smallest of which half
// gives the amps that are needed.
func (d *Design) machineFor(amps float64) alternator.Label {
	rated := parts.MachineRatings[len(parts.MachineRatings)-1]
	for _, a := range parts.MachineRatings {
		if SecondShare*a >= amps {
			rated = a
			break
		}
	}
	if pin := d.Doc.Pins.SecondA; pin != nil {
		rated = *pin
	}
	label, _ := alternator.ParseLabel(unit.Plain(rated, "A", 0)) // a rating always reads
	return label
}

// SecondShare is the share of its label that a second machine's regulator is set to, as
// charging goes on for hours. Source: common practice, no source.
const SecondShare = 0.5

// SecondA is what the second machine gives at a speed, hot.
func (d *Design) SecondA(rpm float64) float64 {
	return min(alternator.HotFactor*d.Second.Output(rpm), SecondShare*d.Second.RatedA)
}

// pickCharger is the charger that the job has a card of. Without one it is the smallest that
// meets the need within the limit; failing that the largest within the limit; failing that
// the smallest there is.
func (d *Design) pickCharger(limitA float64) float64 {
	if own := d.Doc.Card.OutputA; own != nil {
		return *own
	}
	best := d.Book.Chargers[0].OutputA
	for _, c := range d.Book.Chargers {
		if c.OutputA > limitA {
			break
		}
		best = c.OutputA
		if c.OutputA >= d.NeedA {
			break
		}
	}
	return best
}

// PinOf is what to pin for a charger of outputA: nothing where it is that of the job's own
// card, which is taken unless another is pinned.
func (d *Design) PinOf(outputA float64) any {
	if own := d.Doc.Card.OutputA; own != nil && *own == outputA {
		return nil
	}
	return outputA
}

// InputA is what a charger, or several side by side, draws at worst: no more than its own limit.
func (d *Design) InputA(c parts.Charger) float64 {
	if amps := d.FullInputA(c); c.InputA == 0 || amps < c.InputA {
		return amps
	}
	return c.InputA
}

// FullInputA is what all of a charger's output draws at the lowest input.
func (d *Design) FullInputA(c parts.Charger) float64 {
	return coupling.InputCurrent.Value(c.OutputA, d.SetV(), c.EfficiencyLow, lowestInputV*d.Facts.N)
}

// rateContact starts from what the battery takes: lead limits itself, LiFePO4 takes
// what the circuit drives, up to the alternator's whole output.
func (d *Design) rateContact(acceptsA float64) {
	amps := min(acceptsA, d.Facts.LabelA.Value)
	if d.Is.OwnMachine {
		amps = min(acceptsA, SecondShare*d.Second.RatedA)
	}
	d.Start.Amps, d.Aux.Amps = amps, amps
	if d.Is.Splits {
		d.Start.Amps = d.Facts.LabelA.Value
	}
	d.fitContacts()
}

// AuxEmptyV is the aux battery's own voltage when there is charging to do: at
// half charge.
func (d *Design) AuxEmptyV() float64 { return d.Facts.Chemistry.RestV(0.5) * d.Facts.AuxN }

// trickleShare is what a battery takes of its capacity in an hour once it is full. Source: common practice, no source: 1 to 4 %.
const trickleShare = 0.02

// Trickle is what the aux battery takes once it is full, in A.
func (d *Design) Trickle() float64 { return trickleShare * d.Facts.AuxAh.Value }

// AuxOhm is the aux battery's resistance.
func (d *Design) AuxOhm() float64 { return d.Facts.Chemistry.Ohm(d.Facts.AuxAh.Value, d.Facts.AuxN) }

// StartChemistry is the start battery's.
func (d *Design) StartChemistry() battery.Chemistry { return d.Facts.Survey.StartChemistry }

// StartOhm is the start battery's resistance, charged and warm.
func (d *Design) StartOhm() float64 { return d.StartChemistry().Ohm(d.Facts.StartAh.Value, d.Facts.N) }

// MachineA is what the alternator gives at a speed, hot.
func (d *Design) MachineA(rpm float64) float64 {
	return d.Facts.Label.HotShare() * d.Facts.Label.Output(rpm)
}

// idleWhy says what the machine's output at idle stands on.
func (d *Design) idleWhy() string {
	m := d.Facts.Machine
	switch {
	case d.Facts.Label.Converter:
		return "the converter's rating, whatever the engine does"
	case d.Facts.Label.IdleA > 0:
		return "measured at idle, hot, without its heat"
	case d.Facts.Label.LowRPM > 0:
		return "the label's first figure, as idle and pulleys were not measured"
	}
	return unit.Say("label by ISO 8854 at %s engine turns × %s", unit.Plain(m.IdleRPM.Value, "", 0), unit.Plain(m.Ratio.Value, "", 2))
}

// What an alternator has for charging is told of two speeds.
const (
	leftAtIdle   = "left for charging at idle, hot, lamps on"
	leftAtCruise = "left for charging at cruise, hot, lamps on"
)

// headroom is what the alternator has for charging at a speed, hot, lamps on.
func (d *Design) headroom(rpm float64, why string) working.Figure {
	share := working.From(alternator.HotFactor, working.Practice, "80–90 %")
	if d.Facts.Label.Converter {
		share = working.Is(d.Facts.Label.HotShare(), "a converter's rating is for hours")
	}
	return alternator.Headroom.MustWork(share, working.Is(d.Facts.Label.Output(rpm), why), d.Facts.LoadA.Input())
}

// InsulationPath is the answer that a run's insulation comes from: its own, where it has one.
func (d *Design) InsulationPath(run string) string {
	switch {
	case run == "c1" && d.Doc.Cable.StartInsulation != nil:
		return "cable.startInsulation"
	case run == "c2" && d.Doc.Cable.AuxInsulation != nil:
		return "cable.auxInsulation"
	}
	return "cable.insulation"
}
