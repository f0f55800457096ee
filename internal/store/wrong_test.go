package store_test

import (
	"testing"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/internal/dbtest"
	"epitrope/internal/store"
)

// Attempts that queue for one row are let through in any order: one that came before the last that was counted has a clock
// that stands before it, and waits like the others.
func TestAnAttemptThatQueuedWaitsToo(t *testing.T) {
	address := dbtest.Address(t)
	s, err := store.Open(t.Context(), address)
	require.NoError(t, err)
	t.Cleanup(func() { _ = s.Close() })
	for range 5 {
		waits, err := s.Door().Wrong(t.Context(), "odile", 5, time.Hour)
		require.NoError(t, err)
		require.Zero(t, waits, "free")
	}
	db, err := pgx.Connect(t.Context(), address)
	require.NoError(t, err)
	t.Cleanup(func() { _ = db.Close(t.Context()) })
	_, err = db.Exec(t.Context(), "UPDATE door.wrongs SET last = now() + interval '1 second', until = now() + interval '1 hour'")
	require.NoError(t, err)
	waits, err := s.Door().Wrong(t.Context(), "odile", 5, time.Hour)
	require.NoError(t, err)
	assert.Greater(t, waits, 50*time.Minute)
}
