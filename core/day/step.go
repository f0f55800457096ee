package day

import (
	"math"
)

// trial is a step as tried.
type trial struct {
	x      slow
	s      sight
	wrong  float64
	follow [2]float64 // how the batteries' currents follow their voltages at its end, where it is wrong
}

// try steps by h from where the run is.
func (r *runner) try(begin *moving, h float64, out *trial) error {
	var guess slow
	var p pace
	paceOf(begin, h, &p)
	predict(&r.x, begin, &p, h, &guess)
	if err := r.see(&guess, &out.s); err != nil {
		return r.stopped(err)
	}
	var end moving
	r.move(&guess, &out.s, &end)
	edge := r.wish(&guess, &out.s) != r.w
	if out.wrong = correct(&r.x, begin, &end, &guess, &p, h, &out.x) / r.opt.Tolerance; out.wrong > 1 {
		out.follow = r.follows()
	}
	if err := r.see(&out.x, &out.s); err != nil {
		return r.stopped(err)
	}
	if !edge || r.wish(&out.x, &out.s) != r.w {
		return nil
	}
	// What switches takes itself back as soon as it does: the step is tried shorter, until it is so short that
	// this is the edge.
	if out.wrong = max(out.wrong, tooLong); h > edgeS {
		return nil
	}
	out.x, out.wrong = guess, 0
	if err := r.see(&out.x, &out.s); err != nil {
		return r.stopped(err)
	}
	return nil
}

// edgeS is a step so short that nothing counts that it leaves out, in s; and tooLong how wrong a longer one is
// that passes an edge.
const (
	edgeS   = 0.1
	tooLong = 8.0
)

// advance takes one step of at most h, as long as its error allows, and up to the first
// moment at which something wants to switch. It returns what it took and what the next
// one may try.
func (r *runner) advance(h float64) (taken, next float64, err error) {
	var begin moving
	r.move(&r.x, &r.s, &begin)
	var to trial
	for stiffened := false; ; {
		if err := r.try(&begin, h, &to); err != nil {
			return 0, 0, err
		}
		if to.wrong <= 1 || h <= shortestS {
			break
		}
		if !stiffened && r.stiffen(to.follow) {
			// What holds a battery's voltage begins to within the step: it is stepped as if it did already.
			stiffened = true
			r.move(&r.x, &r.s, &begin)
			continue
		}
		h = math.Max(shortestS, h*math.Max(0.2, 0.85/math.Sqrt(to.wrong)))
	}
	next = h * math.Min(4, 0.85/math.Sqrt(math.Max(to.wrong, 0.02)))
	if r.wish(&to.x, &to.s) != r.w {
		if h, err = r.locate(&begin, h, &to); err != nil {
			return 0, 0, err
		}
		next = firstS
	}
	share := r.early(&begin, &to.x, h)
	r.result.Energy.add(&r.s.power, h*share)
	r.result.Energy.add(&to.s.power, h*(1-share))
	r.result.Verdict.see(r, &to.x, &to.s, h, share)
	r.result.Steps++
	r.x, r.s = to.x, to.s
	r.t += h
	r.feel()
	if r.on.charging && h > 1 {
		r.efficiency = r.efficiencyAt(&r.s)
	}
	r.coolWires()
	r.record()
	return h, next, nil
}

// stiffen takes over how currents follow voltages where they do so much more; it says whether one does.
func (r *runner) stiffen(follow [2]float64) (any bool) {
	for i, f := range follow {
		if f > 2*r.follow[i] {
			r.follow[i], any = f, true
		}
	}
	return any
}

// early is how much of a step its beginning counts for: as the overvoltage goes to rest that
// moves the most current.
func (r *runner) early(begin *moving, to *slow, h float64) float64 {
	which := startOver
	if math.Abs(to[auxOver]-r.x[auxOver])*r.follow[1] > math.Abs(to[startOver]-r.x[startOver])*r.follow[0] {
		which = auxOver
	}
	return early(begin.pull[which] * h)
}

// locate finds the first moment within h at which a wish changes, to located seconds,
// and leaves the step to just after it.
func (r *runner) locate(begin *moving, h float64, to *trial) (float64, error) {
	low, high := 0.0, h
	var mid trial
	for high-low > located {
		at := (low + high) / 2
		if err := r.try(begin, at, &mid); err != nil {
			return 0, err
		}
		if r.wish(&mid.x, &mid.s) != r.w {
			high = at
		} else {
			low = at
		}
	}
	return high, r.try(begin, high, to)
}
