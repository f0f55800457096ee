package plan

import (
	"fmt"
	"slices"

	"epitrope/core/battery"
	"epitrope/core/coupling"
	"epitrope/core/job"
	"epitrope/core/system"
	"epitrope/core/working"
)

// Check is something that is looked at on the vehicle, held against this design. Its
// level is open where nobody has looked yet.
type Check struct {
	ID     string         `json:"id"`
	Group  string         `json:"group" enum:"place,fit,bank,join,extras,answers"`
	Column string         `json:"column" doc:"The column it belongs to"`
	Level  Level          `json:"level" enum:"good,caution,bad,open"`
	Text   string         `json:"text"`
	Mark   working.Origin `json:"mark" enum:"standard,practice,physics,memory"`
	Fields []string       `json:"fields" doc:"Paths that answer it"`
	Figure string         `json:"figure,omitempty" doc:"Key of the figure behind it"`

	Work working.Figure `json:"-"` // that figure
}

// checks are the checks of a design: its places, whether the battery fits, how a bank
// shares, what happens when the batteries are joined, and answers that contradict.
func (d *design) checks() []Check {
	return slices.Concat([]Check{}, d.placeChecks(), d.fitChecks(), d.bankChecks(), d.joinChecks(), d.extraChecks(), d.answerChecks())
}

func (d *design) check(group, id, column string, level Level, mark working.Origin, fields []string, args ...any) Check {
	if fields == nil {
		fields = []string{}
	}
	return Check{ID: id, Group: group, Column: column, Level: level, Mark: mark, Fields: fields, Text: fmt.Sprintf(checkWords[id], args...)}
}

// by is the check with the figure behind it.
func (c Check) by(key string, fig working.Figure) Check {
	c.Figure, c.Work = key, fig
	return c
}

// wanted is a question about a place with the answer that is wanted.
type wanted struct {
	id, path string
	given    job.Tri
	good     job.Tri
	wrong    Level // level where the answer is the other one
}

func (d *design) placeChecks() []Check {
	p, list := d.facts.Survey.Placing, []Check{}
	for _, w := range []wanted{
		{"place.exhaust", "placing.exhaust", p.Exhaust, job.No, Bad},
		{"place.spray", "placing.spray", p.Spray, job.No, Caution},
		{"place.gas", "placing.gas", p.Gas, job.No, Bad},
		{"place.moving", "placing.moving", p.Moving, job.Yes, Bad},
		{"place.visible", "placing.visible", p.Visible, job.Yes, Caution},
		{"place.access", "placing.access", p.Access, job.Yes, Caution},
	} {
		id, level := w.id, w.wrong
		switch w.given {
		case job.Asked:
			level, id = open, w.id+".open"
		case w.good:
			level, id = Good, w.id+".good"
		}
		list = append(list, d.check("place", id, "coupling", level, working.Practice, []string{w.path}))
	}
	list = append(list, d.heatCheck(), d.turnCheck())
	if d.kind == coupling.VSR {
		level := Good
		if d.facts.StartM.Value > sensesWithinM {
			level = Bad
		}
		list = append(list, d.check("place", "place.sensing", "coupling", level, working.Practice, []string{"routes.startM"}, d.facts.StartM.Value, sensesWithinM))
	}
	if d.facts.Place.Trailer {
		live := d.liveWires("engine")
		level, id := Good, "place.socket.good"
		for _, w := range d.system.Wires {
			if w.From.Component == "x1" || w.To.Component == "x1" {
				if _, is := live[w.ID]; is && w.Role == system.Feed {
					level, id = Caution, "place.socket"
				}
			}
		}
		list = append(list, d.check("place", id, "x1", level, working.Practice, nil))
	}
	return append(list, d.boxCheck()...)
}

// sensesWithinM is how far from the start battery a sensing relay may sit. Source: common
// practice, no source.
const sensesWithinM = 2.0

// turnCheck is which way the terminals point: a relay's level or up.
func (d *design) turnCheck() Check {
	fields := []string{"placing.terminals"}
	switch d.facts.Survey.Placing.Terminals {
	case "":
		return d.check("place", "place.terminals.open", "coupling", open, working.Practice, fields)
	case "down":
		return d.check("place", "place.terminals", "coupling", Caution, working.Practice, fields)
	}
	return d.check("place", "place.terminals.good", "coupling", Good, working.Practice, fields)
}

// heatCheck holds the coupling's place against what it bears.
func (d *design) heatCheck() Check {
	bay, path := d.aux.bay, "bays.auxC"
	if d.atStart() {
		bay, path = d.start.bay, "bays.startC"
	}
	most := contactMostC
	if d.kind.Charger() {
		most = d.charger.MaxAmbientC
	}
	level := Good
	if bay.AmbientC > most {
		level = Caution
	}
	return d.check("place", "place.heat", "coupling", level, working.Practice, []string{path}, bay.AmbientC, most)
}

