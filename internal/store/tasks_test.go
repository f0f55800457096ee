package store_test

import (
	"context"
	"encoding/json"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/job"
	"epitrope/internal/dbtest"
	"epitrope/internal/store"
)

func addTasks(t *testing.T, s *store.Store, count int) []store.Task {
	t.Helper()
	j, err := s.Create(context.Background(), "", store.Draft{Document: job.New()})
	require.NoError(t, err)
	list := make([]store.Task, count)
	for i := range list {
		list[i], err = s.AddTask(context.Background(), "", j.ID, "spread", json.RawMessage(`{}`), job.New())
		require.NoError(t, err)
	}
	return list
}

// Many workers: each task is claimed once.
func TestEachTaskIsClaimedOnce(t *testing.T) {
	s := dbtest.Store(t)
	for range 8 {
		addTasks(t, s, 5)
	}
	var mutex sync.Mutex
	claimed := map[string]int{}
	var wait sync.WaitGroup
	for range 8 {
		wait.Go(func() {
			for {
				task, ok, err := s.ClaimTask(context.Background())
				assert.NoError(t, err)
				if !ok {
					return
				}
				mutex.Lock()
				claimed[task.ID]++
				mutex.Unlock()
			}
		})
	}
	wait.Wait()
	require.Len(t, claimed, 40)
	for id, n := range claimed {
		assert.Equal(t, 1, n, id)
	}
}

// A worker that lost its task cannot end it, and is told so.
func TestALostTaskIsLeftAlone(t *testing.T) {
	s := dbtest.Store(t)
	addTasks(t, s, 1)
	ctx := context.Background()
	first, ok, err := s.ClaimTask(ctx)
	require.NoError(t, err)
	require.True(t, ok)
	require.NoError(t, s.ReleaseTask(ctx, first))
	second, ok, err := s.ClaimTask(ctx)
	require.NoError(t, err)
	require.True(t, ok)
	stale := first
	stale.Attempt = second.Attempt + 7
	_, lost, err := s.Heard(ctx, stale, 1, 2)
	require.NoError(t, err)
	assert.True(t, lost)
	require.NoError(t, s.EndTask(ctx, stale, store.TaskDone, json.RawMessage(`{}`), ""))
	now, err := s.Task(ctx, first.ID)
	require.NoError(t, err)
	assert.Equal(t, store.TaskRunning, now.State)
	stop, lost, err := s.Heard(ctx, second, 3, 9)
	require.NoError(t, err)
	assert.False(t, stop || lost)
	require.NoError(t, s.StopTask(ctx, second.ID))
	stop, _, err = s.Heard(ctx, second, 4, 9)
	require.NoError(t, err)
	assert.True(t, stop)
}

func TestTasksOfAJob(t *testing.T) {
	s := dbtest.Store(t)
	ctx := context.Background()
	list := addTasks(t, s, 3)
	got, err := s.Tasks(ctx, list[0].JobID)
	require.NoError(t, err)
	require.Len(t, got, 3)
	require.NoError(t, s.StopTask(ctx, list[0].ID), "one that waits stops at once")
	now, err := s.Task(ctx, list[0].ID)
	require.NoError(t, err)
	assert.Equal(t, store.TaskStopped, now.State)
	assert.NotNil(t, now.EndedAt)
	require.NoError(t, s.StopTask(ctx, list[0].ID), "and may be asked again")
	require.ErrorIs(t, s.StopTask(ctx, "00000000-0000-0000-0000-000000000000"), store.ErrNoTask)
	_, err = s.AddTask(ctx, "", "00000000-0000-0000-0000-000000000000", "spread", json.RawMessage(`{}`), job.New())
	require.ErrorIs(t, err, store.ErrNotFound)
}
