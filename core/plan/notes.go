package plan

import (
	"fmt"
	"slices"
	"sort"
	"strings"

	"epitrope/core/cable"
	"epitrope/core/coupling"
	"epitrope/core/method"
	"epitrope/core/protect"
	"epitrope/core/working"
)

// Severities, worst first.
const (
	stop    = "stop"
	caution = "caution"
	remark  = "remark"
)

// farM is how far a charger may be from its battery before that is remarked on.
// Source: common practice, no source.
const farM = 2.0

var rank = map[string]int{stop: 0, caution: 1, remark: 2}

// noted collects the notes.
type noted []Note

func (n *noted) add(id, column, severity string, text, why []any, cures ...Cure) {
	w := words[id]
	if cures == nil {
		cures = []Cure{}
	}
	*n = append(*n, Note{ID: id, Column: column, Severity: severity,
		Text: fmt.Sprintf(w[0], text...), Why: fmt.Sprintf(w[1], why...), Cures: cures, Mark: markOf(id)})
}

// markOf is where a note's rule comes from: common practice, where nothing else is said.
func markOf(id string) working.Origin {
	if m, ok := noteMarks[id]; ok {
		return m
	}
	return working.Practice
}

func with(args ...any) []any { return args }

func set(label, path, value string) Cure { return Cure{Label: label, Path: path, Value: value} }

func unpin(label, path string) Cure { return Cure{Label: label, Path: path} }

func ask(label, question string) Cure { return Cure{Label: label, Ask: question} }

// notes are what is weak about the plan, worst first.
func (d *design) notes() []Note {
	n := noted{}
	d.noteSources(&n)
	d.notePlace(&n)
	d.noteMethod(&n)
	if d.kind.Charger() {
		d.noteCharger(&n)
	} else {
		d.noteContact(&n)
	}
	if d.kind == coupling.VSR {
		d.noteRelay(&n)
	}
	d.noteSignal(&n)
	d.noteProfile(&n)
	d.noteChain(&n)
	d.noteButton(&n)
	d.noteEmergency(&n)
	d.noteLeg(&n, &d.start, "C1", "F1", "pins.startSize", "pins.startFuseA")
	d.noteLeg(&n, &d.aux, "C2", "F2", "pins.auxSize", "pins.auxFuseA")
	if d.fedHouse() {
		d.noteLeg(&n, &d.house, "H1", "F4", "", "")
	}
	if d.crosses(d.returnLeg()) && d.back.byChassis {
		n.add("return.hitch", d.returnLeg().id, stop, nil, nil, unpin("Return by cable", "pins.return"))
	}
	d.noteChecks(&n)
	sort.SliceStable(n, func(i, j int) bool { return rank[n[i].Severity] < rank[n[j].Severity] })
	return n
}

// noteChecks brings what was looked at on the vehicle and is not as it has to be among
// the notes.
func (d *design) noteChecks(n *noted) {
	for _, c := range d.checks() {
		if c.Level != Bad {
			continue
		}
		column := c.Column
		if d.kind == coupling.SecondAlternator && column == "start" {
			column = "alternator"
		}
		*n = append(*n, Note{ID: c.ID, Column: column, Severity: stop, Text: c.Text, Why: "Seen on the vehicle, or answered so.", Cures: []Cure{}, Mark: c.Mark})
	}
}

func (d *design) noteSources(n *noted) {
	f := d.facts
	has, asked := d.idleA, d.startAsksA()
	if asked > has {
		n.add("alternator.idle", "alternator", caution, with(working.Text(max(0, has), "A", 0), working.Text(asked, "A", 0)), with(working.Text(d.idleState().inV, "V", 1)), d.chargerWithin(has)...)
	}
	half := d.rates.half.Unrounded
	if d.start.amps > half {
		n.add("alternator.half", "alternator", caution,
			with(working.Text(d.start.amps, "A", 0), working.Text(100*d.start.amps/f.LabelA.Value, "%", 0)),
			with(working.Text(max(0, has), "A", 0), working.Text(max(0, d.cruiseA), "A", 0)), d.chargerWithin(half)...)
	}
	if f.Varies() && f.Regulation != "variable" {
		n.add("regulation.unknown", "alternator", remark, nil, nil, ask("Say how it is known", "regulation"))
	}
	if f.DailyAh.Value > d.usable().Unrounded {
		n.add("use.large", "aux", caution, with(working.Plain(f.DailyAh.Value, "Ah", 0), d.usable().Text), nil, ask("Change the battery", "battery"))
	}
}

// chargerWithin offers the largest charger whose input stays within amps, where
// there is one smaller than the one now.
func (d *design) chargerWithin(amps float64) []Cure {
	best := 0.0
	if d.kind.Charger() && !d.kind.Joins() {
		for _, c := range d.book.Chargers {
			if d.inputA(c) <= amps && c.OutputA < d.charger.OutputA && d.pinOf(c.OutputA) != nil {
				best = c.OutputA
			}
		}
	}
	if best == 0 {
		return nil
	}
	return []Cure{set("Set charger to "+working.Plain(best, "A", 0), "pins.chargerA", working.Plain(best, "", 0))}
}

