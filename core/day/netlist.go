package day

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"epitrope/core/alternator"
	"epitrope/core/network"
)

// NoNetlistError is a rig of which some part has no counterpart in a netlist.
type NoNetlistError struct{ Why string }

func (e *NoNetlistError) Error() string { return "no netlist through time: " + e.Why }

// ramp is how long a step from outside takes in a netlist, in s.
const ramp = 1e-3

// Netlist writes a rig and what happens to it as a SPICE netlist through time: batteries
// with their charge and overvoltage, a steadily regulated alternator, a relay with
// hysteresis and without its delays, cables as the circuit has them, batteries at the
// temperature outside, the relay's coil as when it is open. step is the
// longest that the simulator may take, in s. It returns *NoNetlistError for what it
// cannot say: a charger's stages, other regulations, solar panels, a join by hand. Run,
// it prints time and the volts of the start battery, at what the relay senses, behind
// it, and of the aux battery.
func Netlist(rig *Rig, pattern Pattern, cond Conditions, step float64) (string, error) {
	switch {
	case rig.Charger != nil:
		return "", &NoNetlistError{"a charger goes through stages"}
	case rig.Machine.Regulation != alternator.Fixed:
		return "", &NoNetlistError{"only a steady regulation is written"}
	case rig.Solar != nil:
		return "", &NoNetlistError{"solar panels follow the sun"}
	case slices.ContainsFunc(pattern, func(s Segment) bool { return s.Own.AirC != nil }):
		return "", &NoNetlistError{"batteries are written at one temperature, and a segment has its own"}
	}
	w := &writer{rig: rig, cond: cond}
	skip := []string{rig.Machine.Element, rig.Start.Element, rig.Aux.Element, rig.Vehicle, rig.House, rig.Starter}
	if j := rig.Join; j != nil {
		skip = append(skip, j.Switch)
	}
	fmt.Fprintf(&w.b, "* an installation through %.0f s\n", pattern.Seconds())
	w.b.WriteString(rig.Circuit.Lines(skip...))
	w.timeline(pattern)
	w.bank(&rig.Start, rig.Nodes.Bus, "0")
	w.bank(&rig.Aux, rig.Nodes.AuxPlus, rig.Nodes.AuxZero)
	if err := w.join(pattern); err != nil {
		return "", err
	}
	n := rig.Nodes
	pairs := [][2]string{{n.Bus, "0"}, {n.SensePlus, n.SenseZero}, {n.Out, "0"}, {n.AuxPlus, n.AuxZero}}
	fmt.Fprintf(&w.b, ".options reltol=1e-5 abstol=1e-9 vntol=1e-7 method=gear\n.control\ntran %.9g %.9g 0 %.9g uic\nset "+
		"wr_singlescale\nset numdgt=9\nwrdata /dev/stdout", step, pattern.Seconds(), step)
	for _, p := range pairs {
		fmt.Fprintf(&w.b, " v(%s)", network.SpiceName(p[0]))
		if p[1] != "0" {
			fmt.Fprintf(&w.b, "-v(%s)", network.SpiceName(p[1]))
		}
	}
	w.b.WriteString("\nquit\n.endc\n.end\n")
	return w.b.String(), nil
}

type writer struct {
	b    strings.Builder
	rig  *Rig
	cond Conditions
}

