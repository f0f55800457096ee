package unit_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"epitrope/core/unit"
)

// Every day of four centuries is one, and reads as the standard library reads it.
func TestDatesAgreeWithTheCalendar(t *testing.T) {
	for at := time.Date(1900, 1, 1, 0, 0, 0, 0, time.UTC); at.Year() < 2301; at = at.AddDate(0, 0, 1) {
		y, m, d, err := unit.Date(at.Format(time.DateOnly))
		if err != nil || y != at.Year() || m != int(at.Month()) || d != at.Day() {
			t.Fatalf("%s reads as %d-%d-%d, %v", at.Format(time.DateOnly), y, m, d, err)
		}
	}
	for _, bad := range []string{"", "2030-13-01", "2030-02-29", "2100-02-29", "2030-04-31", "2030-00-10", "2030-01-00", "1.5.2030",
		"2030-5-1", " 2030-05-01"} {
		_, _, _, err := unit.Date(bad)
		assert.Error(t, err, bad)
	}
}

// A text is a date for us exactly when it is one for the standard library.
func FuzzDate(f *testing.F) {
	f.Add("2030-05-01")
	f.Add("2031-02-29")
	f.Fuzz(func(t *testing.T, text string) {
		_, _, _, err := unit.Date(text)
		_, want := time.Parse(time.DateOnly, text)
		assert.Equal(t, want == nil, err == nil, "%q", text)
	})
}
