package server_test

import (
	"bytes"
	"encoding/json"
	"io"
	"net/http"
	"net/http/httptest"
	"net/url"
	"os"
	"strings"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/internal/answers"
	"epitrope/internal/dbtest"
	"epitrope/internal/door"
	"epitrope/internal/people"
	"epitrope/internal/server"
	"epitrope/internal/store"
)

var pages = fstest.MapFS{
	"index.html":    {Data: []byte("<title>shell</title>")},
	"assets/app.js": {Data: []byte("1")},
}

// serve is a server whose every request is the owner's, unless it has a cookie of its own.
func serve(t testing.TB, s *store.Store) *httptest.Server {
	t.Helper()
	return serveBusy(t, s, &server.Busy{})
}

func serveBusy(t testing.TB, s *store.Store, busy *server.Busy) *httptest.Server {
	t.Helper()
	owner := dbtest.Begun(t, s, store.FirstWorkshop, "first")
	d := door.New(s, door.Where{Demo: true})
	t.Cleanup(d.Close)
	handler := server.New(s, pages, busy, server.Way{Demo: true}, d)
	cookie := ""
	h := httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if r.Header.Get("Cookie") == "" {
			r.Header.Set("Cookie", cookie)
		}
		handler.ServeHTTP(w, r)
	}))
	t.Cleanup(h.Close)
	cookie = signedIn(t, h, owner)
	return h
}

// signedIn is the cookie of somebody who came in by the demo's door.
func signedIn(t testing.TB, h *httptest.Server, p people.Person) string {
	t.Helper()
	req, err := http.NewRequest(http.MethodPost, h.URL+"/api/door/demo", strings.NewReader(`{"person":"`+p.ID+`"}`))
	require.NoError(t, err)
	req.Header.Set("Content-Type", "application/json")
	req.Header.Set("Cookie", "epitrope=none")
	res, err := http.DefaultClient.Do(req)
	require.NoError(t, err)
	defer res.Body.Close()
	require.Equal(t, 200, res.StatusCode)
	require.NotEmpty(t, res.Cookies())
	return res.Cookies()[0].Name + "=" + res.Cookies()[0].Value
}

// call sends a request and decodes the answer into out, if there is one.
func call(t *testing.T, method, address, body string, out any) *http.Response {
	t.Helper()
	return callAs(t, "", method, address, body, out)
}

// callAs does that with a cookie.
func callAs(t *testing.T, cookie, method, address, body string, out any) *http.Response {
	t.Helper()
	req, err := http.NewRequest(method, address, strings.NewReader(body))
	require.NoError(t, err)
	if cookie != "" {
		req.Header.Set("Cookie", cookie)
	}
	if body != "" {
		req.Header.Set("Content-Type", "application/json")
	}
	res, err := http.DefaultClient.Do(req)
	require.NoError(t, err)
	defer res.Body.Close()
	data, err := io.ReadAll(res.Body)
	require.NoError(t, err)
	if out != nil {
		require.NoError(t, json.Unmarshal(data, out), string(data))
	}
	return res
}

func publicly(t *testing.T, address string) *url.URL {
	t.Helper()
	u, err := server.ReadPublic(address)
	require.NoError(t, err)
	return u
}

