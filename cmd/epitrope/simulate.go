package main

import (
	"encoding/csv"
	"flag"
	"fmt"
	"io"
	"os"
	"strconv"

	"epitrope/core/day"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/rig"
	"epitrope/core/study"
	"epitrope/core/unit"
	"epitrope/internal/track"
)

// runSimulate runs the job in a file through its days.
func runSimulate(args []string, in io.Reader, out io.Writer, o own) error {
	set := flag.NewFlagSet("epitrope simulate FILE", flag.ContinueOnError)
	days := set.String("days", "", "how many `days`, 1 to 28; otherwise as the job says")
	driving := set.String("track", "", "a GPX `file`, or a table of time and speed or rpm, to drive by")
	every := set.Float64("every", 60, "`seconds` between the lines of --csv, 1 to 3600")
	asCSV := set.Bool("csv", false, "print the run as CSV")
	asJSON := set.Bool("json", false, "print the run as JSON")
	asNetlist := set.Bool("netlist", false, "print it as a SPICE netlist through time, where it can be")
	rest, err := parseFlags(set, args, out)
	if err != nil {
		return err
	}
	doc, err := readJob(rest, in)
	if err != nil {
		return err
	}
	if doc, err = withDriving(doc, *days, *driving); err != nil {
		return err
	}
	switch {
	case *every < 1 || *every > 3600:
		return badInput("--every: %g is out of range; allowed are 1 to 3600 s", *every)
	case *asNetlist:
		return printTimeNetlist(out, design.Of(doc, o.book()))
	case *asCSV:
		return printRun(out, design.Of(doc, o.book()), *every)
	}
	t := study.Try(design.Of(doc, o.book()), study.Window{}, nil)
	if *asJSON {
		return printJSON(out, t)
	}
	printTrial(inUnits(out, o.of(doc).Units), t)
	return nil
}

// withDriving puts what the flags say of the driving into the document.
func withDriving(doc job.Document, days, driving string) (job.Document, error) {
	changes := map[string]any{}
	if days != "" {
		changes["day.days"] = days
	}
	if driving != "" {
		file, err := os.Open(driving)
		if err != nil {
			return doc, badInput("--track: %v", err)
		}
		defer file.Close() // it was only read
		got, err := track.File(file)
		if err != nil {
			return doc, badInput("--track: %s: %v", driving, err)
		}
		changes["day.pattern"], changes["day.own"] = job.OwnPattern, got.Pattern.String()
	}
	if len(changes) == 0 {
		return doc, nil
	}
	changed, problems := job.With(doc, changes)
	if len(problems) > 0 {
		return doc, badInput("%s", problems.Error())
	}
	return changed, nil
}

func printTimeNetlist(out io.Writer, d *design.Design) error {
	driving, conditions := rig.Varied(d, rig.Nominal)
	netlist, err := day.Netlist(rig.Of(d, rig.Nominal), driving, conditions, 1)
	if err != nil {
		return badInput("--netlist: %v", err)
	}
	_, err = io.WriteString(out, netlist)
	return err
}

// printRun writes the run at even moments as CSV (RFC 4180).
func printRun(out io.Writer, d *design.Design, every float64) error {
	w := csv.NewWriter(out)
	w.UseCRLF = true
	if err := w.Write(study.TableHead); err != nil {
		return err
	}
	err := study.Table(d, every, func(row []float64) {
		cells := make([]string, len(row))
		for i, v := range row {
			cells[i] = strconv.FormatFloat(unit.Round(v, 3), 'f', -1, 64)
		}
		_ = w.Write(cells) // kept by the writer and seen at Flush
	})
	w.Flush()
	if err == nil {
		err = w.Error()
	}
	return err
}

func printTrial(out io.Writer, t study.Trial) {
	fmt.Fprintf(out, "%s, %s days\n\n", t.Driving, unit.Plain(t.Days, "", 1))
	for _, v := range t.Verdicts {
		fmt.Fprintf(out, "%-8s %s: %s\n", v.Level, v.Label, v.Text)
	}
	fmt.Fprintln(out)
	for _, a := range t.Aims {
		met := "no "
		if a.Met {
			met = "yes"
		}
		fmt.Fprintf(out, "%s  %s\n", met, a.Label)
	}
	fmt.Fprintln(out)
	for _, s := range t.Energy {
		fmt.Fprintf(out, "%8.0f Wh  %s, %s\n", s.Wh, s.Label, s.Kind)
	}
	if t.Stopped != "" {
		fmt.Fprintln(out, "\nstopped: "+t.Stopped)
	}
	fmt.Fprintln(out, "\nLocal codes, the device's own manual and a licensed practitioner's word override this.")
}
