// Package lan is the server on a workshop's own network: the names that it has there, and certificates for them under an authority of
// its own, which phones and tablets are told to trust once.
//
// The authority can vouch for nothing but this: it is constrained to the machine's own names, to .local, and to private addresses, so
// that a
// stolen key opens no other site to a phone that trusts it.
package lan

import (
	"crypto/ecdsa"
	"crypto/elliptic"
	"crypto/rand"
	"crypto/sha256"
	"crypto/tls"
	"crypto/x509"
	"crypto/x509/pkix"
	"encoding/pem"
	"errors"
	"fmt"
	"math/big"
	"net"
	"slices"
	"strings"
	"time"
)

// How long the authority and a certificate under it hold. Phones refuse longer ones.
//
// Source: 398 days is what browsers allow a public certificate; 825 what one system allows those of an added authority (from memory).
const (
	authorityFor = 10 * 365 * 24 * time.Hour
	leafFor      = 390 * 24 * time.Hour
	early        = time.Hour // clocks of phones differ
)

// private are the addresses that the authority may vouch for.
//
// Source: RFC 1918, RFC 4193, RFC 3927, RFC 4291.
var private = []string{"10.0.0.0/8", "172.16.0.0/12", "192.168.0.0/16", "169.254.0.0/16", "127.0.0.0/8", "fc00::/7", "fe80::/10", "::1/128"}

func privateNets() (list []*net.IPNet) {
	for _, p := range private {
		_, n, err := net.ParseCIDR(p)
		if err != nil {
			panic(err) // constants
		}
		list = append(list, n)
	}
	return list
}

// IsPrivate says whether an address is one of a network of one's own.
func IsPrivate(ip net.IP) bool {
	return slices.ContainsFunc(privateNets(), func(n *net.IPNet) bool { return n.Contains(ip) })
}

// Authority vouches for the server's certificates.
type Authority struct {
	Certificate *x509.Certificate
	key         *ecdsa.PrivateKey
}

// NewAuthority makes one for a machine's names, as its certificate and its key in PEM.
func NewAuthority(names []string, now time.Time) (certificate, key []byte, err error) {
	made, err := ecdsa.GenerateKey(elliptic.P256(), rand.Reader)
	if err != nil {
		return nil, nil, err
	}
	serial, err := serialNumber()
	if err != nil {
		return nil, nil, err
	}
	template := &x509.Certificate{SerialNumber: serial, Subject: pkix.Name{CommonName: strings.Join(append([]string{"Epitrope"},
		names[:min(1, len(names))]...), " at "), Organization: []string{"Epitrope"}},
		NotBefore: now.Add(-early), NotAfter: now.Add(authorityFor), IsCA: true, BasicConstraintsValid: true, MaxPathLenZero: true,
		KeyUsage: x509.KeyUsageCertSign | x509.KeyUsageDigitalSignature, PermittedDNSDomainsCritical: true,
		PermittedDNSDomains: append(slices.Clone(names), "local", "localhost"), PermittedIPRanges: privateNets()}
	der, err := x509.CreateCertificate(rand.Reader, template, template, &made.PublicKey, made)
	if err != nil {
		return nil, nil, err
	}
	pkcs8, err := x509.MarshalPKCS8PrivateKey(made)
	if err != nil {
		return nil, nil, err
	}
	return pem.EncodeToMemory(&pem.Block{Type: "CERTIFICATE", Bytes: der}), pem.EncodeToMemory(&pem.Block{Type: "PRIVATE KEY",
		Bytes: pkcs8}), nil
}

func serialNumber() (*big.Int, error) {
	return rand.Int(rand.Reader, new(big.Int).Lsh(big.NewInt(1), 126))
}

// ErrAuthority is an authority that cannot be read.
var ErrAuthority = errors.New("the authority that is kept cannot be read")

// Read reads an authority as it was made.
func Read(certificate, key []byte) (*Authority, error) {
	pair, err := tls.X509KeyPair(certificate, key)
	if err != nil {
		return nil, fmt.Errorf("%w: %w", ErrAuthority, err)
	}
	own, is := pair.PrivateKey.(*ecdsa.PrivateKey)
	if !is || pair.Leaf == nil || !pair.Leaf.IsCA {
		return nil, ErrAuthority
	}
	return &Authority{pair.Leaf, own}, nil
}

// Vouches says whether the authority may vouch for a name, by its own constraints.
func (a *Authority) Vouches(name string) bool {
	return slices.ContainsFunc(a.Certificate.PermittedDNSDomains, func(d string) bool {
		return strings.EqualFold(name, d) || strings.HasSuffix(strings.ToLower(name), "."+strings.ToLower(d))
	})
}

// Certify is a certificate for names and addresses; those that the authority may not vouch for are left out.
func (a *Authority) Certify(names []string, ips []net.IP, now time.Time) (out tls.Certificate, err error) {
	key, err := ecdsa.GenerateKey(elliptic.P256(), rand.Reader)
	if err != nil {
		return out, err
	}
	serial, err := serialNumber()
	if err != nil {
		return out, err
	}
	names = slices.DeleteFunc(slices.Clone(names), func(n string) bool { return !a.Vouches(n) })
	ips = slices.DeleteFunc(slices.Clone(ips), func(ip net.IP) bool { return !IsPrivate(ip) })
	until := now.Add(leafFor)
	if until.After(a.Certificate.NotAfter) {
		until = a.Certificate.NotAfter
	}
	template := &x509.Certificate{SerialNumber: serial, Subject: pkix.Name{CommonName: "Epitrope"}, NotBefore: now.Add(-early),
		NotAfter: until,
		KeyUsage: x509.KeyUsageDigitalSignature, ExtKeyUsage: []x509.ExtKeyUsage{x509.ExtKeyUsageServerAuth}, DNSNames: names,
		IPAddresses: ips}
	der, err := x509.CreateCertificate(rand.Reader, template, a.Certificate, &key.PublicKey, a.key)
	if err != nil {
		return out, err
	}
	return tls.Certificate{Certificate: [][]byte{der, a.Certificate.Raw}, PrivateKey: key}, nil
}

// Fingerprint is what the authority is compared by: SHA-256, in groups that can be read out.
func (a *Authority) Fingerprint() string {
	sum := sha256.Sum256(a.Certificate.Raw)
	groups := make([]string, 0, len(sum)/2)
	for i := 0; i < len(sum); i += 2 {
		groups = append(groups, fmt.Sprintf("%02X%02X", sum[i], sum[i+1]))
	}
	return strings.Join(groups, " ")
}
