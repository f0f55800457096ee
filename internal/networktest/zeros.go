package networktest

import "epitrope/core/network"

// Zeros is, for each node, the first node of the part that current joins it to: ground, or
// a node of a side that floats behind an isolated converter.
func Zeros(c *network.Circuit) []int {
	zero := make([]int, len(c.Names()))
	for i := range zero {
		zero[i] = i
	}
	for again := true; again; {
		again = false
		for _, e := range c.Elements {
			for _, pair := range pairs(e) {
				a, b := zero[pair[0]], zero[pair[1]]
				if a != b {
					zero[pair[0]], zero[pair[1]], again = min(a, b), min(a, b), true
				}
			}
		}
	}
	return zero
}

func pairs(e network.Element) [][2]network.Node {
	switch e := e.(type) {
	case network.Resistance:
		return [][2]network.Node{{e.A, e.B}}
	case network.Switch:
		return [][2]network.Node{{e.A, e.B}}
	case network.Source:
		return [][2]network.Node{{e.Plus, e.Minus}}
	case network.Battery:
		return [][2]network.Node{{e.Plus, e.Minus}}
	case network.Alternator:
		return [][2]network.Node{{e.Plus, e.Minus}}
	case network.Diode:
		return [][2]network.Node{{e.A, e.K}}
	case network.CurrentLoad:
		return [][2]network.Node{{e.A, e.B}}
	case network.PowerLoad:
		return [][2]network.Node{{e.A, e.B}}
	case network.Converter:
		return [][2]network.Node{{e.InPlus, e.InMinus}, {e.OutPlus, e.OutMinus}}
	}
	return nil
}
