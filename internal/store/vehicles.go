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

	Withdrawn json.RawMessage `gorm:"type:jsonb"`
	FoundAt   time.Time       `gorm:"default:now()"`
}

// TableName is the finds' table.
func (Find) TableName() string { return "vehicle_finds" }

// Over is what is known of a model once this find is added.
func (f Find) Over(known job.Document) job.Document {
	var gone []string
	if err := json.Unmarshal(f.Withdrawn, &gone); err != nil {
		panic(err) // the store wrote it
	}
	return known.Without(gone).Over(decode(f.Document))
}

// AddFind puts what a job found on a model into the vehicle book.
func (s *Store) AddFind(ctx context.Context, jobID, model string, found job.Document) (Find, error) {
	f := Find{Model: model, JobID: &jobID, Document: found.Encode(), Withdrawn: none}
	err := s.db.WithContext(ctx).Clauses(clause.Returning{}).Create(&f).Error
	return f, named(err)
}

// none is a find that takes nothing out.
var none = json.RawMessage("[]")

// PutFinds puts what a file says of models into the vehicle book, all or none.
func (s *Store) PutFinds(ctx context.Context, models []string, found []job.Document) error {
	if len(models) == 0 {
		return nil
	}
	rows := make([]Find, len(models))
	for i := range models {
		rows[i] = Find{Model: models[i], Document: found[i].Encode(), Withdrawn: none}
	}
	return named(s.db.WithContext(ctx).Create(&rows).Error)
}

// WithdrawAnswer takes an answer of a model out of the vehicle book; "*" takes the model out.
// What was found stays in the finds.
func (s *Store) WithdrawAnswer(ctx context.Context, model, path string) error {
	finds, err := s.Finds(ctx, model)
	if err != nil {
		return err
	}
	if len(finds) == 0 {
		return ErrNotFound
	}
	gone, err := json.Marshal([]string{path})
	if err != nil {
		return err
	}
	f := Find{Model: finds[len(finds)-1].Model, Document: job.New().Encode(), Withdrawn: gone}
	return named(s.db.WithContext(ctx).Create(&f).Error)
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
