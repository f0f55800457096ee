// Package export writes what leaves Epitrope in open formats.
package export

import (
	"fmt"
	"strings"
	"time"

	ics "github.com/arran4/golang-ical"

	"epitrope/core/job"
)

// Event is a date of a job that is still to be done. Dates are ISO 8601.
type Event struct {
	JobID, Key            string
	Number                int64 // of the job; 0 where it has none
	At                    time.Time
	What, Title, Customer string
	Due, Until            string
	EveryDays             int
}

// Events are those of a job: its dates that are still to be done. until is the last day of what stands in a bay
// longer than one, by the row's name.
func Events(id string, number int64, at time.Time, doc job.Document, until map[string]string) []Event {
	list := []Event{}
	for _, row := range job.Rows(doc.Dates) {
		if !row.Of.Open() {
			continue
		}
		e := Event{JobID: id, Key: row.Key, Number: number, At: at, What: line(row.Of.What, KindOf(row.Of)), Title: doc.Title,
			Customer: doc.Customer, Due: *row.Of.Due, Until: max(*row.Of.Due, until[row.Key])}
		if every := row.Of.EveryDays; every != nil {
			e.EveryDays = int(*every)
		}
		list = append(list, e)
	}
	return list
}

// Calendar writes events as an iCalendar file (RFC 5545): over whole days, again every so many days where they
// say so.
func Calendar(events []Event) []byte {
	cal := ics.NewCalendarFor("Epitrope")
	cal.SetMethod(ics.MethodPublish)
	cal.SetXWRCalName("Epitrope")
	for _, e := range events {
		addEvent(cal, e)
	}
	return []byte(cal.Serialize(ics.WithNewLineWindows))
}

func addEvent(cal *ics.Calendar, e Event) {
	due, err := time.Parse(time.DateOnly, e.Due)
	if err != nil {
		return // a document holds only dates that read
	}
	last, err := time.Parse(time.DateOnly, e.Until)
	if err != nil {
		last = due
	}
	out := cal.AddEvent(fmt.Sprintf("%s-%s@epitrope", e.JobID, e.Key))
	out.SetDtStampTime(e.At.UTC())
	out.SetAllDayStartAt(due)
	out.SetAllDayEndAt(last.AddDate(0, 0, 1))
	summary := line(e.What)
	if e.Number > 0 {
		summary += fmt.Sprintf(", job %04d", e.Number)
	}
	out.SetSummary(summary)
	if about := strings.TrimSpace(line(e.Title) + "\n" + line(e.Customer)); about != "" {
		out.SetDescription(about)
	}
	if e.EveryDays >= 1 {
		out.AddRrule(fmt.Sprintf("FREQ=DAILY;INTERVAL=%d", e.EveryDays))
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
