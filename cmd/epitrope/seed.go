package main

import (
	"context"
	"errors"
	"flag"
	"fmt"
	"io"
	"io/fs"
	"os"
	"time"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/internal/listing"
	"epitrope/internal/pack"
	"epitrope/internal/store"
	"epitrope/internal/workshop"
	"epitrope/testdata"
)

// runSeed puts the demo jobs into a database that has none.
func runSeed(args []string, _ io.Reader, out io.Writer, o own) error {
	set := flag.NewFlagSet("epitrope seed", flag.ContinueOnError)
	database := databaseFlag(set)
	only := set.Bool("people", false, "put in the demo's people alone, and no job")
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
	staff, err := seedPeople(ctx, s)
	if err != nil {
		return err
	}
	if there, _, err := s.List(ctx, "", store.Filter{}, store.Page{}); err != nil || len(there) > 0 || *only {
		if err == nil {
			fmt.Fprintln(out, "the demo's people are there, and no job was seeded: there are some already, or none was asked for")
		}
		return err
	}
	s = s.As(staff[demoOwner])
	if err := seedBooks(ctx, s); err != nil {
		return err
	}
	own, err := listing.Workshop(ctx, s)
	if err != nil {
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
		doc = onDay(doc, time.Now())
		d := design.Of(doc, o.book())
		l := listing.Of(doc, func() *design.Design { return d }, func() pack.Workshop { return own })
		j, err := s.As(staff[demoDesigner]).Create(ctx, name, store.Draft{Document: doc, Listing: l})
		if err == nil && name == provenDemo {
			err = errors.Join(seedProof(ctx, s, staff, j, d), seedTalk(ctx, s, staff, j))
		}
		if happens := demoLife[name]; err == nil && happens != nil {
			j.Vehicle = l.Vehicle
			err = happens(ctx, s, staff, demoJob{j, d, own})
		}
		if err != nil {
			return err
		}
	}
	if err := seedInstruments(ctx, s); err != nil {
		return err
	}
	fmt.Fprintf(out, "%d demo jobs seeded\n", len(names))
	return nil
}

// seedBooks puts the demo workshop's books in.
func seedBooks(ctx context.Context, s *store.Store) error {
	data, err := fs.ReadFile(testdata.Demo, "demo/parts.csv")
	if err != nil {
		return err
	}
	book, err := workshop.ReadParts(data, "")
	if err != nil || len(book.Problems) > 0 {
		return fmt.Errorf("parts.csv: %w, %v", err, book.Problems)
	}
	if err := s.PutParts(ctx, book.Items); err != nil {
		return err
	}
	if data, err = fs.ReadFile(testdata.Demo, "demo/vehicles.csv"); err != nil {
		return err
	}
	models, err := workshop.ReadVehicles(data)
	if err != nil || len(models.Problems) > 0 {
		return fmt.Errorf("vehicles.csv: %w, %v", err, models.Problems)
	}
	for _, m := range models.Models {
		if err := s.PutFinds(ctx, []string{m.Name}, []job.Document{m.Document}); err != nil {
			return err
		}
	}
	return nil
}
