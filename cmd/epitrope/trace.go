package main

import (
	"flag"
	"fmt"
	"io"
	"strings"

	"epitrope/core/design"
	"epitrope/core/fault"
	"epitrope/core/prove"
	"epitrope/core/retrofit"
	"epitrope/core/trace"
	"epitrope/core/unit"
	"epitrope/internal/answers"
	"epitrope/internal/instrument"
)

// runTrace prints what may be wrong with the installation in a file, and which test tells most.
func runTrace(args []string, in io.Reader, out io.Writer, o own) error {
	set := flag.NewFlagSet("epitrope trace FILE", flag.ContinueOnError)
	file := set.String("evidence", "", "a file with what was complained of, read, looked at and mended, as JSON")
	symptoms := set.Bool("symptoms", false, "print what may be complained of, and end")
	places := set.Bool("faults", false, "print the faults that it may have and where, and end")
	readings := set.Bool("readings", false, "print the readings that may be taken, and end")
	found := set.Bool("found", false, "as it was found, not as it is designed or built")
	baseline := set.String("baseline", "", "a file of readings, taken when nothing was wrong, such as a proof's")
	asJSON := set.Bool("json", false, "print JSON")
	rest, err := parseFlags(set, args, out)
	if err != nil {
		return err
	}
	if *symptoms {
		for _, s := range trace.Symptoms() {
			fmt.Fprintf(out, "%s: %s\n", s.ID, s.Says)
		}
		return nil
	}
	doc, err := readJob(rest, in)
	if err != nil {
		return err
	}
	doc, missing := answers.Installed(doc, *found)
	d := design.Of(doc, o.book())
	t := trace.Of(d)
	said := inUnits(out, o.of(doc).Units)
	switch {
	case *places:
		for _, f := range fault.Of(d) {
			fmt.Fprintf(said, "%s, at %s: %s\n", f.ID, f.At, f.Says)
		}
		return nil
	case *readings:
		for _, r := range t.Readings() {
			fmt.Fprintf(said, "%s, %s: %s\n", r.ID, r.Station, r.What)
		}
		return nil
	}
	e := trace.Evidence{Format: trace.Format, Version: trace.Version}
	if *file != "" {
		data, err := readOne([]string{*file}, in)
		if err != nil {
			return err
		}
		if e, err = trace.Decode(data); err != nil {
			return badInput("%s: %v", *file, err)
		}
	}
	if *baseline != "" {
		data, err := readOne([]string{*baseline}, in)
		if err != nil {
			return err
		}
		if e.Baseline, err = instrument.Entries(data, prove.Wider(d), ""); err != nil {
			return badInput("%s: %v", *baseline, err)
		}
	}
	b := t.Believe(e)
	if *asJSON {
		return printJSON(out, b)
	}
	for _, p := range b.Problems {
		return badInput("%s: %v", *file, p)
	}
	if *found {
		fmt.Fprintf(said, "as it was found: %s\n", retrofit.InALine(d))
		for _, m := range missing {
			fmt.Fprintf(said, "not known, so taken as the plan has it: %s\n", m)
		}
	}
	printBelief(said, b)
	return nil
}

func printBelief(out io.Writer, b trace.Belief) {
	for _, s := range b.Suspects {
		fmt.Fprintf(out, "%s %s: %s\n", trace.Share(s.Share), s.ID, strings.Join(append([]string{s.Says}, s.Or...), "; or "))
		if s.Endangers != "" {
			fmt.Fprintf(out, "  danger: %s\n", s.Endangers)
		}
	}
	fmt.Fprintf(out, "%s nothing is wrong\n%s something that is not known here\n", trace.Share(b.Sound), trace.Share(b.None))
	for _, id := range b.Doubted {
		fmt.Fprintf(out, "doubtful: %s does not go with the rest: take it again\n", id)
	}
	for _, s := range b.Suspects {
		if s.ID == b.Found {
			fmt.Fprintf(out, "mend first: %s: %s\n", s.Says, s.Mend)
		}
		if s.ID == b.Act {
			fmt.Fprintf(out, "look now: %s. %s.\n", s.Look, unit.Capital(s.Mend))
		}
	}
	for k, n := range b.Next {
		word := "next"
		if k > 0 {
			word = "or"
		}
		what := n.What + ", " + n.Where
		if n.Swap {
			what = "try " + what
		}
		if n.ID == trace.Warmth {
			what = "feel " + what
		} else if n.Look {
			what = "look at " + what
		}
		if n.Again {
			what = "once more, as it may have been a slip: " + what
		}
		fmt.Fprintf(out, "%s: %s: %s (about %s)\n", word, n.ID, what, unit.Text(n.Minutes, "min", 0))
		if len(n.Setup) > 0 {
			fmt.Fprintf(out, "  %s\n", strings.Join(n.Setup, "; "))
		}
		if n.Live != "" {
			fmt.Fprintf(out, "  %s\n", n.Live)
		}
		for _, m := range n.Means {
			points := strings.Join(m.Points, "; or ")
			if points == "" {
				points = "tells little by itself"
			}
			fmt.Fprintf(out, "  %s: %s\n", m.Says, points)
		}
	}
}
