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

// Task is long work in the background, for a job's document as it was asked.
type Task struct {
	ID         string `gorm:"primaryKey;default:gen_random_uuid()"`
	WorkshopID string
	JobID      string
	Kind       string
	Ask        json.RawMessage `gorm:"type:jsonb"`
	Document   json.RawMessage `gorm:"type:jsonb"`
	State      string          `gorm:"default:waiting"`
	Stop       bool
	Attempt    int
	Done       int
	Total      int
	Result     json.RawMessage `gorm:"type:jsonb"`
	Problem    string
	AskedAt    time.Time `gorm:"default:now()"`
	HeardAt    time.Time `gorm:"default:now()"`
	EndedAt    *time.Time
	MadeAs     *string
}

// The states of a task.
const (
	TaskWaiting = "waiting"
	TaskRunning = "running"
	TaskDone    = "done"
	TaskStopped = "stopped"
	TaskFailed  = "failed"
)

// ErrNoTask is a task that there is not.
var ErrNoTask = errors.New("there is no such task")

// silence is how long a worker may not be heard of before another takes its task; and
// tries how often a task is begun before it is given up: a server that it brings down is not brought down for ever.
const (
	silence = "10 seconds"
	tries   = 3
)

// Doc reads the document that the task is about.
func (t Task) Doc() job.Document { return decode(t.Document) }

// mostOpen is how many tasks of a job may wait or run.
const mostOpen = 8

// ErrBusy is a job with as many tasks under way as it may have.
var ErrBusy = fmt.Errorf("%d tasks of this job are waiting or running; wait for one to end, or stop one", mostOpen)

// AddTask stores a task for a job. Where as, a name that the sender gave it, was made already, that task comes
// back. It returns ErrBusy where the job has too many under way.
func (s *Store) AddTask(ctx context.Context, as, jobID, kind string, ask json.RawMessage, doc job.Document) (Task, error) {
	t := Task{WorkshopID: s.workshop, JobID: jobID, Kind: kind, Ask: ask, Document: doc.Encode(), MadeAs: optional(as)}
	err := s.of(ctx).Transaction(func(tx *gorm.DB) error {
		if _, err := s.get(tx.Clauses(clause.Locking{Strength: "UPDATE"}), jobID); err != nil {
			return err
		}
		var before []Task
		if as != "" {
			if err := s.mine(tx).Where("made_as = ?", as).Limit(1).Find(&before).Error; err != nil {
				return err
			}
		}
		if len(before) > 0 {
			t = before[0]
			return nil
		}
		var open int64
		if err := s.mine(tx).Model(&Task{}).Where("job_id = ? AND state IN ('waiting', 'running')", jobID).Count(&open).Error; err != nil {
			return err
		}
		if open >= mostOpen {
			return ErrBusy
		}
		return tx.Omit("result").Clauses(clause.Returning{}).Create(&t).Error
	})
	return t, named(err)
}

// Task returns a task. It returns ErrNoTask.
func (s *Store) Task(ctx context.Context, id string) (Task, error) {
	var t Task
	err := s.own(ctx).Where("id = ?", id).Take(&t).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return t, ErrNoTask
	}
	return t, named(err)
}

// Tasks lists a job's newest tasks, newest first, without what they came to.
func (s *Store) Tasks(ctx context.Context, jobID string) ([]Task, error) {
	var list []Task
	err := s.own(ctx).Omit("result").Where("job_id = ?", jobID).Order("asked_at DESC").Limit(10).Find(&list).Error
	return list, named(err)
}

// StopTask asks a task to stop; one that waits stops at once.
func (s *Store) StopTask(ctx context.Context, id string) error {
	tx := s.of(ctx).Exec(`UPDATE tasks SET stop = true,
		state = CASE WHEN state = 'waiting' THEN 'stopped' ELSE state END,
		ended_at = CASE WHEN state = 'waiting' THEN now() ELSE ended_at END
		WHERE workshop_id = ? AND id = ? AND state IN ('waiting', 'running')`, s.workshop, id)
	if tx.Error != nil || tx.RowsAffected > 0 {
		return named(tx.Error)
	}
	_, err := s.Task(ctx, id) // one that has ended is left as it is
	return err
}

// ClaimTask takes a task of any workshop that waits, or whose worker has gone silent: the oldest of those that
// have the fewest of their own job before them, so that one job's many hold up nobody. ok is false where there
// is none.
func (s *Store) ClaimTask(ctx context.Context) (t Task, ok bool, err error) {
	err = s.all.WithContext(ctx).Raw(`UPDATE tasks SET state = 'running', attempt = attempt + 1, done = 0, heard_at = now()
		WHERE id = (
			SELECT t.id FROM tasks t JOIN (
				SELECT id, row_number() OVER (PARTITION BY workshop_id, job_id ORDER BY state = 'waiting', asked_at) AS turn
				FROM tasks WHERE state IN ('waiting', 'running')) turns USING (id)
			WHERE t.state = 'waiting' OR t.state = 'running' AND t.heard_at < now() - interval '` + silence + `'
			ORDER BY turns.turn, t.asked_at FOR UPDATE OF t SKIP LOCKED LIMIT 1)
		RETURNING *`).Scan(&t).Error
	if err != nil || t.ID == "" {
		return Task{}, false, named(err)
	}
	if t.Attempt > tries {
		return Task{}, false, s.EndTask(ctx, t, TaskFailed, nil, "it was begun several times and never came to an end")
	}
	return t, true, nil
}

// Heard says that a task's worker is alive and how far it is. stop says that somebody
// asked it to stop; lost that another worker has it now.
func (s *Store) Heard(ctx context.Context, t Task, done, total int) (stop, lost bool, err error) {
	var rows []struct{ Stop bool }
	err = s.all.WithContext(ctx).Raw(`UPDATE tasks SET heard_at = now(), done = ?, total = ?
		WHERE id = ? AND attempt = ? AND state = 'running' RETURNING stop`, done, total, t.ID, t.Attempt).Scan(&rows).Error
	if err != nil {
		return false, false, named(err)
	}
	if len(rows) == 0 {
		return false, true, nil
	}
	return rows[0].Stop, false, nil
}

// EndTask stores what a task came to. One that another worker has taken is left to it.
func (s *Store) EndTask(ctx context.Context, t Task, state string, result json.RawMessage, problem string) error {
	changes := map[string]any{"state": state, "problem": problem, "ended_at": gorm.Expr("now()")}
	if result != nil {
		changes["result"] = result
	}
	err := s.all.WithContext(ctx).Model(&Task{}).Where("id = ? AND attempt = ? AND state = 'running'", t.ID, t.Attempt).Updates(changes).Error
	return named(err)
}

// ReleaseTask gives a task back, for another worker to begin again: its own is closing.
func (s *Store) ReleaseTask(ctx context.Context, t Task) error {
	err := s.all.WithContext(ctx).Exec(`UPDATE tasks SET state = 'waiting', attempt = attempt - 1
WHERE id = ? AND attempt = ? AND state = 'running'`, t.ID, t.Attempt).Error
	return named(err)
}
