package study

import (
	"epitrope/core/design"
	"epitrope/core/retrofit"
	"epitrope/core/rig"
)

// Retrofit is what was found and what is planned, judged alike and run through the same
// days.
type Retrofit struct {
	retrofit.Found
	BeforeWeek *Outcome `json:"beforeWeek,omitempty"`
	AfterWeek  Outcome  `json:"afterWeek"`
	BeforeAims []Met    `json:"beforeAims"`
	AfterAims  []Met    `json:"afterAims"`
}

// RetrofitOf judges what was found on a job and runs both installations. halt is asked
// now and then whether to stop.
func RetrofitOf(d *design.Design, halt func() bool) Retrofit {
	r := Retrofit{Found: retrofit.Of(d), BeforeAims: []Met{}}
	r.AfterWeek, _ = once(d, rig.Nominal, halt)
	r.AfterAims = r.AfterWeek.Judge()
	if r.Before != nil {
		before, _ := retrofit.AsFound(d.Doc)
		week, _ := once(d.With(before), rig.Nominal, halt)
		r.BeforeWeek, r.BeforeAims = &week, week.Judge()
	}
	return r
}
