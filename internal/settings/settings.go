// Package settings is what a workshop prefers: units, habits, paper, dates, its instruments. They are kept once, and hold for every sheet,
// file and pack of it.
package settings

import (
	"bytes"
	"encoding/json"
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"
	"time"

	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/unit"
)

// Preferences are a workshop's settings: they are kept once and hold for every sheet, file and pack of a workshop. None of them changes
// what is stored of a job.
type Preferences struct {
	Units  unit.Units   `json:"units"`
	Habits parts.Habits `json:"habits" doc:"Its own answers, where a job has none"`

	Currency   string  `json:"currency" maxLength:"3" doc:"ISO 4217; empty: not said"`
	HourlyRate float64 `json:"hourlyRate" doc:"What an hour of work is charged at, in that currency; 0: not said"`
	Paper      string  `json:"paper" enum:"A4,Letter"`
	WeekStarts string  `json:"weekStarts" enum:"monday,sunday,saturday"`
	Meters     []Meter `json:"meters,omitempty" maxItems:"20" doc:"The instruments that may be read: nothing else is reached from the server"`

	Dates string `json:"dates" enum:"2 Jan 2006,02/01/2006,01/02/2006,2006-01-02" doc:"As the second of January 2006 is written"`
}

// maxRate is far above what anybody charges for an hour, in any currency.
const maxRate = 1e7

// Usual are the settings of a workshop that has not chosen.
func Usual() Preferences {
	return Preferences{Units: unit.Metric, Paper: "A4", WeekStarts: "monday", Dates: "2 Jan 2006"}
}

// Choices of a workshop, as they are stored.
var (
	papers   = []string{"A4", "Letter"}
	weekdays = []string{"monday", "sunday", "saturday"}
	dates    = []string{"2 Jan 2006", "02/01/2006", "01/02/2006", time.DateOnly}
)

// Check names what cannot be used.
func (s Preferences) Check() job.Problems {
	var p job.Problems
	one := func(field, value string, of ...string) {
		if !slices.Contains(of, value) {
			p = append(p, job.Problem{Field: field, Value: value, Wrong: "is not known", Allowed: "one of " + strings.Join(of, ", ")})
		}
	}
	one("units.area", s.Units.Area, "mm2", "awg", "auto")
	one("units.length", s.Units.Length, "m", "ft")
	one("units.temperature", s.Units.Temperature, "C", "F")
	one("units.torque", s.Units.Torque, "Nm", "lbft")
	one("paper", s.Paper, papers...)
	one("weekStarts", s.WeekStarts, weekdays...)
	one("dates", s.Dates, dates...)
	if s.Currency != "" && !parts.IsCurrency(s.Currency) {
		p = append(p, job.Problem{Field: "currency", Value: s.Currency, Wrong: "is not a currency",
			Allowed: "three capital letters, ISO 4217, such as EUR; or empty"})
	}
	if !(s.HourlyRate >= 0 && s.HourlyRate <= maxRate) || math.IsNaN(s.HourlyRate) {
		p = append(p, job.Problem{Field: "hourlyRate", Value: fmt.Sprint(s.HourlyRate), Wrong: "is out of range",
			Allowed: fmt.Sprintf("0 to %.0f", maxRate)})
	}
	p = append(p, checkMeters(s.Meters)...)
	return append(p, job.CheckHabits(s.Habits)...)
}

// mostMeters are how many instruments a workshop may list.
const mostMeters = 20

// checkMeters names what cannot be used of the instruments.
func checkMeters(list []Meter) (p job.Problems) {
	if len(list) > mostMeters {
		p = append(p, job.Problem{Field: "meters", Value: fmt.Sprint(len(list)), Wrong: "are too many", Allowed: fmt.Sprintf("up to %d",
			mostMeters)})
	}
	names := map[string]bool{}
	for i, m := range list {
		field := fmt.Sprintf("meters.%d.", i+1)
		refuse := func(of, value, wrong, allowed string) {
			p = append(p, job.Problem{Field: field + of, Value: value, Wrong: wrong, Allowed: allowed})
		}
		if n := len([]rune(strings.TrimSpace(m.Name))); n == 0 || n > 60 || names[m.Name] {
			refuse("name", m.Name, "is empty, too long or there twice", "1 to 60 characters, each name once")
		}
		names[m.Name] = true
		host, port := m.at()
		if number, wrong := strconv.Atoi(port); host == "" || wrong != nil || number < 1 || number > 65535 || len(m.Address) > 100 {
			refuse("address", m.Address, "is no address of an instrument", "host and port, such as 192.168.1.40:5025")
		}
		if m.Speaks != SCPI && m.Speaks != TelemetryOut {
			refuse("speaks", string(m.Speaks), "is not known", "scpi or telemetry")
		}
	}
	return p
}

// ReadSettings reads settings from a file; what it does not say is as usual.
func ReadSettings(data []byte) (Preferences, error) {
	s := Usual()
	decoder := json.NewDecoder(bytes.NewReader(data))
	decoder.DisallowUnknownFields()
	if err := decoder.Decode(&s); err != nil {
		return Usual(), fmt.Errorf("the settings cannot be read: %w", err)
	}
	if decoder.More() {
		return Usual(), fmt.Errorf("the settings go on after their end")
	}
	if problems := s.Check(); len(problems) > 0 {
		return Usual(), problems
	}
	return s, nil
}

// Stands are the answers that stand in every job that has none: where no reels are named, they are those that the
// workshop names areas by.
func (s Preferences) Stands() parts.Habits {
	h := s.Habits
	if h.System == "" && s.Units.Area != "mm2" {
		h.System = s.Units.Area
	}
	return h
}

// Of are the settings for a job, which may be written otherwise than the workshop's.
func (s Preferences) Of(doc job.Document) Preferences {
	if text := doc.Written.Units; text != nil {
		if units, err := unit.ParseUnits(*text); err == nil {
			s.Units = units
		}
	}
	if paper := doc.Written.Paper; paper != nil {
		s.Paper = *paper
	}
	return s
}

// Or are the settings, or others where there are none.
func (s Preferences) Or(others Preferences) Preferences {
	if s.Paper == "" {
		return others
	}
	return s
}
