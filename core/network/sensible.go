package network

import (
	"fmt"
	"math"
)

// What values may be: wide enough for anything in a vehicle, narrow enough for the
// equations to keep their digits.
const (
	leastOhm, mostOhm = 1e-9, 1e12
	mostValue         = 1e6 // V, A or W
)

// Error is a circuit that has no point to work at, or makes no sense, and what it turns
// on: one element, or several that only together ask too much.
type Error struct {
	Element string
	Others  []string // the rest of those that together ask too much
	Why     string
}

func (e *Error) Error() string { return e.Element + ": " + e.Why }

// given is one value of an element, and what it may be.
type given struct {
	field       string
	value       float64
	least, most float64
}

func ohms(field string, v float64) given   { return given{field, v, leastOhm, mostOhm} }
func amount(field string, v float64) given { return given{field, v, 0, mostValue} }
func signed(field string, v float64) given { return given{field, v, -mostValue, mostValue} }

// optional is a resistance that may be left at 0.
func optional(field string, v float64) given {
	if v == 0 {
		return amount(field, v)
	}
	return ohms(field, v)
}

// sensible refuses the first value of an element that is not what it may be.
func sensible(name string, all ...given) error {
	for _, g := range all {
		if !(g.value >= g.least && g.value <= g.most) || math.IsNaN(g.value) {
			return &Error{Element: name, Why: fmt.Sprintf("%s %g must be from %g to %g", g.field, g.value, g.least, g.most)}
		}
	}
	return nil
}

func (r Resistance) sensible() error { return sensible(r.Name, ohms("Ohm", r.Ohm)) }
func (w Switch) sensible() error     { return sensible(w.Name, ohms("Ohm", w.Ohm)) }
func (s Source) sensible() error     { return sensible(s.Name, signed("Volts", s.Volts)) }

func (b Battery) sensible() error {
	return sensible(b.Name, signed("Volts", b.Volts), ohms("Ohm", b.Ohm), optional("ChargeOhm", b.ChargeOhm),
		amount("MaxChargeA", b.MaxChargeA))
}

func (a Alternator) sensible() error {
	return sensible(a.Name, amount("Volts", a.Volts), amount("MaxA", a.MaxA), optional("SlopeOhm", a.SlopeOhm))
}

func (c Converter) sensible() error {
	return sensible(c.Name, given{"OutV", c.OutV, LeastV, mostValue}, amount("MaxOutA", c.MaxOutA),
		given{"Efficiency", c.Efficiency, 0.01, 1}, amount("MaxInA", c.MaxInA), amount("CutOutV", c.CutOutV), amount("RestartV", c.RestartV))
}

func (d Diode) sensible() error {
	return sensible(d.Name, amount("ForwardV", d.ForwardV), ohms("Ohm", d.Ohm))
}
func (l CurrentLoad) sensible() error { return sensible(l.Name, amount("Amps", l.Amps)) }
func (l PowerLoad) sensible() error   { return sensible(l.Name, amount("Watts", l.Watts)) }
