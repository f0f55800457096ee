package judge

import (
	"math"
	"slices"

	"epitrope/core/battery"
	"epitrope/core/circuit"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/protect"
	"epitrope/core/unit"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// extraChecks hold what is fitted besides the coupling against this design.
func extraChecks(d *design.Design) []Check {
	return slices.Concat(isolatorChecks(d), shuntChecks(d), disconnectChecks(d), bondChecks(d), winchChecks(d), managementChecks(d),
		socketChecks(d))
}

func extra(id, column string, level verdict.Level, mark working.Origin, fields []string, args ...any) Check {
	return check("extras", "extra."+id, column, level, mark, fields, args...)
}

func isolatorChecks(d *design.Design) []Check {
	e, fields := d.Facts.Extras, []string{"extras.isolator", "extras.isolatorA", "extras.isolatorFirst"}
	if e.Isolator == job.NoIsolator {
		return nil
	}
	list := []Check{}
	if share := math.Abs(circuit.Had(d.StateBy("joined").Solved.Through("q1"))); share > d.Isolator().CrankA {
		list = append(list, extra("isolator.crank", "q1", verdict.Caution, working.Memory, fields, share, d.Isolator().CrankA))
	}
	if e.Isolator == job.FrontIsolator || !d.Kind.Charger() {
		return append(list, extra("isolator.parts", "q1", verdict.Good, working.Practice, fields))
	}
	switch e.IsolatorFirst {
	case job.Yes:
		list = append(list, extra("isolator.first", "q1", verdict.Good, working.Practice, fields))
	case job.No:
		list = append(list, extra("isolator.dump", "q1", verdict.Caution, working.Practice, fields, d.Charger.OutputA))
	default:
		list = append(list, extra("isolator.open", "q1", verdict.Open, working.Practice, fields))
	}
	return list
}

// ShuntReads is what a shunt shows at a current.
var ShuntReads = working.Declare("U = U_r·I / I_r", "Ohm's law",
	working.Symbol{Letter: "U", Name: "shunt shows", Unit: "mV", Digits: 2},
	working.Symbol{Letter: "U_r", Name: "at its rating", Unit: "mV", Digits: 0},
	working.Symbol{Letter: "I", Name: "current", Unit: "A", Digits: 1},
	working.Symbol{Letter: "I_r", Name: "its rating", Unit: "A", Digits: 0})

func shuntChecks(d *design.Design) []Check {
	e := d.Facts.Extras
	if !e.Monitor {
		return nil
	}
	fields := []string{"extras.shuntA", "extras.shuntMV"}
	fig := ShuntReads.MustWork(e.ShuntMV.Input(), working.Is(d.Aux.Amps, "charging at most"), e.ShuntA.Input())
	list := []Check{extra("shunt.reads", "aux", verdict.Good, working.Physics, fields, fig.Text, d.Aux.Amps).by("shunt", fig)}
	most := math.Max(d.Aux.Amps, math.Abs(circuit.Had(d.StateBy("joined").Solved.Through("contact"))))
	switch {
	case d.Aux.Amps > e.ShuntA.Value*parts.ShuntHours:
		list = append(list, extra("shunt.hours", "aux", verdict.Bad, working.Practice, fields, d.Aux.Amps, e.ShuntA.Value*parts.ShuntHours))
	case most > e.ShuntA.Value:
		list = append(list, extra("shunt.short", "aux", verdict.Caution, working.Practice, fields, most, e.ShuntA.Value))
	}
	all := []string{"extras.shuntAll"}
	switch e.ShuntAll {
	case job.Yes:
		return append(list, extra("shunt.all", "aux", verdict.Good, working.Practice, all))
	case job.No:
		return append(list, extra("shunt.past", "aux", verdict.Caution, working.Physics, all, d.Facts.DailyAh.Value))
	}
	return append(list, extra("shunt.open", "aux", verdict.Open, working.Practice, all))
}

// A disconnect that leaves more than laterBy of the capacity unused opens too soon, one
// that takes earlierBy more than is usable too late. Source: common practice, no source.
const (
	soonerBy = 0.25
	laterBy  = 0.10
)

// opensAt is the charge at which the disconnect's voltage is reached at a current, 0 to 1.
func opensAt(d *design.Design, amps float64) float64 {
	f := d.Facts
	ohm := parts.DisconnectOhm
	if d.FedHouse() {
		ohm = d.House.TotalOhm()
	}
	return battery.LeastCharge(func(soc float64) bool {
		own := f.Chemistry.RestAt(soc, design.WarmC) * f.N
		return own-amps*(f.Chemistry.OhmAt(f.AuxAh.Value, f.N, soc, design.WarmC)+ohm) >= f.Extras.OpensV.Value
	}, 40)
}

// UnderLoad is what stands at a disconnect while the battery gives a current.
var UnderLoad = working.Declare("U = E − I·R", "Ohm's law; rest voltage and resistance from memory",
	working.Symbol{Letter: "U", Name: "at the disconnect", Unit: "V", Digits: 2},
	working.Symbol{Letter: "E", Name: "battery at rest at that charge", Unit: "V", Digits: 2},
	working.Symbol{Letter: "I", Name: "taken", Unit: "A", Digits: 1},
	working.Symbol{Letter: "R", Name: "battery and wires", Unit: "Ω", Digits: 4})

func disconnectChecks(d *design.Design) []Check {
	e, f := d.Facts.Extras, d.Facts
	if !e.Disconnect {
		return nil
	}
	fields := []string{"extras.opensV", "extras.closesV"}
	amps := f.DailyAh.Value / 24
	soc, floor := opensAt(d, amps), 1-f.Chemistry.Usable
	own := f.Chemistry.RestAt(soc, design.WarmC) * f.N
	fig := UnderLoad.MustWork(working.From(own, working.Memory, unit.Say("%s at %.0f %%", f.Chemistry.Label, 100*soc)),
		working.Is(amps, "a day's use, spread"), working.Is((own-e.OpensV.Value)/math.Max(amps, 1e-6), "battery and feed"))
	id, level := "disconnect.right", verdict.Good
	switch {
	case soc > floor+soonerBy:
		id, level = "disconnect.soon", verdict.Caution
	case soc < floor-laterBy:
		id, level = "disconnect.late", verdict.Caution
	}
	list := []Check{extra(id, "aux", level, working.Memory, fields, e.OpensV.Value, 100*soc, 100*floor).by("disconnect", fig)}
	if own >= e.ClosesV.Value {
		list = append(list, extra("disconnect.hunts", "aux", verdict.Bad, working.Physics, fields, own, e.ClosesV.Value))
	}
	rated := []string{"extras.disconnectA", "extras.peakA"}
	switch {
	case e.PeakA == nil || e.DisconnectA == nil:
		list = append(list, extra("disconnect.open", "aux", verdict.Open, working.Practice, rated))
	case *e.PeakA > *e.DisconnectA*parts.ContactFactor(f.AuxBay.AmbientC):
		list = append(list, extra("disconnect.over", "aux", verdict.Bad, working.Practice, rated, *e.PeakA,
			*e.DisconnectA*parts.ContactFactor(f.AuxBay.AmbientC)))
	default:
		list = append(list, extra("disconnect.bears", "aux", verdict.Good, working.Practice, rated, *e.PeakA, *e.DisconnectA))
	}
	if e.PeakA != nil {
		if at := opensAt(d, *e.PeakA); at > floor+soonerBy && soc <= floor+soonerBy {
			list = append(list, extra("disconnect.peak", "aux", verdict.Caution, working.Physics, rated, *e.PeakA, 100*at))
		}
	}
	switch e.Cuts {
	case "battery":
		list = append(list, extra("disconnect.all", "aux", verdict.Bad, working.Practice, []string{"extras.cuts"}))
	case "":
		list = append(list, extra("disconnect.cuts.open", "aux", verdict.Open, working.Practice, []string{"extras.cuts"}))
	}
	return list
}

func bondChecks(d *design.Design) []Check {
	if !d.Facts.Extras.Bond {
		return nil
	}
	fields := []string{"extras.bondSize", "extras.bondM"}
	if !d.Back.ByChassis {
		return []Check{extra("bond.idle", "return", verdict.Good, working.Practice, fields)}
	}
	l, size := d.ReturnLeg(), d.BondSize()
	bears := d.BondBearsA()
	fault := d.Facts.Insulation.Faulted(size, l.Bay, l.Bay.AmbientC)
	short := l.Fuse.Covers(l.NearFault, protect.FaultCurrent.Value(l.SourceV, l.SourceOhm, l.FaultOhm(l.Fuse, l.Trial)), fault)
	switch {
	case l.Amps > bears:
		return []Check{extra("bond.thin", "return", verdict.Bad, working.Standard, fields, size.Copper(), bears, l.Amps)}
	case l.Fuse.RatingA > bears || !short.Saves:
		return []Check{extra("bond.fuse", "return", verdict.Bad, working.Standard, fields, size.Copper(), bears, l.Fuse.Label())}
	}
	return []Check{extra("bond.carries", "return", verdict.Good, working.Standard, fields, size.Copper(), l.Amps, bears, 1000*d.BondOhm())}
}
