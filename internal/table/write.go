package table

import (
	"bytes"
	"encoding/csv"
	"strings"
)

// Write writes rows as a comma-separated file (RFC 4180). Text that a spreadsheet would take
// for a formula has an apostrophe before it.
func Write(rows ...[]string) []byte {
	var b bytes.Buffer
	w := csv.NewWriter(&b)
	w.UseCRLF = true
	for _, row := range rows {
		out := make([]string, len(row))
		for i, cell := range row {
			out[i] = harmless(breaks.Replace(cell))
		}
		_ = w.Write(out) // into memory
	}
	w.Flush()
	return b.Bytes()
}

// breaks writes line breaks one way; alone, a carriage return would be lost.
var breaks = strings.NewReplacer("\r\n", "\n", "\r", "\n")

// formula are the beginnings that a spreadsheet takes for a formula.
const formula = "=+-@\t'"

func harmless(cell string) string {
	if cell != "" && strings.ContainsRune(formula, rune(cell[0])) {
		return "'" + cell
	}
	return cell
}

// Plain is a cell as it was before Write made it harmless.
func Plain(cell string) string {
	if rest, ok := strings.CutPrefix(cell, "'"); ok && rest != "" && strings.ContainsRune(formula, rune(rest[0])) {
		return rest
	}
	return cell
}
