package unit

import (
	"fmt"
	"regexp"
	"strconv"
)

var dateForm = regexp.MustCompile(`^(\d{4})-(\d{2})-(\d{2})$`)

// DateAllowed is what a date is written as.
const DateAllowed = "year-month-day, such as 2030-05-01"

// Date reads a date of the Gregorian calendar, written as ISO 8601 has it.
func Date(text string) (year, month, day int, err error) {
	m := dateForm.FindStringSubmatch(text)
	if m == nil {
		return 0, 0, 0, fmt.Errorf("is not a date")
	}
	year, _ = strconv.Atoi(m[1]) // digits
	month, _ = strconv.Atoi(m[2])
	day, _ = strconv.Atoi(m[3])
	longest := 31
	switch month {
	case 4, 6, 9, 11:
		longest = 30
	case 2:
		longest = 28
		if year%4 == 0 && (year%100 != 0 || year%400 == 0) {
			longest = 29
		}
	}
	if month < 1 || month > 12 || day < 1 || day > longest {
		return 0, 0, 0, fmt.Errorf("is not a date of the calendar")
	}
	return year, month, day, nil
}
