package plan

import (
	"fmt"
	"math"
	"slices"

	"epitrope/core/cable"
	"epitrope/core/coupling"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/protect"
	"epitrope/core/working"
)

// extraChecks hold what is fitted besides the coupling against this design.
func (d *design) extraChecks() []Check {
	return slices.Concat(d.isolatorChecks(), d.shuntChecks(), d.disconnectChecks(), d.bondChecks(), d.winchChecks(), d.managementChecks(), d.socketChecks())
}

func (d *design) extra(id, column string, level Level, mark working.Origin, fields []string, args ...any) Check {
	return d.check("extras", "extra."+id, column, level, mark, fields, args...)
}

func (d *design) isolatorChecks() []Check {
	e, fields := d.facts.Extras, []string{"extras.isolator", "extras.isolatorA", "extras.isolatorFirst"}
	if e.Isolator == job.NoIsolator {
		return nil
	}
	list := []Check{}
	if share := math.Abs(had(d.stateBy("joined").solved.Through("q1"))); share > d.isolator().CrankA {
		list = append(list, d.extra("isolator.crank", "q1", Caution, working.Memory, fields, share, d.isolator().CrankA))
	}
	if e.Isolator == job.FrontIsolator || !d.kind.Charger() {
		return append(list, d.extra("isolator.parts", "q1", Good, working.Practice, fields))
	}
	switch e.IsolatorFirst {
	case job.Yes:
		list = append(list, d.extra("isolator.first", "q1", Good, working.Practice, fields))
	case job.No:
		list = append(list, d.extra("isolator.dump", "q1", Caution, working.Practice, fields, d.charger.OutputA))
	default:
		list = append(list, d.extra("isolator.open", "q1", open, working.Practice, fields))
	}
	return list
}

// ShuntReads is what a shunt shows at a current.
var ShuntReads = working.Declare("U = U_r·I / I_r", "Ohm's law",
	working.Symbol{Letter: "U", Name: "shunt shows", Unit: "mV", Digits: 2},
	working.Symbol{Letter: "U_r", Name: "at its rating", Unit: "mV", Digits: 0},
	working.Symbol{Letter: "I", Name: "current", Unit: "A", Digits: 1},
	working.Symbol{Letter: "I_r", Name: "its rating", Unit: "A", Digits: 0})

func (d *design) shuntChecks() []Check {
	e := d.facts.Extras
	if !e.Monitor {
		return nil
	}
	fields := []string{"extras.shuntA", "extras.shuntMV"}
	fig := ShuntReads.MustWork(e.ShuntMV.Input(), working.Is(d.aux.amps, "charging at most"), e.ShuntA.Input())
	list := []Check{d.extra("shunt.reads", "aux", Good, working.Physics, fields, fig.Text, d.aux.amps).by("shunt", fig)}
	most := math.Max(d.aux.amps, math.Abs(had(d.stateBy("joined").solved.Through("contact"))))
	switch {
	case d.aux.amps > e.ShuntA.Value*parts.ShuntHours:
		list = append(list, d.extra("shunt.hours", "aux", Bad, working.Practice, fields, d.aux.amps, e.ShuntA.Value*parts.ShuntHours))
	case most > e.ShuntA.Value:
		list = append(list, d.extra("shunt.short", "aux", Caution, working.Practice, fields, most, e.ShuntA.Value))
	}
	all := []string{"extras.shuntAll"}
	switch e.ShuntAll {
	case job.Yes:
		return append(list, d.extra("shunt.all", "aux", Good, working.Practice, all))
	case job.No:
		return append(list, d.extra("shunt.past", "aux", Caution, working.Physics, all, d.facts.DailyAh.Value))
	}
	return append(list, d.extra("shunt.open", "aux", open, working.Practice, all))
}

// A disconnect that leaves more than laterBy of the capacity unused opens too soon, one
// that takes earlierBy more than is usable too late. Source: common practice, no source.
const (
	soonerBy = 0.25
	laterBy  = 0.10
)

