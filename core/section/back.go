package section

import (
	"fmt"

	"epitrope/core/cable"
	"epitrope/core/circuit"
	"epitrope/core/design"
	"epitrope/core/run"
	"epitrope/core/system"
	"epitrope/core/unit"
)

// Segments are the pieces of the way back, from the front to the back.
func Segments(d *design.Design) []Segment {
	milli := func(ohm float64) float64 { return unit.Round(ohm*1000, 2) }
	l := d.ReturnLeg()
	end := "coupling"
	if !d.Kind.Charger() {
		end = "aux"
	}
	begin := "start"
	if d.Is.OwnMachine {
		begin = "alternator"
	}
	first := "f1"
	if d.Start.Unfused {
		first = "c1"
	}
	e1, e2, steel := earths(d)
	point := func(name string, ohm float64) string {
		if ohm == 0 {
			return name // it is in what was measured end to end
		}
		return name + " " + unit.Text(ohm*1000, "mΩ", 1)
	}
	out := []Segment{{ID: "e1", Kind: "earth", Text: point("E1", e1), MilliO: milli(e1), From: begin, To: first}}
	lost := ReturnLoss(d, "n1", "n1t", "n1td", "frame", "chassis", "body")
	lead := d.ReturnCopper(d.Back.CableM, "return cable").Unrounded
	if d.Back.ByCable && !d.Back.ByChassis {
		out = append(out, Segment{ID: "n1", Kind: "cable", Text: fmt.Sprintf("N1 %s, %s, %s", l.Trial.Size.Label,
			unit.Metres(d.Back.CableM), unit.Text(lead*1000, "mΩ", 1)),
			MilliO: milli(lead), Loses: lost, From: "c1", To: end, Figure: "return.lead"})
	} else {
		out = append(out,
			Segment{ID: "chassis", Kind: "chassis", Text: steelName(d) + unit.Text(steel*1000, "mΩ", 1), MilliO: milli(steel), Loses: lost,
				From: "c1", To: end, Figure: "return.chassis"},
			Segment{ID: "n1", Kind: "cable", Text: fmt.Sprintf("%s, N1 %s", point("E2", e2),
				unit.Metres(d.Back.CableM)),
				MilliO: milli(e2 + lead), From: end, To: end, Figure: "return.lead"})
		if d.Back.ByCable {
			beside := run.EarthOhm + cable.Resistance.Value(l.Trial.Size.OhmPerM(), d.Back.AlongM, cable.Alpha, l.Trial.BackC)
			out = append(out, Segment{ID: "n3", Kind: "cable", Text: fmt.Sprintf("N3 beside it %s, %s", l.Trial.Size.Label,
				unit.Metres(d.Back.AlongM)), MilliO: milli(beside), Loses: ReturnLoss(d, "n3"), From: "c1", To: end})
		}
	}
	if d.Kind.Charger() {
		out = append(out, Segment{ID: "n2", Kind: "cable", Text: fmt.Sprintf("N2 %s, %s", d.Aux.Trial.Size.Label,
			unit.Metres(d.Aux.ReturnM)), From: "c2", To: "aux",
			MilliO: milli(cable.Resistance.Value(d.Aux.Trial.Size.OhmPerM(), d.Aux.ReturnM, cable.Alpha, d.Aux.Trial.ConductorC)),
			Loses:  ReturnLoss(d, "n2", "n2t", "n2td"), Figure: "c2.copper"})
	}
	if d.Framed() {
		out = append(out, Segment{ID: "frame", Kind: "chassis", Text: "trailer's frame " + unit.Text(d.FrameOhm()*1000, "mΩ", 1),
			MilliO: milli(d.FrameOhm()), Loses: ReturnLoss(d, "frame"), From: "x1", To: end})
	}
	return out
}

// earths are the two earth points and the steel between them, as they are laid: of a way that was
// measured end to end all of it is the steel's.
func earths(d *design.Design) (e1, e2, steel float64) {
	if w, ok := d.System.Wire("chassis"); ok {
		return w.Joint.To, w.Joint.From, w.Ohm + d.BodyOhm()
	}
	w, _ := d.System.Wire("n1")
	return w.Joint.To, 0, 0
}

// ReturnLoss is what a wire of the return loses in its conductor and joints at the
// worst, as shown; "" where it is not there.
func ReturnLoss(d *design.Design, ids ...string) string {
	worst, volts := d.Hardest(), 0.0
	for _, id := range ids {
		if w, ok := d.System.Wire(id); ok && w.Role != system.Signal {
			volts += circuit.Had(worst.Solved.Through(id)) * (w.Ohm + w.Joint.From + w.Joint.To)
		}
	}
	return unit.Text(max(0, volts), "V", 2)
}

// steelName is the steel of the way back in a word, with the body that stands in it.
func steelName(d *design.Design) string {
	if d.ByBody() {
		return "body, chassis "
	}
	return "chassis "
}
