package main

import (
	"context"
	"flag"
	"fmt"
	"io"
	"io/fs"
	"os"

	"epitrope/core/job"
	"epitrope/testdata"
)

// runSeed puts the demo jobs into a database that has none.
func runSeed(args []string, _ io.Reader, out io.Writer) error {
	set := flag.NewFlagSet("epitrope seed", flag.ContinueOnError)
	database := databaseFlag(set)
	if err := noArguments(set, args, out); err != nil {
		return err
	}
	logTo(os.Stderr)
	ctx := context.Background()
	s, err := openStore(ctx, *database)
	if err != nil {
		return err
	}
	defer s.Close()
	if there, err := s.List(ctx); err != nil || len(there) > 0 {
		if err == nil {
			fmt.Fprintf(out, "%d jobs are there already: nothing seeded\n", len(there))
		}
		return err
	}
	names, err := fs.Glob(testdata.Demo, "demo/*.json")
	if err != nil {
		return err
	}
	for _, name := range names {
		data, err := fs.ReadFile(testdata.Demo, name)
		if err != nil {
			return err
		}
		doc, problems := job.Decode(data)
		if len(problems) > 0 {
			return fmt.Errorf("%s: %w", name, problems)
		}
		if _, err := s.Create(ctx, doc); err != nil {
			return err
		}
	}
	fmt.Fprintf(out, "%d demo jobs seeded\n", len(names))
	return nil
}
