package export

import (
	"bytes"
	"math"
	"slices"

	"codeberg.org/go-pdf/fpdf"
	"golang.org/x/image/font/gofont/gobold"
	"golang.org/x/image/font/gofont/goregular"

	"epitrope/core/system"
	"epitrope/core/unit"
	"epitrope/internal/pack"
)

// Stock is label stock: a sheet of labels, or a tape of one after the other. Lengths are in mm.
type Stock struct {
	ID     string  `json:"id"`
	Says   string  `json:"says"`
	Paper  string  `json:"paper"` // A4, Letter; tape: a page to a label
	Across int     `json:"across"`
	Down   int     `json:"down"`
	Wide   float64 `json:"wide"`
	High   float64 `json:"high"`
	Left   float64 `json:"-"` // of the first label
	Top    float64 `json:"-"`
	StepX  float64 `json:"-"` // from one to the next
	StepY  float64 `json:"-"`
}

// onTape is the paper of a tape.
const onTape = "tape"

// Stocks is common label stock. Source: the sizes in which office suppliers sell it, from memory; a test print on plain paper, held
// against the stock, shows whether they are the same.
var Stocks = []Stock{
	{"a4-65", "A4, 65 of 38.1 × 21.2 mm", "A4", 5, 13, 38.1, 21.2, 4.75, 10.7, 40.6, 21.2},
	{"a4-24", "A4, 24 of 70 × 37 mm", "A4", 3, 8, 70, 37, 0, 0.5, 70, 37},
	{"a4-21", "A4, 21 of 63.5 × 38.1 mm", "A4", 3, 7, 63.5, 38.1, 7.25, 15.15, 66, 38.1},
	{"a4-8", "A4, 8 of 99.1 × 67.7 mm", "A4", 2, 4, 99.1, 67.7, 4.65, 13.1, 101.6, 67.7},
	{"letter-80", "Letter, 80 of 1 3/4 × 1/2 in", "Letter", 4, 20, 44.45, 12.7, 7.62, 12.7, 52.07, 12.7},
	{"letter-30", "Letter, 30 of 2 5/8 × 1 in", "Letter", 3, 10, 66.7, 25.4, 4.76, 12.7, 69.85, 25.4},
	{"letter-10", "Letter, 10 of 4 × 2 in", "Letter", 2, 5, 101.6, 50.8, 3.97, 12.7, 106.36, 50.8},
	{"tape-9", "tape of 9 mm, 40 mm each", onTape, 1, 1, 40, 9, 0, 0, 0, 0},
	{"tape-12", "tape of 12 mm, 40 mm each", onTape, 1, 1, 40, 12, 0, 0, 0, 0},
	{"tape-24", "tape of 24 mm, 60 mm each", onTape, 1, 1, 60, 24, 0, 0, 0, 0},
}

// StockNamed is stock by its id.
func StockNamed(id string) (Stock, bool) {
	at := slices.IndexFunc(Stocks, func(s Stock) bool { return s.ID == id })
	if at < 0 {
		return Stock{}, false
	}
	return Stocks[at], true
}

// What labels are for.
const (
	WireLabels = "wires"
	FuseLabels = "fuses"
	OwnerLabel = "owner"
)

// label is one: what is read from afar, and what beside it from near.
type label struct {
	name  string
	lines []string
}

// LabelsPDF prints labels of a pack on stock, from a place of the first sheet on, counted from 0: those before it were used.
func LabelsPDF(p pack.Pack, of string, s Stock, from int) ([]byte, error) {
	w := &labels{Fpdf: fpdf.NewCustom(&fpdf.InitType{UnitStr: "mm", Size: s.size(), OrientationStr: "P"}), stock: s,
		at: from % (s.Across * s.Down)}
	w.AddUTF8FontFromBytes(regular, "", goregular.TTF)
	w.AddUTF8FontFromBytes(regular, "B", gobold.TTF)
	w.SetCreationDate(p.Dated.UTC())
	w.SetModificationDate(p.Dated.UTC())
	w.SetCatalogSort(true)
	w.SetTitle(titleOf(p)+", labels", true)
	w.SetCreator("Epitrope", true)
	w.SetLang("en")
	w.SetMargins(0, 0, 0)
	w.SetAutoPageBreak(false, 0)
	w.AddPage()
	for i, l := range labelsOf(p, of) {
		if i > 0 && w.at == 0 {
			w.AddPage()
		}
		w.write(l, p.Units)
	}
	var out bytes.Buffer
	if err := w.Output(&out); err != nil {
		return nil, err
	}
	return out.Bytes(), nil
}

