package plan

import (
	"epitrope/core/alternator"
	"epitrope/core/battery"
	"epitrope/core/cable"
	"epitrope/core/coupling"
	"epitrope/core/need"
	"epitrope/core/parts"
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

// rates are what is needed, and what alternator and battery allow, with their working.
type rates struct{ sun, cycle, need, idle, cruise, half, accepts, allowed working.Figure }

// rateNeed works out what is needed, and what alternator and battery allow.
func (d *design) rateNeed() {
	f := d.facts
	r := &d.rates
	r.sun = need.SunAh.MustWork(working.From(need.SunShare, working.Memory, "lying flat, warm, not quite clean"),
		f.Day.SolarW.Input(), f.Day.SunHours.Input(), f.SystemV.Input())
	r.cycle = need.CycleAh.MustWork(f.DailyAh.Input(), working.Of(r.sun), f.Need.MainsAh.Input(), f.Need.ParkedDays.Input())
	d.cycleAh = max(0, r.cycle.Unrounded)
	spent := r.cycle
	spent.Unrounded = d.cycleAh
	r.need = need.Current.MustWork(working.Of(spent), f.DrivenHours.Input(),
		working.From(f.Chemistry.Efficiency, working.Memory, f.Chemistry.Label))
	d.needA = r.need.Unrounded
	r.idle = d.headroom(idleRPM, "label by ISO 8854 at 750 engine rpm × 2.75")
	r.cruise = d.headroom(cruiseRPM, "alternator label")
	d.idleA, d.cruiseA = r.idle.Unrounded, r.cruise.Unrounded
	r.half = alternator.HalfLabel.MustWork(f.LabelA.Input())
	r.accepts = Accepts.MustWork(
		working.From(f.Chemistry.ChargeHigh, working.Memory, f.Chemistry.Label), f.AuxAh.Input())
	worstCard := d.book.Chargers[0]
	r.allowed = Allowed.MustWork(working.Of(r.half),
		working.From(worstCard.EfficiencyLow, working.Part, "device card"),
		working.From(lowestInputV*f.N, working.Practice, "sized at"),
		working.From(d.setV(), working.Memory, d.setting.Label+" setting"))
	d.limitA = r.allowed.Unrounded
	d.second = d.secondMachine()
}

// rate decides what the coupling gives and draws at its worst.
func (d *design) rate() {
	accepts := d.rates.accepts
	if !d.kind.Charger() {
		d.rateContact(accepts.Unrounded)
		return
	}
	d.autoChargerA = d.pickCharger(min(d.limitA, accepts.Unrounded))
	wanted := d.autoChargerA
	if pin := d.doc.Pins.ChargerA; pin != nil {
		wanted = *pin
	}
	d.charger, _ = d.book.Charger(wanted) // pins are ratings of the book
	d.start.amps = d.inputA(d.charger)
	if count := d.doc.Pins.Chargers; count != nil && *count > 1 {
		d.charger = d.charger.Times(*count)
		d.start.amps *= *count
	}
	d.start.amps += d.facts.Survey.FeedA.Value
	d.aux.amps = d.charger.OutputA
	if d.kind == coupling.DCDCHighCurrent {
		d.start.amps += min(accepts.Unrounded, d.facts.LabelA.Value)
		d.aux.amps += min(accepts.Unrounded, d.facts.LabelA.Value)
	}
	d.fitContacts()
}

// fitContacts takes the contacts that bear what the run carries, or what is pinned, and says
// whether they are others than before.
func (d *design) fitContacts() (changed bool) {
	contact, changeover, plug := d.contact.ID, d.changeover.ID, d.plugCard.ID
	amps := fuseShare * d.start.amps
	if pin := d.doc.Pins.ContactA; pin != nil {
		amps = *pin
	}
	d.contact = d.book.Contact(d.kind, amps)
	d.changeover = d.book.Changeover(d.start.amps, max(d.start.trial.Size.CopperMM2(), d.aux.trial.Size.CopperMM2()))
	if pin := d.doc.Pins.ContactA; pin != nil && d.kind == coupling.DCDCChangeover {
		d.changeover = d.book.Changeover(0, 0)
		for _, c := range d.book.Changeovers {
			if c.Relay.MakeA <= *pin {
				d.changeover = c
			}
		}
	}
	d.plugIn()
	return contact != d.contact.ID || d.kind == coupling.DCDCChangeover && changeover != d.changeover.ID || d.facts.Place.Trailer && plug != d.plugCard.ID
}

// secondMachine is the machine of a run of its own: the pinned one, or the smallest of
// which half puts back what is needed.
func (d *design) secondMachine() alternator.Label {
	rated := parts.MachineRatings[len(parts.MachineRatings)-1]
	for _, a := range parts.MachineRatings {
		if a/2 >= d.needA {
			rated = a
			break
		}
	}
	if pin := d.doc.Pins.SecondA; pin != nil {
		rated = *pin
	}
	label, _ := alternator.ParseLabel(working.Plain(rated, "A", 0)) // a rating always reads
	return label
}

// secondA is what the second machine gives at a speed, hot: its regulator is set to half
// of its label, as charging goes on for hours. Source: common practice, no source.
func (d *design) secondA(rpm float64) float64 {
	return min(alternator.HotFactor*d.second.Output(rpm), d.second.RatedA/2)
}

// pickCharger is the charger that the job has a card of. Without one it is the smallest that
// meets the need within the limit; failing that the largest within the limit; failing that
// the smallest there is.
func (d *design) pickCharger(limitA float64) float64 {
	if own := d.doc.Card.OutputA; own != nil {
		return *own
	}
	best := d.book.Chargers[0].OutputA
	for _, c := range d.book.Chargers {
		if c.OutputA > limitA {
			break
		}
		best = c.OutputA
		if c.OutputA >= d.needA {
			break
		}
	}
	return best
}

// pinOf is what to pin for a charger of outputA: nothing where it is that of the job's own
// card, which is taken unless another is pinned.
func (d *design) pinOf(outputA float64) any {
	if own := d.doc.Card.OutputA; own != nil && *own == outputA {
		return nil
	}
	return outputA
}

// inputA is what a charger, or several side by side, draws at worst.
func (d *design) inputA(c parts.Charger) float64 {
	return coupling.InputCurrent.Value(c.OutputA, d.setV(), c.EfficiencyLow, lowestInputV*d.facts.N)
}

// rateContact starts from what the battery takes: lead limits itself, LiFePO4 takes
// what the circuit drives, up to the alternator's whole output.
func (d *design) rateContact(acceptsA float64) {
	amps := min(acceptsA, d.facts.LabelA.Value)
	if d.kind == coupling.SecondAlternator {
		amps = min(acceptsA, d.second.RatedA/2)
	}
	d.start.amps, d.aux.amps = amps, amps
	d.fitContacts()
}

// auxEmptyV is the aux battery's own voltage when there is charging to do: at
// half charge.
func (d *design) auxEmptyV() float64 { return d.facts.Chemistry.RestV(0.5) * d.facts.N }

// auxOhm is the aux battery's resistance.
func (d *design) auxOhm() float64 { return d.facts.Chemistry.Ohm(d.facts.AuxAh.Value, d.facts.N) }

// startOhm is the start battery's resistance, taken as flooded lead.
// startChemistry is the start battery's.
func (d *design) startChemistry() battery.Chemistry { return d.facts.Survey.StartChemistry }

func (d *design) startOhm() float64 { return d.startChemistry().Ohm(d.facts.StartAh.Value, d.facts.N) }

// machineA is what the alternator gives at a speed, hot.
func (d *design) machineA(rpm float64) float64 {
	return alternator.HotFactor * d.facts.Label.Output(rpm)
}

// headroom is what the alternator has for charging at a speed, hot, lamps on.
func (d *design) headroom(rpm float64, why string) working.Figure {
	return alternator.Headroom.MustWork(working.From(alternator.HotFactor, working.Practice, "80–90 %"),
		working.Is(d.facts.Label.Output(rpm), why), d.facts.LoadA.Input())
}

// conductorArea is the copper that may be trusted of a size, for figures.
func conductorArea(s cable.Size) working.Input {
	return working.From(s.AreaMM2, working.Standard, s.Label)
}
