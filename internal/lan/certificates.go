package lan

import (
	"crypto/tls"
	"slices"
	"sync"
	"time"
)

// How often the machine's addresses are looked at, which a router may change, and how long before its end a certificate is made anew.
const (
	lookEvery = 30 * time.Second
	renewAt   = 30 * 24 * time.Hour
)

// Certificates are the server's, under its authority: made anew as its addresses change, and before they end.
type Certificates struct {
	authority *Authority
	find      func() Machine
	now       func() time.Time

	mutex  sync.Mutex
	is     Machine
	looked time.Time
	pair   *tls.Certificate
	hosts  []string // that the pair is for
	until  time.Time
}

// NewCertificates are those of this machine. The authority is nil where certificates were given: then only Machine is of use.
func NewCertificates(a *Authority) *Certificates {
	return &Certificates{authority: a, find: This, now: time.Now}
}

// Machine is the machine as it is reached now.
func (c *Certificates) Machine() Machine {
	c.mutex.Lock()
	defer c.mutex.Unlock()
	return c.machine()
}

func (c *Certificates) machine() Machine {
	if now := c.now(); now.Sub(c.looked) > lookEvery {
		c.is, c.looked = c.find(), now
	}
	return c.is
}

// Get is the certificate that holds now.
func (c *Certificates) Get(*tls.ClientHelloInfo) (*tls.Certificate, error) {
	c.mutex.Lock()
	defer c.mutex.Unlock()
	m, now := c.machine(), c.now()
	if c.pair != nil && slices.Equal(c.hosts, m.Hosts()) && now.Before(c.until.Add(-renewAt)) {
		return c.pair, nil
	}
	pair, err := c.authority.Certify(m.Names, m.IPs, now)
	if err != nil {
		return nil, err
	}
	c.pair, c.hosts, c.until = &pair, m.Hosts(), now.Add(leafFor)
	return c.pair, nil
}
