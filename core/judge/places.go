package judge

import (
	"epitrope/core/coupling"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/system"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// wanted is a question about a place with the answer that is wanted.
type wanted struct {
	id, path string
	given    job.Tri
	good     job.Tri
	wrong    verdict.Level // level where the answer is the other one
}

func placeChecks(d *design.Design) []Check {
	p, list := d.Facts.Survey.Placing, []Check{}
	for _, w := range []wanted{
		{"place.exhaust", "placing.exhaust", p.Exhaust, job.No, verdict.Bad},
		{"place.spray", "placing.spray", p.Spray, job.No, verdict.Caution},
		{"place.gas", "placing.gas", p.Gas, job.No, verdict.Bad},
		{"place.moving", "placing.moving", p.Moving, job.Yes, verdict.Bad},
		{"place.visible", "placing.visible", p.Visible, job.Yes, verdict.Caution},
		{"place.access", "placing.access", p.Access, job.Yes, verdict.Caution},
	} {
		id, level := w.id, w.wrong
		switch w.given {
		case job.Asked:
			level, id = verdict.Open, w.id+".open"
		case w.good:
			level, id = verdict.Good, w.id+".good"
		}
		list = append(list, check("place", id, "coupling", level, working.Practice, []string{w.path}))
	}
	list = append(list, heatCheck(d), turnCheck(d))
	if d.Is.Senses {
		level := verdict.Good
		if d.Facts.StartM.Value > sensesWithinM {
			level = verdict.Bad
		}
		list = append(list, check("place", "place.sensing", "coupling", level, working.Practice, []string{"routes.startM"}, d.Facts.StartM.Value,
			sensesWithinM))
	}
	if d.Facts.Place.Trailer {
		live := d.LiveWires("engine", "x1")
		level, id := verdict.Good, "place.socket.good"
		socket := system.Terminal{Component: "x1", Terminal: "+"} // the vehicle's half
		for _, w := range d.System.Wires {
			if _, is := live[w.ID]; is && (w.From == socket || w.To == socket) {
				level, id = verdict.Caution, "place.socket"
			}
		}
		list = append(list, check("place", id, "x1", level, working.Practice, nil))
	}
	return append(list, boxCheck(d)...)
}

// sensesWithinM is how far from the start battery a sensing relay may sit. Source: common
// practice, no source.
const sensesWithinM = 2.0

// turnCheck is which way the terminals point: a relay's level or up.
func turnCheck(d *design.Design) Check {
	fields := []string{"placing.terminals"}
	switch d.Facts.Survey.Placing.Terminals {
	case "":
		return check("place", "place.terminals.open", "coupling", verdict.Open, working.Practice, fields)
	case "down":
		return check("place", "place.terminals", "coupling", verdict.Caution, working.Practice, fields)
	}
	return check("place", "place.terminals.good", "coupling", verdict.Good, working.Practice, fields)
}

// heatCheck holds the coupling's place against what it bears.
func heatCheck(d *design.Design) Check {
	bay, path := d.CouplingBay(), "bays.auxC"
	if d.AtStart() {
		path = "bays.startC"
	}
	most := contactMostC
	if d.Kind.Charger() {
		most = d.Charger.MaxAmbientC
	}
	level := verdict.Good
	if bay.AmbientC > most {
		level = verdict.Caution
	}
	return check("place", "place.heat", "coupling", level, working.Practice, []string{path}, bay.AmbientC, most)
}

// contactMostC is how warm a contact's place may be before it bears little. Source: from
// memory.
const contactMostC = 85.0

// boxed is a charger in the box that it sits in.
type boxed struct {
	share float64 // of its full output, that it settles at
	airC  float64
	how   string // closed or vented
	Work  working.Figure
}

// InBox is what a charger gives in its box; ok is false where that was not measured.
func InBox(d *design.Design) (b boxed, ok bool) {
	p := d.Facts.Survey.Placing
	if !d.Kind.Charger() || p.LengthMM == nil || p.WidthMM == nil || p.HeightMM == nil {
		return boxed{}, false
	}
	worst := d.WorstState()
	lost := max(0, worst.InA*worst.InV-worst.OutA*worst.OutV)
	alpha, how := coupling.ClosedBox, "closed"
	if p.Vented == job.Yes {
		alpha, how = coupling.VentedBox, "vented"
	}
	area := coupling.BoxAreaM2(*p.LengthMM, *p.WidthMM, *p.HeightMM)
	share, boxC := coupling.InBox(d.Aux.Bay.AmbientC, lost, 1/(alpha*area), d.Charger.MaxAmbientC)
	work := coupling.BoxC.MustWork(working.From(d.Aux.Bay.AmbientC, working.Practice, d.Aux.Bay.Label),
		working.Is(lost*share, "at the output that it settles at"), working.From(alpha, working.Memory, how+" box"),
		working.From(area, working.Surveyed, "six walls"))
	return boxed{share, boxC, how, work}, true
}

// boxCheck says what a charger gives in its box.
func boxCheck(d *design.Design) []Check {
	b, ok := InBox(d)
	if !ok {
		return nil
	}
	level := verdict.Good
	if b.share < 0.95 {
		level = verdict.Caution
	}
	if b.share < 0.5 {
		level = verdict.Bad
	}
	return []Check{check("place", "place.box", "coupling", level, working.Physics,
		[]string{"placing.lengthMM", "placing.widthMM", "placing.heightMM", "placing.vented"}, b.how, b.airC, b.share*d.Charger.OutputA,
		d.Charger.OutputA).by("box", b.Work)}
}
