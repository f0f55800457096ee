package judge

import (
	"maps"
	"slices"
)

// NoteIDs are all notes that there are.
func NoteIDs() []string { return slices.Sorted(maps.Keys(ruleByID)) }

// CheckIDs are all sentences of the checks.
func CheckIDs() []string {
	ids := map[string]bool{}
	for _, g := range lookGroups {
		for _, l := range g.looks {
			ids[l.id] = true
		}
	}
	return slices.Sorted(maps.Keys(ids))
}
