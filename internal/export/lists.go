package export

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"epitrope/core/harness"
	"epitrope/core/parts"
	"epitrope/internal/table"
)

func number(v float64) string { return strconv.FormatFloat(v, 'f', -1, 64) }

func some(v *float64) string {
	if v == nil {
		return ""
	}
	return number(*v)
}

// WiresCSV writes the wire list, with what the labels at both ends say.
func WiresCSV(wires []harness.Lead) []byte {
	rows := [][]string{{"wire", "from", "terminal", "end", "label", "to", "terminal at the other end", "end there", "label there", "size", "cables", "colour", "route m", "cut m", "conduit mm", "heat shrink mm", "grommet hole mm"}}
	for _, w := range wires {
		rows = append(rows, []string{w.Number, w.From.Name, w.From.Terminal, w.From.Lug, w.From.Label, w.To.Name, w.To.Terminal, w.To.Lug, w.To.Label, w.Size, strconv.Itoa(w.Cables), w.Colour,
			number(w.RouteM), number(w.CutM), number(w.Conduit), number(w.Sleeve), number(w.Hole)})
	}
	return table.Write(rows...)
}

// CutsCSV writes the cut list.
func CutsCSV(cuts []harness.Cut) []byte {
	rows := [][]string{{"from", "size", "colour", "piece m", "cut for", "cut m", "left m"}}
	for _, c := range cuts {
		from := c.From
		if from == "" {
			from = "new cable"
		}
		for i, f := range c.Cuts {
			left := ""
			if i == len(c.Cuts)-1 {
				left = number(c.LeftM)
			}
			rows = append(rows, []string{from, c.Size, c.Colour, number(c.LengthM), f.Wire, number(f.LengthM), left})
		}
	}
	return table.Write(rows...)
}

// PartsCSV writes the parts list, priced where the workshop's book has a price.
func PartsCSV(list harness.List) []byte {
	rows := [][]string{{"kind", "what", "count", "unit", "for", "part of the book", "price", "currency", "priced on", "sum", "stock", "counted on", "to order"}}
	for _, l := range list.Lines {
		rows = append(rows, []string{l.Kind, l.What, number(l.Count), l.Unit, l.For, l.Part, some(l.Price), l.Currency, l.PricedOn, some(l.Sum), some(l.Stock), l.Counted, number(l.Order)})
	}
	for _, s := range list.Sums {
		rows = append(rows, []string{"", "sum", "", "", "", "", "", s.Currency, "", fmt.Sprintf("%.2f", s.Sum), "", "", ""})
	}
	return table.Write(rows...)
}

// Pieces are the cables of the workshop's book as pieces to cut from: as long as there is
// stock, of the colour that their name says.
func Pieces(items []parts.Item, s harness.Scheme) []harness.Piece {
	var list []harness.Piece
	for _, i := range items {
		if i.Kind != "cable" || i.Stock == nil || *i.Stock <= 0 {
			continue
		}
		p := harness.Piece{Name: i.Name, Size: i.Size, LengthM: *i.Stock}
		for _, colour := range []string{s.Feed, s.Return, s.Signal, s.House} {
			if slices.Contains(strings.Fields(strings.ToLower(i.Name)), strings.ToLower(colour)) {
				p.Colour = colour
			}
		}
		list = append(list, p)
	}
	return list
}
