package judge

import (
	"maps"
	"slices"
)

// NoteIDs are all notes that there are.
func NoteIDs() []string { return slices.Sorted(maps.Keys(ruleByID)) }

// CheckIDs are all sentences of the checks.
func CheckIDs() []string { return slices.Sorted(maps.Keys(checkWords)) }
