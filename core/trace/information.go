package trace

import (
	"cmp"
	"math"
	"slices"
)

// bits are the uncertainty of shares.
func bits(shares []float64) (h float64) {
	sum := 0.0
	for _, s := range shares {
		sum += s
	}
	for _, s := range shares {
		if s > 0 {
			h -= s / sum * math.Log2(s/sum)
		}
	}
	return h
}

// parcel is a part of what a reading may come to.
type parcel struct {
	low, high float64
	jumps     bool
	by        []float64 // share of each group
}

// parcels sorts what a reading may come to into what a meter, and the draws, tell apart.
func (t *Trace) parcels(i int, groups []group) (list []parcel) {
	r := t.proof.Readings[i]
	type mark struct {
		v, w  float64
		group int
	}
	marks, jumping, spread, weight := []mark{}, parcel{jumps: true, by: make([]float64, len(groups))}, 0.0, 0.0
	for g, of := range groups {
		for k, w := range of.sizes {
			if w < 0.01 {
				continue
			}
			at := of.steps[k]
			mean, ok := at.mean(i)
			if !ok {
				continue
			}
			for _, shown := range at.shown {
				one := of.share * w / float64(len(at.shown))
				switch v := shown.Values[i]; {
				case math.IsNaN(v):
				case shown.Jumps[i]:
					jumping.by[g] += one
				default:
					marks = append(marks, mark{v, one, g})
					spread, weight = spread+one*(v-mean)*(v-mean), weight+one
				}
			}
		}
	}
	if weight == 0 {
		return nil
	}
	slices.SortFunc(marks, func(a, b mark) int { return cmp.Compare(a.v, b.v) })
	wide := 2 * math.Hypot(r.Off(marks[len(marks)/2].v), math.Sqrt(spread/weight)/2)
	for _, m := range marks {
		if last := len(list) - 1; last < 0 || m.v-list[last].low > wide {
			list = append(list, parcel{low: m.v, high: m.v, by: make([]float64, len(groups))})
		}
		last := &list[len(list)-1]
		last.high = m.v
		last.by[m.group] += m.w
	}
	if slices.Max(jumping.by) > 0 {
		list = append(list, jumping)
	}
	return list
}

// tells is how many bits of what is not known parcels are expected to settle.
func tells(list []parcel, before float64) float64 {
	total, left := 0.0, 0.0
	for _, p := range list {
		w := 0.0
		for _, s := range p.by {
			w += s
		}
		total, left = total+w, left+w*bits(p.by)
	}
	if total == 0 {
		return 0
	}
	return max(0, before-left/total)
}
