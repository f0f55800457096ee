package instrument

import (
	"fmt"
	"math"

	"epitrope/internal/table"
)

// How a logger's clock may go. Source: common practice, no source.
const (
	jitterS   = 2.0 // a step back of less is the logger's own
	dayS      = 86_400.0
	midnightS = 80_000.0 // times of day that step back by more have passed midnight
	mostSame  = 0.5      // share of readings that may have the time of the one before
)

// inOrder follows the clock of a recording, line by line.
type inOrder struct {
	before    float64
	days      float64
	count     int
	back      int // readings before the one before
	same      int
	midnights int

	stepLine int // where it first stepped back by more than its own
	stepS    float64
}

// at is when a reading was taken, its nights counted.
func (o *inOrder) at(line int, seconds float64) float64 {
	at := seconds + o.days
	if o.count > 0 && o.before-at > midnightS && seconds < dayS && o.before-o.days < dayS {
		o.days += dayS
		o.midnights++
		at += dayS
	}
	switch {
	case o.count == 0:
	case at == o.before:
		o.same++
	case at < o.before:
		o.back++
		if step := o.before - at; step > jitterS && step > o.stepS {
			o.stepLine, o.stepS = line, step
		}
	}
	o.before = at
	o.count++
	return at
}

// says tells what there was; an error where two stretches would lie over each other, or the times are too coarse.
func (o *inOrder) says(count int) (list []string, err error) {
	newestFirst := o.back+o.same == count-1 && o.back > 0
	switch {
	case float64(o.same) > mostSame*float64(count):
		return nil, table.Wrong(0, "time", "", fmt.Sprintf("is the same on %d of %d readings as on the line before: write it with its seconds",
			o.same, count))
	case newestFirst:
		list = append(list, "the newest reading stands first: put in the order of time")
	case o.stepLine > 0:
		return nil, table.Wrong(o.stepLine, "time", "", fmt.Sprintf("steps back by %.0f s: the clock was set, or two recordings "+
			"stand in one file. Cut it there", math.Round(o.stepS)))
	case o.back > 0:
		list = append(list, fmt.Sprintf("readings a moment too late in the file, %d: put in the order of time", o.back))
	}
	if o.same > 0 {
		list = append(list, fmt.Sprintf("readings of a moment that was recorded already, %d: left out", o.same))
	}
	if o.midnights > 0 {
		list = append(list, "times of day that pass midnight: taken as the next day's")
	}
	return list, nil
}
