package store

import (
	"context"
	"encoding/json"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"

	"epitrope/core/job"
)

// Find is what one job found on a vehicle of a model.
type Find struct {
	ID         int64 `gorm:"primaryKey"`
	WorkshopID string
	Model      string
	ModelKey   string `gorm:"->"`
	JobID      *string
	Document   json.RawMessage `gorm:"type:jsonb"`

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

// AddFind puts what a job found on a model into the vehicle book; what is there of it already counts once.
func (s *Store) AddFind(ctx context.Context, jobID, model string, found job.Document) error {
	return named(s.of(ctx).Transaction(func(tx *gorm.DB) error {
		if _, err := s.get(tx.Clauses(clause.Locking{Strength: "UPDATE"}), jobID); err != nil {
			return err
		}
		return s.putFind(tx, &jobID, model, found)
	}))
}

// PutFinds puts what a file says of models into the vehicle book, all or none; what is there of it already
// counts once.
func (s *Store) PutFinds(ctx context.Context, models []string, found []job.Document) error {
	return named(s.of(ctx).Transaction(func(tx *gorm.DB) error {
		for i := range models {
			if err := s.putFind(tx, nil, models[i], found[i]); err != nil {
				return err
			}
		}
		return nil
	}))
}

// putFind adds a find, unless the same was found, by the same job or by none, since an answer of the model was
// last taken out.
func (s *Store) putFind(tx *gorm.DB, jobID *string, model string, found job.Document) error {
	f := Find{WorkshopID: s.workshop, Model: model, JobID: jobID, Document: found.Encode(), Withdrawn: none}
	var same int64
	err := s.mine(tx).Model(&Find{}).Where("model_key = "+modelKey+" AND job_id IS NOT DISTINCT FROM ?::uuid AND document = "+
		"?::jsonb", model, jobID,
		string(f.Document)).
		Where("id > (SELECT coalesce(max(id), 0) FROM vehicle_finds WHERE workshop_id = ? AND model_key = "+modelKey+" AND withdrawn <> '[]')",
			s.workshop, model).Count(&same).Error
	if err != nil || same > 0 {
		return err
	}
	if err := tx.Create(&f).Error; err != nil {
		return err
	}
	return s.note(tx, jobID, "put into the vehicle book", model)
}

// modelKey is a model as it is compared: case and spaces do not matter.
const modelKey = `lower(regexp_replace(btrim(?), '\s+', ' ', 'g'))`

// none is a find that takes nothing out.
var none = json.RawMessage("[]")

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
	f := Find{WorkshopID: s.workshop, Model: finds[len(finds)-1].Model, Document: job.New().Encode(), Withdrawn: gone}
	return named(s.of(ctx).Transaction(func(tx *gorm.DB) error {
		if err := tx.Create(&f).Error; err != nil {
			return err
		}
		return s.note(tx, nil, "took out of the vehicle book", f.Model+", "+path)
	}))
}

// Finds returns what was found on a model, oldest first; all models where it is empty.
func (s *Store) Finds(ctx context.Context, model string) ([]Find, error) {
	q := s.own(ctx).Order("model_key, id")
	if model != "" {
		q = q.Where("model_key = "+modelKey, model)
	}
	var finds []Find
	err := q.Find(&finds).Error
	return finds, named(err)
}
