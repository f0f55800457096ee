package plan

import (
	"epitrope/core/alternator"
	"epitrope/core/coupling"
	"epitrope/core/method"
	"epitrope/core/working"
)

// Consequence is what a coupling would come to on a job, from its circuit.
type Consequence struct {
	Method  method.Candidate `json:"method"`
	Fitted  bool             `json:"fitted" doc:"What the plan has, chosen or pinned"`
	Cruise  Charges          `json:"cruise" doc:"Early in bulk"`
	Idle    Charges          `json:"idle"`
	LoadPct float64          `json:"loadPct" doc:"Of what the alternator can give at cruise, hot, in %"`
	// Windings is the alternator's heat at its worst while charging, in °C.
	Windings  float64 `json:"windings" doc:"Alternator windings at their hottest while charging, in °C; 0 where nothing is solved"`
	Bears     float64 `json:"bears" doc:"What they bear"`
	Bill      Bill    `json:"bill"`
	Worst     string  `json:"worst" doc:"The worst note of the design; empty where there is none"`
	Severity  string  `json:"severity" enum:"stop,caution,remark,none"`
	Start     string  `json:"start" doc:"Start run: cable and fuse"`
	Aux       string  `json:"aux" doc:"Aux run: cable and fuse"`
	SignalIs  string  `json:"signalIs" doc:"What tells it that the engine runs; empty where nothing does"`
	WeakestIs string  `json:"weakestIs" doc:"The weakest element of its chain"`

	Figures []working.Figure `json:"figures" doc:"The working of what decides it"`
}

// decisive are the figures that a coupling stands or falls by.
var decisive = []string{"need", "half", "allowed", "accepts", "input", "joined", "most", "idle", "winding", "c1.drop", "c2.drop", "c1.ampacity", "f1.least"}

// Charges is what arrives at the aux battery in a state.
type Charges struct {
	Amps  float64 `json:"amps"`
	Volts float64 `json:"volts"`
	Says  string  `json:"says"`
	Fails string  `json:"fails,omitempty"`
}

// Consequence returns what the design's coupling comes to.
func (d *design) Consequence(fitted bool) Consequence {
	out := Consequence{Fitted: fitted, Cruise: d.charges(d.stateBy("early")), Idle: d.charges(d.idleState()), Bears: alternator.HottestC, Severity: "none",
		Start: d.start.trial.Size.Copper() + ", " + working.Plain(d.start.fuse.RatingA, "A", 1),
		Aux:   d.aux.trial.Size.Copper() + ", " + working.Plain(d.aux.fuse.RatingA, "A", 1)}
	for _, m := range d.methods {
		if m.Kind == d.kind {
			out.Method = m
		}
	}
	if has := d.machineA(cruiseRPM); has > 0 {
		most := 0.0
		for _, s := range d.states {
			if s.kind == charging && !s.sags && s.rpm == cruiseRPM {
				most = max(most, s.machineGives)
			}
		}
		out.LoadPct = working.Round(100*most/has, 0)
	}
	for _, s := range d.states {
		if s.kind == charging && s.solved.Volts != nil {
			out.Windings = max(out.Windings, working.Round(d.windingC(s), 0))
		}
	}
	figures := d.workings()
	if fig, _, ok := d.winding(); ok {
		figures["winding"] = fig
	}
	out.Figures = []working.Figure{}
	for _, key := range decisive {
		if fig, ok := figures[key]; ok {
			out.Figures = append(out.Figures, fig)
		}
	}
	out.Bill = d.bill()
	if notes := d.notes(); len(notes) > 0 {
		out.Worst, out.Severity = notes[0].Text, notes[0].Severity
	}
	if d.wired() {
		out.SignalIs = d.feedRating()
	}
	for _, l := range d.chain() {
		if l.Weakest {
			out.WeakestIs = l.Name + ", " + working.Text(l.Share, "%", 0)
		}
	}
	return out
}

func (d *design) charges(s state) Charges {
	c := Charges{Amps: working.Round(max(0, s.outA), 0), Volts: working.Round(s.auxV, 1), Says: d.says(s)}
	if s.err != nil {
		c.Fails = s.err.Error()
	}
	return c
}

// Kind is the coupling of the design.
func (d *design) Kind() coupling.Kind { return d.kind }

// CycleAh is what driving has to put back.
func (d *design) CycleAh() float64 { return d.cycleAh }
