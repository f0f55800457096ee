package server_test

import (
	"net/http"
	"net/http/httptest"
	"testing"

	"github.com/stretchr/testify/require"

	"epitrope/internal/dbtest"
	"epitrope/internal/door"
	"epitrope/internal/server"
)

// Who waits for a task asks again and again how far it is: that does not hold it up, as work does.
func TestWaitingIsNotWork(t *testing.T) {
	s := dbtest.Store(t)
	d := door.New(s, door.Where{})
	defer d.Close()
	for _, c := range []struct {
		method, path string
		work         bool
	}{
		{http.MethodGet, "/api/tasks/6cf963fd-3c2a-49ca-b657-b2875d1e1a37", false},
		{http.MethodDelete, "/api/tasks/6cf963fd-3c2a-49ca-b657-b2875d1e1a37", true},
		{http.MethodGet, "/api/jobs/6cf963fd-3c2a-49ca-b657-b2875d1e1a37/tasks", true},
		{http.MethodGet, "/healthz", true},
	} {
		busy := &server.Busy{}
		h := httptest.NewServer(server.New(s, pages, busy, server.Way{}, d))
		req, err := http.NewRequest(c.method, h.URL+c.path, nil)
		require.NoError(t, err)
		res, err := http.DefaultClient.Do(req)
		require.NoError(t, err)
		require.NoError(t, res.Body.Close())
		h.Close()
		require.Equal(t, c.work, busy.Now(), "%s %s", c.method, c.path)
	}
}
