package server

import (
	"cmp"
	"context"
	"net/http"
	"slices"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"epitrope/core/job"
	"epitrope/core/procedure"
	"epitrope/internal/export"
	"epitrope/internal/store"
)

// soonDays is how far ahead the list of jobs looks.
const soonDays = 30

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

// DueRow is something of a job that is due.
type DueRow struct {
	Job    string `json:"job"`
	Number int64  `json:"number"`
	Title  string `json:"title"`
	Key    string `json:"key"`
	What   string `json:"what"`
	Due    string `json:"due"`
	State  string `json:"state" enum:"overdue,soon"`
	Days   int    `json:"days"`
}

func (a *api) registerCalendar(h huma.API) {
	huma.Register(h, huma.Operation{OperationID: "jobDates", Method: http.MethodPost, Path: "/api/dates", MaxBodyBytes: maxBody,
		Summary: "What a document asks to be done later, and how its dates stand today", Errors: []int{413, 422}}, a.jobDates)
	huma.Register(h, huma.Operation{OperationID: "due", Method: http.MethodGet, Path: "/api/due",
		Summary: "What of all jobs is overdue, or due soon, the oldest first", Errors: []int{503}}, a.due)
	huma.Register(h, huma.Operation{OperationID: "workshopCalendar", Method: http.MethodGet, Path: "/api/calendar.ics",
		Summary: "The dates of all jobs as iCalendar", Errors: []int{503}}, a.workshopCalendar)
	huma.Register(h, huma.Operation{OperationID: "jobCalendar", Method: http.MethodGet, Path: "/api/jobs/{id}/calendar.ics",
		Summary: "A job's dates as iCalendar", Errors: []int{404, 410, 503}}, a.jobCalendar)
}

// dayOf is midnight of a date; documents hold only dates that read.
func dayOf(date string) time.Time {
	at, _ := time.Parse(time.DateOnly, date)
	return at
}

// stateOf is how a row stands on a day.
func stateOf(row job.Row[job.Due], today string) DateState {
	s := DateState{Key: row.Key, State: "undated"}
	now := dayOf(today)
	if every := row.Of.EveryDays; every != nil {
		s.Next = now.AddDate(0, 0, int(*every)).Format(time.DateOnly)
	}
	if row.Of.Due == nil {
		return s
	}
	s.Days = int(dayOf(*row.Of.Due).Sub(now).Hours() / 24)
	switch {
	case !row.Of.Open():
		s.State = "done"
	case s.Days < 0:
		s.State = "overdue"
	case s.Days <= soonDays:
		s.State = "soon"
	default:
		s.State = "later"
	}
	return s
}

func (a *api) jobDates(_ context.Context, in *struct{ Body Input }) (*body[JobDates], error) {
	doc, _ := job.Decode(in.Body)
	out := JobDates{Today: today(), Calendar: procedure.CalendarOf(a.designs.of(doc)), OfferDue: []string{}, Rows: []DateState{}}
	for _, o := range out.Calendar.Offers {
		out.OfferDue = append(out.OfferDue, dayOf(out.Today).AddDate(0, 0, o.Days).Format(time.DateOnly))
	}
	for _, row := range job.Rows(doc.Dates) {
		out.Rows = append(out.Rows, stateOf(row, out.Today))
	}
	return &body[JobDates]{out}, nil
}

func (a *api) due(ctx context.Context, _ *struct{}) (*body[[]DueRow], error) {
	jobs, err := a.store.List(ctx)
	if err != nil {
		return nil, answer(err)
	}
	list := []DueRow{}
	for _, j := range jobs {
		doc := j.Doc()
		for _, row := range job.Rows(doc.Dates) {
			s := stateOf(row, today())
			if s.State != "overdue" && s.State != "soon" {
				continue
			}
			what := row.Of.What
			if what == "" {
				what = export.KindOf(row.Of)
			}
			list = append(list, DueRow{Job: j.ID, Number: j.Number, Title: doc.Title, Key: row.Key, What: what, Due: *row.Of.Due, State: s.State,
				Days: s.Days})
		}
	}
	slices.SortStableFunc(list, func(a, b DueRow) int { return cmp.Compare(a.Days, b.Days) })
	return &body[[]DueRow]{list}, nil
}

func (a *api) datedJob(j store.Job, own export.Workshop) export.DatedJob {
	d := export.DatedJob{ID: j.ID, Number: j.Number, SavedAt: j.SavedAt, Document: j.Doc()}
	for _, row := range d.Document.Dates {
		if row.Kind != nil && *row.Kind == job.FitDate {
			d.BayDays = procedure.Days(export.NewPack(a.designs.of(d.Document), own).Schedule)
			break
		}
	}
	return d
}

func calendarFile(name string, jobs ...export.DatedJob) *fileAnswer {
	return &fileAnswer{"text/calendar; charset=utf-8", `attachment; filename="` + name + `.ics"`, export.Calendar(jobs...)}
}

func (a *api) workshopCalendar(ctx context.Context, _ *struct{}) (*fileAnswer, error) {
	jobs, err := a.store.List(ctx)
	if err != nil {
		return nil, answer(err)
	}
	own, err := a.workshop(ctx)
	if err != nil {
		return nil, answer(err)
	}
	dated := make([]export.DatedJob, len(jobs))
	for i, j := range jobs {
		dated[i] = a.datedJob(j, own)
	}
	return calendarFile("epitrope", dated...), nil
}

func (a *api) jobCalendar(ctx context.Context, in *JobPath) (*fileAnswer, error) {
	j, err := a.store.Get(ctx, in.ID)
	if err != nil {
		return nil, answer(err)
	}
	own, err := a.workshop(ctx)
	if err != nil {
		return nil, answer(err)
	}
	return calendarFile("job-calendar", a.datedJob(j, own)), nil
}
