package coupling

import (
	"slices"
	"strings"
)

// Kind is a way of coupling the two batteries: the methods of the trade.
type Kind string

// The couplings that are judged.
const (
	DCDC              Kind = "dcdc"        // a charger beside the battery it charges
	TrailerCharger    Kind = "trailer"     // … behind the tow coupling
	DCDCChangeover    Kind = "changeover"  // a charger fed over the rest contact of an emergency-start relay
	DCDCHighCurrent   Kind = "highcurrent" // a charger beside a bypass stage
	VSR               Kind = "vsr"
	SwitchedContactor Kind = "contactor"
	ManualSelector    Kind = "selector"
	SecondAlternator  Kind = "second"   // a machine of its own, apart from the vehicle's
	DiodeSplitter     Kind = "splitter" // the vehicle's own charge cable, led through two diodes
)

// kinds in the order in which one is taken where merits are equal: chargers first, as
// they never harm, and the simpler before the more elaborate.
var kinds = []struct {
	kind Kind
	what string // it is
	with string // or where
}{
	{DCDC, "DC-DC charger", ""},
	{TrailerCharger, "charger", "in the trailer"},
	{DCDCChangeover, "DC-DC charger", "with changeover"},
	{DCDCHighCurrent, "DC-DC charger", "with high-current stage"},
	{VSR, "voltage-sensing relay", ""},
	{SwitchedContactor, "switched contactor", ""},
	{ManualSelector, "manual selector", ""},
	{SecondAlternator, "second alternator", ""},
	{DiodeSplitter, "diode splitter", ""},
}

// Kinds lists them in that order.
func Kinds() []Kind {
	list := make([]Kind, len(kinds))
	for i, k := range kinds {
		list[i] = k.kind
	}
	return list
}

// Label is the kind in words.
func (k Kind) Label() string {
	what, with := k.words()
	return strings.TrimSpace(what + " " + with)
}

// Detailed is the kind in words with a detail of what it is: “DC-DC charger, 30 A, with
// changeover”.
func (k Kind) Detailed(detail string) string {
	what, with := k.words()
	if with == "" {
		return what + ", " + detail
	}
	return what + ", " + detail + ", " + with
}

func (k Kind) words() (what, with string) {
	for _, one := range kinds {
		if one.kind == k {
			return one.what, one.with
		}
	}
	return string(k), ""
}

// Charger says whether a DC-DC charger stands between the batteries.
func (k Kind) Charger() bool {
	return slices.Contains([]Kind{DCDC, TrailerCharger, DCDCChangeover, DCDCHighCurrent}, k)
}

// Joins says whether a contact joins the batteries in daily use.
func (k Kind) Joins() bool {
	return slices.Contains([]Kind{VSR, SwitchedContactor, ManualSelector, DCDCHighCurrent}, k)
}

// Coil says whether its contact has a coil that an ignition feed works.
func (k Kind) Coil() bool { return k == SwitchedContactor || k == ManualSelector }

// Senses says whether its contact closes by the voltage that it sees.
func (k Kind) Senses() bool { return k == VSR }

// Signal says whether it needs a wire that tells it that the engine runs, or the
// ignition is on.
func (k Kind) Signal() bool { return k.Charger() || k.Coil() }

// AtStart says whether it sits at the start battery, with the long run behind it: what has no
// charger, and a charger that stays in the vehicle that tows the battery.
func (k Kind) AtStart(towed bool) bool { return !k.Charger() || k == DCDC && towed }
