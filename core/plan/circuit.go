package plan

import (
	"fmt"
	"slices"
	"strings"

	"epitrope/core/cable"
	"epitrope/core/coupling"
	"epitrope/core/job"
	"epitrope/core/network"
	"epitrope/core/parts"
)

// recharge is the resistance, in Ω at 12 V, that a full start battery puts up to
// being charged: an ampere or two at charging voltage. Source: common practice, no
// source.
const recharge = 1.0

// taper is how far, in V, a charger's set voltage is above the end of bulk, so that
// the state is the moment before its current begins to fall.
const taper = 0.05

// Circuit returns the run of a job in a state of the vehicle as an electrical
// network, with its solution. Nodes are named by component and terminal; ground is
// the start battery's minus. A charger that would stop is not in it. The error names
// the states there are, or the element that has no solution.
func Circuit(doc job.Document, book parts.Book, at string) (*network.Circuit, network.Solution, error) {
	d := newDesign(doc, book)
	ids := make([]string, len(d.states))
	for i, s := range d.states {
		ids[i] = s.id
		if s.id != at {
			continue
		}
		c, charger := d.circuit(s, d.availableA(s))
		if charger != nil && s.err != nil {
			c.Elements = slices.DeleteFunc(c.Elements, func(e network.Element) bool { return e.ElementName() == charger.Name })
		}
		solved, err := network.Solve(c)
		return c, solved, err
	}
	return nil, network.Solution{}, fmt.Errorf("%q is not a state of this job; allowed are %s", at, strings.Join(ids, ", "))
}

// availableA is what the alternator has for charging in a state.
func (d *design) availableA(s state) float64 {
	if s.id == "idle" {
		return d.idleA()
	}
	return d.cruiseA()
}

// circuit is the run in a state of the vehicle, as an electrical network. Ground is
// the start battery's minus; nodes are named by component and terminal.
func (d *design) circuit(s state, availableA float64) (*network.Circuit, *network.Converter) {
	c := network.New()
	n := d.facts.N
	c.Add(network.Alternator{Name: "alternator", Plus: c.Node("start.30"), Volts: s.setV, MaxA: availableA},
		network.Battery{Name: "start battery", Plus: c.Node("start.30"), Volts: surfaceV * n, Ohm: d.startOhm(), ChargeOhm: recharge * n},
		network.Resistance{Name: "f1", A: c.Node("start.30"), B: c.Node("f1.out"), Ohm: d.start.fusedOhm()})
	if d.kind == coupling.DCDC {
		charger := d.chargerCircuit(c, s)
		return c, &charger
	}
	d.relayCircuit(c, s)
	return c, nil
}

// copperOhm is a length of the leg's cable as warm as it runs.
func (l *leg) copperOhm(m float64) float64 {
	return cable.Resistance.Value(cable.OhmPerM(l.trial.Size.AreaMM2), m, cable.Alpha, l.trial.ConductorC)
}

// feed joins two nodes by the leg's cable, by way of the trailer plug where the
// run crosses it.
func (d *design) feed(c *network.Circuit, l *leg, from, to string, crosses bool) {
	if plug := d.plugOhm() / 2; crosses && plug > 0 {
		c.Add(network.Resistance{Name: "x1 plus", A: c.Node("x1.in"), B: c.Node(to), Ohm: plug})
		to = "x1.in"
	}
	c.Add(network.Resistance{Name: l.id, A: c.Node(from), B: c.Node(to), Ohm: l.copperOhm(l.lengthM.Value)})
}

// home is the way from a minus terminal back to the start battery.
func (d *design) home(c *network.Circuit, l *leg, from string) {
	c.Add(network.Resistance{Name: "n1", A: c.Node(from), B: c.Node("e2"), Ohm: l.copperOhm(l.returnM)},
		network.Resistance{Name: "return joints", A: c.Node("e2"), B: network.Ground, Ohm: l.steelOhm + d.plugOhm()/2})
}

func (d *design) chargerCircuit(c *network.Circuit, s state) network.Converter {
	d.feed(c, &d.start, "f1.out", "coupling.30", true)
	d.home(c, &d.start, "coupling.31")
	charger := network.Converter{Name: "charger", InPlus: c.Node("coupling.30"), OutPlus: c.Node("coupling.out"), Minus: c.Node("coupling.31"),
		OutV: d.profile.AbsorptionHigh + taper, MaxOutA: d.charger.OutputA, Efficiency: d.charger.Efficiency}
	if s.low {
		charger.Efficiency = d.charger.EfficiencyLow
	}
	// At the end of bulk the battery stands just so high that the full current
	// still flows at the profile's voltage.
	own := d.profile.AbsorptionHigh - charger.MaxOutA*(d.aux.totalOhm()+d.auxOhm())
	if s.early {
		own = min(own, d.auxEmptyV())
	}
	c.Add(charger)
	d.feed(c, &d.aux, "coupling.out", "f2.in", false)
	c.Add(network.Resistance{Name: "f2", A: c.Node("f2.in"), B: c.Node("aux.30"), Ohm: d.aux.fusedOhm()},
		network.Battery{Name: "aux battery", Plus: c.Node("aux.30"), Minus: c.Node("aux.31"), Volts: own, Ohm: d.auxOhm()},
		network.Resistance{Name: "n2", A: c.Node("aux.31"), B: c.Node("coupling.31"), Ohm: d.aux.copperOhm(d.aux.returnM) + d.aux.steelOhm})
	return charger
}

func (d *design) relayCircuit(c *network.Circuit, s state) {
	d.feed(c, &d.start, "f1.out", "coupling.30", false)
	if s.joined {
		c.Add(network.Resistance{Name: "relay", A: c.Node("coupling.30"), B: c.Node("coupling.87"), Ohm: d.relay.ContactOhm})
	}
	d.feed(c, &d.aux, "coupling.87", "f2.in", true)
	accepts := 0.0
	if d.facts.Chemistry.Lead {
		accepts = d.figures["accepts"].Unrounded
	}
	c.Add(network.Resistance{Name: "f2", A: c.Node("f2.in"), B: c.Node("aux.30"), Ohm: d.aux.fusedOhm()},
		network.Battery{Name: "aux battery", Plus: c.Node("aux.30"), Minus: c.Node("aux.31"), Volts: d.auxEmptyV(), Ohm: d.auxOhm(), MaxChargeA: accepts})
	d.home(c, &d.aux, "aux.31")
}
