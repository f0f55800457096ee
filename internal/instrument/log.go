// Package instrument reads what meters and loggers write, and stands in for them with
// simulated recordings.
package instrument

import (
	"bytes"
	"errors"
	"fmt"

	"epitrope/core/alternator"
	"epitrope/internal/table"
)

// Readings is the most that is read of a recording: a day at ten a second.
const Readings = 864_000

var columns = []table.Column{
	{Name: "time", Words: []string{"time", "date", "seconds", "elapsed"}, Whole: []string{"t", "s"}, Time: true},
	{Name: "rpm", Words: []string{"rpm", "engine speed", "revs"}},
	{Name: "speed", Words: []string{"speed", "km/h", "kmh", "mph"}, Units: map[string]float64{"mph": 1.609344, "m/s": 3.6}},
	{Name: "volts", Words: []string{"volt", "battery", "start", "u_", "(v)", "[v]", " v"}, Whole: []string{"v", "u", "ch1", "value"}},
}

// Log reads a logged recording of the start battery's voltage: a table with a line of
// heads, time and volts, and where there are, engine speed or road speed.
func Log(data []byte) ([]alternator.Reading, error) {
	rows, have, err := table.Read(data, columns, Readings)
	if have != nil && (!have[0] || !have[3]) {
		first, _, _ := bytes.Cut(data, []byte("\n"))
		return nil, table.Wrong(1, "heads", string(first[:min(len(first), 60)]),
			"name no time with volts; write a first line such as “time, volts” or “time; battery V; rpm”")
	}
	if errors.Is(err, table.ErrEmpty) || err == nil && len(rows) == 0 {
		return nil, errors.New("there is no recording in it: write a first line such as “time, volts”, then a reading to a line")
	}
	if err != nil {
		return nil, err
	}
	if len(rows) > Readings {
		return nil, fmt.Errorf("it has more than %d readings; record fifteen to twenty minutes, one a second or two", Readings)
	}
	out := make([]alternator.Reading, len(rows))
	for i, r := range rows {
		out[i] = alternator.Reading{At: r.Values[0], RPM: r.Values[1], Kmh: r.Values[2], V: r.Values[3], Line: r.Line}
	}
	return out, nil
}
