package store

import (
	"context"
	"errors"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

// Comment is what somebody said or asked about something of a job.
type Comment struct {
	ID         string `gorm:"primaryKey"`
	WorkshopID string
	JobID      string
	Thread     *string // its first comment; nil where it is the first
	About      string  // job, part, step, reading, photo
	Subject    string  // its id
	Named      string  // what that was called
	Text       string
	Asks       bool
	Answers    bool
	Mentions   string `gorm:"type:uuid[];default:'{}'"`
	PersonID   string
	At         time.Time `gorm:"default:now()"`
	Arrived    int64     `gorm:"->"`
	ByWhom     string    `gorm:"->"` // of a list
}

// ErrNoThread is an answer to a comment that there is not.
var ErrNoThread = errors.New("there is no such comment to answer")

// AddComment keeps what somebody said; sent twice, by its id, it counts once.
func (s *Store) AddComment(ctx context.Context, jobID string, c Comment) error {
	return named(s.of(ctx).Transaction(func(tx *gorm.DB) error {
		if _, err := s.get(tx, jobID); err != nil {
			return err
		}
		c.WorkshopID, c.JobID, c.PersonID = s.workshop, jobID, s.by.ID
		if c.Thread != nil {
			var first Comment
			if err := s.mine(tx).Where("job_id = ? AND id = ? AND thread IS NULL", jobID, *c.Thread).Take(&first).Error; err != nil {
				return errors.Join(ErrNoThread, err)
			}
			c.About, c.Subject, c.Named, c.Asks = first.About, first.Subject, first.Named, false
		}
		return tx.Clauses(clause.OnConflict{DoNothing: true}).Omit("arrived", "by_whom").Create(&c).Error
	}))
}

// Comments are what was said on a job, in the order in which it came.
func (s *Store) Comments(ctx context.Context, jobID string) (list []Comment, err error) {
	if _, err := s.Get(ctx, jobID); err != nil {
		return nil, err
	}
	err = s.of(ctx).Raw(`SELECT c.*, p.name AS by_whom FROM comments c JOIN people p ON p.workshop_id = c.workshop_id AND p.id = c.person_id
		WHERE c.workshop_id = ? AND c.job_id = ? ORDER BY c.arrived`, s.workshop, jobID).Scan(&list).Error
	return list, named(err)
}

// Question is one that nobody has answered.
type Question struct {
	Comment
	Number int64
	Title  string
	Mine   bool // it names the person who asks for the list
}

// mostOpenQuestions is how many open questions a list has.
const mostOpenQuestions = 50

// Questions are the workshop's open ones: those that name whoever looks first, then the oldest.
func (s *Store) Questions(ctx context.Context) (list []Question, err error) {
	err = s.of(ctx).Raw(`SELECT c.*, p.name AS by_whom, j.number, j.title, coalesce(?::uuid = ANY (c.mentions), false) AS mine
		FROM comments c JOIN people p ON p.workshop_id = c.workshop_id AND p.id = c.person_id
		JOIN jobs j ON j.workshop_id = c.workshop_id AND j.id = c.job_id AND j.deleted_at IS NULL
		WHERE c.workshop_id = ? AND c.asks AND c.thread IS NULL
			AND NOT EXISTS (SELECT FROM comments a WHERE a.workshop_id = c.workshop_id AND a.thread = c.id AND a.answers)
		ORDER BY mine DESC, c.arrived LIMIT ?`, s.whom(), s.workshop, mostOpenQuestions).Scan(&list).Error
	return list, named(err)
}
