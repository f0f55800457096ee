package server_test

import (
	"encoding/json"
	"io"
	"net/http"
	"net/url"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/internal/answers"
	"epitrope/internal/dbtest"
	"epitrope/internal/server"
)

func file(csv string) string {
	b, _ := json.Marshal(server.PartsFile{CSV: csv}) // a string
	return string(b)
}

// A half-bad file puts its good lines in and gives the others back with what is wrong; the
// export reads again.
func TestPartsBookByFile(t *testing.T) {
	h := serve(t, dbtest.Store(t))
	var read server.BookRead
	res := call(t, "POST", h.URL+"/api/parts",
		file("kind,name,rating A,price,currency\ncharger,Bench box,35,210,EUR\ncharger,Bad box,lots,210,EUR\n"), &read)
	require.Equal(t, 200, res.StatusCode)
	assert.Equal(t, 1, read.Kept)
	require.Len(t, read.Problems, 1)
	assert.Equal(t, 3, read.Problems[0].Line)
	assert.Equal(t, "kind,name,rating A,price,currency\ncharger,Bad box,lots,210,EUR\n", read.Rest)

	var book server.PartsBook
	call(t, "GET", h.URL+"/api/parts", "", &book)
	require.Len(t, book.Parts, 1)
	assert.NotEmpty(t, book.Parts[0].Item.PricedOn)
	assert.InDelta(t, 35, book.Parts[0].Job["card.outputA"], 1e-9)
	assert.Len(t, book.Parts[0].Cells, len(book.Heads))

	exported, err := http.Get(h.URL + "/api/parts.csv")
	require.NoError(t, err)
	defer exported.Body.Close()
	text, err := io.ReadAll(exported.Body)
	require.NoError(t, err)
	assert.Contains(t, exported.Header.Get("Content-Type"), "text/csv")
	read = server.BookRead{}
	call(t, "POST", h.URL+"/api/parts", file(string(text)), &read)
	assert.Equal(t, 1, read.Kept)
	assert.Empty(t, read.Problems)

	var refusal server.Refusal
	res = call(t, "POST", h.URL+"/api/parts", file("what,is,this\n"), &refusal)
	assert.Equal(t, 422, res.StatusCode)
	assert.Contains(t, refusal.Problems[0].Wrong, `head "what" is not a column of parts`)
}

func TestPartsBookByHand(t *testing.T) {
	h := serve(t, dbtest.Store(t))
	res := call(t, "PUT", h.URL+"/api/parts", `{"kind":"fuse","name":"Strip 60","rating A":"60"}`, nil)
	require.Equal(t, 204, res.StatusCode)
	var refusal server.Refusal
	res = call(t, "PUT", h.URL+"/api/parts", `{"kind":"fuse","name":"Strip 60","rating A":"sixty"}`, &refusal)
	require.Equal(t, 422, res.StatusCode)
	require.Len(t, refusal.Problems, 1)
	assert.Equal(t, "rating A", refusal.Problems[0].Field)
	assert.Equal(t, "sixty", refusal.Problems[0].Value)
	assert.Equal(t, "0.5 to 600 A", refusal.Problems[0].Allowed)
	at := h.URL + "/api/parts?key=" + url.QueryEscape("fuse/strip 60")
	assert.Equal(t, 204, call(t, "DELETE", at, "", nil).StatusCode)
	assert.Equal(t, 404, call(t, "DELETE", at, "", nil).StatusCode)
}

// The vehicle book by file: good lines go in, the export reads again, and an answer that is
// taken out is gone from the book and may come back.
func TestVehicleBookByFile(t *testing.T) {
	h := serve(t, dbtest.Store(t))
	var read server.BookRead
	call(t, "POST", h.URL+"/api/vehicles",
		file("model,answer to,answer\nPipit 2,routes.startM,5.5 m\nPipit 2,routes.auxM,far\nPipit 2,feeds.f1.name,F22\n"), &read)
	assert.Equal(t, 2, read.Kept)
	require.Len(t, read.Problems, 1)
	assert.Equal(t, "far", read.Problems[0].Value)
	find := func() server.Model {
		var models []server.Model
		call(t, "GET", h.URL+"/api/vehicles?model=pipit%202", "", &models)
		if len(models) == 0 {
			return server.Model{}
		}
		return models[0]
	}
	require.Len(t, find().Answers, 3)
	call(t, "DELETE", h.URL+"/api/vehicles?model=Pipit%202&path="+url.QueryEscape("routes.startM"), "", nil)
	assert.Nil(t, find().Document.Routes.StartM)
	assert.Equal(t, "F22", find().Document.Feeds["f1"].Name)
	call(t, "POST", h.URL+"/api/vehicles", file("model,answer to,answer\nPipit 2,routes.startM,5.7 m\n"), nil)
	require.NotNil(t, find().Document.Routes.StartM)
	exported, err := http.Get(h.URL + "/api/vehicles.csv")
	require.NoError(t, err)
	defer exported.Body.Close()
	text, err := io.ReadAll(exported.Body)
	require.NoError(t, err)
	assert.Contains(t, string(text), "Pipit 2,routes.startM,")
	call(t, "DELETE", h.URL+"/api/vehicles?model=Pipit%202&path=*", "", nil)
	assert.Empty(t, find().Model)
	assert.Equal(t, 404, call(t, "DELETE", h.URL+"/api/vehicles?model=Nobody&path=*", "", nil).StatusCode)
}

// What is due of all jobs, and its calendar.
func TestDueAndCalendar(t *testing.T) {
	h := serve(t, dbtest.Store(t))
	var opened server.Opened
	call(t, "POST", h.URL+"/api/jobs",
		`{"format":"epitrope-job","version":1,"title":"Reserve","dates":{"d1":{"kind":"topup","what":"Charge it",`+
			`"due":"2020-01-01"},"d2":{"what":"Far","due":"2999-01-01"}}}`,
		&opened)
	var due server.DuePage
	call(t, "GET", h.URL+"/api/due", "", &due)
	assert.Empty(t, due.Next)
	found := false
	for _, d := range due.Due {
		assert.NotEqual(t, "Far", d.What)
		found = found || d.Job == opened.ID && d.State == "overdue" && d.Days < -365
	}
	assert.True(t, found)
	for _, path := range []string{"/api/calendar.ics", "/api/jobs/" + opened.ID + "/calendar.ics"} {
		res, err := http.Get(h.URL + path)
		require.NoError(t, err)
		text, err := io.ReadAll(res.Body)
		require.NoError(t, err)
		require.NoError(t, res.Body.Close())
		assert.Contains(t, res.Header.Get("Content-Type"), "text/calendar")
		assert.Contains(t, string(text), "SUMMARY:Charge it")
	}
	var dates answers.JobDates
	call(t, "POST", h.URL+"/api/dates", `{"dates":{"d1":{"kind":"topup","due":"2020-01-01"}}}`, &dates)
	assert.Equal(t, "overdue", dates.Rows[0].State)
	assert.Len(t, dates.OfferDue, len(dates.Calendar.Offers))
	var refusal server.Refusal
	res := call(t, "POST", h.URL+"/api/jobs", `{"format":"epitrope-job","version":1,"dates":{"d1":{"due":"2030-02-30"}}}`, &refusal)
	assert.Equal(t, 422, res.StatusCode)
	assert.Equal(t, "dates.d1.due", refusal.Problems[0].Field)
	assert.Contains(t, refusal.Problems[0].Allowed, "2030-05-01")
}
