package harness

import (
	"cmp"
	"slices"

	"epitrope/core/system"
)

// pinAll gives every wire its two ends: feeds left and right, returns to earth points below,
// returns between parts above.
func (n *net) pinAll(slots []slot) {
	type want struct {
		link, other int
		from        bool
	}
	wants := make([][4][]want, len(n.parts))
	for i, l := range n.links {
		a, b := n.sides(l, slots)
		wants[l.from][a] = append(wants[l.from][a], want{i, l.to, true})
		wants[l.to][b] = append(wants[l.to][b], want{i, l.from, false})
	}
	for p := range n.parts {
		for sd, list := range wants[p] {
			middle := func(w want) int {
				o := n.parts[w.other]
				if side(sd) == left || side(sd) == right {
					return o.y + min(o.h, blockH)/2
				}
				return o.x + o.w/2
			}
			// What goes to the other band leaves past all else: below on the right, and comes in above on the left.
			away := func(w want) int {
				switch from, to := slots[p].band, slots[w.other].band; {
				case from < to && side(sd) == bottom:
					return 1
				case from > to && side(sd) == top:
					return -1
				}
				return 0
			}
			slices.SortStableFunc(list, func(a, b want) int {
				return cmp.Or(cmp.Compare(away(a), away(b)), cmp.Compare(middle(a), middle(b)))
			})
			for k, w := range list {
				at := n.pinAt(p, side(sd), k, len(list), w.other)
				if w.from {
					n.links[w.link].pinFrom = at
				} else {
					n.links[w.link].pinTo = at
				}
			}
		}
	}
}

// pinAt is the k-th of count pins on a side of a part.
func (n *net) pinAt(p int, sd side, k, count, other int) pin {
	q := n.parts[p]
	switch sd {
	case left, right:
		y := q.y + min(q.h, blockH)/2 + 2*k - (count - 1)
		if q.kind == "load" {
			y = q.y + q.h/2
		}
		if (q.kind == "box" || q.kind == "bar") && n.parts[other].kind == "load" {
			y = n.parts[other].y + n.parts[other].h/2
		}
		if sd == left {
			return pin{q.x, y, -1, 0}
		}
		return pin{q.x + q.w, y, 1, 0}
	default:
		x := q.x + q.w/2 + 3*k - 3*(count-1)/2
		if sd == top {
			return pin{x, q.y, 0, -1}
		}
		return pin{x, q.y + q.h, 0, 1}
	}
}

// sides are the sides at which a wire leaves its two parts.
func (n *net) sides(l link, slots []slot) (from, to side) {
	return n.sideOf(l, l.from, l.to, slots), n.sideOf(l, l.to, l.from, slots)
}

func (n *net) sideOf(l link, at, other int, slots []slot) side {
	a, b := slots[at], slots[other]
	across := right
	if b.column < a.column {
		across = left
	}
	isEarth := func(i int) bool { return n.parts[i].kind == string(system.KindEarth) }
	switch {
	case isEarth(at) && isEarth(other):
		return across
	case isEarth(at):
		return top
	case a.band != b.band && l.wire.Role == system.Feed && a.row == mainRow && b.row == mainRow: // the run goes on below
		return across
	case a.band < b.band:
		return bottom
	case a.band > b.band:
		return top
	case isEarth(other):
		return bottom
	case l.wire.Role == system.Return && a.row == mainRow && b.row == mainRow && n.parts[at].kind != "load" && n.parts[other].kind != "load":
		return top
	case a.row == b.row:
		return across
	case a.row == signalRow && a.column == b.column:
		return bottom
	case a.row == signalRow && l.wire.Role == system.Return:
		return across
	case a.row == signalRow:
		return bottom
	case b.row == signalRow && a.row == branchRow:
		return left // past what stands above
	case b.row == signalRow:
		return top
	case a.row < b.row && b.column > a.column:
		return right
	case a.row < b.row:
		return bottom
	case a.column == b.column:
		return top
	}
	return across
}
