package store

import (
	"context"
	"time"

	"gorm.io/gorm/clause"
)

// Tick is a step of a job that somebody ticked, or took the tick off.
type Tick struct {
	ID         string `gorm:"primaryKey"`
	JobID      string
	Step       string
	Done       bool
	ByWhom     string
	Note       string
	TickedAt   time.Time
	ReceivedAt time.Time `gorm:"default:now()"`
}

// TableName is the ticks' table.
func (Tick) TableName() string { return "step_ticks" }

// AddTicks keeps ticks of a job. One that is there already, by its id, counts once.
func (s *Store) AddTicks(ctx context.Context, jobID string, ticks []Tick) error {
	if _, err := s.Get(ctx, jobID); err != nil {
		return err
	}
	if len(ticks) == 0 {
		return nil
	}
	for i := range ticks {
		ticks[i].JobID = jobID
	}
	return named(s.db.WithContext(ctx).Clauses(clause.OnConflict{DoNothing: true}).Create(&ticks).Error)
}

// Ticks are all ticks of a job, in the order of time.
func (s *Store) Ticks(ctx context.Context, jobID string) ([]Tick, error) {
	if _, err := s.Get(ctx, jobID); err != nil {
		return nil, err
	}
	var ticks []Tick
	err := s.db.WithContext(ctx).Where("job_id = ?", jobID).Order("ticked_at, id").Find(&ticks).Error
	return ticks, named(err)
}
