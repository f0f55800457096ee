package plan

import (
	"fmt"
	"strings"

	"epitrope/core/coupling"
	"epitrope/core/job"
	"epitrope/core/network"
	"epitrope/core/parts"
	"epitrope/core/protect"
	"epitrope/core/system"
)

// Sources and loads in a circuit. Source: common practice, no source: a full start
// battery puts up a resistance of about an ohm, an ampere or two at charging voltage; a
// charger's set voltage is a little above the end of bulk, so that the state is the
// moment before its current begins to fall; a short has next to no resistance. From
// memory: the vehicle's own loom from battery to feed point.
const (
	rechargeOhm = 1.0
	taperV      = 0.05
	shortOhm    = 1e-6
	loomOhm     = 0.05
	blockedOhm  = 1e6 // a machine's rectifier, blocking
)

// Circuit returns the installation of a job in a state of the vehicle as an electrical
// network, with its solution. Nodes are named by component and terminal; ground is the
// start battery's minus. A charger that has stopped is not in it. The error names the
// states there are, or the element that has no solution.
func Circuit(doc job.Document, book parts.Book, at string) (*network.Circuit, network.Solution, error) {
	d := newDesign(doc, book)
	ids := make([]string, len(d.states))
	for i, s := range d.states {
		ids[i] = s.id
		if s.id != at {
			continue
		}
		s.stopped = s.stopped || s.err != nil
		c := d.circuit(&s)
		solved, err := network.Solve(c)
		return c, solved, err
	}
	return nil, network.Solution{}, fmt.Errorf("%q is not a state of this job; allowed are %s", at, strings.Join(ids, ", "))
}

// circuit is the system in a state: its wires, and its components as that state has
// them.
func (d *design) circuit(s *state) *network.Circuit {
	c := network.New()
	d.sources(c, s)
	d.system.Lay(c, system.Feed, system.Return, system.Chassis, system.Signal)
	d.fuse(c, "f1", &d.start)
	d.fuse(c, "f2", &d.aux)
	d.plug(c)
	d.extrasIn(c, s.isolated)
	if d.wired() {
		d.signalWire(c, s)
	}
	if d.kind.Charger() {
		d.chargerIn(c, s)
	}
	d.contactIn(c, s)
	d.coilIn(c, s)
	if s.short != "" {
		c.Add(network.Resistance{Name: "short", A: c.Node(s.short), B: c.Node(d.minusAtCoupling()), Ohm: shortOhm})
	}
	return c
}

// minusAtCoupling is the node that a short at the coupling finds: its own minus, or,
// at a relay, the vehicle's steel.
func (d *design) minusAtCoupling() string {
	if d.kind.Charger() {
		return "coupling.31"
	}
	return "0"
}

func (d *design) sources(c *network.Circuit, s *state) {
	bus := c.Node("start.30")
	if s.setV > 0 {
		c.Add(network.Alternator{Name: "alternator", Plus: c.Node("alternator.B+"), Sense: bus, Volts: s.setV, MaxA: s.machineA})
	}
	start := network.Battery{Name: "start battery", Plus: bus, Volts: s.startV, Ohm: s.startOhm, ChargeOhm: rechargeOhm * d.facts.N}
	if s.fresh {
		start.ChargeOhm = s.startOhm
	}
	c.Add(start)
	if s.loadA > 0 {
		c.Add(network.CurrentLoad{Name: "vehicle", A: bus, Amps: s.loadA})
	}
	if d.kind == coupling.SecondAlternator {
		c.Add(network.Resistance{Name: "second alternator at rest", A: c.Node("second.B+"), Ohm: blockedOhm})
	}
	if d.kind == coupling.SecondAlternator && s.secondA > 0 {
		c.Add(network.Alternator{Name: "second alternator", Plus: c.Node("second.B+"), Sense: c.Node("second.B+"), Volts: d.secondV(), MaxA: s.secondA})
	}
	if s.starterOhm > 0 {
		c.Add(network.Resistance{Name: "starter", A: bus, Ohm: s.starterOhm})
	}
	c.Add(network.Battery{Name: "aux battery", Plus: c.Node("aux.30"), Minus: c.Node("aux.31"), Volts: s.auxOwnV, Ohm: d.auxOhm(), MaxChargeA: s.acceptsA})
	plus, minus := d.houseEnds()
	if s.winchOhm > 0 {
		c.Add(network.Resistance{Name: "winch", A: c.Node("w1.30"), B: c.Node(d.winchMinus()), Ohm: s.winchOhm})
	}
	if s.sunA > 0 {
		c.Add(network.Alternator{Name: "solar", Plus: c.Node(d.auxBus().Node()), Minus: c.Node(d.auxMinus().Node()), Volts: d.profile.AbsorptionHigh, MaxA: s.sunA})
	}
	if s.houseA > 0 {
		c.Add(network.CurrentLoad{Name: "house", A: c.Node(plus), B: c.Node(minus), Amps: s.houseA})
	}
}

