package main

import (
	"cmp"
	"flag"
	"fmt"
	"io"
	"strings"

	"epitrope/core/design"
	"epitrope/core/study"
)

// runShelf holds the chargers of a file of parts against the job in a file.
func runShelf(args []string, in io.Reader, out io.Writer, o own) error {
	set := flag.NewFlagSet("epitrope shelf --book PARTS FILE", flag.ContinueOnError)
	book := set.String("book", "", "a file of the workshop's parts, as the parts book is exported")
	asJSON := set.Bool("json", false, "print JSON")
	rest, err := parseFlags(set, args, out)
	if err != nil {
		return err
	}
	if *book == "" {
		return badInput("--book is missing; allowed is a file of parts, as the parts book is exported")
	}
	items, err := readBook(*book, in)
	if err != nil {
		return err
	}
	doc, err := readJob(rest, in)
	if err != nil {
		return err
	}
	shelf := study.ShelfOf(design.Of(doc, o.book()), items, nil)
	if *asJSON {
		return printJSON(out, shelf)
	}
	out = inUnits(out, o.of(doc).Units)
	for _, s := range shelf.Chargers {
		fmt.Fprintf(out, "%s: %s; against it: %s; its card does not say: %s; %s\n", s.Item.Name, s.Sizing.Level,
			listed(s.Sizing.Against), listed(s.Unsaid), cmp.Or(s.Comes, "not counted"))
	}
	for _, p := range shelf.Others {
		fmt.Fprintf(out, "%s %s: %s; %s; against it: %s; its card does not say: %s; %s\n", p.Item.Kind, p.Item.Name, p.Level,
			cmp.Or(p.Does, "not reckoned"), listed(p.Against), listed(p.Unsaid), cmp.Or(p.Comes, "not counted"))
	}
	if shelf.Left > 0 {
		fmt.Fprintf(out, "%d more were not looked at: there are too many.\n", shelf.Left)
	}
	return nil
}

func listed(list []string) string {
	if len(list) == 0 {
		return "nothing"
	}
	return strings.Join(list, "; ")
}
