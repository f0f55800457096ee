package server_test

import (
	"bufio"
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"net/http/httptest"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/internal/dbtest"
	"epitrope/internal/people"
	"epitrope/internal/server"
	"epitrope/internal/store"
)

// listen hears a stream of events as a cookie's person.
func listen(t *testing.T, h *httptest.Server, cookie string) (next func() server.Changed, end <-chan struct{}) {
	t.Helper()
	ctx, stop := context.WithCancel(context.Background())
	t.Cleanup(stop)
	req, err := http.NewRequestWithContext(ctx, http.MethodGet, h.URL+"/api/events", nil)
	require.NoError(t, err)
	req.Header.Set("Cookie", cookie)
	req.Header.Set("Accept-Encoding", "gzip")
	res, err := http.DefaultClient.Do(req)
	require.NoError(t, err)
	require.Equal(t, http.StatusOK, res.StatusCode)
	require.Empty(t, res.Header.Get("Content-Encoding"), "what is packed comes late")
	heard, ended := make(chan server.Changed, 100), make(chan struct{})
	go func() {
		defer close(ended)
		defer res.Body.Close()
		for lines := bufio.NewScanner(res.Body); lines.Scan(); {
			data, is := strings.CutPrefix(lines.Text(), "data: ")
			var c server.Changed
			if is && json.Unmarshal([]byte(data), &c) == nil {
				heard <- c
			}
		}
	}()
	return func() server.Changed {
		select {
		case c := <-heard:
			return c
		case <-time.After(20 * time.Second):
			require.Fail(t, "nothing was told")
		}
		return server.Changed{}
	}, ended
}

// What somebody does reaches the open pages of the others, whichever server it was done on; who is let go hears no more.
func TestOpenPagesHearOfChanges(t *testing.T) {
	server.AskStillEvery(t, time.Second)
	s := dbtest.Store(t)
	h, second := served(t, s), served(t, s)
	owner := dbtest.Begun(t, s, store.FirstWorkshop, "first")
	teo := dbtest.Joined(t, s, owner, people.Installer, "Teo", "")
	mine, his := signedIn(t, h, owner), signedIn(t, second, teo)
	next, end := listen(t, second, his)
	assert.Equal(t, "anything", next().What, "what was before is read anew")
	var j struct{ ID string }
	callAs(t, mine, http.MethodPost, h.URL+"/api/jobs", `{"format":"epitrope-job","version":1}`, &j)
	for c := next(); c != (server.Changed{What: "job", Job: j.ID}); c = next() {
		require.Equal(t, "anything", c.What)
	}
	var now server.HereNow
	callAs(t, mine, http.MethodPost, h.URL+"/api/jobs/"+j.ID+"/here", `{"page":"`+oneID+`"}`, &now)
	assert.Empty(t, now.People, "nobody but who asks")
	assert.Equal(t, server.Changed{What: "here", Job: j.ID}, next())
	callAs(t, his, http.MethodPost, second.URL+"/api/jobs/"+j.ID+"/here", `{"page":"`+oneID+`"}`, &now)
	assert.Equal(t, []server.Somebody{{ID: owner.ID, Name: owner.Name, Role: people.Owner}}, now.People)
	callAs(t, mine, http.MethodPost, h.URL+"/api/jobs/"+j.ID+"/here", `{"page":"`+oneID+`","left":true}`, nil)
	callAs(t, his, http.MethodPost, second.URL+"/api/jobs/"+j.ID+"/here", `{"page":"`+oneID+`"}`, &now)
	assert.Empty(t, now.People)

	require.NoError(t, s.As(owner).Leave(t.Context(), teo.ID))
	select {
	case <-end:
	case <-time.After(40 * time.Second):
		assert.Fail(t, "who was let go hears on")
	}
}

// A device whose clock is off enters at the time of everybody's; one that is nearly right, or says nothing, as it says.
func TestADevicesClockIsPutRight(t *testing.T) {
	s := dbtest.Store(t)
	h := served(t, s)
	cookie := signedIn(t, h, dbtest.Begun(t, s, store.FirstWorkshop, "first"))
	var j struct{ ID string }
	callAs(t, cookie, http.MethodPost, h.URL+"/api/jobs", `{"format":"epitrope-job","version":1}`, &j)
	for name, c := range map[string]struct{ off, shown time.Duration }{"a day behind": {-24 * time.Hour, 0},
		"two years ahead": {17520 * time.Hour, 0},
		"a minute behind": {-time.Minute, -time.Minute}} {
		clock, id := time.Now().Add(c.off), uuid.NewString()
		body := fmt.Sprintf(`[{"id":%q,"step":"hand","done":true,"by":"","usual":5,"at":%q}]`, id,
			clock.Add(-time.Hour).Format(time.RFC3339))
		req, err := http.NewRequest(http.MethodPost, h.URL+"/api/jobs/"+j.ID+"/ticks", strings.NewReader(body))
		require.NoError(t, err)
		req.Header.Set("Cookie", cookie)
		req.Header.Set("Content-Type", "application/json")
		req.Header.Set("Device-Clock", clock.Format(time.RFC3339))
		res, err := http.DefaultClient.Do(req)
		require.NoError(t, err)
		var got server.Ticks
		require.NoError(t, json.NewDecoder(res.Body).Decode(&got))
		require.NoError(t, res.Body.Close())
		for _, tick := range got.Ticks {
			if tick.ID == id {
				assert.WithinDuration(t, time.Now().Add(c.shown-time.Hour), tick.At, 30*time.Second, name)
			}
		}
		assert.True(t, slices.ContainsFunc(got.Ticks, func(tick server.StepTick) bool { return tick.ID == id }), name)
	}
}
