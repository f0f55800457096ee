package section

import (
	"fmt"
	"math"
	"strings"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/run"
	"epitrope/core/system"
	"epitrope/core/unit"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// Columns are the parts of the run with their rows.
func Columns(d *design.Design, figures working.Figures) []Column {
	b, place := d.Facts.Body, d.Facts.Place.At
	list := []Column{alternatorColumn(d, b, figures), leadColumn(d, b), startColumn(d, b, figures)}
	if d.Is.OwnMachine {
		list = []Column{secondColumn(d, b, figures)}
	}
	near, far := b.Start, d.CouplingAt() // the ends of the cable that a part is at
	for _, s := range d.System.Way() {
		l := d.Leg(s)
		switch {
		case s.ID == d.System.Ends.Coupling:
			list = append(list, couplingColumn(d, figures))
			near, far = place, d.CouplingAt()
		case s.Component == nil:
			list = append(list, cableColumn(d, l, strings.ToUpper(s.ID), between(near, far), figures))
		case s.Component.Kind == system.KindFuse:
			list = append(list, fuseColumn(l, s.Component.Name, toward(near, far, fuseM), figures))
		case s.Component.Kind == system.KindSwitch:
			list = append(list, isolatorColumn(d, l, toward(near, far, isolatorM(d))))
		case s.ID == "k2":
			list = append(list, aheadColumn(d, l, toward(near, far, isolatorM(d))))
		case s.Component.Kind == system.KindOutlet:
			list = append(list, outletColumn(d, toward(near, far, fuseM/2)))
		case s.Component.Kind == system.KindPlug:
			list = append(list, plugColumn(d, l))
		}
	}
	list = append(list, auxColumn(d, place, figures))
	for i := range list {
		list[i].Folded = foldedAt(d, list[i].ID)
	}
	markAssumed(d, list)
	return list
}

// fuseM is how far from its battery a fuse is drawn.
const fuseM = 0.3

// isolatorM is how far from its battery Q1 is drawn: before the battery's fuse as a master
// switch, behind it otherwise.
func isolatorM(d *design.Design) float64 {
	if d.Facts.Extras.Isolator == job.MasterSwitch {
		return fuseM / 2
	}
	return fuseM + 0.2
}

// said are the answers that a part's first row repeats, by column.
var said = map[string][]string{
	"alternator": {"alternator.label"}, "start": {"startBattery.capacityAh"},
	"c1": {"routes.startM"}, "c2": {"routes.auxM"}, "aux": {"aux.chemistry", "aux.capacityAh"},
}

// markAssumed marks the parts that stand on answers nobody gave.
func markAssumed(d *design.Design, list []Column) {
	for i := range list {
		for _, path := range said[list[i].ID] {
			list[i].Part.Assumed = list[i].Part.Assumed || assumes(d, path)
		}
	}
}

func assumes(d *design.Design, path string) bool {
	for _, f := range d.Facts.List {
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

func none() Cell { return Cell{Text: "–", Level: verdict.Good} }

func alternatorColumn(d *design.Design, b job.Body, figures working.Figures) Column {
	has, asked := d.IdleA, d.StartAsksA()
	level := verdict.Good
	if asked > has {
		level = verdict.Caution
	}
	return Column{ID: "alternator", Kind: "alternator", Name: d.MachineName(), At: b.Alternator,
		Part: Cell{Text: d.Facts.Label.String(), Level: verdict.Good},
		Carries: Cell{Text: fmt.Sprintf("%s of %s idle", unit.Text(asked, "", 0), unit.Text(max(0, has), "A", 0)), Figure: "idle",
			Level: level},
		Loses: none(), Heat: windingCell(d),
		Figures: figures.Keys("idle", "cruise", "half", "winding"),
		Fields:  []string{"alternator.label", "alternator.regulation", "alternator.knownBy", "alternator.volts", "vehicle.loadA"}}
}

// secondColumn is a machine of the run's own.
func secondColumn(d *design.Design, b job.Body, figures working.Figures) Column {
	now := unit.Plain(d.Second.RatedA, "A", 0)
	return Column{ID: "alternator", Kind: "alternator", Name: "Alternator 2", At: b.Alternator,
		Part: Cell{Text: now, Level: verdict.Good},
		Carries: Cell{Text: fmt.Sprintf("%s of %s idle", unit.Text(d.StartAsksA(), "", 0), unit.Text(d.SecondA(d.Facts.IdleTurns()), "A", 0)),
			Level: verdict.Good},
		Loses: none(), Heat: none(), Figures: figures.Keys("need", "accepts"),
		Fields: []string{"vehicle.secondRoom"},
		Choice: &Choice{Path: "pins.secondA", Label: "Second alternator", Auto: now, Now: now, Pinned: d.Doc.Pins.SecondA != nil,
			DecidedBy: "the smallest of which half, for hours, puts back what is used"}}
}

// aheadColumn is the relay that parts a charger's feed.
func aheadColumn(d *design.Design, l *run.Sized, at job.Point) Column {
	card := d.AheadCard
	bears, lost, level := parts.ContactFactor(l.Bay.AmbientC)*card.ContinuousA, l.Amps*card.ContactOhm, verdict.Good
	if l.Amps > bears {
		level = verdict.Bad
	}
	return Column{ID: "k2", Kind: "relay", Name: "K2", At: at, Part: Cell{Text: unit.Plain(card.ContinuousA, "A", 0), Level: verdict.Good},
		Carries: Cell{Text: fmt.Sprintf("%s of %s", unit.Text(l.Amps, "", 0), unit.Text(bears, "A", 0)), Level: level},
		Loses:   Cell{Text: fmt.Sprintf("%s, %s", unit.Text(lost, "V", 2), unit.Text(lost*l.Amps, "W", 0)), Level: verdict.Good}, Heat: none(),
		Figures: []string{}, Fields: []string{"arranged.ahead", "routes.triggerM"}}
}

// outletColumn is a body-builder's stud.
func outletColumn(d *design.Design, at job.Point) Column {
	lost := d.Start.Amps * d.OutletOhm()
	c := Column{ID: "o1", Kind: "outlet", Name: "Stud", At: at, Part: Cell{Text: "existing", Level: verdict.Good},
		Carries: Cell{Text: unit.Text(d.Start.Amps, "A", 0), Level: verdict.Good},
		Loses:   Cell{Text: unit.Text(lost, "V", 2), Level: verdict.Good}, Heat: none(), Figures: []string{},
		Fields: []string{"arranged.from", "arranged.fromA", "arranged.fromH", "arranged.fromLive"}}
	if most := d.Facts.Arranged.FromA; most != nil {
		c.Part.Text = unit.Plain(*most, "A", 1)
		c.Carries.Text = fmt.Sprintf("%s of %s", unit.Text(d.Start.Amps, "", 0), unit.Plain(*most, "A", 1))
		if d.Start.Amps > *most {
			c.Carries.Level = verdict.Bad
		}
	}
	return c
}

func leadColumn(d *design.Design, b job.Body) Column {
	lost := d.CruiseState().MachineGives * run.LeadOhm
	return Column{ID: "lead", Kind: "lead", Name: "Lead", At: between(b.Alternator, b.Start),
		Part: Cell{Text: "existing", Level: verdict.Good}, Carries: none(),
		Loses: Cell{Text: unit.Text(lost, "V", 2), Level: verdict.Good}, Heat: none(), Figures: []string{}, Fields: []string{}}
}

func startColumn(d *design.Design, b job.Body, figures working.Figures) Column {
	return Column{ID: "start", Kind: "battery", Name: "Start battery", At: b.Start,
		Part:    Cell{Text: unit.Plain(d.Facts.StartAh.Value, "Ah", 0), Level: verdict.Good},
		Carries: none(), Loses: none(), Heat: none(), Figures: figures.Keys("f1.near"),
		Fields: []string{"startBattery.capacityAh", "startBattery.crankA", "vehicle.systemVolts"}}
}
