package judge

import (
	"slices"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/verdict"
)

// Tried are a design's notes with those cures that hold: done, a cure takes its note away, or makes less of
// it, and brings fewer as bad than it takes. One that asks is no change, and stays.
func Tried(d *design.Design) []Note {
	return slices.Clone(design.Kept(d, "notes", tried))
}

func tried(d *design.Design) []Note {
	list := Notes(d)
	was, after := severities(list), map[verdict.Cure]map[string]string{}
	for i, n := range list {
		list[i].Cures = slices.DeleteFunc(slices.Clone(n.Cures), func(c verdict.Cure) bool {
			if c.Path == "" {
				return false
			}
			then, done := after[change(c)]
			if !done {
				then = afterCure(d, c)
				after[change(c)] = then
			}
			return then == nil || !cures(n, was, then)
		})
	}
	return list
}

// change is what a cure does, whatever it is called.
func change(c verdict.Cure) verdict.Cure { c.Label = ""; return c }

// afterCure are the severities of the notes on a job with a cure done; nil where it cannot be done.
func afterCure(d *design.Design, c verdict.Cure) map[string]string {
	var value any
	if c.Value != "" {
		value = c.Value
	}
	doc, problems := job.With(d.Doc, map[string]any{c.Path: value})
	if len(problems) > 0 {
		return nil
	}
	return severities(weighed(d.With(doc), false))
}

// severities are the worst of each note, by what it is and where.
func severities(list []Note) map[string]string {
	worst := map[string]string{}
	for _, n := range list {
		key := n.ID + " " + n.Column
		if is, there := worst[key]; !there || verdict.Rank[n.Severity] < verdict.Rank[is] {
			worst[key] = n.Severity
		}
	}
	return worst
}

// lacks is said of less than is wished for, which a cure may well leave.
const lacks = "charger.short"

// cures says whether a note is gone, or weighs less, and less comes that weighs as much than goes.
func cures(n Note, was, then map[string]string) bool {
	key, rank := n.ID+" "+n.Column, verdict.Rank[n.Severity]
	if is, there := then[key]; there && verdict.Rank[is] <= rank {
		return false
	}
	for r := range rank {
		if more(then, was, r) > more(was, then, r) {
			return false // it brings what is worse
		}
	}
	return more(was, then, rank) > more(then, was, rank)
}

// more is how many notes of a rank, or worse, are in a and not, or lighter, in b.
func more(a, b map[string]string, rank int) int {
	count := 0
	for key, severity := range a {
		other, there := b[key]
		if verdict.Rank[severity] <= rank && key != lacks+" coupling" && (!there || verdict.Rank[other] > verdict.Rank[severity]) {
			count++
		}
	}
	return count
}
