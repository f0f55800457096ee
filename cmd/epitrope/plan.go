package main

import (
	"cmp"
	"flag"
	"fmt"
	"io"
	"strings"

	"epitrope/core/job"
	"epitrope/core/plan"
)

// runPlan plans the job in a file.
func runPlan(args []string, in io.Reader, out io.Writer, o own) error {
	set := flag.NewFlagSet("epitrope plan FILE", flag.ContinueOnError)
	asJSON := set.Bool("json", false, "print JSON")
	rest, err := parseFlags(set, args, out)
	if err != nil {
		return err
	}
	doc, err := readJob(rest, in)
	if err != nil {
		return err
	}
	p := plan.Decide(doc, o.book())
	if *asJSON {
		return printJSON(out, p)
	}
	printPlan(inUnits(out, o.of(doc).Units), p)
	return nil
}

// readJob reads the one job that a command names.
func readJob(names []string, in io.Reader) (job.Document, error) {
	if len(names) != 1 {
		return job.New(), badInput("give one FILE, or - for standard input")
	}
	data, err := readDocument(names[0], in)
	if err != nil {
		return job.New(), err
	}
	doc, problems := job.Open(data)
	if len(problems) > 0 {
		return doc, badInput("%s\n%s", names[0], problems.Error())
	}
	return doc, nil
}

// readDocument reads a little more than a document may have, so that a larger
// file is refused without being read whole.
func readDocument(name string, in io.Reader) ([]byte, error) {
	file, err := openOne([]string{name}, in)
	if err != nil {
		return nil, err
	}
	defer file.Close() // it was only read
	return io.ReadAll(io.LimitReader(file, job.MaxBytes+1))
}

func printPlan(out io.Writer, p plan.Plan) {
	fmt.Fprintln(out, p.Summary)
	fmt.Fprintln(out)
	for _, c := range p.Columns {
		if c.Part.Assumed {
			c.Part.Text += " *"
		}
		fmt.Fprintf(out, "%-14s %-20s carries %-18s loses %-14s gets to %s\n", c.Name, c.Part.Text, c.Carries.Text, c.Loses.Text,
			c.Heat.Text)
	}
	fmt.Fprintln(out)
	for _, s := range p.States {
		worst := ""
		if s.Worst {
			worst = " (worst)"
		}
		fmt.Fprintf(out, "%s%s: %.2f V at the coupling, %.2f V at the aux battery; %s\n", s.Label, worst, s.InV, s.AuxV, cmp.Or(s.Fails,
			s.Says))
	}
	fmt.Fprintln(out)
	for i, n := range p.Notes {
		fmt.Fprintf(out, "%d %s: %s %s\n", i+1, n.Severity, n.Text, n.Why)
	}
	if len(p.StandIns) > 0 {
		fmt.Fprintf(out, "* Stands in for what nobody answered: %s\n", strings.Join(p.StandIns, "; "))
	}
	for _, t := range p.Title {
		fmt.Fprintf(out, "%s: %s\n", t.Label, t.Text)
	}
	for _, c := range p.Cautions {
		fmt.Fprintln(out, c)
	}
}
