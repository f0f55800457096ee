package job

import (
	"fmt"

	"epitrope/core/working"
)

// Tap is a row of what hangs on the run at the coupling: a fuse block, an inverter, a feed onward, a load.
type Tap struct {
	Kind  *string  `json:"kind,omitempty"`
	Name  string   `json:"name,omitempty"`
	At    *string  `json:"at,omitempty"`
	Amps  *float64 `json:"amps,omitempty"`
	Hours *float64 `json:"hours,omitempty"`
	When  *string  `json:"when,omitempty"`
	Fused *string  `json:"fused,omitempty"`
	LongM *float64 `json:"longM,omitempty"`
}

// On which side of the coupling something hangs.
const (
	TapStart = "start"
	TapAux   = "aux"
)

// WhileRunning is what is on only while the engine runs.
const WhileRunning = "running"

// tapKinds are what may hang there.
var tapKinds = []Option{{"block", "fuse block"}, {"inverter", "inverter"}, {"feed", "feed onward"}, {"load", "load"}}

// tapFields are those of its rows.
var tapFields = []Field{
	{Path: "taps.*.kind", Label: "On the run hangs", Kind: Choice, Choices: tapKinds},
	{Path: "taps.*.name", Label: "Called", Kind: Text, Max: 60},
	{Path: "taps.*.at", Label: "At the coupling's", Kind: Choice, Choices: []Option{{TapStart, "start side"}, {TapAux, "aux side"}}},
	{Path: "taps.*.amps", Label: "Draws at most", Kind: Number, Unit: "A", Min: 0.1, Max: 400, Digits: 1, dim: current},
	{Path: "taps.*.hours", Label: "Hours a day", Kind: Number, Unit: "h", Max: 24, Digits: 2, dim: hours},
	{Path: "taps.*.when", Label: "The load may be on", Kind: Choice, Choices: []Option{{"always", "always"},
		{WhileRunning, "while the engine runs"}}},
	{Path: "taps.*.fused", Label: "With a fuse of its own", Kind: Choice, Choices: yesNo},
	{Path: "taps.*.longM", Label: "The load's lead, one way", Kind: Number, Unit: "m", Min: 0.05, Max: 15, Digits: 2, dim: length},
}

// TapFact is one of them with its defaults filled in.
type TapFact struct {
	Key, Kind, Label string
	Aux              bool // it hangs on the coupling's aux side
	Amps             Num
	Hours            Num
	Running          bool // only while the engine runs
	Unfused          bool // it has no fuse of its own
	LongM            Num
}

// DayAh is what it takes in a day with the engine off or on.
func (t TapFact) DayAh() float64 { return t.Amps.Value * t.Hours.Value }

// Defaults of what hangs on the run. Source: from memory.
const (
	defaultTapA     = 20.0
	defaultTapHours = 1.0
	defaultTapM     = 0.5
)

// taps notes them.
func (f *Facts) taps(r *resolver, d Document) {
	labels := map[string]string{}
	for _, k := range tapKinds {
		labels[k.Value] = k.Label
	}
	for i, row := range Rows(d.Taps) {
		t, at := row.Of, "taps."+row.Key+"."
		kind := r.text(at+"kind", t.Kind, "load", "a load")
		one := TapFact{Key: row.Key, Kind: kind, Label: t.Name, Amps: r.num(at+"amps", t.Amps, defaultTapA, "look at its label"),
			Hours: r.num(at+"hours", t.Hours, defaultTapHours, "an hour"), LongM: r.num(at+"longM", t.LongM, defaultTapM, "beside the coupling"),
			Aux:     r.text(at+"at", t.At, TapAux, "what is used hangs on the aux side") == TapAux,
			Running: r.tri(at+"when", t.When) == WhileRunning, Unfused: r.tri(at+"fused", t.Fused) == No}
		if one.Label == "" {
			one.Label = fmt.Sprintf("%s P%d", labels[kind], i+1)
		}
		f.Taps = append(f.Taps, one)
	}
}

// tapsAh is what is used of the aux battery by what hangs on its side of the run: a part of the daily use.
func (f *Facts) tapsAh() (ah float64) {
	for _, t := range f.Taps {
		if t.Aux && !t.Running {
			ah += t.DayAh()
		}
	}
	return ah
}

// withTaps adds it to what the loads come to.
func (f *Facts) withTaps() {
	if ah := f.tapsAh(); ah > 0 {
		f.Need.Listed.Value += ah
		f.Need.Listed.Origin = working.Computed
	}
}
