package main

import (
	"context"
	"errors"
	"flag"
	"fmt"
	"io"
	"io/fs"
	"log/slog"
	"net"
	"os"
	"os/signal"
	"runtime/debug"
	"sync"
	"syscall"

	"epitrope/internal/listing"
	"epitrope/internal/server"
	"epitrope/internal/store"
	"epitrope/internal/worker"
	"epitrope/web"
)

// databaseEnv names the database where no flag does.
const databaseEnv = "EPITROPE_DATABASE"

// gcPercent lets garbage grow for longer than usual: of two hundred people at work, those who wait longest wait a sixth less, for
// some 30 MB of memory. GOGC, where it is set, holds.
const gcPercent = 180

// runServe serves the web application.
func runServe(args []string, _ io.Reader, out io.Writer, o own) error {
	set := flag.NewFlagSet("epitrope serve", flag.ContinueOnError)
	address := set.String("address", "127.0.0.1:8080", "loopback `address` to serve on; port 0 takes a free one")
	database := databaseFlag(set)
	if err := noArguments(set, args, out); err != nil {
		return err
	}
	if err := server.CheckLoopback(*address); err != nil {
		return badInput("--address: %v", err)
	}
	logTo(os.Stderr)
	if os.Getenv("GOGC") == "" {
		debug.SetGCPercent(gcPercent)
	}
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	s, err := openStore(ctx, *database)
	if err != nil {
		return err
	}
	defer s.Close()
	pages, err := fs.Sub(web.Dist, "dist")
	if err != nil {
		return err
	}
	listener, err := net.Listen("tcp", *address)
	if err != nil {
		return fmt.Errorf("listen on %s: %w", *address, err)
	}
	var working sync.WaitGroup
	var busy server.Busy
	working.Go(func() { worker.Run(ctx, s, o.book(), busy.Now) })
	working.Go(func() { listing.Renew(ctx, s, o.book()) })
	defer func() { stop(); working.Wait() }() // before the store is closed
	fmt.Fprintf(out, "Epitrope is at http://%s\nThere is no sign-in yet: it serves this machine only.\n", listener.Addr())
	return server.Serve(ctx, server.New(s, pages, &busy), listener)
}

func databaseFlag(set *flag.FlagSet) *string {
	return set.String("database", os.Getenv(databaseEnv), "PostgreSQL `address`; otherwise "+databaseEnv)
}

func noArguments(set *flag.FlagSet, args []string, out io.Writer) error {
	rest, err := parseFlags(set, args, out)
	if err == nil && len(rest) > 0 {
		err = badInput("%q is not expected; give flags only", rest[0])
	}
	return err
}

func openStore(ctx context.Context, address string) (*store.Store, error) {
	if address == "" {
		return nil, badInput("--database is missing; give a PostgreSQL address or set %s", databaseEnv)
	}
	s, err := store.Open(ctx, address)
	if errors.Is(err, store.ErrUnavailable) {
		return nil, fmt.Errorf("%w; is PostgreSQL running there?", err)
	}
	return s, err
}

func logTo(w io.Writer) { slog.SetDefault(slog.New(slog.NewJSONHandler(w, nil))) }

// runOpenAPI prints the API's document.
func runOpenAPI(args []string, _ io.Reader, out io.Writer, _ own) error {
	set := flag.NewFlagSet("epitrope openapi", flag.ContinueOnError)
	set.Bool("json", true, "print JSON, as always")
	if err := noArguments(set, args, out); err != nil {
		return err
	}
	doc, err := server.OpenAPI()
	if err != nil {
		return err
	}
	_, err = out.Write(doc)
	return err
}
