package store_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/job"
	"epitrope/internal/dbtest"
	"epitrope/internal/store"
)

// Every job stands once on the pages of the list, the last saved first, however many were saved meanwhile.
func TestPagesOfTheList(t *testing.T) {
	s := dbtest.Store(t)
	const count = 2*store.PageSize + 7
	for i := range count {
		_, err := s.Create(ctx, "", store.Draft{Document: job.New(), Listing: store.Listing{Title: fmt.Sprintf("Job %d", i)}})
		require.NoError(t, err)
	}
	seen := map[int64]bool{}
	var page store.Page
	for pages := 1; ; pages++ {
		jobs, more, err := s.List(ctx, "", store.Filter{}, page)
		require.NoError(t, err)
		for i, j := range jobs {
			assert.False(t, seen[j.Number], "%d stands twice", j.Number)
			seen[j.Number] = true
			if i > 0 {
				assert.False(t, j.SavedAt.After(jobs[i-1].SavedAt))
			}
		}
		if !more {
			assert.Equal(t, 3, pages)
			break
		}
		page = store.Page{SavedAt: jobs[len(jobs)-1].SavedAt, Number: jobs[len(jobs)-1].Number}
		_, err = s.Create(ctx, "", store.Draft{Document: job.New()})
		require.NoError(t, err)
	}
	assert.Len(t, seen, count)
}

// A job is found by words of what it is called, as far as they are typed: whatever their case and accents.
func TestSearchAsTyped(t *testing.T) {
	s := dbtest.Store(t)
	for _, l := range []store.Listing{{Title: "Bücherbus, zweite Batterie", Customer: "Plover & Söhne"}, {Title: "100 % solar",
		Vehicle: "van"},
		{Title: "Tray ute", Customer: "Kestrel_Plumbing", Words: "SN-77120 L24B"}} {
		_, err := s.Create(ctx, "", store.Draft{Document: job.New(), Listing: l})
		require.NoError(t, err)
	}
	for search, want := range map[string][]string{
		"bucher": {"Bücherbus, zweite Batterie"}, "BÜCHER plov": {"Bücherbus, zweite Batterie"}, "batt": {"Bücherbus, zweite Batterie"},
		"t": {"Tray ute"}, "te": nil, "ray": {"Tray ute"}, "100 %": {"100 % solar"}, "%": {"100 % solar"}, "l_p": {"Tray ute"},
		"l\\": nil, "2": {"100 % solar"}, "0003": {"Tray ute"}, "nothing": nil,
		"sn-77120": {"Tray ute"}, "l24": {"Tray ute"}, "  ": {"Tray ute", "100 % solar", "Bücherbus, zweite Batterie"},
	} {
		jobs, _, err := s.List(ctx, search, store.Filter{}, store.Page{})
		require.NoError(t, err, search)
		var titles []string
		for _, j := range jobs {
			titles = append(titles, j.Title)
		}
		assert.Equal(t, want, titles, "%q", search)
	}
}

// What is due comes by its day, a page at a time, of jobs that are there; what stands in a bay by its days.
func TestDatesOfAllJobs(t *testing.T) {
	s := dbtest.Store(t)
	date := func(key, kind, due, until string, open bool) store.Date {
		return store.Date{Key: key, Kind: kind, What: "w", Due: due, Until: until, Open: open}
	}
	made := func(dates ...store.Date) store.Job {
		j, err := s.Create(ctx, "", store.Draft{Document: doc(t, `{"dates":{"a":{"due":"2031-03-30"}}}`),
			Listing: store.Listing{Title: "T", Dates: dates}})
		require.NoError(t, err)
		return j
	}
	first := made(date("a", "revisit", "2031-03-30", "2031-03-30", true), date("b", "fit", "2031-03-03", "2031-03-09", true))
	made(date("a", "topup", "2031-03-01", "2031-03-01", false), date("c", "fit", "2031-03-10", "2031-03-10", true))
	gone := made(date("x", "revisit", "2031-03-02", "2031-03-02", true))
	require.NoError(t, s.Delete(ctx, gone.ID))

	due, more, err := s.Due(ctx, "2031-03-30", store.DuePage{})
	require.NoError(t, err)
	assert.False(t, more)
	keys := []string{}
	for _, d := range due {
		keys = append(keys, d.Key+" "+d.Due)
	}
	assert.Equal(t, []string{"b 2031-03-03", "c 2031-03-10", "a 2031-03-30"}, keys)
	rest, _, err := s.Due(ctx, "2031-03-30", store.DuePage{Due: due[0].Due, JobID: due[0].JobID, Key: due[0].Key})
	require.NoError(t, err)
	assert.Len(t, rest, 2)

	for days, want := range map[[2]string]int{{"2031-03-09", "2031-03-09"}: 1, {"2031-03-09", "2031-03-10"}: 2, {"2031-03-11",
		"2031-03-17"}: 0} {
		list, err := s.InBays(ctx, days[0], days[1])
		require.NoError(t, err)
		assert.Len(t, list, want, "%v", days)
	}

	// A save puts others in their place.
	_, err = s.Save(ctx, first.ID, 1, draft(t, `{"title":"no dates"}`))
	require.NoError(t, err)
	due, _, err = s.Due(ctx, "2031-12-31", store.DuePage{})
	require.NoError(t, err)
	assert.Len(t, due, 1)
}

