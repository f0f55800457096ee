package trace

import (
	"math"
	"slices"

	"epitrope/core/prove"
)

// Of a reading that was taken wrongly: how often that is, and over how wide a range it may then be. Source: from memory.
const (
	slipOften = 0.04
	slipVolts = 15.0
	slipDrop  = 1.5
	slipAmps  = 60.0
	slipOther = 100.0
	noContact = 0.3 // of slips: a probe that does not touch, and the meter shows nothing
)

// How much of a value the installation may be off by besides its draws, as a survey is never quite right: of what a stretch
// loses and of a current, and of volts. Source: from memory.
const (
	ofFlow  = 0.05
	ofVolts = 0.008
)

// slipDensity is how likely a wrong reading is to be just so, for each unit of it.
func slipDensity(r prove.Reading, value float64) float64 {
	if r.Unit != prove.Volts && r.Unit != prove.Amps {
		return anywhere(r)
	}
	return (1-noContact)*anywhere(r) + noContact*bell(value, r.Off(0)*r.Off(0))
}

// bell is the density of a bell curve, so far from its middle.
func bell(off, square float64) float64 {
	return math.Exp(-off*off/(2*square)) / math.Sqrt(2*math.Pi*square)
}

// anywhere is how likely a reading that may be anything is to be just so.
func anywhere(r prove.Reading) float64 {
	switch {
	case r.Unit == prove.Volts && r.Drop:
		return 1 / slipDrop
	case r.Unit == prove.Volts:
		return 1 / slipVolts
	case r.Unit == prove.Amps:
		return 1 / slipAmps
	}
	return 1 / slipOther
}

// read is a reading that counts as evidence.
type read struct {
	i     int // among the proof's
	value float64
	jumps bool
	peak  bool // of one that jumps: the value is the most that it shows
	taken bool // it was read; what will be is foreseen
	there bool // of what is foreseen: with a fault that comes and goes there
	again bool // it was read twice; the last counts
	same  bool // … and came to the same
}

// sameSlip is how often a slip is made again, of all. Source: from memory.
const sameSlip = 0.1

// wrong is how likely a reading is a slip, where others are so with a chance.
func (r read) wrong(slip float64) float64 {
	if r.same && slip <= slipOften {
		return slip * sameSlip
	}
	return slip
}

// fit is how well a suspect explains what was read: by the logarithm of how likely that is, with which readings it takes for slips.
type fit struct {
	log    float64
	freely float64 // … where each reading may as well be anything
	slips  []bool
	sizes  []float64 // how much of it each size has
}

// explains is how likely a suspect makes what was read, over its sizes. The readings of one vehicle hang together, as its
// draws do: what the first of them says of the world is taken into those after it. Between two sizes everything is taken to
// lie on a line. A reading may be a slip: then it says nothing.
func (t *Trace) explains(s *suspect, taken []read, slip float64, d depth) fit {
	best, logs := fit{log: math.Inf(-1)}, make([]float64, len(s.steps))
	tried := 0.0
	for k := range s.steps {
		if !d.has(s, k) {
			logs[k] = math.Inf(-1)
			continue
		}
		tried++
		m := t.model(s, k, taken, d)
		one := m.sequence(taken, slip, false)
		if slices.Contains(one.slips, true) { // a slip at the start misleads all that follow
			if back := m.sequence(taken, slip, true); back.log > one.log {
				one = back
			}
		}
		logs[k] = one.log
		if one.log > best.log {
			best = one
		}
	}
	best.sizes = make([]float64, len(logs))
	sum := 0.0
	for k, l := range logs {
		best.sizes[k] = math.Exp(l - best.log)
		sum += best.sizes[k]
	}
	for k := range best.sizes {
		best.sizes[k] /= sum
	}
	best.log += math.Log(sum / tried)
	return best
}

// trusted is how much of what two readings have in common over so few draws is taken for real.
const trusted = 0.8

// inCommon is what two readings have in common, or one with itself: of what the draws show a part, of what a fault's size does to both
// all.
func (t *Trace) inCommon(same bool, a, b []float64) float64 {
	n := len(t.draws)
	if same {
		return dot(a, b)
	}
	return trusted*dot(a[:n], b[:n]) + dot(a[n:], b[n:])
}

// model is what a suspect says of the readings that were taken: a middle, how they vary together, and how often each comes to
// no stand.
type model struct {
	t     *Trace
	mean  []float64
	cov   [][]float64
	jumps []float64
	known []bool
	often []float64 // that it is there, or is not, as it was
}

