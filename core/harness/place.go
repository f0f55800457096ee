package harness

import (
	"slices"

	"epitrope/core/system"
)

// slot is where a part goes: its column along the current, its row, and, of what hangs on
// the fuse box, the how many-th it is.
type slot struct{ column, row, stack int }

// The rows, from above: what signals, the current's way, what branches off it, the earth
// points.
const (
	signalRow = iota
	mainRow
	branchRow
	earthRow
	rows
)

// slots places every part by the way that the current takes: from the machine that charges
// to the aux battery and on to what is used, from left to right.
func (n *net) slots() []slot {
	out := make([]slot, len(n.parts))
	done := make([]bool, len(n.parts))
	put := func(i int, s slot) {
		if !done[i] {
			out[i], done[i] = s, true
		}
	}
	way := n.way()
	for c, i := range way {
		put(i, slot{column: c, row: mainRow})
	}
	for c, id := range []string{"alternator", "start"} {
		if i, ok := n.at[id]; ok && !done[i] { // the aux side has a machine of its own
			put(i, slot{column: c, row: branchRow})
		}
	}
	last := len(way)
	if box, ok := n.at[boxID]; ok {
		put(box, slot{column: last, row: mainRow})
		stack := 0
		for i, p := range n.parts {
			if p.kind == "load" {
				put(i, slot{column: last + 1, row: mainRow, stack: stack})
				stack++
			}
		}
		put(n.at[barID], slot{column: last + 2, row: mainRow})
	}
	over := func(id, beside string, row int) {
		i, ok := n.at[id]
		if at, there := n.at[beside]; ok && there && done[at] {
			put(i, slot{column: out[at].column, row: row})
		}
	}
	over("e1", "start", earthRow)
	over("r1", "aux", signalRow)
	over("coupling", "k1", branchRow)
	n.besides(out, done)
	return out
}

// besides places what is not on the current's way beside what it is joined to: signals
// above, earth points below, a shunt above its battery, all else below.
func (n *net) besides(out []slot, done []bool) {
	taken := map[slot]bool{}
	for i, s := range out {
		if done[i] {
			taken[s] = true
		}
	}
	for grown := true; grown; {
		grown = false
		for i, p := range n.parts {
			if done[i] {
				continue
			}
			at, ok := n.beside(i, done, out)
			if !ok {
				continue
			}
			row := branchRow
			switch system.ComponentKind(p.kind) {
			case system.KindFeedPoint, system.KindFuse, system.KindShunt, system.KindControl:
				row = signalRow
			case system.KindEarth:
				row = earthRow
			}
			s := slot{column: at, row: row}
			if p.kind == string(system.KindFeedPoint) || p.id == "e3" || p.id == "s2" || p.id == "f3" && n.controlled() {
				s.column-- // what the current comes from stands before what it goes to
			}
			for taken[s] {
				s.column++
			}
			if s.column < 0 {
				s.column = 0
			}
			out[i], done[i], taken[s], grown = s, true, true, true
		}
	}
	for i := range n.parts {
		if !done[i] { // joined to nothing
			s := slot{row: branchRow}
			for taken[s] {
				s.column++
			}
			out[i], done[i], taken[s] = s, true, true
		}
	}
}

// controlled says whether a person works the signal.
func (n *net) controlled() bool {
	_, ok := n.at["s1"]
	return ok
}

// beside is the column of the first part that is placed and that a part is joined to.
func (n *net) beside(i int, done []bool, out []slot) (int, bool) {
	for _, l := range n.links {
		other := -1
		if l.from == i {
			other = l.to
		} else if l.to == i {
			other = l.from
		}
		if other >= 0 && done[other] {
			return out[other].column, true
		}
	}
	return 0, false
}

