package harness

import (
	"slices"
	"unicode/utf8"

	"epitrope/core/system"
)

// terminalText is the name of a terminal as it stands beside its wire.
type terminalText struct {
	part int
	text string
	at   TextAt
}

// How large a terminal's name is, in units of the drawing.
const (
	terminalSize = 9.0
	terminalH    = 10.0
	terminalOff  = 2.0

	terminalLetterW = 5.6 // figures are as wide as each other
)

// plain are the parts whose two sides are as good as each other, or that show at once which
// is which: their terminals are not named.
var plain = []system.ComponentKind{system.KindFuse, system.KindSwitch, system.KindShunt, system.KindEarth, system.KindFeedPoint,
	system.KindPlug, system.KindWinch, system.KindOutlet}

// terminalTexts puts the names of terminals beside the wires, one each where wires share
// one on the same side.
func (n *net) terminalTexts() []terminalText {
	list := []terminalText{}
	segments := n.segments()
	add := func(part int, name string, p pin) {
		q := n.parts[part]
		if name == "" || slices.Contains([]string{"box", "bar", "load"}, q.kind) || slices.Contains(plain, system.ComponentKind(q.kind)) {
			return
		}
		wide := float64(utf8.RuneCountInString(name))*terminalLetterW + 2
		for _, at := range []TextAt{nameAt(p, wide), otherSide(p, wide)} {
			if !slices.ContainsFunc(segments, func(s segment) bool { return s.hits(at) }) {
				list = append(list, terminalText{part: part, text: name, at: at})
				return
			}
		}
	}
	for _, l := range n.links {
		if l.path == nil {
			continue
		}
		add(l.from, l.wire.From.Terminal, l.pinFrom)
		add(l.to, l.wire.To.Terminal, l.pinTo)
	}
	return list
}

// otherSide is that room on the wire's other side.
func otherSide(p pin, w float64) TextAt {
	t := nameAt(p, w)
	if p.dx != 0 {
		t.Y += terminalH + 2*terminalOff
	} else {
		t.X -= w + 2*terminalOff
	}
	return t
}

// nameAt is the room for a terminal's name at a pin: over a wire that runs across, to the
// right of one that runs upright.
func nameAt(p pin, w float64) TextAt {
	x, y := float64(p.x)*Unit, float64(p.y)*Unit
	const off = terminalOff
	switch {
	case p.dx > 0:
		return TextAt{x + off, y - terminalH - off/2, w, terminalH}
	case p.dx < 0:
		return TextAt{x - off - w, y - terminalH - off/2, w, terminalH}
	case p.dy > 0:
		return TextAt{x + off, y + off, w, terminalH}
	}
	return TextAt{x + off, y - off - terminalH, w, terminalH}
}
