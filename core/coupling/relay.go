package coupling

// Sensing is a voltage-sensing relay's card: it closes when a side it senses has
// stood at its cut-in for a while, and opens when it has stood below its cut-out for
// a while. It senses voltage, not charge. Volts are for a 12 V system.
type Sensing struct {
	CutInV, CutOutV float64
	CloseS, OpenS   float64 // how long it waits
	TwoWay          bool    // it also closes on the aux side's voltage, for solar there
	CoilA           float64 // what it takes when closed
}

// Usual is a one-way relay as commonly met, and UsualTwoWay one that senses both
// sides. Source: cut-in 13.3 / cut-out 12.8, 13.4 two-way, held below for 10 s:
// common practice, no source; closing delay and coil from memory.
var (
	Usual       = Sensing{CutInV: CutInV, CutOutV: CutOutV, CloseS: 2, OpenS: 10, CoilA: 0.15}
	UsualTwoWay = Sensing{CutInV: 13.4, CutOutV: CutOutV, CloseS: 2, OpenS: 10, TwoWay: true, CoilA: 0.15}
)

// UsualDetection is what a charger without a signal takes for a running engine. Source:
// from memory; its card wins.
var UsualDetection = Sensing{CutInV: 13.3, CutOutV: 12.7, CloseS: 5, OpenS: 10}

// Wants returns what the relay will do if the voltages at its two contacts stay as
// they are: to be closed or open, and after how many seconds. Between its thresholds
// it stays as it is.
func (r Sensing) Wants(closed bool, startV, auxV float64) (toClose bool, afterS float64) {
	sensed := startV
	if r.TwoWay {
		sensed = max(startV, auxV)
	}
	switch {
	case !closed && sensed >= r.CutInV:
		return true, r.CloseS
	case closed && sensed < r.CutOutV:
		return false, r.OpenS
	}
	return closed, 0
}

// Contactor is a continuous-duty contactor: its coil pulls with one current and, with
// an economiser, holds with less. A starter-type solenoid holds with all of it and is
// not made for hours.
type Contactor struct {
	PullA, HoldA float64 // at the system's voltage, 12 V
	PullS        float64 // how long it pulls
	PullV, DropV float64 // closes at, lets go at
	Continuous   bool
}

// The contactors met. Source: from memory.
var (
	ContinuousDuty = Contactor{PullA: 1.0, HoldA: 1.0, PullS: 0.1, PullV: 8, DropV: 3, Continuous: true}
	Economised     = Contactor{PullA: 3.0, HoldA: 0.15, PullS: 0.1, PullV: 9, DropV: 6, Continuous: true}
	StarterType    = Contactor{PullA: 4.0, HoldA: 4.0, PullS: 0.1, PullV: 7, DropV: 2}
)

// CoilA returns what the coil takes at a voltage, in A, after it has been on for
// seconds: the pull, then the hold, both by Ohm's law.
func (c Contactor) CoilA(volts, seconds float64) float64 {
	amps := c.HoldA
	if seconds < c.PullS {
		amps = c.PullA
	}
	return amps * volts / 12
}

// Closed says whether the contacts are closed at a coil voltage, 12 V system, by
// whether they were.
func (c Contactor) Closed(was bool, coilV float64) bool {
	if was {
		return coilV > c.DropV
	}
	return coilV >= c.PullV
}

// Changeover is a relay with a rest contact 87a and a working contact 87 on 30. At
// rest the start battery feeds the charger; energised it is joined to the aux battery
// for an emergency start. Its headline rating is that of 87.
type Changeover struct {
	MakeA  float64 // 30 to 87, continuous
	BreakA float64 // 30 to 87a, continuous: less
	CoilA  float64
}

// PlugIn is a common plug-in changeover relay. Source: ISO 7588 sizes, ratings from
// memory: 40 A made, 30 A at rest.
var PlugIn = Changeover{MakeA: 40, BreakA: 30, CoilA: 0.15}

// Bears says whether the contact in use bears a continuous current.
func (c Changeover) Bears(energised bool, amps float64) bool {
	if energised {
		return amps <= c.MakeA
	}
	return amps <= c.BreakA
}

// Selector is a switch turned by hand.
type Selector string

// The positions of a selector.
const (
	Off           Selector = "off"
	WithIgnition  Selector = "ignition"
	JoinedForGood Selector = "always"
)

// Joins says whether the batteries are joined: left on for good, both go flat.
func (s Selector) Joins(ignition bool) bool {
	return s == JoinedForGood || s == WithIgnition && ignition
}

// Splitter is a diode between the batteries, for comparison: nothing comes back, and
// what it drops is missing at both. Source: from memory: 0.7 V of a silicon diode,
// 0.4 V of a Schottky diode, and a milliohm.
type Splitter struct{ ForwardV, Ohm float64 }

// The diodes met.
var (
	Silicon  = Splitter{ForwardV: 0.7, Ohm: 0.001}
	Schottky = Splitter{ForwardV: 0.4, Ohm: 0.001}
)

// DropV returns what is lost across it at a current, in V.
func (s Splitter) DropV(amps float64) float64 { return s.ForwardV + s.Ohm*amps }
