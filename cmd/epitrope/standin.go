package main

import (
	"context"
	"flag"
	"fmt"
	"io"
	"net"
	"os/signal"
	"slices"
	"strconv"
	"syscall"

	"golang.org/x/sync/errgroup"

	"epitrope/core/design"
	"epitrope/core/fault"
	"epitrope/core/prove"
	"epitrope/internal/instrument"
	"epitrope/internal/settings"
	"epitrope/internal/standin"
)

// runStandin stands in for the vehicle of a job: a meter that speaks SCPI and a charger's telemetry, on loopback, until it is
// stopped; or its readings as a file.
func runStandin(args []string, in io.Reader, out io.Writer, o own) error {
	set := flag.NewFlagSet("epitrope standin FILE", flag.ContinueOnError)
	hidden := set.String("fault", "", "what is wrong with it, hidden: an id from --faults")
	share := set.Float64("size", 0.7, "of a fault that has a size: from 0, the least, to 1")
	list := set.Bool("faults", false, "print the faults that it may have, and end")
	asCSV := set.Bool("csv", false, "print its readings as a file for “epitrope prove FILE --readings”, and end")
	seed := set.Uint64("seed", 1, "which vehicle of all that may turn out")
	port := set.Int("port", 5025, "of the meter on loopback; the charger's telemetry is at the next; 0: any that are free")
	rest, err := parseFlags(set, args, out)
	if err != nil {
		return err
	}
	doc, err := readJob(rest, in)
	if err != nil {
		return err
	}
	d := design.Of(doc, o.book())
	p := prove.Of(d)
	if len(p.Stops) > 0 {
		return badInput("there is nothing to read while a stop stands: %s", p.Stops[0])
	}
	faults := fault.Of(d)
	if *list {
		for _, f := range faults {
			fmt.Fprintf(out, "%s: %s\n", f.ID, f.Says)
		}
		return nil
	}
	v := standin.Build(d, p, *seed)
	if *hidden != "" {
		at := slices.IndexFunc(faults, func(f fault.Fault) bool { return f.ID == *hidden })
		if at < 0 || !(*share >= 0 && *share <= 1) {
			return badInput("--fault %q of size %g is none that it may have; allowed: an id from --faults, and a size from 0 to 1", *hidden,
				*share)
		}
		v = v.With(faults[at], faults[at].Size(*share))
	}
	if *asCSV {
		return printReadings(out, v)
	}
	v.Proof = prove.Wider(d) // whoever traces a fault reads every point
	return standIn(out, standin.NewBench(v), *port)
}

func printReadings(out io.Writer, v *standin.Vehicle) error {
	fmt.Fprint(out, "reading,value\r\n")
	for _, t := range v.Readings() {
		r, _ := v.Proof.Reading(t.ID)
		fmt.Fprintf(out, "%s,%s\r\n", t.ID, instrument.Written(r, t))
	}
	return nil
}

func standIn(out io.Writer, b *standin.Bench, port int) error {
	ctx, stop := signal.NotifyContext(context.Background(), syscall.SIGINT, syscall.SIGTERM)
	defer stop()
	group, ctx := errgroup.WithContext(ctx)
	listen := func(what string, speaks settings.Speaks, port int, answer func(context.Context, net.Conn)) error {
		at, err := net.Listen("tcp", net.JoinHostPort("127.0.0.1", strconv.Itoa(port)))
		if err != nil {
			return badInput("--port %d cannot be used: %v", port, err)
		}
		fmt.Fprintf(out, "%s: %s, speaks %s\n", what, at.Addr(), speaks)
		group.Go(func() error { return standin.Serve(ctx, at, answer) })
		return nil
	}
	next := port
	if port > 0 {
		next++
	}
	if err := listen("meter", settings.SCPI, port, b.Meter); err != nil {
		return err
	}
	if err := listen("charger", settings.TelemetryOut, next, b.Telemetry); err != nil {
		return err
	}
	fmt.Fprintln(out, "List them under Settings, Instruments, and read them at sheets 7 and 8. Stop it with Ctrl+C.")
	return group.Wait()
}
