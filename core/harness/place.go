package harness

import (
	"slices"
	"strings"

	"epitrope/core/system"
)

// slot is where a part goes: its column along the current, its row, and, of what hangs on the fuse box, the how many-th it is. The band
// that it stands in, from above, and its column there follow.
type slot struct{ column, row, stack, band, inBand int }

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
	over("e5", "x1", earthRow)
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
			case system.KindFeedPoint, system.KindFuse, system.KindShunt, system.KindControl, system.KindLamp:
				row = signalRow
			case system.KindEarth:
				row = earthRow
			}
			s := slot{column: at, row: row}
			if p.kind == string(system.KindFeedPoint) || p.id == "e3" || p.id == "s2" || p.id == "f3" && n.controlled() {
				s.column-- // what the current comes from stands before what it goes to
			}
			if hangs(p) {
				s = n.nearby(s, taken, out)
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

// hangs says whether a part hangs on the run at the coupling, or is the fuse of what does.
func hangs(p part) bool {
	return p.kind == string(system.KindTap) || p.kind == string(system.KindFuse) && strings.HasPrefix(p.id, "fp")
}

// nearby is a free place below or above the run close to a slot, before the box that loads hang on.
func (n *net) nearby(s slot, taken map[slot]bool, out []slot) slot {
	most := len(n.parts)
	if box, ok := n.at[boxID]; ok {
		most = out[box].column - 1
	}
	for away := range len(n.parts) {
		for _, column := range []int{s.column + away, s.column - away} {
			for _, row := range []int{branchRow, signalRow} {
				if at := (slot{column: column, row: row}); column >= 0 && column <= most && !taken[at] {
					return at
				}
			}
		}
	}
	return s
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

// gaps are the spaces behind each column, by the wire that goes there: they do not depend on
// its size, so that a change of size moves nothing.
func (n *net) gaps(slots []slot, band, columns int) []int {
	gap := make([]int, columns)
	for c := range gap {
		gap[c] = bareGap
	}
	for _, l := range n.links {
		a, b := slots[l.from], slots[l.to]
		if a.row != mainRow || b.row != mainRow || a.band != band || b.band != band {
			continue
		}
		c := min(a.inBand, b.inBand)
		switch {
		case l.label == "":
			gap[c] = max(gap[c], bareGap)
		case l.wire.Beside != "":
			gap[c] = max(gap[c], linkGap)
		case l.wire.Role == system.Feed:
			gap[c] = max(gap[c], runGap)
		}
	}
	return gap
}
