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
	ofThatA  = 0.4 // what flows is of the day: how charged, how warm, what else is on
	ofThatMO = 0.05
	leastA   = 2.0 // below it what a stretch loses says nothing of what it resists
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
		for i := range p.Readings { // in their order: sums are the same each time
			if t, was := at[i]; was {
				far := p.far(i, t.Value, row.values, at)
				list[k].off += far * far
			}
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

// far is how far a draw is off at a reading, in what it may be off by. What a stretch loses is held against what flowed then: what it
// resists lasts, what flows is of the day.
func (p *Proof) far(i int, value float64, drawn []float64, at map[int]Taken) float64 {
	r, v := p.Readings[i], drawn[i]
	if math.IsNaN(v) {
		return farMost
	}
	off, besides := r.error(value), ofThatA*math.Abs(value)
	switch {
	case r.Unit == Volts && r.Drop:
		j := slices.IndexFunc(p.Readings, func(o Reading) bool { return o.Station == r.Station && o.Unit == Amps && o.Of == "" && o.Moved == "" })
		flowed, known := at[j]
		if !known || math.Abs(flowed.Value) < leastA || math.IsNaN(drawn[j]) || math.Abs(drawn[j]) < leastA {
			return 0 // nobody knows what flowed
		}
		value, v, off = value/flowed.Value, v/drawn[j], off/math.Abs(flowed.Value)
		besides = ofThatMO * math.Abs(value)
	case r.Unit == Volts:
		besides = ofThatV * math.Abs(value)
	}
	return min(farMost, math.Abs(v-value)/math.Hypot(off, besides))
}
