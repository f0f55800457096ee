package harness

import (
	"testing"
	"unicode/utf8"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/system"
)

func length(path []cellAt) int {
	sum := 0
	for i := 1; i < len(path); i++ {
		sum += abs(path[i].x-path[i-1].x) + abs(path[i].y-path[i-1].y)
	}
	return sum
}

// In an empty grid a way is as short as can be, with as few corners as can be.
func TestRouteIsShortest(t *testing.T) {
	g := newGrid(60, 40)
	straight := g.route(0, pin{5, 10, 1, 0}, pin{30, 10, -1, 0})
	assert.Equal(t, []cellAt{{5, 10}, {30, 10}}, straight)
	bent := g.route(1, pin{5, 20, 1, 0}, pin{30, 30, 0, -1})
	assert.Len(t, bent, 3, "one corner")
	assert.Equal(t, 35, length(bent))
	around := g.route(2, pin{20, 5, -1, 0}, pin{30, 5, 1, 0})
	assert.GreaterOrEqual(t, len(around), 6, "out to the left and round to the right")
}

// A way goes round what is in it, keeps off the ways out of other pins, and is none where
// there is none.
func TestRouteGoesRound(t *testing.T) {
	g := newGrid(40, 30)
	g.block(part{x: 15, y: 5, w: 6, h: 15})
	path := g.route(0, pin{5, 12, 1, 0}, pin{35, 12, -1, 0})
	require.NotNil(t, path)
	for i := 1; i < len(path); i++ {
		for x := min(path[i-1].x, path[i].x); x <= max(path[i-1].x, path[i].x); x++ {
			for y := min(path[i-1].y, path[i].y); y <= max(path[i-1].y, path[i].y); y++ {
				assert.False(t, x >= 15 && x <= 21 && y >= 5 && y <= 20, "through the part at %d, %d", x, y)
			}
		}
	}
	g.block(part{x: 0, y: 1, w: 40, h: 3})
	g.block(part{x: 0, y: 21, w: 40, h: 8})
	assert.Nil(t, g.route(1, pin{5, 10, 1, 0}, pin{35, 10, -1, 0}), "walled in above, below and between")
}

// Crossing costs more than a detour that is not too long; wires never share a stretch.
func TestRouteCrossesOnlyWhereItMust(t *testing.T) {
	g := newGrid(60, 40)
	short := g.route(0, pin{30, 10, 0, 1}, pin{30, 16, 0, -1})
	g.run(0, short)
	path := g.route(1, pin{20, 13, 1, 0}, pin{40, 13, -1, 0})
	g.run(1, path)
	assert.Zero(t, g.crossed, "round the end of a short wire")
	g = newGrid(60, 40)
	g.run(0, g.route(0, pin{30, 1, 0, 1}, pin{30, 38, 0, -1}))
	g.run(1, g.route(1, pin{20, 13, 1, 0}, pin{40, 13, -1, 0}))
	assert.Equal(t, 1, g.crossed, "a wire from edge to edge is crossed, once")
	along := g.route(2, pin{20, 14, 1, 0}, pin{40, 14, -1, 0})
	require.NotNil(t, along)
	assert.NotEqual(t, []cellAt{{20, 13}, {40, 13}}, along)
}

// Texts on parts keep within their width, and say where something is left out.
func TestTextsFit(t *testing.T) {
	assert.Equal(t, "F1", fit("F1", 80, 10))
	assert.Equal(t, "abcdefghi…", fit("abcdefghijklmnop", 60, 10))
	assert.Equal(t, []string{"70 A strip fuse,", "SF30"}, wrap("70 A strip fuse, SF30", 17, 3))
	rows := wrap("DC-DC charger, 40 A, stud changeover relay, 100/80 A, and more", 17, 3)
	assert.Len(t, rows, 3)
	assert.Contains(t, rows[2], "…")
	for _, r := range rows {
		assert.LessOrEqual(t, utf8.RuneCountInString(r), 17)
	}
	assert.Empty(t, wrap("", 17, 3))
	assert.Equal(t, []string{"verylongwordtha…"}, wrap("verylongwordthatdoesnotfit", 16, 2))
}

// Sizes of what goes over a cable and through a bulkhead rise with it.
func TestConduitsAndHoles(t *testing.T) {
	before := 0.0
	for _, mm := range []float64{3, 5, 7, 9, 12, 16, 22, 28} {
		c := conduit(mm)
		assert.GreaterOrEqual(t, c, conduitOver*mm)
		assert.GreaterOrEqual(t, c, before)
		assert.Greater(t, hole(c), c)
		assert.GreaterOrEqual(t, shrink(mm), 1.4*mm-1e-9)
		before = c
	}
	assert.Equal(t, conduits[len(conduits)-1], conduit(500))
	assert.InDelta(t, 5.5, cut(5.4), 1e-9)
	assert.InDelta(t, 5.55, cut(5.41), 1e-9)
}

// A scheme says its own colours where it has them.
func TestScheme(t *testing.T) {
	own := Scheme{Feed: "brown", Return: "  "}.Or(UsualScheme)
	assert.Equal(t, Scheme{Feed: "brown", Return: "black", Signal: "violet", House: "orange"}, own)
	assert.Equal(t, "brown", own.of(system.Wire{Role: system.Feed, Run: "c1"}))
	assert.Equal(t, "orange", own.of(system.Wire{Role: system.Feed, Run: "h1"}))
	assert.Equal(t, "violet", own.of(system.Wire{Role: system.Signal}))
}

// The current's way is found through parts in any order, and parts that hang on nothing
// still have a place of their own.
func TestSlots(t *testing.T) {
	s := system.System{}
	for _, id := range []string{"aux", "f2", "start", "alternator", "f1", "coupling"} {
		s.Add(system.Component{ID: id, Kind: system.KindFuse, Name: id})
	}
	s.Add(system.Component{ID: "loose", Kind: system.KindShunt, Name: "loose"})
	s.Add(system.Component{ID: "lost", Kind: system.KindShunt, Name: "lost"})
	for _, w := range [][2]string{{"f2", "aux"}, {"alternator", "start"}, {"start", "f1"}, {"f1", "coupling"}, {"coupling", "f2"}} {
		s.Join(system.Wire{ID: w[0] + w[1], Role: system.Feed, From: system.Terminal{Component: w[0], Terminal: "a"},
			To: system.Terminal{Component: w[1], Terminal: "b"}, Size: "16 mm²"})
	}
	n := newNet(&s, nil)
	slots := n.slots()
	for c, id := range []string{"alternator", "start", "f1", "coupling", "f2", "aux"} {
		assert.Equal(t, slot{column: c, row: mainRow}, slots[n.at[id]], id)
	}
	seen := map[slot]bool{}
	for _, sl := range slots {
		assert.False(t, seen[sl])
		seen[sl] = true
	}
	sound(t, "loose parts", Draw(&s, nil))
}
