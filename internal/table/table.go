// Package table reads tables that instruments and people write: any usual delimiter,
// heads by their words, decimal points or commas, times in many forms. It knows no
// subject; who reads says which columns there may be.
package table

import (
	"cmp"
	"errors"
	"fmt"
	"io"
	"math"
	"strconv"
	"strings"
	"time"
)

// Column is a column that may be in a table: known by any of its words in the head, and
// multiplied where the head names another unit.
type Column struct {
	Name  string
	Words []string           // parts of a head, in lower case
	Whole []string           // heads that are just this
	Units map[string]float64 // parts of a head that name a unit, and the factor
	Time  bool               // read as a time, in s
}

// Error is what cannot be read, and where.
type Error struct {
	Line  int
	Field string
	Value string
	Wrong string
}

func (e *Error) Error() string {
	where := ""
	if e.Line > 0 {
		where = fmt.Sprintf("line %d: ", e.Line)
	}
	if e.Value != "" {
		return fmt.Sprintf("%s%s %q %s", where, e.Field, e.Value, e.Wrong)
	}
	return fmt.Sprintf("%s%s %s", where, e.Field, e.Wrong)
}

// Wrong names what cannot be read.
func Wrong(line int, field, value, wrong string) *Error { return &Error{line, field, value, wrong} }

// ErrEmpty is a file without a table.
var ErrEmpty = errors.New("there is no table in it")

// longestLine is what one line may have, in bytes: no table that a person or an instrument writes has more.
const longestLine = 64 << 10

// Read reads the rows of a table as they come, at most so many: each is given its line and a value for each
// column that was asked for, NaN where the table has no such column or an empty cell. values is overwritten by
// the next row. have says which columns it has. Cells that are no numbers, and lines with more or fewer cells
// than there are heads, are errors that name the line; but a last line may be cut short.
func Read(r io.Reader, columns []Column, most int, row func(line int, values []float64) error) (have []bool, err error) {
	lines := newLines(r)
	if !lines.next() {
		return nil, cmp.Or(lines.wrong(), ErrEmpty)
	}
	comma := delimiter(lines.text)
	heads, err := cellsOf(lines.text, comma)
	if err != nil {
		return nil, Wrong(lines.number, "heads", clip(lines.text), "cannot be read")
	}
	at, factor := place(heads, columns)
	have = make([]bool, len(columns))
	for i := range at {
		have[i] = at[i] >= 0
	}
	values := make([]float64, len(columns))
	var short *Error // of the line before: only the last may be cut
	for count := 0; lines.next(); count++ {
		if short != nil {
			return have, short
		}
		if count == most {
			return have, Wrong(lines.number, "file", "", fmt.Sprintf("has more than %d lines", most))
		}
		cells, err := cellsOf(lines.text, comma)
		if err != nil {
			return have, Wrong(lines.number, "line", clip(lines.text), "cannot be read: a quote is not closed")
		}
		if short = uneven(heads, cells, lines.number, lines.text, comma); short != nil && len(cells) > len(heads) {
			return have, short
		}
		if short != nil {
			continue
		}
		if err := valuesOf(cells, columns, at, factor, lines.number, values); err != nil {
			return have, err
		}
		if err := row(lines.number, values); err != nil {
			return have, err
		}
	}
	return have, lines.wrong()
}

// uneven names a line with another number of cells than there are heads; empty ones at its end do not count.
func uneven(heads, cells []string, line int, text string, comma rune) *Error {
	filled := len(cells)
	for filled > len(heads) && strings.TrimSpace(cells[filled-1]) == "" {
		filled--
	}
	switch {
	case filled > len(heads) && comma == ',':
		return Wrong(line, "line", clip(text), fmt.Sprintf("has %d cells and there are %d heads; are decimal commas among the commas that part "+
			"the cells? Write decimal points, or part the cells by semicolons", filled, len(heads)))
	case filled > len(heads), len(cells) < len(heads):
		return Wrong(line, "line", clip(text), fmt.Sprintf("has %d cells and there are %d heads", filled, len(heads)))
	}
	return nil
}

func valuesOf(cells []string, columns []Column, at []int, factor []float64, line int, values []float64) error {
	for i, c := range columns {
		values[i] = math.NaN()
		if at[i] < 0 {
			continue
		}
		text := strings.TrimSpace(cells[at[i]])
		if text == "" && !c.Time {
			continue
		}
		var v float64
		var err error
		if c.Time {
			v, err = When(text)
		} else {
			v, err = number(text)
		}
		if err != nil {
			wrong := "is not a number"
			if c.Time {
				wrong = "is not a time: seconds, 08:15:00 or 2030-05-01T08:15:00"
			}
			return &Error{line, c.Name, clip(text), wrong}
		}
		values[i] = v * factor[i]
	}
	return nil
}

// place finds each column among the heads, each head once.
func place(heads []string, columns []Column) (at []int, factor []float64) {
	at, factor = make([]int, len(columns)), make([]float64, len(columns))
	taken := make([]bool, len(heads))
	for i, c := range columns {
		at[i], factor[i] = -1, 1
		for k, head := range heads {
			head = strings.ToLower(strings.TrimSpace(head))
			if taken[k] || !named(head, c) {
				continue
			}
			at[i], taken[k] = k, true
			for unit, f := range c.Units {
				if strings.Contains(head, unit) {
					factor[i] = f
				}
			}
			break
		}
	}
	return at, factor
}

func named(head string, c Column) bool {
	for _, w := range c.Whole {
		if head == w {
			return true
		}
	}
	for _, w := range c.Words {
		if strings.Contains(head, w) {
			return true
		}
	}
	return false
}

// number reads a number with a decimal point or a decimal comma; one with both is neither.
func number(text string) (float64, error) {
	if !strings.Contains(text, ".") {
		text = strings.Replace(text, ",", ".", 1)
	}
	v, err := strconv.ParseFloat(text, 64)
	if err == nil && (math.IsNaN(v) || math.IsInf(v, 0)) {
		err = strconv.ErrRange
	}
	return v, err
}

// delimiter is what stands most often between the heads.
func delimiter(line string) rune {
	best, most := ',', 0
	for _, d := range []rune{',', ';', '\t'} {
		if n := strings.Count(line, string(d)); n > most {
			best, most = d, n
		}
	}
	return best
}

var forms = []string{time.RFC3339Nano, "2006-01-02T15:04:05.999", "2006-01-02 15:04:05.999", "2006-01-02 15:04", "02.01.2006 15:04:05",
	"15:04:05.999", "15:04"}

// When reads a time as seconds: from some beginning, of the day, or of the calendar.
func When(text string) (float64, error) {
	if v, err := strconv.ParseFloat(strings.Replace(text, ",", ".", 1), 64); err == nil {
		if math.IsNaN(v) || math.Abs(v) > 1e13 {
			return 0, strconv.ErrRange
		}
		if v > 1e11 {
			v /= 1000 // milliseconds of the calendar
		}
		return v, nil
	}
	for _, form := range forms {
		if t, err := time.Parse(form, text); err == nil {
			return float64(t.UnixMilli()) / 1000, nil
		}
	}
	return 0, strconv.ErrSyntax
}

func clip(s string) string {
	if len(s) <= 40 {
		return s
	}
	return strings.ToValidUTF8(s[:40], "") + "…"
}
