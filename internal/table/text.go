package table

import (
	"bufio"
	"encoding/csv"
	"errors"
	"io"
	"strings"

	"golang.org/x/text/encoding/unicode"
	"golang.org/x/text/transform"
)

// Text is a reader of text in UTF-8, or in UTF-16 that says so by its byte-order mark.
func Text(r io.Reader) io.Reader {
	return transform.NewReader(r, unicode.BOMOverride(transform.Nop))
}

// lines are the lines of a text, none longer than a line may be; empty ones are left out.
type lines struct {
	scan   *bufio.Scanner
	number int
	text   string
}

func newLines(r io.Reader) *lines {
	scan := bufio.NewScanner(Text(r))
	scan.Buffer(make([]byte, 0, 4096), longestLine)
	return &lines{scan: scan}
}

func (l *lines) next() bool {
	for l.scan.Scan() {
		l.number++
		if l.text = strings.TrimSpace(l.scan.Text()); l.text != "" {
			// A tab at the end of a line is an empty cell, and not a blank.
			l.text = strings.Trim(l.scan.Text(), " \r")
			return true
		}
	}
	return false
}

// wrong is why the lines ended before their end.
func (l *lines) wrong() error {
	err := l.scan.Err()
	if errors.Is(err, bufio.ErrTooLong) {
		return Wrong(l.number+1, "line", "", "is longer than 64 kB: that is no table of readings")
	}
	return err
}

// cellsOf are the cells of a line.
func cellsOf(line string, comma rune) ([]string, error) {
	if !strings.Contains(line, `"`) {
		return strings.Split(line, string(comma)), nil
	}
	r := csv.NewReader(strings.NewReader(line))
	r.Comma = comma
	r.FieldsPerRecord, r.TrimLeadingSpace, r.LazyQuotes = -1, true, true
	return r.Read()
}
