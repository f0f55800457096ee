package day

import (
	"fmt"
	"math"
	"strings"
)

const (
	daySeconds = 86400.0
	hour       = 3600.0
	minute     = 60.0
	crankS     = 2.0 // a healthy start. Source: common practice, no source
	// firstHour is when a day begins here: before anybody drives.
	firstHour = 6.0
)

// Ready is a pattern that can be taken as it is, for the hours that are driven.
type Ready struct {
	ID    string
	Label string
	Says  string
	day   func(hours float64) Pattern
	// parked is how many days it stands after each day driven.
	parked float64
	// idling is how much longer the engine runs at the end of a day's drive, in h.
	idling float64
}

// Parked is the pattern with so many days between drives, on average.
func (r Ready) Parked(days float64) Ready { r.parked = days; return r }

// Idling is the pattern with so many of its hours at idle, at the end of the day.
func (r Ready) Idling(hours float64) Ready { r.idling = hours; return r }

// ReadyPatterns lists the patterns, the usual one first. They are assumed: nobody
// drives like that, and most drive like something close to it.
var ReadyPatterns = []Ready{
	{ID: "two-trips", Label: "to work and back", Says: "two drives, half in town and half on the highway", day: twoTrips},
	{ID: "short-trips", Label: "short trips", Says: "many starts, town, a little idling", day: shortTrips},
	{ID: "deliveries", Label: "stop and go all day", Says: "town and idling, the engine off at most stops", day: deliveries},
	{ID: "long-haul", Label: "one long drive", Says: "highway, then parked", day: longHaul},
	{ID: "weekend", Label: "drive, then two days parked", Says: "highway to a place, two days there, and on", day: longHaul, parked: 2},
	{ID: "idling", Label: "idling for power", Says: "a short drive, then the engine idles", day: idling},
}

// ReadyByID finds a pattern. The error names those there are.
func ReadyByID(id string) (Ready, error) {
	ids := make([]string, len(ReadyPatterns))
	for i, r := range ReadyPatterns {
		if r.ID == id {
			return r, nil
		}
		ids[i] = r.ID
	}
	return Ready{}, fmt.Errorf("%q is not a pattern; allowed are %s", id, strings.Join(ids, ", "))
}

// Days writes the pattern out for a number of days with hours driven a day driven, at
// most 20.
func (r Ready) Days(count int, hours float64) Pattern {
	hours = math.Min(hours, 20)
	idle := math.Min(r.idling, hours)
	var p Pattern
	for d := range count {
		cycle := r.parked + 1
		if d > 0 && math.Floor(float64(d)/cycle) == math.Floor(float64(d-1)/cycle) {
			p = append(p, Segment{Kind: Park, Seconds: daySeconds})
			continue
		}
		day := r.day(hours - idle)
		if idle > 0 {
			day = append(day, Segment{Kind: Idle, Seconds: idle * hour})
		}
		p = append(append(p, day...), Segment{Kind: Park, Seconds: daySeconds - day.Seconds()})
	}
	return p
}

// Repeat repeats a written pattern until it has lasted so many days.
func (p Pattern) Repeat(days float64) Pattern {
	var out Pattern
	left := days * daySeconds
	for left > 1e-6 && p.Seconds() > 0 {
		for _, s := range p {
			if left <= 1e-6 {
				break
			}
			s.Seconds = math.Min(s.Seconds, left)
			left -= s.Seconds
			out = append(out, s)
		}
	}
	return out
}

func twoTrips(hours float64) Pattern {
	trip := drive(hours/2, 0.5, 0.06)
	p := Pattern{{Kind: Park, Seconds: 1.5 * hour}}
	p = append(p, trip...)
	p = append(p, Segment{Kind: Park, Seconds: math.Max(60, 10*hour-trip.Seconds())})
	return append(p, trip...)
}

func shortTrips(hours float64) Pattern {
	count := int(math.Max(2, math.Round(hours/0.25)))
	trip := drive(hours/float64(count), 1, 0.15)
	gap := math.Max(60, (12*hour-float64(count)*trip.Seconds())/float64(count))
	p := Pattern{{Kind: Park, Seconds: hour}}
	for range count {
		p = append(append(p, trip...), Segment{Kind: Park, Seconds: gap})
	}
	return p
}

func deliveries(hours float64) Pattern {
	p := Pattern{{Kind: Park, Seconds: hour}}
	for range int(math.Min(55, math.Max(1, math.Round(hours/0.3)))) {
		p = append(append(p, drive(0.25, 1, 0.2)...), Segment{Kind: Idle, Seconds: 0.05 * hour}, Segment{Kind: Park, Seconds: 6 * minute})
	}
	return p
}

func longHaul(hours float64) Pattern {
	return append(Pattern{{Kind: Park, Seconds: 3 * hour}}, drive(hours, 0.15, 0.02)...)
}

func idling(hours float64) Pattern {
	p := append(Pattern{{Kind: Park, Seconds: 2 * hour}}, drive(hours/4, 1, 0.1)...)
	return append(p, Segment{Kind: Idle, Seconds: 0.75 * hours * hour})
}

// drive is a start and a drive of so many hours: a share of it in town, a share idling,
// the rest on the highway.
func drive(hours, town, idle float64) Pattern {
	total := math.Max(hours*hour, 2*minute)
	p := Pattern{{Kind: Crank, Seconds: crankS}, {Kind: Idle, Seconds: math.Max(30, idle*total)}}
	rest := total - p.Seconds()
	p = append(p, stopAndGo(town*rest)...)
	if highway := (1 - town) * rest; highway > 1 {
		p = append(p, steady(highway)...)
	}
	return p
}

// stopAndGo is driving in town: pull away, roll off, stand. Source: common practice, no
// source.
func stopAndGo(seconds float64) Pattern {
	var p Pattern
	for seconds > 1 {
		for _, s := range []Segment{{Kind: Town, Seconds: 70}, {Kind: LiftOff, Seconds: 20}, {Kind: Idle, Seconds: 30}} {
			s.Seconds = math.Min(s.Seconds, seconds)
			seconds -= s.Seconds
			if s.Seconds > 0 {
				p = append(p, s)
			}
		}
	}
	return p
}

// steady is driving on the highway, with a roll down a hill every ten minutes.
func steady(seconds float64) Pattern {
	var p Pattern
	for seconds > 1 {
		for _, s := range []Segment{{Kind: Highway, Seconds: 570}, {Kind: LiftOff, Seconds: 30}} {
			s.Seconds = math.Min(s.Seconds, seconds)
			seconds -= s.Seconds
			if s.Seconds > 0 {
				p = append(p, s)
			}
		}
	}
	return p
}
