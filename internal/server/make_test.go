package server_test

import (
	"encoding/csv"
	"encoding/xml"
	"errors"
	"io"
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/internal/answers"
	"epitrope/internal/dbtest"
	"epitrope/internal/server"
)

// What a job takes to make: every list opens, and they agree.
func TestMake(t *testing.T) {
	h := serve(t, dbtest.Store(t))
	call(t, "POST", h.URL+"/api/parts",
		file("kind,name,rating A,size,price,currency,stock\ncable,16 mm² red,,16 mm²,4.6,EUR,38\n=2+2,x,,,,,\nother,=HYPERLINK(1),,,,,\n"),
		nil)
	const doc = `{"format":"epitrope-job","version":1,"title":"<Bookmobile> & co","alternator":{"label":"90/180 A"},` +
		`"routes":{"startM":5.4,"auxM":0.9},` +
		`"loads":{"a1":{"kind":"fridge","name":"vaccine \"fridge\""}}}`
	var opened server.Opened
	call(t, "POST", h.URL+"/api/jobs", doc, &opened)
	var made answers.Made
	res := call(t, "POST", h.URL+"/api/make", doc, &made)
	require.Equal(t, 200, res.StatusCode)
	assert.NotEmpty(t, made.Steps)
	assert.Positive(t, made.Hours)
	fetch := func(name string) string {
		res, err := http.Get(h.URL + "/api/jobs/" + opened.ID + "/" + name)
		require.NoError(t, err)
		defer res.Body.Close()
		require.Equal(t, 200, res.StatusCode, name)
		text, err := io.ReadAll(res.Body)
		require.NoError(t, err)
		return string(text)
	}
	for name, lines := range map[string]int{"wires.csv": len(made.Wires), "cuts.csv": 0, "parts.csv": len(made.Parts.Lines) +
		len(made.Parts.Sums)} {
		rows, err := csv.NewReader(strings.NewReader(fetch(name))).ReadAll()
		require.NoError(t, err, name)
		for _, row := range rows {
			assert.Len(t, row, len(rows[0]), name)
			for _, cell := range row {
				assert.False(t, cell != "" && strings.ContainsRune("=+-@", rune(cell[0])), "%s: %q", name, cell)
			}
		}
		if lines > 0 {
			assert.Len(t, rows, lines+1, name)
		}
	}
	drawing := xml.NewDecoder(strings.NewReader(fetch("drawing.svg")))
	words := ""
	for {
		token, err := drawing.Token()
		if errors.Is(err, io.EOF) {
			break
		}
		require.NoError(t, err)
		if text, ok := token.(xml.CharData); ok {
			words += string(text) + "\n"
		}
	}
	assert.Contains(t, words, "<Bookmobile> & co")
	assert.Contains(t, words, `vaccine "fridge"`)
}

// Ticks are kept as they come, once each by their ids, whoever sends them.
func TestTicks(t *testing.T) {
	h := serve(t, dbtest.Store(t))
	var opened server.Opened
	call(t, "POST", h.URL+"/api/jobs", `{"format":"epitrope-job","version":1}`, &opened)
	at := h.URL + "/api/jobs/" + opened.ID + "/ticks"
	const one = `[{"id":"0b6c7c7e-8a36-4a3e-9d0e-1f1f6a1b0c01","step":"in-hand","done":true,"by":"Ivo","at":"2031-03-02T10:00:00Z"}]`
	const two = `[{"id":"0b6c7c7e-8a36-4a3e-9d0e-1f1f6a1b0c02","step":"in-hand","done":false,"by":"Maren","at":"2031-03-02T09:59:00Z",` +
		`"note":"one lug short"}]`
	var all server.Ticks
	call(t, "POST", at, one, &all)
	call(t, "POST", at, two, &all)
	call(t, "POST", at, one, &all)
	require.Len(t, all.Ticks, 2)
	assert.Equal(t, "Odile Marrow", all.Ticks[0].By, "whoever sends it, whatever the tick says")
	assert.False(t, all.Ticks[1].Done, "what came last holds, though its clock is behind")
	assert.Empty(t, all.Refused)

	// One that cannot be kept keeps none of the others from being kept.
	const third = `{"id":"0b6c7c7e-8a36-4a3e-9d0e-1f1f6a1b0c03","step":"f1","done":true,"by":"","at":"2031-03-02T10:00:00Z"}`
	for _, bad := range []string{`{"id":"nonsense","step":"x","at":"2031-03-02T10:00:00Z"}`, `{"id":7}`, `[]`, `null`,
		`{"id":"0b6c7c7e-8a36-4a3e-9d0e-1f1f6a1b0c04","step":"","at":"2031-03-02T10:00:00Z"}`,
		`{"id":"urn:uuid:0b6c7c7e-8a36-4a3e-9d0e-1f1f6a1b0c04","step":"x","at":"2031-03-02T10:00:00Z"}`,
		`{"id":"0b6c7c7e-8a36-4a3e-9d0e-1f1f6a1b0c04","step":"x","note":"a\u0000b","at":"2031-03-02T10:00:00Z"}`,
		`{"id":"0b6c7c7e-8a36-4a3e-9d0e-1f1f6a1b0c04","step":"x","at":"0001-01-01T00:00:00Z"}`,
		`{"id":"0b6c7c7e-8a36-4a3e-9d0e-1f1f6a1b0c04","step":"x","usual":-1,"at":"2031-03-02T10:00:00Z"}`} {
		require.Equal(t, 200, call(t, "POST", at, "["+bad+","+third+"]", &all).StatusCode, bad)
		require.Len(t, all.Refused, 1, bad)
		assert.NotEmpty(t, all.Refused[0].Problems[0].Allowed)
		assert.Len(t, all.Ticks, 3, bad)
	}
	assert.Equal(t, 404, call(t, "POST", h.URL+"/api/jobs/00000000-0000-4000-8000-000000000000/ticks", one, nil).StatusCode)
}

