package export_test

import (
	"math/rand/v2"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/network"
	"epitrope/core/parts"
	"epitrope/core/system"
	"epitrope/internal/export"
	"epitrope/internal/jobtest"
)

// One vehicle on every sheet, whatever validation lets through: drawing, wires, parts, chain, section,
// sentence and circuit name the same components and wires, with the same ratings and sizes.
func TestEverySheetIsOfOneVehicle(t *testing.T) {
	count := 25
	if os.Getenv("EPITROPE_CHECK") == "all" {
		count = 1000
	}
	for seed := range uint64(count) {
		doc, problems := job.Decode(jobtest.Random(rand.New(rand.NewPCG(seed, 182))))
		require.Empty(t, problems)
		d := design.Of(doc, parts.Stock())
		pack := export.NewPack(d, export.Workshop{})
		ofOneVehicle(t, seed, d, pack)
		if t.Failed() {
			return
		}
	}
}

func ofOneVehicle(t *testing.T, seed uint64, d *design.Design, pack export.Pack) {
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
		assert.Equal(t, p.Name+", "+p.Rating, drawn[p.ID], "seed %d: %s on the drawing", seed, p.ID)
		bought := p.Kind == system.KindFuse || p.Kind == system.KindCharger || p.Kind == system.KindRelay || p.Kind == system.KindPlug
		if bought && !p.Existing {
			assert.True(t, listed[p.ID], "seed %d: %s is in no line of the parts", seed, p.ID)
		}
	}
	for _, w := range sys.Wires {
		if w.Role != system.Chassis {
			assert.True(t, lines[w.ID], "seed %d: %s is not drawn", seed, w.ID)
		}
		if !w.Existing && w.Size != "" {
			assert.Equal(t, w.Size, led[w.ID], "seed %d: %s in the wire list", seed, w.ID)
		}
		if (w.Role == system.Feed || w.Role == system.Return) && w.Ohm > 0 {
			assert.True(t, laid[w.ID], "seed %d: %s is not in the circuit", seed, w.ID)
		}
	}
	ofOneRun(t, seed, d, pack)
}

// ofOneRun holds what is said of the run's fuses and cables against each other.
func ofOneRun(t *testing.T, seed uint64, d *design.Design, pack export.Pack) {
	t.Helper()
	columns := map[string]string{"return": "the way back"}
	for _, c := range pack.Plan.Columns {
		columns[c.ID] = c.Part.Text
	}
	for _, l := range pack.Plan.Chain {
		_, there := columns[l.Column]
		assert.True(t, there, "seed %d: the chain's %s is of no column: %s", seed, l.Name, l.Column)
	}
	for _, n := range pack.Plan.Notes {
		_, there := columns[n.Column]
		_, isPart := pack.Plan.System.Component(n.Column)
		_, isWire := pack.Plan.System.Wire(n.Column)
		assert.True(t, there || isPart || isWire, "seed %d: the note %s is on nothing that there is: %q", seed, n.ID, n.Column)
	}
	for _, id := range []string{"f1", "f2"} {
		fuse, there := pack.Plan.System.Component(id)
		require.True(t, there, "seed %d: %s", seed, id)
		rating, _, _ := strings.Cut(columns[id], " A")
		assert.True(t, strings.HasPrefix(fuse.Rating, rating+" A"), "seed %d: %s is %s in the section and %s in the system", seed, id,
			columns[id], fuse.Rating)
		assert.Contains(t, pack.Plan.Summary, "fuse "+rating+" A", "seed %d", seed)
	}
	for id, l := range map[string]string{"c1": d.Start.Trial.Size.Label, "c2": d.Aux.Trial.Size.Label} {
		wire, _ := pack.Plan.System.Wire(id)
		assert.Equal(t, l, wire.Size, "seed %d: %s", seed, id)
		assert.Contains(t, pack.Plan.Summary, l, "seed %d: %s", seed, id)
	}
}
