package network

import (
	"fmt"
	"slices"
	"strings"
)

// Netlist writes the circuit as a SPICE netlist that finds its operating point and
// Netlist writes the circuit as a SPICE netlist that switches it on from rest and lets it
// come to its point: a little capacitance at every node, sources first, then every
// converter and constant-power load ramped up by one common factor, v(ramp); those that
// only converters feed follow by v(later). It prints every node at the end. Converters
// that rest are named. Node names are the circuit's
// own, with characters that SPICE does not take replaced.
func (c *Circuit) Netlist(title string, resting ...string) (string, error) {
	later, err := c.waiting()
	if err != nil {
		return "", err
	}
	var b strings.Builder
	name := func(n Node) string { return SpiceName(c.names[n]) }
	fmt.Fprintf(&b, "* %s\n", strings.Map(printable, title))
	b.WriteString("v_ramp ramp 0 pwl(0 0 2m 0 10m 1)\nv_later later 0 pwl(0 0 12m 0 18m 1)\n")
	for _, e := range c.Elements {
		if slices.Contains(resting, e.ElementName()) {
			continue
		}
		ramp := "ramp"
		if slices.Contains(later, e.ElementName()) {
			ramp = "later"
		}
		b.WriteString(e.spice(name, ramp))
	}
	for _, name := range c.names[1:] {
		fmt.Fprintf(&b, "c_at_%[1]s %[1]s 0 10u ic=0\nr_at_%[1]s %[1]s 0 %.9[2]g\n", SpiceName(name), 100/leak)
	}
	b.WriteString(".options method=gear reltol=1e-6 abstol=1e-6 vntol=1e-7 gmin=1e-15 itl4=200\n.control\ntran 5u 24m 0 20u uic\nset " +
		"numdgt=9\n")
	for _, name := range c.names[1:] {
		fmt.Fprintf(&b, "print v(%[1]s)[length(v(%[1]s))-1]\n", SpiceName(name))
	}
	b.WriteString("quit\n.endc\n.end\n")
	return b.String(), nil
}

// waiting are the elements that see no volts until converters have brought them some.
func (c *Circuit) waiting() (names []string, err error) {
	s, err := NewSolver(c)
	if err != nil {
		return nil, err
	}
	s.g.load()
	for i := range s.ports {
		s.ports[i].on = false
	}
	if _, err := s.ramp(); err != nil {
		return nil, err
	}
	for i := range s.ports {
		if p := &s.ports[i]; s.terminals(p).inV < 2*LeastV {
			names = append(names, p.name())
		}
	}
	return names, nil
}

// Lines writes the circuit's elements as lines of a netlist, but for those named.
func (c *Circuit) Lines(but ...string) string {
	var b strings.Builder
	name := func(n Node) string { return SpiceName(c.names[n]) }
	for _, e := range c.Elements {
		if !slices.Contains(but, e.ElementName()) {
			b.WriteString(e.spice(name, "ramp"))
		}
	}
	return b.String()
}

func printable(r rune) rune {
	if r < ' ' || r == 0x7f {
		return ' '
	}
	return r
}

// SpiceName is a name as a netlist has it: lower case letters, digits and
// underscores.
func SpiceName(name string) string {
	return strings.Map(func(r rune) rune {
		switch {
		case r >= 'a' && r <= 'z', r >= '0' && r <= '9', r == '_':
			return r
		case r >= 'A' && r <= 'Z':
			return r + 'a' - 'A'
		case r == '+':
			return 'p'
		case r == '-':
			return 'n'
		}
		return '_'
	}, name)
}

func across(name func(Node) string, plus, minus Node) string {
	return fmt.Sprintf("v(%s,%s)", name(plus), name(minus))
}

func (r Resistance) spice(name func(Node) string, _ string) string {
	return fmt.Sprintf("r_%s %s %s %.9g\n", SpiceName(r.Name), name(r.A), name(r.B), r.Ohm)
}

