package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"epitrope/core/job"
)

// Job is a job with its draft.
type Job struct {
	ID         string `gorm:"primaryKey;default:gen_random_uuid()"`
	WorkshopID string
	Number     int64 `gorm:"->"`
	Version    int
	Document   json.RawMessage `gorm:"type:jsonb"`
	CreatedAt  time.Time       `gorm:"default:now()"`
	SavedAt    time.Time       `gorm:"default:now()"`
	DeletedAt  *time.Time
	Stage      string  `gorm:"->"` // what it waits for
	MadeAs     *string // the name that whoever made it gave the making

	Listing `gorm:"embedded"`
}

// Draft is what is stored of a job at once: its document, and what lists show of it.
type Draft struct {
	Document job.Document
	Listing  Listing
	By       string // the window that saves; empty where nobody says
}

// save is one save of a draft.
type save struct {
	WorkshopID string
	JobID      string
	Version    int
	Document   json.RawMessage `gorm:"type:jsonb"`
	ByWindow   string
	PersonID   *string
}

func (save) TableName() string { return "job_saves" }

// Revision is what was issued, whole.
type Revision struct {
	WorkshopID string
	JobID      string
	Number     int
	Version    int
	Document   json.RawMessage `gorm:"type:jsonb"`
	Plan       json.RawMessage `gorm:"type:jsonb"`
	Pack       []byte          // as printed; nil of revisions from before there were packs
	IssuedAt   time.Time       `gorm:"default:now()"`
	PersonID   *string
	Printed    bool `gorm:"->"` // there is a pack; of a list, which comes without them
}

// TableName is the revisions' table.
func (Revision) TableName() string { return "job_revisions" }

// ErrNotFound is a job or revision that there is not.
var ErrNotFound = errors.New("there is no such job")

// Deleted is a job that was deleted; it can be put back.
type Deleted struct{ At time.Time }

func (e *Deleted) Error() string {
	return "the job was deleted at " + e.At.UTC().Format(time.RFC3339)
}

// Stale is a write on top of a version that is no longer the newest.
type Stale struct {
	Current Job
	Changes []job.Change // from the version the writer had to the current one
}

func (e *Stale) Error() string {
	return fmt.Sprintf("the job was changed meanwhile and is at version %d", e.Current.Version)
}

// Doc reads the stored document.
func (j Job) Doc() job.Document { return decode(j.Document) }

// Doc reads the issued document.
func (r Revision) Doc() job.Document { return decode(r.Document) }

// decode reads a stored document; it was checked before it was stored.
func decode(raw json.RawMessage) job.Document {
	doc, _ := job.Decode(raw)
	return doc
}

// Reused is a name for making something that was given to making something else.
type Reused struct{ Name string }

func (e *Reused) Error() string {
	return fmt.Sprintf("%q was the name of making something else", e.Name)
}

// Create stores a new job and its first save. Where as, a name that the sender gave it, was made already, that
// job comes back as it is; *Reused where it was made of another document.
func (s *Store) Create(ctx context.Context, as string, d Draft) (Job, error) {
	j := Job{WorkshopID: s.workshop, Version: 1, Document: d.Document.Encode(), MadeAs: optional(as)}
	err := s.of(ctx).Transaction(func(tx *gorm.DB) error {
		res := tx.Clauses(clause.OnConflict{DoNothing: true}, clause.Returning{}).Create(&j)
		if res.Error != nil {
			return res.Error
		}
		if res.RowsAffected == 0 {
			return s.made(tx, as, d, &j)
		}
		if err := tx.Model(&Job{}).Where("id = ?", j.ID).Updates(d.Listing.columns(j.Number, 1)).Error; err != nil {
			return err
		}
		if err := putDates(tx, j, d.Listing.Dates); err != nil {
			return err
		}
		return tx.Create(&save{s.workshop, j.ID, 1, j.Document, d.By, s.whom()}).Error
	})
	return j, named(err)
}

