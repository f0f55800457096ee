package trace

import (
	"cmp"
	"slices"

	"epitrope/core/prove"
	"epitrope/core/unit"
)

// means are what a reading may come to, with what it would mean: the likeliest first.
func (t *Trace) means(r prove.Reading, parcels []parcel, groups []group) (list []Outcome) {
	total := 0.0
	for _, p := range parcels {
		for _, w := range p.by {
			total += w
		}
	}
	for _, p := range merged(parcels) {
		o := Outcome{Says: "comes to no stand", Points: []string{}}
		if !p.jumps {
			o.Says = unit.Say("about %s", r.Says((p.low+p.high)/2))
			if r.Says(p.low) != r.Says(p.high) {
				o.Says = unit.Say("%s to %s", r.Says(p.low), r.Says(p.high))
			}
		}
		sum := 0.0
		for _, w := range p.by {
			sum += w
		}
		o.Chance = sum / total
		order := make([]int, len(groups))
		for k := range order {
			order[k] = k
		}
		slices.SortStableFunc(order, func(a, b int) int { return cmp.Compare(p.by[b], p.by[a]) })
		for _, g := range order[:min(2, len(order))] {
			if p.by[g] > 0.2*sum {
				o.Points = append(o.Points, t.says(groups[g]).Says)
			}
		}
		list = append(list, o)
	}
	slices.SortStableFunc(list, func(a, b Outcome) int { return cmp.Compare(b.Chance, a.Chance) })
	return list[:min(3, len(list))]
}

// merged joins neighbours that point to the same.
func merged(parcels []parcel) (list []parcel) {
	first := func(p parcel) int {
		at := 0
		for g, w := range p.by {
			if w > p.by[at] {
				at = g
			}
		}
		return at
	}
	for _, p := range parcels {
		if last := len(list) - 1; last >= 0 && list[last].jumps == p.jumps && first(list[last]) == first(p) {
			list[last].high = p.high
			for g, w := range p.by {
				list[last].by[g] += w
			}
			continue
		}
		p.by = slices.Clone(p.by)
		list = append(list, p)
	}
	return list
}
