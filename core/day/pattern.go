package day

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"epitrope/core/unit"
)

// Kind is what the vehicle does.
type Kind string

// The kinds of segment.
const (
	Park    Kind = "park"     // everything off
	Lamps   Kind = "lamps"    // parked, headlights on
	Key     Kind = "key"      // ignition on, engine off
	Joined  Kind = "joined"   // parked, batteries joined by hand
	Crank   Kind = "crank"    // the starter turns
	Assist  Kind = "assist"   // … with the batteries joined by hand
	Idle    Kind = "idle"     // the engine runs, the vehicle stands
	Town    Kind = "town"     // stop and go
	Highway Kind = "highway"  // steady
	LiftOff Kind = "lift-off" // the vehicle drives the engine
)

var kinds = []Kind{Park, Lamps, Key, Joined, Crank, Assist, Idle, Town, Highway, LiftOff}

// Engine speeds in rpm where a segment says none. Source: common practice, no source.
const (
	townRPM    = 1900
	highwayRPM = 2400
	liftRPM    = 1800
)

// Runs says whether the engine runs.
func (k Kind) Runs() bool { return k == Idle || k == Town || k == Highway || k == LiftOff }

// live says whether the ignition is on.
func (k Kind) live() bool { return k.Runs() || k == Crank || k == Assist || k == Key }

// held says whether the batteries are joined by hand.
func (k Kind) held() bool { return k == Joined || k == Assist }

// cranks says whether the starter turns.
func (k Kind) cranks() bool { return k == Crank || k == Assist }

// Segment is a stretch of time in which the vehicle does one thing.
type Segment struct {
	Kind    Kind
	Seconds float64
	RPM     float64 // of the engine; 0 takes the usual of its kind
	Own     Own
}

// Own is what holds in a segment alone; nil takes what holds in the whole run.
type Own struct {
	AirC  *float64 // outside
	LoadA *float64 // used off the aux battery
	Sun   *float64 // on the panels, 0 to 1 of full sun
	Mains bool     // plugged in, or its generator runs
}

// rpm is the engine's speed, where it idles at idleRPM.
func (s Segment) rpm(idleRPM float64) float64 {
	switch {
	case !s.Kind.Runs():
		return 0
	case s.RPM > 0:
		return s.RPM
	case s.Kind == Town:
		return townRPM
	case s.Kind == Highway:
		return highwayRPM
	case s.Kind == LiftOff:
		return liftRPM
	}
	return idleRPM
}

// Pattern is what a vehicle does in a day, from six in the morning.
type Pattern []Segment

// Seconds is how long a pattern lasts.
func (p Pattern) Seconds() float64 {
	sum := 0.0
	for _, s := range p {
		sum += s.Seconds
	}
	return sum
}

// Starts says whether the engine ever runs.
func (p Pattern) Starts() bool {
	for _, s := range p {
		if s.Kind.Runs() {
			return true
		}
	}
	return false
}

// The limits of a pattern that is written down.
const (
	MaxSegments = 5000
	MaxDays     = 31.0
	maxRPM      = 8000.0
	coldestC    = -40.0
	hottestC    = 60.0
	mostLoadA   = 400.0
)

// PatternError is text that is no pattern.
type PatternError struct {
	Text string
	Why  string
}

func (e *PatternError) Error() string { return fmt.Sprintf("%q: %s", e.Text, e.Why) }

const patternHint = "write what it does and for how long, such as “park 8 h, crank 2 s, idle 3 min, highway 1h30 @ 2600, park 14 h”"

// ParsePattern reads what a vehicle does, a comma, semicolon or line to a segment: its
// kind, how long, and, where it matters, "@" and the engine's rpm, "air" and the
// temperature outside, "load" and the amps used off the aux battery, "sun" and the share
// of full sun, "mains" where it is plugged in or its generator runs: "park 6 h air 38 °C load 5 A sun 80 % mains".
func ParsePattern(text string) (Pattern, error) {
	var p Pattern
	for _, part := range strings.FieldsFunc(text, func(r rune) bool { return r == ',' || r == ';' || r == '\n' || r == '\r' }) {
		part = strings.TrimSpace(part)
		if part == "" {
			continue
		}
		if len(p) == MaxSegments {
			return nil, &PatternError{clip(part), fmt.Sprintf("too many segments; allowed are %d", MaxSegments)}
		}
		s, err := parseSegment(part)
		if err != nil {
			return nil, err
		}
		p = append(p, s)
	}
	if len(p) == 0 {
		return nil, &PatternError{clip(text), "it is empty; " + patternHint}
	}
	if days := p.Seconds() / daySeconds; days > MaxDays {
		return nil, &PatternError{clip(text), unit.Say("it lasts %.0f days; allowed are up to %.0f", days, MaxDays)}
	}
	return p, nil
}