// way is the current's way through the parts: from the machine that charges the aux
// battery, to the battery and on to the box, by the fewest feed wires.
func (n *net) way() []int {
	goal, ok := n.at["aux"]
	if !ok {
		return nil
	}
	begin := -1
	if second, has := n.at["second"]; has {
		begin = second
	} else if a, has := n.at["alternator"]; has {
		begin = a
	}
	if begin < 0 {
		return []int{goal}
	}
	way := n.between(begin, goal)
	if box, has := n.at[boxID]; has {
		on := n.between(goal, box)
		if len(on) > 1 {
			way = append(way, on[1:len(on)-1]...)
		}
	}
	// A master switch stands before its battery: what is used hangs on its far side.
	return slices.DeleteFunc(way, func(i int) bool { return n.parts[i].id == boxID })
}

// between are the parts from one to another by feed wires, the fewest; both alone where
// there is no such way.
func (n *net) between(from, to int) []int {
	before := map[int]int{from: -1}
	queue := []int{from}
	for len(queue) > 0 {
		at := queue[0]
		queue = queue[1:]
		if at == to {
			break
		}
		for _, l := range n.links {
			if l.wire.Role != system.Feed {
				continue
			}
			next := -1
			if l.from == at {
				next = l.to
			} else if l.to == at {
				next = l.from
			}
			if _, seen := before[next]; next >= 0 && !seen {
				before[next] = at
				queue = append(queue, next)
			}
		}
	}
	if _, ok := before[to]; !ok {
		return []int{from, to}
	}
	var back []int
	for at := to; at >= 0; at = before[at] {
		back = append(back, at)
	}
	slices.Reverse(back)
	return back
}

// linkWires are the short wires that join a part to the one beside it.
var linkWires = map[string]bool{"c1a": true, "c2c": true, "q1a": true, "h1a": true, "h1b": true, "w1": true, "k1a": true, "k1b": true}

// place gives every part its place on the grid, and returns the grid's size.
func (n *net) place(slots []slot) (w, h int) {
	columns := 0
	for _, s := range slots {
		columns = max(columns, s.column+1)
	}
	width := make([]int, columns)
	height := [rows]int{}
	for i, p := range n.parts {
		s := slots[i]
		width[s.column] = max(width[s.column], p.w)
		tall := p.h
		if p.kind == "box" || p.kind == "bar" || p.kind == "load" {
			tall = blockH
		}
		height[s.row] = max(height[s.row], tall)
	}
	gap := n.gaps(slots, columns)
	x := make([]int, columns+1)
	x[0] = margin
	for c := range columns {
		x[c+1] = x[c] + width[c] + gap[c]
	}
	y := [rows + 1]int{margin + 3}
	for r := range rows {
		y[r+1] = y[r]
		if height[r] > 0 {
			y[r+1] += height[r] + laneGap
		}
	}
	for i := range n.parts {
		p, s := &n.parts[i], slots[i]
		p.x = x[s.column] + (width[s.column]-p.w)/2
		p.y = y[s.row] + (height[s.row]-p.h)/2
		if p.kind == "box" || p.kind == "bar" || p.kind == "load" {
			p.y = y[s.row] + s.stack*loadPitch
		}
		w, h = max(w, p.x+p.w), max(h, p.y+p.h)
	}
	return w + margin + laneGap, max(h, y[rows]) + margin
}

// gaps are the spaces behind each column, by the wire that goes there: they do not depend on
// its size, so that a change of size moves nothing.
func (n *net) gaps(slots []slot, columns int) []int {
	gap := make([]int, columns)
	for c := range gap {
		gap[c] = bareGap
	}
	for _, l := range n.links {
		a, b := slots[l.from], slots[l.to]
		if a.row != mainRow || b.row != mainRow {
			continue
		}
		c := min(a.column, b.column)
		switch {
		case l.label == "":
			gap[c] = max(gap[c], bareGap)
		case linkWires[l.wire.ID]:
			gap[c] = max(gap[c], linkGap)
		case l.wire.Role == system.Feed:
			gap[c] = max(gap[c], runGap)
		}
	}
	return gap
}

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
			slices.SortStableFunc(list, func(a, b want) int { return middle(a) - middle(b) })
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