func (d *design) notePlace(n *noted) {
	f := d.facts
	if !f.PlaceFits {
		n.add("place.unfit", "aux", caution, with(*d.doc.Aux.Place, f.Place.Label), nil, ask("Say where it sits", "place"))
	}
	if f.Chemistry.Vented && !f.Place.Outside {
		n.add("place.gas", "aux", stop, with(f.Chemistry.Label), nil,
			set("Take AGM", "aux.chemistry", "agm"), set("Put it under the bonnet", "aux.place", "bonnet"))
	}
	if !f.Chemistry.Lead && f.Place.Hot {
		n.add("place.hot", "aux", stop, nil, nil, ask("Say where it sits", "place"), set("Take AGM", "aux.chemistry", "agm"))
	}
}

func (d *design) noteMethod(n *noted) {
	if d.doc.Pins.Coupling == nil {
		return
	}
	for _, m := range d.methods {
		if m.Kind != d.kind || !m.RuledOut {
			continue
		}
		var against, unless []string
		for _, r := range m.Reasons {
			if r.Effect == method.RulesOut {
				against, unless = append(against, r.Text), append(unless, r.Unless)
			}
		}
		n.add("method.pinned", "coupling", stop, with(m.Label, strings.Join(against, " ")),
			with("It would need: "+strings.Join(unless, " ")), unpin("Let the plan choose", "pins.coupling"))
	}
}

func (d *design) noteCharger(n *noted) {
	f := d.facts
	out := working.Plain(d.charger.OutputA, "A", 0)
	if d.charger.OutputA < d.needA {
		n.add("charger.short", "coupling", caution, with(out, working.Text(d.needA, "A", 0), working.Plain(f.DailyAh.Value, "Ah", 0), working.Plain(f.DrivenHours.Value, "h", 2)), nil, d.largerCharger()...)
	}
	if accepts := d.rates.accepts; d.charger.OutputA > accepts.Unrounded {
		n.add("charger.acceptance", "coupling", caution, with(out, accepts.Text), nil, unpin("Let the plan choose", "pins.chargerA"))
	}
	for _, s := range d.states {
		if s.err == nil || s.sags || s.kind != charging {
			continue
		}
		n.add("charger.starved", "coupling", stop, with(s.label, s.err.Error()), nil, d.starvedCures()...)
		break
	}
	if after := f.AuxM.Value; after > farM && after > f.StartM.Value {
		n.add("charger.far", "coupling", caution, with(working.Text(after, "m", 1)), nil, ask("Measure the routes", "start-route"))
	}
	if bayC := f.AuxBay.AmbientC; bayC > d.charger.MaxAmbientC {
		n.add("charger.hot", "coupling", caution, with(working.Text(bayC, "°C", 0), working.Text(d.charger.MaxAmbientC, "°C", 0)), nil)
	}
}

// largerCharger offers the charger that meets the need where the alternator and
// the battery bear it.
func (d *design) largerCharger() []Cure {
	if d.doc.Pins.ChargerA == nil || d.autoChargerA <= d.charger.OutputA {
		return nil
	}
	return []Cure{unpin("Let the plan choose "+working.Plain(d.autoChargerA, "A", 0), "pins.chargerA")}
}

func (d *design) starvedCures() []Cure {
	var cures []Cure
	if d.doc.Pins.StartSize != nil {
		cures = append(cures, unpin("Fit "+d.start.auto.Label, "pins.startSize"))
	}
	if d.doc.Pins.ChargerA != nil {
		cures = append(cures, unpin("Let the plan choose the charger", "pins.chargerA"))
	}
	return cures
}

func (d *design) noteRelay(n *noted) {
	f, cutIn, cutOut := d.facts, d.contact.Sensing.CutInV*d.facts.N, d.contact.Sensing.CutOutV*d.facts.N
	for _, s := range d.states {
		if s.kind != charging {
			continue
		}
		switch {
		case !s.Joined:
			n.add("relay.open", "coupling", stop, with(s.label, working.Text(s.busV, "V", 1), working.Text(cutIn, "V", 1)), nil, d.otherCoupling()...)
		case s.sags && s.sensedV < cutOut:
			n.add("relay.idle", "coupling", remark, with(working.Text(s.sensedV, "V", 1), working.Text(cutOut, "V", 1)), nil)
		case s.sensedV < cutOut:
			n.add("relay.chatter", "coupling", caution, with(s.label, working.Text(s.sensedV, "V", 2), working.Text(cutOut, "V", 1)), nil, d.otherCoupling()...)
		}
	}
	if parked := d.stateBy("parked"); parked.Joined {
		n.add("relay.night", "coupling", stop, with(f.Chemistry.Label, working.Text(parked.sensedV, "V", 1), working.Text(cutOut, "V", 1)), nil, d.otherCoupling()...)
	}
}

