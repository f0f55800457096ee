// Package plan is the document that a screen shows and a revision keeps: a design told whole.
// It composes the answers and computes nothing of its own.
package plan

import (
	"maps"
	"slices"

	"epitrope/core/charging"
	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/judge"
	"epitrope/core/method"
	"epitrope/core/parts"
	"epitrope/core/section"
	"epitrope/core/system"
	"epitrope/core/verdict"
	"epitrope/core/working"
)

// Decide turns a job into a plan with the parts of a book. It always gives a
// plan: where a job cannot work, the notes say so. Same document, same book: same
// plan.
func Decide(doc job.Document, book parts.Book) Plan {
	return Of(design.Of(doc, book))
}

// Of tells a design.
func Of(d *design.Design) Plan {
	b := d.Facts.Body
	figures := d.Workings()
	if fig, _, ok := section.Winding(d); ok {
		figures["winding"] = fig
	}
	if fig, ok := section.CaseHeat(d); ok {
		figures["case"] = fig
	}
	checks, needs := judge.Checks(d), judge.NeedsOf(d)
	maps.Copy(figures, needs.Work)
	for _, c := range checks {
		if c.Figure != "" {
			figures[c.Figure] = c.Work
		}
	}
	return Plan{
		Format: Format, Version: Version, Job: d.Doc.Digest(),
		Coupling: string(d.Kind), Summary: section.Summary(d),
		Methods: d.Methods,
		Vehicle: section.Scene{Kind: b.Kind, Label: b.Label, LengthM: b.LengthM, HeightM: b.HeightM, Outlines: b.Outlines, Wheels: b.Wheels},
		System:  d.System,
		Columns: section.Columns(d, figures), Covers: section.Covers(d), Returns: section.Segments(d),
		Joints: section.Joints(d), Curves: section.Curves(d), States: section.ShownStates(d), Marks: section.Marks(d), Notes: judge.Tried(d),
		Chain: judge.Chain(d), Bank: judge.Bank(d), Checks: checks, Needs: needs, Signal: judge.Signal(d), Settings: judge.SettingsOf(d),
		Fittings: judge.Fittings(d, checks), Charging: judge.ChargingOf(d), SeatOut: d.Facts.SeatOut(d.Doc),
		Questions: d.Facts.Questions(), StandIns: section.StandIns(d), Facts: d.Facts.List, Title: section.Title(d),
		Cautions: judge.Cautions, Figures: figures,
	}
}

// Format and Version name the plan's format.
const (
	Format  = "epitrope-plan"
	Version = 3 // 2: joints, curves, states besides charging; 3: chain, bank, checks, needs, signal, settings
)

// Plan is the decision on a job.
type Plan struct {
	Format    string                    `json:"format"`
	Version   int                       `json:"version"`
	Job       string                    `json:"job" doc:"Digest of the document it was decided from"`
	Coupling  string                    `json:"coupling" enum:"dcdc,trailer,changeover,highcurrent,vsr,contactor,selector,second,splitter"`
	Summary   string                    `json:"summary" doc:"The plan in one sentence"`
	Methods   []method.Candidate        `json:"methods"`
	Vehicle   section.Scene             `json:"vehicle"`
	System    system.System             `json:"system"`
	Columns   []section.Column          `json:"columns" doc:"The parts of the run, from the alternator to the aux battery"`
	Covers    []section.Cover           `json:"covers" doc:"What each fuse protects"`
	Returns   []section.Segment         `json:"returns" doc:"The way back, from the start battery to the aux battery"`
	Joints    []section.Joint           `json:"joints" doc:"The run's crimped and bolted ends, between its columns"`
	Curves    []section.Curve           `json:"curves" doc:"Time against current of each fuse and its cable"`
	States    []section.State           `json:"states" doc:"Volts along the run; the worst state is marked"`
	Marks     []section.Mark            `json:"marks" doc:"Limits on the grade line"`
	Notes     []judge.Note              `json:"notes" doc:"Numbered in this order, worst first"`
	Chain     []judge.Link              `json:"chain" doc:"What carries the run's current in series, from the front to the back"`
	Bank      []judge.BankShare         `json:"bank" doc:"What each battery of a parallel bank carries; empty for one battery"`
	Fittings  []judge.Fitting           `json:"fittings" doc:"What may be fitted besides the coupling, and what is asked of it"`
	Checks    []judge.Check             `json:"checks" doc:"What is looked at on the vehicle, held against this design"`
	Needs     judge.Needs               `json:"needs"`
	Signal    judge.SignalPlan          `json:"signal"`
	Settings  judge.Settings            `json:"settings"`
	Questions []job.Question            `json:"questions"`
	StandIns  []string                  `json:"standIns" doc:"What stands in for answers that nobody gave"`
	SeatOut   bool                      `json:"seatOut" doc:"A battery sits under a seat, which comes out for it"`
	Charging  charging.Charging         `json:"charging" doc:"How all that charges the aux battery is set"`
	Facts     []job.Fact                `json:"facts"`
	Title     []section.Tile            `json:"title" doc:"What the title block says"`
	Cautions  []string                  `json:"cautions"`
	Figures   map[string]working.Figure `json:"figures"`
}

// Stops are the notes that stand in the way of building it.
func (p Plan) Stops() []judge.Note {
	return slices.DeleteFunc(slices.Clone(p.Notes), func(n judge.Note) bool { return n.Severity != verdict.Stop })
}
