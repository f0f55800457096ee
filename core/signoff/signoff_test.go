package signoff_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/design"
	"epitrope/core/procedure"
	"epitrope/core/prove"
	"epitrope/core/signoff"
	"epitrope/internal/jobtest"
	"epitrope/internal/pack"
	"epitrope/internal/standin"
)

const (
	charger = `{"alternator":{"label":"120/200 A","regulation":"fixed","knownBy":"test","volts":14.3},
		"aux":{"chemistry":"agm","capacityAh":100},
		"use":{"dailyAh":20},
		"feeds":{"p1":{"name":"F12","off":"dead","slept":"dead","accessory":"dead","on":"dead","running":"live"}}}`
	relay = `{"alternator":{"label":"80/140 A","regulation":"fixed","knownBy":"test","volts":14.3},"aux":{"chemistry":"agm",
		"capacityAh":100},"use":{"dailyAh":20},"routes":{"startM":1,"auxM":2},"pins":{"coupling":"vsr"}}`
	variable = `{"alternator":{"label":"120/200 A"},"aux":{"chemistry":"agm","capacityAh":100},"use":{"dailyAh":20}}`
)

func steps(d *design.Design) []procedure.Step { return pack.New(d, pack.Workshop{}).Steps }

// whole is everything done on a job: every step, every reading of a sound vehicle, a photograph, and what is stated.
func whole(d *design.Design) signoff.Done {
	p := prove.Of(d)
	done := signoff.Done{Steps: map[string]bool{}, Photos: map[string]int{"covered": 1}}
	for _, s := range steps(d) {
		done.Steps[s.ID] = true
	}
	done.Findings = p.Judge(standin.Build(d, p, 3).Readings())
	for _, id := range []string{"crimps", "built", "inherited"} {
		done.Said = append(done.Said, signoff.Said{Gate: id, By: "Ivo", Text: "hexagonal die, pulled by hand"})
	}
	return done
}

func gate(t *testing.T, list []signoff.Gate, id string) signoff.Gate {
	t.Helper()
	i := slices.IndexFunc(list, func(g signoff.Gate) bool { return g.ID == id })
	require.GreaterOrEqual(t, i, 0, "no gate %s", id)
	return list[i]
}

// Everything done, nothing is open; nothing done, nearly everything is, and each says what closes it.
func TestGatesOpenAndClose(t *testing.T) {
	for _, document := range []string{charger, relay} {
		d := jobtest.Design(t, document)
		assert.Empty(t, signoff.Left(signoff.Gates(d, steps(d), whole(d))))
		nothing := signoff.Gates(d, steps(d), signoff.Done{})
		for _, g := range nothing {
			assert.NotEmpty(t, g.Closes, g.ID)
			if g.ID != "stops" && g.ID != "regulation" {
				assert.Equal(t, signoff.Open, g.State, g.ID)
				assert.NotEmpty(t, g.Open, g.ID)
			}
		}
	}
}

// What each gate asks for, taken away, opens that gate and no other.
func TestEachGateIsOpenedByWhatItAsksFor(t *testing.T) {
	unread := func(begin ...string) func(*signoff.Done) {
		return func(done *signoff.Done) {
			done.Findings.Verdicts = slices.DeleteFunc(slices.Clone(done.Findings.Verdicts), func(v prove.Meaning) bool {
				return slices.ContainsFunc(begin, func(b string) bool { return strings.HasPrefix(v.ID, b) })
			})
		}
	}
	unsaid := func(gate string) func(*signoff.Done) {
		return func(done *signoff.Done) {
			done.Said = slices.DeleteFunc(slices.Clone(done.Said), func(s signoff.Said) bool { return s.Gate == gate })
		}
	}
	for _, c := range []struct {
		gate, document string
		without        func(*signoff.Done)
	}{
		{"covered", charger, func(d *signoff.Done) { d.Photos = nil }},
		{"crimps", charger, unsaid("crimps")},
		{"built", charger, unsaid("built")},
		{"steps", charger, func(d *signoff.Done) { d.Steps["rest"] = false }},
		{"holds", charger, func(d *signoff.Done) { d.Steps["hold-cover"] = false }},
		{"polarity", charger, unread("holder-f1")},
		{"signal", charger, unread("signal-asleep")},
		{"leads", charger, unread("lead-")},
		{"load", charger, unread("charge")},
		{"load", relay, unread("lost-back")},
		{"warm", charger, unread("warmest")},
		{"profile", charger, unread("profile")},
		{"opens", relay, unread("delay")},
		{"apart", relay, unread("apart-again")},
	} {
		d := jobtest.Design(t, c.document)
		done := whole(d)
		c.without(&done)
		left := signoff.Left(signoff.Gates(d, steps(d), done))
		if assert.Len(t, left, 1, c.gate) {
			assert.Equal(t, c.gate, left[0].ID)
		}
	}
	assert.Equal(t, "regulation", signoff.Left(signoff.Gates(jobtest.Design(t, variable), steps(jobtest.Design(t, variable)),
		whole(jobtest.Design(t, variable))))[0].ID, "a regulation that nobody tested")
}

