package table

import (
	"bytes"
	"encoding/csv"
	"errors"
	"io"
	"strings"
	"unicode"
	"unicode/utf8"
)

// Line is a line of a table of texts, with what was written.
type Line struct {
	Number int
	Cells  []string
	Raw    string
}

// firstLine is the first line with anything in it: the heads.
func firstLine(data []byte) string {
	for line := range bytes.Lines(data) {
		if len(bytes.TrimFunc(line, empty)) > 0 {
			return string(line)
		}
	}
	return ""
}

// empty says whether a character leaves its cell empty: a blank of any kind, what parts cells, and quotes about nothing.
func empty(r rune) bool { return unicode.IsSpace(r) || strings.ContainsRune(",;\"", r) }

// Lines reads a table of texts, up to most lines: its heads, then the others. Lines
// without anything in them are left out. Lines may end as on any system.
func Lines(data []byte, most int) (heads Line, lines []Line, err error) {
	if data, err = io.ReadAll(Text(bytes.NewReader(data))); err != nil {
		return heads, lines, &Error{Field: "file", Wrong: "cannot be read"}
	}
	if !utf8.Valid(data) {
		return heads, lines, &Error{Field: "file", Wrong: "is not UTF-8 text; a Windows or Latin code page writes such bytes: save it as UTF-8"}
	}
	data = bytes.ReplaceAll(bytes.ReplaceAll(data, []byte("\r\n"), []byte("\n")), []byte("\r"), []byte("\n"))
	r := csv.NewReader(bytes.NewReader(data))
	r.Comma = delimiter(firstLine(data))
	r.FieldsPerRecord, r.TrimLeadingSpace, r.LazyQuotes = -1, true, true
	for at := int64(0); ; at = r.InputOffset() {
		cells, err := r.Read()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			return heads, lines, &Error{Field: "file", Wrong: "cannot be read: a quote is not closed"}
		}
		if strings.TrimSpace(strings.Join(cells, "")) == "" {
			continue
		}
		number, _ := r.FieldPos(0)
		line := Line{number, cells, strings.Trim(string(data[at:r.InputOffset()]), "\n")}
		switch {
		case heads.Cells == nil:
			heads = line
		case len(lines) == most:
			return heads, lines, &Error{Line: number, Field: "file", Wrong: "has too many lines"}
		default:
			lines = append(lines, line)
		}
	}
	if heads.Cells == nil {
		return heads, lines, ErrEmpty
	}
	return heads, lines, nil
}