func TestAJobFromTheFirstAnswerToARevision(t *testing.T) {
	h := serve(t, dbtest.Store(t))
	var opened server.Opened
	res := call(t, "POST", h.URL+"/api/jobs", `{"format":"epitrope-job","version":1,"title":"Van","alternator":{"label":"90/180"}}`,
		&opened)
	require.Equal(t, 201, res.StatusCode)
	assert.Equal(t, "90/180 A", *opened.Draft.Document.Alternator.Label)
	at := h.URL + "/api/jobs/" + opened.ID

	var draft server.Draft
	res = call(t, "PUT", at+"/draft", `{"base":1,"document":{"format":"epitrope-job","version":1,"title":"Van",`+
		`"routes":{"startM":"12 ft 6"}}}`, &draft)
	require.Equal(t, 200, res.StatusCode)
	assert.Equal(t, 2, draft.Version)
	assert.InDelta(t, 3.81, *draft.Document.Routes.StartM, 1e-9)

	var stale server.Refusal
	res = call(t, "PUT", at+"/draft", `{"base":1,"document":{"format":"epitrope-job","version":1,"title":"Other"}}`, &stale)
	require.Equal(t, 409, res.StatusCode)
	assert.Equal(t, "application/problem+json", res.Header.Get("Content-Type"))
	assert.Equal(t, "urn:epitrope:stale", stale.Type)
	assert.Equal(t, 2, stale.Current.Version)
	assert.NotEmpty(t, stale.Changes)

	var issued server.Issued
	require.Equal(t, 201, call(t, "POST", at+"/revisions", `{"base":2}`, &issued).StatusCode)
	var whole server.IssuedWhole
	require.Equal(t, 200, call(t, "GET", at+"/revisions/1", "", &whole).StatusCode)
	assert.Equal(t, "Van", whole.Document.Title)
	assert.Equal(t, draft.Document.Digest(), whole.Plan.Job)

	var list server.ListedPage
	require.Equal(t, 200, call(t, "GET", h.URL+"/api/jobs", "", &list).StatusCode)
	require.Len(t, list.Jobs, 1)
	assert.Contains(t, list.Jobs[0].Summary, "DC-DC charger")

	require.Equal(t, 204, call(t, "DELETE", at, "", nil).StatusCode)
	var gone server.Refusal
	require.Equal(t, 410, call(t, "GET", at, "", &gone).StatusCode)
	assert.Equal(t, "urn:epitrope:deleted", gone.Type)
	require.Equal(t, 204, call(t, "POST", at+"/restore", "", nil).StatusCode)
	require.Equal(t, 200, call(t, "GET", at, "", nil).StatusCode)
}

// At every door bad input is a problem document that names field, value and what
// is allowed.
func TestBadInputIsNamed(t *testing.T) {
	h := serve(t, dbtest.Store(t))
	cases := []struct {
		body   string
		status int
		field  string
	}{
		{`{"use":{"dailyAh":-3}}`, 422, "use.dailyAh"},
		{`{"bogus":1}`, 422, "bogus"},
		{`{"version":7}`, 422, "version"},
		{"{\"title\":\"\xff\xfe\"}", 422, ""},
		{`[]`, 422, "body"},
		{`{`, 400, "body"},
	}
	for _, c := range cases {
		var p server.Refusal
		res := call(t, "POST", h.URL+"/api/jobs", c.body, &p)
		assert.Equal(t, c.status, res.StatusCode, c.body)
		require.NotEmpty(t, p.Problems, c.body)
		assert.Equal(t, c.field, p.Problems[0].Field, c.body)
		assert.NotEmpty(t, p.Problems[0].Allowed)
	}
	var list server.ListedPage
	call(t, "GET", h.URL+"/api/jobs", "", &list)
	assert.Empty(t, list.Jobs, "nothing of it is stored")
}

func TestLargeBodiesAreRefused(t *testing.T) {
	h := serve(t, dbtest.Store(t))
	var p server.Refusal
	res := call(t, "POST", h.URL+"/api/plan", `{"title":"`+strings.Repeat("x", 50<<20)+`"}`, &p)
	assert.Equal(t, 413, res.StatusCode)
	assert.NotEmpty(t, p.Detail)
}

// While a stop stands nothing is issued, and what stands is named; once it is gone, it is.
func TestStopsAreNotIssued(t *testing.T) {
	h := serve(t, dbtest.Store(t))
	var made struct{ ID string }
	require.Equal(t, 201, call(t, "POST", h.URL+"/api/jobs", `{"format":"epitrope-job","version":1,"aux":{"chemistry":"flooded",`+
		`"place":"rear"}}`, &made).StatusCode)
	var refused server.Refusal
	at := h.URL + "/api/jobs/" + made.ID
	require.Equal(t, 422, call(t, "POST", at+"/revisions", `{"base":1}`, &refused).StatusCode)
	assert.Contains(t, refused.Detail, "may not sit inside")
	assert.Equal(t, "urn:epitrope:stop", refused.Type)
	require.Equal(t, 200, call(t, "PUT", at+"/draft", `{"base":1,"document":{"format":"epitrope-job","version":1,`+
		`"aux":{"chemistry":"agm","place":"rear"}}}`, nil).StatusCode)
	require.Equal(t, 201, call(t, "POST", at+"/revisions", `{"base":2}`, nil).StatusCode)
}

