package server_test

import (
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/internal/dbtest"
	"epitrope/internal/server"
)

// Whatever is asked, and however it is addressed: no answer is a failure of the server, and each refusal is a
// problem document in this program's own words.
func TestNothingAskedIsAFailure(t *testing.T) {
	h := serve(t, dbtest.Store(t))
	var opened server.Opened
	require.Equal(t, 201, call(t, "POST", h.URL+"/api/jobs", `{"format":"epitrope-job","version":1}`, &opened).StatusCode)
	at := "/api/jobs/" + opened.ID
	for _, c := range []struct{ method, path, body string }{
		{"GET", "/api/jobs/urn:uuid:" + opened.ID, ""},
		{"GET", "/api/jobs/{" + opened.ID + "}", ""},
		{"GET", "/api/jobs/" + strings.ReplaceAll(opened.ID, "-", ""), ""},
		{"GET", "/api/jobs/%ff%fe", ""},
		{"GET", "/api/jobs?search=%ff", ""},
		{"GET", "/api/jobs?search=%00", ""},
		{"GET", "/api/jobs?search=%", ""},
		{"GET", "/api/jobs?after=never_1", ""},
		{"GET", "/api/jobs?after=2026-01-01T00:00:00Z_99999999999999999999", ""},
		{"GET", "/api/due?after=2026-01-01_x_y", ""},
		{"GET", "/api/vehicles?model=%c3%28", ""},
		{"DELETE", "/api/parts?key=%00", ""},
		{"GET", at + "/revisions/99999999999999999999", ""},
		{"GET", at + "/revisions/3000000000", ""},
		{"GET", at + "/revisions/3000000000/pack.pdf", ""},
		{"GET", "/api/tasks/urn:uuid:" + opened.ID, ""},
		{"PUT", at + "/draft", `{"base":3000000000,"document":{"format":"epitrope-job","version":1}}`},
		{"PUT", at + "/draft", `{"base":1e30,"document":{"format":"epitrope-job","version":1}}`},
		{"PUT", at + "/draft", `{"base":"one","document":{"format":"epitrope-job","version":1}}`},
		{"PUT", at + "/draft", `{"document":{"format":"epitrope-job","version":1}}`},
		{"PUT", at + "/draft", `{"base":1,"document":{"format":"epitrope-job","version":1},"extra":1}`},
		{"PUT", at + "/draft", `{"base":1,"by":"a` + "\x00" + `b","document":{"format":"epitrope-job","version":1,"title":"x"}}`},
		{"PUT", at + "/draft", `{"base":1,"by":"a\u0000b","document":{"format":"epitrope-job","version":1,"title":"x"}}`},
		{"PUT", at + "/draft", `{`},
		{"PUT", at + "/draft", ``},
		{"POST", at + "/revisions", `{"base":3000000000}`},
		{"POST", at + "/tasks", `{"kind":"sweep","document":{"format":"epitrope-job","version":1}}`},
		{"POST", at + "/tasks", `{"kind":"other","document":{"format":"epitrope-job","version":1}}`},
		{"POST", "/api/jobs", `{"a":1}}`},
		{"POST", "/api/jobs", `{"title":"a","title":"b"}`},
		{"POST", "/api/jobs", "{\"title\":\"\xff\"}"},
		{"POST", "/api/jobs", "\xff\xfe{\x00}\x00"},
		{"POST", "/api/jobs", `nonsense`},
		{"POST", "/api/jobs", `[1,2`},
		{"POST", "/api/plan", `{"title":`},
		{"POST", "/api/trial?from=-1", `{}`},
		{"POST", "/api/trial?from=NaN", `{}`},
		{"POST", "/api/trial?from=1e999", `{}`},
		{"POST", "/api/methods/none", `{}`},
		{"POST", "/api/parts", `{"csv":"\u0000"}`},
		{"POST", "/api/vehicles", `{"csv":7}`},
		{"PUT", "/api/parts", `{"kind":7}`},
		{"GET", "/api/week?of=never", ""},
		{"GET", "/api/week?of=9999-12-31", ""},
		{"POST", "/api/track", "x"},
		{"POST", "/api/track", ""},
		{"POST", "/api/regulation", "\x00"},
		{"PATCH", "/api/jobs", "{}"},
		{"GET", "/api/nothing/%2e%2e", ""},
	} {
		what := fmt.Sprintf("%s %s %q", c.method, c.path, c.body)
		req, err := http.NewRequest(c.method, h.URL, strings.NewReader(c.body))
		require.NoError(t, err, what)
		path, query, _ := strings.Cut(c.path, "?")
		req.URL.Opaque, req.URL.RawQuery = "//"+req.URL.Host+path, query
		if c.body != "" && !strings.Contains(c.path, "track") && !strings.Contains(c.path, "regulation") {
			req.Header.Set("Content-Type", "application/json")
		}
		p := refusalOf(t, req, what)
		if p == nil {
			continue
		}
		assert.NotEmpty(t, p.Detail, what)
		for _, text := range wordsOf(p) {
			for _, go_ := range []string{"invalid character", "cannot unmarshal", "unexpected end", "strconv", "parsing", "json:", "uuid",
				"runtime",
				"sql", "looking for", "EOF", "%!"} {
				assert.NotContains(t, text, go_, what)
			}
		}
	}
}

// refusalOf sends a request and returns how it was refused; nil where it was answered.
func refusalOf(t *testing.T, req *http.Request, what string) *server.Refusal {
	t.Helper()
	res, err := http.DefaultClient.Do(req)
	require.NoError(t, err, what)
	defer res.Body.Close()
	assert.Less(t, res.StatusCode, 500, what)
	if res.StatusCode < 400 {
		return nil
	}
	assert.Equal(t, "application/problem+json", res.Header.Get("Content-Type"), what)
	var p server.Refusal
	require.NoError(t, jsonFrom(res.Body, &p), what)
	return &p
}

func wordsOf(p *server.Refusal) []string {
	words := []string{p.Detail}
	for _, one := range p.Problems {
		words = append(words, one.Wrong, one.Allowed)
	}
	return words
}

func jsonFrom(r io.Reader, into any) error { return json.NewDecoder(r).Decode(into) }
