package prove

import (
	"cmp"
	"math"
	"math/rand/v2"
	"slices"
)

// How many installations are drawn to choose those from that come nearest to what was read, and how much of a value they may be off
// by besides the meter, as the charge and the warmth of that day are not known. Source: from memory, and tried.
const (
	drawnFor = 400
	ofThatV  = 0.01
	ofThatA  = 0.1
	farMost  = 4.0 // times its spread: what is further off is a slip, and says no more
)

// Nearest are so many draws of the proof's installation that come nearest to what was read of it when nothing was wrong: its
// lengths, joints and machine as they may be, each in a world of another day.
func (p *Proof) Nearest(taken []Taken, count int) []Draw {
	stations := map[string]bool{}
	at := map[int]Taken{}
	for i, r := range p.Readings {
		for _, t := range taken {
			if t.ID == r.ID && r.Unit != Seen && !t.Jumps {
				at[i], stations[r.Station] = t, true
			}
		}
	}
	type tried struct {
		number uint64
		off    float64
	}
	list := make([]tried, drawnFor)
	for k := range list {
		list[k].number = uint64(k)
		if len(at) == 0 {
			continue
		}
		row := p.read(p.Drawn(uint64(k)).draw, nil, stations)
		for i, r := range p.Readings { // in their order: sums are the same each time
			t, was := at[i]
			if !was {
				continue
			}
			besides := ofThatA * math.Abs(t.Value)
			if r.Unit == Volts && !r.Drop {
				besides = ofThatV * math.Abs(t.Value)
			}
			far := farMost
			if v := row.values[i]; !math.IsNaN(v) {
				far = min(farMost, math.Abs(v-t.Value)/math.Hypot(r.error(t.Value), besides))
			}
			list[k].off += far * far
		}
	}
	slices.SortStableFunc(list, func(a, b tried) int { return cmp.Compare(a.off, b.off) })
	draws := make([]Draw, count)
	for k := range draws {
		lasting := p.Drawn(list[k%drawnFor].number).draw
		today := drawn(p.d, rand.New(rand.NewPCG(uint64(k), 2501)))
		lasting.vehicle, lasting.surface, lasting.start, lasting.aux = today.vehicle, today.surface, today.start, today.aux
		lasting.accepts = today.accepts
		draws[k] = Draw{lasting}
	}
	return draws
}
