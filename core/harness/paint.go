package harness

import (
	"slices"
	"strings"
	"unicode"
	"unicode/utf8"
)

const zoneSize = 12.0

// zoneName is where a zone's name stands: at its upper edge, or where no wire runs near that.
func (n *net) zoneName(z Zone) Corner {
	at := Corner{z.X + 10, z.Y + 16}
	if z.Y == 0 {
		return at
	}
	wide, segments := float64(utf8.RuneCountInString(z.Name))*letterW*zoneSize/labelSize, n.segments()
	for _, aside := range []float64{0, 2 * Unit} { // past the run, which comes down at the edge
		for _, y := range []float64{z.Y + 13, z.Y - 5, z.Y + 21} {
			room := TextAt{at.X + aside, y - zoneSize, wide, zoneSize + 2}
			if !slices.ContainsFunc(segments, func(s segment) bool { return s.hits(room) }) {
				return Corner{room.X, y}
			}
		}
	}
	return at
}

// paint makes the shapes: zones, wires, parts with their symbols, names and ratings, labels
// and the legend.
func (d *Drawing) paint(n *net) {
	for i, z := range d.Zones {
		at := n.zoneName(z)
		d.text("zone", "", at.X, at.Y, z.Name, zoneSize, true)
		switch {
		case i == 0:
		case z.X == 0: // it stands below the one before
			d.line("zone", "", 0, z.Y, d.W, z.Y)
		default:
			d.line("zone", "", z.X, z.Y+6, z.X, z.Y+26)
		}
	}
	for i, l := range d.Lines {
		at := []float64{}
		for _, p := range l.Points {
			at = append(at, p.X, p.Y)
		}
		if len(at) > 0 {
			d.Shapes = append(d.Shapes, Shape{Kind: "line", Class: classOf(n.links[i]), Of: l.ID, At: at})
		}
		if l.Text != nil {
			d.text("label", l.ID, l.Text.X+l.Text.W/2, l.Text.Y+labelSize, l.Label, labelSize, false)
		}
	}
	for _, p := range d.Parts {
		d.part(p)
	}
	for _, t := range d.Terminals {
		d.text("terminal", t.Of, t.At.X+t.At.W/2, t.At.Y+terminalSize, t.Text, terminalSize, false)
	}
	x := 10.0
	for _, l := range d.Legend {
		y := d.H - legendH
		d.line(l.Class, "", x, y-3, x+28, y-3)
		d.text("legend", "", x+34, y, l.Text, labelSize, true)
		x += 34 + float64(utf8.RuneCountInString(l.Text))*letterW + 24
	}
}

func (d *Drawing) line(class, of string, at ...float64) {
	d.Shapes = append(d.Shapes, Shape{Kind: "line", Class: class, Of: of, At: at})
}

func (d *Drawing) closed(class, of string, at ...float64) {
	d.Shapes = append(d.Shapes, Shape{Kind: "line", Class: class, Of: of, At: at, Closed: true})
}

func (d *Drawing) circle(class, of string, x, y, r float64) {
	d.Shapes = append(d.Shapes, Shape{Kind: "circle", Class: class, Of: of, At: []float64{x, y, r}})
}

func (d *Drawing) text(class, of string, x, y float64, text string, size float64, start bool) {
	d.Shapes = append(d.Shapes, Shape{Kind: "text", Class: class, Of: of, At: []float64{x, y}, Text: text, Size: size, Start: start})
}

func (d *Drawing) box(class, of string, x, y, w, h float64) {
	d.closed(class, of, x, y, x+w, y, x+w, y+h, x, y+h)
}

// part paints one part: its outline, its symbol, a small picture of the thing, its name and
// what it is.
func (d *Drawing) part(p Placed) {
	switch p.Kind {
	case "earth":
		d.earth(p)
		return
	case "load":
		d.box("outline", p.ID, p.X, p.Y, p.W, p.H)
		d.text("name", p.ID, p.X+p.W/2, p.Y+17, fit(p.Name, p.W-16, 10), 10, false)
		d.text("rating", p.ID, p.X+p.W/2, p.Y+31, fit(p.Rating, p.W-8, 9), 9, false)
		return
	case "bar":
		d.box("outline", p.ID, p.X, p.Y, p.W, p.H)
		d.text("name", p.ID, p.X+p.W/2, p.Y+24, p.Name, 12, false)
		return
	case "box":
		d.box("outline", p.ID, p.X, p.Y, p.W, p.H)
		d.text("name", p.ID, p.X+p.W/2, p.Y+16, "Fuse", 10, false)
		d.text("name", p.ID, p.X+p.W/2, p.Y+28, "box", 10, false)
		d.text("rating", p.ID, p.X+p.W/2, p.Y+72, p.Rating, 9, false)
		return
	}
	d.box("outline", p.ID, p.X, p.Y, p.W, p.H)
	half := p.W / 2
	if draw, ok := symbols[p.Kind]; ok {
		draw(d, p.ID, p.X+half/2, p.Y+21)
	}
	if draw, ok := pictures[p.Kind]; ok {
		draw(d, p.ID, p.X+half+half/2, p.Y+21)
	}
	d.text("name", p.ID, p.X+half, p.Y+52, fit(p.Name, p.W-6, 10), 10, false)
	for i, row := range wrap(p.Rating, int((p.W-6)/(9*letterShare)), 3) {
		d.text("rating", p.ID, p.X+half, p.Y+63+float64(i)*10, row, 9, false)
	}
}

// letterShare is the width of a letter on average over the size of its text.
const letterShare = letterW / labelSize

// fit is as much of a text as fits a width.
func fit(text string, w, size float64) string {
	most := int(w / (size * letterShare))
	if utf8.RuneCountInString(text) <= most {
		return text
	}
	return strings.TrimSpace(string([]rune(text)[:max(1, most-1)])) + "…"
}

// wordsOf are the words of a text, a figure with its unit as one.
func wordsOf(text string) []string {
	var out []string
	for _, word := range strings.Fields(text) {
		last := len(out) - 1
		if last >= 0 && unicode.IsDigit(rune(out[last][len(out[last])-1])) && utf8.RuneCountInString(word) <= 3 &&
			unicode.IsLetter([]rune(word)[0]) {
			out[last] += " " + word
			continue
		}
		out = append(out, word)
	}
	return out
}

// wrap breaks a text into rows at its spaces; the last row ends in … where there is more.
func wrap(text string, most, rows int) []string {
	var out []string
	row := ""
	for _, word := range wordsOf(text) {
		switch {
		case row == "":
			row = word
		case utf8.RuneCountInString(row)+1+utf8.RuneCountInString(word) <= most:
			row += " " + word
		default:
			out, row = append(out, row), word
		}
	}
	if row != "" {
		out = append(out, row)
	}
	if len(out) > rows {
		out = append(out[:rows-1], out[rows-1]+" …")
	}
	for i := range out {
		out[i] = fit(out[i], float64(most)*9*letterShare+1, 9)
	}
	return out
}
