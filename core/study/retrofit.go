package study

import (
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/plan"
)

// Retrofit is what was found and what is planned, judged alike and run through the same
// days.
type Retrofit struct {
	plan.Found
	BeforeWeek *Outcome `json:"beforeWeek,omitempty"`
	AfterWeek  Outcome  `json:"afterWeek"`
	BeforeAims []Met    `json:"beforeAims"`
	AfterAims  []Met    `json:"afterAims"`
}

// RetrofitOf judges what was found on a job and runs both installations. halt is asked
// now and then whether to stop.
func RetrofitOf(doc job.Document, book parts.Book, halt func() bool) Retrofit {
	r := Retrofit{Found: plan.FoundOf(doc, book), BeforeAims: []Met{}}
	r.AfterWeek, _ = once(plan.NewDay(doc, book), plan.Nominal, halt)
	r.AfterAims = r.AfterWeek.Judge()
	if r.Before != nil {
		before, _ := plan.AsFound(doc)
		week, _ := once(plan.NewDay(before, book), plan.Nominal, halt)
		r.BeforeWeek, r.BeforeAims = &week, week.Judge()
	}
	return r
}
