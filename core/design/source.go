package design

import (
	"epitrope/core/alternator"
	"epitrope/core/job"
	"epitrope/core/run"
	"epitrope/core/system"
	"epitrope/core/unit"
	"epitrope/core/working"
)

// FromSecond says whether a charger's run begins at an alternator of its own: nothing of the
// vehicle's charging is touched.
func (d *Design) FromSecond() bool {
	return d.Facts.Arranged.From == job.FromSecond && d.Kind.Charger() && d.Is.Beside == NoRelay
}

// rateSecond rates the job by the alternator that its charger has for itself: nothing else hangs on it.
func (d *Design) rateSecond() {
	f, r := d.Facts, &d.Rates
	d.Second = d.machineFor(d.NeedA * d.SetV() / (d.Book.Chargers[0].EfficiencyLow * lowestInputV * f.N))
	alone := working.Is(0, "nothing else hangs on it")
	head := func(rpm float64) working.Figure {
		return alternator.Headroom.MustWork(working.From(alternator.HotFactor, working.Practice, "80–90 %"),
			working.Is(d.Second.Output(rpm), "second alternator's label"), alone)
	}
	r.Idle, r.Cruise = head(f.IdleTurns()).Named(leftAtIdle), head(CruiseRPM).Named(leftAtCruise)
	d.IdleA, d.CruiseA = min(r.Idle.Unrounded, SecondShare*d.Second.RatedA), min(r.Cruise.Unrounded, SecondShare*d.Second.RatedA)
	r.Half = alternator.HalfLabel.MustWork(working.Is(d.Second.RatedA, "second alternator's label"))
	d.LimitA = d.allowed()
}

// Isolates says whether an isolator that is worked by hand stands between an alternator of the
// run's own and the aux battery, and no charger.
func (d *Design) Isolates() bool { return d.Is.OwnMachine && !d.Kind.Charger() }

// FromStud says whether the run begins at a body-builder's stud.
func (d *Design) FromStud() bool {
	return d.Facts.Arranged.From == job.FromStud && !d.Is.OwnMachine && !d.Is.Splits
}

// outletOhm is what a body-builder's own fuses and joints put between the start battery and a stud of his,
// besides the cable. Source: from memory: two fuses of its size, four joints.
const outletOhm = 0.002

// OutletOhm is a stud with the vehicle's own lead to it.
func (d *Design) OutletOhm() float64 { return outletOhm + run.LeadOhm }

// outlet is the stud that the run begins at.
func (d *Design) outlet() system.Component {
	a := d.Facts.Arranged
	device, rating := system.Outlet{Ohm: outletOhm, Running: a.FromLive == job.LiveRunning}, "body-builder's"
	if a.FromA != nil {
		device.MaxA, rating = *a.FromA, "body-builder's, "+unit.Plain(*a.FromA, "A", 1)
	}
	return system.Component{ID: "o1", Kind: system.KindOutlet, Name: "Stud", Rating: rating, Existing: true, At: d.Facts.Body.Start,
		Device: device}
}

// outletLead is the vehicle's own cable to it.
func (d *Design) outletLead() {
	if !d.FromStud() {
		return
	}
	d.System.Join(system.Wire{ID: "o1a", Run: "lead", Beside: "o1", Role: system.Feed, Name: "the stud's own lead", From: d.source(),
		To: term("o1", "in"), LengthM: 1, Ohm: run.LeadOhm, Existing: true})
}

// takenFrom is the terminal that the run's own cable begins at.
func (d *Design) takenFrom() system.Terminal {
	if d.FromStud() {
		return term("o1", "out")
	}
	return d.source()
}

// MachineName is what feeds the vehicle's side.
func (d *Design) MachineName() string {
	if d.Facts.Label.Converter {
		return "Converter"
	}
	return "Alternator"
}

// SourceName is what the run begins at.
func (d *Design) SourceName() string {
	if d.Is.OwnMachine {
		return "second alternator"
	}
	return "start battery"
}
