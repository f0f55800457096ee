package procedure_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/coupling"
	"epitrope/core/design"
	"epitrope/core/harness"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/plan"
	"epitrope/core/procedure"
	"epitrope/core/prove"
	"epitrope/core/retrofit"
	"epitrope/core/section"
	"epitrope/core/system"
	"epitrope/testdata"
)

func stepsOf(t testing.TB, text []byte) (plan.Plan, []harness.Lead, []procedure.Step) {
	t.Helper()
	doc, problems := job.Decode(text)
	require.Empty(t, problems)
	d := design.Of(doc, parts.Stock())
	p := plan.Of(d)
	wires := harness.Leads(&p.System, harness.UsualScheme)
	return p, wires, procedure.Steps(p, wires, retrofit.Of(d), prove.Of(d))
}

func index(list []procedure.Step, id string) int {
	return slices.IndexFunc(list, func(s procedure.Step) bool { return s.ID == id })
}

// On every job: each step comes after what it waits for; holds come before what they guard;
// negative first off and last on; common ground before feeds; fuses last.
func TestStepsAreInASafeOrder(t *testing.T) {
	documents, err := testdata.Documents()
	require.NoError(t, err)
	for name, data := range documents {
		p, wires, list := stepsOf(t, data)
		seen := map[string]int{}
		for i, s := range list {
			_, twice := seen[s.ID]
			assert.False(t, twice, "%s: %s twice", name, s.ID)
			for _, id := range s.After {
				at, before := seen[id]
				assert.True(t, before && at < i, "%s: %s before %s", name, s.ID, id)
			}
			seen[s.ID] = i
			assert.Positive(t, s.Minutes, "%s: %s", name, s.ID)
			assert.NotEmpty(t, s.What, "%s: %s", name, s.ID)
		}
		first := func(prefix string) int {
			return slices.IndexFunc(list, func(s procedure.Step) bool { return strings.HasPrefix(s.ID, prefix) })
		}
		off, on := seen["negative-off"], seen["negative-on"]
		for _, s := range list {
			covers := strings.HasPrefix(s.ID, "lay-") || strings.HasPrefix(s.ID, "hole-") || strings.HasPrefix(s.ID, "earth-")
			assert.Equal(t, covers, s.Covered, "%s: %s lies under what closes", name, s.ID)
			assert.False(t, s.Covered && seen[s.ID] > seen["cover"], "%s: %s comes too late", name, s.ID)
		}
		for _, c := range p.System.Components {
			if c.Kind == system.KindFuse && len(p.Stops()) == 0 {
				at, ok := seen["fuse-"+c.ID]
				assert.True(t, ok && at > seen["hold-fuses"], "%s: %s goes in after its polarity was measured", name, c.Name)
			}
			_, fitted := seen["fit-"+c.ID]
			assert.Equal(t, !c.Existing && c.Kind != system.KindEarth && c.Kind != system.KindFeedPoint && c.Kind != system.KindLoads, fitted,
				"%s: %s", name, c.Name)
		}
		for _, s := range list {
			at := seen[s.ID]
			for _, of := range s.Of {
				_, isPart := p.System.Component(of)
				_, isWire := p.System.Wire(of)
				assert.True(t, isPart || isWire, "%s: %s is about %s", name, s.ID, of)
			}
			switch {
			case strings.HasPrefix(s.ID, "join-"), strings.HasPrefix(s.ID, "end-"), strings.HasPrefix(s.ID, "lay-"),
				strings.HasPrefix(s.ID, "hole-"):
				assert.True(t, at > off && at < seen["hold-connect"], "%s: %s is not between negative off and the hold", name, s.ID)
			case strings.HasPrefix(s.ID, "fuse-"):
				assert.Greater(t, at, seen["hold-fuses"], name)
			case strings.HasPrefix(s.ID, "prove-"):
				assert.True(t, at > on && at < seen["hold-handover"], "%s: %s", name, s.ID)
			}
		}
		assert.Less(t, seen["hold-cover"], seen["cover"], name)
		if len(p.Stops()) > 0 { // nothing is made live, and nothing expected of it
			assert.Equal(t, "stop", list[len(list)-1].ID, name)
			assert.Negative(t, max(first("fuse-"), first("prove-")), name)
		} else {
			assert.Less(t, seen["hold-connect"], on, name)
			assert.Less(t, on, seen["hold-fuses"], name)
			assert.Equal(t, len(list)-1, seen["hand-over"], name)
		}
		for _, w := range wires {
			assert.GreaterOrEqual(t, first("end-"+w.ID), 0, "%s: ends of %s", name, w.Number)
			assert.GreaterOrEqual(t, first("join-"+w.ID), 0, "%s: %s is never connected", name, w.Number)
			if w.Role == "feed" && w.Clip > 0 { // a bank's links are laid nowhere
				for _, r := range wires {
					if r.Role == "return" && r.Clip > 0 {
						assert.Less(t, seen["lay-"+r.ID], seen["lay-"+w.ID], "%s: ground first", name)
					}
				}
			}
		}
		for _, c := range p.System.Components {
			if !c.Existing && c.Kind != "earth" && c.Kind != "feed-point" {
				assert.GreaterOrEqual(t, index(list, "fit-"+c.ID), 0, "%s: %s is never fitted", name, c.ID)
			}
		}
		assert.Greater(t, procedure.Hours(list), 2.0, name)
	}
}

