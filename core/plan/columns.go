package plan

import (
	"fmt"
	"math"

	"epitrope/core/cable"
	"epitrope/core/coupling"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/working"
)

// columns are the parts of the run with their rows.
func (d *design) columns(figures working.Figures) []Column {
	b, place := d.facts.Body, d.facts.Place.At
	list := []Column{d.alternatorColumn(b, figures)}
	if d.kind == coupling.SecondAlternator {
		list = []Column{d.secondColumn(b, figures)}
	} else {
		list = append(list, d.leadColumn(b), d.startColumn(b, figures))
	}
	where := d.facts.Extras.Isolator
	list = append(list, d.fuseColumn(&d.start, "F1", toward(b.Start, d.couplingAt(), 0.3), figures))
	if where == job.FrontIsolator {
		list = append(list, d.isolatorColumn(&d.start, toward(b.Start, d.couplingAt(), 0.5)))
	}
	list = append(list, d.cableColumn(&d.start, "C1", between(b.Start, d.couplingAt()), figures))
	if d.crosses(&d.start) {
		list = append(list, d.plugColumn(&d.start))
	}
	list = append(list, d.couplingColumn(figures), d.cableColumn(&d.aux, "C2", between(d.couplingAt(), place), figures))
	if d.crosses(&d.aux) {
		list = append(list, d.plugColumn(&d.aux))
	}
	if where == job.AuxIsolator {
		list = append(list, d.isolatorColumn(&d.aux, toward(place, d.couplingAt(), 0.5)))
	}
	list = append(list, d.fuseColumn(&d.aux, "F2", toward(place, d.couplingAt(), 0.3), figures))
	if where == job.MasterSwitch {
		list = append(list, d.isolatorColumn(&d.aux, toward(place, d.couplingAt(), 0.15)))
	}
	list = append(list, d.auxColumn(place, figures))
	d.markAssumed(list)
	return list
}

// said are the answers that a part's first row repeats, by column.
var said = map[string][]string{
	"alternator": {"alternator.label"}, "start": {"startBattery.capacityAh"},
	"c1": {"routes.startM"}, "c2": {"routes.auxM"}, "aux": {"aux.chemistry", "aux.capacityAh"},
}

// markAssumed marks the parts that stand on answers nobody gave.
func (d *design) markAssumed(list []Column) {
	for i := range list {
		for _, path := range said[list[i].ID] {
			list[i].Part.Assumed = list[i].Part.Assumed || d.assumes(path)
		}
	}
}

func (d *design) assumes(path string) bool {
	for _, f := range d.facts.List {
		if f.Path == path {
			return f.Origin == working.Assumed
		}
	}
	return false
}

func between(a, b job.Point) job.Point { return job.Point{X: (a.X + b.X) / 2, Y: (a.Y + b.Y) / 2} }

// toward is a place up to m metres from a to b, never beyond half way.
func toward(a, b job.Point, m float64) job.Point {
	step := math.Copysign(math.Min(m, math.Abs(b.X-a.X)/2), b.X-a.X)
	return job.Point{X: a.X + step, Y: a.Y}
}

func none() Cell { return Cell{Text: "–", Level: Good} }

func (d *design) worstState() state { return d.states[d.worst] }

// hardest is the state that drives most current for long; the zero state where none
// has a solution.
func (d *design) hardest() state {
	at := state{}
	for _, s := range d.states {
		if s.kind == charging && s.solved.Volts != nil && !s.sags && s.inA+s.outA >= at.inA+at.outA {
			at = s
		}
	}
	return at
}

func (d *design) alternatorColumn(b job.Body, figures working.Figures) Column {
	has, asked := d.idleA, d.startAsksA()
	level := Good
	if asked > has {
		level = Caution
	}
	return Column{ID: "alternator", Kind: "alternator", Name: "Alternator", At: b.Alternator,
		Part:    Cell{Text: d.facts.Label.String(), Level: Good},
		Carries: Cell{Text: fmt.Sprintf("%s of %s idle", working.Text(asked, "", 0), working.Text(max(0, has), "A", 0)), Figure: "idle", Level: level},
		Loses:   none(), Heat: d.windingCell(),
		Figures: figures.Keys("idle", "cruise", "half", "winding"),
		Fields:  []string{"alternator.label", "alternator.regulation", "alternator.knownBy", "alternator.volts", "vehicle.loadA"}}
}

