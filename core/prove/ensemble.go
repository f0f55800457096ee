package prove

import (
	"math"
	"math/rand/v2"
	"slices"

	"gonum.org/v1/gonum/stat"

	"epitrope/core/circuit"
	"epitrope/core/network"
	"epitrope/core/system"
)

// draws are how many installations a band is taken from.
const draws = 200

// ensemble is what each reading comes to in each of many draws: a row to a draw.
type ensemble struct{ rows []row }

// row is what each reading comes to in a draw, and whether it goes on and off meanwhile. What cannot be is NaN.
type row struct {
	values []float64
	jumps  []bool
}

// change is what a draw has besides: nil for none.
type change struct {
	on func(system.System) system.System
	in func(circuit.State) circuit.State
	as func(*laid, *system.System) (c *circuit.Circuit, done func())
}

// healthy are the readings of installations with nothing wrong.
func (p *Proof) healthy() *ensemble {
	e := &ensemble{}
	for i := range draws {
		r := rand.New(rand.NewPCG(uint64(i), 22))
		e.rows = append(e.rows, p.read(drawn(p.d, r), nil, nil))
	}
	return e
}

// read takes every reading of a draw, or those at some stations; nil: at all.
func (p *Proof) read(w draw, wrong *change, at map[string]bool) row {
	d, sys := p.d, w.sys
	if wrong != nil && wrong.on != nil {
		sys = wrong.on(sys)
	}
	out := row{make([]float64, len(p.Readings)), make([]bool, len(p.Readings))}
	as := p.Try().as
	if wrong != nil && wrong.as != nil {
		as = wrong.as
	}
	whole, done := as(w.laid, &sys)
	defer done()
	for _, s := range p.Stations {
		if at != nil && !at[s.ID] {
			continue
		}
		of, laid := &sys, whole
		if s.as != nil {
			kept := p.apart[s.ID]
			parted := kept.sys
			if wrong != nil && wrong.on != nil {
				one := s.as(wrong.on(p.d.System))
				parted = &one
			}
			one, done := as(kept, parted)
			defer done()
			of, laid = parted, one
		}
		nominal := s.state(d)
		state := w.world(d, nominal, s.full)
		if wrong != nil && wrong.in != nil {
			state = wrong.in(state)
		}
		was := nominal.Position
		if wrong != nil {
			was = circuit.Position{Stopped: true} // what is planned is no word on where a fault leaves it: it begins at rest
		}
		solved, jumps := Stands(laid, state, was)
		for i := range p.Readings {
			r := &p.Readings[i]
			if r.Station != s.ID {
				continue
			}
			value, never, there := p.Shows(*r, Moment{of, laid, solved, state, d.Facts.N})
			if !there {
				value = math.NaN()
			}
			out.values[i], out.jumps[i] = value, never || jumps && r.whileRunning() && r.Unit != Seen
		}
	}
	return out
}

// parts are the sound installations of which something is out, by station: nothing flows there, and what their wires resist is
// nothing to a reading.
func (p *Proof) parts() map[string]*laid {
	list := map[string]*laid{}
	for _, s := range p.Stations {
		if s.as != nil {
			sys := s.as(p.d.System)
			list[s.ID] = &laid{sys: &sys, n: p.d.Facts.N}
		}
	}
	return list
}

// Stands is what a circuit comes to in a state, as a meter shows it, and whether that goes on and off: as it is while it is on
// where its devices hunt, with the charger at rest where there is no working point for it.
func Stands(c *circuit.Circuit, s circuit.State, was circuit.Position) (solved network.Solution, jumps bool) {
	settled, err := c.Settle(s, was)
	if err == nil {
		return settled.Solution, len(settled.Hunts) > 0
	}
	settled.Stopped = true
	solved, _ = c.Solve(s, settled.Position) // without one nothing is read
	return solved, true
}

