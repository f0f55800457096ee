package trace_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"epitrope/core/trace"
	"epitrope/internal/jobtest"
)

// Installations of the worked cases.
const (
	relay = `{"alternator":{"label":"80/140 A","regulation":"fixed","knownBy":"test","volts":14.3},"aux":{"chemistry":"agm",
		"capacityAh":100},"use":{"dailyAh":20},"routes":{"startM":1,"auxM":2},"pins":{"coupling":"vsr"}}`
	charger = `{"alternator":{"label":"120/200 A","regulation":"fixed","knownBy":"test","volts":14.3},"aux":{"chemistry":"agm",
		"capacityAh":100},"use":{"dailyAh":20},"pins":{"chargerA":30}}`
	lithium = `{"alternator":{"label":"120/200 A","regulation":"fixed","knownBy":"test","volts":14.3},"aux":{"chemistry":"lifepo4",
		"capacityAh":200},"use":{"dailyAh":40},"pins":{"chargerA":30}}`
	ignition = `{"alternator":{"label":"80/140 A","regulation":"fixed","knownBy":"test","volts":14.3},"aux":{"chemistry":"agm",
		"capacityAh":100},"use":{"dailyAh":20},"routes":{"startM":1,"auxM":2},"pins":{"coupling":"contactor"}}`
	isolated = `{"alternator":{"label":"120/200 A","regulation":"fixed","knownBy":"test","volts":14.3},"aux":{"chemistry":"agm",
		"capacityAh":100},"use":{"dailyAh":20},"pins":{"chargerA":30},"extras":{"isolator":"front"}}`
)

// … and of those with something more.
const (
	trailer = `{"vehicle":{"kind":"tow-caravan"},"alternator":{"label":"120/200 A","regulation":"fixed","knownBy":"test","volts":14.3},
		"aux":{"chemistry":"agm","capacityAh":100,"place":"trailer"},"use":{"dailyAh":20},"pins":{"chargerA":30}}`
	counted = `{"alternator":{"label":"120/200 A","regulation":"fixed","knownBy":"test","volts":14.3},"aux":{"chemistry":"agm",
		"capacityAh":100},"use":{"dailyAh":20},"pins":{"chargerA":30},"extras":{"monitor":"yes"}}`
	solar = `{"alternator":{"label":"120/200 A","regulation":"fixed","knownBy":"test","volts":14.3},"aux":{"chemistry":"agm",
		"capacityAh":100},"use":{"dailyAh":20},"pins":{"chargerA":30},"day":{"solarW":200}}`
)

func said(id string) trace.Observed { return trace.Observed{Symptom: id} }

func took(id, entry string) trace.Observed { return trace.Observed{Reading: id, Entry: entry} }

func looked(at string) trace.Observed { return trace.Observed{Look: at} }