// secondColumn is a machine of the run's own.
func (d *design) secondColumn(b job.Body, figures working.Figures) Column {
	now := working.Plain(d.second.RatedA, "A", 0)
	return Column{ID: "alternator", Kind: "alternator", Name: "Alternator 2", At: b.Alternator,
		Part:    Cell{Text: now, Level: Good},
		Carries: Cell{Text: fmt.Sprintf("%s of %s idle", working.Text(d.startAsksA(), "", 0), working.Text(d.secondA(idleRPM), "A", 0)), Level: Good},
		Loses:   none(), Heat: none(), Figures: figures.Keys("need", "accepts"),
		Fields: []string{"vehicle.secondRoom"},
		Choice: &Choice{Path: "pins.secondA", Label: "Second alternator", Auto: now, Now: now, Pinned: d.doc.Pins.SecondA != nil,
			DecidedBy: "the smallest of which half, for hours, puts back what is used"}}
}

// startAsksA is what charging asks of the alternator at idle.
func (d *design) startAsksA() float64 {
	if !d.kind.Charger() {
		return d.cruiseState().inA
	}
	return d.idleState().inA
}

// stateBy is a state by its id; every job has those of a drive.
func (d *design) stateBy(id string) state {
	for _, s := range d.states {
		if s.id == id {
			return s
		}
	}
	return state{}
}

func (d *design) idleState() state { return d.stateBy("idle") }

func (d *design) leadColumn(b job.Body) Column {
	lost := d.cruiseState().machineGives * leadOhm
	return Column{ID: "lead", Kind: "lead", Name: "Lead", At: between(b.Alternator, b.Start),
		Part: Cell{Text: "existing", Level: Good}, Carries: none(),
		Loses: Cell{Text: working.Text(lost, "V", 2), Level: Good}, Heat: none(), Figures: []string{}, Fields: []string{}}
}

func (d *design) startColumn(b job.Body, figures working.Figures) Column {
	return Column{ID: "start", Kind: "battery", Name: "Start battery", At: b.Start,
		Part:    Cell{Text: working.Plain(d.facts.StartAh.Value, "Ah", 0), Level: Good},
		Carries: none(), Loses: none(), Heat: none(), Figures: figures.Keys("f1.near"),
		Fields: []string{"startBattery.capacityAh", "startBattery.crankA", "vehicle.systemVolts"}}
}

func (d *design) fuseColumn(l *leg, name string, at job.Point, figures working.Figures) Column {
	carries := l.fuse.Carries(l.bay.AmbientC)
	level := Good
	if l.amps > carries+0.05 {
		level = Caution
	}
	part := Cell{Text: working.Plain(l.fuse.RatingA, "A", 1) + " " + l.fuse.Family.Short, Level: Good}
	if l.fuse.RatingA > l.trial.AmpacityA || !l.cover.Saves || l.nearFault > l.fuse.Family.BreaksA {
		part.Level = Bad
	}
	lost := l.amps * (l.fuseOhm() + jointOhm)
	now, auto := working.Plain(l.fuse.RatingA, "A", 1), working.Plain(l.autoFuse.RatingA, "A", 1)
	if l.autoFuse.RatingA == 0 {
		auto = "no fuse fits"
	}
	path := "pins.startFuseA"
	if l.id == "c2" {
		path = "pins.auxFuseA"
	}
	return Column{ID: l.fuseID, Kind: "fuse", Name: name, At: at, Part: part, DropV: lost,
		Carries: Cell{Text: fmt.Sprintf("%s of %s", working.Text(l.amps, "", 0), working.Text(carries, "A", 0)), Figure: l.fuseID + ".least", Level: level},
		Loses:   Cell{Text: fmt.Sprintf("%s, %s", working.Text(lost, "V", 2), working.Text(lost*l.amps, "W", 0)), Level: Good}, Heat: none(),
		Figures: figures.Keys(l.fuseID+".least", l.fuseID+".most", l.fuseID+".near", l.fuseID+".fault", l.fuseID+".opens", l.fuseID+".k", l.fuseID+".bears", l.fuseID+".overload"),
		Fields:  []string{"pins.device"},
		Choice: &Choice{Path: path, Label: "Fuse", Auto: auto, Now: now, Pinned: l.fusePin != nil,
			DecidedBy: fmt.Sprintf("between %s, 1.25 × the load, and %s, what the cable bears: the lowest",
				working.Text(l.need(l.trial.AmpacityA).Lowest(l.fuse.Family), "A", 1), working.Text(l.trial.AmpacityA, "A", 0))}}
}

