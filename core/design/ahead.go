package design

import (
	"epitrope/core/circuit"
	"epitrope/core/coupling"
	"epitrope/core/protect"
	"epitrope/core/run"
	"epitrope/core/system"
)

// Ahead says whether a relay K2 ahead of the charger parts its feed: the signal works that, and the
// charger's own signal is taken from its input, by way of F6.
func (d *Design) Ahead() bool {
	return d.Facts.Arranged.Ahead && d.Kind.Charger() && d.Is.Beside == NoRelay
}

// fitAhead takes the contactor that bears what the charger draws, and says whether it is another than before.
func (d *Design) fitAhead() (changed bool) {
	if !d.Ahead() {
		return false
	}
	was := d.AheadCard.ID
	d.AheadCard = d.Book.Contact(coupling.SwitchedContactor, run.FuseShare*d.Start.Amps)
	return was != d.AheadCard.ID
}

// ahead puts K2 with its link behind a terminal of the start run, and returns the terminal and the length that
// are left for the run.
func (d *Design) ahead(at system.Terminal, lengthM float64) (system.Terminal, float64) {
	if !d.Ahead() {
		return at, lengthM
	}
	link := min(run.LinkM, lengthM/3)
	d.lead("k2", "k2a", "c1", at, term("k2", "30"), &d.Start, link, lugs)
	return term("k2", "87"), lengthM - link
}

// aheadComponent is K2.
func (d *Design) aheadComponent() {
	if !d.Ahead() {
		return
	}
	n, coilA := d.Facts.N, d.AheadCard.CoilA
	d.System.Add(system.Component{ID: "k2", Kind: system.KindContactor, Name: "K2", Rating: d.AheadCard.Label, At: d.Facts.Body.Start,
		Device: system.Contact{From: "30", To: "87", Ohm: d.AheadCard.ContactOhm, RatingA: d.AheadCard.ContinuousA, Ahead: true,
			CoilPlus: term("k2", "86"), CoilMinus: term("k2", "85"), CoilOhm: 12 * n / coilA, PullA: coilPull * coilA, DropA: coilDrop * coilA}})
}

// SelfSignalled says whether a charger takes its signal from its own input.
func (d *Design) SelfSignalled() bool { return d.Ahead() && !d.ByVoltage() }

// selfSignal is that signal's wire with its fuse: the run's own is far too large for it.
func (d *Design) selfSignal() {
	if !d.SelfSignalled() {
		return
	}
	t := &d.Trigger
	d.System.Add(system.Component{ID: "f6", Kind: system.KindFuse, Name: "F6", Rating: t.Fuse.Label(), At: d.CouplingAt(),
		Device: system.Fuse{Fuse: t.Fuse, Ohm: protect.Resistance.Value(t.Fuse.RatingA)}})
	d.wire("t2", "t1", system.Signal, term("coupling", "30"), term("f6", "in"), t, run.BareM, lugs)
	d.wire("t2b", "t1", system.Signal, term("f6", "out"), term("coupling", "15"), t, run.LinkM, system.Joints{})
}

// addAhead counts K2 and its link's ends in series with the start run.
func (d *Design) addAhead() {
	if d.Ahead() {
		d.Start.JointsOhm += d.AheadCard.ContactOhm + 2*run.JointOhm
	}
}

// letAhead has K2 stand, in a state whose devices are given, where its coil holds it.
func (d *Design) letAhead(s *State) {
	if !d.Ahead() {
		return
	}
	d.onBench(func(c *circuit.Circuit) {
		p := s.Position
		p.Stopped, p.Ahead = true, false
		if solved, err := c.Solve(s.State, p); err == nil {
			s.Ahead = circuit.Had(solved.Through(circuit.AheadCoil)) >= coilPull*d.AheadCard.CoilA
		}
	})
}
