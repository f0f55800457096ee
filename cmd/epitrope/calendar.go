package main

import (
	"flag"
	"io"
	"time"

	"epitrope/internal/export"
)

// runCalendar prints a job's dates as iCalendar.
func runCalendar(args []string, in io.Reader, out io.Writer, _ own) error {
	set := flag.NewFlagSet("epitrope calendar FILE", flag.ContinueOnError)
	rest, err := parseFlags(set, args, out)
	if err != nil {
		return err
	}
	doc, err := readJob(rest, in)
	if err != nil {
		return err
	}
	_, err = out.Write(export.Calendar(export.Events(doc.Digest(), 0, time.Now(), doc, nil)))
	return err
}
