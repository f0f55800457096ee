// Package worker does the long work that waits in the store, one task at a time on all
// processors. It may be stopped at any moment: what it had begun is begun again by
// whoever runs next.
package worker

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"runtime/debug"
	"sync/atomic"
	"time"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/study"
	"epitrope/internal/store"
)

// How often the store is asked for work, and told how far it is.
const (
	lookEvery = 300 * time.Millisecond
	tellEvery = 400 * time.Millisecond
)

// Run works until ctx ends. While busy says that people are at work it takes no more than a share of one
// processor.
func Run(ctx context.Context, s *store.Store, book parts.Book, busy func() bool) {
	look := time.NewTicker(lookEvery)
	defer look.Stop()
	for {
		t, ok, err := s.ClaimTask(ctx)
		switch {
		case ctx.Err() != nil:
			return
		case err != nil:
			slog.Warn("no task could be claimed", "error", err)
		case ok:
			do(ctx, s, book, t, busy)
			continue // there may be more
		}
		select {
		case <-ctx.Done():
			return
		case <-look.C:
		}
	}
}

// longest is how long a task may work: what was done until then is its result.
const longest = 20 * time.Minute

// asked is a task that its work can ask whether to go on.
type asked struct {
	busy                func() bool
	until               time.Time    // it may work so long
	last                atomic.Int64 // when a piece of it ended, in ns
	done, total         atomic.Int64
	stop, lost, closing atomic.Bool
}

func (a *asked) progress(done, of int) bool {
	a.total.Store(int64(of))
	for {
		seen := a.done.Load()
		if int64(done) <= seen || a.done.CompareAndSwap(seen, int64(done)) {
			break
		}
	}
	a.makeRoom()
	return time.Now().Before(a.until) && !a.stop.Load() && !a.lost.Load() && !a.closing.Load()
}

// How long the work rests while people are at work: so many times as long as a piece of it took, and no longer.
const (
	restsTimes = 3
	restsMost  = 300 * time.Millisecond
)

// makeRoom lets people's requests go first.
func (a *asked) makeRoom() {
	now := time.Now().UnixNano()
	took := time.Duration(now - a.last.Swap(now))
	if a.busy() {
		time.Sleep(min(restsTimes*took, restsMost))
		a.last.Store(time.Now().UnixNano())
	}
}

// do does one task, and keeps the store informed meanwhile.
func do(ctx context.Context, s *store.Store, book parts.Book, t store.Task, busy func() bool) {
	a := asked{busy: busy, until: time.Now().Add(longest)}
	a.last.Store(time.Now().UnixNano())
	told := make(chan struct{})
	finished := make(chan struct{})
	go func() {
		defer close(told)
		tell(ctx, s, t, &a, finished)
	}()
	set, _, err := s.Of(t.WorkshopID).Settings(ctx)
	if err != nil {
		slog.Warn("the settings could not be read", "error", err)
	}
	book.Habits = set.Stands()
	result, err := work(t, book, a.progress)
	close(finished)
	<-told

	// The store is told how it ended even while the server is closing.
	ending, cancel := context.WithTimeout(context.WithoutCancel(ctx), 5*time.Second)
	defer cancel()
	switch {
	case a.lost.Load():
		return
	case err != nil:
		err = s.EndTask(ending, t, store.TaskFailed, nil, err.Error())
	case a.stop.Load():
		err = s.EndTask(ending, t, store.TaskStopped, result, "")
	case !time.Now().Before(a.until):
		err = s.EndTask(ending, t, store.TaskStopped, result,
			fmt.Sprintf("it took longer than %.0f min, which is as long as one may", longest.Minutes()))
	case a.closing.Load():
		err = s.ReleaseTask(ending, t)
	default:
		err = s.EndTask(ending, t, store.TaskDone, result, "")
	}
	if err != nil {
		slog.Error("a task's end could not be stored", "task", t.ID, "error", err)
	}
}

func tell(ctx context.Context, s *store.Store, t store.Task, a *asked, finished <-chan struct{}) {
	every := time.NewTicker(tellEvery)
	defer every.Stop()
	for {
		select {
		case <-finished:
			return
		case <-ctx.Done():
			a.closing.Store(true)
			return
		case <-every.C:
			stop, lost, err := s.Heard(ctx, t, int(a.done.Load()), int(a.total.Load()))
			if err != nil {
				continue // the database is away: the work goes on
			}
			if stop {
				a.stop.Store(true)
			}
			if lost {
				a.lost.Store(true)
			}
		}
	}
}

// errFell is a task that could not be done on this document, whoever tries.
var errFell = errors.New("this could not be computed for these answers; what was answered is kept, and it is not tried again")

// work does what a task asks for. What panics fails by itself: it is named, and the rest goes on.
func work(t store.Task, book parts.Book, progress study.Progress) (result json.RawMessage, err error) {
	defer func() {
		if p := recover(); p != nil {
			slog.Error("a task panicked", "task", t.ID, "kind", t.Kind, "panic", fmt.Sprint(p), "stack", string(debug.Stack()))
			result, err = nil, errFell
		}
	}()
	return answer(t, book, progress)
}

func answer(t store.Task, book parts.Book, progress study.Progress) (json.RawMessage, error) {
	var result any
	var problems job.Problems
	switch t.Kind {
	case "sweep":
		var ask study.SweepRequest
		if err := json.Unmarshal(t.Ask, &ask); err != nil {
			return nil, err
		}
		result, problems = study.SweepOver(design.Of(t.Doc(), book), ask, progress)
	case "spread":
		var ask study.Tolerances
		if err := json.Unmarshal(t.Ask, &ask); err != nil {
			return nil, err
		}
		result, problems = study.SpreadOver(design.Of(t.Doc(), book), ask, progress)
	default:
		return nil, fmt.Errorf("%q is not known", t.Kind)
	}
	if len(problems) > 0 {
		return nil, errors.New(problems.Error())
	}
	return json.Marshal(result)
}