// A plan needs no database, and a document that is partly wrong still gets one.
func TestPlanWithoutADatabase(t *testing.T) {
	h := serve(t, dbtest.Store(t))
	var planned answers.Planned
	res := call(t, "POST", h.URL+"/api/plan", `{"use":{"dailyAh":"lots","drivenHours":"90 min"}}`, &planned)
	require.Equal(t, 200, res.StatusCode)
	require.Len(t, planned.Problems, 1)
	assert.Equal(t, "use.dailyAh", planned.Problems[0].Field)
	assert.Equal(t, 1.5, *planned.Document.Use.DrivenHours)
	assert.NotEmpty(t, planned.Plan.Columns)
}

func TestDatabaseAwayIsSaid(t *testing.T) {
	s := dbtest.Store(t)
	h := serve(t, s)
	require.Equal(t, 200, call(t, "GET", h.URL+"/health/ready", "", nil).StatusCode)
	require.NoError(t, s.Close())
	assert.Equal(t, 200, call(t, "GET", h.URL+"/health/live", "", nil).StatusCode)
	assert.GreaterOrEqual(t, call(t, "GET", h.URL+"/health/ready", "", nil).StatusCode, 500)
}

func TestPagesAndAddresses(t *testing.T) {
	h := serve(t, dbtest.Store(t))
	for path, want := range map[string]int{"/": 200, "/jobs/17": 200, "/assets/app.js": 200, "/assets/none.js": 404, "/api/none": 404,
		"/api/schema/job": 200, "/api/schema/van": 404, "/api/openapi.json": 200, "/api/vocabulary": 200} {
		res := call(t, "GET", h.URL+path, "", nil)
		assert.Equal(t, want, res.StatusCode, path)
		if want == 404 {
			assert.Equal(t, "application/problem+json", res.Header.Get("Content-Type"), path)
		}
	}
	res := call(t, "POST", h.URL+"/jobs/17", "{}", nil)
	assert.Equal(t, 405, res.StatusCode)
}

// A page elsewhere reaches nothing: neither by a name of its own nor by a form.
func TestOnlyThisMachine(t *testing.T) {
	h := serve(t, dbtest.Store(t))
	req, _ := http.NewRequest(http.MethodGet, h.URL+"/", http.NoBody)
	req.Host = "elsewhere.test"
	res, err := http.DefaultClient.Do(req)
	require.NoError(t, err)
	res.Body.Close()
	assert.Equal(t, http.StatusMisdirectedRequest, res.StatusCode)

	req, _ = http.NewRequest(http.MethodPost, h.URL+"/api/plan", bytes.NewReader([]byte(`{}`)))
	req.Header.Set("Sec-Fetch-Site", "cross-site")
	res, err = http.DefaultClient.Do(req)
	require.NoError(t, err)
	res.Body.Close()
	assert.Equal(t, http.StatusForbidden, res.StatusCode)

	for address, ok := range map[string]bool{"127.0.0.1:80": true, "localhost:0": true, "[::1]:9": true, "0.0.0.0:80": false, ":80": false,
		"192.168.1.2:80": false, "127.0.0.1": false, "127.0.0.1:": false} {
		assert.Equal(t, ok, (server.Way{}).Check(address) == nil, address)
	}
}

// The committed document is that of the code; make generate writes it.
func TestOpenAPIIsCurrent(t *testing.T) {
	want, err := server.OpenAPI()
	require.NoError(t, err)
	have, err := os.ReadFile("../../docs/openapi.json")
	require.NoError(t, err)
	assert.JSONEq(t, string(want), string(have), "run make generate")
	var doc struct{ OpenAPI string }
	require.NoError(t, json.Unmarshal(have, &doc))
	assert.Equal(t, "3.1.0", doc.OpenAPI)
}
