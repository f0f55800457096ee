package answers

import (
	"time"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/procedure"
)

// SoonDays is how far ahead the list of jobs looks.
const SoonDays = 30

// JobDates is a job's calendar as it stands today.
type JobDates struct {
	Today    string             `json:"today"`
	Calendar procedure.Calendar `json:"calendar"`
	OfferDue []string           `json:"offerDue" doc:"When each offer would be due, entered today"`
	Rows     []DateState        `json:"rows"`
}

// DateState is how a row of the calendar stands.
type DateState struct {
	Key   string `json:"key"`
	State string `json:"state" enum:"overdue,soon,later,done,undated"`
	Days  int    `json:"days" doc:"Until it is due; less than 0 where it is overdue"`
	Next  string `json:"next" doc:"When it is due again if it is done today; empty where that is never"`
}

// Day is midnight of a date; documents hold only dates that read.
func Day(date string) time.Time {
	at, _ := time.Parse(time.DateOnly, date)
	return at
}

// stateOf is how a row stands on a day.
func stateOf(row job.Row[job.Due], today string) DateState {
	s := DateState{Key: row.Key, State: "undated"}
	now := Day(today)
	if every := row.Of.EveryDays; every != nil {
		s.Next = now.AddDate(0, 0, int(*every)).Format(time.DateOnly)
	}
	if row.Of.Due == nil {
		return s
	}
	s.Days = int(Day(*row.Of.Due).Sub(now).Hours() / 24)
	s.State = "done"
	if row.Of.Open() {
		s.State = StateIn(s.Days)
	}
	return s
}

// StateIn is how something stands that is due in so many days.
func StateIn(days int) string {
	switch {
	case days < 0:
		return "overdue"
	case days <= SoonDays:
		return "soon"
	}
	return "later"
}

// Dates is a design's calendar as it stands on a day, as YYYY-MM-DD.
func Dates(d *design.Design, today string) JobDates {
	out := JobDates{Today: today, Calendar: procedure.CalendarOf(d), OfferDue: []string{}, Rows: []DateState{}}
	for _, o := range out.Calendar.Offers {
		out.OfferDue = append(out.OfferDue, Day(out.Today).AddDate(0, 0, o.Days).Format(time.DateOnly))
	}
	for _, row := range job.Rows(d.Doc.Dates) {
		out.Rows = append(out.Rows, stateOf(row, out.Today))
	}
	return out
}
