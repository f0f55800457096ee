package plan

import (
	"fmt"
	"math"
	"strings"

	"epitrope/core/coupling"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/working"
)

// Link is one element of the run in series with the others: the same worst current
// against what it bears for hours where it sits.
type Link struct {
	Column  string  `json:"column" doc:"The column it belongs to"`
	Name    string  `json:"name"`
	Amps    float64 `json:"amps"`
	BearsA  float64 `json:"bearsA"`
	Share   float64 `json:"share" doc:"Amps over what it bears, in %; 999 stands for more, and for what bears nothing"`
	Why     string  `json:"why" doc:"What it bears, and from what"`
	Weakest bool    `json:"weakest,omitempty"`
	Level   Level   `json:"level" enum:"good,caution,bad"`
}

// nearlyAll is the share of what an element bears from which it counts as at its limit.
// Source: common practice, no source.
const nearlyAll = 0.90

// mostShare is the largest share that is told.
const mostShare = 999

// chain lists what carries the run's current, from the front to the back, and marks the
// weakest.
func (d *design) chain() []Link {
	list := []Link{}
	add := func(column, name string, amps, bears float64, why string) {
		l := Link{Column: column, Name: name, Amps: working.Round(amps, 1), BearsA: working.Round(bears, 0), Share: working.Round(min(100*amps/bears, mostShare), 0), Why: why, Level: Good}
		switch {
		case amps > bears*(1+settledWithin):
			l.Level = Bad
		case amps > nearlyAll*bears:
			l.Level = Caution
		}
		list = append(list, l)
	}
	isolator := func(at string, l *leg) {
		if at == d.facts.Extras.Isolator {
			add("q1", "Q1 "+d.isolator().Label, l.amps, d.isolator().ContinuousA*parts.ContactFactor(l.bay.AmbientC), heated(d.isolator().ContinuousA, l.bay.AmbientC))
		}
	}
	run := func(l *leg, fuse, wire string) {
		add(l.fuseID, fuse+" "+l.fuse.Label(), l.amps, l.fuse.RatingA*l.fuse.Family.Holds(l.bay.AmbientC), fmt.Sprintf("what it holds for hours at %s", working.Text(l.bay.AmbientC, "°C", 0)))
		add(l.id, wire+" "+l.trial.Size.Copper(), l.amps, l.trial.AmpacityA, fmt.Sprintf("where it lies, %s insulation", d.facts.Insulation.Label))
		if d.crosses(l) {
			add("x1", "X1 "+d.plugCard.Label, l.amps, d.plugCard.RatingA*parts.ContactFactor(l.bay.AmbientC), heated(d.plugCard.RatingA, l.bay.AmbientC))
		}
	}
	run(&d.start, "F1", "C1")
	isolator(job.FrontIsolator, &d.start)
	bay := d.start.bay
	if !d.atStart() {
		bay = d.aux.bay
	}
	contact := func(name string, amps, rating float64) {
		add("coupling", name, amps, rating*parts.ContactFactor(bay.AmbientC), heated(rating, bay.AmbientC))
	}
	switch {
	case d.kind == coupling.DCDCChangeover:
		contact("87a of the "+d.changeover.Label, d.start.amps, d.changeover.Relay.BreakA)
	case d.kind == coupling.DCDCHighCurrent:
		contact(d.contact.Label, d.start.amps, d.contact.ContinuousA)
	case !d.kind.Charger():
		contact(d.contact.Label, d.start.amps, d.contact.ContinuousA)
	}
	run(&d.aux, "F2", "C2")
	isolator(job.AuxIsolator, &d.aux)
	isolator(job.MasterSwitch, &d.aux)
	if e := d.facts.Extras; e.Monitor {
		add("aux", "R1 shunt", d.aux.amps, e.ShuntA.Value*parts.ShuntHours, "two thirds of "+working.Plain(e.ShuntA.Value, "A", 0)+", for hours")
	}
	back := d.returnLeg()
	add("return", "return lead "+back.trial.Size.Copper(), back.amps, back.trial.AmpacityA, "as its feed")
	if d.bondedBack() {
		add("return", "B1 bonding lead "+d.bondSize().Copper(), back.amps, d.bondBearsA(), "where it lies, "+d.facts.Insulation.Label+" insulation")
	}
	weakest := 0
	for i, l := range list {
		if l.Share > list[weakest].Share {
			weakest = i
		}
	}
	list[weakest].Weakest = true
	return list
}

// heated says what a contact's rating comes to in the heat.
func heated(rating, ambientC float64) string {
	return fmt.Sprintf("%s of %s at %s (from memory)", working.Text(100*parts.ContactFactor(ambientC), "%", 0), working.Plain(rating, "A", 0), working.Text(ambientC, "°C", 0))
}

// noteChain says which element of the chain is beyond, or at, what it bears. Cables and
// fuses have notes of their own.
func (d *design) noteChain(n *noted) {
	for _, l := range d.chain() {
		if l.Column != "coupling" && l.Column != "x1" && l.Column != "q1" || l.Level == Good {
			continue
		}
		id, severity := "chain.limit", caution
		if l.Level == Bad {
			id, severity = "chain.over", stop
		}
		path, pinned := "pins.contactA", d.doc.Pins.ContactA != nil
		var cures []Cure
		switch l.Column {
		case "x1":
			path, pinned = "pins.plugA", d.doc.Pins.PlugA != nil
		case "q1":
			path, pinned = "extras.isolatorA", d.doc.Extras.IsolatorA != nil
		}
		if pinned {
			cures = append(cures, unpin("Let the plan choose", path))
		} else if l.Column == "coupling" && d.kind == coupling.DCDCChangeover {
			cures = append(cures, set("Fit a charger without changeover", "pins.coupling", string(coupling.DCDC)))
		}
		n.add(id, l.Column, severity, with(strings.ToUpper(l.Name[:1])+l.Name[1:], working.Text(l.Amps, "A", 0), working.Text(l.BearsA, "A", 0)), nil, cures...)
	}
	d.notePlug(n)
}

// notePlug says where a cable does not go into its plug, or its relay.
func (d *design) notePlug(n *noted) {
	for _, l := range []*leg{&d.start, &d.aux} {
		if d.crosses(l) && !d.plugCard.Takes(l.trial.Size.CopperMM2()) {
			n.add("plug.cable", "x1", caution, with(strings.ToUpper(l.id), l.trial.Size.Copper(), d.plugCard.Label, working.Plain(d.plugCard.MostMM2, "mm²", 1)), nil)
		}
		if d.kind == coupling.DCDCChangeover && !d.changeover.Takes(l.trial.Size.CopperMM2()) {
			n.add("changeover.cable", "coupling", caution, with(strings.ToUpper(l.id), l.trial.Size.Copper(), d.changeover.Label, working.Plain(d.changeover.MostMM2, "mm²", 0)), nil, unpin("Let the plan choose", "pins.contactA"))
		}
	}
}

// seriesOhm is the resistance that a joining current meets from post to post.
func (d *design) seriesOhm() float64 { return math.Max(1e-4, d.start.totalOhm()+d.aux.totalOhm()) }
