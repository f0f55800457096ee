package section

import (
	"fmt"

	"epitrope/core/cable"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/run"
	"epitrope/core/unit"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

func fuseColumn(l *run.Sized, name string, at job.Point, figures working.Figures) Column {
	carries := l.Fuse.Carries(l.Bay.AmbientC)
	level := verdict.Good
	if l.Amps > carries+0.05 {
		level = verdict.Caution
	}
	part := Cell{Text: unit.Plain(l.Fuse.RatingA, "A", 1) + " " + l.Fuse.Family.Short, Level: verdict.Good}
	if l.Fuse.RatingA > l.Trial.AmpacityA || !l.Cover.Saves || l.NearFault > l.Fuse.Family.BreaksA {
		part.Level = verdict.Bad
	}
	lost := l.Amps * (l.FuseOhm() + run.JointOhm)
	now, auto := unit.Plain(l.Fuse.RatingA, "A", 1), unit.Plain(l.AutoFuse.RatingA, "A", 1)
	if l.AutoFuse.RatingA == 0 {
		auto = "no fuse fits"
	}
	path := "pins.startFuseA"
	if l.ID == "c2" {
		path = "pins.auxFuseA"
	}
	return Column{ID: l.FuseID, Kind: "fuse", Name: name, At: at, Part: part, DropV: lost,
		Carries: Cell{Text: fmt.Sprintf("%s of %s", unit.Text(l.Amps, "", 0), unit.Text(carries, "A", 0)), Figure: l.FuseID + ".least",
			Level: level},
		Loses: Cell{Text: fmt.Sprintf("%s, %s", unit.Text(lost, "V", 2), unit.Text(lost*l.Amps, "W", 0)), Level: verdict.Good},
		Heat:  none(),
		Figures: figures.Keys(l.FuseID+".least", l.FuseID+".most", l.FuseID+".near", l.FuseID+".fault", l.FuseID+".opens", l.FuseID+".k",
			l.FuseID+".bears", l.FuseID+".overload"),
		Fields: []string{"pins.device"},
		Choice: &Choice{Path: path, Label: "Fuse", Auto: auto, Now: now, Pinned: l.FusePin != nil,
			DecidedBy: fmt.Sprintf("between %s, 1.25 × the load, and %s, what the cable bears: the lowest",
				unit.Text(l.Need(l.Trial.AmpacityA).Lowest(l.Fuse.Family), "A", 1), unit.Text(l.Trial.AmpacityA, "A", 0))}}
}

func cableColumn(d *design.Design, l *run.Sized, name string, at job.Point, figures working.Figures) Column {
	t := l.Trial
	carry, lose, heat := verdict.Good, verdict.Good, verdict.Good
	if l.Amps > t.AmpacityA {
		carry = verdict.Bad
	}
	if l.Loses(t) {
		lose = verdict.Caution
	}
	if t.Burns {
		heat = verdict.Bad
	}
	part := Cell{Text: fmt.Sprintf("%s, %s", t.Size.Label, unit.Metres(l.LengthM.Value)), Level: verdict.Worst(carry, lose, heat)}
	path := "pins.startSize"
	fields := []string{"routes.startM", "bays.startC", "bays.startLay", "cable.system", "cable.insulation", "limits.chargerDrop"}
	if l.ID == "c2" {
		path = "pins.auxSize"
		fields = []string{"routes.auxM", "bays.auxC", "bays.auxLay", "limits.batteryDrop"}
	}
	if l == d.ReturnLeg() {
		fields = append(fields, "pins.return", "routes.earthM")
	}
	warmth := unit.Text(t.ConductorC, "°C", 0)
	if t.Burns {
		warmth = "over " + warmth
	}
	return Column{ID: l.ID, Kind: "cable", Name: name, At: at, Part: part,
		Carries: Cell{Text: fmt.Sprintf("%s of %s", unit.Text(l.Amps, "", 0), unit.Text(t.AmpacityA, "A", 0)), Figure: l.ID + ".ampacity",
			Level: carry},
		Loses: Cell{Text: fmt.Sprintf("%s, %s", unit.Text(t.DropV, "V", 2), unit.Text(t.DropV*l.Amps, "W", 0)), Figure: l.ID + ".drop",
			Level: lose},
		Heat:    Cell{Text: warmth, Figure: l.ID + ".warmth", Level: heat},
		Figures: cableKeys(d, l, figures), Fields: fields,
		Choice: &Choice{Path: path, Label: "Cable", Auto: l.Auto.Copper(), Now: t.Size.Copper(), Pinned: l.SizePin != nil,
			DecidedBy: decidedBy(l)}}
}

func cableKeys(d *design.Design, l *run.Sized, figures working.Figures) []string {
	keys := []string{l.ID + ".rule", l.ID + ".copper", l.ID + ".loop", l.ID + ".drop", l.ID + ".ampacity", l.ID + ".balance", l.ID +
		".heating", l.ID + ".warmth"}
	if l == d.ReturnLeg() {
		keys = append(keys, "return.lead", "return.body", "return.chassis", "return.cable")
	}
	return figures.Keys(keys...)
}

// fuseAsked is the fuse that a cable has to suit.
func fuseAsked(l *run.Sized) string {
	if l.FusePin != nil {
		return "the fuse that is pinned"
	}
	return "the lowest fuse that carries the load"
}

// decidedBy says in words which test settled the plan's own size.
func decidedBy(l *run.Sized) string {
	why := map[cable.Test]string{
		cable.ByDrop:     fmt.Sprintf("drop decided: at most %s at %s", unit.Text(max(l.BudgetV, 0), "V", 2), unit.Text(l.DropA(), "A", 0)),
		cable.ByAmpacity: fmt.Sprintf("ampacity decided: it has to carry %s where it lies", unit.Text(l.Amps, "A", 0)),
		cable.ByFuse:     "the fuse decided: it has to bear " + fuseAsked(l),
	}[l.AutoTest]
	if l.Widened {
		why += "; no cable on the reels keeps that, so the limit was widened"
	}
	return why
}

func plugColumn(d *design.Design, l *run.Sized) Column {
	lost := l.Amps * 2 * d.PlugCard.Ohm
	bears := parts.ContactFactor(l.Bay.AmbientC) * d.PlugCard.RatingA
	level, now := verdict.Good, unit.Plain(d.PlugCard.RatingA, "A", 0)
	if l.Amps > bears {
		level = verdict.Bad
	}
	return Column{ID: "x1", Kind: "plug", Name: "X1", At: d.HitchAt(),
		Part: Cell{Text: now, Level: verdict.Good}, Carries: Cell{Text: fmt.Sprintf("%s of %s", unit.Text(l.Amps, "", 0),
			unit.Text(bears, "A", 0)), Level: level},
		Choice: &Choice{Path: "pins.plugA", Label: "Plug", Auto: unit.Plain(d.Book.Plug(l.Amps, l.Trial.Size.CopperMM2()).RatingA, "A", 0),
			Now:    now,
			Pinned: d.Doc.Pins.PlugA != nil, DecidedBy: "the smallest whose contacts bear the worst current and whose housing takes the cable"},
		Loses: Cell{Text: fmt.Sprintf("%s, %s", unit.Text(lost, "V", 2), unit.Text(lost*l.Amps, "W", 0)), Level: verdict.Good},
		Heat:  none(), Figures: []string{}, Fields: []string{}}
}

func couplingColumn(d *design.Design, figures working.Figures) Column {
	c := Column{ID: "coupling", Name: d.Is.Name, At: d.CouplingAt(), Heat: none()}
	if !d.Kind.Charger() {
		carried, lost := d.Start.Amps, d.Start.Amps*d.Contact.ContactOhm
		if d.Is.Splits {
			lost = d.SplitV()
		}
		c.Kind = "relay"
		if d.Is.Splits {
			c.Kind = "splitter"
		}
		bears := parts.ContactFactor(d.Start.Bay.AmbientC) * d.Contact.ContinuousA
		c.Part = Cell{Text: unit.Plain(d.Contact.ContinuousA, "A", 0), Level: verdict.Good}
		level := verdict.Good
		if d.Start.Amps > bears {
			level = verdict.Bad
		}
		c.Carries = Cell{Text: fmt.Sprintf("%s of %s", unit.Text(d.Start.Amps, "", 0), unit.Text(bears, "A", 0)), Level: level}
		if _, ok := figures["joined"]; ok {
			c.Carries.Figure = "joined"
		}
		c.Loses = Cell{Text: fmt.Sprintf("%s, %s", unit.Text(lost, "V", 2), unit.Text(lost*carried, "W", 0)), Level: verdict.Good}
		c.Figures = figures.Keys("joined", "accepts", "half")
		c.Fields = []string{"pins.contactA"}
		if d.Wired() {
			c.Fields = append(c.Fields, "routes.triggerM")
		}
		if d.Is.ByHand == design.Selector {
			c.Fields = append(c.Fields, "pins.selector")
		}
		if d.Is.Splits {
			c.Fields = append(c.Fields, "pins.splitter")
		}
		c.Choice = couplingChoice(d)
		return c
	}
	worst := d.WorstState()
	lost := worst.LostW
	c.Kind, c.Heat = "charger", caseCell(d)
	c.Part = Cell{Text: unit.Plain(d.Charger.OutputA, "A out", 0), Level: verdict.Good}
	c.Carries = Cell{Text: fmt.Sprintf("%s in, %s out", unit.Text(worst.InA, "", 0), unit.Text(worst.OutA, "A", 0)), Figure: "input",
		Level: verdict.Good}
	c.Loses = Cell{Text: unit.Text(lost, "W", 0), Level: verdict.Good}
	if worst.Err != nil {
		c.Carries.Level = verdict.Bad
	}
	c.Figures = figures.Keys("need", "allowed", "accepts", "input", "most", "case", "t1.drop", "f3.least")
	c.Fields = []string{"pins.coupling", "routes.triggerM"}
	if d.Is.Beside == design.RestContact || d.Is.Beside == design.Bypass {
		c.Fields = append(c.Fields, "pins.contactA")
	}
	decided := fmt.Sprintf("need %s, alternator allows %s, battery accepts %s: the smallest that meets the need within the limits",
		unit.Text(d.NeedA, "A", 0), unit.Text(d.LimitA, "A", 0), d.Rates.Accepts.Text)
	if card, ok := d.Doc.Card.Charger(); ok {
		decided = fmt.Sprintf("the job's own card, %s (need %s, alternator allows %s, battery accepts %s)", card.Label,
			unit.Text(d.NeedA, "A", 0), unit.Text(d.LimitA, "A", 0), d.Rates.Accepts.Text)
	}
	c.Choice = &Choice{Path: "pins.chargerA", Label: "Charger output", Auto: unit.Plain(d.AutoChargerA, "A", 0),
		Now: unit.Plain(d.Charger.OutputA, "A", 0), Pinned: d.Doc.Pins.ChargerA != nil, DecidedBy: decided}
	return c
}

func couplingChoice(d *design.Design) *Choice {
	auto := ""
	for _, m := range d.Methods {
		if m.Chosen {
			auto = m.Label
		}
	}
	return &Choice{Path: "pins.coupling", Label: "Coupling", Auto: auto, Now: d.Kind.Label(), Pinned: d.Doc.Pins.Coupling != nil,
		DecidedBy: "the rules of choosing: see why under Methods"}
}

func auxColumn(d *design.Design, place job.Point, figures working.Figures) Column {
	worst, early := d.WorstState(), d.StateBy("early")
	amps := early.OutA
	accepts := d.Rates.Accepts
	level := verdict.Good
	if amps > accepts.Unrounded {
		level = verdict.Caution
	}
	text := fmt.Sprintf("%s of %s", unit.Text(amps, "", 0), accepts.Text)
	if worst.OutA <= 0 && amps > 0 {
		level, text = verdict.Caution, text+" or none"
	} else if worst.OutA <= 0 {
		level = verdict.Bad
	}
	return Column{ID: "aux", Kind: "battery", Name: "Aux battery", At: place,
		Part:    Cell{Text: d.AuxRating(), Level: verdict.Good},
		Carries: Cell{Text: text, Figure: "accepts", Level: level},
		Loses:   none(), Heat: none(),
		Figures: figures.Keys("usable", "autonomy", "need", "back", "accepts", "f2.near"),
		Fields:  []string{"aux.chemistry", "aux.capacityAh", "aux.place", "use.dailyAh", "use.drivenHours"}}
}
