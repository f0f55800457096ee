package plan

import (
	"epitrope/core/alternator"
	"epitrope/core/battery"
	"epitrope/core/cable"
	"epitrope/core/coupling"
	"epitrope/core/working"
)

// lowestInputV is the input voltage, at 12 V, that a charger's current is sized
// at. Source: common practice, no source; the trade's check figures use it.
const lowestInputV = 12.5

// Need is the charging current that puts back a day's use in a day's driving.
var Need = working.Declare("I_n = Q / (h·η)", "conservation of charge; charge efficiency from memory",
	working.Symbol{Letter: "I_n", Name: "charging current needed", Unit: "A", Digits: 1},
	working.Symbol{Letter: "Q", Name: "used in a day", Unit: "Ah", Digits: 0},
	working.Symbol{Letter: "h", Name: "driven in a day", Unit: "h", Digits: 2},
	working.Symbol{Letter: "η", Name: "charge efficiency", Unit: "", Digits: 2})

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

// rate decides what the coupling gives and draws at its worst.
func (d *design) rate() {
	f := d.facts
	d.needA = d.keep("need", Need.MustWork(f.DailyAh.Input(), f.DrivenHours.Input(),
		working.From(f.Chemistry.Efficiency, working.Memory, f.Chemistry.Label))).Unrounded
	half := d.keep("half", alternator.HalfLabel.MustWork(f.LabelA.Input()))
	accepts := d.keep("accepts", Accepts.MustWork(
		working.From(f.Chemistry.ChargeHigh, working.Memory, f.Chemistry.Label), f.AuxAh.Input()))
	if d.kind == coupling.VSR {
		d.rateRelay(accepts.Unrounded)
		return
	}
	worstCard := d.book.Chargers[0]
	d.limitA = d.keep("allowed", Allowed.MustWork(working.Of(half),
		working.From(worstCard.EfficiencyLow, working.Part, "device card"),
		working.From(lowestInputV*f.N, working.Practice, "sized at"),
		working.From(d.profile.AbsorptionHigh, working.Memory, f.Chemistry.Label+" profile"))).Unrounded
	d.autoChargerA = d.pickCharger(min(d.limitA, accepts.Unrounded))
	wanted := d.autoChargerA
	if pin := d.doc.Pins.ChargerA; pin != nil {
		wanted = *pin
	}
	d.charger, _ = d.book.Charger(wanted) // pins are ratings of the book
	d.start.amps = d.inputA(d.charger.OutputA)
	d.aux.amps = d.charger.OutputA
}

// pickCharger is the smallest charger that meets the need within the limit;
// failing that the largest within the limit; failing that the smallest there is.
func (d *design) pickCharger(limitA float64) float64 {
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

// inputA is what a charger of outputA draws at worst.
func (d *design) inputA(outputA float64) float64 {
	card, _ := d.book.Charger(outputA)
	return coupling.InputCurrent.Value(outputA, d.profile.AbsorptionHigh, card.EfficiencyLow, lowestInputV*d.facts.N)
}

// rateRelay starts from what the battery takes: lead limits itself, LiFePO4 takes
// what the circuit drives, up to the alternator's whole output.
func (d *design) rateRelay(acceptsA float64) {
	amps := min(acceptsA, d.facts.LabelA.Value)
	d.start.amps, d.aux.amps = amps, amps
	d.relay = d.book.Relay(fuseShare * amps)
}

// auxEmptyV is the aux battery's own voltage when there is charging to do: at
// half charge.
func (d *design) auxEmptyV() float64 { return d.facts.Chemistry.RestV(0.5) * d.facts.N }

// auxOhm is the aux battery's resistance.
func (d *design) auxOhm() float64 { return d.facts.Chemistry.Ohm(d.facts.AuxAh.Value, d.facts.N) }

// startOhm is the start battery's resistance, taken as flooded lead.
func (d *design) startOhm() float64 { return battery.Flooded.Ohm(d.facts.StartAh.Value, d.facts.N) }

// machineA is what the alternator gives at a speed, hot.
func (d *design) machineA(rpm float64) float64 {
	return alternator.HotFactor * d.facts.Label.Output(rpm)
}

// idleA is what the alternator has for charging at idle, hot, lamps on.
func (d *design) idleA() float64 {
	return d.headroom("idle", idleRPM, "label by ISO 8854 at 750 engine rpm × 2.75")
}

// cruiseA is the same at cruise.
func (d *design) cruiseA() float64 { return d.headroom("cruise", cruiseRPM, "alternator label") }

func (d *design) headroom(key string, rpm float64, why string) float64 {
	return d.keep(key, alternator.Headroom.MustWork(working.From(alternator.HotFactor, working.Practice, "80–90 %"),
		working.Is(d.facts.Label.Output(rpm), why), d.facts.LoadA.Input())).Unrounded
}

// conductorArea is the copper that may be trusted of a size, for figures.
func conductorArea(s cable.Size) working.Input {
	return working.From(s.AreaMM2, working.Standard, s.Label)
}
