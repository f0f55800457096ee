package network

import (
	"fmt"
	"slices"
	"strings"
)

// Netlist writes the circuit as a SPICE netlist that finds its operating point and
// prints every node. Node names are the circuit's own, with characters that SPICE
// does not take replaced. The simulator is told to start looking near guess, volts
// by node, as sharp limits are hard to find from nothing; where there is no guess
// it starts at 13 V.
func (c *Circuit) Netlist(title string, guess []float64) (string, error) {
	if err := c.check(); err != nil {
		return "", err
	}
	if err := c.grounded(); err != nil {
		return "", err
	}
	var b strings.Builder
	fmt.Fprintf(&b, "* %s\n", strings.Map(printable, title))
	name := func(n Node) string { return SpiceName(c.names[n]) }
	b.WriteString(c.Lines())
	for n := range c.names[1:] {
		volts := 13.0
		if n+1 < len(guess) {
			volts = guess[n+1]
		}
		fmt.Fprintf(&b, ".nodeset v(%s)=%.9g\n", name(Node(n+1)), volts)
	}
	b.WriteString(".options reltol=1e-6 gmin=1e-15 abstol=1e-9 itl1=1000\n.control\nop\nset numdgt=9\n")
	for n := range c.names[1:] {
		fmt.Fprintf(&b, "print v(%s)\n", name(Node(n+1)))
	}
	b.WriteString("quit\n.endc\n.end\n")
	return b.String(), nil
}

// Lines writes the circuit's elements as lines of a netlist, but for those named.
func (c *Circuit) Lines(but ...string) string {
	var b strings.Builder
	name := func(n Node) string { return SpiceName(c.names[n]) }
	for _, e := range c.Elements {
		if !slices.Contains(but, e.ElementName()) {
			b.WriteString(e.spice(name))
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

func (r Resistance) spice(name func(Node) string) string {
	return fmt.Sprintf("r_%s %s %s %.9g\n", SpiceName(r.Name), name(r.A), name(r.B), r.Ohm)
}

func (w Switch) spice(name func(Node) string) string {
	return fmt.Sprintf("r_%s %s %s %.9g\n", SpiceName(w.Name), name(w.A), name(w.B), 1/w.conductance())
}

func (b Battery) spice(name func(Node) string) string {
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

// spiceHeld is a held voltage as an expression: see held.
func spiceHeld(set, most float64, volts string) string {
	return fmt.Sprintf("max(%.9g, min(%.9g, (%.9g-%s)/%.9g))", min(0, most), most, set, volts, RegulationOhm)
}

func (a Alternator) spice(name func(Node) string) string {
	return fmt.Sprintf("b_%s %s %s i=%s\n", SpiceName(a.Name), name(a.Minus), name(a.Plus), spiceHeld(a.Volts, a.MaxA, across(name, a.sense(), a.Minus)))
}

func (c Converter) spice(name func(Node) string) string {
	in, out := across(name, c.InPlus, c.Minus), across(name, c.OutPlus, c.Minus)
	amps := spiceHeld(c.OutV, c.MaxOutA, out)
	draw := fmt.Sprintf("%s*%s/(%.9g*max(%s,%g))", amps, out, c.Efficiency, in, least)
	if c.MaxInA > 0 {
		given := fmt.Sprintf("%.9g*%s/max(%s,%g)", c.MaxInA*c.Efficiency, in, out, least)
		amps = fmt.Sprintf("min(%s, %s)", amps, given)
		draw = fmt.Sprintf("min(%s, %.9g)", draw, c.MaxInA)
	}
	id := SpiceName(c.Name)
	return fmt.Sprintf("b_%s_in %s %s i=%s\nb_%s_out %s %s i=%s\n", id, name(c.InPlus), name(c.Minus), draw, id, name(c.Minus), name(c.OutPlus), amps)
}

func (d Diode) spice(name func(Node) string) string {
	over := fmt.Sprintf("(%s-%.9g)", across(name, d.A, d.K), d.ForwardV)
	return fmt.Sprintf("b_%s %s %s i=(%s > 0 ? %s/%.9g : %s*%g)\n", SpiceName(d.Name), name(d.A), name(d.K), over, over, d.Ohm, over, leak)
}

func (l CurrentLoad) spice(name func(Node) string) string {
	return fmt.Sprintf("i_%s %s %s %.9g\n", SpiceName(l.Name), name(l.A), name(l.B), l.Amps)
}

func (l PowerLoad) spice(name func(Node) string) string {
	return fmt.Sprintf("b_%s %s %s i=%.9g/max(%s,%g)\n", SpiceName(l.Name), name(l.A), name(l.B), l.Watts, across(name, l.A, l.B), least)
}