// made finds the job that was made under a name, of the same document.
func (s *Store) made(tx *gorm.DB, as string, d Draft, j *Job) error {
	var first save
	*j = Job{}
	if err := s.mine(tx).Where("made_as = ?", as).Take(j).Error; err != nil {
		return err
	}
	if err := s.mine(tx).Where("job_id = ? AND version = 1", j.ID).Take(&first).Error; err != nil {
		return err
	}
	if decode(first.Document).Digest() != d.Document.Digest() {
		return &Reused{as}
	}
	return nil
}

// optional is nothing where a text is empty.
func optional(text string) *string {
	if text == "" {
		return nil
	}
	return &text
}

// Get returns a job. It returns ErrNotFound or *Deleted.
func (s *Store) Get(ctx context.Context, id string) (Job, error) {
	return s.get(s.of(ctx), id)
}

func (s *Store) get(tx *gorm.DB, id string) (Job, error) {
	var j Job
	err := s.mine(tx).Where("id = ?", id).Take(&j).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return j, ErrNotFound
	}
	if err == nil && j.DeletedAt != nil {
		return j, &Deleted{*j.DeletedAt}
	}
	return j, named(err)
}

// Delete marks a job as deleted; nothing of it is lost.
func (s *Store) Delete(ctx context.Context, id string) error {
	return s.mark(ctx, id, "deleted_at IS NULL", gorm.Expr("now()"), "deleted")
}

// Restore puts a deleted job back.
func (s *Store) Restore(ctx context.Context, id string) error {
	return s.mark(ctx, id, "deleted_at IS NOT NULL", nil, "put back")
}

// mark sets deleted_at where it holds; a job that is so already is no error.
func (s *Store) mark(ctx context.Context, id, holds string, deletedAt any, did string) error {
	err := s.of(ctx).Transaction(func(tx *gorm.DB) error {
		marked := s.mine(tx.Model(&Job{})).Where("id = ?", id).Where(holds).Update("deleted_at", deletedAt)
		if marked.Error != nil || marked.RowsAffected == 0 {
			return marked.Error
		}
		return s.note(tx, &id, did, "")
	})
	if err != nil {
		return named(err)
	}
	_, err = s.Get(ctx, id)
	var deleted *Deleted
	if errors.As(err, &deleted) {
		return nil
	}
	return err
}

// Issue stores the draft at version base as the next revision, with what finish puts in: its
// plan and its pack. It returns *Stale where the draft is no longer that version; a version that was issued
// already comes back as it was issued.
func (s *Store) Issue(ctx context.Context, id string, base int, finish func(Job, *Revision) error) (Revision, error) {
	var r Revision
	err := s.of(ctx).Transaction(func(tx *gorm.DB) error {
		current, err := s.get(tx.Clauses(clause.Locking{Strength: "UPDATE"}), id)
		if err != nil {
			return err
		}
		var before []Revision
		if err := s.mine(tx).Where("job_id = ?", id).Order("number DESC").Limit(1).Find(&before).Error; err != nil {
			return err
		}
		last := 0
		if len(before) > 0 {
			if r = before[0]; r.Version == base {
				return nil
			}
			last = r.Number
		}
		if current.Version != base {
			return s.stale(tx, current, base)
		}
		r = Revision{WorkshopID: s.workshop, JobID: id, Number: last + 1, Version: base, Document: current.Document, IssuedAt: time.Now(),
			PersonID: s.whom()}
		if err := finish(current, &r); err != nil {
			return err
		}
		return tx.Create(&r).Error
	})
	return r, named(err)
}

// Revisions lists a job's revisions, newest first, without their plans.
func (s *Store) Revisions(ctx context.Context, id string) ([]Revision, error) {
	var list []Revision
	err := s.own(ctx).Select("job_id, number, version, document, issued_at, pack IS NOT NULL AS printed").
		Where("job_id = ?", id).Order("number DESC").Find(&list).Error
	return list, named(err)
}

// Revision returns one revision whole.
func (s *Store) Revision(ctx context.Context, id string, number int) (Revision, error) {
	var r Revision
	err := s.own(ctx).Where("job_id = ? AND number = ?", id, number).Take(&r).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return r, ErrNotFound
	}
	return r, named(err)
}
