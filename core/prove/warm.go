package prove

import (
	"maps"
	"slices"

	"epitrope/core/circuit"
	"epitrope/core/system"
	"epitrope/core/unit"
)

// warm are the joints of the run once all is warm: the warmest of each stretch, and what is at each cable and fuse.
func (b *lister) warm() {
	at := map[string][]string{}
	what := map[string]string{}
	put := func(of, id, says string) {
		if of != "" {
			at[of] = append(at[of], id)
		}
		at[id], what[id] = []string{id}, says
	}
	for _, w := range b.d.System.Wires {
		if w.Role == system.Feed || w.Role == system.Return {
			put(b.stretch(w), w.ID, unit.Say("The warmer end of %s, over the cable beside it", b.d.NameOf(w.ID)))
		}
	}
	for _, c := range b.d.System.Components {
		if _, fused := c.Device.(system.Fuse); fused {
			put(b.stretchAt(c.ID), c.ID, unit.Say("%s, over the cable beside it", c.Name))
		}
	}
	what[BeforeCoupling] = unit.Say("The warmest joint from the %s to the coupling, over the cable beside it", b.source())
	what[BehindCoupling] = "The warmest joint from the coupling to the aux battery, over the cable beside it"
	what[WayBack] = "The warmest joint on the way back, over the cable beside it"
	for _, id := range slices.Sorted(maps.Keys(at)) {
		of := at[id]
		b.add(Reading{ID: "warm-" + id, What: what[id], Unit: Kelvin, Range: "thermometer or the back of a hand",
			figure: func(p *Proof, m Moment) (k float64, never bool) {
				for _, id := range of {
					k = max(k, p.warmer(m, id))
				}
				return min(k, mostK), false
			}})
	}
}

// mostK is where whatever gets warm burns. Source: from memory.
const mostK = 400.0

// contactSpread is from how many times what a fuse's contact is planned to resist it counts as warm by itself. Source: from memory.
const contactSpread = 2.0

// warmer is how much warmer than its cable a wire's warmer end is, or a fuse.
func (p *Proof) warmer(at Moment, id string) float64 {
	amps := circuit.Had(at.Solved.Through(id))
	if w, is := at.Sys.Wire(id); is {
		return amps * amps * max(w.Joint.From, w.Joint.To) * jointKPerW
	}
	now, _ := at.Sys.Component(id)
	planned, _ := p.d.System.Component(id)
	of, fused := now.Device.(system.Fuse)
	was, also := planned.Device.(system.Fuse)
	if !fused || !also {
		return 0
	}
	return amps * amps * max(0, of.Ohm-contactSpread*was.Ohm) * jointKPerW
}
