package main

import (
	"flag"
	"fmt"
	"io"
	"os"

	"epitrope/core/alternator"
	"epitrope/internal/instrument"
)

// runClassify judges a logged recording of the start battery's voltage.
func runClassify(args []string, in io.Reader, out io.Writer, _ own) error {
	set := flag.NewFlagSet("epitrope classify FILE", flag.ContinueOnError)
	asJSON := set.Bool("json", false, "print JSON")
	rest, err := parseFlags(set, args, out)
	if err != nil {
		return err
	}
	file, err := openOne(rest, in)
	if err != nil {
		return err
	}
	defer file.Close() // it was only read
	recording, err := instrument.Log(file)
	if err != nil {
		return badInput("%s: %v", rest[0], err)
	}
	j, err := alternator.Classify(recording.Readings)
	if err != nil {
		return badInput("%s: %v", rest[0], err)
	}
	j.Taken = append(append([]string{}, recording.Says...), j.Taken...)
	if *asJSON {
		return printJSON(out, j)
	}
	fmt.Fprintf(out, "%s (%s): %s\n\n", j.Class, j.Sure, j.Why)
	for _, f := range j.Findings {
		fmt.Fprintf(out, "%6.0f to %6.0f s  %s\n", f.FromS, f.ToS, f.Text)
	}
	for _, t := range j.Taken {
		fmt.Fprintln(out, "taken: "+t)
	}
	for _, m := range j.Missing {
		fmt.Fprintln(out, "record: "+m)
	}
	return nil
}

// openOne opens the one file that a command names.
func openOne(names []string, in io.Reader) (io.ReadCloser, error) {
	if len(names) != 1 {
		return nil, badInput("give one FILE, or - for standard input")
	}
	if names[0] == "-" {
		return io.NopCloser(in), nil
	}
	file, err := os.Open(names[0])
	if err != nil {
		return nil, badInput("%v", err)
	}
	return file, nil
}

// mostRead is the largest file that is read whole, in bytes.
const mostRead = 16 << 20

// readOne reads the one file that a command names.
func readOne(names []string, in io.Reader) ([]byte, error) {
	file, err := openOne(names, in)
	if err != nil {
		return nil, err
	}
	defer file.Close() // it was only read
	data, err := io.ReadAll(io.LimitReader(file, mostRead+1))
	switch {
	case err != nil:
		return nil, badInput("%v", err)
	case len(data) > mostRead:
		return nil, badInput("%s is larger than %d MB", names[0], mostRead>>20)
	}
	return data, nil
}

// runLog prints a simulated recording.
func runLog(args []string, _ io.Reader, out io.Writer, _ own) error {
	set := flag.NewFlagSet("epitrope log KIND", flag.ContinueOnError)
	rest, err := parseFlags(set, args, out)
	if err != nil {
		return err
	}
	if len(rest) != 1 {
		for _, s := range instrument.Simulations {
			fmt.Fprintf(out, "%-18s %s\n", s.ID, s.Says)
		}
		return badInput("give one KIND of these")
	}
	s, err := instrument.SimulationByID(rest[0])
	if err != nil {
		return badInput("%v", err)
	}
	_, err = io.WriteString(out, s.Write())
	return err
}
