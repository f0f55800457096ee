package server_test

import (
	"fmt"
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/internal/dbtest"
	"epitrope/internal/server"
)

// Between two revisions, and from one to the draft, stand the answers that changed, the figures that followed, and what is weak since.
func TestWhatChangedBetweenRevisions(t *testing.T) {
	h := serve(t, dbtest.Store(t))
	id := opened(t, h)
	at := h.URL + "/api/jobs/" + id
	save := func(base int, document string) {
		t.Helper()
		body := fmt.Sprintf(`{"base":%d,"document":%s}`, base, document)
		require.Equal(t, 200, call(t, http.MethodPut, at+"/draft", body, nil).StatusCode)
	}
	issue := func(base int) {
		t.Helper()
		require.Equal(t, 201, call(t, http.MethodPost, at+"/revisions", fmt.Sprintf(`{"base":%d}`, base), nil).StatusCode)
	}
	issue(1)
	far := strings.Replace(provenJob, `"auxM":2`, `"auxM":9`, 1)
	save(1, far)
	issue(2)
	save(2, strings.Replace(far, `"dailyAh":20`, `"dailyAh":90`, 1))

	between := func(query string) (out server.Between) {
		t.Helper()
		require.Equal(t, 200, call(t, http.MethodGet, at+"/between?"+query, "", &out).StatusCode)
		return out
	}
	one := between("from=1&to=2")
	require.Len(t, one.Changes, 1)
	assert.Equal(t, "routes.auxM", one.Changes[0].Path)

	draft := between("from=2")
	require.Len(t, draft.Changes, 1)
	assert.Equal(t, "use.dailyAh", draft.Changes[0].Path)
	assert.NotEmpty(t, draft.Figures, "more is used: the title says so")

	back := between("from=2&to=1")
	assert.Equal(t, one.Came, back.Gone)
	assert.Equal(t, one.Gone, back.Came)
	assert.Empty(t, between("from=2&to=2").Changes)

	assert.Equal(t, 404, call(t, http.MethodGet, at+"/between?from=7", "", nil).StatusCode)
	assert.Equal(t, 422, call(t, http.MethodGet, at+"/between?from=0", "", nil).StatusCode)
}
