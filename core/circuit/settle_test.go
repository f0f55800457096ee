package circuit_test

import (
	"maps"
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/circuit"
	"epitrope/core/coupling"
	"epitrope/core/design"
	"epitrope/core/parts"
	"epitrope/core/system"
	"epitrope/internal/jobtest"
)

// without is a system with a component taken out, or a wire cut.
func without(s system.System, id string) system.System {
	s.Components = slices.DeleteFunc(slices.Clone(s.Components), func(c system.Component) bool { return c.ID == id })
	s.Wires = slices.DeleteFunc(slices.Clone(s.Wires), func(w system.Wire) bool { return w.ID == id })
	return s
}

// with is a system with a wire of so many ohms more.
func with(s system.System, wire string, ohm float64) system.System {
	s.Wires = slices.Clone(s.Wires)
	for i := range s.Wires {
		if s.Wires[i].ID == wire {
			s.Wires[i].Ohm += ohm
		}
	}
	return s
}

// coilOpen is a system whose coil is broken.
func coilOpen(s system.System) system.System {
	s.Components = slices.Clone(s.Components)
	for i, c := range s.Components {
		if contact, ok := c.Device.(system.Contact); ok {
			contact.CoilOhm = 1e6
			s.Components[i].Device = contact
		}
	}
	return s
}

const proven = `{"alternator":{"label":"90/180 A","regulation":"fixed","knownBy":"test","volts":14.4},"aux":{"chemistry":"agm",` +
	`"place":"middle"}%s}`

// A fault acts: whoever works the coupling sees what is left, and stands where a vehicle's
// would stand.
func TestFaultsAct(t *testing.T) {
	type fault func(system.System) system.System
	out := func(id string) fault { return func(s system.System) system.System { return without(s, id) } }
	none := func(s system.System) system.System { return s }
	const held, extra = "held", ""
	for _, c := range []struct {
		says, rest    string
		hand          string
		fault         fault
		joined, runs  bool
		hunts         bool
		carries, most float64 // amps of C1, at least and at most
	}{
		{"a charger, healthy", `"pins":{"coupling":"dcdc","chargerA":30}`, extra, none, false, true, false, 30, 45},
		{"its trigger's fuse out", `"pins":{"coupling":"dcdc","chargerA":30}`, extra, out("f3"), false, false, false, 0, 0.1},
		{"its trigger's wire open", `"pins":{"coupling":"dcdc","chargerA":30}`, extra, out("t1b"), false, false, false, 0, 0.1},
		{"F1 out", `"pins":{"coupling":"dcdc","chargerA":30}`, extra, out("f1"), false, false, false, 0, 0},
		{"its way back open", `"pins":{"coupling":"dcdc","chargerA":30,"return":"cable"}`, extra, out("n1"), false, false, false, 0, 0.1},
		{"F2 out: it gives nothing", `"pins":{"coupling":"dcdc","chargerA":30}`, extra, out("f2"), false, true, false, 0, 1},
		{"50 mΩ in its feed: it hunts", `"pins":{"coupling":"dcdc","chargerA":60,"startSize":"25 mm2"}`, extra,
			func(s system.System) system.System { return with(s, "c1", 0.05) }, false, true, true, 0, 300},
		{"a relay, healthy", `"pins":{"coupling":"vsr"}`, extra, none, true, true, false, 20, 60},
		{"its own earth open", `"pins":{"coupling":"vsr"}`, extra, out("g1"), false, true, false, 0, 0.1},
		{"F1 out", `"pins":{"coupling":"vsr"}`, extra, out("f1"), false, true, false, 0, 0},
		{"a contactor, healthy", `"pins":{"coupling":"contactor"}`, extra, none, true, true, false, 20, 60},
		{"the feed of its coil dead", `"pins":{"coupling":"contactor"}`, extra, out("f3"), false, true, false, 0, 0.1},
		{"its coil open", `"pins":{"coupling":"contactor"},"wants":{"emergencyStart":"no"}`, extra, coilOpen, false, true, false, 0, 0.1},
		{"its coil's earth open", `"pins":{"coupling":"contactor"}`, extra, out("g1"), false, true, false, 0, 0.1},
		{"a changeover held", `"pins":{"coupling":"changeover"}`, held, none, true, false, false, 20, 200},
		{"held with F5 out", `"pins":{"coupling":"changeover"}`, held, out("f5"), false, true, false, 20, 70},
		{"a high-current stage whose control is open", `"pins":{"coupling":"highcurrent"}`, extra, out("k1c"), false, false, false, 0, 0.1},
	} {
		d := jobtest.Design(t, fmtJob(c.rest))
		s := c.fault(d.System)
		state := d.StateBy("early").State
		if c.hand != "" {
			state.Hands = map[string]system.Hand{"s1": system.Held}
		}
		got, err := circuit.Lay(&s, d.Facts.N).Settle(state, circuit.Position{Stopped: true})
		if c.hunts && err != nil {
			continue // it asks more than its line can give, and is named
		}
		require.NoError(t, err, c.says)
		assert.Equal(t, c.joined, got.Joined, c.says)
		if d.Kind.Charger() {
			assert.Equal(t, c.runs, !got.Stopped, c.says)
		}
		assert.Equal(t, c.hunts, len(got.Hunts) > 0, c.says)
		amps := math.Abs(circuit.Had(got.Solution.Through("c1")))
		assert.True(t, amps >= c.carries && amps <= c.most, "%s: %.2f A", c.says, amps)
	}
}