// timeline writes what changes from outside as sources stepped in time, and the machine,
// the loads and the starter that follow them.
func (w *writer) timeline(pattern Pattern) {
	r := &runner{rig: w.rig, cond: w.cond}
	type column struct {
		name string
		of   func(now) float64
	}
	columns := []column{
		{"output", func(n now) float64 {
			if !n.running {
				return 0
			}
			return n.outputA
		}},
		{"vehicle", func(n now) float64 { return n.vehicleA }},
		{"house", func(n now) float64 { return n.houseA }},
		{"starter", func(n now) float64 { return truth(n.kind.cranks()) }},
		{"key", func(n now) float64 { return truth(n.kind.live()) }},
		{"runs", func(n now) float64 { return truth(n.running) }},
	}
	points := make([][]string, len(columns))
	last := make([]float64, len(columns))
	begin := 0.0
	for _, s := range pattern {
		end := begin + s.Seconds
		for r.t = begin; r.t < end-1e-9; r.t = r.now.until {
			r.now = r.during(s, end)
			for i, c := range columns {
				v := c.of(r.now)
				if r.t > 0 && v == last[i] {
					continue
				}
				if r.t > 0 {
					points[i] = append(points[i], fmt.Sprintf("%.9g %.9g", r.t, last[i]))
				}
				points[i] = append(points[i], fmt.Sprintf("%.9g %.9g", r.t+math.Min(r.t, ramp), v))
				last[i] = v
			}
		}
		begin = end
	}
	for i, c := range columns {
		points[i] = append(points[i], fmt.Sprintf("%.9g %.9g", begin+1, last[i]))
		fmt.Fprintf(&w.b, "v_at_%s at_%s 0 pwl(%s)\n", c.name, c.name, strings.Join(points[i], "\n+ "))
	}
	n, rig := w.rig.N, w.rig
	bus, machine := network.SpiceName(rig.Nodes.Bus), network.SpiceName(rig.Nodes.Machine)
	outside := w.cond.OutsideC
	// The engine space as a voltage: warmed with one time constant, cooled with another.
	fmt.Fprintf(&w.b, "c_space space 0 1 ic=%.9g\nb_space 0 space i=v(at_runs)*(%.9g-v(space))/%g+(1-v(at_runs))*(%.9g-v(space))/%g\n",
		outside, outside+rig.EngineSpaceK, spaceUpS, outside, spaceDownS)
	cold, hot := alternator.Label{LowA: 1, RatedA: 2}.HotOutput(6000, 0)/2, alternator.Label{LowA: 1, RatedA: 2}.HotOutput(6000, 100)/2
	fmt.Fprintf(&w.b, "b_machine 0 %s i=max(0, min(v(at_output)*(%.9g+v(space)*%.9g), (%.9g-v(%s))/%g))\n",
		machine, cold, (hot-cold)/100, n*(rig.Machine.WarmV+w.cond.RegulationV), bus, network.RegulationOhm)
	fmt.Fprintf(&w.b, "b_vehicle %s 0 i=v(at_vehicle)\n", bus)
	fmt.Fprintf(&w.b, "b_house %s %s i=v(at_house)\n", network.SpiceName(rig.Nodes.AuxPlus), network.SpiceName(rig.Nodes.AuxZero))
	for _, e := range rig.Circuit.Elements {
		if s, ok := e.(network.Switch); ok && s.Name == rig.Starter {
			fmt.Fprintf(&w.b, "b_starter %s 0 i=v(%s)*v(at_starter)*%.9g\n", bus, bus, 1/s.Ohm)
		}
	}
}

func truth(b bool) float64 {
	if b {
		return 1
	}
	return 0
}

// tablePoints is how finely a battery is written by its charge.
const tablePoints = 400

// n is the voltage of a battery's side / 12 V.
func (w *writer) n(b *Bank) float64 {
	if b == &w.rig.Aux {
		return w.rig.AuxN
	}
	return w.rig.N
}

