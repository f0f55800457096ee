package harness

import (
	"fmt"
	"maps"
	"math/rand/v2"
	"slices"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/system"
	"epitrope/internal/jobtest"
	"epitrope/testdata"
)

// systems are the systems of the jobs of testdata.
func systems(t testing.TB) map[string]system.System {
	t.Helper()
	all, err := everySystem()
	require.NoError(t, err)
	return maps.Clone(all)
}

// shapes are those that are not drawn alike: they differ in parts or wires.
func shapes(t testing.TB) map[string]system.System {
	t.Helper()
	all, drawn := systems(t), map[string]bool{}
	for _, name := range slices.Sorted(maps.Keys(all)) { // in one order, so that the same ones are left each time
		if key := shape(all[name]); drawn[key] {
			delete(all, name)
		} else {
			drawn[key] = true
		}
	}
	return all
}

// everySystem are the systems of all complete jobs, decided once.
var everySystem = sync.OnceValues(func() (map[string]system.System, error) {
	documents, err := testdata.Documents()
	if err != nil || len(documents) <= 60 {
		return nil, fmt.Errorf("%d jobs: %w", len(documents), err)
	}
	all := map[string]system.System{}
	for name, data := range documents {
		doc, problems := job.Decode(data)
		if len(problems) > 0 {
			return nil, problems
		}
		all[name] = design.Of(doc, parts.Stock()).System
	}
	return all, nil
})

func someLoads(count int) []Load {
	var list []Load
	for i := range count {
		list = append(list, Load{ID: fmt.Sprintf("l%02d", i+1), Name: fmt.Sprintf("load %d", i+1), Rating: "2 A"})
	}
	return list
}

// sound fails where parts touch, a wire runs through a part or along another wire, or a
// label is missing or covered.
func sound(t *testing.T, name string, d Drawing) {
	t.Helper()
	for i, p := range d.Parts {
		assert.True(t, p.X >= 0 && p.Y >= 0 && p.X+p.W <= d.W && p.Y+p.H <= d.H, "%s: %s is off the sheet", name, p.ID)
		for _, q := range d.Parts[:i] {
			assert.False(t, TextAt{p.X, p.Y, p.W, p.H}.hits(TextAt{q.X, q.Y, q.W, q.H}), "%s: %s on %s", name, p.ID, q.ID)
		}
	}
	type piece struct {
		segment
		of string
	}
	var all []piece
	for i, l := range d.Lines {
		assert.GreaterOrEqual(t, len(l.Points), 2, "%s: %s has no way", name, l.ID)
		for k := 1; k < len(l.Points); k++ {
			a, b := l.Points[k-1], l.Points[k]
			assert.True(t, a.X == b.X || a.Y == b.Y, "%s: %s is not square", name, l.ID)
			all = append(all, piece{segment{a, b, i}, l.ID})
		}
	}
	for _, s := range all {
		for _, p := range d.Parts {
			inside := TextAt{p.X + 1, p.Y + 1, p.W - 2, p.H - 2}
			assert.False(t, s.hits(inside), "%s: %s runs through %s", name, s.of, p.ID)
		}
		for _, o := range all {
			if o.wire == s.wire || o.flat() != s.flat() {
				continue
			}
			along := s.flat() && s.a.Y == o.a.Y && min(s.a.X, s.b.X) < max(o.a.X, o.b.X) && min(o.a.X, o.b.X) < max(s.a.X, s.b.X) ||
				!s.flat() && s.a.X == o.a.X && min(s.a.Y, s.b.Y) < max(o.a.Y, o.b.Y) && min(o.a.Y, o.b.Y) < max(s.a.Y, s.b.Y)
			assert.False(t, along, "%s: %s runs along %s", name, s.of, o.of)
		}
	}
	for i, o := range d.Terminals {
		for _, s := range all {
			assert.False(t, s.hits(o.At), "%s: %s runs through terminal %s of %s", name, s.of, o.Text, o.Of)
		}
		for _, p := range d.Terminals[:i] {
			assert.False(t, o.At.hits(p.At), "%s: terminals %s and %s of %s", name, o.Text, p.Text, o.Of)
		}
		for _, p := range d.Parts {
			assert.False(t, o.At.hits(TextAt{p.X, p.Y, p.W, p.H}), "%s: terminal %s of %s is on %s", name, o.Text, o.Of, p.ID)
		}
	}
	for i, l := range d.Lines {
		if l.Text == nil {
			assert.Empty(t, l.Label, "%s: %s has no room for its label", name, l.ID)
			continue
		}
		for _, s := range all {
			assert.False(t, s.hits(*l.Text), "%s: %s runs through the label of %s", name, s.of, l.ID)
		}
		for _, p := range d.Parts {
			assert.False(t, l.Text.hits(TextAt{p.X, p.Y, p.W, p.H}), "%s: the label of %s is on %s", name, l.ID, p.ID)
		}
		for _, o := range d.Terminals {
			assert.False(t, l.Text.hits(o.At), "%s: the label of %s is on terminal %s of %s", name, l.ID, o.Text, o.Of)
		}
		for _, o := range d.Lines[:i] {
			assert.False(t, o.Text != nil && o.Text.hits(*l.Text), "%s: labels of %s and %s", name, o.ID, l.ID)
		}
	}
}

