package design

import (
	"math"

	"epitrope/core/cable"
	"epitrope/core/parts"
	"epitrope/core/protect"
	"epitrope/core/run"
)

// The wire of a signal. Source: common practice, no source.
const (
	signalMM2   = 1.3 // 16 AWG; 1.5 mm² where cable is named by that
	triggerBayC = 40  // behind a dashboard
)

// WayBack is the return of the start side.
type WayBack struct {
	ByCable    bool // all the way
	ByChassis  bool // by the steel; both may be
	pinned     bool
	ChassisM   float64
	chassisOhm float64 // steel and its two earth joints; the cable beside it counted
	CableM     float64 // return cable that is part of the start loop
	AlongM     float64 // cable beside the steel
}

// layOut says which cable, contact and steel is in series in which leg.
func (d *Design) layOut() {
	f, p := d.Facts, d.Doc.Pins
	studOhm := 0.0
	switch {
	case d.FromStud():
		studOhm = d.OutletOhm()
	case f.Schools.Takeoff == "stud":
		studOhm = run.LeadOhm // the vehicle's own lead from the post to its stud
	}
	d.Start = run.Sized{Ask: run.Ask{ID: "c1", FuseID: "f1", Amps: d.Start.Amps, LengthM: f.StartM, Bay: f.StartBay, BackBay: d.backBay(),
		SourceV: f.RegulatedV.Value, SourceOhm: d.sourceOhm(), Device: d.device(), SizePin: p.StartSize, FusePin: p.StartFuseA}}
	if d.Kind.Charger() {
		d.Start.SheetA = d.Charger.MaxFuseA
	}
	d.Aux = run.Sized{Ask: run.Ask{ID: "c2", FuseID: "f2", Amps: d.Aux.Amps, LengthM: f.AuxM, Bay: f.AuxBay, BackBay: d.auxBackBay(),
		SourceV: f.Chemistry.RestV(1) * f.AuxN, SourceOhm: d.AuxOhm(), Device: d.device(), SizePin: p.AuxSize, FusePin: p.AuxFuseA}}
	d.Start.Measured, d.Aux.Measured = f.Survey.StartMeasured && !d.Is.OwnMachine, f.Survey.AuxMeasured
	d.Back = d.wayBack()

	d.unfused()
	for _, l := range []*run.Sized{&d.Start, &d.Aux} {
		if l.JointsOhm = run.FuseJoints * run.JointOhm; l.Unfused {
			l.JointsOhm /= 2
		}
	}
	steel := 2*run.JointOhm + d.Back.chassisOhm
	d.Start.JointsOhm += studOhm
	d.addExtras()
	d.addLinks()
	d.addAhead()
	d.Start.School, d.Aux.School = f.Schools.Fuse, f.Schools.Fuse
	d.plugIn()
	d.layBack(steel)
	d.byFrame()
}

// layBack counts the way back in the leg that it belongs to.
func (d *Design) layBack(steelOhm float64) {
	if !d.Kind.Charger() {
		// The return of the whole run is the aux battery's own.
		d.Start.ContactOhm = d.Contact.ContactOhm
		d.Aux.SteelOhm = steelOhm
		d.Aux.ReturnM = d.Back.CableM
		return
	}
	if d.Is.Beside == RestContact {
		d.Start.ContactOhm = d.Changeover.ContactOhm
	}
	d.Start.SteelOhm = steelOhm
	d.Start.ReturnM = d.Back.CableM
	d.Aux.SteelOhm = 2 * run.JointOhm
	d.Aux.ReturnM = d.Facts.AuxM.Value // aux minus to the common negative at the charger
	if own := d.Facts.Ways.AuxBackM; own != nil {
		d.Aux.ReturnM = *own
	}
}

// plugOf is the trailer plug for a run: the pinned one, or the smallest that bears its
// current and takes its cable.
func (d *Design) plugOf(l *run.Sized) parts.Plug {
	if pin := d.Doc.Pins.PlugA; pin != nil {
		return d.Book.Plug(*pin, 0)
	}
	return d.Book.Plug(l.Amps, l.Trial.Size.CopperMM2())
}

