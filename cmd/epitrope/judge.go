package main

import (
	"flag"
	"fmt"
	"io"
	"strings"

	"epitrope/core/design"
	"epitrope/core/modes"
	"epitrope/core/study"
)

// judging is a command that judges the job in a file: what it gives as JSON, and how it
// is printed.
func judging(name string, args []string, out io.Writer, of func(names []string) (any, func(), error)) error {
	set := flag.NewFlagSet("epitrope "+name+" FILE", flag.ContinueOnError)
	asJSON := set.Bool("json", false, "print JSON")
	rest, err := parseFlags(set, args, out)
	if err != nil {
		return err
	}
	value, print, err := of(rest)
	if err != nil {
		return err
	}
	if *asJSON {
		return printJSON(out, value)
	}
	print()
	return nil
}

// runMethods holds every coupling against the job in a file.
func runMethods(args []string, in io.Reader, out io.Writer, o own) error {
	return judging("methods", args, out, func(names []string) (any, func(), error) {
		doc, err := readJob(names, in)
		if err != nil {
			return nil, nil, err
		}
		list := study.Methods(design.Of(doc, o.book()))
		return list, func() {
			out := inUnits(out, o.of(doc).Units)
			for _, m := range list {
				fmt.Fprintf(out, "%s: %s; early in bulk %.0f A at %.1f V, idle %.0f A; 80 %% after %s, full after %s; "+
					"%.1f h of work, %.1f × a 30 A charger\n",
					m.Method.Label, standing(m), m.Early.Amps, m.Early.Volts, m.Idle.Amps, hoursOr(m.To80H), hoursOr(m.FullH), m.Work.Hours,
					m.Bill.Cost/100)
				for _, r := range m.Method.Reasons {
					fmt.Fprintf(out, "  %s (%s): %s %s\n", r.Effect, r.ID, r.Text, r.Unless)
				}
				fmt.Fprintf(out, "  signal dead: %s. Left live: %s.\n", m.Fails.Dead, m.Fails.Live)
			}
		}, nil
	})
}

func standing(m study.Method) string {
	switch {
	case m.Method.RuledOut:
		return "ruled out"
	case m.Method.Chosen:
		return "best for this job"
	}
	return "possible"
}

func hoursOr(h float64) string {
	if h < 0 {
		return "never"
	}
	return fmt.Sprintf("%.1f h", h)
}

// runModes prints the mode table and the live map of the job in a file.
func runModes(args []string, in io.Reader, out io.Writer, o own) error {
	return judging("modes", args, out, func(names []string) (any, func(), error) {
		doc, err := readJob(names, in)
		if err != nil {
			return nil, nil, err
		}
		m := modes.Of(design.Of(doc, o.book()))
		return m, func() {
			out := inUnits(out, o.of(doc).Units)
			for _, r := range m.Rows {
				fmt.Fprintf(out, "%s, key %s, engine %s, sun %s, mains %s: %s, lamp %s. %s", r.Switch, r.Key, r.Engine, r.Sun, r.Mains,
					r.Verdict, r.Lamp, r.Why)
				if r.Interlock != "" {
					fmt.Fprintf(out, " Prevented by: %s", r.Interlock)
				}
				fmt.Fprintln(out)
			}
			for _, r := range m.Live {
				live := make([]string, len(r.Live))
				for i, w := range r.Live {
					live[i] = w.Wire + " from the " + strings.Join(w.From, " and ")
				}
				fmt.Fprintf(out, "%s: still live %s\n", r.Off, strings.Join(live, ", "))
			}
			for _, r := range m.Work {
				fmt.Fprintf(out, "to work on %s: %s\n", r.Place, strings.Join(r.Open, "; "))
			}
		}, nil
	})
}

// runFound judges what was found on the job in a file.
func runFound(args []string, in io.Reader, out io.Writer, o own) error {
	return judging("found", args, out, func(names []string) (any, func(), error) {
		doc, err := readJob(names, in)
		if err != nil {
			return nil, nil, err
		}
		r := study.RetrofitOf(design.Of(doc, o.book()), nil)
		return r, func() {
			out := inUnits(out, o.of(doc).Units)
			for _, w := range r.Wires {
				fmt.Fprintf(out, "%s (%s): %s, %s\n", w.Name, w.Key, w.Fate, w.Why)
				for _, f := range w.Findings {
					fmt.Fprintf(out, "  %s: %s\n", f.Level, f.Text)
				}
			}
			for _, g := range r.Gear {
				fmt.Fprintf(out, "%s (%s): %s, %s\n", g.Name, g.Key, g.Fate, g.Why)
			}
			for _, m := range r.Missing {
				fmt.Fprintln(out, "missing: "+m)
			}
			if r.Before != nil {
				fmt.Fprintf(out, "as found: %s, %.0f A early in bulk; new: %s, %.0f A\n", r.Before.Coupling, r.Before.Early.Amps,
					r.After.Coupling,
					r.After.Early.Amps)
			}
			if r.Bypass != nil {
				fmt.Fprintln(out, "bypass: "+r.Bypass.Says)
				for _, a := range r.Bypass.Against {
					fmt.Fprintln(out, "  against: "+a)
				}
			}
		}, nil
	})
}
