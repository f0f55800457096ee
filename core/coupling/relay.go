package coupling

// Sensing is a voltage-sensing relay's card: it closes when a side it senses has
// stood at its cut-in for a while, and opens when it has stood below its cut-out for
// a while. It senses voltage, not charge. Volts are for a 12 V system.
type Sensing struct {
	CutInV, CutOutV float64
	CloseS, OpenS   float64 // how long it waits
	TwoWay          bool    // it also closes on the aux side's voltage, for solar there
	CoilA           float64 // what it takes when closed
	FollowS         float64 // within what time what it sees follows its side; 0 at once
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

// Selector is a switch turned by hand.
type Selector string

// The positions of a selector.
const (
	Off           Selector = "off"
	WithIgnition  Selector = "ignition"
	JoinedForGood Selector = "always"
)
