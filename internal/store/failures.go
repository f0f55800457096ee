package store

import (
	"context"
	"strings"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

// Failure is what failed in a vehicle, or was changed, as it was understood then.
type Failure struct {
	WorkshopID string
	EntryID    string // of the log
	JobID      string
	Fault      string // its kind; empty where a part was changed without one
	Says       string
	Part       string
	Model      string
	Vehicle    string
	Years      *float64
	FailedAt   time.Time
	Search     string
}

// FailureGroup is one kind of failure over the workshop.
type FailureGroup struct {
	Part, Model, Fault string
	Says               string // of its newest
	Count              int
	Vehicles           int      // jobs
	Years              *float64 // middle age, of those that are known
	Youngest, Oldest   *float64
	LastAt             time.Time
}

// Failed is a failure with the job that it is of.
type Failed struct {
	Failure
	Number int64
	Title  string
}

// putFailures keeps failures of entries that are kept with them; one that is there counts once.
func (s *Store) putFailures(tx *gorm.DB, jobID string, list []Failure) error {
	if len(list) == 0 {
		return nil
	}
	j, err := s.get(tx, jobID)
	if err != nil {
		return err
	}
	for i := range list {
		f := &list[i]
		f.WorkshopID, f.JobID = s.workshop, jobID
		f.Search = " " + plainText(strings.Join([]string{f.Says, f.Part, f.Model, f.Vehicle, j.Title, j.Customer, padded(j.Number)}, " ")) +
			" "
	}
	return tx.Clauses(clause.OnConflict{DoNothing: true}).Create(&list).Error
}

// ProvenAt is when a job was first signed for; the zero time where it never was.
func (s *Store) ProvenAt(ctx context.Context, jobID string) (at time.Time, err error) {
	var first []Signoff
	err = s.own(ctx).Select("signed_at").Where("job_id = ?", jobID).Order("number").Limit(1).Find(&first).Error
	if len(first) > 0 {
		at = first[0].SignedAt
	}
	return at, named(err)
}

// failures are those of jobs that are not deleted, that have every word of a search.
func (s *Store) failures(ctx context.Context, search string) *gorm.DB {
	q := s.of(ctx).Table("failures f").Joins("JOIN jobs j ON j.workshop_id = f.workshop_id AND j.id = f.job_id AND j.deleted_at IS NULL").
		Where("f.workshop_id = ?", s.workshop)
	for _, word := range strings.Fields(plainText(search)) {
		q = q.Where("f.search LIKE ?", likeWord(word))
	}
	return q
}

// FailureGroups are the failures of the workshop by part, model and fault, the most frequent first.
func (s *Store) FailureGroups(ctx context.Context, search string) (list []FailureGroup, err error) {
	err = s.failures(ctx, search).Select(`f.part, f.model, f.fault, (array_agg(f.says ORDER BY f.failed_at DESC))[1] AS says,
			count(*) AS count,
			count(DISTINCT f.job_id) AS vehicles, percentile_cont(0.5) WITHIN GROUP (ORDER BY f.years) AS years, min(f.years) AS youngest,
			max(f.years) AS oldest, max(f.failed_at) AS last_at`).
		Group("f.part, f.model, f.fault").Order("count DESC, last_at DESC").Limit(PageSize).Scan(&list).Error
	return list, named(err)
}

// Failures are the newest failures of the workshop.
func (s *Store) Failures(ctx context.Context, search string) (list []Failed, err error) {
	err = s.failures(ctx, search).Select("f.*, j.number, j.title").Order("f.failed_at DESC, f.entry_id").Limit(PageSize).Scan(&list).Error
	return list, named(err)
}

// ProvenJobs is how many jobs of the workshop were signed for.
func (s *Store) ProvenJobs(ctx context.Context) (n int64, err error) {
	err = s.own(ctx).Model(&Signoff{}).Distinct("job_id").Count(&n).Error
	return n, named(err)
}