// What an apprentice did, read, stated or waived opens its gate until somebody stands for it, and that gate alone.
func TestWhatWaitsForACountersignatureClosesNothing(t *testing.T) {
	d := jobtest.Design(t, relay)
	hold := ""
	for _, s := range steps(d) {
		if s.Hold {
			hold = s.ID
		}
	}
	require.NotEmpty(t, hold)
	statement := func(done *signoff.Done, waits bool) {
		done.Said = slices.DeleteFunc(done.Said, func(s signoff.Said) bool { return s.Gate == "crimps" })
		done.Said = append(done.Said, signoff.Said{Gate: "crimps", By: "Pim", Text: "hexagonal", Waits: waits})
	}
	waiver := func(done *signoff.Done, waits bool) {
		done.Photos = nil
		done.Said = append(done.Said, signoff.Said{Gate: "covered", Waives: true, By: "Pim", Text: "no camera", Waits: waits})
	}
	for opens, with := range map[string]func(done *signoff.Done, waits bool){
		"holds":   func(done *signoff.Done, waits bool) { done.StepsWait = map[string]bool{hold: waits} },
		"apart":   func(done *signoff.Done, waits bool) { done.ReadingsWait = map[string]bool{"apart": waits} },
		"crimps":  statement,
		"covered": waiver,
	} {
		for _, waits := range []bool{true, false} {
			done := whole(d)
			with(&done, waits)
			left := signoff.Left(signoff.Gates(d, steps(d), done))
			if !waits {
				assert.Empty(t, left, opens)
				continue
			}
			require.Len(t, left, 1, opens)
			assert.Equal(t, opens, left[0].ID)
			assert.Contains(t, strings.Join(left[0].Open, " "), "countersignature")
			assert.False(t, left[0].Stop, "that it waits is no stop")
		}
	}
	done := whole(d)
	done.Said = append(done.Said, signoff.Said{Gate: "crimps", By: "Pim", Text: "later", Waits: true})
	assert.Empty(t, signoff.Left(signoff.Gates(d, steps(d), done)), "what somebody else stated before stands")
}

// A waiver takes a name and a reason; a stop takes none.
func TestWaivers(t *testing.T) {
	d := jobtest.Design(t, charger)
	done := whole(d)
	done.Photos = nil
	for _, c := range []struct {
		said signoff.Said
		want signoff.State
	}{
		{signoff.Said{Gate: "covered", Waives: true, By: "Ivo", Text: "nothing is hidden behind a panel"}, signoff.Waived},
		{signoff.Said{Gate: "covered", Waives: true, By: " ", Text: "nothing is hidden behind a panel"}, signoff.Open},
		{signoff.Said{Gate: "covered", Waives: true, By: "Ivo"}, signoff.Open},
		{signoff.Said{Gate: "covered", By: "Ivo", Text: "a statement closes no gate that asks for a picture"}, signoff.Open},
		{signoff.Said{Gate: "other", Waives: true, By: "Ivo", Text: "another gate"}, signoff.Open},
	} {
		with := done
		with.Said = append(slices.Clone(done.Said), c.said)
		g := gate(t, signoff.Gates(d, steps(d), with), "covered")
		assert.Equal(t, c.want, g.State, c.said)
		assert.Equal(t, c.want == signoff.Waived, g.Said != nil)
	}
	live := whole(d)
	p := prove.Of(d)
	live.Findings = p.Judge([]prove.Taken{{ID: "signal-asleep", Value: 12.4}})
	live.Said = append(live.Said, signoff.Said{Gate: "signal", Waives: true, By: "Ivo", Text: "it is only the night"})
	g := gate(t, signoff.Gates(d, steps(d), live), "signal")
	assert.True(t, g.Stop)
	assert.Equal(t, signoff.Open, g.State, "a signal that is live asleep cannot be waived")
	stopped := jobtest.Design(t, `{"aux":{"chemistry":"flooded","place":"rear"},"pins":{"coupling":"vsr"}}`)
	g = gate(t, signoff.Gates(stopped, steps(stopped), signoff.Done{Said: []signoff.Said{{Gate: "stops", Waives: true, By: "Ivo",
		Text: "x"}}}),
		"stops")
	assert.True(t, g.Stop && g.State == signoff.Open)
}

// A battery that takes nothing more proves no charge, though what is read is as expected.
func TestAFullBatteryIsNoProof(t *testing.T) {
	d := jobtest.Design(t, relay)
	p := prove.Of(d)
	done := whole(d)
	band := p.Judge(nil).Bands["charge"]
	done.Findings = p.Judge([]prove.Taken{{ID: "charge", Value: band.Possible[0] + 0.1}})
	g := gate(t, signoff.Gates(d, steps(d), done), "load")
	assert.Equal(t, signoff.Open, g.State)
}

// What is kept for others depends on the job.
func TestReserved(t *testing.T) {
	with := strings.Join(signoff.Reserved(jobtest.Design(t, `{"mains":{"outputA":20}}`)), " ")
	assert.Contains(t, with, "licensed electrician")
	assert.NotContains(t, strings.Join(signoff.Reserved(jobtest.Design(t, charger)), " "), "electrician")
}
