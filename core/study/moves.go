package study

import (
	"math"
	"slices"
	"strings"

	"epitrope/core/circuit"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/section"
	"epitrope/core/unit"
)

// Move is what one measured answer moves, against what would stand in for it.
type Move struct {
	Path string `json:"path"`
	Says string `json:"says"`
}

// mostMoves bounds how many answers are weighed.
const mostMoves = 40

// Moves weighs each answer to what is asked folded at a part: the figure that it moves most, with
// it and without it. An answer that moves none of them is left out.
func Moves(d *design.Design) []Move {
	list, now := []Move{}, moved(d)
	asked := section.FoldedPaths(d)
	for _, path := range d.Doc.Answered() {
		if len(list) == mostMoves || !slices.Contains(asked, path) && !strings.HasPrefix(path, "joints.") {
			continue
		}
		doc, _ := job.With(d.Doc, map[string]any{path: nil})
		if says := mostMoved(moved(d.With(doc)), now); says != "" {
			list = append(list, Move{path, says})
		}
	}
	return list
}

// figure is a figure that answers move, as it is told.
type figure struct {
	name   string
	value  float64
	unit   string
	digits int
}

// moved are the figures by which answers are weighed.
func moved(d *design.Design) []figure {
	cruise, early, idle, crank := d.CruiseState(), d.StateBy("early"), d.IdleState(), d.StateBy("crank")
	into := "what the coupling sees"
	if d.Kind.Charger() {
		into = "what the charger sees"
	}
	return []figure{
		{into + " early in bulk", early.InV, "V", 2},
		{"what the relay senses early in bulk", early.SensedV, "V", 2},
		{into + " at cruise", cruise.InV, "V", 2},
		{into + " at idle", idle.InV, "V", 2},
		{"what flows into the aux battery early in bulk", early.OutA, "A", 1},
		{"the aux battery's volts early in bulk", early.AuxV, "V", 2},
		{"what is left for charging at idle", max(0, d.IdleA), "A", 0},
		{"the start battery's volts while cranking", circuit.Had(crank.Solved.At("start.30")), "V", 2},
		{"the short-circuit current at the start battery", d.Start.NearFault, "A", 0},
		{"the short-circuit current at the aux battery", d.Aux.NearFault, "A", 0},
		{"what C1 may carry", d.Start.Trial.AmpacityA, "A", 0},
		{"what C2 may carry", d.Aux.Trial.AmpacityA, "A", 0},
		{"what the coupling's signal draws", d.SignalA(), "A", 2},
	}
}

// mostMoved tells of the figure that moved most, by its share; "" where none is told differently.
func mostMoved(before, after []figure) string {
	most, says := 0.0, ""
	for i, is := range after {
		was := before[i]
		share := math.Abs(is.value-was.value) / math.Max(math.Abs(was.value), 1e-6)
		from, to := unit.Text(was.value, was.unit, was.digits), unit.Text(is.value, is.unit, is.digits)
		if from != to && share > most {
			most, says = share, unit.Say("This moves %s from %s to %s.", is.name, from, to)
		}
	}
	return says
}
