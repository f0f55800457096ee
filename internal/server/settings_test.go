package server_test

import (
	"io"
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/internal/dbtest"
	"epitrope/internal/server"
)

const (
	plain    = `{"area":"mm2","length":"m","temperature":"C","torque":"Nm"}`
	american = `{"area":"awg","length":"ft","temperature":"F","torque":"lbft"}`
)

func settings(version, units, rest string) string {
	return `{"version":` + version + `,"settings":{"units":` + units + `,"habits":{},"currency":"","hourlyRate":0,"paper":"A4",` +
		`"weekStarts":"monday","dates":"2 Jan 2006"` + rest + `}}`
}

// Settings are kept once, by one at a time, and hold for what is planned from then on; nothing of a job changes.
func TestSettings(t *testing.T) {
	h := serve(t, dbtest.Store(t))
	var kept server.KeptSettings
	call(t, "GET", h.URL+"/api/settings", "", &kept)
	assert.Zero(t, kept.Version)
	assert.Equal(t, "A4", kept.Settings.Paper)

	var job struct{ ID string }
	require.Equal(t, 201, call(t, "POST", h.URL+"/api/jobs", `{"format":"epitrope-job","version":1,"routes":{"startM":4.2}}`,
		&job).StatusCode)
	planned := func(head string) string {
		req, err := http.NewRequest(http.MethodPost, h.URL+"/api/plan", strings.NewReader(`{"routes":{"startM":4.2}}`))
		require.NoError(t, err)
		req.Header.Set("Content-Type", "application/json")
		if head != "" {
			req.Header.Set("Units", head)
		}
		return read(t, req)
	}
	assert.Contains(t, planned(""), "4.2 m")
	assert.Contains(t, planned("ft"), "13 ft 9 in")

	require.Equal(t, 200, call(t, "PUT", h.URL+"/api/settings", settings("0", american, ""), &kept).StatusCode)
	assert.Equal(t, 1, kept.Version)
	assert.Contains(t, planned(""), "13 ft 9 in")
	assert.Contains(t, planned(""), "AWG", "nobody said what is on the reels")
	assert.Contains(t, planned(""), `"startM":4.2`, "what is stored stays")
	assert.Contains(t, planned("m"), "4.2 m", "who asks for other units gets them")
	var opened struct {
		Draft struct{ Document map[string]any }
	}
	call(t, "GET", h.URL+"/api/jobs/"+job.ID, "", &opened)
	assert.Equal(t, map[string]any{"startM": 4.2}, opened.Draft.Document["routes"])
	assert.NotContains(t, opened.Draft.Document, "cable")

	res := call(t, "PUT", h.URL+"/api/settings", settings("0", plain, ""), nil)
	assert.Equal(t, 409, res.StatusCode, "somebody changed them meanwhile")
	for _, c := range []struct{ body, wrong string }{
		{settings("1", plain, `,"hourlyRate":-1`), "hourlyRate"},
		{settings("1", plain, `,"paper":"A5"`), "paper"},
		{settings("1", plain, `,"currency":"E12"`), "currency"},
		{settings("1", plain, `,"habits":{"sizes":"8 mm"}`), "cable.sizes"},
		{settings("1", plain, `,"habits":{"insulation":3}`), "cable.insulation"},
		{settings("1", strings.Replace(plain, "mm2", "acre", 1), ""), "area"},
	} {
		var p struct{ Title, Detail string }
		res := call(t, "PUT", h.URL+"/api/settings", c.body, &p)
		assert.Equal(t, 422, res.StatusCode, c.body)
		req, err := http.NewRequest(http.MethodPut, h.URL+"/api/settings", strings.NewReader(c.body))
		require.NoError(t, err)
		req.Header.Set("Content-Type", "application/json")
		assert.Contains(t, read(t, req), c.wrong)
	}

	require.Equal(t, 200, call(t, "PUT", h.URL+"/api/settings",
		settings("1", plain, `,"habits":{"system":"awg","sizes":"4 AWG, 1/0 AWG","feed":"orange"}`), &kept).StatusCode)
	assert.Contains(t, planned(""), "4 AWG")
	req, err := http.NewRequest(http.MethodGet, h.URL+"/api/jobs/"+job.ID+"/wires.csv", nil)
	require.NoError(t, err)
	assert.Contains(t, read(t, req), "4 AWG,1,orange")
}

func read(t *testing.T, req *http.Request) string {
	t.Helper()
	res, err := http.DefaultClient.Do(req)
	require.NoError(t, err)
	defer res.Body.Close()
	text, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	return string(text)
}
