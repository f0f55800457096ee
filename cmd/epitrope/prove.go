package main

import (
	"flag"
	"fmt"
	"io"
	"strings"

	"epitrope/core/design"
	"epitrope/core/prove"
	"epitrope/core/signoff"
	"epitrope/core/unit"
	"epitrope/internal/instrument"
	"epitrope/internal/pack"
)

// proving is what a proof prints as JSON.
type proving struct {
	Stations []prove.Station `json:"stations"`
	Readings []prove.Reading `json:"readings"`
	Stops    []string        `json:"stops,omitempty"`
	Unsteady bool            `json:"unsteady,omitempty"`
	prove.Findings
	Gates    []signoff.Gate `json:"gates" doc:"Steps, photographs and statements are the application's: here none is done"`
	Reserved []string       `json:"reserved"`
}

// runProve prints the readings that prove the job in a file, with their bands; with readings, what those mean.
func runProve(args []string, in io.Reader, out io.Writer, o own) error {
	set := flag.NewFlagSet("epitrope prove FILE", flag.ContinueOnError)
	file := set.String("readings", "", "a file of readings, with the heads reading and value, in the order in which they were taken")
	asJSON := set.Bool("json", false, "print JSON")
	rest, err := parseFlags(set, args, out)
	if err != nil {
		return err
	}
	doc, err := readJob(rest, in)
	if err != nil {
		return err
	}
	if len(doc.Built) > 0 {
		doc, _ = doc.AsBuilt()
	}
	d := design.Of(doc, o.book())
	p := prove.Of(d)
	taken := []prove.Taken{}
	if *file != "" {
		data, err := readOne([]string{*file}, in)
		if err != nil {
			return err
		}
		if taken, err = instrument.ReadProof(data, p); err != nil {
			return badInput("%s: %v", *file, err)
		}
	}
	outcome := p.Judge(taken)
	gates := signoff.Gates(d, pack.New(d, pack.Workshop{}).Steps, signoff.Done{Findings: outcome})
	if *asJSON {
		return printJSON(out, proving{p.Stations, p.Readings, p.Stops, p.Unsteady, outcome, gates, signoff.Reserved(d)})
	}
	said := inUnits(out, o.of(doc).Units)
	printProof(said, p, outcome)
	if len(taken) > 0 || len(p.Stops) > 0 {
		printGates(said, gates)
	}
	return nil
}

func printProof(out io.Writer, p *prove.Proof, outcome prove.Findings) {
	for _, text := range p.Stops {
		fmt.Fprintf(out, "Nothing is expected while this stands: %s\n", text)
	}
	if p.Unsteady {
		fmt.Fprintln(out, "With the engine running it comes to no stand at any speed that is asked for: nothing is read there, and "+
			"nothing proven.")
	}
	for _, s := range p.Stations {
		fmt.Fprintf(out, "%s: %s\n", s.Name, strings.Join(s.Setup, "; "))
		for _, r := range p.Readings {
			_, asked := outcome.Bands[r.ID]
			if r.Station != s.ID || !asked {
				continue
			}
			line := []string{r.What}
			for _, word := range []string{r.Where(), metered(r)} {
				if word != "" {
					line = append(line, word)
				}
			}
			fmt.Fprintf(out, "  %s: %s: %s\n", r.ID, strings.Join(line, ", "), outcome.Expects[r.ID])
		}
	}
	for _, v := range outcome.Verdicts {
		r, _ := p.Reading(v.ID)
		fmt.Fprintf(out, "%s: %s, %s; expected %s\n", r.What, v.Read, levels[v.Level], v.Expect)
		for _, slip := range v.Slips {
			fmt.Fprintf(out, "  before it is taken again: %s\n", slip)
		}
		if v.NotYet != "" {
			fmt.Fprintf(out, "  %s\n", v.NotYet)
		}
	}
	for _, c := range outcome.Causes {
		fmt.Fprintf(out, "perhaps: %s (%.0f %%). %s.\n", strings.Join(append([]string{c.Says}, c.Or...), "; or "), 100*c.Share,
			unit.Capital(c.Mend))
		if c.Endangers != "" {
			fmt.Fprintf(out, "  danger: %s\n", c.Endangers)
		}
	}
	if r, there := p.Reading(outcome.Next); there && len(outcome.Verdicts) > 0 {
		fmt.Fprintf(out, "next: %s, %s\n", r.What, r.Where())
	}
}

var levels = map[prove.Level]string{prove.AsExpected: "as expected", prove.JustOut: "just out: take it again", prove.Out: "out",
	prove.Impossible: "cannot be: the meter, or the entry"}

// metered is how the meter is set for a reading, in words.
func metered(r prove.Reading) string {
	if r.Range == "" || r.Unit == prove.Kelvin || r.Unit == prove.Amps {
		return r.Range
	}
	return "meter at " + r.Range
}

// printGates prints the gates of a sign-off that a plan and its readings decide.
func printGates(out io.Writer, gates []signoff.Gate) {
	fmt.Fprintln(out, "gates (steps, photographs and statements are the application's: here none is done):")
	for _, g := range gates {
		fmt.Fprintf(out, "  %s: %s\n", g.State, g.Name)
		if g.State == signoff.Open {
			fmt.Fprintf(out, "    %s %s\n", strings.Join(g.Open, " "), g.Closes)
		}
	}
}