// What other rules listed is found, once; a listing made of an older draft is not stored.
func TestListingsAreRenewed(t *testing.T) {
	s := dbtest.Store(t)
	j, err := s.Create(ctx, "", store.Draft{Document: job.New(), Listing: store.Listing{ListedBy: "old"}})
	require.NoError(t, err)
	list, err := s.Unlisted(ctx, "new", 5)
	require.NoError(t, err)
	require.Len(t, list, 1)
	_, err = s.Save(ctx, j.ID, 1, store.Draft{Document: doc(t, `{"title":"B"}`), Listing: store.Listing{Title: "B", ListedBy: "old"}})
	require.NoError(t, err)
	require.NoError(t, s.Relist(ctx, list[0], store.Listing{Title: "A", ListedBy: "new"}))
	list, err = s.Unlisted(ctx, "new", 5)
	require.NoError(t, err)
	require.Len(t, list, 1, "the draft is another by now")
	require.NoError(t, s.Relist(ctx, list[0], store.Listing{Title: "B", ListedBy: "new"}))
	list, err = s.Unlisted(ctx, "new", 5)
	require.NoError(t, err)
	assert.Empty(t, list)
}

// What is sent again, because its answer was lost, is made once; a name is not used for two things.
func TestMadeOnce(t *testing.T) {
	s := dbtest.Store(t)
	first, err := s.Create(ctx, "key", draft(t, `{"title":"A"}`))
	require.NoError(t, err)
	_, err = s.Save(ctx, first.ID, 1, draft(t, `{"title":"changed since"}`))
	require.NoError(t, err)
	again, err := s.Create(ctx, "key", draft(t, `{"title":"A"}`))
	require.NoError(t, err)
	assert.Equal(t, first.ID, again.ID)
	assert.Equal(t, 2, again.Version, "as it is by now")
	var reused *store.Reused
	_, err = s.Create(ctx, "key", draft(t, `{"title":"other"}`))
	require.ErrorAs(t, err, &reused)
	task, err := s.AddTask(ctx, "key", first.ID, "spread", []byte(`{}`), job.New())
	require.NoError(t, err)
	same, err := s.AddTask(ctx, "key", first.ID, "spread", []byte(`{}`), job.New())
	require.NoError(t, err)
	assert.Equal(t, task.ID, same.ID)
}

// A window whose answer was lost goes on from what it had; it is in conflict with others alone.
func TestNoConflictWithOneself(t *testing.T) {
	s := dbtest.Store(t)
	by := func(window, text string) store.Draft { return store.Draft{Document: doc(t, text), By: window} }
	j, err := s.Create(ctx, "", draft(t, `{"title":"A"}`))
	require.NoError(t, err)
	_, err = s.Save(ctx, j.ID, 1, by("w1", `{"title":"AB"}`))
	require.NoError(t, err, "and the answer is lost")
	saved, err := s.Save(ctx, j.ID, 1, by("w1", `{"title":"ABC"}`))
	require.NoError(t, err)
	assert.Equal(t, 3, saved.Version)
	var stale *store.Stale
	_, err = s.Save(ctx, j.ID, 1, by("w2", `{"title":"X"}`))
	require.ErrorAs(t, err, &stale)
	_, err = s.Save(ctx, j.ID, 3, by("w2", `{"title":"X"}`))
	require.NoError(t, err)
	_, err = s.Save(ctx, j.ID, 1, by("w1", `{"title":"ABCD"}`))
	require.ErrorAs(t, err, &stale, "somebody else saved in between")
}

// One job's many tasks hold up nobody, and a job may not have more than so many.
func TestTasksAreFair(t *testing.T) {
	s := dbtest.Store(t)
	many, other := addTasks(t, s, 8), addTasks(t, s, 1)
	_, err := s.AddTask(ctx, "", many[0].JobID, "spread", []byte(`{}`), job.New())
	require.ErrorIs(t, err, store.ErrBusy)
	first, ok, err := s.ClaimTask(ctx)
	require.NoError(t, err)
	require.True(t, ok)
	assert.Equal(t, many[0].ID, first.ID)
	second, _, err := s.ClaimTask(ctx)
	require.NoError(t, err)
	assert.Equal(t, other[0].ID, second.ID)
}

// A save by the usual way, in one statement, stores what the long way does.
func TestBothWaysOfSaving(t *testing.T) {
	s := dbtest.Store(t)
	listing := store.Listing{Title: "Überholt", Customer: "Teal", Vehicle: "van", Summary: "s", Weakest: "w", Severity: "caution",
		Settled:  "4 of 20",
		ListedBy: "r"}
	stored := func(before, after string) store.Job {
		j, err := s.Create(ctx, "", draft(t, before))
		require.NoError(t, err)
		saved, err := s.Save(ctx, j.ID, 1, store.Draft{Document: doc(t, after), Listing: listing, By: "w1"})
		require.NoError(t, err)
		assert.Equal(t, 2, saved.Version)
		assert.Equal(t, j.Number, saved.Number)
		assert.False(t, saved.SavedAt.Before(j.SavedAt))
		found, _, err := s.List(ctx, fmt.Sprintf("uberh %04d", j.Number), store.Filter{}, store.Page{})
		require.NoError(t, err)
		require.Len(t, found, 1)
		again, err := s.Save(ctx, j.ID, 1, store.Draft{Document: doc(t, after), Listing: listing, By: "w1"})
		require.NoError(t, err)
		assert.Equal(t, 2, again.Version, "sent again it is no write")
		return found[0]
	}
	usual, long := stored(`{}`, `{"title":"Überholt"}`), stored(`{"dates":{"a":{"due":"2031-01-01"}}}`, `{"title":"Überholt"}`)
	assert.Equal(t, usual.Listing, long.Listing)
}
