// Package pack gathers everything that goes out to the bay with a job, and what was signed for. It holds numbers and typed things;
// internal/export writes them.
package pack

import (
	"math"
	"time"

	"epitrope/core/design"
	"epitrope/core/harness"
	"epitrope/core/job"
	"epitrope/core/modes"
	"epitrope/core/owner"
	"epitrope/core/parts"
	"epitrope/core/plan"
	"epitrope/core/procedure"
	"epitrope/core/protect"
	"epitrope/core/prove"
	"epitrope/core/retrofit"
	"epitrope/core/study"
	"epitrope/core/unit"
	"epitrope/internal/settings"
)

// Pack is everything that goes out to the bay with a job.
type Pack struct {
	Number   int64 // of the job; 0 where it has none
	Revision string
	Dated    time.Time
	Paper    string // A4 or Letter
	Units    unit.Units
	Dates    string // how dates are written, as the second of January 2006 is
	Bench    bool   // a copy for the bench, without what it stands on and the workings

	Document job.Document
	Plan     plan.Plan
	Modes    modes.Modes
	Found    retrofit.Found
	Leads    []harness.Lead
	Cuts     []harness.Cut
	Parts    harness.List
	Drawing  harness.Drawing
	Folded   harness.Drawing // with all loads as one
	Steps    []procedure.Step
	Hours    float64
	Schedule []procedure.Slot
	Waits    []procedure.Wait
	Built    study.Built
	Owner    owner.Booklet
	Proof    *prove.Proof

	Photos []Photograph
	Signed *Certificate // what was signed for last; nil before
}

// Workshop is what a workshop has of its own: parts with prices and stock, its pace and its settings.
type Workshop struct {
	Parts    []parts.Item         `json:"parts"`
	Pace     procedure.Pace       `json:"pace" doc:"How long it takes over each kind of step, against the usual"`
	Settings settings.Preferences `json:"settings"`
}

// New makes a job's pack with the cards of a book and what the workshop has of its own.
func New(d *design.Design, own Workshop) Pack {
	doc, p := d.Doc, plan.Of(d)
	settings := own.Settings.Or(settings.Usual()).Of(doc)
	colours := harness.Scheme(doc.Colours).Or(harness.UsualScheme)
	proof := prove.Of(d)
	leads, found := harness.Leads(&p.System, colours), retrofit.Of(d)
	steps := own.Pace.At(procedure.Steps(p, leads, found, proof))
	cuts := harness.CutList(leads, harness.Pieces(own.Parts, colours))
	list := harness.PartsList(&p.System, leads, own.Parts, cuts)
	if doc.Schools.Supply != nil && *doc.Schools.Supply == "kit" {
		list = list.AsKit()
	}
	table := modes.Of(d)
	return Pack{Built: study.BuiltOf(d), Owner: owner.Of(d, table), Proof: proof,
		Schedule: procedure.Schedule(steps, procedure.FirstHour, procedure.DayHours),
		Waits:    procedure.Waits(steps, leads, list), Revision: "draft", Paper: settings.Paper, Units: settings.Units,
		Dates: settings.Dates, Document: doc, Plan: p, Modes: table, Found: found,
		Leads: leads, Cuts: cuts,
		Parts: list, Drawing: harness.Draw(&p.System, Loads(p)), Folded: harness.Draw(&p.System, asOne(p)), Steps: steps,
		Hours: procedure.Hours(steps)}
}

// Loads are the loads of a plan as the drawing shows them.
func Loads(p plan.Plan) []harness.Load {
	loads := []harness.Load{}
	for _, l := range p.Needs.Loads {
		name := l.Label
		if l.Count > 1 {
			name = unit.Plain(l.Count, "×", 0) + " " + name
		}
		loads = append(loads, harness.Load{ID: "load-" + l.Key, Name: name, Rating: unit.Text(l.Count*l.Amps, "A", 1) +
			branchFuse(l.Count*l.Amps)})
	}
	return loads
}

// asOne are the loads of a plan as one, where there are several.
func asOne(p plan.Plan) []harness.Load {
	each := Loads(p)
	if len(each) < 2 {
		return each
	}
	amps := 0.0
	for _, l := range p.Needs.Loads {
		amps += l.Count * l.Amps
	}
	return []harness.Load{{ID: "loads", Name: unit.Text(float64(len(each)), "loads", 0), Rating: unit.Text(amps, "A", 1) + " in all"}}
}

// branchFuse is the lowest fuse that carries a load, for its branch of the fuse box; the
// branch's own cable has to bear it.
func branchFuse(amps float64) string {
	need := protect.Need{ContinuousA: amps, AmbientC: cabinC, CableA: math.Inf(1)}
	for _, families := range [][]protect.Family{protect.Small, protect.Power} {
		if f, err := protect.Choose(need, families); err == nil {
			return ", fuse " + unit.Plain(f.RatingA, "A", 1)
		}
	}
	return ""
}

// cabinC is the place of a branch fuse. Source: common practice, no source.
const cabinC = 40.0
