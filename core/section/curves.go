package section

import (
	"fmt"
	"math"
	"slices"

	"epitrope/core/design"
	"epitrope/core/protect"
	"epitrope/core/run"
	"epitrope/core/unit"
)

// curvePoints is how many currents a picture of time against current has.
const curvePoints = 33

// Curves are the pictures of time against current of both fuses.
func Curves(d *design.Design) []Curve {
	list := []Curve{}
	if !d.Start.Unfused {
		list = append(list, curve(d, &d.Start, "F1", "C1"))
	}
	if !d.Aux.Unfused {
		list = append(list, curve(d, &d.Aux, "F2", "C2"))
	}
	return list
}

func curve(d *design.Design, l *run.Sized, fuse, wire string) Curve {
	out := Curve{Fuse: l.FuseID, Label: fuse + " " + l.Fuse.Label(), Cable: wire + " " + l.Trial.Size.Label}
	for _, o := range l.Fuse.Curve(l.NearFault, curvePoints, l.Faulted) {
		out.Points = append(out.Points, CurvePoint{Amps: unit.Round(o.Amps, 1), MinS: finite(o.OpensMinS), MaxS: finite(o.OpensMaxS),
			Bears: finite(o.BearsS)})
	}
	amps := func(a float64) string { return unit.Text(a, "A", 0) }
	out.Marks = []CurveMark{
		{unit.Round(l.Amps, 1), "load " + amps(l.Amps)},
		{l.Fuse.RatingA, "rating " + unit.Plain(l.Fuse.RatingA, "A", 1)},
		{unit.Round(l.Trial.AmpacityA, 1), "cable " + amps(l.Trial.AmpacityA)},
		{unit.Round(l.Cover.Far.Amps, 1), "short at the end " + unit.Kilo(l.Cover.Far.Amps)},
		{unit.Round(l.NearFault, 1), "short at the fuse " + unit.Kilo(l.NearFault)},
	}
	slices.SortStableFunc(out.Marks, func(a, b CurveMark) int { return int(math.Copysign(1, a.Amps-b.Amps)) })
	at := func(where string, o protect.Opening) string {
		return fmt.Sprintf("%s, %s: %s opens in %s to %s, %s bears it %s.", where, amps(o.Amps), fuse, unit.Seconds(o.OpensMinS),
			unit.Seconds(o.OpensMaxS), wire, run.Bearing(o.BearsS))
	}
	v := l.Cover
	out.Says = []string{at("Short at the fuse", v.Near), at("Short at the far end", v.Far), at("Overload of 135 %", v.Overload)}
	if s := series(d); s != nil && l == &d.Aux {
		out.Says = append(out.Says, *s)
	}
	return out
}

// series says how two fuses in series share a fault; nil where they do not carry the
// same one. A charger between them lets none through.
func series(d *design.Design) *string {
	if d.Kind.Charger() || d.Start.Unfused || d.Aux.Unfused {
		return nil
	}
	most := d.Start.SourceV / (d.Start.SourceOhm + d.Start.TotalOhm() + d.Aux.TotalOhm())
	got := protect.InSeries(d.Start.Fuse, d.Aux.Fuse, most)
	text := fmt.Sprintf("A short at the aux battery draws up to %s through F1 and F2: F2 opens first.", unit.Kilo(most))
	if !got.Selective {
		text = fmt.Sprintf("A short at the aux battery draws up to %s through F1 and F2 alike: from %s either may open first, so look at both.",
			unit.Kilo(most), unit.Text(got.FromA, "A", 0))
	}
	return &text
}

// finite is a duration in s as a document holds it: 0 where there is no end to it, and
// no more figures than mean something.
func finite(s float64) float64 {
	if math.IsInf(s, 0) {
		return 0
	}
	return unit.Round(s, 4)
}
