package server

import (
	"context"
	"errors"
	"fmt"
	"net"
	"net/http"
	"net/url"
	"strings"

	"github.com/labstack/echo/v5"

	"epitrope/internal/door"
	"epitrope/internal/tell"
)

// Way is how a server is reached.
type Way struct {
	Public *url.URL // its address as browsers name it, where something before it speaks https; nil on this machine alone
	Demo   bool     // people of the demo are signed in without a word

	Post tell.Post // how messages leave

	Network *Network // it is on the workshop's own network, by TLS; nil where it is not
}

// ErrNotLoopback is an address that others could reach without https.
var ErrNotLoopback = errors.New("others could reach it, and passwords would go over the wire as they are: use 127.0.0.1, [::1] or " +
	"localhost, or give --lan, or --public with the https address of what stands before it")

// Check refuses an address to listen on that others can reach in the clear, and a demo that others can reach at all.
func (w Way) Check(address string) error {
	host, port, err := net.SplitHostPort(address)
	if err != nil {
		return fmt.Errorf("address %q: %w", address, err)
	}
	if port == "" {
		return fmt.Errorf("address %q: a port is missing; write 127.0.0.1:8080", address)
	}
	if w.Public == nil && w.Network == nil && !isLoopback(host) {
		return fmt.Errorf("address %q: %w", address, ErrNotLoopback)
	}
	if w.Demo && (w.Public != nil || w.Network != nil) {
		return errors.New("a demo signs everybody in: it is for this machine alone, without --public and --lan")
	}
	if w.Public != nil && w.Network != nil {
		return errors.New("--public is for what stands before the server, --lan for the server itself: give one of them")
	}
	return nil
}

// ReadPublic reads the address that browsers name.
func ReadPublic(address string) (*url.URL, error) {
	u, err := url.Parse(address)
	if err != nil || u.Scheme != "https" || u.Host == "" || strings.Trim(u.Path, "/") != "" || u.RawQuery != "" {
		return nil, fmt.Errorf("%q is not an address such as https://workshop.example", address)
	}
	return &url.URL{Scheme: u.Scheme, Host: u.Host}, nil
}

func isLoopback(host string) bool {
	if host == "localhost" {
		return true
	}
	ip := net.ParseIP(strings.Trim(host, "[]"))
	return ip != nil && ip.IsLoopback()
}

// ours refuses requests whose Host is not this server's, so that a page elsewhere cannot reach it by a name of its own; and keeps from
// where a request came.
func (w Way) ours(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		r := c.Request()
		origin := &url.URL{Scheme: "http", Host: r.Host}
		switch {
		case w.Public != nil && strings.EqualFold(r.Host, w.Public.Host):
			origin = w.Public
		case w.Network != nil && w.Network.hosts(hostOf(r.Host)):
			origin = &url.URL{Scheme: "https", Host: r.Host}
		case w.Network != nil:
			return problem(http.StatusMisdirectedRequest, "about:blank", "This server answers to its own names only.")
		case w.Public != nil && (!isHealth(c) || !isLoopback(hostOf(r.Host))):
			return problem(http.StatusMisdirectedRequest, "about:blank", "This server answers to "+w.Public.Host+" only.")
		case !isLoopback(hostOf(r.Host)):
			return problem(http.StatusMisdirectedRequest, "about:blank", "This server answers to localhost only.")
		}
		from := asking{from: door.From{Address: c.RealIP(), Agent: r.UserAgent()}, origin: origin, direct: direct(r)}
		c.SetRequest(r.WithContext(context.WithValue(r.Context(), cameKey{}, from)))
		return next(c)
	}
}

func hostOf(hostPort string) string {
	if name, _, err := net.SplitHostPort(hostPort); err == nil {
		return name
	}
	return hostPort
}

func isHealth(c *echo.Context) bool { return strings.HasPrefix(c.Request().URL.Path, "/health/") }

// realIP is from where a request came: what stands before the server says so, where it stands in the same net.
func (w Way) realIP() echo.IPExtractor {
	if w.Public == nil {
		return echo.ExtractIPDirect()
	}
	return echo.ExtractIPFromXFFHeader(echo.TrustLoopback(true), echo.TrustLinkLocal(false), echo.TrustPrivateNet(true))
}

// forwarding are the heads that something between browser and server adds.
var forwarding = []string{"Forwarded", "X-Forwarded-For", "X-Forwarded-Host", "X-Forwarded-Proto", "X-Forwarded-Server", "X-Real-Ip", "Via",
	"Cf-Connecting-Ip", "True-Client-Ip", "X-Client-Ip"}

// direct says whether a request came from this machine itself, through nothing.
func direct(r *http.Request) bool {
	for _, h := range forwarding {
		if r.Header.Get(h) != "" {
			return false
		}
	}
	return isLoopback(hostOf(r.RemoteAddr)) && isLoopback(hostOf(r.Host))
}
