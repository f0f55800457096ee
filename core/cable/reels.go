package cable

import (
	"cmp"
	"slices"
	"strings"
)

// ParseList reads cables' names with commas or semicolons between, as on a workshop's reels; none is
// fine.
func ParseList(text string) ([]Size, error) {
	var sizes []Size
	for _, name := range strings.FieldsFunc(text, func(r rune) bool { return r == ',' || r == ';' }) {
		if strings.TrimSpace(name) == "" {
			continue
		}
		size, err := Parse(name)
		if err != nil {
			return nil, err
		}
		if size.Count > 1 {
			return nil, &NameError{strings.TrimSpace(name), "a reel holds one cable"}
		}
		sizes = append(sizes, size)
	}
	return sizes, nil
}

// Reels are the sizes to choose from, thinnest first: those that are stocked, and beyond the thickest of them what the
// trade sells in a system; all of the system where nothing is said to be stocked.
func Reels(stocked []Size, s System) []Size {
	if len(stocked) == 0 {
		return Shelf(s)
	}
	reels := slices.SortedFunc(slices.Values(stocked), func(a, b Size) int { return cmp.Compare(a.AreaMM2, b.AreaMM2) })
	thickest := reels[len(reels)-1].AreaMM2
	for _, size := range Shelf(s) {
		if size.AreaMM2 > thickest {
			reels = append(reels, size)
		}
	}
	return reels
}

// Labels are the names of sizes, with commas between.
func Labels(sizes []Size) string {
	names := make([]string, len(sizes))
	for i, s := range sizes {
		names[i] = s.Label
	}
	return strings.Join(names, ", ")
}