// What is to be read is what the plan computed.
func TestFiguresAreThePlans(t *testing.T) {
	p, _, list := stepsOf(t, []byte(`{"alternator":{"label":"90/180 A"},"pins":{"chargerA":30}}`))
	var cruise section.State
	for _, s := range p.States {
		if s.ID == "cruise" {
			cruise = s
		}
	}
	assert.Regexp(t, `Current into the aux battery: 2\d\.\d A to 3\d\.\d A`, strings.Join(list[index(list, "prove-fast-idle")].Checks, "; "))
	assert.InDelta(t, 30, cruise.OutA, 0.1)
	assert.Contains(t, list[index(list, "set")].What, "14.")
	assert.GreaterOrEqual(t, index(list, "prove-asleep"), 0)
	assert.Less(t, index(list, "prove-fuses-out"), index(list, "hold-fuses"), "polarity is read before any fuse goes in")
	trailer, _, steps := stepsOf(t, []byte(`{"vehicle":{"kind":"tow-caravan"}}`))
	assert.GreaterOrEqual(t, index(steps, "plug"), 0, trailer.Coupling)
	assert.GreaterOrEqual(t, index(steps, "unplug"), 0)
	assert.Negative(t, index(list, "plug"))
}

// What was found and goes is taken out once it is dead; what nobody knows is traced first.
func TestWhatWasFoundIsTakenOut(t *testing.T) {
	documents, err := testdata.Documents()
	require.NoError(t, err)
	_, _, list := stepsOf(t, documents["1-bookmobile.json"])
	out := 0
	for i, s := range list {
		if strings.HasPrefix(s.ID, "out-") || strings.HasPrefix(s.ID, "off-") {
			out++
			assert.Greater(t, i, index(list, "negative-off"))
			assert.Less(t, i, index(list, "hold-connect"))
		}
	}
	assert.GreaterOrEqual(t, out, 3)
	_, _, none := stepsOf(t, []byte(`{}`))
	for _, s := range none {
		assert.NotEqual(t, procedure.Remove, s.Stage)
	}
	_, _, unknown := stepsOf(t, []byte(`{"found":{"w1":{"colour":"green","role":"unknown"}}}`))
	for _, s := range unknown {
		if strings.HasPrefix(s.ID, "trace-") {
			assert.Contains(t, s.What, "counts as live")
			return
		}
	}
}