func (w Switch) spice(name func(Node) string, _ string) string {
	return fmt.Sprintf("r_%s %s %s %.9g\n", SpiceName(w.Name), name(w.A), name(w.B), 1/w.conductance())
}

func (b Battery) spice(name func(Node) string, _ string) string {
	v := across(name, b.Plus, b.Minus)
	amps := fmt.Sprintf("(%.9g-%s)/%.9g", b.Volts, v, b.Ohm)
	if b.ChargeOhm > 0 {
		amps = fmt.Sprintf("(%s > %.9g ? (%.9g-%s)/%.9g : %s)", v, b.Volts, b.Volts, v, b.ChargeOhm, amps)
	}
	if b.MaxChargeA > 0 {
		amps = fmt.Sprintf("max(%s, %.9g)", amps, -b.MaxChargeA)
	}
	return fmt.Sprintf("b_%s %s %s i=%s\n", SpiceName(b.Name), name(b.Minus), name(b.Plus), amps)
}

// spiceHeld is a held voltage as an expression: see heldLaw.
func spiceHeld(set, ohm float64, most, volts string) string {
	return fmt.Sprintf("max(0, min(%s, (%.9g-%s)/%.9g))", most, set, volts, ohm)
}

func (s Source) spice(name func(Node) string, _ string) string {
	return fmt.Sprintf("v_%s %s %s %.9g\n", SpiceName(s.Name), name(s.Plus), name(s.Minus), s.Volts)
}

func (a Alternator) spice(name func(Node) string, _ string) string {
	return fmt.Sprintf("b_%s %s %s i=%s\n", SpiceName(a.Name), name(a.Minus), name(a.Plus),
		spiceHeld(a.Volts, a.slope(), fmt.Sprintf("%.9g", a.MaxA), across(name, a.sense(), a.Minus)))
}

// spiceDraw is the current that a power takes at a voltage, falling to nothing below
// LeastV.
func spiceDraw(watts, volts string) string {
	return fmt.Sprintf("(%s)*(%s > %g ? 1/%s : %s/%g)", watts, volts, LeastV, volts, volts, LeastV*LeastV)
}

func (c Converter) spice(name func(Node) string, ramp string) string {
	in, out := across(name, c.InPlus, c.InMinus), across(name, c.OutPlus, c.OutMinus)
	most := fmt.Sprintf("%.9g*v(%s)", c.MaxOutA, ramp)
	if c.MaxInA > 0 {
		most = fmt.Sprintf("min(%s, %.9g*max(%s,0)/max(%s,%g))", most, c.MaxInA*c.Efficiency, in, out, LeastV)
	}
	id := SpiceName(c.Name)
	held := spiceHeld(c.OutV, RegulationOhm, most, out)
	return fmt.Sprintf("b_%s_out %s %s i=%s\nb_%s_in %s %s i=%s\n", id, name(c.OutMinus), name(c.OutPlus), held,
		id, name(c.InPlus), name(c.InMinus), spiceDraw(fmt.Sprintf("%s*%s/%.9g", held, out, c.Efficiency), in))
}

func (d Diode) spice(name func(Node) string, _ string) string {
	over := fmt.Sprintf("(%s-%.9g)", across(name, d.A, d.K), d.ForwardV)
	return fmt.Sprintf("b_%s %s %s i=max(0, %s/%.9g)\n", SpiceName(d.Name), name(d.A), name(d.K), over, d.Ohm)
}

func (l CurrentLoad) spice(name func(Node) string, _ string) string {
	return fmt.Sprintf("b_%s %s %s i=%.9g*min(1, %s/%g)\n", SpiceName(l.Name), name(l.A), name(l.B), l.Amps, across(name, l.A, l.B), LeastV)
}

func (l PowerLoad) spice(name func(Node) string, ramp string) string {
	return fmt.Sprintf("b_%s %s %s i=%s\n", SpiceName(l.Name), name(l.A), name(l.B),
		spiceDraw(fmt.Sprintf("%.9g*v(%s)", l.Watts, ramp), across(name, l.A, l.B)))
}
