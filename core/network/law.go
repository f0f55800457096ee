package network

// law is a current that depends on one voltage, made of straight pieces in order of that
// voltage: on piece i it is amps[i] + slope[i]·u. Neighbours agree where they meet.
type law struct {
	pieces int
	amps   [3]float64
	slope  [3]float64
	ends   [2]float64 // of each piece but the last
}

func (l *law) at(piece int, u float64) float64 { return l.amps[piece] + l.slope[piece]*u }

// piece is the one that a voltage lies on.
func (l *law) piece(u float64) int {
	for i := range l.pieces - 1 {
		if u <= l.ends[i] {
			return i
		}
	}
	return l.pieces - 1
}

// givesLaw is what a battery gives by its voltage: through its own resistance, then, taking,
// against another, up to what it accepts.
func (b *Battery) givesLaw() law {
	takes := b.Ohm
	if b.ChargeOhm > 0 {
		takes = b.ChargeOhm
	}
	l := law{pieces: 2}
	l.amps[0], l.slope[0] = b.Volts/b.Ohm, -1/b.Ohm
	l.amps[1], l.slope[1] = b.Volts/takes, -1/takes
	l.ends[0] = b.Volts
	if b.MaxChargeA > 0 {
		l.pieces = 3
		l.ends[1] = b.Volts + b.MaxChargeA*takes
		l.amps[2], l.slope[2] = -b.MaxChargeA+leak*l.ends[1], -leak
	}
	return l
}

// heldLaw is what is given to hold a voltage, giving way by ohm, from nothing to most.
func heldLaw(volts, most, ohm float64) law {
	l := law{pieces: 1}
	l.slope[0] = -leak
	if most <= leak {
		return l
	}
	l.pieces = 3
	l.ends = [2]float64{volts - most*ohm, volts}
	l.amps[0] = most + leak*l.ends[0]
	l.amps[1], l.slope[1] = volts/ohm, -1/ohm
	l.amps[2], l.slope[2] = leak*volts, -leak
	return l
}

func (a *Alternator) givesLaw() law { return heldLaw(a.Volts, a.MaxA, a.slope()) }

// passesLaw is what a diode lets through by the voltage across it.
func (d *Diode) passesLaw() law {
	l := law{pieces: 2}
	l.slope = [3]float64{leak, 1 / d.Ohm}
	l.amps[1] = -d.ForwardV * (1/d.Ohm - leak)
	l.ends[0] = d.ForwardV
	return l
}

// drawsLaw is what a load of a current draws by the voltage across it: a resistance up to
// LeastV, or the other way round.
func (l *CurrentLoad) drawsLaw() law {
	out := law{pieces: 2}
	out.slope = [3]float64{l.Amps/LeastV + leak, leak}
	out.amps[1] = l.Amps
	out.ends[0] = LeastV
	return out
}
