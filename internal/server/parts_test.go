package server_test

import (
	"encoding/json"
	"io"
	"net/http"
	"net/url"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

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
	var read server.PartsRead
	res := call(t, "POST", h.URL+"/api/parts", file("kind,name,rating A,price,currency\ncharger,Bench box,35,210,EUR\ncharger,Bad box,lots,210,EUR\n"), &read)
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
	read = server.PartsRead{}
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
