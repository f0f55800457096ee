package prove

import (
	"math"
	"math/rand/v2"

	"epitrope/core/circuit"
	"epitrope/core/design"
	"epitrope/core/fault"
	"epitrope/core/system"
)

// Wider is a proof of what is there, whatever stops it, and every point that a probe reaches besides: what is asked where
// something fails.
func Wider(d *design.Design) *Proof {
	return design.Kept(d, "wider proof", func(d *design.Design) *Proof {
		p := &Proof{d: d, sought: &suspects{}, wide: true}
		for _, rpm := range heldAt {
			if p.lay(rpm); p.steady() {
				break
			}
		}
		return p
	})
}

// Draw is one installation as it may be, in a world as it may be.
type Draw struct{ draw }

// Drawn is a draw of the proof's installation, the same for the same number.
func (p *Proof) Drawn(number uint64) Draw {
	return Draw{drawn(p.d, rand.New(rand.NewPCG(number, 2500)))}
}

// Sized is a fault of a size.
type Sized struct {
	fault.Fault
	Size float64
}

// Shown is what each reading comes to, by its place among the proof's, NaN where there is nothing to read; and whether it
// comes to no stand.
type Shown struct {
	Values []float64
	Jumps  []bool
}

// Takes takes the readings of some stations of a draw with faults.
func (p *Proof) Takes(w Draw, wrong []Sized, stations map[string]bool) Shown {
	n := p.d.Facts.N
	resists := true
	for _, f := range wrong {
		resists = resists && f.Resists()
	}
	shown := p.read(w.draw, &change{resists: resists,
		on: func(s system.System) system.System {
			for _, f := range wrong {
				s = f.On(s, f.Size)
			}
			return s
		},
		in: func(s circuit.State) circuit.State {
			for _, f := range wrong {
				s = f.In(s, n, f.Size)
			}
			return s
		}}, stations)
	for i, r := range p.Readings {
		if !stations[r.Station] {
			shown.values[i] = math.NaN()
		}
	}
	return Shown{shown.values, shown.jumps}
}

// Off is how far a meter may be off at a reading, as one time in three it is further, in the reading's unit.
func (r Reading) Off(value float64) float64 { return r.error(value) }

// Sound is what a reading is expected to be with nothing wrong, and nothing read before it.
func (p *Proof) Sound(i int) Bounds { return p.base[i] }
