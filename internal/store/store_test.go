package store_test

import (
	"context"
	"errors"
	"sync"
	"testing"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/internal/dbtest"
	"epitrope/internal/store"
)

var ctx = context.Background()

func doc(t *testing.T, text string) job.Document {
	t.Helper()
	d, problems := job.Decode([]byte(text))
	require.Empty(t, problems)
	return d
}

func draft(t *testing.T, text string) store.Draft {
	t.Helper()
	return store.Draft{Document: doc(t, text)}
}

func TestSaveAndOpen(t *testing.T) {
	s := dbtest.Store(t)
	created, err := s.Create(ctx, "", draft(t, `{"title":"A","use":{"dailyAh":40}}`))
	require.NoError(t, err)
	assert.Equal(t, 1, created.Version)
	assert.Positive(t, created.Number)
	saved, err := s.Save(ctx, created.ID, 1, draft(t, `{"title":"B","use":{"dailyAh":40}}`))
	require.NoError(t, err)
	assert.Equal(t, 2, saved.Version)
	opened, err := s.Get(ctx, created.ID)
	require.NoError(t, err)
	assert.Equal(t, "B", opened.Doc().Title)
	assert.Equal(t, 40.0, *opened.Doc().Use.DailyAh)
	_, err = s.Get(ctx, "00000000-0000-0000-0000-000000000000")
	require.ErrorIs(t, err, store.ErrNotFound)
}

// A stale write is refused with what changed since the writer's version.
func TestStaleWriteSaysWhatChanged(t *testing.T) {
	s := dbtest.Store(t)
	j, err := s.Create(ctx, "", draft(t, `{"aux":{"capacityAh":100}}`))
	require.NoError(t, err)
	_, err = s.Save(ctx, j.ID, 1, draft(t, `{"aux":{"capacityAh":200}}`))
	require.NoError(t, err)
	_, err = s.Save(ctx, j.ID, 1, draft(t, `{"aux":{"capacityAh":100},"title":"mine"}`))
	var stale *store.Stale
	require.ErrorAs(t, err, &stale)
	assert.Equal(t, 2, stale.Current.Version)
	assert.Equal(t, []job.Change{{Path: "aux.capacityAh", Label: "Aux battery capacity", From: "100 Ah", To: "200 Ah"}}, stale.Changes)
	now, err := s.Get(ctx, j.ID)
	require.NoError(t, err)
	assert.Empty(t, now.Doc().Title, "nothing of the refused write is stored")
}

// A save whose answer was lost may be sent again.
func TestSaveAgainIsNoWrite(t *testing.T) {
	s := dbtest.Store(t)
	j, err := s.Create(ctx, "", store.Draft{Document: job.New()})
	require.NoError(t, err)
	for range 3 {
		saved, err := s.Save(ctx, j.ID, 1, draft(t, `{"title":"once"}`))
		require.NoError(t, err)
		assert.Equal(t, 2, saved.Version)
	}
}

// Of many writers on one version exactly one wins, and every other is told.
func TestManyWritersOneWins(t *testing.T) {
	s := dbtest.Store(t)
	j, err := s.Create(ctx, "", store.Draft{Document: job.New()})
	require.NoError(t, err)
	var wg sync.WaitGroup
	results := make([]error, 8)
	for i := range results {
		wg.Go(func() {
			d := job.New()
			d.Title = string(rune('A' + i))
			_, results[i] = s.Save(ctx, j.ID, 1, store.Draft{Document: d})
		})
	}
	wg.Wait()
	won := 0
	for _, err := range results {
		var stale *store.Stale
		if err == nil {
			won++
		} else {
			require.ErrorAs(t, err, &stale)
		}
	}
	assert.Equal(t, 1, won)
}

func TestDeletedJobsCanBePutBack(t *testing.T) {
	s := dbtest.Store(t)
	j, err := s.Create(ctx, "", draft(t, `{"title":"A"}`))
	require.NoError(t, err)
	require.NoError(t, s.Delete(ctx, j.ID))
	require.NoError(t, s.Delete(ctx, j.ID), "deleting twice is no error")
	var deleted *store.Deleted
	_, err = s.Get(ctx, j.ID)
	require.ErrorAs(t, err, &deleted)
	_, err = s.Save(ctx, j.ID, 1, store.Draft{Document: job.New()})
	require.ErrorAs(t, err, &deleted)
	list, more, err := s.List(ctx, "", store.Filter{}, store.Page{})
	require.NoError(t, err)
	assert.Empty(t, list)
	assert.False(t, more)
	require.NoError(t, s.Restore(ctx, j.ID))
	back, err := s.Get(ctx, j.ID)
	require.NoError(t, err)
	assert.Equal(t, "A", back.Doc().Title)
	require.ErrorIs(t, s.Delete(ctx, "00000000-0000-0000-0000-000000000000"), store.ErrNotFound)
}

func plain(j store.Job, r *store.Revision) error {
	r.Plan, r.Pack = j.Doc().Encode(), []byte("pack")
	return nil
}