func (d *design) cableColumn(l *leg, name string, at job.Point, figures working.Figures) Column {
	t := l.trial
	carry, lose, heat := Good, Good, Good
	if l.amps > t.AmpacityA {
		carry = Bad
	}
	if t.DropV > l.budgetV+0.0005 {
		lose = Caution
	}
	if t.Burns {
		heat = Bad
	}
	part := Cell{Text: fmt.Sprintf("%s, %s", t.Size.Label, working.Text(l.lengthM.Value, "m", 1)), Level: worst(carry, lose, heat)}
	path := "pins.startSize"
	fields := []string{"routes.startM", "bays.startC", "bays.startLay", "cable.system", "cable.insulation", "limits.chargerDrop"}
	if l.id == "c2" {
		path = "pins.auxSize"
		fields = []string{"routes.auxM", "bays.auxC", "bays.auxLay", "limits.batteryDrop"}
	}
	if l == d.returnLeg() {
		fields = append(fields, "pins.return", "routes.earthM")
	}
	warmth := working.Text(t.ConductorC, "°C", 0)
	if t.Burns {
		warmth = "over " + warmth
	}
	return Column{ID: l.id, Kind: "cable", Name: name, At: at, Part: part,
		Carries: Cell{Text: fmt.Sprintf("%s of %s", working.Text(l.amps, "", 0), working.Text(t.AmpacityA, "A", 0)), Figure: l.id + ".ampacity", Level: carry},
		Loses:   Cell{Text: fmt.Sprintf("%s, %s", working.Text(t.DropV, "V", 2), working.Text(t.DropV*l.amps, "W", 0)), Figure: l.id + ".drop", Level: lose},
		Heat:    Cell{Text: warmth, Figure: l.id + ".warmth", Level: heat},
		Figures: d.cableKeys(l, figures), Fields: fields,
		Choice: &Choice{Path: path, Label: "Cable", Auto: l.auto.Copper(), Now: t.Size.Copper(), Pinned: l.sizePin != nil, DecidedBy: l.decidedBy()}}
}

func (d *design) cableKeys(l *leg, figures working.Figures) []string {
	keys := []string{l.id + ".rule", l.id + ".copper", l.id + ".loop", l.id + ".drop", l.id + ".ampacity", l.id + ".balance", l.id + ".heating", l.id + ".warmth"}
	if l == d.returnLeg() {
		keys = append(keys, "return.lead", "return.chassis", "return.cable")
	}
	return figures.Keys(keys...)
}

// decidedBy says in words which test settled the plan's own size.
func (l *leg) decidedBy() string {
	why := map[cable.Test]string{
		cable.ByDrop:     fmt.Sprintf("drop decided: at most %s at %s", working.Text(max(l.budgetV, 0), "V", 2), working.Text(l.amps, "A", 0)),
		cable.ByAmpacity: fmt.Sprintf("ampacity decided: it has to carry %s where it lies", working.Text(l.amps, "A", 0)),
		cable.ByFuse:     "the fuse decided: it has to bear the lowest fuse that carries the load",
	}[l.autoTest]
	if l.widened {
		why += "; no cable on the reels keeps that, so the limit was widened"
	}
	return why
}

