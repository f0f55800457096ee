package plan

import (
	"errors"
	"math"

	"epitrope/core/cable"
	"epitrope/core/coupling"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/protect"
)

// Joints and steel. Source: common practice, no source: a good crimp and bolted
// joint 0.1–0.5 mΩ, a connector contact 0.2–1 mΩ; the chassis as steel of about
// 700 mm² at eight times the resistivity of copper; the existing lead from the
// alternator as a metre of heavy cable with its joints.
const (
	fuseJoints    = 4 // the post, both sides of the fuse, the coupling
	jointOhm      = 0.0003
	earthOhm      = 0.0004
	chassisOhmPer = 8 / (cable.Kappa * 700)
	leadOhm       = 0.001
	bareM         = 0.15 // from a battery's post to its fuse
	widest        = 10   // % of drop beyond which no limit is widened
)

// The wire of a signal. Source: common practice, no source.
const (
	triggerA    = 0.5 // what a trigger input draws at most
	triggerMM2  = 1.5
	triggerBayC = 40 // behind a dashboard
)

// stretch is one stretch of the run as it is asked for: what it carries, how far, past what.
type stretch struct {
	id, fuseID string
	amps       float64 // worst continuous current
	lengthM    job.Num // one way
	returnM    float64 // return cable of the same size in this leg
	steelOhm   float64 // chassis and earth joints of the return: counted in the drop
	jointsOhm  float64 // lugs and fuse holder: shown at those parts
	plugOhm    float64 // a trailer plug, both contacts
	contactOhm float64 // a relay's contact at the end of the leg
	budgetV    float64
	bay        cable.Bay
	sourceV    float64 // of the battery that feeds a fault
	sourceOhm  float64
	device     protect.Device
	school     string  // how its fuse is chosen
	sheetA     float64 // the largest fuse that the device's sheet allows; 0 where it says nothing
	passA      float64 // what its fuse has to let through while the engine is cranked
	sizePin    *string
	fusePin    *float64
}

// leg is such a stretch with a cable of its own and a fuse at its source end.
type leg struct {
	stretch

	loop      cable.Loop
	trial     cable.Trial
	test      cable.Test
	auto      cable.Size
	autoTest  cable.Test
	widened   bool // no cable keeps the limit; the limit was widened to size it
	noCable   error
	fuse      protect.Fuse
	autoFuse  protect.Fuse
	noFuse    error
	cover     protect.Cover
	faulted   cable.Fault
	nearFault float64
}

// way is the return of the start side.
type way struct {
	byCable    bool // all the way
	byChassis  bool // by the steel; both may be
	pinned     bool
	chassisM   float64
	chassisOhm float64 // steel and its two earth joints; the cable beside it counted
	cableM     float64 // return cable that is part of the start loop
	alongM     float64 // cable beside the steel
}

// layOut says which cable, contact and steel is in series in which leg.
func (d *design) layOut() {
	f, p := d.facts, d.doc.Pins
	studOhm := 0.0
	if f.Schools.Takeoff == "stud" {
		studOhm = leadOhm // the vehicle's own lead from the post to its stud
	}
	d.start = leg{stretch: stretch{id: "c1", fuseID: "f1", amps: d.start.amps, lengthM: f.StartM, bay: f.StartBay,
		sourceV: f.RegulatedV.Value, sourceOhm: d.sourceOhm(), device: d.device(), sizePin: p.StartSize, fusePin: p.StartFuseA}}
	if d.kind.Charger() {
		d.start.sheetA = d.charger.MaxFuseA
	}
	d.aux = leg{stretch: stretch{id: "c2", fuseID: "f2", amps: d.aux.amps, lengthM: f.AuxM, bay: f.AuxBay,
		sourceV: f.Chemistry.RestV(1) * f.N, sourceOhm: d.auxOhm(), device: d.device(), sizePin: p.AuxSize, fusePin: p.AuxFuseA}}
	d.back = d.wayBack()

	d.start.jointsOhm, d.aux.jointsOhm = fuseJoints*jointOhm, fuseJoints*jointOhm
	steel := 2*jointOhm + d.back.chassisOhm
	d.start.jointsOhm += studOhm
	d.addExtras()
	d.addLinks()
	d.start.school, d.aux.school = f.Schools.Fuse, f.Schools.Fuse
	d.plugIn()
	if !d.kind.Charger() {
		// The return of the whole run is the aux battery's own.
		d.start.contactOhm = d.contact.ContactOhm
		d.aux.steelOhm = steel
		d.aux.returnM = d.back.cableM
		return
	}
	if d.kind == coupling.DCDCChangeover {
		d.start.contactOhm = d.changeover.ContactOhm
	}
	d.start.steelOhm = steel
	d.start.returnM = d.back.cableM
	d.aux.steelOhm = 2 * jointOhm
	d.aux.returnM = f.AuxM.Value // aux minus to the common negative at the charger
}

