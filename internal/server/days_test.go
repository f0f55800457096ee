package server_test

import (
	"context"
	"encoding/json"
	"io"
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/alternator"
	"epitrope/core/parts"
	"epitrope/core/study"
	"epitrope/internal/answers"
	"epitrope/internal/dbtest"
	"epitrope/internal/instrument"
	"epitrope/internal/server"
	"epitrope/internal/worker"
)

func TestATrialAndAComparison(t *testing.T) {
	h := serve(t, dbtest.Store(t))
	var tried answers.Tried
	require.Equal(t, 200, call(t, "POST", h.URL+"/api/trial", `{"day":{"days":"2 days","outsideC":"40F"}}`, &tried).StatusCode)
	assert.Empty(t, tried.Problems)
	assert.Equal(t, 2.0, tried.Trial.Days)
	assert.NotEmpty(t, tried.Trial.Series.T)
	require.Equal(t, 200, call(t, "POST", h.URL+"/api/trial", `{"day":{"days":99}}`, &tried).StatusCode)
	require.Len(t, tried.Problems, 1, "what cannot be used is named, and the rest is run")

	var compared []study.Compared
	require.Equal(t, 200, call(t, "POST", h.URL+"/api/compare",
		`{"document":{"format":"epitrope-job","version":1,"day":{"days":1}},"variants":[{"label":"A","changes":{}},{"label":"B",`+
			`"changes":{"pins.chargerA":"10 A"}}]}`,
		&compared).StatusCode)
	require.Len(t, compared, 2)
	var refused server.Refusal
	require.Equal(t, 422, call(t, "POST", h.URL+"/api/compare",
		`{"document":{"format":"epitrope-job","version":1},"variants":[{"label":"A","changes":{"pins.chargerA":"11 A"}}]}`,
		&refused).StatusCode)
	require.Len(t, refused.Problems, 1)
	assert.Equal(t, "A: pins.chargerA", refused.Problems[0].Field)
}

func TestATrackIsRead(t *testing.T) {
	h := serve(t, dbtest.Store(t))
	send := func(text string) *http.Response {
		res, err := http.Post(h.URL+"/api/track", "application/octet-stream", strings.NewReader(text))
		require.NoError(t, err)
		return res
	}
	res := send("time,speed\n0,0\n60,100\n660,100\n")
	body, _ := io.ReadAll(res.Body)
	assert.Equal(t, 200, res.StatusCode, string(body))
	res = send("time,speed\n0,0\n60,-3\n")
	body, _ = io.ReadAll(res.Body)
	assert.Equal(t, 422, res.StatusCode)
	assert.Contains(t, string(body), "line 3: speed")
}

func TestALoggedTestIsJudged(t *testing.T) {
	h := serve(t, dbtest.Store(t))
	post := func(text string, into any) int {
		res, err := http.Post(h.URL+"/api/regulation", "application/octet-stream", strings.NewReader(text))
		require.NoError(t, err)
		defer func() { _ = res.Body.Close() }()
		require.NoError(t, json.NewDecoder(res.Body).Decode(into))
		return res.StatusCode
	}
	for id, proves := range map[string]alternator.Regulation{"variable": alternator.Variable, "fixed": alternator.Fixed,
		"short": alternator.Unknown} {
		s, err := instrument.SimulationByID(id)
		require.NoError(t, err)
		var got server.Tested
		require.Equal(t, 200, post(s.Write(), &got), id)
		assert.Equal(t, proves, got.Proves, id)
		assert.LessOrEqual(t, len(got.Judgement.Curve), 360, id)
		assert.Greater(t, len(got.Judgement.Curve), 100, id)
		for _, x := range got.Judgement.Curve {
			assert.LessOrEqual(t, x.Low, x.High, id)
		}
	}
	var refused server.Refusal
	require.Equal(t, 422, post("time,volts\n0,12.6\n1,twelve\n", &refused))
	require.Len(t, refused.Problems, 1)
	assert.Equal(t, "log", refused.Problems[0].Field)
	assert.Contains(t, refused.Problems[0].Wrong, "line 3")
	require.Equal(t, 422, post("time,volts\n0,12.6\n1,12.6\n", &refused))
	assert.Contains(t, refused.Problems[0].Wrong, "2 readings with time and volts are too few")
}

func TestTasksOverTheAPI(t *testing.T) {
	s := dbtest.Store(t)
	ctx, stop := context.WithCancel(context.Background())
	gone := make(chan struct{})
	go func() { worker.Run(ctx, s, parts.Stock(), func() bool { return false }); close(gone) }()
	defer func() { stop(); <-gone }()
	h := serve(t, s)
	var opened server.Opened
	require.Equal(t, 201, call(t, "POST", h.URL+"/api/jobs", `{"format":"epitrope-job","version":1,"title":"Van"}`, &opened).StatusCode)
	at := h.URL + "/api/jobs/" + opened.ID + "/tasks"

	var refused server.Refusal
	require.Equal(t, 422, call(t, "POST", at, `{"kind":"sweep","document":{"format":"epitrope-job","version":1},`+
		`"sweep":{"across":{"path":"title"},"up":{"path":"use.dailyAh"}}}`,
		&refused).StatusCode)
	assert.Equal(t, "across", refused.Problems[0].Field)
	require.Equal(t, 422, call(t, "POST", at, `{"kind":"spread","document":{"format":"epitrope-job","version":1}}`, &refused).StatusCode)

	var task server.Task
	require.Equal(t, 202, call(t, "POST", at,
		`{"kind":"sweep","document":{"format":"epitrope-job","version":1,"day":{"days":1}},`+
			`"sweep":{"across":{"path":"use.drivenHours","values":["1","2"]},`+
			`"up":{"path":"use.dailyAh","values":["20","30","40"]}}}`, &task).StatusCode)
	require.Eventually(t, func() bool {
		call(t, "GET", h.URL+"/api/tasks/"+task.ID, "", &task)
		return task.State == "done"
	}, 60*time.Second, 50*time.Millisecond)
	require.NotNil(t, task.Sweep)
	assert.Len(t, task.Sweep.Cells, 6)
	var list []server.Task
	require.Equal(t, 200, call(t, "GET", at, "", &list).StatusCode)
	assert.Len(t, list, 1)
	assert.Equal(t, 204, call(t, "DELETE", h.URL+"/api/tasks/"+task.ID, "", nil).StatusCode)
	assert.Equal(t, 404, call(t, "GET", h.URL+"/api/tasks/00000000-0000-0000-0000-000000000000", "", &refused).StatusCode)
}
