package plan

import (
	"errors"
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

// laid is the installation as a circuit, whose values and switches a state sets.
type laid struct {
	d      *design
	solver *network.Solver

	machine, second, sun *network.Alternator
	start, aux           *network.Battery
	vehicle, house, feed *network.CurrentLoad
	charger              *network.Converter
	coil                 *network.Wire
	switches             map[string]*network.Switch
}

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
		s.stopped = s.stopped || s.err != nil
		l := d.lay()
		l.set(&s)
		err := l.solver.Solve()
		if err != nil {
			return l.solver.Now(), network.Solution{}, err
		}
		return l.solver.Now(), l.solver.Solution(), nil
	}
	return nil, network.Solution{}, fmt.Errorf("%q is not a state of this job; allowed are %s", at, strings.Join(ids, ", "))
}

// lay lays the installation out: its wires, its components with everything at rest, and
// what a state may switch on. It is laid anew after each build of the system.
func (d *design) lay() *laid {
	c := network.New()
	d.sources(c)
	d.system.Lay(c, system.Feed, system.Return, system.Chassis, system.Signal)
	d.fuse(c, "f1", &d.start)
	d.fuse(c, "f2", &d.aux)
	d.plug(c)
	d.extrasIn(c)
	if d.wired() {
		d.signalWire(c)
	}
	if d.kind.Charger() {
		d.chargerIn(c)
	}
	d.contactIn(c)
	d.coilIn(c)
	minus := c.Node(d.minusAtCoupling())
	c.Add(network.Switch{Name: shortC1, A: c.Node(d.arrives().Node()), B: minus, Ohm: shortOhm},
		network.Switch{Name: shortC2, A: c.Node(d.leaves().Node()), B: minus, Ohm: shortOhm})
	solver, err := network.NewSolver(c)
	if err != nil {
		panic(err) // the system is no circuit: a fault of ours
	}
	l := &laid{d: d, solver: solver, start: solver.Battery("start battery"), aux: solver.Battery("aux battery"), machine: solver.Alternator("alternator"),
		sun: solver.Alternator("solar"), vehicle: solver.CurrentLoad("vehicle"), house: solver.CurrentLoad("house"), switches: map[string]*network.Switch{}}
	for _, e := range c.Elements {
		switch e := e.(type) {
		case network.Switch:
			l.switches[e.Name] = solver.Switch(e.Name)
		case network.Converter:
			l.charger, l.feed = solver.Converter(e.Name), solver.CurrentLoad("feed")
		}
	}
	if d.kind == coupling.SecondAlternator {
		l.second = solver.Alternator("second alternator")
	}
	if d.kind == coupling.VSR {
		l.coil = solver.Wire("coil")
	}
	return l
}

// The dead shorts that a state may have: at the end of each run.
const (
	shortC1 = "short-c1"
	shortC2 = "short-c2"
)

// minusAtCoupling is the node that a short at the coupling finds: its own minus, or,
// at a relay, the vehicle's steel.
func (d *design) minusAtCoupling() string {
	if d.kind.Charger() {
		return "coupling.31"
	}
	return "0"
}

