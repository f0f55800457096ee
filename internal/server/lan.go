package server

import (
	"context"
	"encoding/pem"
	"net"
	"net/http"
	"net/url"
	"slices"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"epitrope/internal/lan"
)

// Network is a server on a workshop's own network, by TLS under its own authority.
type Network struct {
	Machine   func() lan.Machine
	Authority *lan.Authority // nil where certificates were given: phones trust them already
	Port      string
}

// hosts says whether a host is one of the machine's.
func (n *Network) hosts(host string) bool {
	host = strings.Trim(host, "[]")
	return slices.ContainsFunc(n.Machine().Hosts(), func(h string) bool { return strings.EqualFold(h, host) })
}

// Addresses are where a phone finds it, the best first.
func (n *Network) Addresses() (list []string) {
	for _, h := range n.Machine().Best() {
		list = append(list, "https://"+net.JoinHostPort(h, n.Port))
	}
	return list
}

// Redirect answers plain requests: it sends them to TLS and does nothing else, at the same host where that is the machine's.
func (n *Network) Redirect() http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		host := hostOf(r.Host)
		if !n.hosts(host) || r.Method != http.MethodGet && r.Method != http.MethodHead {
			writeProblem(w, problem(http.StatusMisdirectedRequest, "about:blank", "This server answers by https, to its own names only."))
			return
		}
		to := url.URL{Scheme: "https", Host: net.JoinHostPort(host, n.Port), Path: r.URL.Path, RawQuery: r.URL.RawQuery}
		http.Redirect(w, r, to.String(), http.StatusPermanentRedirect)
	})
}

// OnNetwork is how the server is reached on a workshop's own network.
type OnNetwork struct {
	Addresses   []string `json:"addresses" doc:"The best first; none where it is on this machine alone"`
	Authority   bool     `json:"authority" doc:"It has an authority of its own, which a phone is told to trust"`
	Fingerprint string   `json:"fingerprint" doc:"Of that authority, SHA-256, as the server printed it when it started"`
}

func (a *api) registerNetwork(h huma.API) {
	on(h, Anyone, huma.Operation{OperationID: "network", Method: http.MethodGet, Path: "/api/network",
		Summary: "How phones reach the server on the workshop's network"}, a.onNetwork)
	on(h, Anyone, huma.Operation{OperationID: "authority", Method: http.MethodGet, Path: "/api/network/authority.crt",
		Summary: "The authority that phones are told to trust", Errors: []int{404}}, a.authority)
}

func (a *api) onNetwork(context.Context, *struct{}) (*body[OnNetwork], error) {
	out := OnNetwork{Addresses: []string{}}
	if n := a.network; n != nil {
		out.Addresses = append(out.Addresses, n.Addresses()...)
		if n.Authority != nil {
			out.Authority, out.Fingerprint = true, n.Authority.Fingerprint()
		}
	}
	return &body[OnNetwork]{out}, nil
}

func (a *api) authority(context.Context, *struct{}) (*fileAnswer, error) {
	if a.network == nil || a.network.Authority == nil {
		return nil, problem(http.StatusNotFound, "about:blank", "There is no authority of its own here.")
	}
	data := pem.EncodeToMemory(&pem.Block{Type: "CERTIFICATE", Bytes: a.network.Authority.Certificate.Raw})
	return &fileAnswer{"application/x-x509-ca-cert", `attachment; filename="epitrope-authority.crt"`, data}, nil
}