// opensAt is the charge at which the disconnect's voltage is reached at a current, 0 to 1.
func (d *design) opensAt(amps float64) float64 {
	f := d.facts
	ohm := parts.DisconnectOhm
	if d.fedHouse() {
		ohm = d.house.totalOhm()
	}
	return lowest(func(soc float64) bool {
		own := f.Chemistry.RestAt(soc, warmC) * f.N
		return own-amps*(f.Chemistry.OhmAt(f.AuxAh.Value, f.N, soc, warmC)+ohm) >= f.Extras.OpensV.Value
	}, 40)
}

// UnderLoad is what stands at a disconnect while the battery gives a current.
var UnderLoad = working.Declare("U = E − I·R", "Ohm's law; rest voltage and resistance from memory",
	working.Symbol{Letter: "U", Name: "at the disconnect", Unit: "V", Digits: 2},
	working.Symbol{Letter: "E", Name: "battery at rest at that charge", Unit: "V", Digits: 2},
	working.Symbol{Letter: "I", Name: "taken", Unit: "A", Digits: 1},
	working.Symbol{Letter: "R", Name: "battery and wires", Unit: "Ω", Digits: 4})

func (d *design) disconnectChecks() []Check {
	e, f := d.facts.Extras, d.facts
	if !e.Disconnect {
		return nil
	}
	fields := []string{"extras.opensV", "extras.closesV"}
	amps := f.DailyAh.Value / 24
	soc, floor := d.opensAt(amps), 1-f.Chemistry.Usable
	own := f.Chemistry.RestAt(soc, warmC) * f.N
	fig := UnderLoad.MustWork(working.From(own, working.Memory, fmt.Sprintf("%s at %.0f %%", f.Chemistry.Label, 100*soc)),
		working.Is(amps, "a day's use, spread"), working.Is((own-e.OpensV.Value)/math.Max(amps, 1e-6), "battery and feed"))
	id, level := "disconnect.right", Good
	switch {
	case soc > floor+soonerBy:
		id, level = "disconnect.soon", Caution
	case soc < floor-laterBy:
		id, level = "disconnect.late", Caution
	}
	list := []Check{d.extra(id, "aux", level, working.Memory, fields, e.OpensV.Value, 100*soc, 100*floor).by("disconnect", fig)}
	if own >= e.ClosesV.Value {
		list = append(list, d.extra("disconnect.hunts", "aux", Bad, working.Physics, fields, own, e.ClosesV.Value))
	}
	rated := []string{"extras.disconnectA", "extras.peakA"}
	switch {
	case e.PeakA == nil || e.DisconnectA == nil:
		list = append(list, d.extra("disconnect.open", "aux", open, working.Practice, rated))
	case *e.PeakA > *e.DisconnectA*parts.ContactFactor(f.AuxBay.AmbientC):
		list = append(list, d.extra("disconnect.over", "aux", Bad, working.Practice, rated, *e.PeakA, *e.DisconnectA*parts.ContactFactor(f.AuxBay.AmbientC)))
	default:
		list = append(list, d.extra("disconnect.bears", "aux", Good, working.Practice, rated, *e.PeakA, *e.DisconnectA))
	}
	if e.PeakA != nil {
		if at := d.opensAt(*e.PeakA); at > floor+soonerBy && soc <= floor+soonerBy {
			list = append(list, d.extra("disconnect.peak", "aux", Caution, working.Physics, rated, *e.PeakA, 100*at))
		}
	}
	switch e.Cuts {
	case "battery":
		list = append(list, d.extra("disconnect.all", "aux", Bad, working.Practice, []string{"extras.cuts"}))
	case "":
		list = append(list, d.extra("disconnect.cuts.open", "aux", open, working.Practice, []string{"extras.cuts"}))
	}
	return list
}

