package store

import (
	"context"
	"encoding/json"
	"time"

	"gorm.io/gorm/clause"

	"epitrope/core/job"
)

// Find is what one job found on a vehicle of a model.
type Find struct {
	ID       int64 `gorm:"primaryKey"`
	Model    string
	ModelKey string `gorm:"->"`
	JobID    *string
	Document json.RawMessage `gorm:"type:jsonb"`
	FoundAt  time.Time       `gorm:"default:now()"`
}

// TableName is the finds' table.
func (Find) TableName() string { return "vehicle_finds" }

// Doc reads the find.
func (f Find) Doc() job.Document { return decode(f.Document) }

// AddFind puts what a job found on a model into the vehicle book.
func (s *Store) AddFind(ctx context.Context, jobID, model string, found job.Document) (Find, error) {
	f := Find{Model: model, JobID: &jobID, Document: found.Encode()}
	err := s.db.WithContext(ctx).Clauses(clause.Returning{}).Create(&f).Error
	return f, named(err)
}

// Finds returns what was found on a model, oldest first; all models where it is empty.
func (s *Store) Finds(ctx context.Context, model string) ([]Find, error) {
	q := s.db.WithContext(ctx).Order("model_key, id")
	if model != "" {
		q = q.Where(`model_key = lower(regexp_replace(btrim(?), '\s+', ' ', 'g'))`, model)
	}
	var finds []Find
	err := q.Find(&finds).Error
	return finds, named(err)
}
