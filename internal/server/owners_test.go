package server_test

import (
	"fmt"
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/internal/dbtest"
	"epitrope/internal/server"
)

func soon() time.Time { return time.Now().Add(time.Hour) }

// A vehicle's owner sees what was handed over as it was signed for, tells of a drive, and reaches nothing else by their link.
func TestWhatAVehiclesOwnerSees(t *testing.T) {
	h := serve(t, dbtest.Store(t))
	id := opened(t, h)
	at := h.URL + "/api/jobs/" + id
	assert.Equal(t, 409, call(t, "POST", at+"/links", "", nil).StatusCode, "nothing is handed over before it is signed for")
	proven(t, h, id)
	put(t, h, id, uuid.NewString(), picture(t, 30, 20), 200)
	require.Equal(t, 201, call(t, "POST", at+"/signoffs", fmt.Sprintf(`{"id":%q,"version":1}`, uuid.NewString()), nil).StatusCode)
	var made server.NewLink
	require.Equal(t, 200, call(t, "POST", at+"/links", "", &made).StatusCode)
	token, is := strings.CutPrefix(made.Address, "/handed#")
	require.True(t, is)
	// The job goes on; what was handed over stays as it was.
	require.Equal(t, 200, call(t, "PUT", at+"/draft", `{"base":1,"document":{"format":"epitrope-job","version":1,"title":"Another plan"}}`,
		nil).StatusCode)

	body := `{"token":"` + token + `"}`
	nobody := func(path, body string, out any) *http.Response {
		return callAs(t, "none=1", "POST", h.URL+path, body, out)
	}
	var got server.HandedOver
	require.Equal(t, 200, nobody("/api/handed", body, &got).StatusCode)
	assert.Equal(t, "Relay at the front", got.Title)
	assert.NotEmpty(t, got.Booklet.Does)
	assert.NotEmpty(t, got.Proven)
	assert.Equal(t, "Odile Marrow", got.SignedBy)
	res := nobody("/api/handed/booklet", body, nil)
	assert.Equal(t, "application/pdf", res.Header.Get("Content-Type"))
	var says server.TripSays
	require.Equal(t, 200, nobody("/api/handed/trip", `{"token":"`+token+`","drive":{"hours":2,"from":60,"to":60}}`, &says).StatusCode)
	assert.NotEqual(t, "as-it-should", string(says.Level), "two hours gained nothing")
	require.Equal(t, 200, nobody("/api/handed", body, &got).StatusCode)
	require.Len(t, got.Trips, 1)
	var record server.ProofRecord
	require.Equal(t, 200, call(t, "GET", at+"/proof", "", &record).StatusCode)
	assert.Equal(t, "the vehicle's owner", record.Entries[len(record.Entries)-1].By)
	assert.Equal(t, 422, nobody("/api/handed/trip", `{"token":"`+token+`","drive":{"hours":-2,"from":60,"to":60}}`, nil).StatusCode)
	// It lets in nowhere else: neither as a cookie nor as a way to sign in.
	for _, cookie := range []string{"epitrope=" + token, "none=1"} {
		assert.Equal(t, 401, callAs(t, cookie, "GET", at, "", nil).StatusCode)
	}
	assert.Equal(t, 403, nobody("/api/door/link", body, nil).StatusCode)
	assert.Equal(t, 403, nobody("/api/door/join", `{"token":"`+token+`","name":"x","signIn":"x","password":"seven wet otters"}`,
		nil).StatusCode)
	assert.Equal(t, 403, nobody("/api/handed", `{"token":"`+strings.Repeat("A", 32)+`"}`, nil).StatusCode)

	var links []server.GivenLink
	require.Equal(t, 200, call(t, "GET", at+"/links", "", &links).StatusCode)
	require.Len(t, links, 1)
	require.Equal(t, 204, call(t, "DELETE", at+"/links/"+links[0].ID, "", nil).StatusCode)
	assert.Equal(t, 403, nobody("/api/handed", body, nil).StatusCode, "it was taken back")
}

// The demo lets anybody in without a word on its own machine alone, with nothing between.
func TestTheDemosDoor(t *testing.T) {
	s := dbtest.Store(t)
	h := serve(t, s)
	list, err := s.People(t.Context())
	require.NoError(t, err)
	ask := func(change func(r *http.Request)) int {
		req, err := http.NewRequest(http.MethodPost, h.URL+"/api/door/demo", strings.NewReader(`{"person":"`+list[0].ID+`"}`))
		require.NoError(t, err)
		req.Header.Set("Content-Type", "application/json")
		req.Header.Set("Cookie", "none=1")
		change(req)
		res, err := http.DefaultClient.Do(req)
		require.NoError(t, err)
		defer res.Body.Close()
		return res.StatusCode
	}
	assert.Equal(t, 200, ask(func(*http.Request) {}))
	for _, head := range []string{"Forwarded", "X-Forwarded-For", "X-Forwarded-Host", "X-Forwarded-Proto", "X-Real-IP", "Via",
		"CF-Connecting-IP"} {
		assert.Equal(t, 403, ask(func(r *http.Request) { r.Header.Set(head, "127.0.0.1") }), head)
	}
	assert.Equal(t, http.StatusMisdirectedRequest, ask(func(r *http.Request) { r.Host = "workshop.example" }))
	assert.Equal(t, 403, ask(func(r *http.Request) { r.Header.Set("Sec-Fetch-Site", "cross-site") }))
	var me server.Me
	callAs(t, "none=1", "GET", h.URL+"/api/me", "", &me)
	assert.True(t, me.Demo)
	require.ErrorContains(t, server.Way{Public: publicly(t, "https://workshop.example"), Demo: true}.Check("0.0.0.0:80"),
		"this machine alone")
	for _, bad := range []string{"http://workshop.example", "workshop.example", "https://", "https://a.example/path",
		"https://a.example?x"} {
		_, err := server.ReadPublic(bad)
		require.Error(t, err, bad)
	}
	require.NoError(t, server.Way{Public: publicly(t, "https://workshop.example")}.Check("0.0.0.0:80"))
}