func (d *design) plugColumn(l *leg) Column {
	lost := l.amps * 2 * d.plugCard.Ohm
	bears := parts.ContactFactor(l.bay.AmbientC) * d.plugCard.RatingA
	level, now := Good, working.Plain(d.plugCard.RatingA, "A", 0)
	if l.amps > bears {
		level = Bad
	}
	return Column{ID: "x1", Kind: "plug", Name: "X1", At: d.hitchAt(),
		Part: Cell{Text: now, Level: Good}, Carries: Cell{Text: fmt.Sprintf("%s of %s", working.Text(l.amps, "", 0), working.Text(bears, "A", 0)), Level: level},
		Choice: &Choice{Path: "pins.plugA", Label: "Plug", Auto: working.Plain(d.book.Plug(l.amps, l.trial.Size.CopperMM2()).RatingA, "A", 0), Now: now,
			Pinned: d.doc.Pins.PlugA != nil, DecidedBy: "the smallest whose contacts bear the worst current and whose housing takes the cable"},
		Loses: Cell{Text: fmt.Sprintf("%s, %s", working.Text(lost, "V", 2), working.Text(lost*l.amps, "W", 0)), Level: Good},
		Heat:  none(), Figures: []string{}, Fields: []string{}}
}

func (d *design) couplingColumn(figures working.Figures) Column {
	c := Column{ID: "coupling", Name: d.couplingName(), At: d.couplingAt(), Heat: none()}
	if !d.kind.Charger() {
		lost := d.start.amps * d.contact.ContactOhm
		c.Kind = "relay"
		bears := parts.ContactFactor(d.start.bay.AmbientC) * d.contact.ContinuousA
		c.Part = Cell{Text: working.Plain(d.contact.ContinuousA, "A", 0), Level: Good}
		level := Good
		if d.start.amps > bears {
			level = Bad
		}
		c.Carries = Cell{Text: fmt.Sprintf("%s of %s", working.Text(d.start.amps, "", 0), working.Text(bears, "A", 0)), Level: level}
		if _, ok := figures["joined"]; ok {
			c.Carries.Figure = "joined"
		}
		c.Loses = Cell{Text: fmt.Sprintf("%s, %s", working.Text(lost, "V", 2), working.Text(lost*d.start.amps, "W", 0)), Level: Good}
		c.Figures = figures.Keys("joined", "accepts", "half")
		c.Fields = []string{"pins.contactA"}
		if d.wired() {
			c.Fields = append(c.Fields, "routes.triggerM")
		}
		if d.kind == coupling.ManualSelector {
			c.Fields = append(c.Fields, "pins.selector")
		}
		c.Choice = d.couplingChoice()
		return c
	}
	worst := d.worstState()
	lost := worst.inA*worst.inV - worst.outA*worst.outV
	c.Kind, c.Heat = "charger", d.caseCell()
	c.Part = Cell{Text: working.Plain(d.charger.OutputA, "A out", 0), Level: Good}
	c.Carries = Cell{Text: fmt.Sprintf("%s in, %s out", working.Text(worst.inA, "", 0), working.Text(worst.outA, "A", 0)), Figure: "input", Level: Good}
	c.Loses = Cell{Text: working.Text(max(0, lost), "W", 0), Level: Good}
	if worst.err != nil {
		c.Carries.Level = Bad
	}
	c.Figures = figures.Keys("need", "allowed", "accepts", "input", "most", "case", "t1.drop", "f3.least")
	c.Fields = []string{"pins.coupling", "routes.triggerM"}
	if d.kind == coupling.DCDCChangeover || d.kind == coupling.DCDCHighCurrent {
		c.Fields = append(c.Fields, "pins.contactA")
	}
	decided := fmt.Sprintf("need %s, alternator allows %s, battery accepts %s: the smallest that meets the need within the limits",
		working.Text(d.needA, "A", 0), working.Text(d.limitA, "A", 0), d.rates.accepts.Text)
	if card, ok := d.doc.Card.Charger(); ok {
		decided = fmt.Sprintf("the job's own card, %s (need %s, alternator allows %s, battery accepts %s)", card.Label,
			working.Text(d.needA, "A", 0), working.Text(d.limitA, "A", 0), d.rates.accepts.Text)
	}
	c.Choice = &Choice{Path: "pins.chargerA", Label: "Charger output", Auto: working.Plain(d.autoChargerA, "A", 0),
		Now: working.Plain(d.charger.OutputA, "A", 0), Pinned: d.doc.Pins.ChargerA != nil, DecidedBy: decided}
	return c
}