func (d *design) sources(c *network.Circuit) {
	bus := c.Node("start.30")
	plus, minus := d.houseEnds()
	c.Add(network.Alternator{Name: "alternator", Plus: c.Node("alternator.B+"), Sense: bus},
		network.Battery{Name: "start battery", Plus: bus, Volts: 12 * d.facts.N, Ohm: d.startOhm()},
		network.CurrentLoad{Name: "vehicle", A: bus},
		network.Switch{Name: "starter", A: bus, Ohm: d.starterOhm()},
		network.Battery{Name: "aux battery", Plus: c.Node("aux.30"), Minus: c.Node("aux.31"), Volts: 12 * d.facts.N, Ohm: d.auxOhm()},
		network.CurrentLoad{Name: "house", A: c.Node(plus), B: c.Node(minus)},
		network.Alternator{Name: "solar", Plus: c.Node(d.auxBus().Node()), Minus: c.Node(d.auxMinus().Node()), Volts: d.profile.AbsorptionHigh})
	if d.kind == coupling.SecondAlternator {
		c.Add(network.Alternator{Name: "second alternator", Plus: c.Node("second.B+"), Sense: c.Node("second.B+"), Volts: d.secondV()},
			network.Resistance{Name: "second alternator at rest", A: c.Node("second.B+"), Ohm: blockedOhm})
	}
	if d.facts.Extras.Winch {
		c.Add(network.Switch{Name: "winch", A: c.Node("w1.30"), B: c.Node(d.winchMinus()), Ohm: d.winchOhm()})
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
func (d *design) signalWire(c *network.Circuit) {
	c.Add(network.Switch{Name: "loom", A: c.Node("start.30"), B: c.Node("feed.15"), Ohm: loomOhm})
	c.Add(network.Resistance{Name: "f3", A: c.Node("f3.in"), B: c.Node("f3.out"), Ohm: protect.Resistance.Value(d.trigger.fuse.RatingA)})
	if d.kind.Coil() {
		return
	}
	c.Add(network.Resistance{Name: "trigger input", A: c.Node("coupling.15"), B: c.Node("coupling.31"), Ohm: 12 * d.facts.N / triggerA})
}

func (d *design) chargerIn(c *network.Circuit) {
	in, minus := c.Node("coupling.30"), c.Node("coupling.31")
	if d.kind == coupling.DCDCChangeover {
		c.Add(network.Switch{Name: "rest contact", A: c.Node("k1.30"), B: c.Node("k1.87a"), Ohm: d.changeover.ContactOhm})
	}
	c.Add(network.Switch{Name: "charger at rest", A: in, B: minus, Ohm: d.standbyOhm()},
		network.CurrentLoad{Name: "feed", A: in, B: minus}, d.chargerAt(c))
}

// standbyOhm is a charger's input at rest; one that takes nothing is as good as open.
func (d *design) standbyOhm() float64 {
	return 12 * d.facts.N / max(d.charger.StandbyA, coilOffA)
}

// chargerAt is the charger as a converter between the circuit's nodes.
func (d *design) chargerAt(c *network.Circuit) network.Converter {
	minus := c.Node("coupling.31")
	return network.Converter{Name: "charger", InPlus: c.Node("coupling.30"), InMinus: minus, OutPlus: c.Node("coupling.out"), OutMinus: minus,
		OutV: d.setV() + taperV, MaxOutA: d.charger.OutputA, Efficiency: d.charger.Efficiency}
}

// contactIn is what joins the batteries, and a sensing relay's coil.
func (d *design) contactIn(c *network.Circuit) {
	if d.kind.Joins() || d.kind == coupling.DCDCChangeover {
		c.Add(network.Switch{Name: "contact", A: c.Node(d.arrives().Node()), B: c.Node(d.leaves().Node()), Ohm: d.joinOhm()})
	}
	if d.kind == coupling.VSR {
		c.Add(network.Resistance{Name: "coil", A: c.Node("coupling.30"), B: c.Node("coupling.31"), Ohm: 12 * d.facts.N / relaySensesA})
	}
}

// relaySensesA is what an open relay takes to watch the voltage. Source: common
// practice, no source.
const relaySensesA = 0.005

// put closes or opens a switch, where the installation has it.
func (l *laid) put(name string, closed bool) {
	if w, ok := l.switches[name]; ok {
		w.Closed = closed
	}
}

// set puts a state into the circuit.
func (l *laid) set(s *state) {
	d, n := l.d, l.d.facts.N
	l.machine.Volts, l.machine.MaxA = s.setV, 0
	if s.setV > 0 {
		l.machine.MaxA = max(0, s.machineA)
	}
	l.start.Volts, l.start.Ohm, l.start.ChargeOhm = s.startV, s.startOhm, rechargeOhm*n
	if s.fresh {
		l.start.ChargeOhm = s.startOhm
	}
	l.aux.Volts, l.aux.MaxChargeA = s.auxOwnV, s.acceptsA
	l.vehicle.Amps, l.house.Amps, l.sun.MaxA = s.loadA, s.houseA, s.sunA
	if l.second != nil {
		l.second.MaxA = s.secondA
	}
	l.put(shortC1, s.short == shortC1)
	l.put(shortC2, s.short == shortC2)
	live := s.setV > 0 || s.feedLive
	l.put("starter", s.cranks)
	l.put("winch", s.winches)
	l.put("q1", !s.isolated)
	l.put("loom", live)
	l.put("contact", s.joined)
	l.put("relay output", s.joined)
	l.put("rest contact", !s.joined)
	l.put(d.seriesSwitch()+" in series", live)
	l.put("s1 with the signal", live && s.joined)
	l.put("s1", s.joined && (d.control() == alone || !live || !d.wired()))
	if l.coil != nil {
		amps := relaySensesA
		if s.joined {
			amps = d.contact.Sensing.CoilA
		}
		l.coil.Set(12 * n / amps)
	}
	if l.charger != nil {
		rests := s.stopped || s.joined // it cannot charge across a closed bypass
		l.put("charger at rest", rests)
		l.charger.MaxOutA, l.charger.Efficiency, l.feed.Amps = d.charger.OutputA, d.charger.Efficiency, 0
		if s.worstEfficiency {
			l.charger.Efficiency = d.charger.EfficiencyLow
		}
		if rests {
			l.charger.MaxOutA = 0
		} else if s.setV > 0 {
			l.feed.Amps = d.facts.Survey.FeedA.Value
		}
	}
}

// solveIn solves a circuit in a state. An error is told as a sentence about the element.
func (l *laid) solveIn(s *state) error {
	l.set(s)
	err := l.solver.Solve()
	var at *network.Error
	if errors.As(err, &at) {
		return fmt.Errorf("the %s %s", at.Element, at.Why)
	}
	if err == nil {
		s.solved = l.solver.Solution()
	}
	return err
}

// had is a reading of an element or a node that this installation need not have: none
// there, none read.
func had(value float64, err error) float64 {
	if err != nil {
		return 0
	}
	return value
}
