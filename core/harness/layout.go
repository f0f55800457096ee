package harness

import (
	"cmp"
	"math"
	"slices"
	"unicode/utf8"

	"epitrope/core/system"
	"epitrope/core/unit"
)

// draw places the parts in their slots, lays the wires and puts the labels.
func (n *net) draw(slots []slot) Drawing {
	d, _, _ := n.layOut(slots)
	return d
}

// layOut is draw, with how often wires cross and how many found no way.
func (n *net) layOut(slots []slot) (d Drawing, crossings, failed int) {
	slots = slices.Clone(slots)
	w, h := n.place(slots)
	n.pinAll(slots)
	g := newGrid(w, h)
	for _, p := range n.parts {
		g.block(p)
	}
	for i, l := range n.links {
		g.keep(l.pinFrom, i)
		g.keep(l.pinTo, i)
	}
	for _, i := range n.inOrder() {
		l := &n.links[i]
		g.ceiling, g.floor = 0, h-1
		if n.parts[l.from].band != n.parts[l.to].band { // between the bands, not round them
			g.ceiling, g.floor = min(l.pinFrom.y, l.pinTo.y)-2, max(l.pinFrom.y, l.pinTo.y)+2
		}
		l.path, l.text = g.route(i, l.pinFrom, l.pinTo), nil
		if l.path == nil {
			failed++
			continue
		}
		g.run(i, l.path)
	}
	n.label(float64(w)*Unit, float64(h)*Unit)
	return n.drawing(slots, w, h), g.crossed, failed
}

// inOrder are the wires in the order in which they are laid: short ones first within their
// rank.
func (n *net) inOrder() []int {
	order := make([]int, len(n.links))
	for i := range order {
		order[i] = i
	}
	far := func(i int) int {
		l := n.links[i]
		return abs(l.pinFrom.x-l.pinTo.x) + abs(l.pinFrom.y-l.pinTo.y)
	}
	slices.SortStableFunc(order, func(a, b int) int {
		return cmp.Or(cmp.Compare(n.rankOf(n.links[a]), n.rankOf(n.links[b])), cmp.Compare(far(a), far(b)))
	})
	return order
}

// How large text is, in units of the drawing: its height, and the width of a letter on
// average.
const (
	labelSize  = 10.0
	labelH     = 12.0
	letterW    = 5.6
	labelApart = 2.0
	labelAside = 3.0 // of an upright wire
)

// segment is a straight piece of a wire.
type segment struct {
	a, b Corner
	wire int
}

func (s segment) flat() bool { return s.a.Y == s.b.Y }

func (s segment) length() float64 { return math.Abs(s.a.X-s.b.X) + math.Abs(s.a.Y-s.b.Y) }

// hits says whether a piece of wire touches a box.
func (s segment) hits(t TextAt) bool {
	return min(s.a.X, s.b.X) < t.X+t.W && max(s.a.X, s.b.X) > t.X && min(s.a.Y, s.b.Y) < t.Y+t.H && max(s.a.Y, s.b.Y) > t.Y
}

func (t TextAt) hits(o TextAt) bool {
	return t.X < o.X+o.W && o.X < t.X+t.W && t.Y < o.Y+o.H && o.Y < t.Y+t.H
}

// segments are the pieces of all wires.
func (n *net) segments() []segment {
	var list []segment
	for i, l := range n.links {
		for k := 1; k < len(l.path); k++ {
			list = append(list, segment{spot(l.path[k-1]), spot(l.path[k]), i})
		}
	}
	return list
}

func spot(c cellAt) Corner { return Corner{float64(c.x) * Unit, float64(c.y) * Unit} }

// label puts each wire's label beside its longest piece where there is room, or as near to
// that as can be; its number alone where there is not.
func (n *net) label(w, h float64) {
	segments := n.segments()
	var boxes []TextAt
	for _, p := range n.parts {
		boxes = append(boxes, TextAt{float64(p.x) * Unit, float64(p.y) * Unit, float64(p.w) * Unit, float64(p.h) * Unit})
	}
	n.terminals = n.terminalTexts()
	for _, t := range n.terminals {
		boxes = append(boxes, t.at)
	}
	free := func(t TextAt) bool {
		if t.X < 0 || t.Y < 0 || t.X+t.W > w || t.Y+t.H > h {
			return false
		}
		for _, b := range boxes {
			if t.hits(b) {
				return false
			}
		}
		for _, s := range segments {
			if s.hits(t) {
				return false
			}
		}
		return true
	}
	for _, i := range n.inOrder() {
		l := &n.links[i]
		if l.label == "" || l.path == nil {
			continue
		}
		for _, text := range []string{l.label, Number(l.wire.ID)} {
			if at, ok := n.room(i, text, segments, free); ok {
				l.label, l.text = text, &at
				boxes = append(boxes, at)
				break
			}
		}
	}
}

// room looks for a place beside a wire, its longest pieces first, from their middles
// outward.
func (n *net) room(i int, text string, segments []segment, free func(TextAt) bool) (TextAt, bool) {
	wide := float64(utf8.RuneCountInString(text))*letterW + 4
	var own []segment
	for _, s := range segments {
		if s.wire == i {
			own = append(own, s)
		}
	}
	slices.SortStableFunc(own, func(a, b segment) int { return cmp.Compare(b.length(), a.length()) })
	for _, s := range own {
		mid := Corner{(s.a.X + s.b.X) / 2, (s.a.Y + s.b.Y) / 2}
		for shift := 0.0; shift <= s.length()/2; shift += Unit {
			for _, by := range []float64{shift, -shift} {
				var tries [2]TextAt
				if s.flat() {
					tries = [2]TextAt{{mid.X + by - wide/2, mid.Y - labelH - labelApart, wide, labelH},
						{mid.X + by - wide/2, mid.Y + labelApart, wide, labelH}}
				} else {
					tries = [2]TextAt{{mid.X + labelAside, mid.Y + by - labelH/2, wide, labelH},
						{mid.X - labelAside - wide, mid.Y + by - labelH/2, wide, labelH}}
				}
				for _, t := range tries {
					if free(t) {
						return t, true
					}
				}
			}
		}
	}
	return TextAt{}, false
}