// contactMostC is how warm a contact's place may be before it bears little. Source: from
// memory.
const contactMostC = 85.0

// boxed is a charger in the box that it sits in.
type boxed struct {
	share float64 // of its full output, that it settles at
	airC  float64
	how   string // closed or vented
	work  working.Figure
}

// inBox is what a charger gives in its box; ok is false where that was not measured.
func (d *design) inBox() (b boxed, ok bool) {
	p := d.facts.Survey.Placing
	if !d.kind.Charger() || p.LengthMM == nil || p.WidthMM == nil || p.HeightMM == nil {
		return boxed{}, false
	}
	worst := d.worstState()
	lost := max(0, worst.inA*worst.inV-worst.outA*worst.outV)
	alpha, how := coupling.ClosedBox, "closed"
	if p.Vented == job.Yes {
		alpha, how = coupling.VentedBox, "vented"
	}
	area := coupling.BoxAreaM2(*p.LengthMM, *p.WidthMM, *p.HeightMM)
	share, boxC := coupling.InBox(d.aux.bay.AmbientC, lost, 1/(alpha*area), d.charger.MaxAmbientC)
	work := coupling.BoxC.MustWork(working.From(d.aux.bay.AmbientC, working.Practice, d.aux.bay.Label),
		working.Is(lost*share, "at the output that it settles at"), working.From(alpha, working.Memory, how+" box"),
		working.From(area, working.Surveyed, "six walls"))
	return boxed{share, boxC, how, work}, true
}

// boxCheck says what a charger gives in its box.
func (d *design) boxCheck() []Check {
	b, ok := d.inBox()
	if !ok {
		return nil
	}
	level := Good
	if b.share < 0.95 {
		level = Caution
	}
	if b.share < 0.5 {
		level = Bad
	}
	return []Check{d.check("place", "place.box", "coupling", level, working.Physics,
		[]string{"placing.lengthMM", "placing.widthMM", "placing.heightMM", "placing.vented"}, b.how, b.airC, b.share*d.charger.OutputA, d.charger.OutputA).by("box", b.work)}
}

var fitFields = []string{"fit.lengthMM", "fit.widthMM", "fit.heightMM", "fit.recessLengthMM", "fit.recessWidthMM", "fit.recessHeightMM",
	"fit.openingLengthMM", "fit.openingWidthMM", "fit.aboveMM"}

// fitChecks hold the battery against the recess, the opening and the room above it.
func (d *design) fitChecks() []Check {
	f := d.facts.Survey.Fit
	values := []*float64{f.LengthMM, f.WidthMM, f.HeightMM, f.RecessLengthMM, f.RecessWidthMM, f.RecessHeightMM, f.OpeningLengthMM, f.OpeningWidthMM, f.AboveMM}
	missing := []string{}
	for i, v := range values {
		if v == nil {
			missing = append(missing, fitFields[i])
		}
	}
	if len(missing) > 0 {
		return []Check{d.check("fit", "fit.open", "aux", open, working.Practice, fitFields, len(missing), len(fitFields))}
	}
	got := d.facts.Chemistry.FitIn(battery.Box{L: *f.LengthMM, W: *f.WidthMM, H: *f.HeightMM},
		battery.Space{Recess: battery.Box{L: *f.RecessLengthMM, W: *f.RecessWidthMM, H: *f.RecessHeightMM}, OpeningL: *f.OpeningLengthMM, OpeningW: *f.OpeningWidthMM, AboveMM: *f.AboveMM})
	list := []Check{}
	for _, p := range got.Problems {
		list = append(list, d.check("fit", "fit.not", "aux", Bad, working.Physics, fitFields, p))
	}
	if got.Goes && got.TiltDeg > 0 {
		list = append(list, d.check("fit", "fit.tilted", "aux", Caution, working.Physics, fitFields, got.TiltDeg, got.ClearMM))
	} else if got.Goes {
		list = append(list, d.check("fit", "fit.goes", "aux", Good, working.Physics, fitFields, got.ClearMM))
	}
	return list
}

