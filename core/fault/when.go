package fault

import (
	"slices"
	"strings"
)

// When is when a fault is there.
type When string

// When faults are there.
const (
	Standing When = ""
	ByHand   When = "by hand" // where what it is at is moved: it comes and goes
	ByHeat   When = "by heat" // after half an hour's work, and not before
)

// Standing is the fault as one that is always there.
func (f Fault) Standing() Fault {
	if f.When != Standing {
		f.ID, f.When = strings.TrimSuffix(f.ID, " "+string(f.When)), Standing
	}
	return f
}

// whens are when faults of a kind may be there, besides always.
var whens = map[Kind][]When{Joint: {ByHand, ByHeat}, Open: {ByHand}, Half: {ByHand}, Stuck: {ByHand, ByHeat}, Coil: {ByHeat},
	Dead: {ByHeat}, Machine: {ByHeat}}

// AtTimes are the faults that come and go, of some that may.
func AtTimes(faults []Fault) (list []Fault) {
	for _, f := range faults {
		for _, when := range []When{ByHand, ByHeat} {
			if !slices.Contains(whens[f.Kind], when) {
				continue
			}
			one := f
			one.ID, one.When = f.ID+" "+string(when), when
			one.Says += map[When]string{ByHand: ", but only at times: where it is moved", ByHeat: ", but only once warm"}[when]
			list = append(list, one)
		}
	}
	return list
}
