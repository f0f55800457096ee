package server_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/coupling"
	"epitrope/core/study"
	"epitrope/internal/answers"
	"epitrope/internal/dbtest"
	"epitrope/internal/server"
)

// Couplings are judged together and run one by one; one that there is not is refused by
// name, with those that there are.
func TestCouplingsOneByOne(t *testing.T) {
	h := serve(t, dbtest.Store(t))
	const doc = `{"aux":{"chemistry":"lifepo4","capacityAh":100},"use":{"dailyAh":30,"drivenHours":1}}`
	var judged answers.Judged
	require.Equal(t, 200, call(t, "POST", h.URL+"/api/methods", doc, &judged).StatusCode)
	require.Len(t, judged.Methods, len(coupling.Kinds()))
	for _, m := range judged.Methods {
		var driven study.Driven
		require.Equal(t, 200, call(t, "POST", h.URL+"/api/methods/"+string(m.Method.Kind), doc, &driven).StatusCode)
		assert.NotEmpty(t, driven.Fails.Dead, m.Method.Kind)
		assert.Len(t, driven.Aims, len(study.Aims))
	}
	var refused server.Refusal
	require.Equal(t, 422, call(t, "POST", h.URL+"/api/methods/abc", doc, &refused).StatusCode)
	require.Len(t, refused.Problems, 1)
	assert.Contains(t, refused.Problems[0].Field, "coupling")
	assert.Equal(t, "abc", refused.Problems[0].Value)
	for _, k := range coupling.Kinds() {
		assert.Contains(t, refused.Problems[0].Allowed, string(k))
	}
}
