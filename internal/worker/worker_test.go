package worker_test

import (
	"context"
	"encoding/json"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/study"
	"epitrope/internal/dbtest"
	"epitrope/internal/store"
	"epitrope/internal/worker"
)

// begin starts a worker and returns how to stop it and wait until it has.
func begin(s *store.Store) (stop func()) {
	ctx, cancel := context.WithCancel(context.Background())
	gone := make(chan struct{})
	go func() {
		defer close(gone)
		worker.Run(ctx, s, parts.Stock(), func() bool { return false })
	}()
	return func() { cancel(); <-gone }
}

func aJob(t *testing.T, s *store.Store, document string) (string, job.Document) {
	t.Helper()
	doc, problems := job.Decode([]byte(document))
	require.Empty(t, problems)
	j, err := s.Create(context.Background(), "", store.Draft{Document: doc})
	require.NoError(t, err)
	return j.ID, doc
}

func ask(t *testing.T, s *store.Store, id, kind string, what any, doc job.Document) store.Task {
	t.Helper()
	raw, err := json.Marshal(what)
	require.NoError(t, err)
	task, err := s.AddTask(context.Background(), "", id, kind, raw, doc)
	require.NoError(t, err)
	return task
}

func ended(t *testing.T, s *store.Store, id string) store.Task {
	t.Helper()
	var task store.Task
	require.Eventually(t, func() bool {
		var err error
		task, err = s.Task(context.Background(), id)
		require.NoError(t, err)
		return task.State != store.TaskWaiting && task.State != store.TaskRunning
	}, 90*time.Second, 50*time.Millisecond)
	return task
}

func runs(n int) study.Tolerances {
	t := study.Usual
	t.Runs = n
	return t
}

func TestTasksAreDone(t *testing.T) {
	s := dbtest.Store(t)
	id, doc := aJob(t, s, `{"day":{"days":1}}`)
	defer begin(s)()
	spread := ended(t, s, ask(t, s, id, "spread", runs(40), doc).ID)
	assert.Equal(t, store.TaskDone, spread.State, spread.Problem)
	var got study.Spread
	require.NoError(t, json.Unmarshal(spread.Result, &got))
	want, _ := study.SpreadOver(design.Of(doc, parts.Stock()), runs(40), nil)
	assert.Equal(t, want, got, "the same as in the foreground")
	sweep := ended(t, s, ask(t, s, id, "sweep", study.SweepRequest{Across: study.Axis{Path: "use.drivenHours", Values: []string{"1", "2"}},
		Up: study.Axis{Path: "use.dailyAh", Values: []string{"20", "40"}}}, doc).ID)
	assert.Equal(t, store.TaskDone, sweep.State, sweep.Problem)
	failed := ended(t, s, ask(t, s, id, "spread", runs(1), doc).ID)
	assert.Equal(t, store.TaskFailed, failed.State)
	assert.Contains(t, failed.Problem, "allowed: 20 to 1000")
}

// A task half done when its server closes is begun again by the next one and comes to
// the same.
func TestATaskSurvivesARestart(t *testing.T) {
	s := dbtest.Store(t)
	id, doc := aJob(t, s, `{"day":{"days":7}}`)
	stop := begin(s)
	task := ask(t, s, id, "spread", runs(120), doc)
	require.Eventually(t, func() bool {
		now, err := s.Task(context.Background(), task.ID)
		require.NoError(t, err)
		return now.Done > 0
	}, 60*time.Second, 20*time.Millisecond)
	stop()
	between, err := s.Task(context.Background(), task.ID)
	require.NoError(t, err)
	assert.Equal(t, store.TaskWaiting, between.State, "given back")
	defer begin(s)()
	done := ended(t, s, task.ID)
	assert.Equal(t, store.TaskDone, done.State, done.Problem)
	var got study.Spread
	require.NoError(t, json.Unmarshal(done.Result, &got))
	assert.Equal(t, 120, got.Runs)
}

// Stopped half-way, what was done is kept.
func TestATaskIsStopped(t *testing.T) {
	s := dbtest.Store(t)
	id, doc := aJob(t, s, `{"day":{"days":28}}`)
	defer begin(s)()
	task := ask(t, s, id, "spread", runs(1000), doc)
	require.Eventually(t, func() bool {
		now, err := s.Task(context.Background(), task.ID)
		require.NoError(t, err)
		return now.Done > 0
	}, 60*time.Second, 20*time.Millisecond)
	require.NoError(t, s.StopTask(context.Background(), task.ID))
	stopped := ended(t, s, task.ID)
	assert.Equal(t, store.TaskStopped, stopped.State)
	var got study.Spread
	require.NoError(t, json.Unmarshal(stopped.Result, &got))
	assert.False(t, got.Whole)
	assert.True(t, got.Runs > 0 && got.Runs < 1000)
}

// A task that panics has failed, by name and once; what waits behind it goes on.
func TestATaskThatPanicsFailsAlone(t *testing.T) {
	s := dbtest.Store(t)
	id, doc := aJob(t, s, `{"day":{"days":1}}`)
	sweep := study.SweepRequest{Across: study.Axis{Path: "routes.startM"}, Up: study.Axis{Path: "use.dailyAh"}}
	first := ask(t, s, id, "sweep", sweep, doc)
	ctx, cancel := context.WithCancel(context.Background())
	gone := make(chan struct{})
	go func() {
		defer close(gone)
		worker.Run(ctx, s, parts.Book{}, func() bool { return false }) // without cards nothing can be decided
	}()
	failed := ended(t, s, first.ID)
	assert.Equal(t, store.TaskFailed, failed.State)
	assert.Equal(t, 1, failed.Attempt)
	assert.Contains(t, failed.Problem, "could not be computed")
	second := ask(t, s, id, "sweep", sweep, doc)
	assert.Equal(t, store.TaskFailed, ended(t, s, second.ID).State, "the worker is still there")
	cancel()
	<-gone
}
