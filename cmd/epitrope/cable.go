package main

import (
	"cmp"
	"flag"
	"fmt"
	"io"

	"epitrope/core/cable"
	"epitrope/core/run"
	"epitrope/core/unit"
	"epitrope/core/working"
)

// runCable sizes one run.
func runCable(args []string, _ io.Reader, out io.Writer, o own) error {
	set := flag.NewFlagSet("epitrope cable", flag.ContinueOnError)
	amps := quantity{dim: unit.Current, min: 0.05, max: 1000}
	oneWay := quantity{dim: unit.Length, min: 0.05, max: 50}
	drop := quantity{dim: unit.Percent, min: 0.1, max: 25, value: 2}
	reference := quantity{dim: unit.Voltage, min: 6, max: 60, value: 12}
	limit := quantity{dim: unit.Temperature, min: 60, max: 200, value: 85}
	set.Var(&amps, "amps", "continuous `current`, such as 12 or 500mA (0.05 to 1000 A)")
	set.Var(&oneWay, "one-way", "`length` one way, such as 2.3m or 6ft6 (0.05 to 50 m)")
	set.Var(&drop, "drop", "allowed drop in `%` of the reference voltage (0.1 to 25, default 2)")
	set.Var(&reference, "reference-volts", "`voltage` the drop is a share of (6 to 60, default 12)")
	set.Var(&limit, "insulation", "insulation `temperature`: 70C, 85C or 105C (default 85C)")
	bayText := set.String("bay", "cabin", "where it lies: engine, cabin or an `ambient` temperature such as 95F")
	returnBy := set.String("return", "cable", "the way back: `cable|chassis`")
	system := set.String("system", cmp.Or(o.Stands().System, "metric"), "cable on the reels: `metric|awg|auto`")
	sizeText := set.String("size", "", "judge this cable `size` instead of choosing one, such as \"6 AWG\"")
	asJSON := set.Bool("json", false, "print JSON")
	rest, err := parseFlags(set, args, out)
	if err != nil {
		return err
	}
	in := run.SingleInput{Amps: amps.value, OneWayM: oneWay.value, DropPercent: drop.value, ReferenceV: reference.value}
	switch {
	case len(rest) > 0:
		return badInput("%q is not expected; give flags only", rest[0])
	case !amps.given:
		return badInput("--amps is missing; allowed are 0.05 to 1000 A")
	case !oneWay.given:
		return badInput("--one-way is missing; allowed are 0.05 to 50 m")
	}
	if in.Bay, err = parseBay(*bayText); err != nil {
		return err
	}
	if in.Insulation, err = cable.InsulationFor(limit.value); err != nil {
		return badInput("--insulation: %v", err)
	}
	if in.ByChassis, err = oneOf("return", *returnBy, "cable", "chassis"); err != nil {
		return err
	}
	if _, err = oneOf("system", *system, "metric", "awg", "auto"); err != nil {
		return err
	}
	in.System = cable.System(*system)
	if *sizeText != "" {
		size, err := cable.Parse(*sizeText)
		if err != nil {
			return badInput("--size: %v", err)
		}
		in.Size = &size
	}
	result, err := run.SizeSingle(in)
	if err != nil {
		return badInput("--amps %s over --one-way %s: %v", unit.Plain(in.Amps, "A", 2), unit.Plain(in.OneWayM, "m", 2), err)
	}
	if *asJSON {
		return printJSON(out, result)
	}
	return printSingle(out, o.Units, result)
}

// oneOf checks a word; second says whether it was the second of those allowed.
func oneOf(name, word string, allowed ...string) (second bool, err error) {
	for i, a := range allowed {
		if word == a {
			return i == 1, nil
		}
	}
	return false, badInput("--%s: %q is not known; allowed are %v", name, word, allowed)
}

func parseBay(text string) (cable.Bay, error) {
	switch text {
	case "engine":
		return cable.EngineBay(), nil
	case "cabin":
		return cable.Cabin(), nil
	}
	c, err := unit.Temperature.Parse(text)
	if err != nil || c < -40 || c > 150 {
		return cable.Bay{}, badInput("--bay: %q is not known; allowed are engine, cabin or a temperature from −40 to 150 °C such as 95F",
			text)
	}
	return cable.Ambient(c), nil
}

// printSingle prints a run in units; its workings stay in those that its formulas are declared in.
func printSingle(out io.Writer, units unit.Units, r run.Single) error {
	fuse, said := r.Fuse, inUnits(out, units)
	_, err := fmt.Fprintf(said, "%s, decided by %s\nfuse %s\nloses %s (%s), gets to %s, carries %s\nfor the drop alone, cold copper: %s\n",
		r.Size, r.DecidedBy, fuse, unit.Text(r.DropV, "V", 3), unit.Text(r.DropPercent, "%", 1),
		unit.Text(r.ConductorC, "°C", 0), unit.Text(r.AmpacityA, "A", 0), unit.Text(r.RuleAreaMM2, "mm²", 2))
	for _, w := range r.Warnings {
		fmt.Fprintln(said, "warning:", w)
	}
	fmt.Fprintln(out)
	for _, f := range r.Working {
		printFigure(out, f)
	}
	fmt.Fprintln(out, "\nLocal codes, the device's own manual and a licensed practitioner's word override this.")
	return err
}

func printFigure(out io.Writer, f working.Figure) {
	fmt.Fprintf(out, "%s: %s = %s = %s\n", f.Name, f.Formula, f.Filled, f.Text)
	for _, in := range f.Inputs {
		fmt.Fprintf(out, "    %-4s %s: %s, %s (%s)\n", in.Letter, in.Text, in.Name, in.Why, in.Origin)
	}
	fmt.Fprintf(out, "    source: %s\n", f.Source)
}
