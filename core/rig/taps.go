package rig

import (
	"epitrope/core/day"
	"epitrope/core/design"
	"epitrope/core/network"
	"epitrope/core/system"
)

// taps puts in what hangs on the run at the coupling: what is on while the engine runs, and what the start side
// gives on average. What the aux battery gives it besides is in what is used off it.
func taps(d *design.Design, rig *day.Rig, c *network.Circuit) {
	for _, t := range d.Taps {
		load := day.Tap{Element: "load " + t.ID, N: d.Facts.N}
		if t.Aux {
			load.N = d.Facts.AuxN
		}
		switch {
		case t.Running:
			load.RunsA = t.Amps.Value
		case !t.Aux:
			load.MeanA = t.DayAh() / 24
		default:
			continue
		}
		plus, minus := system.Terminal{Component: t.ID, Terminal: "30"}, system.Terminal{Component: t.ID, Terminal: "31"}
		load.Plus, load.Minus = plus.Node(), minus.Node()
		c.Add(network.CurrentLoad{Name: load.Element, A: c.Node(load.Plus), B: c.Node(load.Minus)})
		rig.Taps = append(rig.Taps, load)
	}
}