func (t *Trace) model(s *suspect, k int, taken []read, d depth) model {
	mean, vary, jumps, known := t.varies(s, k, taken, d)
	m := model{t, mean, make([][]float64, len(taken)), jumps, known, make([]float64, len(taken))}
	for a, r := range taken {
		_, m.often[a] = t.wasThere(s, k, r, d)
		m.cov[a] = make([]float64, len(taken))
		for b := range taken {
			m.cov[a][b] = t.inCommon(a == b, vary[a], vary[b])
		}
		if known[a] {
			m.cov[a][a] += t.own(r.i, mean[a])
		}
	}
	return m
}

// own is how far a reading of a value may be off by itself, squared: its meter's error, and what the circuit is off.
func (t *Trace) own(i int, value float64) float64 {
	r := t.proof.Readings[i]
	meter, besides := r.Off(value), ofFlow*value
	if r.Unit == prove.Volts && !r.Drop {
		besides = ofVolts * value
	}
	return meter*meter + besides*besides
}

// varies is what a suspect of a size says of some readings: each one's middle, how it varies draw by draw and along each fault's
// sizes, how often it comes to no stand, and whether there is anything to read.
func (t *Trace) varies(s *suspect, k int, of []read, d depth) (mean []float64, vary [][]float64, jumps []float64, known []bool) {
	n, wide := len(of), len(t.draws)+len(s.steps[k].near)
	mean, vary, jumps, known = make([]float64, n), make([][]float64, n), make([]float64, n), make([]bool, n)
	all := make([]float64, n*wide)
	for a, r := range of {
		vary[a], all = all[:wide], all[wide:]
		there := r.there
		if r.taken {
			there, _ = t.wasThere(s, k, r, d)
		}
		from, step := t.shownBy(s, k, r.i, there)
		at := from.steps[step]
		mean[a], known[a] = at.mean(r.i, d.draws)
		jumps[a] = t.goes(s, k, r.i, there, d)
		if !known[a] {
			continue
		}
		for i := range d.draws {
			if v := at.shown[i].Values[r.i]; !math.IsNaN(v) {
				vary[a][i] = (v - mean[a]) / math.Sqrt(float64(d.draws-1))
			}
		}
		beside := at.near
		if d.every > 1 {
			beside = at.far
		}
		for i, ends := range beside {
			low, is := from.steps[ends[0]].mean(r.i, d.draws)
			high, also := from.steps[ends[1]].mean(r.i, d.draws)
			if is && also {
				vary[a][len(t.draws)+i] = (high - low) / 2 / math.Sqrt(12)
			}
		}
	}
	return mean, vary, jumps, known
}

// sequence takes the readings in one after the other, or from the last: each says what it says, and moves those after it.
func (m model) sequence(taken []read, slip float64, back bool) fit {
	n := len(taken)
	mean, out := append([]float64{}, m.mean...), fit{slips: make([]bool, n)}
	cov := make([][]float64, n)
	for a := range cov {
		cov[a] = append([]float64{}, m.cov[a]...)
	}
	for k := range n {
		a := k
		if back {
			a = n - 1 - k
		}
		of, slip := m.t.proof.Readings[taken[a].i], taken[a].wrong(slip)
		broad, slipped := anywhere(of), slipDensity(of, taken[a].value)
		switch {
		case taken[a].jumps && !taken[a].peak:
			says := math.Log((1-slip)*m.jumps[a] + slip*0.1)
			out.log, out.freely = out.log+says, out.freely+math.Log((1-noneOwn)*m.jumps[a]+noneOwn*0.1)
			continue
		case !m.known[a]:
			out.log, out.freely = out.log+math.Log(broad), out.freely+math.Log(broad)
			continue
		}
		stands := 1 - m.jumps[a]
		if taken[a].jumps {
			stands = (1-slip)*m.jumps[a] + slip*0.1
		}
		out.log, out.freely = out.log+math.Log(stands), out.freely+math.Log((1-noneOwn)*stands+noneOwn)
		spread := cov[a][a]
		off := taken[a].value - mean[a]
		fits := m.often[a] * (1 - slip) * bell(off, spread)
		says := math.Log(fits + slip*slipped)
		out.log += says
		out.freely += math.Log((1-noneOwn)*fits/(1-slip) + noneOwn*broad)
		if fits < slip*slipped {
			out.slips[a] = true
			continue
		}
		gain := make([]float64, n)
		for b := range n {
			gain[b] = cov[b][a] / spread
			mean[b] += gain[b] * off
		}
		row := append([]float64{}, cov[a]...)
		for b := range n {
			for c := range n {
				cov[b][c] -= gain[b] * row[c]
			}
		}
	}
	return out
}