func parseSegment(text string) (Segment, error) {
	refuse := func(why string) (Segment, error) { return Segment{}, &PatternError{clip(text), why} }
	name, rest, _ := strings.Cut(strings.ToLower(text), " ")
	s := Segment{Kind: Kind(name)}
	known := false
	for _, k := range kinds {
		known = known || k == s.Kind
	}
	if !known {
		return refuse(fmt.Sprintf("%q is not known; allowed are %v; %s", name, kinds, patternHint))
	}
	said, err := phrases(rest)
	if err != nil {
		return refuse(err.Error())
	}
	if s.Seconds, err = parseSeconds(said[""]); err != nil || s.Seconds <= 0 {
		return refuse("how long? write 90 s, 20 min or 1h30")
	}
	if speed, ok := said["@"]; ok {
		s.RPM, err = strconv.ParseFloat(strings.TrimSpace(strings.TrimSuffix(speed, "rpm")), 64)
		if err != nil || !(s.RPM >= 300 && s.RPM <= maxRPM) {
			return refuse(unit.Say("the engine's speed after @ is 300 to %.0f rpm", maxRPM))
		}
		if !s.Kind.Runs() {
			return refuse("the engine does not run, so it has no speed")
		}
	}
	for _, own := range []struct {
		word      string
		into      **float64
		dim       unit.Dimension
		low, high float64
		per       float64
	}{
		{"air", &s.Own.AirC, unit.Temperature, coldestC, hottestC, 1},
		{"load", &s.Own.LoadA, unit.Current, 0, mostLoadA, 1},
		{"sun", &s.Own.Sun, unit.Percent, 0, 100, 100},
	} {
		text, ok := said[own.word]
		if !ok {
			continue
		}
		v, err := own.dim.Parse(text)
		if err != nil || !(v >= own.low && v <= own.high) {
			return refuse(fmt.Sprintf("after %s stands %g to %g %s", own.word, own.low, own.high, own.dim.Base))
		}
		v /= own.per
		*own.into = &v
	}
	_, s.Own.Mains = said["mains"]
	return s, nil
}

// phrases cuts what is said of a segment at its words; how long it is stands under "".
func phrases(text string) (map[string]string, error) {
	said := map[string]string{}
	word := ""
	for _, token := range strings.Fields(strings.ReplaceAll(text, "@", " @ ")) {
		switch token {
		case "mains":
			if _, twice := said[token]; twice {
				return nil, fmt.Errorf("%s stands twice", token)
			}
			said[token] = ""
		case "@", "air", "load", "sun":
			if _, twice := said[token]; twice {
				return nil, fmt.Errorf("%s stands twice", token)
			}
			word = token
			said[word] = ""
		default:
			said[word] = strings.TrimSpace(said[word] + " " + token)
		}
	}
	return said, nil
}

// parseSeconds reads seconds ("90 s") or anything that is hours ("20 min", "1h30").
func parseSeconds(text string) (float64, error) {
	text = strings.TrimSpace(text)
	if number, ok := strings.CutSuffix(text, "s"); ok && !strings.HasSuffix(text, "hrs") && !strings.HasSuffix(text, "hours") &&
		!strings.HasSuffix(text, "mins") && !strings.HasSuffix(text, "minutes") {
		v, err := strconv.ParseFloat(strings.TrimSpace(number), 64)
		if err != nil || math.IsNaN(v) || math.IsInf(v, 0) {
			return 0, fmt.Errorf("%q is not a time", text)
		}
		return v, nil
	}
	hours, err := unit.Hours.Parse(text)
	return hours * 3600, err
}

func clip(s string) string {
	if len(s) <= 60 {
		return s
	}
	return strings.ToValidUTF8(s[:60], "") + "…"
}
