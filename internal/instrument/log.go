// Package instrument reads what meters and loggers write, and stands in for them with
// simulated recordings.
package instrument

import (
	"errors"
	"io"

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

// Recording is what was read of a log, with what was done to it.
type Recording struct {
	Readings []alternator.Reading
	Says     []string
}

// Log reads a logged recording of the start battery's voltage: a table with a line of
// heads, time and volts, and where there are, engine speed or road speed.
func Log(data io.Reader) (Recording, error) {
	var out Recording
	order := inOrder{}
	have, err := table.Read(data, columns, Readings, func(line int, v []float64) error {
		out.Readings = append(out.Readings, alternator.Reading{At: order.at(line, v[0]), RPM: v[1], Kmh: v[2], V: v[3], Line: line})
		return nil
	})
	if have != nil && (!have[0] || !have[3]) {
		return out, table.Wrong(1, "heads", "",
			"name no time with volts; write a first line such as “time, volts” or “time; battery V; rpm”")
	}
	if errors.Is(err, table.ErrEmpty) || err == nil && len(out.Readings) == 0 {
		return out, errors.New("there is no recording in it: write a first line such as “time, volts”, then a reading to a line")
	}
	if err != nil {
		return out, err
	}
	out.Says, err = order.says(len(out.Readings))
	return out, err
}