func fmtJob(rest string) string { return proven[:len(proven)-3] + "," + rest + "}" }

// A management system that opens leaves the charger working on what else is there.
func TestManagementSystemOpens(t *testing.T) {
	d := jobtest.Design(t, `{"pins":{"coupling":"dcdc","chargerA":20}}`)
	state := d.StateBy("early").State
	state.AuxParted = true
	got, err := circuit.Lay(&d.System, d.Facts.N).Settle(state, circuit.Position{Stopped: true})
	require.NoError(t, err)
	assert.InDelta(t, 0, circuit.Had(got.Solution.Through("aux battery")), 0.1)
}

// A relay between its thresholds stays as it was.
func TestSensingRemembers(t *testing.T) {
	d := jobtest.Design(t, fmtJob(`"pins":{"coupling":"vsr"}`))
	laid := circuit.Lay(&d.System, d.Facts.N)
	state := d.StateBy("parked").State
	state.StartV, state.AuxOwnV = 13.0, 13.0
	for _, was := range []bool{false, true} {
		got, err := laid.Settle(state, circuit.Position{Joined: was})
		require.NoError(t, err)
		assert.Equal(t, was, got.Joined)
	}
}

// Whatever is taken out or cut, of any coupling, something stands in the end or is named, and
// what is no longer whole carries nothing.
func TestEverythingOpenSettles(t *testing.T) {
	docs := jobtest.Complete(t)
	for i, name := range slices.Sorted(maps.Keys(docs)) {
		doc := docs[name]
		pin := string(coupling.Kinds()[i%len(coupling.Kinds())])
		doc.Pins.Coupling = &pin
		d := design.Of(doc, parts.Stock())
		open := []string{}
		for _, w := range d.System.Wires {
			open = append(open, w.ID)
		}
		for _, c := range d.System.Components {
			if _, ok := c.Device.(system.Fuse); ok {
				open = append(open, c.ID)
			}
		}
		for _, id := range open {
			s := without(d.System, id)
			got, err := circuit.Lay(&s, d.Facts.N).Settle(d.StateBy("early").State, circuit.Position{Stopped: true})
			if err != nil {
				continue
			}
			assert.NotNil(t, got.Solution.Volts, "%s, %s without %s", name, pin, id)
			ends := []string{"f1", "c1a", "c1"}
			if d.Is.Splits {
				ends = []string{"lead", "f2", "c2"} // the start battery's way is not the aux battery's
			}
			if slices.Contains(ends, id) {
				assert.Less(t, math.Abs(circuit.Had(got.Solution.Through("c2c"))), 1.0, "%s, %s without %s", name, pin, id)
			}
		}
	}
}

func BenchmarkSettle(b *testing.B) {
	d := jobtest.Design(b, fmtJob(`"pins":{"coupling":"contactor"},"extras":{"isolator":"aux","monitor":"yes","disconnect":"yes","peakA":40}`))
	laid := circuit.Lay(&d.System, d.Facts.N)
	state := d.StateBy("early").State
	for name, was := range map[string]circuit.Position{"stays": {Joined: true}, "moves": {}} {
		b.Run(name, func(b *testing.B) {
			for b.Loop() {
				if _, err := laid.Settle(state, was); err != nil {
					b.Fatal(err)
				}
			}
		})
	}
}