// Cases as they come into a workshop, some from a service where nobody complains, each with what has to be first, or among the first, and
// what may not be.
func TestWorkedCases(t *testing.T) {
	for name, c := range map[string]struct {
		job   string
		seen  []trace.Observed
		first []string // one of these is first, or stands with the first
		not   []string // none of these has more than a tenth
	}{
		// trade.md §17: alternator 14.2 V at the start battery, nothing at the aux battery, each fuse in turn.
		"a fuse that is blown": {relay, []trace.Observed{said("no-charge"), took("start-running", "14.2 V"), took("at-f1-in-fast-idle",
			"14.2 V"),
			took("at-f1-out-fast-idle", "0.0 V")}, []string{"blown f1", "chafed c1"}, []string{"blown f2", "machine alternator"}},
		"the far fuse": {relay, []trace.Observed{said("no-charge"), took("start-running", "14.2 V"), took("at-coupling-87-fast-idle",
			"14.2 V"),
			took("at-f2-in-fast-idle", "14.1 V"), took("aux-charge", "12.4 V")}, []string{"blown f2", "open c2c", "chafed c2",
			"chafed c2c"},
			[]string{"blown f1", "stuck coupling"}},
		// A sound fuse under a corroded cap: volts are there, and fall away with current.
		"a fuse with a bad contact": {charger, []trace.Observed{said("hot"), took("lost-start", "1.9 V"), took("across-f1-out", "1.6 V")},
			[]string{"joint f1"}, []string{"blown f1", "worn alternator"}},
		"a bus-bar nut finger-tight": {charger, []trace.Observed{said("hot"), took("charge", "30.4 A"), took("lost-aux", "1.00 V"),
			took("lost-start", "300 mV"),
			took("across-f2-out", "15 mV"), took("end-c2-from", "790 mV")}, []string{"joint c2 from"}, []string{"joint f2", "blown f2"}},
		// A click proves the coil and nothing else (§19.12).
		"a relay that clicks and passes nothing": {relay, []trace.Observed{said("no-charge"), took("input", "14.1 V"),
			took("at-coupling-31-fast-idle", "0.01 V"), took("at-coupling-87-fast-idle", "12.4 V")}, []string{"stuck coupling"},
			[]string{"blown f1", "open g1"}},
		"a relay's ground that is off": {relay, []trace.Observed{said("no-charge"), took("input", "0.2 V"),
			took("at-coupling-31-fast-idle", "13.9 V")}, []string{"open g1"}, []string{"stuck coupling", "blown f1"}},
		"a welded relay": {relay, []trace.Observed{said("start-flat"), said("shared"), took("apart", "-2.1 A"),
			took("at-coupling-87-key-out",
				"12.5 V"),
			took("at-coupling-30-key-out", "12.5 V")}, []string{"welded coupling", "bypassed", "house drain aux"}, []string{"blown f1",
			"cell start"}},
		// Step, fridge and charging dead at once: the running signal first (§19.23).
		"one signal for three": {charger, []trace.Observed{said("step-too"), said("no-charge"), took("signal-running", "0.0 V"),
			took("at-f3-in-fast-idle", "0.0 V")},
			[]string{"never feed"}, []string{"dead coupling", "blown f1", "blown f2"}},
		"the signal's fuse": {charger, []trace.Observed{said("no-charge"), took("signal-running", "0.0 V"), took("at-f3-in-fast-idle",
			"14.1 V"),
			took("at-f3-out-fast-idle", "0.0 V")}, []string{"blown f3", "chafed t1", "chafed t1b"}, []string{"never feed",
			"dead coupling"}},
		"a charger that is dead": {charger, []trace.Observed{said("no-charge"), took("input", "14.1 V"), took("signal-running", "14.1 V"),
			took("charge", "0.0 A"),
			took("at-coupling-out-fast-idle", "12.4 V")}, []string{"dead coupling", "open n2"}, []string{"blown f1", "never feed"}},
		"an alternator that gives nothing": {charger, []trace.Observed{said("lamp"), took("start-running", "12.3 V"), took("machine-lead",
			"0.1 A")},
			[]string{"machine alternator"}, []string{"eased alternator", "blown f1"}},
		// Variable where it was taken for fixed (§17).
		"a regulation that varies": {charger, []trace.Observed{said("slow-charge"), took("start-running", "13.0 V"), took("machine-lead",
			"54 A")},
			[]string{"eased alternator"}, []string{"machine alternator"}},
		"a regulator that holds too much": {relay, []trace.Observed{said("too-high"), took("start-running", "15.9 V")},
			[]string{"high alternator"}, []string{"machine alternator", "bypassed"}},
		"a feed point that never sleeps": {charger, []trace.Observed{said("start-flat"), took("signal-asleep", "12.5 V")},
			[]string{"always feed"}, []string{"never feed", "early feed"}},
		"something that does not sleep": {charger, []trace.Observed{said("start-flat"), took("signal-asleep", "0.0 V"), took("apart",
			"0.0 A"),
			took("drain", "1.8 A")},
			[]string{"drain start"}, []string{"always feed", "welded coupling"}},
		// … and nothing that does not sleep, fuse by fuse.
		"a diode gone": {charger, []trace.Observed{said("start-flat"), took("drain", "1.4 A"), took("signal-asleep", "0.0 V"), took("apart",
			"0.0 A"), looked("start")},
			[]string{"diode alternator"}, []string{"always feed", "drain start"}},
		// The box's management opened in the cold (§7): volts at the posts are the charger's, no amp flows.
		"cold cells": {lithium, []trace.Observed{said("no-charge"), took("input", "14.0 V"), took("signal-running", "14.0 V"),
			took("charge",
				"0.0 A"),
			took("aux-charge", "14.4 V")}, []string{"management aux", "parted aux"}, []string{"dead coupling", "blown f1"}},
		"a cell short in the start battery": {charger, []trace.Observed{said("start-flat"), took("start-rest", "10.5 V"), took("drain",
			"0.03 A")},
			[]string{"cell start"}, []string{"drain start", "always feed"}},
		"a cell short in the aux battery": {relay, []trace.Observed{said("house-flat"), took("aux-rest", "10.4 V"), took("start-rest",
			"12.6 V")},
			[]string{"cell aux"}, []string{"cell start", "blown f1"}},
		"an isolator half turned": {isolated, []trace.Observed{said("no-charge"), took("at-q1-1-key-out", "12.5 V"), took("at-q1-2-key-out",
			"0.0 V")},
			[]string{"isolated q1"}, []string{"blown f1", "dead coupling"}},
		"a contactor whose coil is open": {ignition, []trace.Observed{said("no-charge"), took("signal-running", "14.0 V"), took("input",
			"14.2 V"),
			took("charge", "0.0 A"), looked("coupling")}, []string{"coil coupling", "stuck coupling", "blown f2"}, []string{"never feed",
			"blown f3"}},
		"thin cable": {charger, []trace.Observed{took("charge", "30.5 A"), took("input", "13.0 V"), took("lost-start", "1.1 V"),
			took("across-f1-out", "20 mV"), took("end-c1-from", "10 mV"),
			took("end-c1-to", "10 mV"), took("end-c1a-from", "10 mV"), took("end-c1a-to", "9 mV")}, []string{"thin c1"},
			[]string{"joint f1",
				"joint c1 from"}},
		"a way past the coupling": {charger, []trace.Observed{said("shared"), took("apart", "-1.6 A"), took("at-coupling-out-key-out",
			"12.4 V"), looked("coupling")},
			[]string{"bypassed", "house drain aux"}, []string{"blown f1"}},
		"the way back": {charger, []trace.Observed{took("charge", "30.5 A"), took("lost-back", "1.4 V"), took("lost-start", "0.38 V"),
			took("lost-aux", "0.22 V")},
			[]string{"joint n1 from", "joint n1 to", "steel chassis", "joint chassis from", "joint n2 from"}, []string{"joint f1",
				"thin c1",
				"joint f2"}},
		// A pin that is pushed back in its plug: it is there until somebody moves it.
		"a pin pushed back": {trailer, []trace.Observed{said("comes-and-goes"), took("start-running", "14.2 V"), took("moved-x1", "jumps")},
			[]string{"half x1 by hand", "half x1", "joint n1t to by hand", "joint n1 from by hand"}, []string{"blown f1", "dead coupling"}},
		// A lead past the shunt: what flows is right, what is counted is not.
		"a shunt that a load goes past": {counted, []trace.Observed{said("counted"), took("apart", "0.0 A")}, []string{"uncounted"},
			[]string{"blown f1", "house drain aux"}},
		// The output's fuse open while the sun gives: the battery is not low, and nothing of it comes from the engine.
		"an output fuse open with the sun on": {solar, []trace.Observed{said("no-charge"), took("signal-running", "14.1 V"),
			took("at-f2-in-fast-idle", "14.4 V"), took("at-f2-out-fast-idle", "13.2 V"), took("charge", "0.0 A")},
			[]string{"blown f2"}, []string{"dead coupling", "blown f1", "never feed"}},
		"a control input that floats": {charger, []trace.Observed{said("comes-and-goes"), took("at-f3-out-fast-idle", "14.0 V"),
			took("moved-signal", "jumps"), looked("f3")}, []string{"open t1b by hand", "joint t1b from by hand", "joint t1b to by hand",
			"open t1 by hand", "joint t1 from by hand", "joint t1 to by hand"}, []string{"blown f1", "joint c1 from by hand",
			"dead coupling"}},
		"two fuses of one run": {relay, []trace.Observed{said("no-charge"), took("at-f1-in-key-out", "12.6 V"), took("at-f1-out-key-out",
			"0.0 V"), took("at-f2-in-key-out", "0.0 V"), took("at-f2-out-key-out", "12.4 V")}, []string{"blown f1", "blown f2"},
			[]string{"never feed", "machine alternator"}},
		"a machine that stops when it is hot": {charger, []trace.Observed{said("stops-warm"), took("start-running", "14.2 V"),
			took("start-running-warm", "12.3 V")}, []string{"machine alternator by heat"}, []string{"blown f1", "machine alternator"}},
		"a battery that falls away under load": {relay, []trace.Observed{said("house-flat"), took("apart", "0.0 A"), took("start-loaded",
			"12.2 V"), took("aux-loaded", "10.9 V")}, []string{"sulphated aux", "tired aux", "cell aux"}, []string{"house drain aux",
			"blown f1"}},
		// A drain that goes along the run is not the vehicle's own.
		"damp on the run": {charger, []trace.Observed{said("start-flat"), took("signal-asleep", "0.0 V"), took("drain", "2.1 A"),
			took("asleep-c1a", "2.1 A"), took("apart", "0.0 A")}, []string{"leak f1 in", "leak f1 out", "leak coupling in"},
			[]string{"drain start", "diode alternator"}},
	} {
		b := trace.Of(jobtest.Design(t, c.job)).Believe(trace.Evidence{Seen: c.seen})
		if !assert.Empty(t, b.Problems, name) || !assert.NotEmpty(t, b.Suspects, name) {
			continue
		}
		top := append([]string{b.Suspects[0].ID}, b.Suspects[0].Same...)
		assert.True(t, slices.ContainsFunc(top, func(id string) bool { return slices.Contains(c.first, id) }),
			"%s: first is %v (%.2f; none %.2f), then %v",
			name, top, b.Suspects[0].Share, b.None, names(b))
		for _, s := range b.Suspects {
			assert.False(t, s.Share > 0.1 && slices.Contains(c.not, s.ID), "%s: %s has %.2f", name, s.ID, s.Share)
		}
	}
}