func (s Stock) size() fpdf.SizeType {
	switch s.Paper {
	case onTape:
		return fpdf.SizeType{Wd: s.Wide, Ht: s.High}
	case "Letter":
		return fpdf.SizeType{Wd: 215.9, Ht: 279.4}
	}
	return fpdf.SizeType{Wd: 210, Ht: 297}
}

// labelsOf are the labels for something.
func labelsOf(p pack.Pack, of string) (list []label) {
	switch of {
	case WireLabels: // each end of each cable says where the other one goes
		for _, l := range p.Leads {
			for range max(l.Cables, 1) {
				size := l.Size + " " + l.Colour
				list = append(list, label{l.Number, []string{"to " + l.To.Name + " " + l.To.Terminal, size}},
					label{l.Number, []string{"from " + l.From.Name + " " + l.From.Terminal, size}})
			}
		}
	case FuseLabels:
		for _, c := range p.Plan.System.Components {
			if f, is := c.Device.(system.Fuse); is {
				list = append(list, label{c.Name + "  " + unit.Plain(f.RatingA, "A", 1), []string{f.Family.Label,
					"Same rating again, once it is known why."}})
			}
		}
		for _, l := range pack.Loads(p.Plan) {
			list = append(list, label{l.Name, []string{l.Rating}})
		}
	case OwnerLabel:
		c := (&sheet{pack: p}).ownerCard()
		list = append(list, label{c.title, c.lines})
	}
	return list
}

// labels is a file of labels being written.
type labels struct {
	*fpdf.Fpdf
	stock Stock
	at    int // the place of the next
}

// The largest and the smallest that a label is written, in points, and its margin in mm. Below the smallest nobody reads it under a
// van: what has no room there is left out.
const (
	largestPt  = 22.0
	smallestPt = 5.5
	labelInset = 1.6
	pointMM    = 25.4 / 72
)

// write writes a label at the next place.
func (w *labels) write(l label, units unit.Units) {
	s := w.stock
	x := s.Left + float64(w.at%s.Across)*s.StepX + labelInset
	y := s.Top + float64(w.at/s.Across)*s.StepY + labelInset
	wide, high := s.Wide-2*labelInset, s.High-2*labelInset
	w.at = (w.at + 1) % (s.Across * s.Down)
	share := 0.55 // of its height, for what is read from afar
	if len(l.lines) > 3 {
		share = 0.16
	}
	name := clean(units.Say(l.name))
	pt := math.Min(largestPt, high*share/pointMM)
	w.SetFont(regular, "B", pt)
	for pt > smallestPt && w.GetStringWidth(name) > wide {
		pt -= 0.5
		w.SetFontSize(pt)
	}
	w.SetXY(x, y)
	w.CellFormat(wide, pt*pointMM, name, "", 0, "L", false, 0, "")
	w.lines(l.lines, units, x, y+pt*pointMM*1.12, wide, y+high)
}

// lines writes what is read from near, as large as there is room for all of it.
func (w *labels) lines(list []string, units unit.Units, x, y, wide, end float64) {
	for pt := 9.0; ; pt -= 0.25 {
		w.SetFont(regular, "", pt)
		lead := pt * pointMM * 1.18
		var rows []string
		for _, l := range list {
			rows = append(rows, w.SplitText(clean(units.Say(l)), wide)...)
		}
		room := int((end - y) / lead)
		if len(rows) > room && pt > smallestPt {
			continue
		}
		for i, row := range rows[:min(len(rows), max(room, 0))] {
			w.SetXY(x, y+float64(i)*lead)
			w.CellFormat(wide, lead, row, "", 0, "L", false, 0, "")
		}
		return
	}
}
