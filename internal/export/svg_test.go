package export_test

import (
	"bytes"
	"encoding/csv"
	"encoding/xml"
	"errors"
	"io"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/harness"
	"epitrope/core/unit"
	"epitrope/internal/export"
)

// valid fails where SVG is not XML; it returns its text.
func valid(t *testing.T, svg []byte) string {
	t.Helper()
	d := xml.NewDecoder(bytes.NewReader(svg))
	text := ""
	for {
		token, err := d.Token()
		if errors.Is(err, io.EOF) {
			return text
		}
		require.NoError(t, err)
		if chars, ok := token.(xml.CharData); ok {
			text += string(chars)
		}
	}
}

// Lists are files by RFC 4180 that no spreadsheet takes for formulas.
func TestListsAreHarmless(t *testing.T) {
	end := harness.End{Name: "=cmd()", Terminal: "30", Lug: "@x", Label: "+1"}
	wires := export.WiresCSV([]harness.Lead{{Number: "-C1", From: end, To: end, Size: "16 mm²", Cables: 1, Colour: "red, \"dark\""}},
		unit.Metric)
	rows, err := csv.NewReader(bytes.NewReader(wires)).ReadAll()
	require.NoError(t, err)
	require.Len(t, rows, 2)
	for _, row := range rows {
		for _, cell := range row {
			assert.False(t, cell != "" && strings.ContainsRune("=+-@", rune(cell[0])), cell)
		}
	}
	assert.True(t, bytes.HasSuffix(wires, []byte("\r\n")))
	cuts := export.CutsCSV([]harness.Cut{{Size: "16 mm²", Colour: "red", LengthM: 2,
		Cuts: []harness.CutFor{{Wire: "C1", LengthM: 1.5}, {Wire: "C2", LengthM: 0.5}}}}, unit.Metric)
	rows, err = csv.NewReader(bytes.NewReader(cuts)).ReadAll()
	require.NoError(t, err)
	assert.Equal(t, []string{"new cable", "16 mm²", "red", "2", "C1", "1.5", ""}, rows[1])
	price := 3.0
	list := export.PartsCSV(harness.List{Lines: []harness.Line{{Kind: "fuse", What: "70 A", Count: 1, Price: &price, Sum: &price,
		Currency: "EUR", Order: 1}}, Sums: []harness.Sum{{Currency: "EUR", Sum: 3}}}, unit.Metric)
	rows, err = csv.NewReader(bytes.NewReader(list)).ReadAll()
	require.NoError(t, err)
	assert.Equal(t, "3.00", rows[2][9])
}