func (d *design) bondChecks() []Check {
	if !d.facts.Extras.Bond {
		return nil
	}
	fields := []string{"extras.bondSize", "extras.bondM"}
	if !d.back.byChassis {
		return []Check{d.extra("bond.idle", "return", Good, working.Practice, fields)}
	}
	l, size := d.returnLeg(), d.bondSize()
	bears := d.bondBearsA()
	fault := d.facts.Insulation.Faulted(size, l.bay, l.bay.AmbientC)
	short := l.fuse.Covers(l.nearFault, protect.FaultCurrent.Value(l.sourceV, l.sourceOhm, l.faultOhm(l.fuse, l.trial)), fault)
	switch {
	case l.amps > bears:
		return []Check{d.extra("bond.thin", "return", Bad, working.Standard, fields, size.Copper(), bears, l.amps)}
	case l.fuse.RatingA > bears || !short.Saves:
		return []Check{d.extra("bond.fuse", "return", Bad, working.Standard, fields, size.Copper(), bears, l.fuse.Label())}
	}
	return []Check{d.extra("bond.carries", "return", Good, working.Standard, fields, size.Copper(), l.amps, bears, 1000*d.bondOhm())}
}

// winchLeastV is what a winch's contactor, and the vehicle beside it, want at least, at
// 12 V. Source: from memory.
const winchLeastV = 10.0

func (d *design) winchChecks() []Check {
	e, n := d.facts.Extras, d.facts.N
	if !e.Winch {
		return nil
	}
	fields := []string{"extras.winchA", "extras.winchFrom", "extras.winchMin"}
	s := d.stateBy("winch")
	if s.err != nil {
		return []Check{d.extra("winch.fails", "start", Bad, working.Physics, fields, s.err.Error())}
	}
	pulls := had(s.solved.Through("winch"))
	list := []Check{}
	if e.WinchFrom == job.WinchAtJoined && !d.canJoin() {
		list = append(list, d.extra("winch.apart", "coupling", Caution, working.Practice, fields, d.kind.Label()))
	}
	if s.Joined {
		share := math.Abs(had(s.solved.Through("contact")))
		switch {
		case d.mayOpen(share, 60*e.WinchMin.Value):
			fuse, after := d.soonest(share)
			list = append(list, d.extra("winch.fuse", "coupling", Bad, working.Physics, fields, share, fuse, working.Seconds(after)))
		case share > d.joinBearsA():
			list = append(list, d.extra("winch.contact", "coupling", Bad, working.Practice, fields, share, d.joinBearsA()))
		default:
			list = append(list, d.extra("winch.join", "coupling", Good, working.Physics, fields, share))
		}
	}
	if volts := pulls * d.winchOhm(); volts < winchLeastV*n {
		list = append(list, d.extra("winch.volts", "start", Caution, working.Memory, fields, volts, winchLeastV*n))
	}
	from, gives := "start", had(s.solved.Through("start battery"))
	if e.WinchFrom == job.WinchAtAux {
		from, gives = "aux", had(s.solved.Through("aux battery"))
	}
	return append(list, d.extra("winch.takes", from, Good, working.Physics, fields, pulls, e.WinchMin.Value, math.Max(0, gives)*e.WinchMin.Value/60, from))
}

// joinBearsA is what the contact that joins the batteries bears for minutes where it sits.
func (d *design) joinBearsA() float64 {
	rating := d.contact.ContinuousA
	if d.kind == coupling.DCDCChangeover {
		rating = d.changeover.Relay.MakeA
	}
	return rating * parts.ContactFactor(d.start.bay.AmbientC)
}