// The factory's own ignition feed on a coil that was found is taken off and insulated, as
// what it joins has to be apart.
func TestTheFactorysFeedComesOff(t *testing.T) {
	_, _, list := stepsOf(t, []byte(`{"aux":{"chemistry":"agm"},"gear":{"boost":{"kind":"changeover","name":"boost relay","works":"works",`+
		`"factoryFeed":"yes"}},"pins":{"coupling":"changeover"}}`))
	i := slices.IndexFunc(list, func(s procedure.Step) bool { return s.ID == "factory-feed-boost" })
	require.GreaterOrEqual(t, i, 0, "it must be removed and insulated")
	assert.Contains(t, list[i].Title, "boost relay")
	assert.Contains(t, list[i].What, "Insulate")
	_, _, list = stepsOf(t, []byte(`{"aux":{"chemistry":"agm"},"gear":{"boost":{"kind":"changeover","works":"works","factoryFeed":"no"}},`+
		`"pins":{"coupling":"changeover"}}`))
	assert.False(t, slices.ContainsFunc(list, func(s procedure.Step) bool {
		return s.Title == "Take the factory's ignition feed off the coil" || s.ID == "factory-feed-boost"
	}))
}

// Soldered ends are made and held otherwise than crimped ones.
func TestSolderedEnds(t *testing.T) {
	for school, want := range map[string]string{"crimp": "die matches the lug",
		"solder": "strain relief within 100 mm, where the solder wicked to"} {
		p, leads, list := stepsOf(t, []byte(`{"schools":{"termination":"`+school+`"}}`))
		i := slices.IndexFunc(list, func(s procedure.Step) bool { return s.ID == "end-c1" })
		require.GreaterOrEqual(t, i, 0)
		assert.Contains(t, list[i].Checks, want)
		parts := harness.PartsList(&p.System, leads, nil, nil)
		assert.Equal(t, school == "solder", slices.ContainsFunc(parts.Supplies, func(s string) bool { return strings.Contains(s, "solder") }))
	}
}

// A step keeps its name while the design keeps the part: another size changes none.
func TestStepsKeepTheirNames(t *testing.T) {
	names := func(text string) (ids []string) {
		_, _, list := stepsOf(t, []byte(text))
		for _, s := range list {
			ids = append(ids, s.ID)
		}
		return ids
	}
	assert.Equal(t, names(`{"pins":{"startSize":"16 mm2"}}`), names(`{"pins":{"startSize":"25 mm2"}}`))
}

// Steps fill days in their order, none in two pieces unless it is longer than a day.
func TestSchedule(t *testing.T) {
	list := []procedure.Step{{ID: "a", Minutes: 60}, {ID: "b", Minutes: 6 * 60}, {ID: "c", Minutes: 60}, {ID: "d", Minutes: 10 * 60},
		{ID: "e", Minutes: 30}}
	got := procedure.Schedule(list, 8, 7.5)
	assert.Equal(t, []procedure.Slot{{"a", 1, 8, 9}, {"b", 1, 9, 15}, {"c", 2, 8, 9}, {"d", 3, 8, 18}, {"e", 4, 10.5, 11}}, got)
	assert.Equal(t, 4, procedure.Days(got))
	assert.Zero(t, procedure.Days(nil))
}

// What has to be ordered holds up the first step that needs it.
func TestWaits(t *testing.T) {
	p, leads, list := stepsOf(t, []byte(`{"alternator":{"label":"90/180 A"}}`))
	needed := harness.PartsList(&p.System, leads, nil, harness.CutList(leads, nil))
	waits := procedure.Waits(list, leads, needed)
	assert.Len(t, waits, len(needed.Lines))
	for _, w := range waits {
		if strings.HasPrefix(w.Part, "DC-DC charger") {
			assert.Equal(t, "fit-coupling", w.Step)
		}
		if strings.HasPrefix(w.Part, "16 mm² red") {
			assert.Contains(t, w.Step, "c1")
		}
	}
	assert.Contains(t, procedure.BeforeTrades(list), "hold-cover")
	assert.NotContains(t, procedure.BeforeTrades(list), "join-c1")
}

