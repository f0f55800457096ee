package store_test

import (
	"context"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/job"
	"epitrope/internal/dbtest"
	"epitrope/internal/people"
	"epitrope/internal/store"
)

// next is the next change that is told.
func next(t *testing.T, of <-chan store.Change) store.Change {
	t.Helper()
	select {
	case c := <-of:
		return c
	case <-time.After(20 * time.Second):
		require.Fail(t, "nothing was told")
	}
	return store.Change{}
}

// What changes is told on every server of a database, to its own workshop alone, and again after the database was away.
func TestChangesAreTold(t *testing.T) {
	address := dbtest.Address(t)
	open := func() *store.Store {
		s, err := store.Open(t.Context(), address)
		require.NoError(t, err)
		t.Cleanup(func() { assert.NoError(t, s.Close()) })
		return s
	}
	one, two := open(), open()
	here := dbtest.Begun(t, one, store.FirstWorkshop, "angstrom-sohne")
	elsewhere := dbtest.Workshop(t, one, "weir-shed")
	ctx, stop := context.WithCancel(t.Context())
	told, foreign := two.As(here).Changes(ctx), two.As(elsewhere).Changes(ctx)
	assert.Equal(t, store.Change{}, next(t, told), "anything may have changed before")
	assert.Equal(t, store.Change{}, next(t, foreign))

	j, err := one.As(here).Create(ctx, "", store.Draft{Document: job.New()})
	require.NoError(t, err)
	first := next(t, told)
	if first == (store.Change{}) { // who listens first is told so by both
		first = next(t, told)
	}
	assert.Equal(t, store.Change{What: "job", Job: j.ID}, first)
	require.NoError(t, one.As(here).AddTicks(ctx, j.ID, []store.Tick{{ID: uuid.NewString(), Step: "hand", Done: true, ByWhom: "O",
		TickedAt: time.Now()}}))
	assert.Equal(t, store.Change{What: "ticks", Job: j.ID}, next(t, told))
	require.NoError(t, one.As(here).Delete(ctx, j.ID))
	assert.Equal(t, store.Change{What: "job", Job: j.ID}, next(t, told))
	for range len(foreign) {
		assert.Equal(t, store.Change{}, <-foreign, "another workshop hears nothing of it")
	}

	admin, err := pgx.Connect(ctx, address)
	require.NoError(t, err)
	_, err = admin.Exec(ctx,
		"SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = current_database() AND query LIKE 'LISTEN%'")
	require.NoError(t, err)
	require.NoError(t, admin.Close(ctx))
	assert.Equal(t, store.Change{}, next(t, told), "anything may have changed while it was away")
	stop()
}

// Who has a job open is known to whoever has it open too, until they close it, and to no other workshop.
func TestWhoIsHere(t *testing.T) {
	s := dbtest.Store(t)
	odile := dbtest.Begun(t, s, store.FirstWorkshop, "angstrom-sohne")
	teo := dbtest.Joined(t, s, odile, people.Installer, "Teo", "")
	j, err := s.As(odile).Create(t.Context(), "", store.Draft{Document: job.New()})
	require.NoError(t, err)
	page, other := uuid.NewString(), uuid.NewString()
	list, err := s.As(odile).Here(t.Context(), j.ID, page)
	require.NoError(t, err)
	require.Len(t, list, 1)
	list, err = s.As(teo).Here(t.Context(), j.ID, other)
	require.NoError(t, err)
	require.Len(t, list, 2)
	assert.Equal(t, "Teo", list[1].Name)
	require.NoError(t, s.As(odile).Left(t.Context(), j.ID, other), "nobody closes another's window")
	require.NoError(t, s.As(teo).Left(t.Context(), j.ID, other))
	list, err = s.As(odile).Here(t.Context(), j.ID, page)
	require.NoError(t, err)
	require.Len(t, list, 1)
	_, err = s.As(dbtest.Workshop(t, s, "weir-shed")).Here(t.Context(), j.ID, page)
	require.ErrorIs(t, err, store.ErrNotFound)
}
