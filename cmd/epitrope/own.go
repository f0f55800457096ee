package main

import (
	"bytes"
	"io"
	"strings"

	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/unit"
	"epitrope/internal/settings"
)

// own is how a workshop wants things, as the command line was told.
type own struct {
	settings.Preferences
	inUnits bool // its units were named, and go before a job's own
}

// ownOf takes --units and --settings out of a command's arguments.
func ownOf(args []string, in io.Reader) (own, []string, error) {
	o, rest := own{Preferences: settings.Usual()}, []string{}
	units := ""
	for i := 0; i < len(args); i++ {
		name, value, inline := strings.Cut(strings.TrimLeft(args[i], "-"), "=")
		if !strings.HasPrefix(args[i], "-") || name != "units" && name != "settings" {
			rest = append(rest, args[i])
			continue
		}
		if !inline {
			if i++; i == len(args) {
				return o, nil, badInput("a value is missing for --%s", name)
			}
			value = args[i]
		}
		if name == "units" {
			units, o.inUnits = value, true
			continue
		}
		data, err := readOne([]string{value}, in)
		if err != nil {
			return o, nil, err
		}
		if o.Preferences, err = settings.ReadSettings(data); err != nil {
			return o, nil, badInput("%s: %v", value, err)
		}
	}
	if o.inUnits {
		var err error
		if o.Units, err = unit.ParseUnits(units); err != nil {
			return o, nil, badInput("--units: %v", err)
		}
	}
	return o, rest, nil
}

// of are the settings for a job.
func (o own) of(doc job.Document) settings.Preferences {
	s := o.Of(doc)
	if o.inUnits {
		s.Units = o.Units
	}
	return s
}

// book are the stock parts, with the workshop's own answers.
func (o own) book() parts.Book {
	b := parts.Stock()
	b.Habits = o.Stands()
	return b
}

// words print in units: whole lines at a time.
type words struct {
	out   io.Writer
	units unit.Units
	begun bytes.Buffer
}

// inUnits prints in a system's units.
func inUnits(out io.Writer, units unit.Units) io.Writer { return &words{out: out, units: units} }

func (w *words) Write(p []byte) (int, error) {
	w.begun.Write(p)
	end := bytes.LastIndexByte(w.begun.Bytes(), '\n') + 1
	_, err := io.WriteString(w.out, w.units.Say(string(w.begun.Next(end))))
	return len(p), err
}
