package main

import (
	"cmp"
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
	"epitrope/internal/pack"
	"epitrope/internal/said"
	"epitrope/internal/workshop"
)

// made are what a job's pack is printed as, by name.
var made = map[string]func(p pack.Pack, stock export.Stock) ([]byte, error){
	"wires": func(p pack.Pack, _ export.Stock) ([]byte, error) { return export.WiresCSV(p.Leads, p.Units), nil },
	"cuts":  func(p pack.Pack, _ export.Stock) ([]byte, error) { return export.CutsCSV(p.Cuts, p.Units), nil },
	"parts": func(p pack.Pack, _ export.Stock) ([]byte, error) { return export.PartsCSV(p.Parts, p.Units), nil },
	"drawing": func(p pack.Pack, _ export.Stock) ([]byte, error) {
		return export.SVG(p.Drawing, p.Document.Title, p.Units), nil
	},
	"steps": func(p pack.Pack, _ export.Stock) ([]byte, error) {
		steps, err := json.MarshalIndent(p.Steps, "", "  ")
		return said.JSON(steps, p.Units), err
	},
	"pack":        func(p pack.Pack, _ export.Stock) ([]byte, error) { return export.PDF(p) },
	"wire-labels": func(p pack.Pack, s export.Stock) ([]byte, error) { return export.LabelsPDF(p, export.WireLabels, s, 0) },
	"fuse-labels": func(p pack.Pack, s export.Stock) ([]byte, error) { return export.LabelsPDF(p, export.FuseLabels, s, 0) },
	"owner-label": func(p pack.Pack, s export.Stock) ([]byte, error) { return export.LabelsPDF(p, export.OwnerLabel, s, 0) },
}

// stocks are the ids of label stock.
func stocks() string {
	var ids []string
	for _, s := range export.Stocks {
		ids = append(ids, s.ID)
	}
	return strings.Join(ids, ", ")
}

// runMake prints what a job takes to make.
func runMake(args []string, in io.Reader, out io.Writer, o own) error {
	set := flag.NewFlagSet("epitrope make FILE", flag.ContinueOnError)
	names := strings.Join(slices.Sorted(maps.Keys(made)), ", ")
	what := set.String("what", "wires", "one of "+names)
	paper := set.String("paper", "", "of a pack: A4 or Letter; otherwise the job's or the settings'")
	stock := set.String("stock", export.Stocks[0].ID, "of labels: one of "+stocks())
	bench := set.Bool("bench", false, "a pack for the bench: without what it stands on and the workings")
	book := set.String("book", "", "a file of the workshop's parts, with prices and stock")
	rest, err := parseFlags(set, args, out)
	if err != nil {
		return err
	}
	write, ok := made[*what]
	labels, known := export.StockNamed(*stock)
	switch {
	case !known:
		return badInput("--stock %q is not known; allowed are %s", *stock, stocks())
	case !ok:
		return badInput("--what %q is not known; allowed are %s", *what, names)
	case *paper != "" && *paper != "A4" && *paper != "Letter":
		return badInput("--paper %q is not known; allowed are A4 and Letter", *paper)
	}
	doc, err := readJob(rest, in)
	if err != nil {
		return err
	}
	has := pack.Workshop{Settings: o.of(doc)}
	if *book != "" {
		if has.Parts, err = readBook(*book, in); err != nil {
			return err
		}
	}
	p := pack.New(design.Of(doc, o.book()), has)
	p.Paper, p.Units, p.Bench, p.Dated = cmp.Or(*paper, p.Paper), has.Settings.Units, *bench, time.Now()
	data, err := write(p, labels)
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
