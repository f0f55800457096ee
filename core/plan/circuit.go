package plan

import (
	"fmt"
	"strings"

	"epitrope/core/circuit"
	"epitrope/core/job"
	"epitrope/core/network"
	"epitrope/core/parts"
	"epitrope/core/system"
)

// A charger's set voltage is a little above the end of bulk, so that the state is the
// moment before its current begins to fall. Source: common practice, no source. From
// memory: the vehicle's own loom from battery to feed point.
const (
	taperV  = 0.05
	loomOhm = 0.05
)

// Circuit returns the installation of a job in a state of the vehicle as an electrical
// network, with its solution. Nodes are named by component and terminal; ground is the
// start battery's minus. The error names the states there are, or the element that asks
// too much.
func Circuit(doc job.Document, book parts.Book, at string) (*network.Circuit, network.Solution, error) {
	d := newDesign(doc, book)
	ids := make([]string, len(d.states))
	for i, s := range d.states {
		ids[i] = s.id
		if s.id != at {
			continue
		}
		s.Stopped = s.Stopped || s.err != nil
		laid := d.lay()
		solved, err := laid.Solve(s.State)
		return laid.Now(), solved, err
	}
	return nil, network.Solution{}, fmt.Errorf("%q is not a state of this job; allowed are %s", at, strings.Join(ids, ", "))
}

// lay is the system as a circuit, laid anew after each build.
func (d *design) lay() *circuit.Circuit {
	if d.laid == nil {
		d.laid = circuit.Lay(&d.system, d.facts.N)
	}
	return d.laid
}

// minusAtCoupling is the minus that a short at the coupling finds: its own, or, at a relay,
// the vehicle's steel.
func (d *design) minusAtCoupling() system.Terminal {
	if d.kind.Charger() {
		return term("coupling", "31")
	}
	return term(system.StartEarth, "")
}

// relaySensesA is what an open relay takes to watch the voltage. Source: common
// practice, no source.
const relaySensesA = 0.005

// had is a reading of an element or a node that this installation need not have: none
// there, none read.
func had(value float64, err error) float64 {
	if err != nil {
		return 0
	}
	return value
}