func (d *design) managementChecks() []Check {
	e, f := d.facts.Extras, d.facts
	if f.Chemistry.Lead {
		return nil
	}
	fields := []string{"extras.managementA"}
	list := []Check{}
	if e.ManagementA == nil {
		list = append(list, d.extra("management.open", "aux", open, working.Practice, fields))
	} else {
		most, what := d.aux.amps, "charging"
		if share := math.Abs(had(d.stateBy("joined").solved.Through("contact"))); share > most {
			most, what = share, "cranking through the join"
		}
		if s := d.stateBy("winch"); e.WinchFrom == job.WinchAtAux && s.solved.Volts != nil && had(s.solved.Through("aux battery")) > most {
			most, what = had(s.solved.Through("aux battery")), "the winch"
		}
		if e.PeakA != nil && *e.PeakA > most {
			most, what = *e.PeakA, "all loads at once"
		}
		id, level := "management.bears", Good
		if most > *e.ManagementA {
			id, level = "management.over", Bad
		}
		list = append(list, d.extra(id, "aux", level, working.Practice, fields, *e.ManagementA, what, most))
	}
	if str(f.Set.Disable) != string(job.Yes) {
		return list
	}
	takes, what := triggerA, "the charger's input"
	if d.kind.Coil() {
		takes, what = d.contact.CoilA, "the coil"
	}
	id, level := "output.bears", Good
	if takes > e.OutputA.Value {
		id, level = "output.over", Bad
	}
	return append(list, d.extra(id, "coupling", level, working.Practice, []string{"extras.outputA", "profile.disable"}, e.OutputA.Value, what, takes))
}

// SocketDrop is what a load by the 13-pin socket loses on the way, out and back.
var SocketDrop = working.Declare("ΔU = I·(2·L·R_m + 2·R_c)", "Ohm's law; 2.5 mm² of IEC 60228 class 5; contacts from memory",
	working.Symbol{Letter: "ΔU", Name: "lost on the way", Unit: "V", Digits: 2},
	working.Symbol{Letter: "I", Name: "load", Unit: "A", Digits: 1},
	working.Symbol{Letter: "L", Name: "one way", Unit: "m", Digits: 1},
	working.Symbol{Letter: "R_m", Name: "of each metre", Unit: "Ω/m", Digits: 5},
	working.Symbol{Letter: "R_c", Name: "of each contact", Unit: "Ω", Digits: 4})

// A load may lose loadDrop % on its way, a lamp lampDrop. Source: common practice, no
// source.
const (
	loadDrop = 3.0
	lampDrop = 10.0
)

func (d *design) socketChecks() []Check {
	e, f := d.facts.Extras, d.facts
	if e.SocketA.Value == 0 {
		return nil
	}
	fields := []string{"extras.socketA", "extras.socketM"}
	list := []Check{}
	if e.SocketA.Value > parts.SocketA {
		list = append(list, d.extra("socket.over", "x1", Bad, working.Memory, fields, e.SocketA.Value, parts.SocketA))
	}
	fig := SocketDrop.MustWork(e.SocketA.Input(), e.SocketM.Input(),
		working.From(cable.Square(parts.SocketMM2).OhmPerM(), working.Standard, "IEC 60228"), working.From(parts.SocketOhm, working.Memory, "mated contact"))
	share, id, level := 100*fig.Unrounded/(12*f.N), "socket.drop", Good
	switch {
	case share > lampDrop:
		level = Bad
	case share > loadDrop:
		level = Caution
	}
	list = append(list, d.extra(id, "x1", level, working.Physics, fields, fig.Text, share, loadDrop).by("socket", fig))
	if e.SocketContact == job.PermanentContact {
		span := spanOf(HoursToHalf.Value(f.StartAh.Value, shareToHalf, e.SocketA.Value))
		list = append(list, d.extra("socket.permanent", "start", Caution, working.Physics, []string{"extras.socketContact"}, e.SocketA.Value, span))
	} else {
		list = append(list, d.extra("socket.switched", "x1", Good, working.Practice, []string{"extras.socketContact"}))
	}
	if e.SocketReturn == job.LampReturn {
		list = append(list, d.extra("socket.lamps", "x1", Bad, working.Practice, []string{"extras.socketReturn"}))
	}
	return list
}
