package export

import (
	"bytes"
	"fmt"
	"strings"
	"time"

	"codeberg.org/go-pdf/fpdf"
	"golang.org/x/image/font/gofont/gobold"
	"golang.org/x/image/font/gofont/goregular"

	"epitrope/core/unit"
	"epitrope/internal/pack"
)

// sheet is a pack being written. Lengths are in mm.
type sheet struct {
	*fpdf.Fpdf
	pack pack.Pack

	units unit.Units  // that it is written in at present
	at    *element    // the part of the document's structure that is being written
	marks map[int]int // by page: how many pieces of it belong to the structure
}

const (
	regular  = "go"
	marginMM = 15.0
	lineMM   = 4.6
	small    = 8.0
	body     = 9.5
)

// OwnerPDF is what a vehicle's owner is given, printed.
func OwnerPDF(p pack.Pack) ([]byte, error) {
	return printed(p, "What it does, what its lamps mean, and what to do when", func(s *sheet) { s.owner() })
}

// PDF writes a pack as one file.
func PDF(p pack.Pack) ([]byte, error) {
	return printed(p, "Charging from the alternator: plan, drawing, lists and steps", func(s *sheet) {
		s.cover()
		s.drawing()
		s.wires()
		s.cuts()
		s.parts()
		s.steps()
		s.found()
		s.built()
		s.settings()
		s.readings()
		s.record()
		s.modes()
		s.owner()
		s.cards()
		s.photographs(p.Photos)
		if !p.Bench {
			s.answers()
			s.workings()
		}
	})
}

// printed is a file of a pack: black on white, job and revision on every sheet, fonts within. The same pack gives the same
// bytes.
func printed(p pack.Pack, subject string, pages func(*sheet)) ([]byte, error) {
	root := &element{kind: "Document"}
	s := &sheet{Fpdf: fpdf.New("P", "mm", p.Paper, ""), pack: p, units: p.Units, at: root, marks: map[int]int{}}
	s.AddUTF8FontFromBytes(regular, "", goregular.TTF)
	s.AddUTF8FontFromBytes(regular, "B", gobold.TTF)
	s.SetCreationDate(p.Dated.UTC())
	s.SetModificationDate(p.Dated.UTC())
	s.SetCatalogSort(true)
	title := titleOf(p)
	s.SetTitle(title, true)
	s.SetSubject(subject, true)
	s.SetCreator("Epitrope", true)
	s.SetLang("en")
	s.SetMargins(marginMM, marginMM+6, marginMM)
	s.SetAutoPageBreak(false, 0) // what is written looks for its room first
	s.AliasNbPages("{pages}")
	s.SetHeaderFunc(s.decoration(func() {
		s.SetFont(regular, "B", small)
		s.SetXY(marginMM, 9)
		s.CellFormat(0, 4, clean(title), "", 0, "L", false, 0, "")
		s.SetFont(regular, "", small)
		s.SetXY(marginMM, 9)
		s.CellFormat(0, 4, named(p), "", 0, "R", false, 0, "")
		w, _ := s.GetPageSize()
		s.Line(marginMM, 14, w-marginMM, 14)
		s.SetY(marginMM + 6)
	}))
	s.SetFooterFunc(s.decoration(func() {
		s.SetY(-12)
		s.SetFont(regular, "", small)
		s.CellFormat(0, 4, fmt.Sprintf("page %d of {pages}", s.PageNo()), "", 0, "R", false, 0, "")
	}))
	pages(s)
	var out bytes.Buffer
	if err := s.Output(&out); err != nil {
		return nil, err
	}
	return tag(out.Bytes(), root)
}

// in writes a part of the structure.
func (s *sheet) in(kind string, write func()) {
	outer := s.at
	s.at = outer.add(kind)
	write()
	s.at = outer
}

// show writes a piece of a page that belongs to the part of the structure that is being
// written; it must not begin a page.
func (s *sheet) show(write func()) {
	page := s.PageNo() - 1
	mark := s.marks[page]
	s.marks[page]++
	s.at.kids = append(s.at.kids, shown{page, mark})
	s.RawWriteStr(fmt.Sprintf("/%s <</MCID %d>> BDC", s.at.kind, mark))
	write()
	s.RawWriteStr("EMC")
}

