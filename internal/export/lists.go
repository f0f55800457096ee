package export

import (
	"fmt"
	"strconv"

	"epitrope/core/harness"
	"epitrope/core/unit"
	"epitrope/internal/said"
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
func WiresCSV(wires []harness.Lead, units unit.Units) []byte {
	rows := [][]string{{"wire", "from", "terminal", "end", "label", "to", "terminal at the other end", "end there", "label there", "size",
		"cables", "colour", "route m", "cut m", "conduit mm", "heat shrink mm", "grommet hole mm"}}
	for _, w := range wires {
		rows = append(rows, []string{w.Number, w.From.Name, w.From.Terminal, w.From.Lug, w.From.Label, w.To.Name, w.To.Terminal, w.To.Lug,
			w.To.Label, w.Size, strconv.Itoa(w.Cables), w.Colour,
			number(w.RouteM), number(w.CutM), number(w.Conduit), number(w.Sleeve), number(w.Hole)})
	}
	return table.Write(said.Rows(rows, units)...)
}

// CutsCSV writes the cut list.
func CutsCSV(cuts []harness.Cut, units unit.Units) []byte {
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
	return table.Write(said.Rows(rows, units)...)
}

// PartsCSV writes the parts list, priced where the workshop's book has a price.
func PartsCSV(list harness.List, units unit.Units) []byte {
	rows := [][]string{{"kind", "what", "count", "unit", "for", "part of the book", "price", "currency", "priced on", "sum", "stock",
		"counted on", "to order"}}
	for _, l := range list.Lines {
		rows = append(rows, []string{l.Kind, l.What, number(l.Count), l.Unit, l.For, l.Part, some(l.Price), l.Currency, l.PricedOn, some(l.Sum),
			some(l.Stock), l.Counted, number(l.Order)})
	}
	for _, s := range list.Sums {
		rows = append(rows, []string{"", "sum", "", "", "", "", "", s.Currency, "", fmt.Sprintf("%.2f", s.Sum), "", "", ""})
	}
	return table.Write(said.Rows(rows, units)...)
}
