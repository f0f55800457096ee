package listing_test

import (
	"context"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/design"
	"epitrope/core/job"
	"epitrope/core/parts"
	"epitrope/core/plan"
	"epitrope/internal/dbtest"
	"epitrope/internal/jobtest"
	"epitrope/internal/listing"
	"epitrope/internal/pack"
	"epitrope/internal/store"
)

func of(doc job.Document) store.Listing {
	return listing.Of(doc, func() *design.Design { return design.Of(doc, parts.Stock()) }, func() pack.Workshop { return pack.Workshop{} })
}

// What lists show is what the job's own plan says.
func TestAListingSaysWhatThePlanSays(t *testing.T) {
	for name, doc := range jobtest.Complete(t) {
		l, p := of(doc), plan.Of(design.Of(doc, parts.Stock()))
		assert.Equal(t, []string{doc.Title, p.Vehicle.Label, p.Summary}, []string{l.Title, l.Vehicle, l.Summary}, name)
		if len(p.Notes) > 0 {
			assert.Equal(t, []string{p.Notes[0].Text, p.Notes[0].Severity}, []string{l.Weakest, l.Severity}, name)
		}
	}
}

// What stands in a bay stands there as long as its steps take; other dates last their day.
func TestDatesOfAListing(t *testing.T) {
	doc := jobtest.Document(t, `{"dates":{"a":{"kind":"fit","bay":" 2 ","due":"2031-03-03"},
		"b":{"kind":"revisit","due":"2031-04-01","done":"2031-04-02"},
		"c":{"what":"no date yet"}}}`)
	l := of(doc)
	require.Len(t, l.Dates, 2)
	fit, revisit := l.Dates[0], l.Dates[1]
	assert.Equal(t, "2", fit.Bay)
	assert.Greater(t, fit.Until, fit.Due)
	assert.Positive(t, fit.Hours)
	assert.True(t, fit.Open)
	assert.Equal(t, []string{"2031-04-01", "2031-04-01"}, []string{revisit.Due, revisit.Until})
	assert.False(t, revisit.Open)
}

// A job that cannot be decided is listed as that, and brings nothing else down.
func TestAJobThatCannotBeDecided(t *testing.T) {
	l := listing.Of(jobtest.Document(t, `{"title":"A"}`), func() *design.Design { panic("a fault") }, nil)
	assert.Equal(t, "A", l.Title)
	assert.Contains(t, l.Summary, "could not be decided")
	assert.Equal(t, listing.Rules(), l.ListedBy, "and is not tried again by these rules")
}

// Listings that other rules made are made anew in the background.
func TestListingsAreRenewed(t *testing.T) {
	s := dbtest.Store(t)
	ctx, stop := context.WithCancel(context.Background())
	defer stop()
	doc := jobtest.Document(t, `{"title":"Listed of old"}`)
	for range 25 {
		_, err := s.Create(ctx, "", store.Draft{Document: doc, Listing: store.Listing{Title: "?", ListedBy: "of old"}})
		require.NoError(t, err)
	}
	ended := make(chan struct{})
	go func() {
		defer close(ended)
		listing.Renew(ctx, s, parts.Stock())
	}()
	assert.Eventually(t, func() bool {
		jobs, _, err := s.List(ctx, "listed", store.Filter{}, store.Page{})
		return err == nil && len(jobs) == 25 && jobs[0].Summary != ""
	}, 30*time.Second, 50*time.Millisecond)
	stop()
	<-ended
}
