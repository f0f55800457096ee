// Package table reads tables that instruments and people write: any usual delimiter,
// heads by their words, decimal points or commas, times in many forms. It knows no
// subject; who reads says which columns there may be.
package table

import (
	"bytes"
	"encoding/csv"
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

// Row is a line of a table: a value for each column that was asked for; NaN where the
// table has no such column, or an empty cell.
type Row struct {
	Line   int
	Values []float64
}

// Read reads the rows of a table, up to most. have says which columns it has. Cells that
// are not numbers are errors that name the line.
func Read(data []byte, columns []Column, most int) (rows []Row, have []bool, err error) {
	data = bytes.TrimSpace(bytes.TrimPrefix(data, []byte("\xef\xbb\xbf")))
	r := csv.NewReader(bytes.NewReader(data))
	r.Comma = delimiter(data)
	r.FieldsPerRecord, r.TrimLeadingSpace, r.LazyQuotes, r.ReuseRecord = -1, true, true, true
	heads, err := r.Read()
	if err != nil {
		return nil, nil, ErrEmpty
	}
	at, factor := place(heads, columns)
	have = make([]bool, len(columns))
	for i := range at {
		have[i] = at[i] >= 0
	}
	for {
		cells, err := r.Read()
		if errors.Is(err, io.EOF) || len(rows) > most {
			return rows, have, nil
		}
		line, _ := r.FieldPos(0)
		if err != nil {
			return nil, have, &Error{line, "line", "", "cannot be read: " + err.Error()}
		}
		row, err := rowOf(cells, columns, at, factor, line)
		if err != nil {
			return nil, have, err
		}
		rows = append(rows, row)
	}
}

func rowOf(cells []string, columns []Column, at []int, factor []float64, line int) (Row, error) {
	row := Row{Line: line, Values: make([]float64, len(columns))}
	for i, c := range columns {
		row.Values[i] = math.NaN()
		if at[i] < 0 || at[i] >= len(cells) {
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
			return row, &Error{line, c.Name, clip(text), wrong}
		}
		row.Values[i] = v * factor[i]
	}
	return row, nil
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
func delimiter(data []byte) rune {
	line, _, _ := bytes.Cut(data, []byte("\n"))
	best, most := ',', 0
	for _, d := range []rune{',', ';', '\t'} {
		if n := bytes.Count(line, []byte(string(d))); n > most {
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
