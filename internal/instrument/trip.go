package instrument

import (
	"errors"
	"io"
	"math"

	"epitrope/core/trip"
	"epitrope/internal/table"
)

var tripColumns = []table.Column{
	{Name: "time", Words: []string{"time", "date", "seconds", "elapsed"}, Whole: []string{"t", "s"}, Time: true},
	{Name: "charge", Words: []string{"soc", "charge", "%"}, Whole: []string{"soc"}},
	{Name: "amps", Words: []string{"amp", "current", "(a)", "[a]", "i_"}, Whole: []string{"a", "i"}},
}

// Trip reads a monitor's file of a drive: time with the state of charge in %, or with amps into the battery, which are added up
// over its capacity, in Ah. A drive that is no drive is an error that says why.
func Trip(data io.Reader, capacityAh float64) (out trip.Drive, err error) {
	first, last, before := math.NaN(), math.NaN(), math.NaN()
	begin, end, ah, counted := math.NaN(), math.NaN(), 0.0, false
	have, err := table.Read(data, tripColumns, Readings, func(_ int, v []float64) error {
		at, soc, amps := v[0], v[1], v[2]
		if math.IsNaN(begin) {
			begin = at
		}
		end = at
		if !math.IsNaN(soc) {
			if math.IsNaN(first) {
				first = soc
			}
			last = soc
		}
		if !math.IsNaN(amps) && !math.IsNaN(before) && at > before {
			ah, counted = ah+amps*(at-before)/3600, true
		}
		before = at
		return nil
	})
	switch {
	case have != nil && (!have[0] || !have[1] && !have[2]):
		return out, table.Wrong(1, "heads", "", "name no time with charge or amps; write a first line such as “time, charge %” or “time, amps”")
	case errors.Is(err, table.ErrEmpty) || err == nil && math.IsNaN(begin):
		return out, errors.New("there is no recording in it: write a first line such as “time, charge %”, then a reading to a line")
	case err != nil:
		return out, err
	}
	out.Hours, out.From, out.To = (end-begin)/3600, first, last
	if math.IsNaN(first) && counted {
		out.From = halfFull
		out.To = math.Min(100, math.Max(0, halfFull+100*ah/capacityAh))
	}
	if field, wrong := out.Check(); field != "" {
		return out, errors.New("this is no drive that can be judged: " + wrong)
	}
	return out, nil
}

// halfFull is what a battery is taken to have at first where only amps were written down, in %.
const halfFull = 50.0
