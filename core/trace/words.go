package trace

import (
	"cmp"
	"math"
	"slices"

	"epitrope/core/prove"
	"epitrope/core/unit"
)

// means are what a reading may come to, with what it would mean: the likeliest first.
func (t *Trace) means(r prove.Reading, parcels []parcel, groups []group) (list []TestOutcome) {
	total := 0.0
	for _, p := range parcels {
		total += p.weight()
	}
	for _, p := range merged(parcels) {
		o := TestOutcome{Says: "comes to no stand", Points: []string{}}
		if !p.jumps {
			switch {
			case p.low < 0 && p.high > 0 && p.high-p.low < 1:
				o.Says = unit.Say("about %s", r.Says(0))
			case r.Says(p.low) == r.Says(p.high):
				o.Says = unit.Say("about %s", r.Says(p.low))
			default:
				o.Says = unit.Say("%s to %s", r.Says(p.low), r.Says(p.high))
			}
		}
		sum := p.weight()
		if p.jumps && sum < leastJumps*total {
			continue // what is never quite left out
		}
		o.Chance, o.Points = sum/total, t.points(p, groups)
		list = append(list, o)
	}
	return likeliest(list)
}

// points are the two suspects that an outcome speaks for most.
func (t *Trace) points(p parcel, groups []group) []string {
	order, points := make([]int, len(p.by)), []string{}
	for k := range order {
		order[k] = k
	}
	slices.SortStableFunc(order, func(a, b int) int { return cmp.Compare(ranked(p.by[b]), ranked(p.by[a])) })
	for _, g := range order[:min(2, len(order))] {
		switch {
		case p.by[g] <= 0.2*p.weight():
		case g == len(groups):
			points = append(points, "something that is not known here")
		default:
			points = append(points, groups[g].inWords())
		}
	}
	return points
}

// likeliest are the three outcomes that are the likeliest.
func likeliest(list []TestOutcome) []TestOutcome {
	slices.SortStableFunc(list, func(a, b TestOutcome) int { return cmp.Compare(ranked(b.Chance), ranked(a.Chance)) })
	for i := range list {
		list[i].Chance = told(list[i].Chance)
	}
	return list[:min(3, len(list))]
}

// leastJumps is from what share of all it is said that a reading may come to no stand.
const leastJumps = 0.1

// alikeParts is up to what difference of their groups' shares two neighbours mean the same.
const alikeParts = 0.25

// merged joins neighbours that point to the same.
func merged(parcels []parcel) (list []parcel) {
	differ := func(a, b parcel) (sum float64) {
		for g := range a.by {
			sum += math.Abs(a.by[g]/a.weight()-b.by[g]/b.weight()) / 2
		}
		return sum
	}
	for _, p := range parcels {
		if p.weight() == 0 {
			continue
		}
		if last := len(list) - 1; last >= 0 && list[last].jumps == p.jumps && differ(list[last], p) < alikeParts {
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