// fuse is a leg's fuse between its two studs.
func (d *design) fuse(c *network.Circuit, id string, l *leg) {
	c.Add(network.Resistance{Name: id, A: c.Node(id + ".in"), B: c.Node(id + ".out"), Ohm: l.fuseOhm()})
}

// plug is the trailer plug's contacts: two in the feed and, where the return comes by
// cable, two in that.
func (d *design) plug(c *network.Circuit) {
	if !d.facts.Place.Trailer {
		return
	}
	c.Add(network.Resistance{Name: "x1 plus", A: c.Node("x1.+"), B: c.Node("x1.+t"), Ohm: d.plugCard.Ohm})
	_, one := d.system.Wire("n1t")
	_, two := d.system.Wire("n2t")
	if one || two {
		c.Add(network.Resistance{Name: "x1 minus", A: c.Node("x1.-t"), B: c.Node("x1.-"), Ohm: d.plugCard.Ohm})
	}
}

// signalWire is the thin wire that tells a charger that the engine runs, or works a coil,
// and what its input takes.
func (d *design) signalWire(c *network.Circuit, s *state) {
	if s.setV > 0 || s.feedLive {
		c.Add(network.Resistance{Name: "loom", A: c.Node("start.30"), B: c.Node("feed.15"), Ohm: loomOhm})
	}
	c.Add(network.Resistance{Name: "f3", A: c.Node("f3.in"), B: c.Node("f3.out"), Ohm: protect.Resistance.Value(d.trigger.fuse.RatingA)})
	if d.kind.Coil() {
		return
	}
	c.Add(network.Resistance{Name: "trigger input", A: c.Node("coupling.15"), B: c.Node("coupling.31"), Ohm: 12 * d.facts.N / triggerA})
}

func (d *design) chargerIn(c *network.Circuit, s *state) {
	if d.kind == coupling.DCDCChangeover && !s.joined { // joined, its input hangs on the open contact
		c.Add(network.Resistance{Name: "rest contact", A: c.Node("k1.30"), B: c.Node("k1.87a"), Ohm: d.changeover.ContactOhm})
	}
	if s.stopped || s.joined { // it cannot charge across a closed bypass
		c.Add(network.Resistance{Name: "charger at rest", A: c.Node("coupling.30"), B: c.Node("coupling.31"), Ohm: 12 * d.facts.N / d.charger.StandbyA})
		return
	}
	c.Add(d.chargerAt(c, s))
	if feed := d.facts.Survey.FeedA.Value; feed > 0 && s.setV > 0 {
		c.Add(network.CurrentLoad{Name: "feed", A: c.Node("coupling.30"), B: c.Node("coupling.31"), Amps: feed})
	}
}

// chargerAt is the charger as a converter between the circuit's nodes.
func (d *design) chargerAt(c *network.Circuit, s *state) network.Converter {
	charger := network.Converter{Name: "charger", InPlus: c.Node("coupling.30"), OutPlus: c.Node("coupling.out"), Minus: c.Node("coupling.31"),
		OutV: d.setV() + taperV, MaxOutA: d.charger.OutputA, Efficiency: d.charger.Efficiency}
	if s.worstEfficiency {
		charger.Efficiency = d.charger.EfficiencyLow
	}
	return charger
}

// contactIn is what joins the batteries, where it is closed, and a sensing relay's coil.
func (d *design) contactIn(c *network.Circuit, s *state) {
	if s.joined {
		c.Add(network.Resistance{Name: "contact", A: c.Node(d.arrives().Node()), B: c.Node(d.leaves().Node()), Ohm: d.joinOhm()})
	}
	if d.kind != coupling.VSR {
		return
	}
	amps := relaySensesA
	if s.joined {
		amps = d.contact.Sensing.CoilA
	}
	c.Add(network.Resistance{Name: "coil", A: c.Node("coupling.30"), B: c.Node("coupling.31"), Ohm: 12 * d.facts.N / amps})
}

// relaySensesA is what an open relay takes to watch the voltage. Source: common
// practice, no source.
const relaySensesA = 0.005
