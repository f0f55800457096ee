package study

import (
	"epitrope/core/design"
	"epitrope/core/harness"
	"epitrope/core/plan"
	"epitrope/core/procedure"
	"epitrope/core/prove"
	"epitrope/core/retrofit"
	"epitrope/core/unit"
)

// Work is how long a design takes from the first panel off to the handover, by its steps.
type Work struct {
	Hours  float64     `json:"hours"`
	Stages []StageWork `json:"stages"`
}

// StageWork is how long one stage of it takes.
type StageWork struct {
	Stage procedure.Stage `json:"stage" enum:"prepare,isolate,remove,ground,lay,fit,end,join,check,live,prove,hand"`
	Hours float64         `json:"hours"`
}

// workOf is the work on a design at a pace; nil is the usual one. A stop does not shorten it: what stops the plan is mended, and the rest
// is done.
func workOf(d *design.Design, pace procedure.Pace) Work {
	p := plan.Of(d)
	p.Notes = nil
	leads := harness.Leads(&p.System, harness.UsualScheme)
	steps := pace.At(procedure.Steps(p, leads, retrofit.Of(d), prove.Outline(d)))
	w := Work{Hours: procedure.Hours(steps), Stages: []StageWork{}}
	for _, stage := range procedure.Stages {
		minutes := 0.0
		for _, s := range steps {
			if s.Stage == stage {
				minutes += s.Minutes
			}
		}
		if minutes > 0 {
			w.Stages = append(w.Stages, StageWork{stage, unit.Round(minutes/60, 1)})
		}
	}
	return w
}
