package export

import (
	"strings"
)

// column is a column of a table: its head and its share of the width.
type column struct {
	head  string
	share float64
}

// table writes rows, each as high as its highest cell, heads again on every page.
func (s *sheet) table(columns []column, rows [][]string) {
	total := 0.0
	for _, c := range columns {
		total += c.share
	}
	widths := make([]float64, len(columns))
	heads := make([]string, len(columns))
	named := false
	for i, c := range columns {
		widths[i], heads[i] = c.share/total*s.width(), c.head
		named = named || c.head != ""
	}
	s.in("Table", func() {
		page := s.PageNo()
		if named {
			s.row("TH", "B", widths, s.split("B", widths, heads))
		}
		for _, cells := range rows {
			texts := s.split("", widths, cells)
			for most := s.most(); len(texts) > 0; {
				part, rest := upTo(texts, most)
				s.room(height(part) + rowPadMM)
				if s.PageNo() != page {
					if page = s.PageNo(); named {
						s.row("TH", "B", widths, s.split("B", widths, heads))
					}
				}
				s.row("TD", "", widths, part)
				texts = rest
			}
		}
	})
	s.Ln(2)
}

// split breaks the cells of a row into the lines that fit their widths.
func (s *sheet) split(style string, widths []float64, cells []string) [][]string {
	s.SetFont(regular, style, small)
	texts := make([][]string, len(cells))
	for i, c := range cells {
		for _, line := range strings.Split(c, "\n") {
			texts[i] = append(texts[i], s.SplitText(s.say(line), widths[i]-1.5)...)
		}
	}
	return texts
}

// most is how many lines of a table go on a page under its heads.
func (s *sheet) most() int {
	_, h := s.GetPageSize()
	return int((h-2*marginMM-6-4)/rowMM) - 3
}

// upTo is the first so many lines of a row, and what is left of it: nothing where all fit.
func upTo(texts [][]string, most int) (part, rest [][]string) {
	part = make([][]string, len(texts))
	over := false
	left := make([][]string, len(texts))
	for i, t := range texts {
		n := min(most, len(t))
		part[i], left[i] = t[:n], t[n:]
		over = over || len(left[i]) > 0
	}
	if over {
		rest = left
	}
	return part, rest
}

func height(texts [][]string) float64 {
	most := 1
	for _, t := range texts {
		most = max(most, len(t))
	}
	return float64(most)*rowMM + rowPadMM
}

// row writes a row of a table, which has its room.
func (s *sheet) row(kind, style string, widths []float64, texts [][]string) {
	s.SetFont(regular, style, small)
	x, y := marginMM, s.GetY()
	s.in("TR", func() {
		for i, lines := range texts {
			s.in(kind, func() {
				s.show(func() {
					for k, text := range lines {
						s.SetXY(x, y+rowPadMM/2+float64(k)*rowMM)
						s.CellFormat(widths[i], rowMM, text, "", 0, "L", false, 0, "")
					}
				})
			})
			x += widths[i]
		}
	})
	y += height(texts)
	s.decoration(func() {
		s.SetLineWidth(0.1)
		s.Line(marginMM, y, marginMM+s.width(), y)
	})()
	s.SetXY(marginMM, y)
}
