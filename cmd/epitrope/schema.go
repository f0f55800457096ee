package main

import (
	"flag"
	"io"

	"epitrope/internal/schema"
)

// runSchema prints a published JSON Schema.
func runSchema(args []string, _ io.Reader, out io.Writer, _ own) error {
	set := flag.NewFlagSet("epitrope schema job|plan", flag.ContinueOnError)
	set.Bool("json", true, "print JSON, as always")
	rest, err := parseFlags(set, args, out)
	if err != nil {
		return err
	}
	if len(rest) != 1 {
		return badInput("give one of job, plan")
	}
	s, err := schema.Named(rest[0])
	if err != nil {
		return &inputError{err.Error()}
	}
	return printJSON(out, s)
}