// What was issued is kept whole, and the database itself refuses to change it.
func TestRevisionsAreAppendOnly(t *testing.T) {
	address := dbtest.Address(t)
	s, err := store.Open(ctx, address)
	require.NoError(t, err)
	defer s.Close()
	j, err := s.Create(ctx, "", draft(t, `{"title":"A"}`))
	require.NoError(t, err)
	first, err := s.Issue(ctx, j.ID, 1, plain)
	require.NoError(t, err)
	_, err = s.Save(ctx, j.ID, 1, draft(t, `{"title":"B"}`))
	require.NoError(t, err)
	again, err := s.Issue(ctx, j.ID, 1, plain)
	require.NoError(t, err)
	assert.Equal(t, 1, again.Number, "asked again, its answer lost: as it was issued")
	var stale *store.Stale
	_, err = s.Issue(ctx, j.ID, 7, plain)
	require.ErrorAs(t, err, &stale)
	second, err := s.Issue(ctx, j.ID, 2, plain)
	require.NoError(t, err)
	assert.Equal(t, []int{1, 2}, []int{first.Number, second.Number})
	kept, err := s.Revision(ctx, j.ID, 1)
	require.NoError(t, err)
	assert.Equal(t, "A", kept.Doc().Title)
	list, err := s.Revisions(ctx, j.ID)
	require.NoError(t, err)
	assert.Len(t, list, 2)
	_, err = s.Revision(ctx, j.ID, 3)
	require.ErrorIs(t, err, store.ErrNotFound)

	c, err := pgx.Connect(ctx, address)
	require.NoError(t, err)
	defer c.Close(ctx)
	for _, statement := range []string{"UPDATE job_revisions SET number = 7", "DELETE FROM job_revisions", "DELETE FROM job_saves",
		"TRUNCATE job_revisions", "UPDATE proof_entries SET entry = '14 V'", "DELETE FROM proof_entries", "DELETE FROM photos",
		"UPDATE signoffs SET by_whom = 'x'"} {
		_, err := c.Exec(ctx, statement)
		require.ErrorContains(t, err, "append-only", statement)
	}
}

// Several servers may start at once on an empty database.
func TestOpenAtOnce(t *testing.T) {
	address := dbtest.Address(t)
	var wg sync.WaitGroup
	for range 4 {
		wg.Go(func() {
			s, err := store.Open(ctx, address)
			if assert.NoError(t, err) {
				assert.NoError(t, s.Ping(ctx))
				assert.NoError(t, s.Close())
			}
		})
	}
	wg.Wait()
}

func TestNoDatabaseIsNamed(t *testing.T) {
	limited, cancel := context.WithTimeout(ctx, 20*time.Second)
	defer cancel()
	_, err := store.Open(limited, "postgres://nobody@127.0.0.1:1/none")
	require.True(t, errors.Is(err, store.ErrUnavailable), "%v", err)
}

// The vehicle book keeps every find; case and spaces of the model's name do not matter.
func TestVehicleBook(t *testing.T) {
	s := dbtest.Store(t)
	j, err := s.Create(ctx, "", draft(t, `{"vehicle":{"model":"Heron 3"}}`))
	require.NoError(t, err)
	for model, found := range map[string]string{"Heron 3": `{"alternator":{"label":"120 A"}}`, " heron  3 ": `{"vehicle":{"year":2019}}`,
		"Other": `{"alternator":{"label":"120 A"}}`} {
		require.NoError(t, s.AddFind(ctx, j.ID, model, doc(t, found)))
		require.NoError(t, s.AddFind(ctx, j.ID, model, doc(t, found)), "sent again, it counts once")
	}
	finds, err := s.Finds(ctx, "HERON 3")
	require.NoError(t, err)
	require.Len(t, finds, 2)
	assert.Equal(t, "120 A", *finds[1].Over(finds[0].Over(job.New())).Alternator.Label)
	all, err := s.Finds(ctx, "")
	require.NoError(t, err)
	assert.GreaterOrEqual(t, len(all), 3)
	require.Error(t, s.AddFind(ctx, j.ID, "", job.New()), "a model has a name")
	require.NoError(t, s.WithdrawAnswer(ctx, "Other", "alternator.label"))
	require.NoError(t, s.AddFind(ctx, j.ID, "Other", doc(t, `{"alternator":{"label":"120 A"}}`)))
	finds, err = s.Finds(ctx, "Other")
	require.NoError(t, err)
	assert.Len(t, finds, 3, "found again after it was taken out")
}

// The parts book holds the newest of each part; one that is withdrawn is gone from it, may
// come back, and every version stays.
func TestPartsBook(t *testing.T) {
	s, ctx := dbtest.Store(t), context.Background()
	rating := 30.0
	box := parts.Item{Kind: "charger", Name: "Bench  Box", RatingA: &rating}
	require.NoError(t, s.PutParts(ctx, []parts.Item{box, {Kind: "other", Name: "Tape"}}))
	box.Name, box.Remark = "bench box", "new sheet"
	require.NoError(t, s.PutParts(ctx, []parts.Item{box}))
	list, err := s.Parts(ctx)
	require.NoError(t, err)
	require.Len(t, list, 2)
	assert.Equal(t, box, list[0].Of(), "the newest")
	require.NoError(t, s.WithdrawPart(ctx, box.Key()))
	require.ErrorIs(t, s.WithdrawPart(ctx, box.Key()), store.ErrNotFound)
	require.ErrorIs(t, s.WithdrawPart(ctx, "charger/none"), store.ErrNotFound)
	list, err = s.Parts(ctx)
	require.NoError(t, err)
	require.Len(t, list, 1)
	require.NoError(t, s.PutParts(ctx, []parts.Item{box}))
	list, err = s.Parts(ctx)
	require.NoError(t, err)
	assert.Len(t, list, 2, "back again")
	require.NoError(t, s.PutParts(ctx, nil))
}
