package export_test

import (
	"bytes"
	"strings"
	"testing"
	"time"

	ics "github.com/arran4/golang-ical"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/job"
	"epitrope/internal/export"
)

var saved = time.Date(2031, 3, 2, 10, 0, 0, 0, time.UTC)

func dated(t testing.TB, text string, until map[string]string) []export.Event {
	t.Helper()
	doc, problems := job.Decode([]byte(text))
	require.Empty(t, problems)
	return export.Events("7c1", 47, saved, doc, until)
}

// What is open comes out, once, on its day; what is done does not.
func TestCalendar(t *testing.T) {
	j := dated(t, `{"title":"Bookmobile, second battery","customer":"Plover; Books, Ltd","dates":{
		"d1":{"kind":"topup","what":"Charge it","due":"2031-04-30","everyDays":60},
		"d2":{"kind":"revisit","due":"2031-03-30","done":"2031-04-01"},
		"d3":{"kind":"temporary","due":"2032-02-29","done":"2031-01-01"},
		"d4":{"what":"no date yet"}}}`, nil)
	out := export.Calendar(j)
	assert.Equal(t, out, export.Calendar(j), "the same each time")
	read, err := ics.ParseCalendar(bytes.NewReader(out))
	require.NoError(t, err)
	events := read.Events()
	require.Len(t, events, 2)
	start, err := events[0].GetAllDayStartAt()
	require.NoError(t, err)
	assert.Equal(t, "2031-04-30", start.Format(time.DateOnly))
	assert.Equal(t, "FREQ=DAILY;INTERVAL=60", events[0].GetProperty(ics.ComponentPropertyRrule).Value)
	assert.Equal(t, "Charge it, job 0047", events[0].GetProperty(ics.ComponentPropertySummary).Value)
	assert.Contains(t, events[0].GetProperty(ics.ComponentPropertyDescription).Value, "Plover")
	assert.Equal(t, "undo a temporary repair, job 0047", events[1].GetProperty(ics.ComponentPropertySummary).Value)
	end, err := events[1].GetAllDayEndAt()
	require.NoError(t, err)
	assert.Equal(t, "2032-03-01", end.Format(time.DateOnly), "the day after a leap day")
}

// Work in the bay lasts as many days as its steps take.
func TestCalendarOfTheBay(t *testing.T) {
	j := dated(t, `{"dates":{"d1":{"kind":"fit","due":"2031-03-04"}}}`, map[string]string{"d1": "2031-03-06"})
	read, err := ics.ParseCalendar(bytes.NewReader(export.Calendar(j)))
	require.NoError(t, err)
	end, err := read.Events()[0].GetAllDayEndAt()
	require.NoError(t, err)
	assert.Equal(t, "2031-03-07", end.Format(time.DateOnly), "the day after its last")
}

// Whatever is typed, the file has lines of at most 75 octets that end as RFC 5545 wants,
// and reads back as one event with one summary.
func FuzzCalendar(f *testing.F) {
	f.Add("Charge it; soon, \\n at last")
	f.Add("BEGIN:VEVENT\r\nX:\u2028é" + strings.Repeat("ü", 80))
	f.Fuzz(func(t *testing.T, what string) {
		due, kind := "2031-04-30", job.RevisitDate
		doc := job.New()
		doc.Dates = map[string]job.Due{"d": {Kind: &kind, What: what, Due: &due}}
		out := export.Calendar(export.Events("1", 0, saved, doc, nil))
		for _, l := range strings.Split(strings.TrimSuffix(string(out), "\r\n"), "\r\n") {
			assert.LessOrEqual(t, len(l), 75)
			assert.NotContains(t, l, "\n")
		}
		read, err := ics.ParseCalendar(bytes.NewReader(out))
		require.NoError(t, err)
		require.Len(t, read.Events(), 1)
	})
}
