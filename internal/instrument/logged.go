package instrument

import (
	"bytes"
	"errors"
	"math"
	"slices"
	"strconv"
	"strings"

	"epitrope/core/prove"
	"epitrope/internal/table"
)

// standing is how far the last of a log may spread for it to have come to a stand: by a share of its middle, and at least by so
// much. Source: from memory.
var standing = map[prove.Unit]struct{ share, least float64 }{prove.Volts: {0.015, 0.1}, prove.Amps: {0.1, 0.5}}

var loggedColumns = []table.Column{
	{Name: "time", Words: []string{"time", "date", "seconds", "elapsed"}, Whole: []string{"t", "s"}, Time: true},
	{Name: "volts", Words: []string{"volt", "battery", "u_", "(v)", "[v]", " v"}, Whole: []string{"v", "u", "value"}},
	{Name: "amps", Words: []string{"amp", "current", "(a)", "[a]", " a"}, Whole: []string{"a", "i"}},
}

// Entries are what a file says at a proof: readings by their names, with the heads “reading” and “value”; or a logger's file, whose
// last quarter is the reading that is asked for.
func Entries(data []byte, p *prove.Proof, asked string) ([]prove.Entry, error) {
	first, _, _ := bytes.Cut(data, []byte("\n"))
	if heads := strings.ToLower(string(first)); strings.Contains(heads, "reading") && strings.Contains(heads, "value") {
		taken, err := ReadProof(data, p)
		if err != nil {
			return nil, err
		}
		list := []prove.Entry{}
		for _, t := range taken {
			r, _ := p.Reading(t.ID)
			list = append(list, prove.Entry{Reading: t.ID, Text: Written(r, t)})
		}
		return list, nil
	}
	r, there := p.Reading(asked)
	if !there || r.Unit != prove.Volts && r.Unit != prove.Amps {
		return nil, errors.New("a logger's file is the reading that is asked for: one of volts or amps; a file of readings has the heads " +
			"“reading” and “value”")
	}
	return logged(data, r)
}

func logged(data []byte, r prove.Reading) ([]prove.Entry, error) {
	column := map[prove.Unit]int{prove.Volts: 1, prove.Amps: 2}[r.Unit]
	values := []float64{}
	have, err := table.Read(bytes.NewReader(data), loggedColumns, Readings, func(_ int, v []float64) error {
		if !math.IsNaN(v[column]) {
			values = append(values, v[column])
		}
		return nil
	})
	switch {
	case have != nil && (!have[0] || !have[column]):
		return nil, table.Wrong(1, "heads", "", "name no time with "+loggedColumns[column].Name+": “"+r.What+"” is read in "+string(r.Unit))
	case err != nil && !errors.Is(err, table.ErrEmpty):
		return nil, err
	case len(values) == 0:
		return nil, errors.New("there is no recording in it: write a first line such as “time, " + loggedColumns[column].Name + "”")
	}
	last := values[len(values)*3/4:]
	low, high := slices.Min(last), slices.Max(last)
	slices.Sort(last)
	middle := last[len(last)/2]
	taken := prove.Taken{ID: r.ID, Value: middle, Jumps: high-low > math.Max(standing[r.Unit].least, standing[r.Unit].share*math.Abs(middle))}
	return []prove.Entry{{Reading: r.ID, Text: Written(r, taken)}}, nil
}

// Written is a reading as it is typed.
func Written(r prove.Reading, t prove.Taken) string {
	switch {
	case t.Jumps:
		return prove.Jumping
	case r.Unit == prove.Seen:
		return map[bool]string{true: "yes", false: "no"}[t.Value > 0]
	case r.Unit == prove.Ohms && t.Value > 1e4:
		return "OL"
	}
	return plain(t.Value, r.Unit)
}

// beyond is what no meter of a bay shows.
const beyond = 1e9

// plain is a value in digits, as people and the proof read them, to a millionth; one that no meter shows is over its range.
func plain(value float64, unit prove.Unit) string {
	if math.Abs(value) > beyond {
		return "OL"
	}
	return strconv.FormatFloat(math.Round(value*1e6)/1e6, 'f', -1, 64) + " " + string(unit)
}
