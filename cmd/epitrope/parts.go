package main

import (
	"flag"
	"fmt"
	"io"
	"strings"
	"time"

	"epitrope/internal/workshop"
)

// runParts checks a file of parts before it is read into the book.
func runParts(args []string, in io.Reader, out io.Writer, _ own) error {
	set := flag.NewFlagSet("epitrope parts FILE.csv", flag.ContinueOnError)
	asJSON := set.Bool("json", false, "print JSON")
	rest, err := parseFlags(set, args, out)
	if err != nil {
		return err
	}
	data, err := readOne(rest, in)
	if err != nil {
		return err
	}
	file, err := workshop.ReadParts(data, time.Now().UTC().Format(time.DateOnly))
	if err != nil {
		return badInput("%s: %v", rest[0], err)
	}
	if *asJSON {
		if err := printJSON(out, file.Items); err != nil {
			return err
		}
	} else {
		fmt.Fprintf(out, "parts that can be used: %d\n", len(file.Items))
	}
	if len(file.Problems) == 0 {
		return nil
	}
	said := make([]string, len(file.Problems))
	for i, p := range file.Problems {
		said[i] = p.String()
	}
	return badInput("%s: %s", rest[0], strings.Join(said, "\n"))
}
