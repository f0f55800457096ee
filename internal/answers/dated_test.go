package answers

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"epitrope/core/job"
)

// How a date stands, on its border days.
func TestDatesStand(t *testing.T) {
	text := func(s string) *string { return &s }
	days := func(v float64) *float64 { return &v }
	for _, c := range []struct {
		row   job.Due
		state string
		days  int
		next  string
	}{
		{job.Due{}, "undated", 0, ""},
		{job.Due{Due: text("2031-04-30")}, "soon", 30, ""},
		{job.Due{Due: text("2031-05-01")}, "later", 31, ""},
		{job.Due{Due: text("2031-03-31")}, "soon", 0, ""},
		{job.Due{Due: text("2031-03-30")}, "overdue", -1, ""},
		{job.Due{Due: text("2031-03-30"), Done: text("2031-03-30")}, "done", -1, ""},
		{job.Due{Due: text("2031-03-30"), Done: text("2031-03-29")}, "overdue", -1, ""},
		{job.Due{Due: text("2031-03-31"), EveryDays: days(60)}, "soon", 0, "2031-05-30"},
	} {
		s := stateOf(job.Row[job.Due]{Key: "d", Of: c.row}, "2031-03-31")
		assert.Equal(t, DateState{"d", c.state, c.days, c.next}, s)
	}
}
