package server

import (
	"cmp"
	"context"
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"epitrope/core/job"
	"epitrope/core/procedure"
	"epitrope/internal/export"
)

// Week is the workshop's week: what stands in each bay on each day.
type Week struct {
	Days []string    `json:"days" doc:"Seven dates, from a Monday"`
	Bays []BayInWeek `json:"bays"`
}

// BayInWeek is a bay with what stands in it.
type BayInWeek struct {
	Bay     string      `json:"bay" doc:"Empty where none was named"`
	Entries []WeekEntry `json:"entries"`
}

// WeekEntry is a job in a bay.
type WeekEntry struct {
	Job     string  `json:"job"`
	Number  int64   `json:"number"`
	Title   string  `json:"title"`
	From    string  `json:"from"`
	Until   string  `json:"until" doc:"Its last day; days of rest counted as days"`
	Hours   float64 `json:"hours"`
	Waits   int     `json:"waits" doc:"Parts that have to be ordered first"`
	Clashes bool    `json:"clashes" doc:"Another job stands in that bay on one of its days"`
}

func (a *api) registerWeek(h huma.API) {
	huma.Register(h, huma.Operation{OperationID: "week", Method: http.MethodGet, Path: "/api/week",
		Summary: "The workshop's week, bay by bay; clashes are marked", Errors: []int{422, 503}}, a.week)
}

// monday is the Monday of a date's week.
func monday(at time.Time) time.Time {
	return at.AddDate(0, 0, -((int(at.Weekday()) + 6) % 7))
}

func (a *api) week(ctx context.Context, in *struct {
	Of string `query:"of" format:"date" doc:"Any day of the week; today's where it is not given"`
}) (*body[Week], error) {
	of := in.Of
	if of == "" {
		of = today()
	}
	from := monday(dayOf(of))
	jobs, err := a.store.List(ctx)
	if err != nil {
		return nil, answer(err)
	}
	own, err := a.workshop(ctx)
	if err != nil {
		return nil, answer(err)
	}
	byBay := map[string][]WeekEntry{}
	for _, j := range jobs {
		doc := j.Doc()
		for _, row := range job.Rows(doc.Dates) {
			if row.Of.Kind == nil || *row.Of.Kind != job.FitDate || !row.Of.Open() {
				continue
			}
			p := export.NewPack(a.designs.of(doc), own)
			begins := dayOf(*row.Of.Due)
			e := WeekEntry{Job: j.ID, Number: j.Number, Title: doc.Title, From: *row.Of.Due, Hours: p.Hours, Waits: len(p.Waits),
				Until: begins.AddDate(0, 0, max(0, procedure.Days(p.Schedule)-1)).Format(time.DateOnly)}
			bay := strings.TrimSpace(row.Of.Bay)
			byBay[bay] = append(byBay[bay], e)
		}
	}
	out := Week{Days: []string{}, Bays: []BayInWeek{}}
	for d := range 7 {
		out.Days = append(out.Days, from.AddDate(0, 0, d).Format(time.DateOnly))
	}
	for bay, entries := range byBay {
		markClashes(bay, entries)
		entries = slices.DeleteFunc(entries, func(e WeekEntry) bool { return e.Until < out.Days[0] || e.From > out.Days[6] })
		if len(entries) > 0 {
			out.Bays = append(out.Bays, BayInWeek{bay, entries})
		}
	}
	slices.SortFunc(out.Bays, func(a, b BayInWeek) int { return cmp.Compare(a.Bay, b.Bay) })
	return &body[Week]{out}, nil
}

// markClashes marks what stands in one bay at once; where no bay was named nothing clashes.
func markClashes(bay string, entries []WeekEntry) {
	slices.SortFunc(entries, func(a, b WeekEntry) int { return cmp.Or(cmp.Compare(a.From, b.From), cmp.Compare(a.Number, b.Number)) })
	if bay == "" {
		return
	}
	for i := range entries {
		for k := range entries[:i] {
			if entries[k].Until >= entries[i].From {
				entries[i].Clashes, entries[k].Clashes = true, true
			}
		}
	}
}
