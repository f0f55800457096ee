package store

import (
	"context"
	"time"

	"gorm.io/gorm/clause"
)

// Tick is a step of a job that somebody ticked, or took the tick off.
type Tick struct {
	ID         string `gorm:"primaryKey"`
	WorkshopID string
	JobID      string
	Step       string
	Done       bool
	ByWhom     string
	PersonID   *string
	Awaits     bool // a countersignature
	Note       string
	TickedAt   time.Time
	Usual      float64   `gorm:"column:usual_minutes"`
	ReceivedAt time.Time `gorm:"default:now()"`
	Arrived    int64     `gorm:"->"` // in which order the server got them, which decides
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
		ticks[i].WorkshopID, ticks[i].JobID = s.workshop, jobID
	}
	return named(s.of(ctx).Clauses(clause.OnConflict{DoNothing: true}).Create(&ticks).Error)
}

// Ticks are all ticks of a job, in the order in which they came.
func (s *Store) Ticks(ctx context.Context, jobID string) ([]Tick, error) {
	if _, err := s.Get(ctx, jobID); err != nil {
		return nil, err
	}
	var ticks []Tick
	err := s.own(ctx).Where("job_id = ?", jobID).Order("arrived").Find(&ticks).Error
	return ticks, named(err)
}

// mostPast is how many ticks of past jobs a pace is learned from, the newest.
const mostPast = 5000

// PastTicks are the newest ticks of all jobs that say that something was done, and how long
// it was thought to take, by job in the order of time.
func (s *Store) PastTicks(ctx context.Context) ([]Tick, error) {
	var ticks []Tick
	err := s.of(ctx).Raw(`SELECT * FROM (SELECT * FROM step_ticks
WHERE workshop_id = ? AND done AND usual_minutes > 0 ORDER BY arrived DESC LIMIT ?) newest
ORDER BY job_id, ticked_at`, s.workshop, mostPast).Scan(&ticks).Error
	return ticks, named(err)
}