// plugIn puts the plug into the run that crosses it.
func (d *Design) plugIn() {
	for _, l := range []*run.Sized{&d.Start, &d.Aux} {
		if d.Crosses(l) {
			d.PlugCard = d.plugOf(l)
			l.PlugOhm = 2 * d.PlugCard.Ohm
		}
	}
}

// sourceOhm is the resistance behind the run's beginning: the start battery's, or, of a
// machine of its own, what limits its short-circuit current to about one and a half times
// its label (from memory).
func (d *Design) sourceOhm() float64 {
	if d.Is.OwnMachine {
		return d.Facts.RegulatedV.Value / (1.5 * d.Second.RatedA)
	}
	return d.StartOhm()
}

// wayBack decides between chassis and cable: a return must not cross a tow
// coupling through the steel.
func (d *Design) wayBack() WayBack {
	f := d.Facts
	w := WayBack{ByCable: d.BackCrosses() || d.NoSteel(), ChassisM: math.Abs(f.Place.At.X - f.Body.Start.X)}
	if d.Kind.Charger() && d.AtStart() {
		w.ChassisM = math.Abs(d.CouplingAt().X - f.Body.Start.X)
	}
	if pin := d.Doc.Pins.Return; pin != nil {
		w.ByCable, w.pinned = *pin != "chassis", true
		w.ByChassis = *pin != "cable"
	} else {
		w.ByChassis = !w.ByCable
	}
	w.AlongM = f.StartM.Value
	if !d.Kind.Charger() {
		w.AlongM += f.AuxM.Value
	}
	if own := f.Ways.ReturnM; own != nil {
		w.AlongM = *own
	}
	if !w.ByChassis {
		w.chassisOhm = run.EarthOhm // onto the chassis side of the start battery
		w.CableM = w.AlongM
		return w
	}
	w.chassisOhm = d.sizedFor("chassis", countedSteel(w.ChassisM)) + d.BondOhm()
	if f.Ways.OnBody && !f.Extras.Bond {
		w.chassisOhm += d.sizedFor("body", bodyOhm)
	}
	w.CableM = f.EarthM.Value
	if w.ByCable {
		// The cable beside the steel takes its share: both ways count as one.
		beside := run.EarthOhm + w.AlongM*besideOhmPer
		w.chassisOhm = w.chassisOhm * beside / (w.chassisOhm + beside)
	}
	return w
}

// backBay is where the return cable of the start run lies, where that is a place of its own; the
// whole run's return is the aux run's without a charger.
func (d *Design) backBay() *cable.Bay {
	if d.Kind.Charger() {
		return d.Facts.Ways.ReturnBay
	}
	return nil
}

func (d *Design) auxBackBay() *cable.Bay {
	if d.Kind.Charger() {
		return nil
	}
	return d.Facts.Ways.ReturnBay
}

// SteelOhm is the chassis between the two earth points with their joints: as measured end to end,
// or by its length.
func (d *Design) SteelOhm(lengthM float64) float64 {
	if ohm, ok := d.Doc.Joints["chassis"].Ohm(); ok {
		return math.Max(ohm, leastPathOhm)
	}
	return countedSteel(lengthM)
}

// countedSteel is a chassis of that length with its two earth joints, where nobody measured it.
func countedSteel(lengthM float64) float64 { return 2*run.EarthOhm + run.ChassisOhmPer*lengthM }

// Poor says whether a way measures so much more than what is counted that it is mended, and not made
// up for by thicker cable. Source: common practice, no source.
func Poor(ohm, counted float64) bool { return ohm > 2*counted+0.0005 }

// sizedFor is what runs are sized for: a way as it was measured, or, where it is poor, as it will be
// once it is mended.
func (d *Design) sizedFor(row string, counted float64) float64 {
	if ohm, ok := d.Doc.Joints[row].Ohm(); ok && !Poor(ohm, counted) {
		return ohm
	}
	return counted
}

// leastPathOhm stands for a way that was measured at nothing.
const leastPathOhm = 1e-6

// ByBody says whether the return goes through a tray, canopy or body without a bonding lead.
func (d *Design) ByBody() bool {
	return d.Back.ByChassis && d.Facts.Ways.OnBody && !d.Facts.Extras.Bond
}

// bodyOhm is a tray, canopy or body with its own joints to the chassis, where nobody measured it.
// Source: from memory: its bolts and paint; two clean joints have less, rubber mounts far more.
const bodyOhm = 0.002