// noteContact is what a plain contact between the batteries does to them.
func (d *design) noteContact(n *noted) {
	f := d.facts
	if d.kind == coupling.SecondAlternator {
		return
	}
	if accepts := d.rates.accepts; d.aux.amps > accepts.Unrounded*(1+settledWithin) {
		n.add("relay.surge", "aux", stop, with(working.Text(d.aux.amps, "A", 0), accepts.Text), nil, d.otherCoupling()...)
	}
	if full := f.RegulatedV.Value; full < d.profile.AbsorptionLow {
		n.add("relay.undercharge", "aux", caution, with(working.Text(full, "V", 1), f.Chemistry.Label, working.Text(d.profile.AbsorptionLow, "V", 1)), nil, d.otherCoupling()...)
	}
}

func (d *design) otherCoupling() []Cure {
	return []Cure{set("Fit a DC-DC charger", "pins.coupling", string(coupling.DCDC))}
}

func (d *design) noteLeg(n *noted, l *leg, wire, fuse, sizePath, fusePath string) {
	t := l.trial
	amps := func(v float64) string { return working.Text(v, "A", 0) }
	cure := unpin("Fit "+l.auto.Label, sizePath)
	if insulation := d.facts.Insulation; l.bay.AmbientC >= insulation.LimitC {
		var cures []Cure
		if best := cable.Class105; l.bay.AmbientC < best.LimitC {
			cures = append(cures, set("Take "+best.Label+" insulation", "cable.insulation", fmt.Sprint(best.LimitC)))
		}
		n.add("cable.place", l.id, stop, with(wire, working.Text(l.bay.AmbientC, "°C", 0), insulation.Label), nil, cures...)
		return
	}
	switch {
	case l.noCable != nil && l.sizePin == nil:
		n.add("cable.none", l.id, stop, with(wire), with(l.noCable.Error()))
	case t.AmpacityA < l.amps:
		n.add("cable.burns", l.id, stop, with(wire, t.Size.Copper(), amps(t.AmpacityA), amps(l.amps)), with(working.Text(t.ConductorC, "°C", 0)), cure)
	case t.DropV > l.budgetV+0.0005 && l.sizePin != nil:
		n.add("cable.thin", l.id, caution, with(wire, t.Size.Copper(), working.Text(t.DropV, "V", 2), working.Text(max(0, l.budgetV), "V", 2)), nil, cure)
	case l.widened:
		n.add("cable.drop", l.id, caution, with(wire, working.Text(t.DropV, "V", 2), working.Text(max(0, l.budgetV), "V", 2)), nil)
	}
	d.noteFuse(n, l, wire, fuse, sizePath, fusePath)
}

func (d *design) noteFuse(n *noted, l *leg, wire, fuse, sizePath, fusePath string) {
	t, rating := l.trial, working.Plain(l.fuse.RatingA, "A", 1)
	amps := func(a float64) string { return working.Text(a, "A", 0) }
	carries := l.fuse.Carries(l.bay.AmbientC)
	var cures []Cure
	if l.fusePin != nil && l.autoFuse.RatingA > 0 {
		cures = append(cures, unpin("Fit "+working.Plain(l.autoFuse.RatingA, "A", 1), fusePath))
	}
	if l.sizePin != nil {
		cures = append(cures, unpin("Fit "+l.auto.Label, sizePath))
	}
	if l.fusePin == nil && l.noFuse != nil {
		n.add("fuse.none", l.fuseID, stop, with(fuse, t.Size.Label), with(l.noFuse.Error(), l.auto.Copper()), cures...)
		return
	}
	if l.fuse.RatingA > t.AmpacityA {
		n.add("fuse.over", l.fuseID, stop, with(fuse, rating, wire, working.Text(t.AmpacityA, "A", 0)), nil, cures...)
	} else if !l.cover.Saves {
		n.add("fuse.slow", l.fuseID, stop, with(fuse, working.Seconds(l.cover.Far.OpensMaxS), wire, working.Seconds(l.cover.Far.BearsS)), nil, cures...)
	} else if o := l.cover.Overload; !o.Saves() {
		n.add("fuse.overload", l.fuseID, caution, with(fuse, amps(o.Amps), working.Seconds(o.OpensMaxS), wire, working.Seconds(o.BearsS)), nil, cures...)
	}
	if l.fuse.Family.Resets == protect.Itself {
		n.add("fuse.resets", l.fuseID, stop, with(fuse), nil, unpin("Fit a fuse", "pins.device"))
	}
	if ok := slices.ContainsFunc(l.device.Families, func(f protect.Family) bool { return f.ID == l.fuse.Family.ID }); !ok {
		n.add("fuse.kind", l.fuseID, caution, with(fuse, rating, l.device.Label), nil, cures...)
	}
	if l.sheetA > 0 && l.fuse.RatingA > l.sheetA {
		n.add("fuse.sheet", l.fuseID, caution, with(fuse, rating, working.Plain(l.sheetA, "A", 1)), nil, cures...)
	}
	if l.nearFault > l.fuse.Family.BreaksA {
		n.add("fuse.breaks", l.fuseID, stop, with(fuse, kilo(l.fuse.Family.BreaksA), kilo(l.nearFault)), nil, cures...)
	}
	if l.amps > carries+0.05 {
		n.add("fuse.under", l.fuseID, caution, with(fuse, working.Text(l.amps, "A", 0), rating, working.Text(carries, "A", 0)), nil, cures...)
	}
}
