// Package track reads what a vehicle really did, from a GPX track or a table of time and
// speed or engine speed, and writes it as a pattern of driving.
package track

import (
	"errors"
	"fmt"
	"math"
	"time"

	"epitrope/core/day"
	"epitrope/internal/table"
)

// Sample is a moment of a track. What was not recorded is NaN.
type Sample struct {
	At   float64 // s
	Kmh  float64
	RPM  float64
	Line int // of the file it came from
}

// Read is a track as a pattern, with what was done to it.
type Read struct {
	Pattern day.Pattern
	Says    []string // what was left out or taken some way
	From    float64  // when it begins, in s of the calendar, or of its own
	Seconds float64  // how long was recorded; the pattern goes on to the end of its day
}

// DrivenDay is how long was driven on a day of the calendar.
type DrivenDay struct {
	Date  string  `json:"date"`
	Hours float64 `json:"hours"`
}

// calendarS is the least that a time of the calendar has, in s: the year 1990.
const calendarS = 631_152_000.0

// Days are the hours with the engine running by the days of a place's calendar; none where the track has no
// time of the calendar.
func (r Read) Days(place *time.Location) []DrivenDay {
	list := []DrivenDay{}
	if r.From < calendarS {
		return list
	}
	at := time.UnixMilli(int64(1000 * r.From)).In(place)
	recorded := at.Add(time.Duration(r.Seconds * float64(time.Second)))
	for _, s := range r.Pattern {
		if !at.Before(recorded) {
			break
		}
		end := at.Add(time.Duration(s.Seconds * float64(time.Second)))
		if end.After(recorded) {
			end = recorded
		}
		for at.Before(end) {
			night := time.Date(at.Year(), at.Month(), at.Day()+1, 0, 0, 0, 0, place)
			until := end
			if night.Before(end) {
				until = night
			}
			date := at.Format(time.DateOnly)
			if n := len(list); n == 0 || list[n-1].Date != date {
				list = append(list, DrivenDay{Date: date})
			}
			if s.Kind.Runs() {
				list[len(list)-1].Hours += until.Sub(at).Hours()
			}
			at = until
		}
	}
	return list
}

// Error is a track that cannot be read, and where.
type Error = table.Error

// ErrEmpty is a file without a track.
var ErrEmpty = errors.New("no track in it: a time and a speed, or a position, at two moments at least")

// How a track is read. Source: common practice, no source; gears as most vehicles have
// them, from memory.
const (
	standsKmh  = 2.0   // slower than that it stands
	townKmh    = 65.0  // slower than that it is in town
	parksS     = 180.0 // standing longer it is parked, engine off
	gapS       = 600.0 // nothing recorded for so long: parked
	liftMS2    = -0.4  // slowing down more than that the engine is driven
	stoppedRPM = 300.0
	idlesRPM   = 1000.0
	fastestKmh = 300.0
	longestS   = day.MaxDays * 86400
)

// Samples is the most that is read: a fortnight at 1 Hz.
const Samples = 1_300_000

// Pattern turns samples, in the order of time, into a pattern of at most some thousand
// segments. It returns *Error for what no vehicle does, and ErrEmpty.
func Pattern(samples []Sample) (Read, error) {
	var out Read
	clean, dropped, err := inOrder(samples)
	if err != nil {
		return out, err
	}
	if len(clean) < 2 {
		return out, ErrEmpty
	}
	if dropped > 0 {
		out.Says = append(out.Says, fmt.Sprintf("%d moments left out: their time runs backward", dropped))
	}
	out.From = clean[0].At
	segments := parkLongStops(classify(clean))
	for merge := 5.0; ; merge *= 2 {
		if out.Pattern = starts(smooth(segments, merge)); len(out.Pattern) <= day.MaxSegments/2 {
			break
		}
		if merge > 3600 {
			return out, &Error{Field: "track", Wrong: "starts and stops the engine too often to be a vehicle's"}
		}
	}
	out.Seconds = out.Pattern.Seconds()
	if rest := math.Ceil(out.Seconds/daySeconds)*daySeconds - out.Seconds; rest > restS {
		out.Pattern = parkedOn(out.Pattern, rest)
		out.Says = append(out.Says, "what is left of the day is taken as parked")
	}
	if !out.Pattern.Starts() {
		out.Says = append(out.Says, "the engine never runs in it")
	}
	return out, nil
}

// A day, and what is left of one that is no part of it, in s.
const (
	daySeconds = 86_400.0
	restS      = 60.0
)

// parkedOn is a pattern after which the vehicle stays where it is.
func parkedOn(p day.Pattern, seconds float64) day.Pattern {
	if n := len(p); n > 0 && p[n-1].Kind == day.Park {
		p[n-1].Seconds += seconds
		return p
	}
	return append(p, day.Segment{Kind: day.Park, Seconds: seconds})
}

