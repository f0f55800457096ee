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

// Logged is something that happened to a job.
type Logged struct {
	At   time.Time
	Kind string // made, issued, signed, begun, installed, or the kind of its entry
	By   string
	Says string // as it was entered
	What string // its subject: a revision's or certificate's number, an entry's subject
	Case string

	Failed string // as it is counted among what failed
}

// Log is what happened to a job over the years, the oldest first.
func (s *Store) Log(ctx context.Context, jobID string) (list []Logged, err error) {
	if _, err := s.Get(ctx, jobID); err != nil {
		return nil, err
	}
	err = s.of(ctx).Raw(`SELECT l.at, l.kind, coalesce(p.name, l.by_whom) AS by, l.says, l.what, l.case_id AS case, l.failed FROM (
		SELECT j.created_at AS at, 'made' AS kind, NULL::uuid AS person_id, '' AS by_whom, '' AS says, '' AS what, '' AS case_id,
				0 AS arrived, '' AS failed
			FROM jobs j WHERE j.workshop_id = @workshop AND j.id = @job
		UNION ALL SELECT r.issued_at, 'issued', r.person_id, '', '', r.number::text, '', 0, ''
			FROM job_revisions r WHERE r.workshop_id = @workshop AND r.job_id = @job
		UNION ALL SELECT g.signed_at, 'signed', g.person_id, g.by_whom, '', g.number::text, '', 0, ''
			FROM signoffs g WHERE g.workshop_id = @workshop AND g.job_id = @job
		UNION ALL (SELECT k.ticked_at, 'begun', k.person_id, k.by_whom, '', '', '', 0, '' FROM step_ticks k
			WHERE k.workshop_id = @workshop AND k.job_id = @job AND k.done ORDER BY k.arrived LIMIT 1)
		UNION ALL (SELECT k.ticked_at, 'installed', k.person_id, k.by_whom, '', '', '', 0, '' FROM step_ticks k
			WHERE k.workshop_id = @workshop AND k.job_id = @job AND k.done ORDER BY k.arrived DESC LIMIT 1)
		UNION ALL SELECT e.taken_at, e.kind, e.person_id, e.by_whom, e.entry, e.subject, coalesce(e.case_id::text, ''), e.arrived,
				coalesce(f.says, '')
			FROM proof_entries e LEFT JOIN failures f ON f.workshop_id = e.workshop_id AND f.entry_id = e.id
			WHERE e.workshop_id = @workshop AND e.job_id = @job
				AND e.kind IN ('complaint', 'mended', 'bypass', 'closed', 'changed', 'noted', 'trip')
		) l LEFT JOIN people p ON p.workshop_id = @workshop AND p.id = l.person_id ORDER BY l.at, l.arrived`,
		map[string]any{"workshop": s.workshop, "job": jobID}).Scan(&list).Error
	return list, named(err)
}
