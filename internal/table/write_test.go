package table_test

import (
	"bytes"
	"encoding/csv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/internal/table"
)

// What a spreadsheet would take for a formula is written so that it does not, and reads back
// as it was; all else is written as it is.
func TestWriteIsHarmless(t *testing.T) {
	for _, c := range []struct{ cell, written string }{
		{"=1+1", "'=1+1"}, {"+49", "'+49"}, {"-5 °C", "'-5 °C"}, {"@home", "'@home"}, {"\tx", "'\tx"}, {"'quoted", "''quoted"},
		{"", ""}, {"plain", "plain"}, {"16 mm²", "16 mm²"}, {"a=b", "a=b"}, {"'", "''"},
	} {
		rows, err := csv.NewReader(bytes.NewReader(table.Write([]string{"x", c.cell}))).ReadAll()
		require.NoError(t, err)
		assert.Equal(t, c.written, rows[0][1])
		assert.Equal(t, c.cell, table.Plain(rows[0][1]))
	}
	assert.Equal(t, "a,\"b\r\n\"\"c\"\"\"\r\n", string(table.Write([]string{"a", "b\n\"c\""})), "RFC 4180: quoted, lines end in CRLF")
}

// Whatever stands in cells, a row reads back as it was written, but for its line breaks.
func FuzzWrite(f *testing.F) {
	f.Add("=cmd", "a,b\n\"c\"")
	f.Add("'=x", "")
	f.Fuzz(func(t *testing.T, a, b string) {
		rows, err := csv.NewReader(bytes.NewReader(table.Write([]string{a, b, "end"}))).ReadAll()
		require.NoError(t, err)
		require.Len(t, rows, 1)
		breaks := strings.NewReplacer("\r\n", "\n", "\r", "\n")
		assert.Equal(t, breaks.Replace(a), breaks.Replace(table.Plain(rows[0][0])))
		assert.Equal(t, breaks.Replace(b), breaks.Replace(table.Plain(rows[0][1])))
	})
}
