package server

import (
	"context"
	"net/http"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"epitrope/core/job"
	"epitrope/internal/answers"
	"epitrope/internal/export"
	"epitrope/internal/people"
	"epitrope/internal/store"
)

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
	on(h, people.Work, huma.Operation{OperationID: "jobDates", Method: http.MethodPost, Path: "/api/dates", MaxBodyBytes: maxBody,
		Summary: "What a document asks to be done later, and how its dates stand today", Errors: []int{413, 422}}, a.jobDates)
	on(h, people.Look, huma.Operation{OperationID: "due", Method: http.MethodGet, Path: "/api/due",
		Summary: "What of all jobs is overdue, or due soon, the oldest first", Errors: []int{503}}, a.due)
	on(h, people.Look, huma.Operation{OperationID: "workshopCalendar", Method: http.MethodGet, Path: "/api/calendar.ics",
		Summary: "The dates of all jobs as iCalendar", Errors: []int{503}}, a.workshopCalendar)
	on(h, people.Look, huma.Operation{OperationID: "jobCalendar", Method: http.MethodGet, Path: "/api/jobs/{id}/calendar.ics",
		Summary: "A job's dates as iCalendar", Errors: []int{404, 410, 503}}, a.jobCalendar)
}

func (a *api) jobDates(ctx context.Context, in *struct{ Body Input }) (*body[answers.JobDates], error) {
	doc, _ := job.Decode(in.Body)
	return &body[answers.JobDates]{answers.Dates(a.designs.of(ctx, doc), today())}, nil
}

// DuePage is a page of what is due.
type DuePage struct {
	Due  []DueRow `json:"due"`
	Next string   `json:"next" doc:"Where the next page begins; empty where there is none"`
}

func (a *api) due(ctx context.Context, in *struct {
	After string `query:"after" maxLength:"120" doc:"Where the page begins: the next of the page before"`
}) (*body[DuePage], error) {
	after, err := readDuePage(in.After)
	if err != nil {
		return nil, err
	}
	now := answers.Day(today())
	list, more, err := a.store(ctx).Due(ctx, now.AddDate(0, 0, answers.SoonDays).Format(time.DateOnly), after)
	if err != nil {
		return nil, answer(err)
	}
	page := DuePage{Due: make([]DueRow, len(list))}
	for i, d := range list {
		days := int(answers.Day(d.Due).Sub(now).Hours() / 24)
		page.Due[i] = DueRow{Job: d.JobID, Number: d.Number, Title: d.Title, Key: d.Key, What: d.What, Due: d.Due,
			State: answers.StateIn(days),
			Days:  days}
	}
	if more {
		last := list[len(list)-1]
		page.Next = strings.Join([]string{last.Due, last.JobID, last.Key}, "_")
	}
	return &body[DuePage]{page}, nil
}

// uuidLength is that of an identifier as it is written here.
const uuidLength = 36

// readDuePage reads where a page of what is due begins.
func readDuePage(after string) (page store.DuePage, err error) {
	if after == "" {
		return page, nil
	}
	due, rest, _ := strings.Cut(after, "_")
	id, key, named := strings.Cut(rest, "_")
	if _, err := time.Parse(time.DateOnly, due); err != nil || !named || uuid.Validate(id) != nil || len(id) != uuidLength {
		return page, badPage(after)
	}
	return store.DuePage{Due: due, JobID: id, Key: key}, nil
}

// The workshop's calendar: what is still to be done until a while ahead, the latest of it.
const (
	calendarAheadDays = 730
	calendarMost      = 5000
)

func (a *api) workshopCalendar(ctx context.Context, _ *struct{}) (*fileAnswer, error) {
	list, err := a.store(ctx).OpenUntil(ctx, answers.Day(today()).AddDate(0, 0, calendarAheadDays).Format(time.DateOnly), calendarMost)
	if err != nil {
		return nil, answer(err)
	}
	events := make([]export.Event, len(list))
	for i, d := range list {
		events[i] = export.Event{JobID: d.JobID, Key: d.Key, Number: d.Number, At: d.SavedAt, What: d.What, Title: d.Title,
			Customer: d.Customer,
			Due:      d.Due, Until: d.Until, EveryDays: d.EveryDays}
	}
	return calendarFile("epitrope", events), nil
}

func (a *api) jobCalendar(ctx context.Context, in *JobPath) (*fileAnswer, error) {
	j, err := a.store(ctx).Get(ctx, in.ID)
	if err != nil {
		return nil, answer(err)
	}
	list, err := a.store(ctx).DatesOf(ctx, in.ID)
	if err != nil {
		return nil, answer(err)
	}
	until := map[string]string{}
	for _, d := range list {
		until[d.Key] = d.Until
	}
	return calendarFile("job-calendar", export.Events(j.ID, j.Number, j.SavedAt, j.Doc(), until)), nil
}

func calendarFile(name string, events []export.Event) *fileAnswer {
	return &fileAnswer{"text/calendar; charset=utf-8", `attachment; filename="` + name + `.ics"`, export.Calendar(events)}
}
