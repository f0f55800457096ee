package track

import (
	"bufio"
	"errors"
	"io"
	"strings"

	"epitrope/internal/table"
)

// File reads a track in any of the forms that are known, by what is in it.
func File(r io.Reader) (Read, error) {
	text := bufio.NewReader(table.Text(r))
	begin, err := text.Peek(1)
	for err == nil && strings.ContainsAny(string(begin), " \t\r\n") {
		_, _ = text.Discard(1) // it was there
		begin, err = text.Peek(1)
	}
	var samples []Sample
	var says []string
	switch {
	case err != nil && !errors.Is(err, io.EOF):
		return Read{}, err
	case string(begin) == "<":
		samples, says, err = gpx(text)
	default:
		samples, err = driving(text)
	}
	if err != nil {
		return Read{}, err
	}
	out, err := Pattern(samples)
	out.Says = append(says, out.Says...)
	return out, err
}

// columns are those of a table of driving.
var columns = []table.Column{
	{Name: "time", Words: []string{"time", "date", "seconds"}, Whole: []string{"t", "s"}, Time: true},
	{Name: "rpm", Words: []string{"rpm", "engine speed", "revs"}},
	{Name: "speed", Words: []string{"speed", "km/h", "kmh", "mph"}, Whole: []string{"v"},
		Units: map[string]float64{"mph": 1.609344, "m/s": 3.6}},
}

// driving reads a table with a line of heads: a time, and a speed or the engine's.
func driving(r io.Reader) ([]Sample, error) {
	var out []Sample
	have, err := table.Read(r, columns, Samples, func(line int, v []float64) error {
		out = append(out, Sample{At: v[0], RPM: v[1], Kmh: v[2], Line: line})
		return nil
	})
	if errors.Is(err, table.ErrEmpty) {
		return nil, ErrEmpty
	}
	if have != nil && (!have[0] || !have[1] && !have[2]) {
		return nil, &Error{Line: 1, Field: "heads",
			Wrong: "name no time with a speed or rpm; write a first line such as “time, speed km/h” or “time, rpm”"}
	}
	return out, err
}
