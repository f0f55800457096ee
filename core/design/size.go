package design

import (
	"math"

	"epitrope/core/circuit"
)

// size finds cables and fuses. What the coupling draws depends on what the cable
// loses, so it is settled by repetition: a few rounds, never without end.
func (d *Design) size() {
	d.sizeHouse()
	d.sizeTaps()
	for range 8 {
		d.sizeLegs()
		fitted := d.fitContacts() // before anything is built of them
		d.sizeTrigger()
		d.sizeButton()
		d.build()
		d.solve()
		if moved := d.redraw(); !moved && !fitted {
			break
		}
	}
	d.solveOthers()
}

// redraw takes what the states draw as the legs' current and says whether that
// changed it. A charger's current never falls below what it was sized for; a
// relay's is what the circuit drives.
func (d *Design) redraw() bool {
	inA, outA, joins := 0.0, 0.0, false
	for _, s := range d.States {
		joins = joins || s.Joined
		if !s.Sags && s.Kind == Charging && s.Joined && d.Is.Beside == Bypass {
			// Both stages at once: what the bypass carries, and the charger beside it.
			inA, outA = max(inA, s.InA+d.InputA(d.Charger)), max(outA, s.OutA+d.Charger.OutputA)
		} else if !s.Sags && s.Kind == Charging {
			inA, outA = max(inA, s.InA), max(outA, s.OutA)
		}
	}
	if d.Is.Splits {
		inA = d.Start.Amps // the vehicle's own cable stays as strong as its machine
	}
	if d.Kind.Charger() && (!d.Kind.Joins() || !joins) || inA == 0 {
		inA, outA = max(inA, d.Start.Amps), max(outA, d.Aux.Amps)
	}
	if d.Isolates() { // a flat battery has its regulator at its limit
		inA, outA = max(inA, SecondShare*d.Second.RatedA), max(outA, SecondShare*d.Second.RatedA)
	}
	if !d.Kind.Charger() {
		outA += d.sunBehindA()
	}
	outA = max(outA, d.tapsA(true)) // parked, the aux battery feeds what hangs on its side
	passA := d.joinRush()
	if d.Kind.Coil() {
		passA = max(passA, d.crankShare())
	}
	passed := math.Abs(passA-d.Start.PassA) <= 0.02*passA
	d.Start.PassA, d.Aux.PassA = passA, passA
	changed := !passed || math.Abs(inA-d.Start.Amps) > SettledWithin*inA || math.Abs(outA-d.Aux.Amps) > SettledWithin*outA
	d.Start.Amps, d.Aux.Amps = inA, outA
	return changed
}

// joinRush is what flows for seconds as a coupling that closes by itself joins a flat aux battery.
func (d *Design) joinRush() float64 {
	if !d.Is.CanJoin || d.Kind.Charger() {
		return 0
	}
	s := d.restState()
	s.given = true
	d.rush(&s)
	d.solveAs(&s)
	return math.Abs(circuit.Had(s.Solved.Through("contact")))
}

// crankShare is what goes through the join while the engine is cranked.
func (d *Design) crankShare() float64 {
	s := d.crankState(d.restState())
	if d.Settle(&s); !s.Joined {
		return 0
	}
	return math.Abs(circuit.Had(s.Solved.Through("contact")))
}

// SettledWithin is the share by which a current may move in a round for the sizes to stay.
const SettledWithin = 0.002
