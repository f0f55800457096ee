package main

import (
	"context"
	"crypto/tls"
	"flag"
	"fmt"
	"io"
	"log/slog"
	"net"
	"net/http"
	"net/url"
	"time"

	"epitrope/internal/lan"
	"epitrope/internal/server"
	"epitrope/internal/store"
)

// lanFlags are how a server on the workshop's own network is asked for.
type lanFlags struct {
	on               *bool
	address          *string
	certificate, key *string
}

func lanFlagsOf(set *flag.FlagSet) lanFlags {
	return lanFlags{
		on: set.Bool("lan", false,
			"serve the workshop's own network, by TLS under an authority of its own; plain http only leads there"),
		address: set.String("lan-address", ":8443", "`address` to serve TLS on, with --lan"),
		certificate: set.String("certificate", "",
			"`file` of a certificate that phones trust already, in PEM, instead of an authority of its own"),
		key: set.String("key", "", "`file` of its key"),
	}
}

// plainWithLAN is where plain http is answered with --lan, where nobody says: on all of the machine's addresses, to lead to TLS.
const plainWithLAN = ":8080"

// check refuses flags that do not go together.
func (f lanFlags) check() error {
	switch {
	case !*f.on && (*f.certificate != "" || *f.key != ""):
		return badInput("--certificate and --key are for --lan")
	case (*f.certificate == "") != (*f.key == ""):
		return badInput("--certificate and --key go together: give both or neither")
	}
	return nil
}

// network is the server on the workshop's network, and how it speaks TLS.
func (f lanFlags) network(ctx context.Context, s *store.Store) (*server.Network, *tls.Config, error) {
	_, port, err := net.SplitHostPort(*f.address)
	if err != nil || port == "" || port == "0" {
		return nil, nil, badInput("--lan-address %q: write a port, such as :8443", *f.address)
	}
	config := &tls.Config{MinVersion: tls.VersionTLS12}
	if *f.certificate != "" {
		pair, err := tls.LoadX509KeyPair(*f.certificate, *f.key)
		if err != nil {
			return nil, nil, badInput("--certificate: %v", err)
		}
		config.Certificates = []tls.Certificate{pair}
		return &server.Network{Machine: lan.NewCertificates(nil).Machine, Port: port}, config, nil
	}
	certificate, key, err := s.Door().Authority(ctx, func() ([]byte, []byte, error) {
		return lan.NewAuthority(lan.This().Names,
			time.Now())
	})
	if err != nil {
		return nil, nil, err
	}
	authority, err := lan.Read(certificate, key)
	if err != nil {
		return nil, nil, err
	}
	all := lan.NewCertificates(authority)
	config.GetCertificate = all.Get
	return &server.Network{Machine: all.Machine, Authority: authority, Port: port}, config, nil
}

// listen answers TLS on the workshop's network, and leads plain http there until ctx ends. It says where it is.
func (f lanFlags) listen(ctx context.Context, out io.Writer, n *server.Network, config *tls.Config, plain net.Listener) (net.Listener,
	*url.URL, error) {
	listener, err := net.Listen("tcp", *f.address)
	if err != nil {
		return nil, nil, fmt.Errorf("listen on %s: %w", *f.address, err)
	}
	leads := &http.Server{Handler: n.Redirect(), ReadHeaderTimeout: 5 * time.Second}
	go func() {
		if err := leads.Serve(plain); err != nil && ctx.Err() == nil {
			slog.Error("plain http is not led to TLS any longer", "error", err)
		}
	}()
	context.AfterFunc(ctx, func() { _ = leads.Close() }) // nothing is under way there
	at := &url.URL{Scheme: "https", Host: net.JoinHostPort("localhost", n.Port)}
	for i, address := range n.Addresses() {
		if i == 0 {
			at, _ = url.Parse(address) // it was put together of a host and a port
		}
		fmt.Fprintf(out, "On this network it is at %s\n", address)
	}
	if n.Authority != nil {
		fmt.Fprintf(out, "Phones are told once to trust it: %s/trust says how. Its authority's fingerprint is\n  %s\n", at,
			n.Authority.Fingerprint())
	}
	return tls.NewListener(listener, config), at, nil
}
