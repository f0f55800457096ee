package server

import (
	"cmp"
	"context"
	"net/http"
	"slices"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"epitrope/internal/answers"
	"epitrope/internal/people"
)

// Week is the workshop's week: what stands in each bay on each day.
type Week struct {
	Days []string    `json:"days" doc:"Seven dates, from the day that the workshop begins a week with"`
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
	on(h, people.Look, huma.Operation{OperationID: "week", Method: http.MethodGet, Path: "/api/week",
		Summary: "The workshop's week, bay by bay; clashes are marked", Errors: []int{422, 503}}, a.week)
}

// firstDay is the first day of a date's week, as a workshop begins it.
func firstDay(at time.Time, begins string) time.Time {
	first := map[string]time.Weekday{"sunday": time.Sunday, "saturday": time.Saturday, "monday": time.Monday}[begins]
	return at.AddDate(0, 0, -((int(at.Weekday()) - int(first) + 7) % 7))
}

func (a *api) week(ctx context.Context, in *struct {
	Of string `query:"of" format:"date" doc:"Any day of the week; today's where it is not given"`
}) (*body[Week], error) {
	of := in.Of
	if of == "" {
		of = today()
	}
	from := firstDay(answers.Day(of), a.settings.of(ctx).now().WeekStarts)
	out := Week{Days: []string{}, Bays: []BayInWeek{}}
	for d := range 7 {
		out.Days = append(out.Days, from.AddDate(0, 0, d).Format(time.DateOnly))
	}
	list, err := a.store(ctx).InBays(ctx, out.Days[0], out.Days[6])
	if err != nil {
		return nil, answer(err)
	}
	// What clashes with something of the week may stand there before it, or after.
	first, last := out.Days[0], out.Days[6]
	for _, d := range list {
		first, last = min(first, d.Due), max(last, d.Until)
	}
	if list, err = a.store(ctx).InBays(ctx, first, last); err != nil {
		return nil, answer(err)
	}
	byBay := map[string][]WeekEntry{}
	for _, d := range list {
		byBay[d.Bay] = append(byBay[d.Bay], WeekEntry{Job: d.JobID, Number: d.Number, Title: d.Title, From: d.Due, Until: d.Until,
			Hours: d.Hours,
			Waits: d.Waits})
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
