package main

import (
	"context"
	"crypto/tls"
	"errors"
	"flag"
	"fmt"
	"io"
	"io/fs"
	"log/slog"
	"net"
	"net/url"
	"os"
	"os/signal"
	"runtime/debug"
	"strings"
	"sync"
	"syscall"
	"time"

	"epitrope/internal/door"
	"epitrope/internal/listing"
	"epitrope/internal/server"
	"epitrope/internal/store"
	"epitrope/internal/worker"
	"epitrope/web"
)

// databaseEnv names the database where no flag does.
const databaseEnv = "EPITROPE_DATABASE"

// gcPercent lets garbage grow for longer than usual: fewer collections while people wait, for some memory. GOGC, where it is set, holds.
const gcPercent = 160

// runServe serves the web application.
func runServe(args []string, _ io.Reader, out io.Writer, o own) error {
	set := flag.NewFlagSet("epitrope serve", flag.ContinueOnError)
	address := set.String("address", "127.0.0.1:8080",
		"`address` to serve on, of this machine alone without --public; port 0 takes a free one")
	public := set.String("public", "", "its https `address` as browsers name it, of what stands before it and speaks https")
	demo := set.Bool("demo", false, "sign whoever opens it on this machine in as the demo's foreman")
	database := databaseFlag(set)
	network, post := lanFlagsOf(set), postFlagsOf(set)
	if err := noArguments(set, args, out); err != nil {
		return err
	}
	if err := network.check(); err != nil {
		return err
	}
	sends, err := post.post()
	if err != nil {
		return err
	}
	way := server.Way{Demo: *demo, Post: sends}
	if *network.on {
		way.Network = &server.Network{}
		if !given(set, "address") {
			*address = plainWithLAN
		}
	}
	if *public != "" {
		u, err := server.ReadPublic(*public)
		if err != nil {
			return badInput("--public: %v", err)
		}
		way.Public = u
	}
	if err := way.Check(*address); err != nil {
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
	var speaks *tls.Config
	if *network.on {
		if way.Network, speaks, err = network.network(ctx, s); err != nil {
			return err
		}
	}
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
	at := &url.URL{Scheme: "http", Host: named(listener.Addr().String())}
	switch {
	case way.Public != nil:
		at = way.Public
	case way.Network != nil:
		if listener, at, err = network.listen(ctx, out, way.Network, speaks, listener); err != nil {
			return err
		}
	}
	working.Go(func() { tellAll(ctx, s, sends, at, o) })
	d := door.New(s, door.Where{Origin: way.Public, Demo: *demo, Secure: way.Network != nil})
	defer d.Close()
	fmt.Fprintf(out, "Epitrope is at %s\n", at)
	if err := welcome(ctx, out, s, at, *demo); err != nil {
		return err
	}
	return server.Serve(ctx, server.New(s, pages, &busy, way, d), listener)
}

// given says whether a flag was.
func given(set *flag.FlagSet, name string) (is bool) {
	set.Visit(func(f *flag.Flag) { is = is || f.Name == name })
	return is
}

// named is an address of this machine by its name, which passkeys need.
func named(hostPort string) string {
	if port, is := strings.CutPrefix(hostPort, "127.0.0.1:"); is {
		return "localhost:" + port
	}
	return hostPort
}

// firstFor is how long the link is good that begins the first workshop.
const firstFor = 7 * 24 * time.Hour

// welcome says how to come in: the demo, or with no workshop yet the link that begins one.
func welcome(ctx context.Context, out io.Writer, s *store.Store, at *url.URL, demo bool) error {
	if demo {
		fmt.Fprintln(out, "It is the demo: whoever opens it on this machine is its foreman, and may be anybody else of it.")
		return nil
	}
	begun, err := s.Door().Begun(ctx, store.FirstWorkshop)
	if err != nil || begun {
		return err
	}
	token := door.Token()
	if err := s.Door().FirstLink(ctx, store.FirstWorkshop, token, time.Now().Add(firstFor)); err != nil {
		return err
	}
	fmt.Fprintf(out, "There is no workshop yet. Begin it, as its owner, with this link; it is good once, for seven days:\n  %s/join#%s\n",
		at, token)
	return nil
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
