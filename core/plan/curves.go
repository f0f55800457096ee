package plan

import (
	"fmt"
	"math"
	"slices"

	"epitrope/core/protect"
	"epitrope/core/working"
)

// curvePoints is how many currents a picture of time against current has.
const curvePoints = 33

// curves are the pictures of time against current of both fuses.
func (d *design) curves() []Curve {
	return []Curve{d.curve(&d.start, "F1", "C1"), d.curve(&d.aux, "F2", "C2")}
}

func (d *design) curve(l *leg, fuse, wire string) Curve {
	out := Curve{Fuse: l.fuseID, Label: fuse + " " + l.fuse.Label(), Cable: wire + " " + l.trial.Size.Label}
	for _, o := range l.fuse.Curve(l.nearFault, curvePoints, l.faulted) {
		out.Points = append(out.Points, CurvePoint{Amps: working.Round(o.Amps, 1), MinS: finite(o.OpensMinS), MaxS: finite(o.OpensMaxS), Bears: finite(o.BearsS)})
	}
	amps := func(a float64) string { return working.Text(a, "A", 0) }
	out.Marks = []CurveMark{
		{working.Round(l.amps, 1), "load " + amps(l.amps)},
		{l.fuse.RatingA, "rating " + working.Plain(l.fuse.RatingA, "A", 1)},
		{working.Round(l.trial.AmpacityA, 1), "cable " + amps(l.trial.AmpacityA)},
		{working.Round(l.cover.Far.Amps, 1), "short at the end " + kilo(l.cover.Far.Amps)},
		{working.Round(l.nearFault, 1), "short at the fuse " + kilo(l.nearFault)},
	}
	slices.SortStableFunc(out.Marks, func(a, b CurveMark) int { return int(math.Copysign(1, a.Amps-b.Amps)) })
	at := func(where string, o protect.Opening) string {
		return fmt.Sprintf("%s, %s: %s opens in %s to %s, %s bears it %s.", where, amps(o.Amps), fuse, working.Seconds(o.OpensMinS), working.Seconds(o.OpensMaxS), wire, bearing(o.BearsS))
	}
	v := l.cover
	out.Says = []string{at("Short at the fuse", v.Near), at("Short at the far end", v.Far), at("Overload of 135 %", v.Overload)}
	if s := d.series(); s != nil && l == &d.aux {
		out.Says = append(out.Says, *s)
	}
	return out
}

// series says how two fuses in series share a fault; nil where they do not carry the
// same one. A charger between them lets none through.
func (d *design) series() *string {
	if d.kind.Charger() {
		return nil
	}
	most := d.start.sourceV / (d.start.sourceOhm + d.start.totalOhm() + d.aux.totalOhm())
	got := protect.InSeries(d.start.fuse, d.aux.fuse, most)
	text := fmt.Sprintf("A short at the aux battery draws up to %s through F1 and F2: F2 opens first.", kilo(most))
	if !got.Selective {
		text = fmt.Sprintf("A short at the aux battery draws up to %s through F1 and F2 alike: from %s either may open first, so look at both.", kilo(most), working.Text(got.FromA, "A", 0))
	}
	return &text
}

// finite is a duration in s as a document holds it: 0 where there is no end to it, and
// no more figures than mean something.
func finite(s float64) float64 {
	if math.IsInf(s, 0) {
		return 0
	}
	return working.Round(s, 4)
}

// bearing is how long a cable bears something, in words.
func bearing(s float64) string {
	if math.IsInf(s, 1) {
		return "for good"
	}
	return "for " + working.Seconds(s)
}