// BodyOhm is the piece of the return through a tray, canopy or body; 0 where it is none.
func (d *Design) BodyOhm() float64 {
	if !d.Facts.Ways.OnBody || d.Facts.Extras.Bond {
		return 0
	}
	if ohm, ok := d.Doc.Joints["body"].Ohm(); ok {
		return math.Max(ohm, leastPathOhm)
	}
	return bodyOhm
}

// sizeLegs shares out the allowed drop and sizes both legs.
func (d *Design) sizeLegs() {
	volts, auxVolts := 12*d.Facts.N, 12*d.Facts.AuxN
	charger, batt := d.Facts.ChargerDrop.Value/100*volts, d.Facts.BatteryDrop.Value/100*auxVolts
	if d.Kind.Charger() {
		d.Start.BudgetV, d.Aux.BudgetV = charger, batt
	} else {
		// One limit for the whole run, held at what the battery takes for hours: the steel's share comes off
		// first, and the copper shares the rest by length. Steel that loses more than half of it is a matter
		// of its joints: no copper makes up for that.
		d.Start.HeldA, d.Aux.HeldA = d.takesA(), d.takesA()
		copper := batt - min(d.Aux.DropA()*d.Aux.SteelOhm, batt/2)
		m1, m2 := d.Start.CableM(), d.Aux.CableM()
		d.Start.BudgetV = copper * m1 / (m1 + m2)
		if d.Is.Senses { // what it senses has to be true, whatever the run may lose
			d.Start.BudgetV = min(d.Start.BudgetV, max(d.Start.BudgetV/4, 0.95*SensesWithinV*d.Facts.N-d.Start.DropA()*d.beforeOhm()))
		}
		d.Aux.BudgetV = copper - d.Start.BudgetV + d.Aux.DropA()*d.Aux.SteelOhm
		if d.Is.Splits { // each battery's own way
			d.Start.BudgetV, d.Aux.BudgetV = batt, batt
		}
	}
	shelf := shelfOf(d)
	d.Start = run.Size(d.Start.Ask, shelf, d.Facts.StartInsulation, volts)
	d.Aux = run.Size(d.Aux.Ask, shelf, d.Facts.AuxInsulation, auxVolts)
}

// SensesWithinV is how much less than the start battery has a sensing relay may see, at 12 V, as it charges.
// Source: common practice, no source: about what two metres of its cable cost.
const SensesWithinV = 0.2

// beforeOhm is what lies between the start battery and a sensing relay besides cable: joints and the fuse, as
// it was last chosen.
func (d *Design) beforeOhm() float64 {
	fuse := 0.0
	if d.Start.Fuse.RatingA > 0 {
		fuse = d.Start.FuseOhm()
	}
	return d.Start.JointsOhm + fuse
}

// takesA is what the aux battery takes for hours: what a join drives into a flat one lasts for minutes, and
// no drop is held to its limit at that. 0 where the run is sized for something else.
func (d *Design) takesA() float64 {
	if d.Is.OwnMachine {
		return 0
	}
	return d.Rates.Accepts.Unrounded
}

// RunLoses is what a run without a charger loses as a whole, of what it may; ok is false where each half
// has a limit of its own.
func (d *Design) RunLoses() (loses, may float64, ok bool) {
	if d.Kind.Charger() || d.Is.Splits {
		return 0, 0, false
	}
	return d.Start.HeldV() + d.Aux.HeldV(), d.Facts.BatteryDrop.Value / 100 * 12 * d.Facts.N, true
}

// NoSteel says whether the frame is no return: aluminium and composite are not (common
// practice, no source).
func (d *Design) NoSteel() bool {
	return d.Facts.Survey.Frame == "aluminium" || d.Facts.Survey.Frame == "composite"
}

// besideOhmPer is a return cable beside the steel while its size is not settled: 16 mm²
// of class 5, warm. Source: IEC 60228.
const besideOhmPer = 0.00121 * 1.2

// device is what protects the runs: fuses, unless a breaker is pinned.
func (d *Design) device() protect.Device {
	if pin := d.Doc.Pins.Device; pin != nil {
		return protect.DeviceByID(*pin)
	}
	return protect.Devices[0]
}
