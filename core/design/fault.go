package design

import (
	"slices"
	"sync"

	"epitrope/core/system"
)

// Faulty is the same installation with something wrong with it: what was decided stands, and in
// every state, position and day its devices act on what is left.
func (d *Design) Faulty(wrong func(system.System) system.System) *Design {
	f := *d
	f.System, f.bench, f.States, f.known = wrong(d.System), &bench{}, slices.Clone(d.States), &sync.Map{}
	for i := range f.States {
		f.Settle(&f.States[i])
	}
	return &f
}
