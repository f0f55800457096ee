package circuit_test

import (
	"maps"
	"reflect"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/circuit"
	"epitrope/core/design"
	"epitrope/core/fault"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/system"
	"epitrope/testdata"
)

// What only resists otherwise comes to the same whether it is laid anew or rewired, one after the other and back again; and a fault
// that says so changes nothing else.
func TestRewiredIsLaidAnew(t *testing.T) {
	all, err := testdata.Documents()
	require.NoError(t, err)
	for k, name := range slices.Sorted(maps.Keys(all)) {
		if k%12 != 0 {
			continue
		}
		doc, problems := job.Decode(all[name])
		require.Empty(t, problems)
		d := design.Of(doc, parts.Stock())
		whole := circuit.Lay(&d.System, d.Facts.N)
		for _, f := range fault.Of(d) {
			changed, smaller := f.On(d.System, f.Size(0.3)), f.On(d.System, f.Size(0.1))
			if !f.Alike() {
				continue
			}
			assert.True(t, reflect.DeepEqual(bare(smaller), bare(changed)), "%s: %s", name, f.ID)
			kept, fresh := whole, circuit.Lay(&changed, d.Facts.N)
			if !f.Resists() { // a wire more: of another size
				kept = circuit.Lay(&smaller, d.Facts.N)
				require.True(t, kept.Rewire(&changed), "%s: %s", name, f.ID)
			} else if assert.True(t, reflect.DeepEqual(bare(d.System), bare(changed)), "%s: %s", name, f.ID); !kept.Rewire(&changed) {
				continue // a joint that had nothing, or a switch
			}
			for _, s := range d.States {
				was := circuit.Position{Stopped: true}
				want, errWant := fresh.Settle(s.State, was)
				got, errGot := kept.Settle(s.State, was)
				require.Equal(t, errWant == nil, errGot == nil, "%s: %s", name, f.ID)
				assert.Equal(t, want.Position, got.Position, "%s: %s", name, f.ID)
				for _, c := range changed.Components {
					for _, at := range []string{"30", "31", "in", "out"} {
						node := system.Terminal{Component: c.ID, Terminal: at}.Node()
						v, e := want.Solution.At(node)
						w, _ := got.Solution.At(node)
						if e == nil {
							assert.InDelta(t, v, w, 1e-6, "%s: %s at %s", name, f.ID, node)
						}
					}
				}
			}
		}
		require.True(t, whole.Rewire(&d.System), name)
	}
}

// bare is a system without what its wires and fuses resist.
func bare(s system.System) system.System {
	s.Wires, s.Components = slices.Clone(s.Wires), slices.Clone(s.Components)
	for i := range s.Wires {
		s.Wires[i].Ohm, s.Wires[i].Joint.From, s.Wires[i].Joint.To = 0, 0, 0
	}
	for i, c := range s.Components {
		switch of := c.Device.(type) {
		case system.Fuse:
			of.Ohm = 0
			s.Components[i].Device = of
		case system.Plug:
			of.Card.Ohm = 0
			s.Components[i].Device = of
		case system.Link:
			of.Ohm = 0
			s.Components[i].Device = of
		}
	}
	return s
}
