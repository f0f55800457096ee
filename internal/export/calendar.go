// Package export writes what leaves Epitrope in open formats.
package export

import (
	"fmt"
	"strings"
	"time"

	ics "github.com/arran4/golang-ical"

	"epitrope/core/job"
)

// DatedJob is a job with what names it in a calendar.
type DatedJob struct {
	ID       string
	Number   int64
	SavedAt  time.Time
	Document job.Document
	BayDays  int // that its steps take; 0 counts as one
}

// Calendar writes the dates of jobs that are still to be done as an iCalendar file
// (RFC 5545): an all-day event each, again every so many days where the row says so.
func Calendar(jobs ...DatedJob) []byte {
	cal := ics.NewCalendarFor("Epitrope")
	cal.SetMethod(ics.MethodPublish)
	cal.SetXWRCalName("Epitrope")
	for _, j := range jobs {
		for _, row := range job.Rows(j.Document.Dates) {
			addDate(cal, j, row)
		}
	}
	return []byte(cal.Serialize(ics.WithNewLineWindows))
}

func addDate(cal *ics.Calendar, j DatedJob, row job.Row[job.Due]) {
	if !row.Of.Open() {
		return
	}
	due, err := time.Parse(time.DateOnly, *row.Of.Due)
	if err != nil {
		return // a document holds only dates that read
	}
	e := cal.AddEvent(fmt.Sprintf("%s-%s@epitrope", j.ID, row.Key))
	e.SetDtStampTime(j.SavedAt.UTC())
	e.SetAllDayStartAt(due)
	days := 1
	if row.Of.Kind != nil && *row.Of.Kind == job.FitDate {
		days = max(1, j.BayDays)
	}
	e.SetAllDayEndAt(due.AddDate(0, 0, days))
	summary := line(row.Of.What, KindOf(row.Of))
	if j.Number > 0 {
		summary += fmt.Sprintf(", job %04d", j.Number)
	}
	e.SetSummary(summary)
	if about := strings.TrimSpace(line(j.Document.Title) + "\n" + line(j.Document.Customer)); about != "" {
		e.SetDescription(about)
	}
	if every := row.Of.EveryDays; every != nil && *every >= 1 {
		e.AddRrule(fmt.Sprintf("FREQ=DAILY;INTERVAL=%d", int(*every)))
	}
}

// KindOf is what a date is for, in words.
func KindOf(d job.Due) string {
	if d.Kind == nil {
		return "to be done"
	}
	f, _ := job.FieldAt("dates.x.kind")
	return f.Show(*d.Kind)
}

// line is the first text that there is, on one line and without control characters.
func line(texts ...string) string {
	for _, text := range texts {
		text = strings.Join(strings.FieldsFunc(text, func(r rune) bool { return r < ' ' || r == 0x7f }), " ")
		if strings.TrimSpace(text) != "" {
			return text
		}
	}
	return ""
}
