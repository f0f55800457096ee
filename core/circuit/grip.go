package circuit

import (
	"slices"

	"epitrope/core/network"
	"epitrope/core/system"
)

// attach puts in what hangs on the installation.
func attach(c *network.Circuit, a system.Attached) {
	plus, minus := c.Node(a.Plus.Node()), c.Node(a.Minus.Node())
	switch d := a.Device.(type) {
	case system.Load:
		if d.Ohm > 0 {
			c.Add(network.Switch{Name: a.Name, A: plus, B: minus, Ohm: d.Ohm})
		} else {
			c.Add(network.CurrentLoad{Name: a.Name, A: plus, B: minus})
		}
	case system.Panel:
		c.Add(network.Alternator{Name: a.Name, Plus: plus, Minus: minus, Volts: d.Volts})
	}
}

// grip takes hold of what states change.
func (l *Circuit) grip(c *network.Circuit) {
	s := l.solver
	l.start, l.aux, l.machine = s.Battery("start battery"), s.Battery("aux battery"), s.Alternator("alternator")
	l.auxOhm = l.aux.Ohm
	l.sun, l.vehicle, l.house = s.Alternator(Sun), s.CurrentLoad(Vehicle), s.CurrentLoad(House)
	for i := range l.hang {
		h := &l.hang[i]
		h.amps = map[string]*float64{Vehicle: &l.vehicle.Amps, House: &l.house.Amps}[h.name]
	}
	for i := range l.taps {
		of := &l.taps[i]
		of.load = s.CurrentLoad(of.name)
		l.hang = append(l.hang, hung{name: of.name, plus: of.plus, minus: of.minus, amps: &of.load.Amps, n: of.n})
	}
	l.hang = slices.DeleteFunc(l.hang, func(h hung) bool { return h.amps == nil })
	if c := l.charger; c != nil {
		beside := s.CurrentLoad(Feed)
		l.hang = append(l.hang, hung{name: Feed, plus: system.Terminal{Component: c.at.ID, Terminal: "30"},
			minus: system.Terminal{Component: c.at.ID, Terminal: "31"}, amps: &beside.Amps, n: l.n})
	}
	for i, h := range l.hang {
		l.hang[i].at = [2]network.Point{s.Point(h.plus.Node()), s.Point(h.minus.Node())}
	}
	for _, e := range c.Elements {
		switch e := e.(type) {
		case network.Switch:
			l.switches[e.Name] = s.Switch(e.Name)
		case network.Alternator:
			switch e.Name {
			case SecondAlternator:
				l.second = s.Alternator(e.Name)
			case Mains:
				l.mains = s.Alternator(e.Name)
			}
		}
	}
	if l.charger != nil {
		l.charger.converter, l.charger.beside = s.Converter("charger"), s.CurrentLoad(Feed)
	}
	if l.contact != nil && l.contact.WatchOhm > 0 {
		l.sensing = s.Wire("coil")
	}
}
