package prove

import (
	"sync"

	"epitrope/core/circuit"
	"epitrope/core/system"
)

// laid is an installation with its circuits laid out: as many as are solved at once. Laying one out takes longer than to
// change what its wires resist.
type laid struct {
	sys *system.System
	n   float64

	mu   sync.Mutex
	free []*circuit.Circuit
}

// as is the circuit of the installation with a change of what its wires and fuses resist; is false where that is more than a change. It
// is the caller's until done.
func (l *laid) as(changed *system.System) (c *circuit.Circuit, done func(), is bool) {
	if c = l.take(); c == nil {
		c = circuit.Lay(l.sys, l.n)
	}
	return c, func() { l.put(c) }, c.Rewire(changed)
}

func (l *laid) take() (c *circuit.Circuit) {
	l.mu.Lock()
	defer l.mu.Unlock()
	if last := len(l.free) - 1; last >= 0 {
		c, l.free = l.free[last], l.free[:last]
	}
	return c
}

func (l *laid) put(c *circuit.Circuit) {
	l.mu.Lock()
	defer l.mu.Unlock()
	l.free = append(l.free, c)
}
