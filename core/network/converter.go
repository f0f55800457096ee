package network

import "math"

// flow is what a converter takes and gives at its terminals' voltages, with the
// slopes that Newton's method needs.
type flow struct {
	in, inByIn, inByOut    float64
	out, outByIn, outByOut float64
}

// flow works out a converter that runs. The input carries the output's power over
// the efficiency; throttled, the output gets what its input's limit leaves.
func (c Converter) flow(inV, outV float64, in mode) flow {
	inV = math.Max(inV, least)
	if in == throttled {
		outV = math.Max(outV, least)
		given := c.MaxInA * inV * c.Efficiency / outV
		return flow{in: c.MaxInA, out: given, outByIn: given / inV, outByOut: -given / outV}
	}
	amps, slope := held(c.OutV, c.MaxOutA, outV, in)
	watts := amps * outV / c.Efficiency
	return flow{in: watts / inV, inByIn: -watts / (inV * inV), inByOut: (amps + slope*outV) / (c.Efficiency * inV),
		out: amps, outByOut: slope}
}

func (c Converter) terminals(v []float64) (inV, outV float64) {
	return v[c.InPlus] - v[c.Minus], v[c.OutPlus] - v[c.Minus]
}

func (c Converter) next(v []float64, in mode) mode {
	inV, outV := c.terminals(v)
	if in == throttled {
		given := c.flow(inV, outV, throttled).out
		switch {
		case given > c.MaxOutA:
			return saturated
		case outV > c.OutV+edge:
			return regulating
		}
		return throttled
	}
	if beside := nextHeld(c.OutV, c.MaxOutA, outV, in); beside != in {
		return beside
	}
	if c.MaxInA > 0 && in != idle && c.flow(inV, outV, in).in > c.MaxInA {
		return throttled
	}
	return in
}

func (c Converter) stamp(e *equations, v []float64, in mode) {
	if len(e.off) > 0 && e.off[c.Name] {
		return
	}
	inV, outV := c.terminals(v)
	f := c.flow(inV, outV, in)
	if e.bare {
		amps, slope := held(c.OutV, c.MaxOutA, outV, in)
		f = flow{inByIn: leak, out: amps, outByOut: slope}
		if in == throttled {
			f.out, f.outByOut = 0, -leak
		}
	}
	// Currents into the nodes, linear about v: in is drawn at InPlus, out given at
	// OutPlus, and Minus gets the balance.
	e.inject(c.InPlus, -f.in+f.inByIn*inV+f.inByOut*outV)
	e.inject(c.OutPlus, f.out-f.outByIn*inV-f.outByOut*outV)
	e.inject(c.Minus, f.in-f.out-(f.inByIn-f.outByIn)*inV-(f.inByOut-f.outByOut)*outV)
	e.depend(c.InPlus, c.InPlus, c.Minus, f.inByIn)
	e.depend(c.InPlus, c.OutPlus, c.Minus, f.inByOut)
	e.depend(c.OutPlus, c.InPlus, c.Minus, -f.outByIn)
	e.depend(c.OutPlus, c.OutPlus, c.Minus, -f.outByOut)
	e.depend(c.Minus, c.InPlus, c.Minus, f.outByIn-f.inByIn)
	e.depend(c.Minus, c.OutPlus, c.Minus, f.outByOut-f.inByOut)
}
