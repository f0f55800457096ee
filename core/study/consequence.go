package study

import (
	"epitrope/core/alternator"
	"epitrope/core/design"
	"epitrope/core/judge"
	"epitrope/core/method"
	"epitrope/core/section"
	"epitrope/core/unit"
	"epitrope/core/working"
)

// Consequence is what a coupling would come to on a job, from its circuit.
type Consequence struct {
	Method  method.Candidate `json:"method"`
	Fitted  bool             `json:"fitted" doc:"What the plan has, chosen or pinned"`
	Early   section.Charges  `json:"early" doc:"At cruise, early in bulk"`
	Idle    section.Charges  `json:"idle"`
	LoadPct float64          `json:"loadPct" doc:"Of what the alternator can give at cruise, hot, in %"`
	// Windings is the alternator's heat at its worst while charging, in °C.
	Windings  float64 `json:"windings" doc:"Alternator windings at their hottest while charging, in °C; 0 where nothing is solved"`
	Bears     float64 `json:"bears" doc:"What they bear"`
	Bill      Bill    `json:"bill"`
	Work      Work    `json:"work" doc:"From the first panel off to the handover"`
	Priced    *Priced `json:"priced,omitempty" doc:"By the workshop's own prices"`
	Worst     string  `json:"worst" doc:"The worst note of the design; empty where there is none"`
	Severity  string  `json:"severity" enum:"stop,caution,remark,none"`
	Start     string  `json:"start" doc:"Start run: cable and fuse"`
	Aux       string  `json:"aux" doc:"Aux run: cable and fuse"`
	SignalIs  string  `json:"signalIs" doc:"What tells it that the engine runs; empty where nothing does"`
	WeakestIs string  `json:"weakestIs" doc:"The weakest element of its chain"`

	Figures []working.Figure `json:"figures" doc:"The working of what decides it"`
}

// decisive are the figures that a coupling stands or falls by.
var decisive = []string{"need", "half", "allowed", "accepts", "input", "joined", "most", "idle", "winding", "c1.drop", "c2.drop",
	"c1.ampacity", "f1.least"}

// consequence returns what the design's coupling comes to.
func consequence(d *design.Design, fitted bool) Consequence {
	out := Consequence{Fitted: fitted, Early: section.ChargesIn(d, d.StateBy("early")), Idle: section.ChargesIn(d, d.IdleState()),
		Bears: alternator.HottestC, Severity: "none",
		Start: d.Start.Trial.Size.Copper() + ", " + d.Start.Label(),
		Aux:   d.Aux.Trial.Size.Copper() + ", " + d.Aux.Label()}
	for _, m := range d.Methods {
		if m.Kind == d.Kind {
			out.Method = m
		}
	}
	if has := d.MachineA(design.CruiseRPM); has > 0 {
		most := 0.0
		for _, s := range d.States {
			if s.Kind == design.Charging && !s.Sags && s.Rpm == design.CruiseRPM {
				most = max(most, s.MachineGives)
			}
		}
		out.LoadPct = unit.Round(100*most/has, 0)
	}
	for _, s := range d.States {
		if s.Kind == design.Charging && s.Solved.Volts != nil {
			out.Windings = max(out.Windings, unit.Round(section.WindingC(d, s), 0))
		}
	}
	figures := d.Workings()
	if fig, _, ok := section.Winding(d); ok {
		figures["winding"] = fig
	}
	out.Figures = []working.Figure{}
	for _, key := range decisive {
		if fig, ok := figures[key]; ok {
			out.Figures = append(out.Figures, fig)
		}
	}
	out.Bill, out.Work = bill(d), workOf(d, nil)
	if notes := judge.Notes(d); len(notes) > 0 {
		out.Worst, out.Severity = notes[0].Text, notes[0].Severity
	}
	if d.Wired() {
		out.SignalIs = d.FeedRating()
	}
	for _, l := range judge.Chain(d) {
		if l.Weakest {
			out.WeakestIs = l.Name + ", " + unit.Text(l.Share, "%", 0)
		}
	}
	return out
}
