// Package study asks the day more than one question: a run with everything about it
// (Trial), designs side by side (Compare), two values of a design over their ranges
// (Sweep), and the same design as it may really turn out (Spread). What is the same
// always gives the same, on any number of processors.
package study

import (
	"math"

	"epitrope/core/day"
	"epitrope/core/design"
	"epitrope/core/rig"
	"epitrope/core/unit"
)

// Outcome is what a run came to, in short. Hours below zero never came.
type Outcome struct {
	AuxEnd       float64 `json:"auxEnd" doc:"Charge of the aux battery at the end, in %"`
	AuxLeast     float64 `json:"auxLeast" doc:"… at its lowest"`
	AuxInAh      float64 `json:"auxInAh" doc:"Charged in all"`
	FullH        float64 `json:"fullH" doc:"First full after so many hours; −1 never"`
	StartLeast   float64 `json:"startLeast" doc:"Charge of the start battery at its lowest, in %"`
	RiskH        float64 `json:"riskH" doc:"Start battery below half after so many hours; −1 never"`
	CrankV       float64 `json:"crankV" doc:"Lowest voltage while cranking; 0 where it never cranked"`
	FailedStarts int     `json:"failedStarts"`
	Chatter      int     `json:"chatter" doc:"Times that the relay closed again within two minutes"`
	Again        int     `json:"again" doc:"Times that it closed again on the same drive"`
	Mistaken     int     `json:"mistaken" doc:"Times that the charger took the engine for running, or stopped, and it was not"`
	Starved      int     `json:"starved" doc:"Times that the charger stopped for want of voltage"`
	Empty        int     `json:"empty" doc:"Times that the aux battery was empty"`
	FusesOpened  int     `json:"fusesOpened"`
	WindingC     float64 `json:"windingC" doc:"Hottest alternator windings"`
	CableC       float64 `json:"cableC" doc:"Hottest conductor"`
	JointC       float64 `json:"jointC" doc:"Hottest joint"`
	LimitedH     float64 `json:"limitedH" doc:"Hours with the alternator at its limit"`
	begin        float64
}

func hours(s float64) float64 {
	if s < 0 {
		return -1
	}
	return unit.Round(s/3600, 2)
}

func outcome(rig *day.Rig, r day.Result) Outcome {
	v := r.Verdict
	o := Outcome{AuxEnd: percent(v.AuxEnd), AuxLeast: percent(v.AuxLeast), AuxInAh: unit.Round(v.AuxInAh, 1), FullH: hours(v.FullAtS),
		StartLeast: percent(v.StartLeast), RiskH: hours(v.RiskAtS), FailedStarts: v.FailedStarts, Chatter: v.Chatter, Starved: v.Starved,
		Empty: v.Empty, Again: v.Again, Mistaken: v.Mistaken,
		WindingC: finite(v.Winding.C, 0), CableC: finite(v.Cable.C, 0), JointC: finite(v.Joint.C, 0), LimitedH: unit.Round(v.LimitedS/3600, 2),
		begin: percent(rig.Aux.SOC)}
	if !math.IsInf(v.CrankV, 0) {
		o.CrankV = unit.Round(v.CrankV, 2)
	}
	for _, e := range r.Events {
		if e.ID == "fuse.opens" {
			o.FusesOpened++
		}
	}
	return o
}

func percent(share float64) float64 { return unit.Round(100*share, 1) }

func finite(v float64, digits int) float64 {
	if math.IsInf(v, 0) || math.IsNaN(v) {
		return 0
	}
	return unit.Round(v, digits)
}

// Aim is something that an installation should do.
type Aim struct {
	ID    string `json:"id"`
	Label string `json:"label"`
	met   func(Outcome) bool
}

// Aims lists them, what matters most first.
var Aims = []Aim{
	{"starts", "the engine always starts, its battery never below half", func(o Outcome) bool { return o.FailedStarts == 0 && o.RiskH < 0 }},
	{"never-empty", "the aux battery always has charge left", func(o Outcome) bool { return o.Empty == 0 }},
	{"holds", "the aux battery ends no lower than it began", func(o Outcome) bool { return o.AuxEnd >= o.begin-1 }},
	{"full", "the aux battery is full at least once", func(o Outcome) bool { return o.FullH >= 0 }},
	{"steady", "relay and charger run without dropping out", func(o Outcome) bool { return o.DropsOut() == 0 }},
	{"fuses", "every fuse holds", func(o Outcome) bool { return o.FusesOpened == 0 }},
}

// DropsOut is how often relay or charger dropped out, or took the engine for what it was not.
func (o Outcome) DropsOut() int { return o.Again + o.Starved + o.Mistaken }

// Met is how an outcome stands against an aim.
type Met struct {
	ID    string `json:"id"`
	Label string `json:"label"`
	Met   bool   `json:"met"`
}

// Judge holds an outcome against every aim.
func (o Outcome) Judge() []Met {
	list := make([]Met, len(Aims))
	for i, a := range Aims {
		list[i] = Met{a.ID, a.Label, a.met(o)}
	}
	return list
}

// score is how many aims are met, for finding the best.
func (o Outcome) score() int {
	n := 0
	for _, a := range Aims {
		if a.met(o) {
			n++
		}
	}
	return n
}

// once runs a planned job, varied.
func once(d *design.Design, v rig.Variation, halt func() bool) (Outcome, error) {
	rigged := rig.Of(d, v)
	driving, conditions := rig.Varied(d, v)
	got, err := day.Run(rigged, driving, conditions, day.Options{Halt: halt})
	return outcome(rigged, got), err
}