// What was issued on paper is stored as it was: a change of the draft, or of the book, does
// not change it.
func TestIssuedPackStays(t *testing.T) {
	h := serve(t, dbtest.Store(t))
	var opened server.Opened
	call(t, "POST", h.URL+"/api/jobs", `{"format":"epitrope-job","version":1,"title":"Issued once"}`, &opened)
	at := h.URL + "/api/jobs/" + opened.ID
	require.Equal(t, 201, call(t, "POST", at+"/revisions", `{"base":1}`, nil).StatusCode)
	fetch := func(path string) (int, string) {
		res, err := http.Get(at + path)
		require.NoError(t, err)
		defer res.Body.Close()
		data, err := io.ReadAll(res.Body)
		require.NoError(t, err)
		return res.StatusCode, string(data)
	}
	status, first := fetch("/revisions/1/pack.pdf")
	require.Equal(t, 200, status)
	assert.True(t, strings.HasPrefix(first, "%PDF-"))
	require.Equal(t, 200, call(t, "PUT", at+"/draft", `{"base":1,"document":{"format":"epitrope-job","version":1,`+
		`"title":"Changed"}}`, nil).StatusCode)
	_, again := fetch("/revisions/1/pack.pdf")
	assert.Equal(t, first, again)
	status, _ = fetch("/revisions/2/pack.pdf")
	assert.Equal(t, 404, status)
	status, draft := fetch("/pack.pdf?paper=Letter")
	assert.Equal(t, 200, status)
	assert.NotEqual(t, first, draft)
	status, _ = fetch("/pack.pdf?paper=napkin")
	assert.Equal(t, 422, status)
	var list []server.Issued
	call(t, "GET", at+"/revisions", "", &list)
	require.Len(t, list, 1)
	assert.True(t, list[0].Pack)
}

// Two jobs in one bay on one day clash; the week shows what stands in it.
func TestWeek(t *testing.T) {
	h := serve(t, dbtest.Store(t))
	for _, doc := range []string{
		`{"format":"epitrope-job","version":1,"title":"One","dates":{"d1":{"kind":"fit","due":"2031-03-04","bay":"north"}}}`,
		`{"format":"epitrope-job","version":1,"title":"Two","dates":{"d1":{"kind":"fit","due":"2031-03-05","bay":"north"}}}`,
		`{"format":"epitrope-job","version":1,"title":"Three","dates":{"d1":{"kind":"fit","due":"2031-03-05","bay":"south"}}}`,
		`{"format":"epitrope-job","version":1,"title":"Done","dates":{"d1":{"kind":"fit","due":"2031-03-05","bay":"south","done":"2031-03-06"}}}`,
		`{"format":"epitrope-job","version":1,"title":"Later","dates":{"d1":{"kind":"fit","due":"2031-03-20","bay":"south"}}}`,
	} {
		require.Equal(t, 201, call(t, "POST", h.URL+"/api/jobs", doc, nil).StatusCode)
	}
	var week server.Week
	call(t, "GET", h.URL+"/api/week?of=2031-03-09", "", &week)
	assert.Equal(t, "2031-03-03", week.Days[0], "a Monday")
	require.Len(t, week.Bays, 2)
	north, south := week.Bays[0], week.Bays[1]
	require.Len(t, north.Entries, 2)
	assert.True(t, north.Entries[0].Clashes && north.Entries[1].Clashes, "it takes more than a day")
	assert.Positive(t, north.Entries[0].Hours)
	require.Len(t, south.Entries, 1)
	assert.False(t, south.Entries[0].Clashes)
	assert.Equal(t, 422, call(t, "GET", h.URL+"/api/week?of=soon", "", nil).StatusCode)
}
