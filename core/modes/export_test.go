package modes

import (
	"maps"
	"slices"
)

// Rules are all judgements of a line of the table.
func Rules() []string { return slices.Sorted(maps.Keys(modeWords)) }
