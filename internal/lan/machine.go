package lan

import (
	"net"
	"os"
	"slices"
	"strings"
)

// Machine is what a machine is reached by on its network.
type Machine struct {
	Names []string // its own first; none where it has no name that can be used
	IPs   []net.IP // private ones
}

// This is the machine that it runs on.
func This() Machine {
	m := Machine{}
	if name, err := os.Hostname(); err == nil {
		m.Names = namesOf(name)
	}
	m.Names = append(m.Names, "localhost")
	addresses, err := net.InterfaceAddrs()
	if err != nil {
		return m
	}
	for _, a := range addresses {
		if n, is := a.(*net.IPNet); is && IsPrivate(n.IP) {
			m.IPs = append(m.IPs, n.IP)
		}
	}
	return m
}

// namesOf are what a host of a name is called: by its first label, and as phones find it, with .local.
func namesOf(host string) []string {
	first, _, _ := strings.Cut(strings.ToLower(strings.TrimSpace(host)), ".")
	if first == "" || first == "localhost" || strings.Trim(first, "abcdefghijklmnopqrstuvwxyz0123456789-") != "" {
		return nil
	}
	return []string{first, first + ".local"}
}

// Hosts are all that a browser may call it: names and addresses, as they stand in an address.
func (m Machine) Hosts() []string {
	list := slices.Clone(m.Names)
	for _, ip := range m.IPs {
		list = append(list, ip.String())
	}
	return list
}

// Best are the hosts to tell a phone of, the best first: a name that phones find, then addresses that are not the machine's own loop.
func (m Machine) Best() (list []string) {
	for _, n := range m.Names {
		if strings.HasSuffix(n, ".local") {
			list = append(list, n)
		}
	}
	for _, ip := range m.IPs {
		if !ip.IsLoopback() && ip.To4() != nil && !ip.IsLinkLocalUnicast() {
			list = append(list, ip.String())
		}
	}
	return list
}
