package export

import (
	"bytes"
	"fmt"
	"strings"
	"time"

	"codeberg.org/go-pdf/fpdf"

	"epitrope/core/prove"
	"epitrope/core/signoff"
	"epitrope/internal/pack"
)

// CertificatePDF prints a certificate.
func CertificatePDF(p pack.Pack, c pack.Certificate) ([]byte, error) {
	p.Revision, p.Dated = fmt.Sprintf("certificate %d", c.Number), c.At
	return printed(p, "What was proven of the installation, and signed for", func(s *sheet) {
		s.AddPage()
		s.certificate(c)
		s.photographs(c.Photos)
	})
}

func (s *sheet) certificate(c pack.Certificate) {
	doc := s.pack.Document
	s.lines("H1", "B", 18, 9, "Certificate of proof")
	s.para("", titleOf(s.pack))
	rows := [][]string{}
	put := func(what, is string) {
		if is != "" {
			rows = append(rows, []string{what, is})
		}
	}
	put("Customer", doc.Customer)
	put("Vehicle", doc.Vehicle.Model)
	put("Installation", s.pack.Plan.Summary)
	put("Signed by", c.By)
	put("Signed on", c.At.Format(s.pack.Dates+", 15:04 MST"))
	s.table([]column{{"", 1}, {"", 4}}, rows)
	s.proven(c)
	said := func(waives bool) (rows [][]string) {
		for _, g := range c.Gates {
			if g.Said != nil && g.Said.Waives == waives {
				open := strings.Join(g.Open, " ")
				rows = append(rows, []string{g.Name, open, g.Said.Text, signoff.Under(g.Said.By, g.Said.Countersigned) + ", " + s.moment(g.Said.At)})
			}
		}
		return rows
	}
	if rows := said(true); len(rows) > 0 {
		s.heading("Waived")
		s.table([]column{{"Gate", 1.6}, {"Open", 2.6}, {"Reason", 2}, {"By", 1.2}}, rows)
	}
	if rows := said(false); len(rows) > 0 {
		s.heading("Stated")
		for i := range rows {
			rows[i] = []string{rows[i][0], rows[i][2], rows[i][3]}
		}
		s.table([]column{{"Gate", 1.6}, {"", 4}, {"By", 1.2}}, rows)
	}
	s.heading("Gates")
	rows = nil
	for _, g := range c.Gates {
		rows = append(rows, []string{map[signoff.State]string{signoff.Closed: "closed", signoff.Waived: "waived",
			signoff.Open: "open"}[g.State], g.Name})
	}
	s.table([]column{{"", 0.6}, {"", 4}}, rows)
	s.heading("Not signed for here")
	for _, line := range c.Reserved {
		s.para("", "• "+line)
	}
	s.heading("Signature")
	s.para("", "\n\n______________________________     ______________________________")
	s.para("", c.By+", who proved it, and whoever takes the vehicle over")
}

// moment is a stored time as the workshop writes its day.
func (s *sheet) moment(stored string) string {
	at, err := time.Parse(time.RFC3339, stored)
	if err != nil {
		return stored
	}
	return at.Format(s.pack.Dates)
}

// proven are the readings, station by station.
func (s *sheet) proven(c pack.Certificate) {
	s.heading("What was proven")
	var rows [][]string
	station := ""
	for _, l := range c.Lines {
		if l.Station != station {
			station = l.Station
			rows = append(rows, []string{station + ":", "", "", ""})
		}
		expect := l.Expect
		if l.Level == prove.JustOut {
			expect += "; just out, as 5 of 100 sound ones are"
		}
		by := l.By + ", " + l.At.Format(s.pack.Dates+" 15:04")
		if l.With != "" {
			by += ", " + l.With
		}
		rows = append(rows, []string{l.What, l.Read, expect, by})
	}
	s.table([]column{{"Reading", 2.6}, {"Read", 0.9}, {"Expected", 1.7}, {"By, when, with", 1.9}}, rows)
}

// Photographs are printed two beside each other, of this height at most, in mm.
const (
	photoMM = 62.0
	photos2 = 2
)

// photographs are pictures of the work, with what each shows.
func (s *sheet) photographs(list []pack.Photograph) {
	if len(list) == 0 {
		return
	}
	s.AddPage()
	s.heading("Photographs")
	wide := (s.width() - 6) / photos2
	for i := 0; i < len(list); i += photos2 {
		s.room(photoMM + 14)
		top := s.GetY()
		for k := range min(photos2, len(list)-i) {
			p := list[i+k]
			x := marginMM + float64(k)*(wide+6)
			said := p.Tied
			if p.Note != "" {
				said += ": " + p.Note
			}
			said += ", " + p.By + ", " + p.At.Format(s.pack.Dates)
			s.in("Figure", func() {
				s.at.alt = said
				s.show(func() { s.picture(p, x, top, wide) })
			})
			s.in("P", func() {
				s.SetFont(regular, "", small)
				for n, line := range s.SplitText(clean(said+", "+p.Digest[:min(12, len(p.Digest))]), wide) {
					s.SetXY(x, top+photoMM+1+float64(n)*3.6)
					s.show(func() { s.CellFormat(wide, 3.6, line, "", 0, "L", false, 0, "") })
				}
			})
		}
		s.SetXY(marginMM, top+photoMM+12)
	}
}

// picture puts a photograph into a field, as large as it fits.
func (s *sheet) picture(p pack.Photograph, x, y, wide float64) {
	options := fpdf.ImageOptions{ImageType: "JPG"}
	info := s.RegisterImageOptionsReader(p.Digest, options, bytes.NewReader(p.JPEG))
	if info == nil || info.Width() == 0 || info.Height() == 0 {
		return
	}
	w, h := wide, wide*info.Height()/info.Width()
	if h > photoMM {
		w, h = w*photoMM/h, photoMM
	}
	s.ImageOptions(p.Digest, x, y, w, h, false, options, 0, "")
}