func (d *design) couplingChoice() *Choice {
	auto := ""
	for _, m := range d.methods {
		if m.Chosen {
			auto = m.Label
		}
	}
	return &Choice{Path: "pins.coupling", Label: "Coupling", Auto: auto, Now: d.kind.Label(), Pinned: d.doc.Pins.Coupling != nil,
		DecidedBy: "the rules of choosing: see why under Methods"}
}

func (d *design) auxColumn(place job.Point, figures working.Figures) Column {
	worst, early := d.worstState(), d.stateBy("early")
	amps := early.outA
	accepts := d.rates.accepts
	level := Good
	if amps > accepts.Unrounded {
		level = Caution
	}
	text := fmt.Sprintf("%s of %s", working.Text(amps, "", 0), accepts.Text)
	if worst.outA <= 0 && amps > 0 {
		level, text = Caution, text+" or none"
	} else if worst.outA <= 0 {
		level = Bad
	}
	return Column{ID: "aux", Kind: "battery", Name: "Aux battery", At: place,
		Part:    Cell{Text: d.auxRating(), Level: Good},
		Carries: Cell{Text: text, Figure: "accepts", Level: level},
		Loses:   none(), Heat: none(),
		Figures: figures.Keys("usable", "autonomy", "need", "back", "accepts", "f2.near"),
		Fields:  []string{"aux.chemistry", "aux.capacityAh", "aux.place", "use.dailyAh", "use.drivenHours"}}
}

func worst(levels ...Level) Level {
	out := Good
	for _, l := range levels {
		if l == Bad || l == Caution && out == Good {
			out = l
		}
	}
	return out
}

// covers are the stretches each fuse protects, from the battery that feeds it.
func (d *design) covers() []Cover {
	front := Cover{Fuse: "f1", Side: "front", From: "f1", To: "c1"}
	back := Cover{Fuse: "f2", Side: "back", From: "c2", To: "f2"}
	front.tell(&d.start, "F1", "C1")
	back.tell(&d.aux, "F2", "C2")
	return []Cover{front, back}
}

func (c *Cover) tell(l *leg, fuse, wire string) {
	c.Bare = working.Text(bareM, "m bare", 2)
	v := l.cover
	switch {
	case l.nearFault > l.fuse.Family.BreaksA:
		c.Level, c.Text = Bad, fmt.Sprintf("%s breaks %s of %s", fuse, kilo(l.fuse.Family.BreaksA), kilo(l.nearFault))
	case !v.Saves:
		c.Level, c.Text = Bad, fmt.Sprintf("%s is too slow for %s", fuse, wire)
	case l.fuse.RatingA > l.trial.AmpacityA:
		c.Level, c.Text = Bad, fmt.Sprintf("%s bears %s, %s more", wire, working.Text(l.trial.AmpacityA, "A", 0), fuse)
	default:
		c.Level = Good
		c.Text = fmt.Sprintf("%s clears a short in %s; %s bears %s", fuse, working.Seconds(v.Far.OpensMaxS), wire, working.Seconds(v.Far.BearsS))
	}
}

func kilo(amps float64) string { return working.Text(amps/1000, "kA", 1) }

