package trace

import (
	"cmp"
	"math"
	"slices"

	"epitrope/core/fault"
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

// hump is what a suspect of a size is expected to show of a reading, by all that was read before: a bell curve.
type hump struct {
	group        int
	weight       float64
	mean, spread float64
}

// parcel is a part of what a reading may come to, with the share of each group in it.
type parcel struct {
	low, high float64
	jumps     bool
	by        []float64
}

func (p parcel) weight() (sum float64) {
	for _, w := range p.by {
		sum += w
	}
	return sum
}

// leastHump is below which share of all a suspect of a size is left out.
const leastHump = 5e-4

// foreseen are the humps of every reading, and how often each group comes to no stand there.
func (t *Trace) foreseen(groups []group, taken []read) (humps [][]hump, jumping [][]float64) {
	n := len(t.proof.Readings)
	humps, jumping = make([][]hump, n), make([][]float64, n)
	for i := range jumping {
		jumping[i] = make([]float64, len(groups))
	}
	for g, of := range groups {
		for k, w := range of.sizes {
			weight := of.share * w
			if weight < leastHump {
				continue
			}
			for _, there := range []bool{true, false} {
				weight := weight
				switch {
				case of.when != fault.ByHand && !there:
					continue
				case of.when == fault.ByHand && there:
					weight *= thereOften
				case of.when == fault.ByHand:
					weight *= 1 - thereOften
				}
				mean, spread, known := t.conditional(of.suspect, k, taken, there)
				for i := range n {
					if !known[i] {
						continue
					}
					jumps := t.goes(of.suspect, k, i, there, closely)
					jumping[i][g] += weight * jumps
					humps[i] = append(humps[i], hump{g, weight * (1 - jumps), mean[i], spread[i]})
				}
			}
		}
	}
	for i := range humps {
		humps[i] = together(humps[i])
	}
	return humps, jumping
}

// together are humps with those of a group taken together that hardly differ: weight, mean and variance stay as they are.
func together(humps []hump) (list []hump) {
	for _, h := range humps {
		at := slices.IndexFunc(list, func(o hump) bool { return o.group == h.group && o.near(h) })
		if at < 0 {
			list = append(list, h)
			continue
		}
		o := list[at]
		sum := o.weight + h.weight
		mean := (o.weight*o.mean + h.weight*h.mean) / sum
		square := (o.weight*(o.spread*o.spread+o.mean*o.mean)+h.weight*(h.spread*h.spread+h.mean*h.mean))/sum - mean*mean
		list[at] = hump{h.group, sum, mean, math.Sqrt(max(square, 0.5*o.spread*o.spread))}
	}
	return list
}

// near says whether two humps are one, as far as a reading tells.
func (h hump) near(o hump) bool {
	return math.Abs(h.mean-o.mean) < mergeBy*min(h.spread, o.spread) && max(h.spread, o.spread) < (1+mergeBy)*min(h.spread, o.spread)
}

// mergeBy is how many spreads apart two humps are at most that are taken for one. Source: from memory.
const mergeBy = 0.25

// conditional is what a suspect of a size shows of every reading, after those that were taken; a meter's error is in its spread.
func (t *Trace) conditional(s *suspect, k int, taken []read, there bool) (mean, spread []float64, known []bool) {
	n := len(t.proof.Readings)
	all := make([]read, n, n+len(taken))
	for i := range all {
		all[i] = read{i: i, there: there}
	}
	for _, r := range taken {
		all[r.i] = r
	}
	mean, vary, _, known := t.varies(s, k, all, closely)
	square := make([]float64, n)
	for i := range n {
		square[i] = dot(vary[i], vary[i])
		if known[i] {
			square[i] += t.own(i, mean[i])
		}
	}
	cross := make([][]float64, len(taken)) // of each that was taken, with every reading
	for a, r := range taken {
		cross[a] = make([]float64, n)
		for i := range n {
			cross[a][i] = t.inCommon(r.i == i, vary[r.i], vary[i])
		}
	}
	for a, r := range taken {
		if r.jumps && !r.peak || !known[r.i] {
			continue
		}
		whole := cross[a][r.i] + t.own(r.i, mean[r.i])
		off := r.value - mean[r.i]
		if math.Abs(off) > slipFrom*math.Sqrt(whole) {
			continue // it says nothing of the others
		}
		row := slices.Clone(cross[a])
		for i := range n {
			gain := row[i] / whole
			mean[i] += gain * off
			square[i] -= gain * row[i]
			for b := a; b < len(taken); b++ {
				cross[b][i] -= row[taken[b].i] / whole * row[i]
			}
		}
	}
	for i := range square {
		square[i] = math.Sqrt(max(1e-12, square[i]))
	}
	return mean, square, known
}

// slipFrom is from how many spreads off a reading is taken for a slip.
const slipFrom = 4.0

// nodes are where a bell curve is looked at, in spreads, and with which weight. Source: three-point Gauss–Hermite quadrature.
var nodes = [3][2]float64{{-math.Sqrt2 * 1.2247448713915890, 1.0 / 6}, {0, 2.0 / 3}, {math.Sqrt2 * 1.2247448713915890, 1.0 / 6}}

// parcels are what a reading may come to, by value: each with what it would make of the groups' shares.
func parcels(humps []hump, jumping []float64) (list []parcel) {
	groups := len(jumping)
	for _, h := range humps {
		for _, node := range nodes {
			v := h.mean + node[0]*h.spread
			p := parcel{low: v, high: v, by: make([]float64, groups)}
			total := 0.0
			for _, o := range humps {
				off := (v - o.mean) / o.spread
				if off*off > 60 {
					continue
				}
				density := o.weight * math.Exp(-off*off/2) / o.spread
				p.by[o.group] += density
				total += density
			}
			if total == 0 {
				continue
			}
			for g := range p.by {
				p.by[g] *= h.weight * node[1] / total
			}
			list = append(list, p)
		}
	}
	slices.SortFunc(list, func(a, b parcel) int { return cmp.Compare(a.low, b.low) })
	if slices.Max(jumping) > 0 {
		list = append(list, parcel{jumps: true, by: slices.Clone(jumping)})
	}
	return list
}

// tells is how many bits of what is not known parcels are expected to settle.
func tells(list []parcel, before float64) float64 {
	total, left := 0.0, 0.0
	for _, p := range list {
		w := p.weight()
		total, left = total+w, left+w*bits(p.by)
	}
	if total == 0 {
		return 0
	}
	return max(0, before-left/total)
}

func dot(a, b []float64) (sum float64) {
	for i, x := range a {
		sum += x * b[i]
	}
	return sum
}
