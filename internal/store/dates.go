package store

import (
	"context"
	"time"

	"gorm.io/gorm"
)

// Date is a row of a job's calendar, as lists show it. Dates are ISO 8601.
type Date struct {
	WorkshopID string
	JobID      string
	Key        string
	Kind       string
	What       string
	Bay        string
	Due        string `gorm:"type:date"`
	Until      string `gorm:"type:date"` // the last day in its bay; the same day for what stands in none
	EveryDays  int
	Open       bool // still to be done
	Hours      float64
	Waits      int // for parts
}

// TableName is the dates' table.
func (Date) TableName() string { return "job_dates" }

// Dated is a date with the job that it is of.
type Dated struct {
	Date
	Number   int64
	Title    string
	Customer string
	SavedAt  time.Time
}

// putDates puts a job's dates in the place of those that it had.
func putDates(tx *gorm.DB, j Job, dates []Date) error {
	if err := tx.Where("workshop_id = ? AND job_id = ?", j.WorkshopID, j.ID).Delete(&Date{}).Error; err != nil || len(dates) == 0 {
		return err
	}
	rows := make([]Date, len(dates))
	for i, d := range dates {
		d.WorkshopID, d.JobID = j.WorkshopID, j.ID
		rows[i] = d
	}
	return tx.Create(&rows).Error
}

// dated selects dates that are still to be done, of jobs that are not deleted.
func (s *Store) dated(ctx context.Context) *gorm.DB {
	return s.of(ctx).Table("job_dates d").
		Select("d.job_id, d.key, d.kind, d.what, d.bay, d.due::text, d.until::text, d.every_days, d.open, d.hours, d.waits, "+
			"j.number, j.title, j.customer, j.saved_at").
		Joins("JOIN jobs j ON j.workshop_id = d.workshop_id AND j.id = d.job_id AND j.deleted_at IS NULL").
		Where("d.workshop_id = ? AND d.open", s.workshop)
}

// DuePage is where a page of what is due begins: after a row. The zero value is the first.
type DuePage struct{ Due, JobID, Key string }

// Due returns a page of what is due until a day, the oldest first. more says that there is another page.
func (s *Store) Due(ctx context.Context, until string, after DuePage) (list []Dated, more bool, err error) {
	q := s.dated(ctx).Where("d.due <= ?", until).Order("d.due, d.job_id, d.key").Limit(PageSize + 1)
	if after.Due != "" {
		q = q.Where("(d.due, d.job_id, d.key) > (?, ?, ?)", after.Due, after.JobID, after.Key)
	}
	err = q.Scan(&list).Error
	if len(list) > PageSize {
		return list[:PageSize], true, named(err)
	}
	return list, false, named(err)
}

// DatesOf returns the dates of a job.
func (s *Store) DatesOf(ctx context.Context, jobID string) (list []Date, err error) {
	err = s.own(ctx).Select("key, due::text, until::text").Where("job_id = ?", jobID).Order("key").Find(&list).Error
	return list, named(err)
}

// mostInBays is how much of a stretch of days is shown.
const mostInBays = 500

// InBays returns what stands in a bay on one of the days from a first to a last, in order.
func (s *Store) InBays(ctx context.Context, first, last string) (list []Dated, err error) {
	err = s.dated(ctx).Where("d.kind = 'fit' AND daterange(d.due, d.until, '[]') && daterange(?, ?, '[]')", first, last).
		Order("d.due, j.number, d.key").Limit(mostInBays).Scan(&list).Error
	return list, named(err)
}

// OpenUntil returns dates up to a day, the latest first.
func (s *Store) OpenUntil(ctx context.Context, last string, most int) (list []Dated, err error) {
	err = s.dated(ctx).Where("d.due <= ?", last).Order("d.due DESC, d.job_id DESC, d.key DESC").Limit(most).Scan(&list).Error
	return list, named(err)
}
