package table_test

import (
	"math"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/internal/table"
)

var columns = []table.Column{
	{Name: "time", Words: []string{"time", "date"}, Whole: []string{"t"}, Time: true},
	{Name: "speed", Words: []string{"speed"}, Units: map[string]float64{"mph": 1.609344}},
	{Name: "volts", Words: []string{"volt"}, Whole: []string{"u"}},
}

// However a table is written, it says the same.
func TestTheSameTableInManyForms(t *testing.T) {
	for name, text := range map[string]string{
		"commas":              "time,volts,speed\n0,12.5,50\n2,14.25,100\n",
		"semicolons, commas":  "Time;Battery voltage (V);Speed km/h\r\n0;12,5;50\r\n2;14,25;100\r\n",
		"tabs":                "t\tU\tspeed\n0\t12.5\t50\n2\t14.25\t100",
		"another order":       "speed,volts,time\n50,12.5,0\n100,14.25,2\n",
		"quoted, byte order":  "\xef\xbb\xbf\"time\",\"volts\",\"speed\"\n\"0\",\"12,5\",\"50\"\n\"2\",\"14,25\",\"100\"\n",
		"columns beside them": "no,time,remark,volts,speed\n1,0,start,12.5,50\n2,2,,14.25,100\n",
		"blank lines, spaces": "time, volts, speed\n\n 0 , 12.5 , 50 \n\n 2 , 14.25 , 100 \n",
	} {
		rows, have, err := readAll(text, columns, 100)
		require.NoError(t, err, name)
		assert.Equal(t, []bool{true, true, true}, have, name)
		require.Len(t, rows, 2, name)
		assert.Equal(t, []float64{0, 50, 12.5}, rows[0].Values, name)
		assert.Equal(t, []float64{2, 100, 14.25}, rows[1].Values, name)
	}
}

func TestUnitsInTheHead(t *testing.T) {
	rows, _, err := readAll("time,speed (mph)\n0,100\n", columns, 10)
	require.NoError(t, err)
	assert.InDelta(t, 160.9344, rows[0].Values[1], 1e-9)
}

// What a table does not have is not a number, and is told from nought.
func TestWhatIsMissing(t *testing.T) {
	rows, have, err := readAll("time,volts\n0,\n1,,\n2,0\n", columns, 10)
	require.NoError(t, err)
	assert.Equal(t, []bool{true, false, true}, have)
	require.Len(t, rows, 3)
	assert.True(t, math.IsNaN(rows[0].Values[2]), "an empty cell")
	assert.True(t, math.IsNaN(rows[1].Values[2]), "empty cells at the end")
	assert.Zero(t, rows[2].Values[2])
	assert.True(t, math.IsNaN(rows[2].Values[1]), "no such column")
	assert.Equal(t, 4, rows[2].Line)
}

func TestTimes(t *testing.T) {
	seconds := func(text string) float64 {
		v, err := table.When(text)
		require.NoError(t, err, text)
		return v
	}
	assert.Equal(t, 90.5, seconds("90,5"))
	assert.Equal(t, 1_900_000_000.25, seconds("1900000000250"), "milliseconds of the calendar")
	for _, pair := range [][2]string{
		{"08:15:00", "08:15:02.5"}, {"2030-05-01T08:15:00Z", "2030-05-01T08:15:02.5Z"}, {"2030-05-01T08:15:00", "2030-05-01T08:15:02.5"},
		{"2030-05-01 08:15:00", "2030-05-01 08:15:02.5"}, {"01.05.2030 08:15:00", "2030-05-01T08:15:02.5Z"},
		{"2030-05-01T10:15:00+02:00", "2030-05-01T08:15:02.5Z"},
	} {
		assert.InDelta(t, 2.5, seconds(pair[1])-seconds(pair[0]), 1e-6, pair[0])
	}
	for _, bad := range []string{"", "noon", "25:00:00", "NaN", "1e99", "2030-13-01T00:00:00"} {
		_, err := table.When(bad)
		require.Error(t, err, bad)
	}
}

func TestWhatCannotBeReadIsNamed(t *testing.T) {
	for text, says := range map[string]string{
		"":                             "there is no table",
		"time,volts\n0,12.5\n1,twelve": `line 3: volts "twelve" is not a number`,
		"time,volts\n0,13,96\n1,13,97": `line 2: line "0,13,96" has 3 cells and there are 2 heads; are decimal commas among the commas`,
		"time;volts\n0;13\n1\n2;13":    `line 3: line "1" has 1 cells and there are 2 heads`,
		"time,volts\n" + strings.Repeat("1", 70_000):  "line 2: line is longer than 64 kB",
		"time,volts\n" + strings.Repeat("1,13\n", 11): "has more than 10 lines",
		"time;volts\n0;1,234.5":                       `volts "1,234.5" is not a number`,
		"time,volts\n0,Inf":                           `volts "Inf" is not a number`,
		"time,volts\n,12":                             `line 2: time is not a time`,
		"time,volts\n0," + strings.Repeat("9x", 100):  "…",
	} {
		_, _, err := readAll(text, columns, 10)
		require.Error(t, err, text)
		assert.Contains(t, err.Error(), says)
		assert.Less(t, len(err.Error()), 260)
	}
}

// A table may be in UTF-16 that says so, and its last line may be cut short.
func TestHowATableIsWritten(t *testing.T) {
	utf16 := func(text string, big bool) string {
		out := []byte{0xff, 0xfe}
		if big {
			out = []byte{0xfe, 0xff}
		}
		for _, r := range text {
			low, high := byte(r), byte(r>>8)
			if big {
				low, high = high, low
			}
			out = append(out, low, high)
		}
		return string(out)
	}
	for name, text := range map[string]string{"little": utf16("time;volts\r\n0;13,96\r\n", false), "big": utf16("time;volts\n0;13,96\n", true),
		"cut short": "time;volts\n0;13,96\n1", "another code page": "time;volts \xb0C\n0;13,96\n"} {
		rows, _, err := readAll(text, columns, 10)
		require.NoError(t, err, name)
		require.Len(t, rows, 1, name)
		assert.Equal(t, 13.96, rows[0].Values[2], name)
	}
}

type row struct {
	Line   int
	Values []float64
}

// readAll reads a table into memory.
func readAll(text string, columns []table.Column, most int) (rows []row, have []bool, err error) {
	have, err = table.Read(strings.NewReader(text), columns, most, func(line int, values []float64) error {
		rows = append(rows, row{line, slices.Clone(values)})
		return nil
	})
	return rows, have, err
}
