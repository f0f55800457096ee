package harness

import (
	"slices"

	"epitrope/core/system"
)

// mostColumns is how many columns stand side by side: of more, what is past the coupling stands below what is before it, so that the
// drawing is read without being moved.
const mostColumns = 6

// wrap puts what is past the coupling, or past the plug where that comes first, into a band of its own where there are too many columns;
// it returns how many bands there are.
func (n *net) wrap(slots []slot) int {
	columns, last := 0, -1
	for _, s := range slots {
		columns = max(columns, s.column+1)
	}
	for _, id := range []string{"coupling", "x1"} {
		if i, ok := n.at[id]; ok && (last < 0 || slots[i].column < last) {
			last = slots[i].column
		}
	}
	bands := 2
	if !n.wrapped || columns <= mostColumns || last < 0 || last+1 >= columns {
		bands, last = 1, columns
	}
	for i := range slots {
		s := &slots[i]
		s.band, s.inBand = 0, s.column
		if s.column > last {
			s.band, s.inBand = 1, s.column-last-1
		}
	}
	return bands
}

// wraps says whether a system is drawn in two bands with few more crossings than in one, each terminal named, and no wire of it lying
// otherwise for what hangs on it.
func wraps(s *system.System) bool {
	straight := newNet(s, nil)
	_, most, _ := straight.layOut(straight.slots())
	names := len(straight.terminals)
	var few []link
	for k, hang := range [][]Load{{{ID: "few"}}, make([]Load, manyLoads)} {
		n := newNet(s, hang)
		n.wrapped = true
		_, crossings, failed := n.layOut(n.slots())
		switch {
		case failed > 0 || crossings > most+fewMore || len(n.terminals) < names:
			return false
		case k == 0:
			few = n.links
		case !slices.EqualFunc(few[:len(straight.links)], n.links[:len(straight.links)], func(a, b link) bool {
			return a.wire.ID == b.wire.ID && slices.Equal(a.path, b.path)
		}):
			return false
		}
	}
	return true
}

// fewMore are as many crossings as a drawing that is read without being moved is worth: the run and its return cross where they go below.
const fewMore = 2

// manyLoads are as many as an installation of this kind has.
const manyLoads = 16

// place gives every part its place on the grid, band by band, and returns the grid's size.
func (n *net) place(slots []slot) (w, h int) {
	top := margin + titleGap
	n.below = 0
	bands, spare := n.wrap(slots), 0
	if bands > 1 {
		spare = laneGap - lastGap // it is read whole: no room is given away
	}
	for band := range bands {
		if band > 0 {
			top = h + bandGap + titleGap
			n.below = h + bandGap
		}
		x, y, width, height := n.band(slots, band, top)
		for i := range n.parts {
			p, s := &n.parts[i], slots[i]
			if s.band != band {
				continue
			}
			p.band = s.band
			p.x = x[s.inBand] + (width[s.inBand]-p.w)/2
			p.y = y[s.row] + (height[s.row]-p.h)/2
			if p.kind == "box" || p.kind == "bar" || p.kind == "load" {
				p.y = y[s.row] + s.stack*loadPitch
			}
			w, h = max(w, p.x+p.w), max(h, p.y+p.h)
		}
		h = max(h, y[rows]-spare)
	}
	return w + margin + laneGap, h + margin
}

// band is where the columns and the rows of a band begin, and how large they are.
func (n *net) band(slots []slot, band, top int) (x []int, y [rows + 1]int, width []int, height [rows]int) {
	columns := 0
	for _, s := range slots {
		if s.band == band {
			columns = max(columns, s.inBand+1)
		}
	}
	width = make([]int, columns)
	for i, p := range n.parts {
		s := slots[i]
		if s.band != band {
			continue
		}
		width[s.inBand] = max(width[s.inBand], p.w)
		tall := p.h
		if p.kind == "box" || p.kind == "bar" || p.kind == "load" {
			tall = blockH
		}
		height[s.row] = max(height[s.row], tall)
	}
	gap := n.gaps(slots, band, columns)
	x = make([]int, columns+1)
	x[0] = margin
	for c := range columns {
		x[c+1] = x[c] + width[c] + gap[c]
	}
	y[0] = top
	for r := range rows {
		y[r+1] = y[r]
		if height[r] > 0 {
			y[r+1] += height[r] + laneGap
		}
	}
	return x, y, width, height
}
