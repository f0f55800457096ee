package said

import (
	"strconv"
	"strings"

	"epitrope/core/unit"
)

// columns are the units that stand behind a column's head, with what they become.
var columns = map[string]struct {
	to    string
	scale float64
	of    func(unit.Units) bool
}{
	"m":  {"ft", 1 / 0.3048, func(s unit.Units) bool { return s.Length == "ft" }},
	"mm": {"in", 1 / 25.4, func(s unit.Units) bool { return s.Length == "ft" }},
}

// Rows are a list of ours, heads first, in a system's units: figures by what their column's head says, or by a column of
// units beside them; words as everywhere. Figures stay figures.
func Rows(rows [][]string, s unit.Units) [][]string {
	if s.IsMetric() || len(rows) == 0 {
		return rows
	}
	heads, by := rows[0], make([]string, len(rows[0])) // by is the unit of a column
	units := -1
	for i, head := range heads {
		at := strings.LastIndexByte(head, ' ')
		if c, known := columns[head[at+1:]]; known && at > 0 && c.of(s) {
			by[i], heads[i] = head[at+1:], head[:at+1]+c.to
		}
		if head == "unit" {
			units = i
		}
	}
	for _, row := range rows[1:] {
		beside := ""
		if units >= 0 {
			if c, known := columns[row[units]]; known && c.of(s) {
				beside, row[units] = row[units], c.to
			}
		}
		for i, cell := range row {
			switch {
			case by[i] != "":
				row[i] = scaled(cell, by[i])
			case beside != "" && (heads[i] == "count" || heads[i] == "stock" || heads[i] == "to order"):
				row[i] = scaled(cell, beside)
			case beside != "" && heads[i] == "price":
				row[i] = priced(cell, beside)
			default:
				row[i] = s.Say(cell)
			}
		}
	}
	return rows
}

func scaled(cell, by string) string {
	v, err := strconv.ParseFloat(cell, 64)
	if err != nil {
		return cell
	}
	return strconv.FormatFloat(unit.Round(v*columns[by].scale, 2), 'f', -1, 64)
}

// priced is the price of one unit of another length.
func priced(cell, by string) string {
	v, err := strconv.ParseFloat(cell, 64)
	if err != nil {
		return cell
	}
	return strconv.FormatFloat(unit.Round(v/columns[by].scale, 4), 'f', -1, 64)
}
