package networktest

import (
	"epitrope/core/network"
)

// Balance is the current left over at every node, in A, and the power left over in all, in
// W, by what a solution says of each element: both are nothing in a solution.
func Balance(c *network.Circuit, s Read) (into []float64, watts float64) {
	into = make([]float64, len(c.Names()))
	put := func(to, from network.Node, amps float64) {
		into[to] += amps
		into[from] -= amps
		watts += amps * (s.Volts[to] - s.Volts[from])
	}
	for _, e := range c.Elements {
		amps := s.Through(e.ElementName())
		switch e := e.(type) {
		case network.Resistance:
			put(e.B, e.A, amps)
		case network.Switch:
			put(e.B, e.A, amps)
		case network.Source:
			put(e.Plus, e.Minus, amps)
		case network.Battery:
			put(e.Plus, e.Minus, amps)
		case network.Alternator:
			put(e.Plus, e.Minus, amps)
		case network.Diode:
			put(e.K, e.A, amps)
		case network.CurrentLoad:
			put(e.B, e.A, amps)
		case network.PowerLoad:
			put(e.B, e.A, amps)
		case network.Converter:
			at, err := s.Converting(e.Name)
			if err != nil {
				s.T.Fatal(err)
			}
			put(e.OutPlus, e.OutMinus, amps)
			put(e.InMinus, e.InPlus, at.InA)
		}
	}
	return into, watts
}
