// Package workshop reads and writes the workshop's books as comma-separated files
// (RFC 4180).
package workshop

import (
	"errors"
	"fmt"
	"maps"
	"slices"
	"strings"
	"unicode/utf8"

	"epitrope/core/parts"
	"epitrope/internal/table"
)

// MostLines is how many parts one file may have.
const MostLines = 5000

// LineProblem is what cannot be used in a line of a file.
type LineProblem struct {
	Line    int    `json:"line" doc:"Counted from 1, heads included"`
	Field   string `json:"field"`
	Value   string `json:"value"`
	Wrong   string `json:"wrong"`
	Allowed string `json:"allowed"`
}

func (p LineProblem) String() string {
	if p.Value == "" {
		return fmt.Sprintf("line %d: %s %s; allowed: %s", p.Line, p.Field, p.Wrong, p.Allowed)
	}
	return fmt.Sprintf("line %d: %s %q %s; allowed: %s", p.Line, p.Field, p.Value, p.Wrong, p.Allowed)
}

// File is what a file of parts came to: the parts that can be used, what is wrong with the
// other lines, and these lines as a file of their own, to be mended and read again.
type File struct {
	Items    []parts.Item
	Problems []LineProblem
	Rest     string
}

// ReadParts reads a file of parts. A line is used whole or not at all. The error is for a
// file of which nothing can be read. Today, an ISO date, is when prices and counts without
// a date were entered.
func ReadParts(data []byte, today string) (File, error) {
	var out File
	if !utf8.Valid(data) {
		return out, errors.New("the file is not UTF-8 text")
	}
	heads, lines, err := table.Lines(data, MostLines)
	if err != nil {
		return out, err
	}
	at := make([]int, len(heads.Cells))
	known := []string{}
	for _, c := range parts.ItemColumns {
		known = append(known, c.Head)
	}
	for i, head := range heads.Cells {
		at[i] = slices.IndexFunc(parts.ItemColumns, func(c parts.ItemColumn) bool { return strings.EqualFold(c.Head, strings.TrimSpace(head)) })
		if at[i] < 0 && strings.TrimSpace(head) != "" {
			return out, fmt.Errorf("line %d: head %q is not a column of parts; allowed: %s", heads.Number, short(head), strings.Join(known, ", "))
		}
		if at[i] >= 0 && slices.Contains(at[:i], at[i]) {
			return out, fmt.Errorf("line %d: head %q stands twice", heads.Number, short(head))
		}
	}
	seen := map[string]int{}
	rest := []string{}
	for _, line := range lines {
		item, problems := readItem(line, at, today)
		if first := seen[item.Key()]; first > 0 && len(problems) == 0 {
			problems = append(problems, LineProblem{line.Number, "name", item.Name, fmt.Sprintf("stands in line %d already", first),
				"one line for each part"})
		}
		if len(problems) > 0 {
			out.Problems = append(out.Problems, problems...)
			rest = append(rest, line.Raw)
			continue
		}
		seen[item.Key()] = line.Number
		out.Items = append(out.Items, item)
	}
	if len(rest) > 0 {
		out.Rest = heads.Raw + "\n" + strings.Join(rest, "\n") + "\n"
	}
	return out, nil
}

// ReadEntry reads one part that was typed: its cells by the heads of the columns.
func ReadEntry(entry map[string]string, today string) (parts.Item, []LineProblem) {
	var line table.Line
	var at []int
	var unknown []LineProblem
	for _, head := range slices.Sorted(maps.Keys(entry)) {
		i := slices.IndexFunc(parts.ItemColumns, func(c parts.ItemColumn) bool { return c.Head == head })
		if i < 0 {
			unknown = append(unknown, LineProblem{0, short(head), short(entry[head]), "is not a column of parts", "the heads of the book"})
			continue
		}
		line.Cells, at = append(line.Cells, entry[head]), append(at, i)
	}
	item, problems := readItem(line, at, today)
	return item, append(problems, unknown...)
}

func readItem(line table.Line, at []int, today string) (parts.Item, []LineProblem) {
	var item parts.Item
	var problems []LineProblem
	tell := func(e *parts.ItemError) {
		problems = append(problems, LineProblem{line.Number, e.Field, e.Value, e.Wrong, e.Allowed})
	}
	wrong := map[string]bool{}
	for i, cell := range line.Cells {
		if i >= len(at) {
			if strings.TrimSpace(cell) != "" {
				tell(&parts.ItemError{Field: "line", Value: short(cell), Wrong: "has more cells than there are heads",
					Allowed: fmt.Sprintf("%d cells", len(at))})
				break
			}
			continue
		}
		if at[i] < 0 {
			continue
		}
		var bad *parts.ItemError
		if errors.As(parts.ItemColumns[at[i]].Set(&item, table.Plain(cell)), &bad) {
			wrong[bad.Field] = true
			tell(bad)
		}
	}
	for _, e := range item.Check(today) {
		if !wrong[e.Field] {
			tell(&e)
		}
	}
	return item, problems
}

// WriteParts writes parts as a file that ReadParts reads.
func WriteParts(items []parts.Item) []byte {
	rows := [][]string{{}}
	for _, c := range parts.ItemColumns {
		rows[0] = append(rows[0], c.Head)
	}
	for _, item := range items {
		row := []string{}
		for _, c := range parts.ItemColumns {
			row = append(row, c.Get(item))
		}
		rows = append(rows, row)
	}
	return table.Write(rows...)
}

func short(s string) string {
	if r := []rune(s); len(r) > 60 {
		return string(r[:60]) + "…"
	}
	return s
}
