package lan

import (
	"crypto/tls"
	"crypto/x509"
	"net"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var now = time.Date(2031, 5, 2, 9, 0, 0, 0, time.UTC)

func authority(t *testing.T) *Authority {
	t.Helper()
	certificate, key, err := NewAuthority([]string{"bay-pc"}, now)
	require.NoError(t, err)
	a, err := Read(certificate, key)
	require.NoError(t, err)
	return a
}

// Who trusts the authority trusts the server by each of its names and addresses, and by nothing else, as the standard library checks it.
func TestWhatTheAuthorityVouchesFor(t *testing.T) {
	a := authority(t)
	pair, err := a.Certify([]string{"bay-pc", "bay-pc.local", "bank.example"}, []net.IP{net.ParseIP("192.168.7.20"),
		net.ParseIP("203.0.113.9")}, now)
	require.NoError(t, err)
	leaf, err := x509.ParseCertificate(pair.Certificate[0])
	require.NoError(t, err)
	roots := x509.NewCertPool()
	roots.AddCert(a.Certificate)
	for host, trusted := range map[string]bool{"bay-pc": true, "bay-pc.local": true, "192.168.7.20": true, "bank.example": false,
		"203.0.113.9": false,
		"other.local": false} {
		_, err := leaf.Verify(x509.VerifyOptions{Roots: roots, DNSName: host, CurrentTime: now})
		assert.Equal(t, trusted, err == nil, "%s: %v", host, err)
	}
	_, err = leaf.Verify(x509.VerifyOptions{Roots: roots, DNSName: "bay-pc", CurrentTime: now.Add(400 * 24 * time.Hour)})
	require.Error(t, err, "it does not hold for ever")
}

// With its key in other hands it still vouches for no other site: what is signed for one is refused by the authority's own constraints.
func TestAStolenKeyOpensNoOtherSite(t *testing.T) {
	a := authority(t)
	loose := *a
	free := *a.Certificate
	free.PermittedDNSDomains, free.PermittedIPRanges = []string{"example", "bay-pc"}, privateNets()
	loose.Certificate = &free
	pair, err := loose.Certify([]string{"bank.example"}, nil, now)
	require.NoError(t, err)
	leaf, err := x509.ParseCertificate(pair.Certificate[0])
	require.NoError(t, err)
	roots := x509.NewCertPool()
	roots.AddCert(a.Certificate)
	_, err = leaf.Verify(x509.VerifyOptions{Roots: roots, DNSName: "bank.example", CurrentTime: now})
	require.ErrorContains(t, err, "not permitted")
}

func TestAnAuthorityIsReadAsItWasMade(t *testing.T) {
	a := authority(t)
	assert.Len(t, a.Fingerprint(), 16*5-1)
	pair, err := a.Certify([]string{"localhost", "bay-pc"}, nil, now)
	require.NoError(t, err)
	_, err = Read([]byte("x"), []byte("y"))
	require.ErrorIs(t, err, ErrAuthority)
	require.IsType(t, tls.Certificate{}, pair)
}

func TestNamesOfAMachine(t *testing.T) {
	assert.Equal(t, []string{"bay-pc", "bay-pc.local"}, namesOf("Bay-PC.home.arpa"))
	assert.Empty(t, namesOf("localhost"))
	assert.Empty(t, namesOf("büro"))
	m := Machine{Names: []string{"bay", "bay.local", "localhost"}, IPs: []net.IP{net.ParseIP("127.0.0.1"), net.ParseIP("192.168.7.20"),
		net.ParseIP("fe80::1")}}
	assert.Equal(t, []string{"bay.local", "192.168.7.20"}, m.Best())
	assert.Contains(t, m.Hosts(), "fe80::1")
}

// A certificate is made anew when a router gives another address, and before it ends; until then it stays.
func TestCertificatesFollowTheMachine(t *testing.T) {
	at, is := now, Machine{Names: []string{"bay-pc"}, IPs: []net.IP{net.ParseIP("192.168.7.20")}}
	c := NewCertificates(authority(t))
	c.find, c.now = func() Machine { return is }, func() time.Time { return at }
	get := func() *tls.Certificate {
		pair, err := c.Get(nil)
		require.NoError(t, err)
		return pair
	}
	first := get()
	at = at.Add(time.Hour)
	assert.Same(t, first, get())
	is.IPs = []net.IP{net.ParseIP("192.168.7.99")}
	at = at.Add(lookEvery + time.Second)
	second := get()
	assert.NotSame(t, first, second)
	leaf, err := x509.ParseCertificate(second.Certificate[0])
	require.NoError(t, err)
	require.NoError(t, leaf.VerifyHostname("192.168.7.99"))
	require.Error(t, leaf.VerifyHostname("192.168.7.20"))
	at = at.Add(leafFor - renewAt)
	assert.NotSame(t, second, get(), "a month before its end")
}
