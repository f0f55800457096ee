package design

import (
	"epitrope/core/coupling"
	"epitrope/core/system"
)

// Arrangement is how a coupling is put together: what differs from one to the next, each in a
// file of its own (coupling_*.go). Nothing else in the core asks which coupling it is, but
// where a rule is about that coupling by its nature.
type Arrangement struct {
	Kind       coupling.Kind
	Name       string               // on the run
	Part       system.ComponentKind // what stands as the coupling
	OwnMachine bool                 // the run begins at a machine of its own, apart from the start battery
	Splits     bool                 // the vehicle's machine feeds both batteries through it, each by a diode
	Senses     bool                 // its contact watches the voltage itself
	Beside     Beside
	ByHand     ByHand
	CanJoin    bool // the start and the aux battery, some way
}

// Beside is the relay K1 beside a charger.
type Beside int

// What may stand beside a charger.
const (
	NoRelay     Beside = iota
	RestContact        // at rest it feeds the charger, energised it joins the batteries past it
	Bypass             // it joins them while there is much to give; the charger works its coil
)

// ByHand is how a person joins the batteries, by S1.
type ByHand int

// The ways to join them by hand.
const (
	NoHand         ByHand = iota
	Button                // a push-button is all that works the coil
	ButtonIfWanted        // the signal works it; a button where an emergency start is wanted
	Selector              // the signal works it, as a selector has it
)

// arrangements are those of all couplings.
var arrangements = []Arrangement{dcdc, inTrailer, changeover, highCurrent, relay, contactor, selector, secondMachine, splitter}

// arranged is the arrangement of a kind.
func arranged(k coupling.Kind) Arrangement {
	for _, a := range arrangements {
		if a.Kind == k {
			return a
		}
	}
	return dcdc // a document holds only kinds that there are
}