// plugOf is the trailer plug for a run: the pinned one, or the smallest that bears its
// current and takes its cable.
func (d *design) plugOf(l *leg) parts.Plug {
	if pin := d.doc.Pins.PlugA; pin != nil {
		return d.book.Plug(*pin, 0)
	}
	return d.book.Plug(l.amps, l.trial.Size.CopperMM2())
}

// plugIn puts the plug into the run that crosses it.
func (d *design) plugIn() {
	for _, l := range []*leg{&d.start, &d.aux} {
		if d.crosses(l) {
			d.plugCard = d.plugOf(l)
			l.plugOhm = 2 * d.plugCard.Ohm
		}
	}
}

// sourceOhm is the resistance behind the run's beginning: the start battery's, or, of a
// machine of its own, what limits its short-circuit current to about one and a half times
// its label (from memory).
func (d *design) sourceOhm() float64 {
	if d.kind == coupling.SecondAlternator {
		return d.facts.RegulatedV.Value / (1.5 * d.second.RatedA)
	}
	return d.startOhm()
}

// wayBack decides between chassis and cable: a return must not cross a tow
// coupling through the steel.
func (d *design) wayBack() way {
	f := d.facts
	w := way{byCable: d.crosses(d.returnLeg()) || d.noSteel(), chassisM: math.Abs(f.Place.At.X - f.Body.Start.X)}
	if d.kind == coupling.DCDC && f.Place.Trailer {
		w.chassisM = math.Abs(d.couplingAt().X - f.Body.Start.X)
	}
	if pin := d.doc.Pins.Return; pin != nil {
		w.byCable, w.pinned = *pin != "chassis", true
		w.byChassis = *pin != "cable"
	} else {
		w.byChassis = !w.byCable
	}
	w.alongM = f.StartM.Value
	if !d.kind.Charger() {
		w.alongM += f.AuxM.Value
	}
	if !w.byChassis {
		w.chassisOhm = earthOhm // onto the chassis side of the start battery
		w.cableM = w.alongM
		return w
	}
	w.chassisOhm = 2*earthOhm + chassisOhmPer*w.chassisM + d.bondOhm()
	w.cableM = f.EarthM.Value
	if w.byCable {
		// The cable beside the steel takes its share: both ways count as one.
		beside := earthOhm + w.alongM*besideOhmPer
		w.chassisOhm = w.chassisOhm * beside / (w.chassisOhm + beside)
	}
	return w
}

// sizeLegs shares out the allowed drop and sizes both legs.
func (d *design) sizeLegs() {
	volts := 12 * d.facts.N
	charger, batt := d.facts.ChargerDrop.Value/100*volts, d.facts.BatteryDrop.Value/100*volts
	if d.kind.Charger() {
		d.start.budgetV, d.aux.budgetV = charger, batt
	} else {
		// One limit for the whole run: the steel's share comes off first, the
		// copper shares the rest by length.
		steel := d.aux.amps * d.aux.steelOhm
		m1, m2 := d.start.cableM(), d.aux.cableM()
		d.start.budgetV = (batt - steel) * m1 / (m1 + m2)
		d.aux.budgetV = batt - d.start.budgetV
	}
	shelf := cable.Shelf(d.facts.CableSystem)
	d.start = Size(d.start.stretch, shelf, d.facts.Insulation, volts)
	d.aux = Size(d.aux.stretch, shelf, d.facts.Insulation, volts)
}

