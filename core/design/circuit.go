package design

import (
	"fmt"
	"math"
	"strings"

	"epitrope/core/alternator"
	"epitrope/core/battery"
	"epitrope/core/circuit"
	"epitrope/core/network"
	"epitrope/core/system"
)

// SeriesOhm is the resistance that a joining current meets from post to post.
func (d *Design) SeriesOhm() float64 { return math.Max(1e-4, d.Start.TotalOhm()+d.Aux.TotalOhm()) }

// A charger's set voltage is a little above the end of bulk, so that the state is the
// moment before its current begins to fall. Source: common practice, no source. From
// memory: the vehicle's own loom from battery to feed point.
const (
	taperV  = 0.05
	loomOhm = 0.05
)

// CircuitAt returns the installation in a state of the vehicle as an electrical
// network, with its solution. Nodes are named by component and terminal; ground is the
// start battery's minus. The error names the states there are, or the element that asks
// too much.
func (d *Design) CircuitAt(at string) (*network.Circuit, network.Solution, error) {
	ids := make([]string, len(d.States))
	for i, s := range d.States {
		ids[i] = s.ID
		if s.ID != at {
			continue
		}
		s.Stopped = s.Stopped || s.Err != nil
		laid := circuit.Lay(&d.System, d.Facts.N)
		solved, err := laid.Solve(s.State, s.Position)
		return laid.Now(), solved, err
	}
	return nil, network.Solution{}, fmt.Errorf("%q is not a state of this job; allowed are %s", at, strings.Join(ids, ", "))
}

// onBench lets a use have the system as a circuit, laid out anew after each build.
func (d *Design) onBench(use func(*circuit.Circuit)) {
	d.bench.solving.Lock()
	defer d.bench.solving.Unlock()
	if d.bench.laid == nil {
		d.bench.laid = circuit.Lay(&d.System, d.Facts.N)
	}
	use(d.bench.laid)
}

// minusAtCoupling is the minus that a short at the coupling finds: its own, or, at a relay,
// the vehicle's steel.
func (d *Design) minusAtCoupling() system.Terminal {
	if d.Kind.Charger() {
		return term("coupling", "31")
	}
	return term(system.StartEarth, "")
}

// RelaySensesA is what an open relay takes to watch the voltage. Source: common
// practice, no source.
const RelaySensesA = 0.005

// Regulation is how the alternator is taken to be regulated: not known is variable.
func (d *Design) Regulation() alternator.Regulation {
	if d.Facts.Varies() {
		return alternator.Variable
	}
	return alternator.Regulation(d.Facts.Regulation)
}

// StarterOhm is the starter as a resistance that takes its current from a charged battery.
func (d *Design) StarterOhm() float64 {
	return math.Max(0.001, battery.StarterOhm.Value(d.StartChemistry().RestV(1)*d.Facts.N, d.Facts.CrankA.Value, d.StartOhm()))
}

// CoilOffA stands for a coil without current.
const CoilOffA = 1e-6
