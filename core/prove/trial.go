package prove

import (
	"math"

	"epitrope/core/circuit"
	"epitrope/core/fault"
	"epitrope/core/system"
)

// Sized is a fault of a size.
type Sized struct {
	fault.Fault
	Size float64
}

// Trial is what an installation shows with some faults, in one size after the other. It keeps the circuits that they make of an
// installation: of a further size they differ in what a wire resists, or are laid out anew.
type Trial struct {
	p       *Proof
	resists bool // they change what wires and fuses resist, and nothing else
	alike   bool // … and so do their sizes
	sizes   []float64
	own     map[*laid]*circuit.Circuit
}

// Try is a trial of some faults; of none, the sound installation's.
func (p *Proof) Try(wrong ...fault.Fault) *Trial {
	t := &Trial{p: p, resists: true, alike: true, own: map[*laid]*circuit.Circuit{}}
	for _, f := range wrong {
		t.resists, t.alike = t.resists && f.Resists(), t.alike && f.Alike()
	}
	return t
}

// Shown is what each reading comes to, by its place among the proof's, NaN where there is nothing to read; and whether it
// comes to no stand.
type Shown struct {
	Values []float64
	Jumps  []bool
}

// Takes takes the readings of some stations of a draw with the trial's faults, in these sizes.
func (t *Trial) Takes(w Draw, wrong []Sized, stations map[string]bool) Shown {
	shown := t.read(w.draw, wrong, stations)
	for i := range t.p.Readings {
		if !stations[t.p.Readings[i].Station] {
			shown.values[i] = math.NaN()
		}
	}
	return Shown{shown.values, shown.jumps}
}

// read takes the readings at some stations; nil: at all.
func (t *Trial) read(w draw, wrong []Sized, stations map[string]bool) row {
	t.become(wrong)
	n := t.p.d.Facts.N
	return t.p.read(w, &change{
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
		},
		as: t.as,
	}, stations)
}

// become forgets the circuits of other sizes, where they are others.
func (t *Trial) become(wrong []Sized) {
	same := len(wrong) == len(t.sizes)
	for i, f := range wrong {
		same = same && f.Size == t.sizes[i]
	}
	if same {
		return
	}
	if !t.alike {
		clear(t.own)
	}
	t.sizes = t.sizes[:0]
	for _, f := range wrong {
		t.sizes = append(t.sizes, f.Size)
	}
}

// as is the circuit of an installation with the trial's faults. It is the caller's until done.
func (t *Trial) as(l *laid, changed *system.System) (c *circuit.Circuit, done func()) {
	if own := t.own[l]; own != nil && own.Rewire(changed) {
		return own, func() {}
	}
	if t.resists {
		c, done, is := l.as(changed)
		if is {
			return c, done
		}
		done()
	}
	t.own[l] = circuit.Lay(changed, l.n)
	return t.own[l], func() {}
}
