package prove

import (
	"sync"

	"epitrope/core/circuit"
	"epitrope/core/system"
)

// laid is an installation with its circuits laid out: as many as are solved at once. Laying one out takes longer than to
// change what its wires resist.
type laid struct {
	sys  *system.System
	n    float64
	free sync.Pool // of *circuit.Circuit
}

// as is the circuit of the installation with a change: of what wires and fuses resist, or of more. It is the caller's until done.
func (l *laid) as(changed *system.System, resists bool) (c *circuit.Circuit, done func()) {
	if !resists {
		return circuit.Lay(changed, l.n), func() {}
	}
	c, is := l.free.Get().(*circuit.Circuit)
	if !is {
		c = circuit.Lay(l.sys, l.n)
	}
	if !c.Rewire(changed) {
		return circuit.Lay(changed, l.n), func() {}
	}
	return c, func() { l.free.Put(c) }
}
