package design

import (
	"epitrope/core/circuit"
	"epitrope/core/job"
	"epitrope/core/run"
	"epitrope/core/system"
)

// Toggles says whether S1 stays where it is put, where a button would spring back.
func (d *Design) Toggles() bool {
	by := d.WorkedByHand()
	return d.Facts.Arranged.Control == job.ToggleControl && (by == Button || by == ButtonIfWanted)
}

// Interlocked says whether K3 opens S1's feed while the signal is live: no join by hand with the engine running.
func (d *Design) Interlocked() bool {
	_, own := d.OwnFeed()
	return own && d.Wired() && d.Facts.Arranged.Interlock == job.EngineInterlock
}

// Lamped says whether a lamp at S1 shows that its coil is fed.
func (d *Design) Lamped() bool {
	_, own := d.OwnFeed()
	return own && d.Facts.Arranged.Lamp
}

// A plug-in relay that carries no more than a coil, and a lamp at S1, at 12 V. Source: from memory.
const (
	smallCoilA  = 0.15
	smallRatedA = 20.0
	lampA       = 0.1
)

// handComponents are K3 and the lamp, where they are.
func (d *Design) handComponents() {
	n := d.Facts.N
	if d.Interlocked() {
		d.System.Add(system.Component{ID: "k3", Kind: system.KindChangeover, Name: "K3", Rating: "plug-in changeover relay, interlock of S1",
			At: feedAt, Device: system.Contact{From: "30", To: "87", Rest: "87a", Ohm: run.JointOhm, RatingA: smallRatedA, PlugIn: true, Locks: true,
				CoilPlus: term("k3", "86"), CoilMinus: term("k3", "85"), CoilOhm: 12 * n / smallCoilA, PullA: coilPull * smallCoilA,
				DropA: coilDrop * smallCoilA}})
	}
	if d.Lamped() {
		d.System.Add(system.Component{ID: "la1", Kind: system.KindLamp, Name: "LA1", Rating: "lamp at S1: its coil is fed", At: feedAt,
			Device: system.Load{Ohm: 12 * n / lampA}})
	}
}

// handWires take S1's feed through K3's rest contact, and a lamp's from what S1 lets through.
func (d *Design) handWires(feed system.Terminal) (to system.Terminal) {
	to = feed
	t := &d.Trigger
	if d.Interlocked() {
		to = term("k3", "30")
		d.wire("s1d", "s1", system.Signal, term("k3", "87a"), feed, &d.Button, run.LinkM, system.Joints{})
		d.wire("t3", "t1", system.Signal, term("f3", "out"), term("k3", "86"), t, run.LinkM, system.Joints{})
		d.wire("g4", "g1", system.Signal, term("k3", "85"), term(system.StartEarth, ""), t, d.Facts.TriggerM.Value, lugs)
	}
	if d.Lamped() {
		d.wire("la1a", "s1", system.Signal, term("s1", "0"), term("la1", "1"), &d.Button, run.LinkM, system.Joints{})
		d.wire("la1b", "g1", system.Signal, term("la1", "2"), term(system.StartEarth, ""), t, d.Facts.TriggerM.Value, lugs)
	}
	return to
}

// LampLit says whether the lamp at S1 is lit in a state.
func (d *Design) LampLit(s *State) bool {
	return d.Lamped() && circuit.Had(s.Solved.Across("la1.1", "la1.2")) >= coilPull*12*d.Facts.N
}
