package hardy_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"epitrope/core/design"
	"epitrope/core/network"
	"epitrope/core/run"
	"epitrope/core/system"
	"epitrope/internal/pack"
)

// ofOneVehicle holds all sheets against each other: drawing, wires, parts, chain, section, sentence and
// circuit name the same components and wires, with the same ratings and sizes.
func ofOneVehicle(t testing.TB, name string, d *design.Design, pack pack.Pack) {
	t.Helper()
	sys := &pack.Plan.System
	drawn, lines := map[string]string{}, map[string]bool{}
	for _, p := range pack.Drawing.Parts {
		drawn[p.ID] = p.Name + ", " + p.Rating
	}
	for _, l := range pack.Drawing.Lines {
		lines[l.ID] = true
	}
	listed, led := map[string]bool{}, map[string]string{}
	for _, l := range pack.Parts.Lines {
		for _, id := range l.Of {
			listed[id] = true
		}
	}
	for _, l := range pack.Leads {
		led[l.ID] = l.Size
	}
	laid := map[string]bool{}
	c, _, _ := d.CircuitAt("parked")
	for _, e := range c.Elements {
		if r, is := e.(network.Resistance); is {
			laid[r.Name] = true
		}
	}
	for _, p := range sys.Components {
		if p.Kind == system.KindLoads {
			continue // drawn load by load, where there is a list
		}
		assert.Equal(t, p.Name+", "+p.Rating, drawn[p.ID], "%s: %s on the drawing", name, p.ID)
		bought := p.Kind == system.KindFuse || p.Kind == system.KindCharger || p.Kind == system.KindRelay || p.Kind == system.KindPlug
		if bought && !p.Existing {
			assert.True(t, listed[p.ID], "%s: %s is in no line of the parts", name, p.ID)
		}
	}
	for _, w := range sys.Wires {
		if w.Role != system.Chassis {
			assert.True(t, lines[w.ID], "%s: %s is not drawn", name, w.ID)
		}
		if !w.Existing && w.Size != "" {
			assert.Equal(t, w.Size, led[w.ID], "%s: %s in the wire list", name, w.ID)
		}
		if (w.Role == system.Feed || w.Role == system.Return) && w.Ohm > 0 {
			assert.True(t, laid[w.ID], "%s: %s is not in the circuit", name, w.ID)
		}
	}
	ofOneRun(t, name, d, pack)
}

// ofOneRun holds what is said of the run's fuses and cables against each other.
func ofOneRun(t testing.TB, name string, d *design.Design, pack pack.Pack) {
	t.Helper()
	columns := map[string]string{"return": "the way back"}
	for _, c := range pack.Plan.Columns {
		columns[c.ID] = c.Part.Text
	}
	for _, l := range pack.Plan.Chain {
		_, there := columns[l.Column]
		assert.True(t, there, "%s: the chain's %s is of no column: %s", name, l.Name, l.Column)
	}
	for _, n := range pack.Plan.Notes {
		_, there := columns[n.Column]
		_, isPart := pack.Plan.System.Component(n.Column)
		_, isWire := pack.Plan.System.Wire(n.Column)
		assert.True(t, there || isPart || isWire, "%s: the note %s is on nothing that there is: %q", name, n.ID, n.Column)
	}
	for id, l := range map[string]run.Sized{"f1": d.Start, "f2": d.Aux} {
		fuse, there := pack.Plan.System.Component(id)
		_, shown := columns[id]
		if !assert.Equal(t, []bool{!l.Unfused, !l.Unfused}, []bool{there, shown}, "%s: %s", name, id) || l.Unfused {
			continue
		}
		rating, _, _ := strings.Cut(columns[id], " A")
		assert.True(t, strings.HasPrefix(fuse.Rating, rating+" A"), "%s: %s is %s in the section and %s in the system", name, id,
			columns[id], fuse.Rating)
		assert.Contains(t, pack.Plan.Summary, "fuse "+rating+" A", "%s", name)
	}
	for id, l := range map[string]string{"c1": d.Start.Trial.Size.Label, "c2": d.Aux.Trial.Size.Label} {
		wire, _ := pack.Plan.System.Wire(id)
		assert.Equal(t, l, wire.Size, "%s: %s", name, id)
		assert.Contains(t, pack.Plan.Summary, l, "%s: %s", name, id)
	}
}
