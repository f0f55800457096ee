package store_test

import (
	"context"
	"math/rand/v2"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/internal/dbtest"
	"epitrope/internal/store"

	"epitrope/core/job"
)

// Who leaves in the middle of a request takes its connection with them, and nobody else's answer.
func TestWhoLeavesInTheMiddleHarmsNobody(t *testing.T) {
	s := dbtest.Store(t)
	odile := s.As(dbtest.Begun(t, s, store.FirstWorkshop, "angstrom-sohne"))
	j, err := odile.Create(t.Context(), "", store.Draft{Document: job.New()})
	require.NoError(t, err)
	var working sync.WaitGroup
	for range 4 {
		working.Go(func() {
			for range 300 {
				ctx, leave := context.WithTimeout(context.Background(), time.Duration(rand.IntN(3000))*time.Microsecond)
				_, _ = odile.Here(ctx, j.ID, uuid.NewString()) // whatever becomes of it
				leave()
			}
		})
	}
	for range 3 {
		working.Go(func() {
			for range 400 {
				_, err := odile.Get(context.Background(), j.ID)
				if !assert.NoError(t, err) {
					return
				}
			}
		})
	}
	working.Wait()
}
