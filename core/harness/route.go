package harness

import (
	"container/heap"

	"epitrope/core/system"
)

// cellAt is a point of the grid.
type cellAt struct{ x, y int }

// What a way costs: a step, a bend, crossing another wire.
const (
	stepCost  = 2
	bendCost  = 7
	crossCost = 60
)

// grid is what stands where: parts, wires that run along a cell, ends that are kept free.
type grid struct {
	w, h    int
	ceiling int // above which a wire does not go
	floor   int // … and below which
	blocked []bool
	along   [2][]int32 // wire + 1 that runs through a cell, across and upright
	kept    []int32    // wire + 1 that alone may use a cell
	best    []int32
	from    []int32
	seen    []int32
	round   int32
	crossed int
	open    frontier
}

func newGrid(w, h int) *grid {
	size := w * h
	return &grid{w: w, h: h, floor: h - 1, blocked: make([]bool, size), along: [2][]int32{make([]int32, size), make([]int32, size)},
		kept: make([]int32, size),
		best: make([]int32, 4*size), from: make([]int32, 4*size), seen: make([]int32, 4*size)}
}

func (g *grid) cell(x, y int) int { return y*g.w + x }

// block keeps wires out of a part, and off its edge.
func (g *grid) block(p part) {
	for y := max(0, p.y); y <= min(g.h-1, p.y+p.h); y++ {
		for x := max(0, p.x); x <= min(g.w-1, p.x+p.w); x++ {
			g.blocked[g.cell(x, y)] = true
		}
	}
}

// keep keeps the way out of a pin for its wire.
func (g *grid) keep(p pin, wire int) {
	for i := 1; i <= 2; i++ {
		x, y := p.x+i*p.dx, p.y+i*p.dy
		if x >= 0 && y >= 0 && x < g.w && y < g.h {
			g.kept[g.cell(x, y)] = int32(wire) + 1
		}
	}
}

// Directions, in the order that they are tried.
var steps = [4][2]int{{1, 0}, {0, 1}, {-1, 0}, {0, -1}}

func direction(dx, dy int) int {
	for d, s := range steps {
		if s[0] == dx && s[1] == dy {
			return d
		}
	}
	return 0
}

// node is a state of the search: a cell entered in a direction.
type node struct {
	state, cost, order int32
}

type frontier []node

func (f frontier) Len() int { return len(f) }
func (f frontier) Less(i, j int) bool {
	if f[i].cost != f[j].cost {
		return f[i].cost < f[j].cost
	}
	return f[i].order < f[j].order
}
func (f frontier) Swap(i, j int) { f[i], f[j] = f[j], f[i] }
func (f *frontier) Push(x any)   { *f = append(*f, x.(node)) }
func (f *frontier) Pop() any {
	old := *f
	last := old[len(old)-1]
	*f = old[:len(old)-1]
	return last
}

// route finds the cheapest way from pin to pin; nil where there is none.
func (g *grid) route(wire int, a, b pin) []cellAt {
	g.round++
	g.open = g.open[:0]
	goal := cellAt{b.x + b.dx, b.y + b.dy}
	begin := cellAt{a.x + a.dx, a.y + a.dy}
	out, in := direction(a.dx, a.dy), direction(-b.dx, -b.dy)
	ahead := func(x, y int) int32 { return int32(stepCost * (abs(goal.x-x) + abs(goal.y-y))) }
	order := int32(0)
	push := func(x, y, d int, cost, from int32) {
		state := int32(g.cell(x, y)*4 + d)
		if g.seen[state] == g.round && g.best[state] <= cost {
			return
		}
		g.seen[state], g.best[state], g.from[state] = g.round, cost, from
		heap.Push(&g.open, node{state, cost + ahead(x, y), order})
		order++
	}
	push(begin.x, begin.y, out, 0, -1)
	for len(g.open) > 0 {
		n := heap.Pop(&g.open).(node)
		d := int(n.state & 3)
		at := int(n.state >> 2)
		x, y := at%g.w, at/g.w
		cost := g.best[n.state]
		if n.cost > cost+ahead(x, y) {
			continue
		}
		if x == goal.x && y == goal.y && d == in {
			return g.trace(n.state, a, b)
		}
		for turn, s := range steps {
			if turn == (d+2)%4 {
				continue
			}
			c := cost + stepCost
			if turn != d {
				if g.along[0][at] != 0 || g.along[1][at] != 0 {
					continue // no corner on another wire
				}
				c += bendCost
			}
			nx, ny := x+s[0], y+s[1]
			if nx < 1 || ny <= g.ceiling || nx >= g.w-1 || ny >= g.floor {
				continue
			}
			next := g.cell(nx, ny)
			if g.blocked[next] || g.along[turn%2][next] != 0 || g.kept[next] != 0 && g.kept[next] != int32(wire)+1 {
				continue
			}
			if g.along[1-turn%2][next] != 0 {
				if nx == goal.x && ny == goal.y {
					continue
				}
				c += crossCost
			}
			push(nx, ny, turn, c, n.state)
		}
	}
	return nil
}

func abs(v int) int {
	if v < 0 {
		return -v
	}
	return v
}

// trace is the way that led to a state, as corners, ends included.
func (g *grid) trace(state int32, a, b pin) []cellAt {
	way := []cellAt{{b.x, b.y}}
	for s := state; s >= 0; s = g.from[s] {
		at := int(s >> 2)
		way = append(way, cellAt{at % g.w, at / g.w})
	}
	way = append(way, cellAt{a.x, a.y})
	corners := way[:1:1]
	for i := 1; i < len(way)-1; i++ {
		p, q, r := way[i-1], way[i], way[i+1]
		if (p.x == q.x) != (q.x == r.x) {
			corners = append(corners, q)
		}
	}
	corners = append(corners, way[len(way)-1])
	for i, j := 0, len(corners)-1; i < j; i, j = i+1, j-1 {
		corners[i], corners[j] = corners[j], corners[i]
	}
	return corners
}

// run marks the cells of a way, and counts where it crosses others.
func (g *grid) run(wire int, path []cellAt) {
	for i := 1; i < len(path); i++ {
		p, q := path[i-1], path[i]
		axis := 0
		if p.x == q.x {
			axis = 1
		}
		dx, dy := sign(q.x-p.x), sign(q.y-p.y)
		for x, y := p.x, p.y; ; x, y = x+dx, y+dy {
			at := g.cell(x, y)
			corner := x == p.x && y == p.y || x == q.x && y == q.y
			if !corner && g.along[1-axis][at] != 0 {
				g.crossed++
			}
			g.along[axis][at] = int32(wire) + 1
			if corner {
				g.along[1-axis][at] = int32(wire) + 1
			}
			if x == q.x && y == q.y {
				break
			}
		}
	}
}

func sign(v int) int {
	switch {
	case v > 0:
		return 1
	case v < 0:
		return -1
	}
	return 0
}

// rankOf is the order in which wires are laid: the current's way first, what hangs on the
// box last, so that more of that changes nothing else.
func (n *net) rankOf(l link) int {
	switch {
	case n.parts[l.from].kind == "load" || n.parts[l.to].kind == "load":
		return 5
	case n.parts[l.from].band != n.parts[l.to].band: // what goes to the other band goes round what stays in one
		return 4
	case l.wire.Role == system.Feed:
		return 0
	case l.wire.Role == system.Chassis:
		return 1
	case l.wire.Role == system.Return:
		return 2
	}
	return 3
}