// decoration is what belongs to the page and not to what it says.
func (s *sheet) decoration(write func()) func() {
	return func() {
		s.RawWriteStr("/Artifact BMC")
		write()
		s.RawWriteStr("EMC")
	}
}

// named is what tells a sheet of this pack from others.
func named(p pack.Pack) string {
	if p.Number == 0 {
		return p.Revision + notToBeBuilt(p)
	}
	return fmt.Sprintf("job %04d, %s%s", p.Number, p.Revision, notToBeBuilt(p))
}

func titleOf(p pack.Pack) string {
	if p.Document.Title != "" {
		return p.Document.Title
	}
	return "Untitled job"
}

// day is a stored date as the workshop writes it.
func (s *sheet) day(stored string) string {
	at, err := time.Parse(time.DateOnly, stored)
	if err != nil {
		return stored
	}
	return at.Format(s.pack.Dates)
}

func (s *sheet) say(text string) string { return clean(s.units.Say(text)) }

// clean is a text that the fonts can show: what they lack is left to them, what breaks lines is a space.
func clean(text string) string {
	return strings.Map(func(r rune) rune {
		if r < ' ' || r == 0x7f || r > 0xffff {
			return ' '
		}
		return r
	}, strings.ToValidUTF8(text, "?"))
}

func (s *sheet) width() float64 {
	w, _ := s.GetPageSize()
	return w - 2*marginMM
}

// room begins a new page where less than so much is left.
func (s *sheet) room(mm float64) {
	_, h := s.GetPageSize()
	if s.GetY()+mm > h-marginMM-4 {
		s.AddPage()
	}
}

func (s *sheet) heading(text string) {
	s.room(24)
	s.Ln(2)
	s.Bookmark(text, 0, -1)
	s.lines("H2", "B", 13, 7, text)
}

func (s *sheet) para(style, text string) { s.lines("P", style, body, lineMM, text) }

// lines writes a text across the page, on as many pages as it takes.
func (s *sheet) lines(kind, style string, size, lead float64, text string) {
	s.SetFont(regular, style, size)
	s.in(kind, func() {
		for _, line := range strings.Split(text, "\n") {
			for _, row := range s.SplitText(s.say(line), s.width()) {
				s.room(lead)
				s.SetFont(regular, style, size)
				s.show(func() { s.CellFormat(0, lead, row, "", 1, "L", false, 0, "") })
			}
		}
	})
}

// Rows of a table: the height of a line, and what is above and below them.
const (
	rowMM    = 3.7
	rowPadMM = 1.6
)

func (s *sheet) cover() {
	p := s.pack
	s.AddPage()
	s.Ln(8)
	s.lines("H1", "B", 24, 10, titleOf(p))
	s.lines("P", "", 12, 6, p.Document.Customer)
	s.lines("P", "", 12, 6, named(p)+", "+p.Dated.UTC().Format(p.Dates))
	s.Ln(4)
	s.para("", unit.Capital(p.Plan.Vehicle.Label)+". "+p.Plan.Summary)
	if p.Document.Remarks != "" {
		s.Ln(2)
		s.para("", p.Document.Remarks)
	}
	s.heading("In short")
	var rows [][]string
	for _, t := range p.Plan.Title {
		rows = append(rows, []string{t.Label, t.Text})
	}
	rows = append(rows, standIns(p.Plan)...)
	rows = append(rows, []string{"Work, about", fmt.Sprintf("%.1f h", p.Hours)})
	for _, sum := range p.Parts.Sums {
		rows = append(rows, []string{"Parts that have a price", fmt.Sprintf("%.2f %s", sum.Sum, sum.Currency)})
	}
	s.table([]column{{"", 1}, {"", 2}}, rows)
	if len(p.Plan.Notes) > 0 {
		s.heading("What is weak about it")
		words := map[string]string{"stop": "Stop. ", "caution": "Caution. ", "remark": "Note. "}
		for i, n := range p.Plan.Notes {
			s.para("", fmt.Sprintf("%d  %s%s %s", i+1, words[n.Severity], n.Text, n.Why))
			s.Ln(1)
		}
	}
	s.heading("Cautions")
	for _, c := range p.Plan.Cautions {
		s.para("", c)
		s.Ln(1)
	}
}

// notToBeBuilt is what every page says while a stop stands.
func notToBeBuilt(p pack.Pack) string {
	if len(p.Plan.Stops()) == 0 {
		return ""
	}
	return ", NOT TO BE BUILT"
}