// bankChecks are how batteries in parallel share.
func (d *design) bankChecks() []Check {
	shares := d.bank()
	if len(shares) == 0 {
		return nil
	}
	v, n := d.facts.Survey, float64(len(shares))
	most := 0.0
	for _, s := range shares {
		most = max(most, s.Share)
	}
	level := Good
	if most > 100/n*(1+unequalBy) {
		level = Caution
	}
	list := []Check{d.check("bank", "bank.shares", "aux", level, working.Physics, []string{"aux.feed", "aux.linkM", "aux.count"}, most, 100/n, feedWords[v.AuxFeed])}
	switch v.AuxSame {
	case job.No:
		list = append(list, d.check("bank", "bank.mixed", "aux", Bad, working.Practice, []string{"aux.same"}))
	case job.Asked:
		list = append(list, d.check("bank", "bank.same.open", "aux", open, working.Practice, []string{"aux.same"}))
	}
	return list
}

var feedWords = map[string]string{"corners": "by opposite corners", "end": "at one end"}

// joinChecks are what is looked at before two batteries are joined.
func (d *design) joinChecks() []Check {
	if d.kind == coupling.SecondAlternator || !d.kind.Joins() && d.kind != coupling.DCDCChangeover {
		return nil
	}
	v, n := d.facts.Survey, d.facts.N
	fields := []string{"startBattery.restV", "aux.restV"}
	if v.StartV == nil || v.AuxV == nil {
		return []Check{d.check("join", "join.open", "coupling", open, working.Practice, fields)}
	}
	low, diff := min(*v.StartV, *v.AuxV), *v.AuxV-*v.StartV
	if low < joinLeastV*n {
		return []Check{d.check("join", "join.ruined", "coupling", Bad, working.Practice, fields, low, joinLeastV*n)}
	}
	amps := max(diff, -diff) / (d.seriesOhm() + d.auxOhm() + d.startOhm())
	from, to := "aux", "start"
	if diff < 0 {
		from, to = to, from
	}
	level, id := Good, "join.flows"
	most := min(d.start.fuse.RatingA, d.aux.fuse.RatingA)
	switch {
	case amps > 2*most:
		level, id = Bad, "join.large"
	case amps > most:
		level = Caution
	}
	return []Check{d.check("join", id, "coupling", level, working.Physics, fields, max(diff, -diff), amps, from, to, most, amps*10/3600)}
}

// joinLeastV is the least a battery of 12 V may stand at to be joined to another. Source:
// common practice, no source.
const joinLeastV = 10.0

// answerChecks are answers that contradict each other, or speak of danger.
func (d *design) answerChecks() []Check {
	f, v, list := d.facts, d.facts.Survey, []Check{}
	add := func(id, column string, level Level, mark working.Origin, fields []string, args ...any) {
		list = append(list, d.check("answers", id, column, level, mark, fields, args...))
	}
	if f.Need.Differs {
		add("answers.use", "aux", Caution, working.Physics, []string{"use.dailyAh"}, f.DailyAh.Value, f.Need.Listed.Value)
	}
	if f.Need.IdleHours.Value > f.DrivenHours.Value {
		add("answers.idle", "aux", Caution, working.Physics, []string{"use.idleHours", "use.drivenHours"}, f.Need.IdleHours.Value, f.DrivenHours.Value)
	}
	if f.Suspect() && !f.Varies() {
		add("answers.suspect", "alternator", Caution, working.Practice, []string{"alternator.regulation", "alternator.knownBy"})
	}
	if v.Sensor == job.Yes && f.Schools.Negative == "post" {
		add("answers.sensor", "start", Bad, working.Practice, []string{"schools.negative"})
	}
	if d.noSteel() && d.back.byChassis {
		add("answers.frame", "c1", Bad, working.Practice, []string{"pins.return"}, v.Frame)
	}
	if v.Bonded == job.No && d.back.byChassis && !f.Extras.Bond {
		add("answers.bonded", "c1", Bad, working.Practice, []string{"vehicle.bonded", "pins.return"})
	}
	if v.StartV != nil && *v.StartV < 12.2*f.N {
		add("answers.startflat", "start", Caution, working.Memory, []string{"startBattery.restV"}, *v.StartV, 100*d.startChemistry().Charge(*v.StartV/f.N))
	}
	if v.StartAgeYears != nil && *v.StartAgeYears >= oldBattery {
		add("answers.startold", "start", Caution, working.Memory, []string{"startBattery.ageYears"}, *v.StartAgeYears)
	}
	if v.AuxV != nil && *v.AuxV < joinLeastV*f.N {
		add("answers.ruined", "aux", Bad, working.Practice, []string{"aux.restV"}, *v.AuxV)
	}
	if f.LoadA.Value > d.machineA(idleRPM) {
		add("answers.load", "alternator", Caution, working.Physics, []string{"vehicle.loadA", "alternator.label"}, f.LoadA.Value, d.machineA(idleRPM))
	}
	return list
}

// oldBattery is the age in years from which a start battery is near its end. Source: from
// memory.
const oldBattery = 6.0