// A workshop that takes twice as long over ends, and pauses for the night, is known after
// five of them; what it did less often stays at the usual times.
func TestPace(t *testing.T) {
	var job []procedure.Done
	at := 0.0
	for i := range 6 {
		at += 28 * 60
		job = append(job, procedure.Done{Step: "end-c" + string(rune('1'+i)), By: "Ivo", AtS: at, Minutes: 14})
	}
	at += 16 * 3600 // a night
	job = append(job, procedure.Done{Step: "end-n1", By: "Ivo", AtS: at, Minutes: 14},
		procedure.Done{Step: "fit-f1", By: "Ivo", AtS: at + 3600, Minutes: 12},
		procedure.Done{Step: "end-n2", By: "Maren", AtS: at + 60, Minutes: 14})
	pace := procedure.PaceOf(job)
	assert.Equal(t, procedure.Pace{"end": 2}, pace)
	list := pace.At([]procedure.Step{{ID: "end-c1", Minutes: 14}, {ID: "fit-f1", Minutes: 12}})
	assert.Equal(t, 28.0, list[0].Minutes)
	assert.Equal(t, 12.0, list[1].Minutes)
	assert.Empty(t, procedure.PaceOf(job[:4]), "too few")
	slow := []procedure.Done{}
	for i := range 8 {
		slow = append(slow, procedure.Done{Step: "lay-c1", By: "", AtS: float64(i) * 200 * 60, Minutes: 1})
	}
	assert.Equal(t, procedure.Pace{"lay": 4}, procedure.PaceOf(slow), "kept within reason")
}

// Every coupling with every isolator, bare and with all extras, inside and behind a tow
// vehicle, comes to steps, to wires with two ends, and to a drawing on which every wire has
// its way and its label.
func TestEveryCombinationIsMade(t *testing.T) {
	for _, place := range []string{`"panel-van"},"aux":{"place":"rear"`, `"tow-caravan"},"aux":{"place":"trailer"`} {
		for _, kind := range coupling.Kinds() {
			for _, isolator := range []string{"none", "front", "aux", "master"} {
				for _, more := range []string{`}`,
					`,"monitor":"yes","disconnect":"yes","peakA":40,"bond":"yes"},"wants":{"emergencyStart":"yes"},"schools":{"inSeries":"yes"}`} {
					text := fmt.Sprintf(`{"vehicle":{"winch":"yes","kind":%s},"pins":{"coupling":%q},"extras":{"isolator":%q%s}`, place, kind, isolator,
						more)
					p, leads, list := stepsOf(t, []byte(text))
					assert.NotEmpty(t, list, text)
					for _, l := range leads {
						assert.True(t, l.From.Name != "" && l.To.Name != "" && l.RouteM > 0, "%s: %s", text, l.Number)
					}
					drawn := harness.Draw(&p.System, []harness.Load{{ID: "l1", Name: "one"}, {ID: "l2", Name: "two"}})
					var named []string
					for _, n := range drawn.Terminals {
						named = append(named, n.Of+"."+n.Text)
					}
					for _, w := range leads {
						for _, e := range []harness.End{w.From, w.To} {
							if slices.Contains([]string{"k1", "coupling"}, e.Component) {
								assert.Contains(t, named, e.Component+"."+e.Terminal, text)
							}
						}
					}
					for _, l := range drawn.Lines {
						assert.GreaterOrEqual(t, len(l.Points), 2, "%s: %s has no way", text, l.ID)
						assert.False(t, l.Label != "" && l.Text == nil, "%s: %s has no label", text, l.ID)
					}
				}
			}
		}
	}
}
