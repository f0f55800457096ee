package server_test

import (
	"context"
	"crypto/tls"
	"crypto/x509"
	"encoding/json"
	"net"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/internal/dbtest"
	"epitrope/internal/door"
	"epitrope/internal/lan"
	"epitrope/internal/server"
	"epitrope/internal/store"
)

// On the workshop's network the server answers by TLS under its own authority, to its own names alone, with cookies that no plain page
// gets;
// plain http leads there and does nothing else.
func TestOnTheWorkshopsNetwork(t *testing.T) {
	s := dbtest.Store(t)
	certificate, key, err := s.Door().Authority(t.Context(), func() ([]byte, []byte, error) {
		return lan.NewAuthority([]string{"bay-pc"},
			time.Now())
	})
	require.NoError(t, err)
	again, _, err := s.Door().Authority(t.Context(), func() ([]byte, []byte, error) {
		return lan.NewAuthority([]string{"other"},
			time.Now())
	})
	require.NoError(t, err)
	assert.Equal(t, certificate, again, "one for a database, whichever server asks")
	authority, err := lan.Read(certificate, key)
	require.NoError(t, err)

	machine := lan.Machine{Names: []string{"bay-pc", "bay-pc.local", "localhost"}, IPs: []net.IP{net.ParseIP("127.0.0.1"),
		net.ParseIP("192.168.7.20")}}
	network := &server.Network{Machine: func() lan.Machine { return machine }, Authority: authority, Port: "8443"}
	d := door.New(s, door.Where{Secure: true})
	t.Cleanup(d.Close)
	h := httptest.NewUnstartedServer(server.New(s, pages, &server.Busy{}, server.Way{Network: network}, d))
	pair, err := authority.Certify(machine.Names, machine.IPs, time.Now())
	require.NoError(t, err)
	h.TLS = &tls.Config{Certificates: []tls.Certificate{pair}}
	h.StartTLS()
	t.Cleanup(h.Close)
	roots := x509.NewCertPool()
	roots.AddCert(authority.Certificate)
	phone := &http.Client{Transport: &http.Transport{TLSClientConfig: &tls.Config{RootCAs: roots},
		DialContext: func(ctx context.Context, n, _ string) (net.Conn, error) { // the name's own way there
			return (&net.Dialer{}).DialContext(ctx, n, h.Listener.Addr().String())
		}}}
	get := func(address string, change func(*http.Request)) *http.Response {
		req, err := http.NewRequest(http.MethodGet, address, http.NoBody)
		require.NoError(t, err)
		change(req)
		res, err := phone.Do(req)
		require.NoError(t, err, address)
		t.Cleanup(func() { _ = res.Body.Close() })
		return res
	}
	as := func(*http.Request) {}
	for _, host := range []string{"bay-pc", "bay-pc.local", "192.168.7.20"} {
		res := get("https://"+host+":8443/api/network", as)
		require.Equal(t, 200, res.StatusCode, host)
		var is server.OnNetwork
		require.NoError(t, json.NewDecoder(res.Body).Decode(&is))
		assert.Equal(t, []string{"https://bay-pc.local:8443", "https://192.168.7.20:8443"}, is.Addresses)
		assert.Equal(t, authority.Fingerprint(), is.Fingerprint)
		assert.Contains(t, res.Header.Get("Strict-Transport-Security"), "max-age")
	}
	assert.Equal(t, http.StatusMisdirectedRequest, get("https://bay-pc:8443/api/me",
		func(r *http.Request) { r.Host = "elsewhere.example" }).StatusCode)
	_, err = phone.Get("https://elsewhere.local:8443/")
	require.ErrorContains(t, err, "certificate", "it does not vouch for others")

	// Whoever comes in gets a cookie for https alone; passkeys are had by a name, and not by a number.
	token := door.Token()
	require.NoError(t, s.Door().FirstLink(t.Context(), store.FirstWorkshop, token, soon()))
	res, err := phone.Post("https://bay-pc.local:8443/api/door/join", "application/json", strings.NewReader(
		`{"token":"`+token+`","name":"Odile","signIn":"odile","password":"seven wet otters","workshop":"Bay"}`))
	require.NoError(t, err)
	defer res.Body.Close()
	require.Equal(t, 200, res.StatusCode)
	cookie := res.Cookies()[0]
	assert.Equal(t, "__Host-epitrope", cookie.Name)
	assert.True(t, cookie.Secure && cookie.HttpOnly)
	for host, none := range map[string]bool{"bay-pc.local": false, "192.168.7.20": true} {
		var me server.Me
		require.NoError(t, json.NewDecoder(get("https://"+host+":8443/api/me", as).Body).Decode(&me))
		assert.Equal(t, none, me.Passkeys != "", "%s: %s", host, me.Passkeys)
	}

	plain := httptest.NewServer(network.Redirect())
	t.Cleanup(plain.Close)
	stays := &http.Client{CheckRedirect: func(*http.Request, []*http.Request) error { return http.ErrUseLastResponse }}
	for _, c := range []struct {
		method, host, to string
		status           int
	}{
		{http.MethodGet, "192.168.7.20:8080", "https://192.168.7.20:8443/jobs?x=1", http.StatusPermanentRedirect},
		{http.MethodGet, "elsewhere.example", "", http.StatusMisdirectedRequest},
		{http.MethodPost, "bay-pc", "", http.StatusMisdirectedRequest},
	} {
		req, err := http.NewRequest(c.method, plain.URL+"/jobs?x=1", strings.NewReader(""))
		require.NoError(t, err)
		req.Host = c.host
		res, err := stays.Do(req)
		require.NoError(t, err)
		require.NoError(t, res.Body.Close())
		assert.Equal(t, c.status, res.StatusCode, c.host)
		assert.Equal(t, c.to, res.Header.Get("Location"), c.host)
	}
	require.Error(t, server.Way{Network: network, Demo: true}.Check("0.0.0.0:80"), "a demo signs everybody in")
	require.Error(t, server.Way{Network: network, Public: publicly(t, "https://a.example")}.Check("0.0.0.0:80"))
}