// drawing is what was laid out, with the shapes to paint it.
func (n *net) drawing(slots []slot, w, h int) Drawing {
	d := Drawing{W: float64(w) * Unit, H: float64(h) * Unit, Parts: []Placed{}, Lines: []Routed{}, Terminals: []NamedTerminal{},
		Zones: []Zone{}, Legend: legend(n), Shapes: []Shape{}}
	for i, p := range n.parts {
		d.Parts = append(d.Parts, Placed{ID: p.id, Kind: p.kind, Name: p.name, Rating: p.rating, Column: slots[i].column,
			X: float64(p.x) * Unit, Y: float64(p.y) * Unit, W: float64(p.w) * Unit, H: float64(p.h) * Unit})
	}
	for _, l := range n.links {
		r := Routed{ID: l.wire.ID, Number: Number(l.wire.ID), Role: string(l.wire.Role), From: n.parts[l.from].id, To: n.parts[l.to].id,
			Label: l.label, Points: []Corner{}, Text: l.text}
		for _, c := range l.path {
			r.Points = append(r.Points, spot(c))
		}
		d.Lines = append(d.Lines, r)
	}
	for _, t := range n.terminals {
		d.Terminals = append(d.Terminals, NamedTerminal{Of: n.parts[t.part].id, Text: t.text, At: t.at})
	}
	d.Aux = "aux"
	d.WithAux = n.behindTheBox()
	d.Zones = n.zones(slots, w)
	d.H = d.legendBelow()
	d.paint(n)
	return d
}

// behindTheBox are the box, and the loads and feeds that hang on it, by id.
func (n *net) behindTheBox() []string {
	list := []string{}
	added := func(i int) bool { return n.parts[i].id == boxID || n.parts[i].kind == "load" }
	for i, p := range n.parts {
		if added(i) {
			list = append(list, p.id)
		}
	}
	for _, l := range n.links {
		if l.wire.Role == system.Feed && (added(l.from) || added(l.to)) {
			list = append(list, l.wire.ID)
		}
	}
	return list
}

// zones tell the start side, the aux side and the trailer apart, by columns.
func (n *net) zones(slots []slot, w int) []Zone {
	at, ok := n.at["coupling"]
	if !ok {
		return []Zone{}
	}
	c := n.parts[at]
	first, second := "Start side", "Aux side"
	cut := float64(c.x) + float64(c.w)/2
	whole := float64(w) * Unit
	if n.below > 0 {
		return n.bandZones(slots, whole)
	}
	zones := []Zone{{first, 0, 0, cut * Unit}, {second, cut * Unit, 0, (float64(w) - cut) * Unit}}
	x, ok := n.at["x1"]
	if !ok {
		return zones
	}
	behind := unit.Capital(n.behind)
	hitch := float64(n.parts[x].x) + float64(n.parts[x].w)/2
	if slots[x].column < slots[at].column { // the charger is in the trailer
		return []Zone{{n.before() + ": start side", 0, 0, hitch * Unit}, {behind, hitch * Unit, 0, (float64(w) - hitch) * Unit}}
	}
	return []Zone{zones[0], {"Aux side", cut * Unit, 0, (hitch - cut) * Unit}, {behind, hitch * Unit, 0, (float64(w) - hitch) * Unit}}
}

// bandZones tell the sides apart where they stand below each other.
func (n *net) bandZones(slots []slot, w float64) []Zone {
	below := float64(n.below) * Unit
	x, plugged := n.at["x1"]
	switch {
	case !plugged:
		return []Zone{{"Start side", 0, 0, w}, {"Aux side", 0, below, w}}
	case slots[x].band == 0: // all that is below is behind the plug
		return []Zone{{n.before() + ": start side", 0, 0, w}, {unit.Capital(n.behind), 0, below, w}}
	}
	hitch := (float64(n.parts[x].x) + float64(n.parts[x].w)/2) * Unit
	return []Zone{{"Start side", 0, 0, w}, {"Aux side", 0, below, hitch}, {unit.Capital(n.behind), hitch, below, w - hitch}}
}

// before is what the plug's own half stays in.
func (n *net) before() string {
	if n.behind == system.Trailer {
		return "Tow vehicle"
	}
	return "Vehicle"
}

// legend says what the lines are, of those that there are.
func legend(n *net) []LegendOf {
	words := []LegendOf{{"feed", "feed"}, {"return", "return"}, {"chassis", "the vehicle's own steel"}, {"signal", "signal and control"},
		{"existing", "there before, or as fitted"}}
	there := map[string]bool{}
	for _, l := range n.links {
		there[classOf(l)] = true
	}
	return slices.DeleteFunc(words, func(w LegendOf) bool { return !there[w.Class] })
}

func classOf(l link) string {
	if l.wire.Existing && l.wire.Role != "chassis" {
		return "existing"
	}
	return string(l.wire.Role)
}

// legendH is the room of a line of the legend.
const legendH = 18.0

// legendBelow is the drawing's height with the legend under it.
func (d *Drawing) legendBelow() float64 { return d.H + legendH*2 }
