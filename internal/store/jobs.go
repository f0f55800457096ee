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
	ID        string `gorm:"primaryKey;default:gen_random_uuid()"`
	Number    int64  `gorm:"->"`
	Version   int
	Document  json.RawMessage `gorm:"type:jsonb"`
	CreatedAt time.Time       `gorm:"default:now()"`
	SavedAt   time.Time       `gorm:"default:now()"`
	DeletedAt *time.Time
}

// save is one save of a draft.
type save struct {
	JobID    string
	Version  int
	Document json.RawMessage `gorm:"type:jsonb"`
}

func (save) TableName() string { return "job_saves" }

// Revision is what was issued, whole.
type Revision struct {
	JobID    string
	Number   int
	Version  int
	Document json.RawMessage `gorm:"type:jsonb"`
	Plan     json.RawMessage `gorm:"type:jsonb"`
	Pack     []byte          // as printed; nil of revisions from before there were packs
	IssuedAt time.Time       `gorm:"default:now()"`
	Printed  bool            `gorm:"->"` // there is a pack; of a list, which comes without them
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

// List returns the jobs that are not deleted, last saved first.
func (s *Store) List(ctx context.Context) ([]Job, error) {
	var jobs []Job
	err := s.db.WithContext(ctx).Where("deleted_at IS NULL").Order("saved_at DESC, number DESC").Find(&jobs).Error
	return jobs, named(err)
}

// Create stores a new job and its first save.
func (s *Store) Create(ctx context.Context, doc job.Document) (Job, error) {
	j := Job{Version: 1, Document: doc.Encode()}
	err := s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		if err := tx.Clauses(clause.Returning{}).Create(&j).Error; err != nil {
			return err
		}
		return tx.Create(&save{j.ID, 1, j.Document}).Error
	})
	return j, named(err)
}

// Get returns a job. It returns ErrNotFound or *Deleted.
func (s *Store) Get(ctx context.Context, id string) (Job, error) {
	return get(s.db.WithContext(ctx), id)
}

func get(tx *gorm.DB, id string) (Job, error) {
	var j Job
	err := tx.Where("id = ?", id).Take(&j).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return j, ErrNotFound
	}
	if err == nil && j.DeletedAt != nil {
		return j, &Deleted{*j.DeletedAt}
	}
	return j, named(err)
}

// Save stores a draft on top of version base. It returns *Stale with what changed
// where another write came first; a draft that is already stored is no write, so a
// save may be sent again.
func (s *Store) Save(ctx context.Context, id string, base int, doc job.Document) (Job, error) {
	var out Job
	err := s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		current, err := get(tx.Clauses(clause.Locking{Strength: "UPDATE"}), id)
		if err != nil {
			return err
		}
		out = current
		if current.Doc().Digest() == doc.Digest() {
			return nil
		}
		if current.Version != base {
			return stale(tx, current, base)
		}
		out.Version, out.Document, out.SavedAt = base+1, doc.Encode(), time.Now()
		if err := tx.Model(&Job{}).Where("id = ?", id).Updates(map[string]any{
			"version": out.Version, "document": out.Document, "saved_at": out.SavedAt}).Error; err != nil {
			return err
		}
		return tx.Create(&save{id, out.Version, out.Document}).Error
	})
	return out, named(err)
}

// stale says what changed between the version a writer had and the current one.
func stale(tx *gorm.DB, current Job, base int) error {
	var had save
	err := tx.Where("job_id = ? AND version = ?", current.ID, base).Take(&had).Error
	if err != nil && !errors.Is(err, gorm.ErrRecordNotFound) {
		return err
	}
	from := job.New()
	if err == nil {
		from = decode(had.Document)
	}
	return &Stale{Current: current, Changes: job.Diff(from, current.Doc())}
}

// Delete marks a job as deleted; nothing of it is lost.
func (s *Store) Delete(ctx context.Context, id string) error {
	return s.mark(ctx, id, "deleted_at IS NULL", gorm.Expr("now()"))
}

// Restore puts a deleted job back.
func (s *Store) Restore(ctx context.Context, id string) error {
	return s.mark(ctx, id, "deleted_at IS NOT NULL", nil)
}

// mark sets deleted_at where it holds; a job that is so already is no error.
func (s *Store) mark(ctx context.Context, id, holds string, deletedAt any) error {
	tx := s.db.WithContext(ctx)
	if err := tx.Model(&Job{}).Where("id = ?", id).Where(holds).Update("deleted_at", deletedAt).Error; err != nil {
		return named(err)
	}
	_, err := get(tx, id)
	var deleted *Deleted
	if errors.As(err, &deleted) {
		return nil
	}
	return err
}

// Issue stores the draft at version base as the next revision, with what finish puts in: its
// plan and its pack. It returns *Stale where the draft is no longer that version.
func (s *Store) Issue(ctx context.Context, id string, base int, finish func(Job, *Revision) error) (Revision, error) {
	var r Revision
	err := s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		current, err := get(tx.Clauses(clause.Locking{Strength: "UPDATE"}), id)
		if err != nil {
			return err
		}
		if current.Version != base {
			return stale(tx, current, base)
		}
		var last int
		if err := tx.Model(&Revision{}).Where("job_id = ?", id).Select("coalesce(max(number), 0)").Scan(&last).Error; err != nil {
			return err
		}
		r = Revision{JobID: id, Number: last + 1, Version: base, Document: current.Document, IssuedAt: time.Now()}
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
	err := s.db.WithContext(ctx).Select("job_id, number, version, document, issued_at, pack IS NOT NULL AS printed").
		Where("job_id = ?", id).Order("number DESC").Find(&list).Error
	return list, named(err)
}

// Revision returns one revision whole.
func (s *Store) Revision(ctx context.Context, id string, number int) (Revision, error) {
	var r Revision
	err := s.db.WithContext(ctx).Where("job_id = ? AND number = ?", id, number).Take(&r).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return r, ErrNotFound
	}
	return r, named(err)
}
