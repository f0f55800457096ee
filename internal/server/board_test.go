package server_test

import (
	"fmt"
	"net/http"
	"net/url"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/internal/dbtest"
	"epitrope/internal/server"
)

// stageOf is what a job waits for, as the board and the list say it.
func stageOf(t *testing.T, at, id string) (stage string, of server.BoardJob) {
	t.Helper()
	var board server.Board
	require.Equal(t, 200, call(t, http.MethodGet, at+"/api/board", "", &board).StatusCode)
	var list server.ListedPage
	require.Equal(t, 200, call(t, http.MethodGet, at+"/api/jobs", "", &list).StatusCode)
	for _, j := range list.Jobs {
		if j.ID == id {
			stage = j.Stage
		}
	}
	for _, s := range board.Stages {
		for _, j := range s.Jobs {
			if j.ID == id {
				assert.Equal(t, stage, s.Stage, "board and list say the same")
				of = j
			}
		}
	}
	var filtered server.ListedPage
	require.Equal(t, 200, call(t, http.MethodGet, at+"/api/jobs?stage="+stage, "", &filtered).StatusCode)
	for _, j := range filtered.Jobs {
		assert.Equal(t, stage, j.Stage)
	}
	assert.NotEmpty(t, filtered.Jobs)
	return stage, of
}

// A job stands where it waits, from its first answer until somebody complains, and goes on as things happen to it.
func TestWhereAJobWaits(t *testing.T) {
	h := serve(t, dbtest.Store(t))
	id := opened(t, h)
	at := h.URL + "/api/jobs/" + id
	is := func(want, why string) server.BoardJob {
		t.Helper()
		stage, of := stageOf(t, h.URL, id)
		require.Equal(t, want, stage, why)
		return of
	}
	is("answer", "nobody has decided anything")

	require.Equal(t, 201, call(t, http.MethodPost, at+"/revisions", `{"base":1}`, nil).StatusCode)
	is("bay", "it is issued")

	q := uuid.NewString()
	res := call(t, http.MethodPost, at+"/comments", fmt.Sprintf(`{"id":%q,"about":"job","text":"Which side?","asks":true}`, q), nil)
	require.Less(t, res.StatusCode, 300)
	assert.Equal(t, "Which side?", is("answer", "a question is open").Says)
	res = call(t, http.MethodPost, at+"/comments", fmt.Sprintf(`{"id":%q,"thread":%q,"about":"job","text":"Left","answers":true}`,
		uuid.NewString(), q), nil)
	require.Less(t, res.StatusCode, 300)
	is("bay", "it is answered")

	send(t, h, id, entry("reading", "aux-rest", "12.6 V"))
	assert.Equal(t, 1, is("reading", "it is being read").Some)

	c := entry("complaint", "no-charge", "It does not charge")
	c.Case = uuid.NewString()
	send(t, h, id, c)
	assert.Equal(t, "It does not charge", is("complaint", "somebody complains").Says)
	closed := entry("closed", "case", "closed")
	closed.Case = c.Case
	send(t, h, id, closed)
	is("reading", "the case is closed")
}

// What stands in a bay waits for its parts, and for a signature once all of it is read.
func TestABayWaitsForPartsAndASignature(t *testing.T) {
	h := serve(t, dbtest.Store(t))
	var job server.Opened
	body := provenJob[:len(provenJob)-1] + `,"plate":"WEIR 7","dates":{"d1":{"kind":"fit","what":"Fit","due":"2031-05-02","bay":"north"}}}`
	require.Equal(t, 201, call(t, http.MethodPost, h.URL+"/api/jobs", body, &job).StatusCode)
	stage, of := stageOf(t, h.URL, job.ID)
	assert.Equal(t, "part", stage, "its parts are not on the shelf")
	assert.Equal(t, "north", of.Bay)
	assert.Equal(t, "2031-05-02", of.Due)
	assert.Positive(t, of.Some)

	var found server.ListedPage
	for search, n := range map[string]int{"weir 7": 1, "relay": 1, "unicorn": 0} {
		require.Equal(t, 200, call(t, http.MethodGet, h.URL+"/api/jobs?search="+url.QueryEscape(search), "", &found).StatusCode)
		assert.Len(t, found.Jobs, n, search)
	}

	for i := range of.Of {
		stage, _ := stageOf(t, h.URL, job.ID)
		require.NotEqual(t, "signature", stage, "%d of %d are read", i, of.Of)
		send(t, h, job.ID, entry("reading", fmt.Sprintf("r%d", i), "12.6 V"))
	}
	stage, _ = stageOf(t, h.URL, job.ID)
	assert.Equal(t, "signature", stage)
}