// segments are the pieces of the way back, from the front to the back.
func (d *design) segments() []Segment {
	milli := func(ohm float64) float64 { return working.Round(ohm*1000, 2) }
	l := d.returnLeg()
	end := "coupling"
	if !d.kind.Charger() {
		end = "aux"
	}
	begin := "start"
	if d.kind == coupling.SecondAlternator {
		begin = "alternator"
	}
	out := []Segment{{ID: "e1", Kind: "earth", Text: "E1 " + working.Text(earthOhm*1000, "mΩ", 1), MilliO: milli(earthOhm), From: begin, To: "f1"}}
	lost := d.returnLoss("n1", "n1t", "chassis")
	lead := d.returnCopper(d.back.cableM, "return cable").Unrounded
	if d.back.byCable && !d.back.byChassis {
		out = append(out, Segment{ID: "n1", Kind: "cable", Text: fmt.Sprintf("N1 %s, %s, %s", l.trial.Size.Label, working.Text(d.back.cableM, "m", 1), working.Text(lead*1000, "mΩ", 1)),
			MilliO: milli(lead), Loses: lost, From: "c1", To: end, Figure: "return.lead"})
	} else {
		steel := chassisOhmPer * d.back.chassisM
		out = append(out,
			Segment{ID: "chassis", Kind: "chassis", Text: "chassis " + working.Text(steel*1000, "mΩ", 1), MilliO: milli(steel), Loses: lost, From: "c1", To: end, Figure: "return.chassis"},
			Segment{ID: "n1", Kind: "cable", Text: fmt.Sprintf("E2 %s, N1 %s", working.Text(earthOhm*1000, "mΩ", 1), working.Text(d.back.cableM, "m", 1)),
				MilliO: milli(earthOhm + lead), From: end, To: end, Figure: "return.lead"})
		if d.back.byCable {
			beside := earthOhm + cable.Resistance.Value(l.trial.Size.OhmPerM(), d.back.alongM, cable.Alpha, l.trial.ConductorC)
			out = append(out, Segment{ID: "n3", Kind: "cable", Text: fmt.Sprintf("N3 beside it %s, %s", l.trial.Size.Label, working.Text(d.back.alongM, "m", 1)), MilliO: milli(beside), Loses: d.returnLoss("n3"), From: "c1", To: end})
		}
	}
	if d.kind.Charger() {
		out = append(out, Segment{ID: "n2", Kind: "cable", Text: fmt.Sprintf("N2 %s, %s", d.aux.trial.Size.Label, working.Text(d.aux.returnM, "m", 1)), From: "c2", To: "aux",
			MilliO: milli(cable.Resistance.Value(d.aux.trial.Size.OhmPerM(), d.aux.returnM, cable.Alpha, d.aux.trial.ConductorC)), Loses: d.returnLoss("n2"), Figure: "c2.copper"})
	}
	return out
}

// marks are the limits on the grade line.
func (d *design) marks() []Mark {
	n := d.facts.N
	wanted := Mark{Column: "aux", Kind: "wanted", Low: working.Round(d.profile.AbsorptionLow, 2), High: working.Round(d.profile.AbsorptionHigh, 2)}
	wanted.Text = fmt.Sprintf("end of bulk %s–%s", working.Text(wanted.Low, "", 1), working.Text(wanted.High, "V", 1))
	if d.kind.Charger() {
		v := d.charger.CutOutV * n
		return []Mark{wanted, {Column: "coupling", Kind: "limit", Low: v, High: v, Text: "stops at " + working.Text(v, "V", 1)}}
	}
	if d.kind != coupling.VSR {
		return []Mark{wanted}
	}
	in, out := d.contact.Sensing.CutInV*n, d.contact.Sensing.CutOutV*n
	return []Mark{wanted, {Column: "coupling", Kind: "limit", Low: in, High: in, Text: "closes at " + working.Text(in, "V", 1)},
		{Column: "coupling", Kind: "limit", Low: out, High: out, Text: "opens at " + working.Text(out, "V", 1)}}
}