// Every job is drawn soundly, alone and with loads; the current reads from left to right.
func TestDrawingsAreSound(t *testing.T) {
	for name, s := range shapes(t) {
		for _, count := range []int{0, 1, 7} {
			d := Draw(&s, someLoads(count))
			sound(t, fmt.Sprintf("%s with %d loads", name, count), d)
			column, split := map[string]int{}, false
			for _, p := range d.Parts {
				column[p.ID] = p.Column
				split = split || p.Kind == string(system.KindSplitter)
			}
			for _, l := range d.Lines {
				if l.Role == "feed" && l.ID != "w1" && !strings.HasPrefix(l.ID, "lead") &&
					!strings.HasPrefix(l.ID, "p") && !strings.HasPrefix(l.ID, "l") &&
					// what hangs on the run branches off, and a bank stands together
					(!split || !strings.HasPrefix(l.ID, "c1")) && // a splitter feeds the start battery below it
					!strings.HasPrefix(l.ID, "k1") { // K1 lends its charger the current and takes it back
					assert.NotEqual(t, column[l.From], column[l.To], "%s: %s goes nowhere", name, l.ID)
				}
			}
			assert.Equal(t, d, Draw(&s, someLoads(count)), "%s: the same each time", name)
		}
	}
}

// shape is which parts a system has, and which of their terminals its wires join.
func shape(s system.System) string {
	var b strings.Builder
	for _, c := range s.Components {
		fmt.Fprintf(&b, "%s %s;", c.ID, c.Kind)
	}
	for _, w := range s.Wires {
		fmt.Fprintf(&b, "%s %v %v %v;", w.ID, w.Role, w.From, w.To)
	}
	return b.String()
}

// No more crossings than the best of 200 random placements of the same parts; of ten where not all is checked.
func TestNoMoreCrossingsThanByChance(t *testing.T) {
	ways := jobtest.Fewer(200, 20)
	all := shapes(t)
	for _, name := range slices.Sorted(maps.Keys(all)) { // in one order, so that a placement that is better is found again
		s := all[name]
		chance := rand.New(rand.NewPCG(1, 2))
		n := newNet(&s, someLoads(2))
		n.wrapped = wraps(&s)
		own := n.slots()
		_, crossings, failed := n.layOut(own)
		assert.Zero(t, failed, name)
		for range ways {
			if crossings == 0 {
				break // there is no less
			}
			slots := append([]slot(nil), own...)
			var movable []int
			for i, p := range n.parts {
				if p.kind != "load" && p.kind != "box" && p.kind != "bar" {
					movable = append(movable, i)
				}
			}
			chance.Shuffle(len(movable), func(i, j int) {
				a, b := movable[i], movable[j]
				slots[a], slots[b] = slots[b], slots[a]
			})
			_, other, lost := n.layOut(slots)
			if lost == 0 {
				assert.LessOrEqual(t, crossings, other, name)
			}
		}
	}
}

// A change of one size moves nothing; one load more moves nothing but what it hangs on.
func TestDrawingsAreStable(t *testing.T) {
	for name, s := range shapes(t) {
		before := Draw(&s, someLoads(3))
		changed := system.System{Components: s.Components, Wires: append([]system.Wire(nil), s.Wires...)}
		for i := range changed.Wires {
			if changed.Wires[i].ID == "c1" {
				changed.Wires[i].Size = "2 × 70 mm²"
			}
		}
		after := Draw(&changed, someLoads(3))
		assert.Equal(t, before.Parts, after.Parts, name)
		for i := range before.Lines {
			assert.Equal(t, before.Lines[i].Points, after.Lines[i].Points, "%s: %s", name, before.Lines[i].ID)
		}
		more := Draw(&s, someLoads(4))
		place := map[string]Placed{}
		for _, p := range more.Parts {
			place[p.ID] = p
		}
		for _, p := range before.Parts {
			if p.Kind != "box" && p.Kind != "bar" {
				assert.Equal(t, p, place[p.ID], name)
			}
		}
		lines := map[string]Routed{}
		for _, l := range more.Lines {
			lines[l.ID] = l
		}
		for _, l := range before.Lines {
			assert.Equal(t, l, lines[l.ID], "%s: %s", name, l.ID)
		}
	}
}

// Five parts and sixty are drawn as soundly.
func TestSmallAndLarge(t *testing.T) {
	all := systems(t)
	for name, s := range all {
		d := Draw(&s, someLoads(60-len(s.Components)))
		sound(t, name+" with sixty parts", d)
		break
	}
	tiny := system.System{}
	tiny.Add(system.Component{ID: "start", Kind: system.KindBattery, Name: "Start battery"})
	tiny.Add(system.Component{ID: "aux", Kind: system.KindBattery, Name: "Aux battery"})
	tiny.Join(system.Wire{ID: "c1", Run: "c1", Role: system.Feed, From: system.Terminal{Component: "start", Terminal: "30"},
		To: system.Terminal{Component: "aux", Terminal: "30"}, Size: "16 mm²"})
	sound(t, "tiny", Draw(&tiny, nil))
	sound(t, "nothing", Draw(&system.System{}, nil))
}

// A figure is not parted from its unit.
func TestWrap(t *testing.T) {
	assert.Equal(t, []string{"shunt, 50 mV at", "500 A"}, wrap("shunt, 50 mV at 500 A", 15, 3))
	assert.Equal(t, []string{"90/180 A"}, wrap("90/180 A", 15, 3))
	assert.Equal(t, []string{"first", "second …"}, wrap("first second third fourth", 8, 2))
	assert.Empty(t, wrap("", 15, 3))
}

func BenchmarkDrawSixtyParts(b *testing.B) {
	for name, s := range systems(b) {
		if !strings.Contains(name, "mobile-vet") {
			continue
		}
		loads := someLoads(60 - len(s.Components))
		for b.Loop() {
			Draw(&s, loads)
		}
	}
}
