// Command epitrope plans alternator-fed charging of auxiliary batteries, from the
// command line or as a web application.
package main

import (
	"errors"
	"fmt"
	"io"
	"os"
)

// usage is what a wrong or missing command prints.
const usage = `epitrope plans alternator-fed charging of auxiliary batteries.

  epitrope cable --amps 12 --one-way 2.3m --drop 2%   size one run
  epitrope plan FILE                                  plan a job ("-" reads standard input)
  epitrope netlist FILE --at STATE                    its circuit as a SPICE netlist
  epitrope simulate FILE [--days 7] [--csv]           run it through days of driving and parking
  epitrope methods FILE                               every coupling on it, with reasons and consequences
  epitrope shelf --book PARTS FILE                    the parts book on it: which chargers, relays and batteries fit, why not
  epitrope prove FILE [--readings R.csv]              what to read at it, with bands; of readings, what they mean
  epitrope trace FILE [--evidence E.json] [--json]     what may be wrong with it, and which test tells most
  epitrope standin FILE [--fault ID]                  a vehicle that is not there: its meter and its charger, on loopback
  epitrope modes FILE                                 its mode table and live map
  epitrope found FILE                                 what was there before, judged
  epitrope classify FILE                              how an alternator is regulated, from a log
  epitrope log KIND                                   a simulated log, for trying that
  epitrope parts FILE.csv                             check a file of parts for the book
  epitrope make FILE --what wires                     wires, cuts, parts, drawing, steps or the pack
  epitrope calendar FILE                              a job's dates as iCalendar
  epitrope schema job|plan                            the published JSON Schema
  epitrope serve                                      the web application
  epitrope workshop add|list|reset                    further workshops of a server; a way back in for who has lost theirs
  epitrope seed                                       put the demo jobs into an empty database
  epitrope openapi                                    the API's document

All take --json where they print figures, --units awg,ft,F,lbft where they print words (mm2, awg or auto; m or ft;
C or F; Nm or lbft), and --settings FILE, a workshop's settings as JSON. "epitrope COMMAND --help" lists flags.
`

// command is one subcommand: its arguments, where it prints, and what went wrong.
type command func(args []string, in io.Reader, out io.Writer, o own) error

var commands = map[string]command{
	"cable":    runCable,
	"plan":     runPlan,
	"netlist":  runNetlist,
	"simulate": runSimulate,
	"methods":  runMethods,
	"shelf":    runShelf,
	"prove":    runProve,
	"standin":  runStandin,
	"trace":    runTrace,
	"mailbox":  runMailbox,
	"modes":    runModes,
	"found":    runFound,
	"classify": runClassify,
	"log":      runLog,
	"parts":    runParts,
	"make":     runMake,
	"calendar": runCalendar,
	"schema":   runSchema,
	"serve":    runServe,
	"workshop": runWorkshop,
	"seed":     runSeed,
	"openapi":  runOpenAPI,
}

func main() { os.Exit(carryOut(os.Args[1:], os.Stdin, os.Stdout, os.Stderr)) }

// carryOut carries out a command line and returns its exit code: 0 done, 1 failed, 2
// wrong input.
func carryOut(args []string, in io.Reader, out, errs io.Writer) int {
	if len(args) == 0 {
		fmt.Fprint(errs, usage)
		return 2
	}
	c, ok := commands[args[0]]
	if !ok {
		if args[0] == "help" || args[0] == "--help" || args[0] == "-h" {
			fmt.Fprint(out, usage)
			return 0
		}
		fmt.Fprintf(errs, "epitrope: %q is not a command\n\n%s", args[0], usage)
		return 2
	}
	o, rest, err := ownOf(args[1:], in)
	if err == nil {
		err = c(rest, in, out, o)
	}
	var bad *inputError
	switch {
	case err == nil, errors.Is(err, errHelp):
		return 0
	case errors.As(err, &bad):
		fmt.Fprintf(errs, "epitrope %s: %v\n", args[0], err)
		return 2
	}
	fmt.Fprintf(errs, "epitrope %s: %v\n", args[0], err)
	return 1
}
