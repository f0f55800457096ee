package judge

import (
	"fmt"
	"strings"

	"epitrope/core/cable"
	"epitrope/core/design"
	"epitrope/core/parts"
	"epitrope/core/system"
	"epitrope/core/unit"
	"epitrope/core/verdict"
)

// Link is one element of the run in series with the others: the same worst current
// against what it bears for hours where it sits.
type Link struct {
	Column  string        `json:"column" doc:"The column it belongs to"`
	Name    string        `json:"name"`
	Amps    float64       `json:"amps"`
	BearsA  float64       `json:"bearsA"`
	Share   float64       `json:"share" doc:"Amps over what it bears, in %; 999 stands for more, and for what bears nothing"`
	Why     string        `json:"why" doc:"What it bears, and from what"`
	Weakest bool          `json:"weakest,omitempty"`
	Level   verdict.Level `json:"level" enum:"good,caution,bad"`
}

// nearlyAll is the share of what an element bears from which it counts as at its limit.
// Source: common practice, no source.
const nearlyAll = 0.90

// mostShare is the largest share that is told.
const mostShare = 999

// shareOf is amps over what bears them, in %: nothing of nothing is nothing.
func shareOf(amps, bears float64) float64 {
	if amps == 0 {
		return 0
	}
	return min(100*amps/bears, mostShare)
}

// Chain lists what carries the run's current, from the front to the back, and marks the
// weakest.
func Chain(d *design.Design) []Link {
	list := []Link{}
	add := func(column, name string, amps, bears float64, why string) {
		l := Link{Column: column, Name: name, Amps: unit.Round(amps, 1), BearsA: unit.Round(bears, 0),
			Share: unit.Round(shareOf(amps, bears), 0), Why: why, Level: verdict.Good}
		switch {
		case amps > bears*(1+design.SettledWithin):
			l.Level = verdict.Bad
		case amps > nearlyAll*bears:
			l.Level = verdict.Caution
		}
		list = append(list, l)
	}
	inHeat := func(column, name string, amps, ratingA float64, bay cable.Bay) {
		add(column, name, amps, ratingA*parts.ContactFactor(bay.AmbientC), heated(ratingA, bay.AmbientC))
	}
	for _, s := range d.System.Way() {
		l := d.Leg(s)
		switch {
		case s.ID == d.System.Ends.Coupling:
			if name, ratingA := contactInSeries(d); ratingA > 0 {
				inHeat(s.ID, name, d.Start.Amps, ratingA, d.CouplingBay())
			}
		case s.Component == nil:
			add(s.ID, strings.ToUpper(s.ID)+" "+l.Trial.Size.Copper(), l.Amps, l.Trial.AmpacityA,
				fmt.Sprintf("where it lies, %s insulation", l.Loop.Insulation.Label))
		case s.Component.Kind == system.KindFuse:
			add(s.ID, s.Component.Name+" "+l.Fuse.Label(), l.Amps, l.Fuse.RatingA*l.Fuse.Family.Holds(l.Bay.AmbientC),
				fmt.Sprintf("what it holds for hours at %s", unit.Text(l.Bay.AmbientC, "°C", 0)))
		case s.Component.Kind == system.KindSwitch:
			inHeat(s.ID, s.Component.Name+" "+d.Isolator().Label, l.Amps, d.Isolator().ContinuousA, l.Bay)
		case s.ID == "k2":
			inHeat(s.ID, "K2 "+d.AheadCard.Label, l.Amps, d.AheadCard.ContinuousA, l.Bay)
		case s.Component.Kind == system.KindOutlet:
			if most := d.Facts.Arranged.FromA; most != nil {
				add(s.ID, "body-builder's stud", l.Amps, *most, "what its maker allows")
			}
		case s.Component.Kind == system.KindPlug:
			inHeat(s.ID, s.Component.Name+" "+d.PlugCard.Label, l.Amps, d.PlugCard.RatingA, l.Bay)
		}
	}
	if e := d.Facts.Extras; e.Monitor {
		add("aux", "R1 shunt", d.Aux.Amps, e.ShuntA.Value*parts.ShuntHours, "two thirds of "+unit.Plain(e.ShuntA.Value, "A", 0)+", for hours")
	}
	back := d.ReturnLeg()
	add("return", "return lead "+back.Trial.Size.Copper(), back.Amps, back.Trial.AmpacityA, "as its feed")
	if d.BondedBack() {
		add("return", "B1 bonding lead "+d.BondSize().Copper(), back.Amps, d.BondBearsA(),
			"where it lies, "+d.Facts.Insulation.Label+" insulation")
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

// contactInSeries is the contact that the run's current passes at the coupling, and what it
// bears for hours when cool; 0 A where it passes none.
func contactInSeries(d *design.Design) (name string, ratingA float64) {
	switch {
	case d.Is.Beside == design.RestContact:
		return "87a of the " + d.Changeover.Label, d.Changeover.Relay.BreakA
	case d.Kind.Charger() && d.Is.Beside != design.Bypass:
		return "", 0
	}
	return d.Contact.Label, d.Contact.ContinuousA
}

// heated says what a contact's rating comes to in the heat.
func heated(rating, ambientC float64) string {
	return fmt.Sprintf("%s of %s at %s (from memory)", unit.Text(100*parts.ContactFactor(ambientC), "%", 0), unit.Plain(rating, "A", 0),
		unit.Text(ambientC, "°C", 0))
}