func names(b trace.Belief) (list []string) {
	for _, s := range b.Suspects {
		list = append(list, s.ID)
	}
	return list
}

// One wrong reading does not hide what is wrong: two more, and it is among the first three.
func TestASlipDoesNotLockItIn(t *testing.T) {
	tr := trace.Of(jobtest.Design(t, relay))
	b := tr.Believe(trace.Evidence{Seen: []trace.Observed{said("no-charge"), took("at-coupling-30-key-out", "0.0 V"),
		// its probe had no contact
		took("input", "14.2 V"), took("at-f2-in-fast-idle", "14.1 V"), took("aux-charge", "12.4 V"), took("at-f2-out-fast-idle",
			"12.4 V")}})
	assert.Contains(t, names(b)[:min(3, len(b.Suspects))], "blown f2")
	b = tr.Believe(trace.Evidence{Seen: []trace.Observed{said("no-charge"), took("start-running", "14.2 V"), took("input", "1.41 V"),
		// the point in a wrong place
		took("at-coupling-87-fast-idle", "14.1 V"), took("at-f2-in-fast-idle", "14.1 V"), took("at-f2-out-fast-idle", "12.4 V")}})
	assert.Contains(t, b.Doubted, "input", "%s", shares(b))
	assert.Contains(t, names(b)[:min(3, len(b.Suspects))], "blown f2")
}