// inOrder checks samples and leaves out those whose time runs backward.
func inOrder(samples []Sample) (clean []Sample, dropped int, err error) {
	if len(samples) > Samples {
		return nil, 0, tooMany(len(samples))
	}
	for _, s := range samples {
		switch {
		case s.Kmh < 0 || s.Kmh > fastestKmh:
			return nil, 0, table.Wrong(s.Line, "speed", fmt.Sprintf("%g km/h", s.Kmh),
				fmt.Sprintf("is not a vehicle's; allowed are 0 to %.0f km/h", fastestKmh))
		case s.RPM < 0 || s.RPM > 8000:
			return nil, 0, table.Wrong(s.Line, "rpm", fmt.Sprintf("%g", s.RPM), "is not an engine's; allowed are 0 to 8000 rpm")
		}
		if len(clean) > 0 && s.At <= clean[len(clean)-1].At {
			dropped++
			continue
		}
		clean = append(clean, s)
	}
	if dropped > len(samples)/4 {
		return nil, 0, &Error{Field: "time", Wrong: fmt.Sprintf("runs backward at %d of %d moments", dropped, len(samples))}
	}
	if len(clean) > 1 {
		if long := clean[len(clean)-1].At - clean[0].At; long > longestS {
			return nil, 0, &Error{Field: "track", Wrong: fmt.Sprintf("lasts %.0f days; allowed are up to %.0f", long/86400, day.MaxDays)}
		}
	}
	return clean, dropped, nil
}

func tooMany(count int) *Error {
	return &Error{Field: "track", Wrong: fmt.Sprintf("has %d moments; allowed are %d, such as a fortnight at one a second", count, Samples)}
}

// classify says of every stretch between two samples what the vehicle did.
func classify(samples []Sample) day.Pattern {
	var p day.Pattern
	for i, s := range samples[1:] {
		before := samples[i]
		long := s.At - before.At
		seg := day.Segment{Kind: day.Park, Seconds: long}
		if long < gapS {
			seg = kindOf(before, s)
			seg.Seconds = long
		}
		if n := len(p); n > 0 && p[n-1].Kind == seg.Kind && close(p[n-1].RPM, seg.RPM) {
			p[n-1] = joined(p[n-1], seg)
			continue
		}
		p = append(p, seg)
	}
	return p
}

func kindOf(a, b Sample) day.Segment {
	kmh := (a.Kmh + b.Kmh) / 2
	if !math.IsNaN(a.RPM) {
		rpm := math.Round(a.RPM/100) * 100
		switch {
		case a.RPM < stoppedRPM:
			return day.Segment{Kind: day.Park}
		case a.RPM < idlesRPM && !(kmh > standsKmh):
			return day.Segment{Kind: day.Idle, RPM: rpm}
		case kmh > townKmh || math.IsNaN(kmh) && a.RPM > 2200:
			return day.Segment{Kind: day.Highway, RPM: rpm}
		}
		return day.Segment{Kind: day.Town, RPM: rpm}
	}
	slows := (b.Kmh - a.Kmh) / 3.6 / (b.At - a.At)
	switch {
	case kmh < standsKmh:
		return day.Segment{Kind: day.Idle}
	case slows < liftMS2 && kmh > 15:
		return day.Segment{Kind: day.LiftOff, RPM: engine(kmh)}
	case kmh < townKmh:
		return day.Segment{Kind: day.Town, RPM: engine(kmh)}
	}
	return day.Segment{Kind: day.Highway, RPM: engine(kmh)}
}

// engine is the speed of an engine at a speed on the road: through the gears to 1,500 to
// 2,200 rpm in town, and in the highest gear on the highway. Source: assumed.
func engine(kmh float64) float64 {
	rpm := 1500 + 700*math.Min(1, kmh/townKmh)
	if kmh >= townKmh {
		rpm = 22 * kmh
	}
	return math.Round(math.Min(math.Max(rpm, 1200), 4000)/100) * 100
}

func close(a, b float64) bool { return math.Abs(a-b) <= 200 }

// joined is two segments as one of the first's kind, the engine's speed by time.
func joined(a, b day.Segment) day.Segment {
	whole := a.Seconds + b.Seconds
	a.RPM = math.Round((a.RPM*a.Seconds+b.RPM*b.Seconds)/whole/100) * 100
	a.Seconds = whole
	return a
}

// parkLongStops takes the engine as off where the vehicle stands for long.
func parkLongStops(p day.Pattern) day.Pattern {
	for i, s := range p {
		if s.Kind == day.Idle && s.RPM == 0 && s.Seconds >= parksS {
			p[i].Kind = day.Park
		}
	}
	return p
}

// smooth joins segments of less than so many seconds to the one before.
func smooth(p day.Pattern, least float64) day.Pattern {
	var out day.Pattern
	for _, s := range p {
		n := len(out)
		same := n > 0 && out[n-1].Kind == s.Kind && close(out[n-1].RPM, s.RPM)
		if n > 0 && (same || s.Seconds < least && out[n-1].Kind != day.Park && s.Kind != day.Park) {
			out[n-1] = joined(out[n-1], s)
			continue
		}
		out = append(out, s)
	}
	return out
}

// starts puts a start of the engine before every drive.
func starts(p day.Pattern) day.Pattern {
	var out day.Pattern
	running := false
	for _, s := range p {
		runs := s.Kind != day.Park
		if runs && !running {
			out = append(out, day.Segment{Kind: day.Crank, Seconds: 2})
		}
		running = runs
		out = append(out, s)
	}
	return out
}
