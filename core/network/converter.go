package network

import "math"

// flow is what a converter takes and gives at its terminals' voltages, with the
// slopes that Newton's method needs.
type flow struct {
	in, inByIn, inByOut    float64
	out, outByIn, outByOut float64
	limited                bool // at its input limit
}

// flow works out a converter that runs; soft is as in equations. The input carries the output's power over
// the efficiency; at the input's limit the output gets what is left.
func (c Converter) flow(inV, outV, soft float64) flow {
	inV = math.Max(inV, least)
	amps, slope := held(c.OutV, c.MaxOutA, outV, regulationOhm*soft)
	watts := amps * outV / c.Efficiency
	f := flow{in: watts / inV, inByIn: -watts / (inV * inV), inByOut: (amps + slope*outV) / (c.Efficiency * inV),
		out: amps, outByOut: slope}
	if c.MaxInA == 0 || f.in <= c.MaxInA {
		return f
	}
	outV = math.Max(outV, least)
	given := c.MaxInA * inV * c.Efficiency / outV
	return flow{in: c.MaxInA, limited: true, out: given,
		outByIn: c.MaxInA * c.Efficiency / outV, outByOut: -given / outV}
}

func (c Converter) stamp(e *equations, v []float64) {
	if e.off[c.Name] {
		return
	}
	inV, outV := v[c.InPlus]-v[c.Minus], v[c.OutPlus]-v[c.Minus]
	f := c.flow(inV, outV, e.soft)
	if e.lagged {
		f.inByIn, f.inByOut, f.outByIn = 0, 0, 0
		if f.limited {
			f.outByOut = 0
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
