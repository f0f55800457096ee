package export

import (
	"codeberg.org/go-pdf/fpdf"

	"epitrope/core/harness"
)

// drawing paints the drawing across a sheet of its own, larger than A4 or Letter where it
// would not be read on that.
func (s *sheet) drawing() {
	s.Bookmark("Drawing", 0, -1)
	s.drawn("", inWords(s.pack.Drawing), nil)
}

// drawn is a drawing on a sheet of its own: all of it, or with what is live thick and all else faint.
func (s *sheet) drawn(title, alt string, live map[string]bool) {
	d := s.pack.Drawing
	paper := s.GetPageSizeStr(s.pack.Paper)
	w, h := paper.Ht, paper.Wd
	if (w-2*marginMM)/d.W < leastScale {
		w, h = 2*paper.Wd, paper.Ht // the next size up, two sheets side by side
	}
	s.AddPageFormat("L", fpdf.SizeType{Wd: h, Ht: w})
	if title != "" {
		s.heading(title)
	}
	scale := min((w-2*marginMM)/d.W, (h-2*marginMM-10)/d.H)
	x0, y0 := marginMM, marginMM+6
	if title != "" {
		y0 = s.GetY() + 2
		scale = min(scale, (w-2*marginMM-10-(y0-marginMM-6))/d.H)
	}
	s.in("Figure", func() {
		s.at.alt = alt
		s.show(func() {
			for _, shape := range d.Shapes {
				s.shape(shape, x0, y0, scale, live)
			}
		})
	})
}

// leastScale is how small the drawing may get, in mm for each of its units: below that its
// letters are under 2 mm.
const leastScale = 0.2

// pens are the line widths and dashes by class, in units of the drawing.
var pens = map[string]struct{ width, grey float64 }{
	"feed": {2.2, 0}, "return": {2.2, 0}, "chassis": {4, 110}, "signal": {0.9, 0}, "existing": {1.3, 120}, "outline": {1.2, 0},
	"symbol": {1, 0}, "picture": {0.7, 130}, "zone": {0.8, 150},
}

// faint is the pen of what is dead, where what is live is shown, and thick how much thicker that is.
const (
	faint = 170.0
	thick = 1.8
)

func (s *sheet) shape(sh harness.Shape, x0, y0, k float64, live map[string]bool) {
	pen, ok := pens[sh.Class]
	if !ok {
		pen = pens["symbol"]
	}
	if live != nil {
		pen.grey = faint
		if live[sh.Of] {
			pen.width, pen.grey = pen.width*thick, 0
		}
	}
	grey := int(pen.grey)
	s.SetDrawColor(grey, grey, grey)
	s.SetLineWidth(pen.width * k)
	s.SetDashPattern([]float64{}, 0)
	switch sh.Class {
	case "return": // told apart from a feed without colour
		s.SetDashPattern([]float64{7 * k, 2.5 * k}, 0)
	case "chassis":
		s.SetDashPattern([]float64{2 * k, 3 * k}, 0)
	}
	x := func(i int) float64 { return x0 + sh.At[i]*k }
	y := func(i int) float64 { return y0 + sh.At[i]*k }
	switch sh.Kind {
	case "circle":
		s.Circle(x(0), y(1), sh.At[2]*k, "D")
	case "text":
		style := ""
		if sh.Class == "name" || sh.Class == "zone" {
			style = "B"
		}
		s.SetFont(regular, style, sh.Size*k*72/25.4)
		text := s.say(sh.Text)
		at := x(0)
		if !sh.Start {
			at -= s.GetStringWidth(text) / 2
		}
		s.Text(at, y(1), text)
	default:
		if len(sh.At) < 4 {
			break
		}
		s.MoveTo(x(0), y(1))
		for i := 2; i+1 < len(sh.At); i += 2 {
			s.LineTo(x(i), y(i+1))
		}
		if sh.Closed {
			s.ClosePath()
		}
		s.DrawPath("D")
	}
	s.SetDrawColor(0, 0, 0)
	s.SetDashPattern([]float64{}, 0)
}