// noSteel says whether the frame is no return: aluminium and composite are not (common
// practice, no source).
func (d *design) noSteel() bool {
	return d.facts.Survey.Frame == "aluminium" || d.facts.Survey.Frame == "composite"
}

// besideOhmPer is a return cable beside the steel while its size is not settled: 16 mm²
// of class 5, warm. Source: IEC 60228.
const besideOhmPer = 0.00121 * 1.2

func (l *leg) cableM() float64 { return l.lengthM.Value + l.returnM }

// fuseOhm is the resistance of the fuse.
func (l *leg) fuseOhm() float64 { return protect.Resistance.Value(l.fuse.RatingA) }

// totalOhm is the whole leg as sized: cable and return, joints, fuse, relay, plug.
func (l *leg) totalOhm() float64 {
	return l.trial.LoopOhm + l.jointsOhm + l.plugOhm + l.fuseOhm() + l.contactOhm
}

// faultOhm is what a short at the leg's end meets on its way.
func (l *leg) faultOhm(fuse protect.Fuse, t cable.Trial) float64 {
	return t.LoopOhm + l.jointsOhm + l.plugOhm + protect.Resistance.Value(fuse.RatingA)
}

// bare is the stretch before the fuse: it is part of the route.
func (l *leg) bare() float64 { return math.Min(bareM, l.lengthM.Value/3) }

// Size finds a stretch's own size and fuse, then puts what is pinned in their place and
// judges that. The shelf rises in size; volts is the system's voltage, of which at most
// widest percent may be lost.
func Size(a stretch, shelf []cable.Size, n cable.Insulation, volts float64) leg {
	l := leg{stretch: a}
	l.loop = cable.Loop{Amps: l.amps, CableM: l.cableM(), OtherOhm: l.steelOhm, Bay: l.bay, Insulation: n}
	l.nearFault = l.sourceV / (l.sourceOhm + 2*jointOhm)
	best, test := l.pick(shelf, volts)
	l.auto, l.autoTest = best.Size, test
	l.autoFuse, _ = protect.Choose(l.need(best.AmpacityA), l.device.Families)
	l.trial, l.test = best, test
	if l.sizePin != nil {
		size, _ := cable.Parse(*l.sizePin) // a document holds only sizes that read
		l.trial = l.loop.Try(size)
	}
	l.fit()
	return l
}

// pick finds the thinnest cable that passes drop, ampacity and fuse. Where no size
// keeps the drop, it widens the limit step by step and remembers that.
func (l *leg) pick(shelf []cable.Size, volts float64) (cable.Trial, cable.Test) {
	l.widened, l.noCable = false, nil
	budget := l.budgetV
	for {
		best, test, err := l.loop.Choose(shelf, budget, l.saved)
		if err == nil {
			return best, test
		}
		var none *cable.NoSize
		if errors.As(err, &none) && none.Test == cable.ByDrop && budget < widest*volts/100 {
			l.widened = true
			budget = max(budget, 0) + 0.005*volts
			continue
		}
		l.noCable = err
		return l.loop.Try(shelf[len(shelf)-1]), none.Test
	}
}

func (l *leg) need(ampacity float64) protect.Need {
	n := protect.Need{ContinuousA: l.amps, AmbientC: l.bay.AmbientC, CableA: ampacity, FaultA: l.nearFault, PassA: l.passA, PassS: crankPassS}
	if l.sheetA > 0 { // as far as a fuse within it carries the load
		within := n
		within.DeviceMaxA = l.sheetA
		if _, err := protect.Choose(within, l.device.Families); err == nil {
			return within
		}
	}
	return n
}

