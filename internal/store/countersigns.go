package store

import (
	"context"
	"errors"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

// Countersign is who stands for what an apprentice did.
type Countersign struct {
	ID         string `gorm:"primaryKey"`
	WorkshopID string
	JobID      string
	Of         string // the tick or the entry
	PersonID   string
	At         time.Time `gorm:"default:now()"`
	ByWhom     string    `gorm:"->"` // of a list
}

// ErrOwnWork is a countersignature under one's own work.
var ErrOwnWork = errors.New("nobody countersigns what they did themselves")

// ErrNothingWaits is a countersignature for what waits for none.
var ErrNothingWaits = errors.New("nothing of this job waits for a countersignature by that name")

// waiting are what waits for a countersignature: of several on a step, a reading or a gate the last, which stands.
const waiting = `SELECT w.workshop_id, w.job_id, w.id, w.person_id, w.received_at FROM (
		SELECT t.workshop_id, t.job_id, t.id, t.person_id, t.received_at FROM step_ticks t WHERE t.awaits AND t.done AND NOT EXISTS (
			SELECT FROM step_ticks l WHERE l.workshop_id = t.workshop_id AND l.job_id = t.job_id AND l.step = t.step AND l.arrived > t.arrived)
		UNION ALL
		SELECT e.workshop_id, e.job_id, e.id, e.person_id, e.received_at FROM proof_entries e WHERE e.awaits AND NOT EXISTS (
			SELECT FROM proof_entries l WHERE l.workshop_id = e.workshop_id AND l.job_id = e.job_id AND l.subject = e.subject
				AND (l.kind = 'reading') = (e.kind = 'reading') AND l.arrived > e.arrived)
	) w WHERE w.workshop_id = @workshop AND NOT EXISTS (SELECT FROM countersigns c WHERE c.workshop_id = w.workshop_id AND c.of = w.id)`

// Countersign keeps that somebody stands for another's work; once is enough, whoever it was.
func (s *Store) Countersign(ctx context.Context, jobID, id, of string) error {
	return named(s.of(ctx).Transaction(func(tx *gorm.DB) error {
		if _, err := s.get(tx, jobID); err != nil {
			return err
		}
		var there int64
		if err := s.mine(tx.Model(&Countersign{})).Where("job_id = ? AND of = ?", jobID, of).Count(&there).Error; err != nil || there > 0 {
			return err
		}
		var of1 struct{ PersonID string }
		found := tx.Raw(waiting+` AND w.job_id = @job AND w.id = @of`, map[string]any{"workshop": s.workshop, "job": jobID,
			"of": of}).Scan(&of1)
		switch {
		case found.Error != nil:
			return found.Error
		case found.RowsAffected == 0:
			return ErrNothingWaits
		case of1.PersonID == s.by.ID:
			return ErrOwnWork
		}
		c := Countersign{ID: id, WorkshopID: s.workshop, JobID: jobID, Of: of, PersonID: s.by.ID}
		return tx.Clauses(clause.OnConflict{DoNothing: true}).Omit("by_whom").Create(&c).Error
	}))
}

// Countersigns are those of a job, by what they are under.
func (s *Store) Countersigns(ctx context.Context, jobID string) (map[string]Countersign, error) {
	var list []Countersign
	err := s.of(ctx).Raw(`SELECT c.*, p.name AS by_whom FROM countersigns c
		JOIN people p ON p.workshop_id = c.workshop_id AND p.id = c.person_id
		WHERE c.workshop_id = ? AND c.job_id = ?`, s.workshop, jobID).Scan(&list).Error
	out := map[string]Countersign{}
	for _, c := range list {
		out[c.Of] = c
	}
	return out, named(err)
}

// Awaiting is how much of a job waits for a countersignature.
type Awaiting struct {
	JobID  string
	Number int64
	Title  string
	Count  int
	Oldest time.Time
}

// Awaiting are the jobs of which something waits for a countersignature, the longest waiting first.
func (s *Store) Awaiting(ctx context.Context) (list []Awaiting, err error) {
	err = s.of(ctx).Raw(`SELECT j.id AS job_id, j.number, j.title, count(*) AS count, min(w.received_at) AS oldest FROM (`+waiting+`) w
		JOIN jobs j ON j.workshop_id = w.workshop_id AND j.id = w.job_id AND j.deleted_at IS NULL
		GROUP BY j.id, j.number, j.title ORDER BY oldest LIMIT 50`, map[string]any{"workshop": s.workshop}).Scan(&list).Error
	return list, named(err)
}
