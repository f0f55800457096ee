package main

import (
	"encoding/json"
	"flag"
	"io"
	"maps"
	"slices"
	"strings"
	"time"

	"epitrope/core/design"
	"epitrope/core/parts"
	"epitrope/internal/export"
	"epitrope/internal/workshop"
)

// made are what a job's pack is printed as, by name.
var made = map[string]func(p export.Pack) ([]byte, error){
	"wires":   func(p export.Pack) ([]byte, error) { return export.WiresCSV(p.Leads), nil },
	"cuts":    func(p export.Pack) ([]byte, error) { return export.CutsCSV(p.Cuts), nil },
	"parts":   func(p export.Pack) ([]byte, error) { return export.PartsCSV(p.Parts), nil },
	"drawing": func(p export.Pack) ([]byte, error) { return export.SVG(p.Drawing, p.Document.Title), nil },
	"steps":   func(p export.Pack) ([]byte, error) { return json.MarshalIndent(p.Steps, "", "  ") },
	"pack":    export.PDF,
}

// runMake prints what a job takes to make.
func runMake(args []string, in io.Reader, out io.Writer) error {
	set := flag.NewFlagSet("epitrope make FILE", flag.ContinueOnError)
	names := strings.Join(slices.Sorted(maps.Keys(made)), ", ")
	what := set.String("what", "wires", "one of "+names)
	paper := set.String("paper", "A4", "of a pack: A4 or Letter")
	bench := set.Bool("bench", false, "a pack for the bench: without what it stands on and the workings")
	book := set.String("book", "", "a file of the workshop's parts, with prices and stock")
	rest, err := parseFlags(set, args, out)
	if err != nil {
		return err
	}
	write, ok := made[*what]
	switch {
	case !ok:
		return badInput("--what %q is not known; allowed are %s", *what, names)
	case *paper != "A4" && *paper != "Letter":
		return badInput("--paper %q is not known; allowed are A4 and Letter", *paper)
	}
	doc, err := readJob(rest, in)
	if err != nil {
		return err
	}
	var own export.Workshop
	if *book != "" {
		if own.Parts, err = readBook(*book, in); err != nil {
			return err
		}
	}
	p := export.NewPack(design.Of(doc, parts.Stock()), own)
	p.Paper, p.Bench, p.Dated = *paper, *bench, time.Now()
	data, err := write(p)
	if err != nil {
		return err
	}
	_, err = out.Write(data)
	return err
}

// readBook reads a file of the workshop's parts, in which every line can be used.
func readBook(name string, in io.Reader) ([]parts.Item, error) {
	data, err := readOne([]string{name}, in)
	if err != nil {
		return nil, err
	}
	file, err := workshop.ReadParts(data, time.Now().UTC().Format(time.DateOnly))
	if err != nil {
		return nil, badInput("%s: %v", name, err)
	}
	if len(file.Problems) > 0 {
		return nil, badInput("%s: %s", name, file.Problems[0])
	}
	return file.Items, nil
}