// crankPassS is how long a fuse has to bear the current of a start that shares the aux
// battery. Source: common practice, no source.
const crankPassS = 3.0

// saved says whether some fuse carries the load and saves this cable.
func (l *leg) saved(t cable.Trial) bool {
	fuse, err := protect.Choose(l.need(t.AmpacityA), l.device.Families)
	return err == nil && l.covers(fuse, t).Saves
}

// covers judges a fuse against shorts all along the leg, and against the overloads
// that it may hold for long.
func (l *leg) covers(fuse protect.Fuse, t cable.Trial) protect.Cover {
	far := protect.FaultCurrent.Value(l.sourceV, l.sourceOhm, l.faultOhm(fuse, t))
	return fuse.Covers(l.nearFault, far, l.fault(t))
}

// fault is the leg's cable as a fault finds it.
func (l *leg) fault(t cable.Trial) cable.Fault {
	return l.loop.Insulation.Faulted(t.Size, l.bay, math.Min(t.ConductorC, cable.ShortLimitC-1))
}

// fit puts a fuse in: the pinned one, the one the window allows, or, where there
// is none, the lowest that carries the load, so that the notes can say what it
// does to the cable.
func (l *leg) fit() {
	need := l.need(l.trial.AmpacityA)
	families := l.device.Families
	l.fuse, l.noFuse = protect.Choose(need, families)
	if l.noFuse != nil {
		need.CableA = math.Inf(1)
		carries, err := protect.Choose(need, families)
		if err != nil {
			last := families[len(families)-1]
			carries = protect.Fuse{Family: last, RatingA: last.Ratings[len(last.Ratings)-1]}
		}
		l.fuse = carries
	}
	l.fuse = l.bySchool(l.fuse, families)
	if l.fusePin != nil {
		l.fuse = l.pinned(*l.fusePin, families)
	}
	l.cover, l.faulted = l.covers(l.fuse, l.trial), l.fault(l.trial)
}

// bySchool is the fuse that another way of choosing takes; the plan's own where that finds
// none.
func (l *leg) bySchool(own protect.Fuse, families []protect.Family) protect.Fuse {
	best, found := own, false
	for _, f := range families {
		for _, a := range f.Ratings {
			if f.BreaksA < l.nearFault {
				continue
			}
			switch {
			case l.school == "1.2" && a >= 1.2*l.amps && (!found || a < best.RatingA),
				l.school == "cable" && a <= l.trial.AmpacityA && a > best.RatingA,
				l.school == "below" && a < own.RatingA && (!found || a > best.RatingA):
				best, found = protect.Fuse{Family: f, RatingA: a}, true
			}
		}
	}
	return best
}

// pinned is the fuse of a pinned rating, of the usual fuses where the pinned kind of
// device does not come in it.
func (l *leg) pinned(ratingA float64, families []protect.Family) protect.Fuse {
	if fuse, ok := protect.Find(ratingA, l.nearFault, families); ok {
		return fuse
	}
	fuse, ok := protect.Find(ratingA, l.nearFault, protect.Power)
	if !ok {
		fuse, _ = protect.Find(ratingA, l.nearFault, protect.All)
	}
	return fuse
}

// device is what protects the runs: fuses, unless a breaker is pinned.
func (d *design) device() protect.Device {
	if pin := d.doc.Pins.Device; pin != nil {
		return protect.DeviceByID(*pin)
	}
	return protect.Devices[0]
}

// sizeTrigger sizes the thin wire that tells a charger that the engine runs.
func (d *design) sizeTrigger() {
	a := stretch{id: "t1", fuseID: "f3", amps: triggerA, lengthM: d.facts.TriggerM, bay: cable.Ambient(triggerBayC),
		device: protect.Device{Families: protect.Small}, sourceV: d.facts.RegulatedV.Value, sourceOhm: d.startOhm() + loomOhm, budgetV: 1}
	d.trigger = Size(a, []cable.Size{cable.Square(triggerMM2)}, d.facts.Insulation, 12*d.facts.N)
}
