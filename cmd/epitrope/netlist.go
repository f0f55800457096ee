package main

import (
	"flag"
	"fmt"
	"io"

	"epitrope/core/design"
)

// runNetlist writes a job's circuit in a state as a SPICE netlist.
func runNetlist(args []string, in io.Reader, out io.Writer, o own) error {
	set := flag.NewFlagSet("epitrope netlist FILE", flag.ContinueOnError)
	at := set.String("at", "cruise",
		"`state` of the vehicle: cruise, early, idle, eased, parked, crank, precharge, joined, inrush, short-c1 or short-c2, as the job has them")
	asJSON := set.Bool("json", false, "print JSON: the netlist and our own solution")
	rest, err := parseFlags(set, args, out)
	if err != nil {
		return err
	}
	doc, err := readJob(rest, in)
	if err != nil {
		return err
	}
	c, solved, err := design.Of(doc, o.book()).CircuitAt(*at)
	if err != nil {
		return badInput("--at: %v", err)
	}
	netlist, err := c.Netlist(fmt.Sprintf("%s, %s", doc.Title, *at), solved.Resting()...)
	if err != nil {
		return err
	}
	if !*asJSON {
		_, err = io.WriteString(out, netlist)
		return err
	}
	volts := map[string]float64{}
	for n, name := range c.Names() {
		volts[name] = solved.Volts[n]
	}
	return printJSON(out, map[string]any{"netlist": netlist, "volts": volts})
}
