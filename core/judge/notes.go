// Package judge holds a design against what is right: notes with their cures, the chain in
// series, what is looked at on the vehicle, the balance of a day, the signal, the settings.
package judge

import (
	"fmt"
	"sort"
	"strings"

	"epitrope/core/coupling"
	"epitrope/core/design"
	"epitrope/core/method"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// farM is how far a charger may be from its battery before that is remarked on.
// Source: common practice, no source.
const farM = 2.0

// noted collects the notes.
type noted []Note

func (n *noted) add(id, column, severity string, text, why []any, cures ...verdict.Cure) {
	w := words[id]
	if cures == nil {
		cures = []verdict.Cure{}
	}
	*n = append(*n, Note{ID: id, Column: column, Severity: severity,
		Text: fmt.Sprintf(w[0], text...), Why: fmt.Sprintf(w[1], why...), Cures: cures, Mark: MarkOf(id)})
}

// MarkOf is where a note's rule comes from: common practice, where nothing else is said.
func MarkOf(id string) working.Origin {
	if m, ok := noteMarks[id]; ok {
		return m
	}
	return working.Practice
}

func with(args ...any) []any { return args }

// Notes are what is weak about the plan, worst first.
func Notes(d *design.Design) []Note {
	n := noted{}
	noteSources(d, &n)
	notePlace(d, &n)
	noteMethod(d, &n)
	if d.Kind.Charger() {
		noteCharger(d, &n)
	} else {
		noteContact(d, &n)
	}
	if d.Is.Senses {
		noteRelay(d, &n)
	}
	noteSignal(d, &n)
	noteProfile(d, &n)
	noteChain(d, &n)
	noteButton(d, &n)
	noteEmergency(d, &n)
	noteLeg(d, &n, &d.Start, "C1", "F1", "pins.startSize", "pins.startFuseA")
	noteLeg(d, &n, &d.Aux, "C2", "F2", "pins.auxSize", "pins.auxFuseA")
	if d.FedHouse() {
		noteLeg(d, &n, &d.House, "H1", "F4", "", "")
	}
	if d.Crosses(d.ReturnLeg()) && d.Back.ByChassis {
		n.add("return.hitch", d.ReturnLeg().ID, verdict.Stop, nil, nil, verdict.Unpin("Return by cable", "pins.return"))
	}
	noteChecks(d, &n)
	sort.SliceStable(n, func(i, j int) bool { return verdict.Rank[n[i].Severity] < verdict.Rank[n[j].Severity] })
	return n
}

// noteChecks brings what was looked at on the vehicle and is not as it has to be among
// the notes.
func noteChecks(d *design.Design, n *noted) {
	for _, c := range Checks(d) {
		if c.Level != verdict.Bad {
			continue
		}
		column := c.Column
		if d.Is.OwnMachine && column == "start" {
			column = "alternator"
		}
		*n = append(*n, Note{ID: c.ID, Column: column, Severity: verdict.Stop, Text: c.Text, Why: "Seen on the vehicle, or answered so.",
			Cures: []verdict.Cure{}, Mark: c.Mark})
	}
}

func noteSources(d *design.Design, n *noted) {
	f := d.Facts
	has, asked := d.IdleA, d.StartAsksA()
	if asked > has {
		n.add("alternator.idle", "alternator", verdict.Beware, with(working.Text(max(0, has), "A", 0), working.Text(asked, "A", 0)),
			with(working.Text(d.IdleState().InV, "V", 1)), chargerWithin(d, has)...)
	}
	half := d.Rates.Half.Unrounded
	if d.Start.Amps > half {
		n.add("alternator.half", "alternator", verdict.Beware,
			with(working.Text(d.Start.Amps, "A", 0), working.Text(100*d.Start.Amps/f.LabelA.Value, "%", 0)),
			with(working.Text(max(0, has), "A", 0), working.Text(max(0, d.CruiseA), "A", 0)), chargerWithin(d, half)...)
	}
	if f.Varies() && f.Regulation != "variable" {
		n.add("regulation.unknown", "alternator", verdict.Remark, nil, nil, verdict.Ask("Say how it is known", "regulation"))
	}
	if f.DailyAh.Value > d.Usable().Unrounded {
		n.add("use.large", "aux", verdict.Beware, with(working.Plain(f.DailyAh.Value, "Ah", 0), d.Usable().Text), nil,
			verdict.Ask("Change the battery", "battery"))
	}
}

// chargerWithin offers the largest charger whose input stays within amps, where
// there is one smaller than the one now.
func chargerWithin(d *design.Design, amps float64) []verdict.Cure {
	best := 0.0
	if d.Kind.Charger() && !d.Kind.Joins() {
		for _, c := range d.Book.Chargers {
			if d.InputA(c) <= amps && c.OutputA < d.Charger.OutputA && d.PinOf(c.OutputA) != nil {
				best = c.OutputA
			}
		}
	}
	if best == 0 {
		return nil
	}
	return []verdict.Cure{verdict.Set("Set charger to "+working.Plain(best, "A", 0), "pins.chargerA", working.Plain(best, "", 0))}
}

func notePlace(d *design.Design, n *noted) {
	f := d.Facts
	if !f.PlaceFits {
		n.add("place.unfit", "aux", verdict.Beware, with(*d.Doc.Aux.Place, f.Place.Label), nil, verdict.Ask("Say where it sits", "place"))
	}
	if f.Chemistry.Vented && !f.Place.Outside {
		n.add("place.gas", "aux", verdict.Stop, with(f.Chemistry.Label), nil,
			verdict.Set("Take AGM", "aux.chemistry", "agm"), verdict.Set("Put it under the bonnet", "aux.place", "bonnet"))
	}
	if f.Chemistry.Managed() && f.Place.Hot {
		n.add("place.hot", "aux", verdict.Stop, with(f.Chemistry.Name()), nil, verdict.Ask("Say where it sits", "place"),
			verdict.Set("Take AGM", "aux.chemistry", "agm"))
	}
}

func noteMethod(d *design.Design, n *noted) {
	if d.Doc.Pins.Coupling == nil {
		return
	}
	for _, m := range d.Methods {
		if m.Kind != d.Kind || !m.RuledOut {
			continue
		}
		var against, unless []string
		for _, r := range m.Reasons {
			if r.Effect == method.RulesOut {
				against, unless = append(against, r.Text), append(unless, r.Unless)
			}
		}
		n.add("method.pinned", "coupling", verdict.Stop, with(m.Label, strings.Join(against, " ")),
			with("It would need: "+strings.Join(unless, " ")), verdict.Unpin("Let the plan choose", "pins.coupling"))
	}
}

func noteCharger(d *design.Design, n *noted) {
	f := d.Facts
	out := working.Plain(d.Charger.OutputA, "A", 0)
	if d.Charger.OutputA < d.NeedA {
		n.add("charger.short", "coupling", verdict.Beware, with(out, working.Text(d.NeedA, "A", 0), working.Plain(f.DailyAh.Value, "Ah", 0),
			working.Plain(f.DrivenHours.Value, "h", 2)), nil, largerCharger(d)...)
	}
	if accepts := d.Rates.Accepts; d.Charger.OutputA > accepts.Unrounded {
		n.add("charger.acceptance", "coupling", verdict.Beware, with(out, accepts.Text), nil,
			verdict.Unpin("Let the plan choose", "pins.chargerA"))
	}
	for _, s := range d.States {
		if s.Err == nil || s.Sags || s.Kind != design.Charging {
			continue
		}
		n.add("charger.starved", "coupling", verdict.Stop, with(s.Label, s.Err.Error()), nil, starvedCures(d)...)
		break
	}
	if after := f.AuxM.Value; after > farM && after > f.StartM.Value {
		n.add("charger.far", "coupling", verdict.Beware, with(working.Text(after, "m", 1)), nil, verdict.Ask("Measure the routes", "start-route"))
	}
	if bayC := f.AuxBay.AmbientC; bayC > d.Charger.MaxAmbientC {
		n.add("charger.hot", "coupling", verdict.Beware, with(working.Text(bayC, "°C", 0), working.Text(d.Charger.MaxAmbientC, "°C", 0)), nil)
	}
}

// largerCharger offers the charger that meets the need where the alternator and
// the battery bear it.
func largerCharger(d *design.Design) []verdict.Cure {
	if d.Doc.Pins.ChargerA == nil || d.AutoChargerA <= d.Charger.OutputA {
		return nil
	}
	return []verdict.Cure{verdict.Unpin("Let the plan choose "+working.Plain(d.AutoChargerA, "A", 0), "pins.chargerA")}
}

func starvedCures(d *design.Design) []verdict.Cure {
	var cures []verdict.Cure
	if d.Doc.Pins.StartSize != nil {
		cures = append(cures, verdict.Unpin("Fit "+d.Start.Auto.Label, "pins.startSize"))
	}
	if d.Doc.Pins.ChargerA != nil {
		cures = append(cures, verdict.Unpin("Let the plan choose the charger", "pins.chargerA"))
	}
	return cures
}

func noteRelay(d *design.Design, n *noted) {
	f, cutIn, cutOut := d.Facts, d.Contact.Sensing.CutInV*d.Facts.N, d.Contact.Sensing.CutOutV*d.Facts.N
	for _, s := range d.States {
		if s.Kind != design.Charging {
			continue
		}
		switch {
		case !s.Joined:
			n.add("relay.open", "coupling", verdict.Stop, with(s.Label, working.Text(s.BusV, "V", 1), working.Text(cutIn, "V", 1)), nil,
				otherCoupling()...)
		case s.Sags && s.SensedV < cutOut:
			n.add("relay.idle", "coupling", verdict.Remark, with(working.Text(s.SensedV, "V", 1), working.Text(cutOut, "V", 1)), nil)
		case s.SensedV < cutOut:
			n.add("relay.chatter", "coupling", verdict.Beware, with(s.Label, working.Text(s.SensedV, "V", 2), working.Text(cutOut, "V", 1)), nil,
				otherCoupling()...)
		}
	}
	if parked := d.StateBy("parked"); parked.Joined {
		n.add("relay.night", "coupling", verdict.Stop, with(f.Chemistry.Label, working.Text(parked.SensedV, "V", 1),
			working.Text(cutOut, "V", 1)), nil, otherCoupling()...)
	}
}

// noteContact is what a plain contact between the batteries does to them.
func noteContact(d *design.Design, n *noted) {
	f := d.Facts
	if d.Is.OwnMachine {
		return
	}
	if accepts := d.Rates.Accepts; d.Aux.Amps > accepts.Unrounded*(1+design.SettledWithin) {
		n.add("relay.surge", "aux", verdict.Stop, with(working.Text(d.Aux.Amps, "A", 0), accepts.Text), nil, otherCoupling()...)
	}
	if full := f.RegulatedV.Value; full < d.Profile.AbsorptionLow {
		n.add("relay.undercharge", "aux", verdict.Beware, with(working.Text(full, "V", 1), f.Chemistry.Label,
			working.Text(d.Profile.AbsorptionLow, "V", 1)), nil, otherCoupling()...)
	}
}

func otherCoupling() []verdict.Cure {
	return []verdict.Cure{verdict.Set("Fit a DC-DC charger", "pins.coupling", string(coupling.DCDC))}
}

// Note is something to know about the plan, with its cure.
type Note struct {
	ID       string         `json:"id"`
	Column   string         `json:"column"`
	Severity string         `json:"severity" enum:"stop,caution,remark"`
	Text     string         `json:"text"`
	Why      string         `json:"why"`
	Cures    []verdict.Cure `json:"cures"`

	Mark working.Origin `json:"mark" enum:"standard,practice,physics,memory" doc:"Where the rule comes from"`
}

// Cautions stand once on every plan, where the reader acts on it.
var Cautions = []string{
	"The short-circuit current of any vehicle battery welds tools: negative off first and on last, insulated tools, no jewellery, fuses " +
		"out while working and fitted last.",
	"Airbag, brake, steering and engine-management circuits are not feed points. Mains equipment is for a licensed person.",
	"Local vehicle and caravan electrical codes, the battery's and the device's own manuals and a licensed practitioner's word override " +
		"any figure here.",
}