// bank writes a battery: all its charge as the voltage of one capacitor, its overvoltage
// as that of another, and what depends on charge as tables.
func (w *writer) bank(b *Bank, plus, minus string) {
	tempC := w.cond.OutsideC
	id := network.SpiceName(b.Element)
	table := func(of func(cell) float64) string {
		parts := make([]string, 0, tablePoints+1)
		for i := range tablePoints + 1 {
			// Finer towards full, where acceptance bends.
			at := float64(i) / tablePoints
			soc := 1 - (1-at)*(1-at)
			c := b.cellAt(w.n(b), soc, 0, tempC, false)
			parts = append(parts, fmt.Sprintf("%.7g,%.9g", soc, of(c)))
		}
		return fmt.Sprintf("pwl(v(%s_soc),%s)", id, strings.Join(parts, ",\n+ "))
	}
	c := b.cellAt(w.n(b), b.SOC, 0, tempC, false)
	seconds := b.CapacityAh * hour
	across := fmt.Sprintf("v(%s,%s)", network.SpiceName(plus), network.SpiceName(minus))
	fmt.Fprintf(&w.b, "b_%[1]s_soc %[1]s_soc 0 v=min(1, max(0, v(%[1]s_q)-v(%[1]s_over)*%.9[2]g))\n", id, c.farad/seconds)
	fmt.Fprintf(&w.b, "b_%[1]s_own %[1]s_own 0 v=%[2]s\nb_%[1]s_ohm %[1]s_ohm 0 v=%[3]s\nb_%[1]s_take %[1]s_take 0 v=%[4]s\nb_%[1]s_give "+
		"%[1]s_give 0 v=%[5]s\n", id,
		table(func(c cell) float64 { return c.own }), table(func(c cell) float64 { return c.ohm * 1000 }),
		table(func(c cell) float64 { return c.takeOhm }), table(func(c cell) float64 { return c.giveOhm * 1000 }))
	fmt.Fprintf(&w.b, "b_%[1]s %[2]s %[3]s i=1000*(v(%[1]s_own)+v(%[1]s_over)-%[4]s)/v(%[1]s_ohm)\n", id, network.SpiceName(minus),
		network.SpiceName(plus), across)
	fmt.Fprintf(&w.b, "b_%[1]s_turn %[1]s_turn 0 v=(v(%[1]s_over) > 0 ? v(%[1]s_over)/v(%[1]s_take) : 1000*v(%[1]s_over)/v(%[1]s_give))\n", id)
	into := fmt.Sprintf("(1000*(%s-v(%[2]s_own)-v(%[2]s_over))/v(%[2]s_ohm))", across, id)
	fmt.Fprintf(&w.b, "c_%[1]s_over %[1]s_over 0 %.9[2]g ic=0\nb_%[1]s_over 0 %[1]s_over i=%[3]s-v(%[1]s_turn)\n", id, c.farad, into)
	fmt.Fprintf(&w.b, "c_%[1]s_q %[1]s_q 0 %.9[2]g ic=%.9[3]g\nb_%[1]s_q 0 %[1]s_q i=%[4]s-max(0, v(%[1]s_turn))*(v(%[1]s_soc) > 0.999999 "+
		"? 1 : %.9[5]g)\n",
		id, seconds, b.SOC, into, 1-b.Chemistry.Efficiency)
}

// join writes the contact between the batteries.
func (w *writer) join(pattern Pattern) error {
	j := w.rig.Join
	if j == nil {
		return nil
	}
	for _, s := range pattern {
		if s.Kind.held() {
			return &NoNetlistError{"a join by hand"}
		}
	}
	ohm := 0.0
	for _, e := range w.rig.Circuit.Elements {
		if s, ok := e.(network.Switch); ok && s.Name == j.Switch {
			ohm = s.Ohm
		}
	}
	in, out, zero := network.SpiceName(w.rig.Nodes.SensePlus), network.SpiceName(w.rig.Nodes.Out), network.SpiceName(w.rig.Nodes.SenseZero)
	n := w.rig.N
	switch j.By {
	case BySensing:
		if j.Sensing.TwoWay {
			return &NoNetlistError{"a relay that senses both ways"}
		}
		fmt.Fprintf(&w.b, "s_join %s %s %s %s relay off\n.model relay sw(vt=%.9g vh=%.9g ron=%.9g roff=1e9)\n", in, out, in, zero,
			n*(j.Sensing.CutInV+j.Sensing.CutOutV)/2, n*(j.Sensing.CutInV-j.Sensing.CutOutV)/2, ohm)
	case ByCoil:
		live, ok := map[Trigger]string{Ignition: "at_key", Running: "at_runs"}[j.Trigger]
		if !ok {
			return &NoNetlistError{"a coil's feed other than with the ignition or the engine"}
		}
		fmt.Fprintf(&w.b, "b_join %s %s i=v(%s,%s)*v(%s)*%.9g\n", in, out, in, out, live, 1/ohm)
	case Always:
		fmt.Fprintf(&w.b, "r_join %s %s %.9g\n", in, out, ohm)
	case Never:
		fmt.Fprintf(&w.b, "r_join %s %s 1e9\n", in, out)
	}
	return nil
}