// error is how far a meter may be off at a reading, as one time in three it is further: half a percent and its digits; a
// clamp for direct current two percent and its zero. Source: ±0.5 % common practice, no source; the rest from memory.
func (r Reading) error(value float64) float64 {
	if e, is := r.errorOf(value); is {
		return e
	}
	switch {
	case r.Unit == Amps:
		return 0.01*math.Abs(value) + 0.15
	case r.Range == small:
		return 0.0025*math.Abs(value) + 0.001
	case math.Abs(value) < strayV: // a dead wire shows what it picks up
		return strayV / 5
	case r.Range == more: // a common meter shows tenths there
		return 0.0025*math.Abs(value) + 0.05
	}
	return 0.0025*math.Abs(value) + 0.01
}

// strayV is up to what a dead wire may show, with nothing wrong. Source: from memory.
const strayV = 0.4

// jumps is the share of the draws in which a reading goes on and off.
func (e *ensemble) jumps(i int) float64 {
	n := 0.0
	for _, at := range e.rows {
		if at.jumps[i] {
			n++
		}
	}
	return n / float64(len(e.rows))
}

// column is a reading over all draws, those that come to no stand left out.
func (e *ensemble) column(i int) []float64 {
	list := make([]float64, 0, len(e.rows))
	for _, at := range e.rows {
		if !math.IsNaN(at.values[i]) {
			list = append(list, at.values[i])
		}
	}
	return list
}

// told is the ensemble with what a reading came to: every other reading is moved by what it has in common with that one. The
// draws are shaken by the meter's error, each its own way, so that they stay as wide as what is not known. What is of one
// sign in all of them, as a current and what it loses are, is taken by powers: half the current is half the loss.
//
// Source: the ensemble Kalman filter with perturbed observations (Burgers, van Leeuwen and Evensen 1998), from memory.
func (e *ensemble) told(i int, value, errorOf float64) *ensemble {
	scales := make([]scale, len(e.rows[0].values))
	for j := range scales {
		scales[j] = scaleOf(e.column(j))
	}
	observed, ok := scales[i].of(value)
	if !ok {
		return e
	}
	if scales[i].powers {
		errorOf /= math.Abs(value)
	}
	on := make([][]float64, len(e.rows))
	for k, at := range e.rows {
		on[k] = make([]float64, len(scales))
		for j, v := range at.values {
			on[k][j], _ = scales[j].of(v)
		}
	}
	gain, spread := common(on, i)
	if spread == 0 {
		return e
	}
	out := &ensemble{}
	r := rand.New(rand.NewPCG(uint64(i), 1998))
	for k, at := range e.rows {
		moved := row{slices.Clone(at.values), at.jumps}
		shift := (observed + errorOf*r.NormFloat64() - on[k][i]) / (spread + errorOf*errorOf)
		for j := range moved.values {
			moved.values[j] = scales[j].back(on[k][j] + gain[j]*shift)
		}
		out.rows = append(out.rows, moved)
	}
	return out
}

// common is what each column has in common with one of them: its covariance, and that one's own spread, squared. What cannot
// be is left out.
func common(rows [][]float64, with int) (gain []float64, spread float64) {
	gain = make([]float64, len(rows[0]))
	for j := range gain {
		var of, column []float64
		for _, row := range rows {
			if !math.IsNaN(row[with]) && !math.IsNaN(row[j]) {
				of, column = append(of, row[with]), append(column, row[j])
			}
		}
		if len(of) > 1 {
			gain[j] = stat.Covariance(of, column, nil)
		}
	}
	return gain, gain[with]
}

// scale is how a column is taken: as it is, or, where all of it is of one sign and far from nothing, by powers.
type scale struct {
	powers bool
	sign   float64
}

// farFromNothing is in how many times its least a column's most may be for it to be taken by powers.
const farFromNothing = 1000.0

func scaleOf(values []float64) scale {
	if len(values) == 0 {
		return scale{}
	}
	low, high := slices.Min(values), slices.Max(values)
	if low*high <= 0 || max(math.Abs(low), math.Abs(high)) > farFromNothing*min(math.Abs(low), math.Abs(high)) {
		return scale{}
	}
	return scale{true, math.Copysign(1, low)}
}

// of is a value on the scale; ok is false where it has none there.
func (s scale) of(v float64) (float64, bool) {
	if !s.powers {
		return v, true
	}
	return math.Log(v * s.sign), v*s.sign > 0
}

func (s scale) back(v float64) float64 {
	if !s.powers {
		return v
	}
	return s.sign * math.Exp(v)
}