// After a mend the rest is judged again, and what was read before it counts with what was mended.
func TestAfterAMendTheRestIsJudgedAgain(t *testing.T) {
	tr := trace.Of(jobtest.Design(t, relay))
	seen := []trace.Observed{said("no-charge"), took("at-f1-in-fast-idle", "14.2 V"), took("at-f1-out-fast-idle", "0.0 V"), {Look: "f1",
		Found: "blown f1"}}
	before := tr.Believe(trace.Evidence{Seen: seen})
	assert.Equal(t, "blown f1", before.Suspects[0].ID)
	after := tr.Believe(trace.Evidence{Seen: append(seen, trace.Observed{Mended: "blown f1"}, took("charge", "0.0 A"),
		took("at-coupling-87-fast-idle", "14.0 V"),
		took("at-f2-in-fast-idle", "14.0 V"), took("at-f2-out-fast-idle", "12.4 V"))})
	assert.Equal(t, "blown f2", after.Suspects[0].ID, "%v", names(after))
	assert.Greater(t, before.Suspects[0].Share, 0.8)
}

// What to measure by the complaint alone is among the tests that are named: what the three share, what is counted.
func TestTheTestsFollowFromTheComplaint(t *testing.T) {
	for name, c := range map[string]struct {
		job, symptom string
		first        []string // the beginning of one test's id
	}{
		"three dead at once":  {charger, "step-too", []string{"signal", "at-feed", "at-f3", "feed", "f3"}},
		"a monitor that lies": {counted, "counted", []string{"r1", "at-aux-30", "aux-loaded"}},
		"a lamp that is on":   {charger, "lamp", []string{"start-running", "at-alternator", "machine", "at-f1-in"}},
		"flat after days":     {charger, "start-flat", []string{"drain", "at-feed", "signal", "asleep", "feed", "apart"}},
	} {
		b := trace.Of(jobtest.Design(t, c.job)).Believe(trace.Evidence{Seen: []trace.Observed{said(c.symptom)}})
		if !assert.NotEmpty(t, b.Next, name) {
			continue
		}
		assert.True(t, slices.ContainsFunc(b.Next, func(n trace.NextTest) bool {
			return slices.ContainsFunc(c.first, func(id string) bool { return strings.HasPrefix(n.ID, id) })
		}), "%s: %s, %s", name, b.Next[0].ID, b.Next[0].What)
	}
}

// What was mended and came and went is no likelier than others of its kind when the same is complained of again.
func TestWhatWasMendedIsNotNamedAgain(t *testing.T) {
	b := trace.Of(jobtest.Design(t, ignition)).Believe(trace.Evidence{Seen: []trace.Observed{said("stops-warm"),
		{Mended: "joint f1 by heat"}, said("stops-warm")}})
	for _, s := range b.Suspects {
		assert.False(t, s.ID == "joint f1 by heat" && s.Share > 0.2, "%s", shares(b))
	}
}
