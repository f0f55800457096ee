package server_test

import (
	"net/http"
	"net/url"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/internal/answers"
	"epitrope/internal/dbtest"
	"epitrope/internal/server"
)

// What happened to a job stands in its log by when it happened, and what failed is counted over the workshop by part and model, once
// however often it is sent.
func TestWhatFailsIsCounted(t *testing.T) {
	h := serve(t, dbtest.Store(t))
	first, second := opened(t, h), opened(t, h)
	ofCase := func(kind, subject, text string) answers.ProofEntry {
		e := entry(kind, subject, text)
		e.Case = "0f0e0d0c-0000-4000-8000-000000000001"
		return e
	}
	mended := ofCase("mended", "blown f1", "charge")
	send(t, h, first, ofCase("complaint", "no-charge", "It does not charge"), mended, ofCase("closed", "case", "closed"))
	send(t, h, first, mended)
	send(t, h, second, ofCase("mended", "blown f1", "charge"), ofCase("mended", "blown nowhere", "charge"),
		entry("changed", "aux", "the old one was swollen"), entry("noted", "noted", "Terminals greased"))

	var log server.Logbook
	require.Equal(t, 200, call(t, http.MethodGet, h.URL+"/api/jobs/"+second+"/log", "", &log).StatusCode)
	says := map[string]string{}
	for _, l := range log.Lines {
		says[l.Kind] += l.Says + "|"
	}
	assert.Contains(t, says["mended"], "Mended: F1 is blown, or not in|Mended: blown nowhere|")
	assert.Contains(t, says["changed"], "Aux battery changed: the old one was swollen")
	assert.Contains(t, says["noted"], "Terminals greased")
	assert.NotEmpty(t, says["made"])
	assert.NotEmpty(t, log.Parts)

	failing := func(search string) (out server.WhatFailed) {
		require.Equal(t, 200, call(t, http.MethodGet, h.URL+"/api/failures?search="+url.QueryEscape(search), "", &out).StatusCode)
		return out
	}
	all := failing("")
	require.Len(t, all.Groups, 2)
	assert.Equal(t, "fuse", all.Groups[0].Part)
	assert.Equal(t, 2, all.Groups[0].Count)
	assert.Equal(t, 2, all.Groups[0].Vehicles)
	assert.Equal(t, "aux battery", all.Groups[1].Part)
	assert.Nil(t, all.Groups[0].Years, "nobody knows when it was proven")
	assert.Len(t, all.Newest, 3)
	assert.Len(t, failing("battery").Groups, 1)
	assert.Empty(t, failing("unicorn").Newest)

	require.Equal(t, 204, call(t, http.MethodDelete, h.URL+"/api/jobs/"+second, "", nil).StatusCode)
	assert.Len(t, failing("").Newest, 1, "of a job that is deleted nothing is counted")
}

// What was found is counted as what was found: its parts are others than those of the plan.
func TestWhatWasFoundIsCountedAsFound(t *testing.T) {
	h := serve(t, dbtest.Store(t))
	var job server.Opened
	require.Equal(t, 201, call(t, http.MethodPost, h.URL+"/api/jobs", `{"format":"epitrope-job","version":1,`+
		`"alternator":{"label":"120/200 A","regulation":"variable","knownBy":"test"},"aux":{"chemistry":"lifepo4","capacityAh":200},`+
		`"have":{"coupling":"vsr","couplingA":120}}`, &job).StatusCode)
	e := entry("mended", "welded coupling", "apart")
	e.ID, e.Case, e.Found = uuid.NewString(), uuid.NewString(), true
	send(t, h, job.ID, e)
	var out server.WhatFailed
	require.Equal(t, 200, call(t, http.MethodGet, h.URL+"/api/failures", "", &out).StatusCode)
	require.Len(t, out.Groups, 1)
	assert.Equal(t, "relay", out.Groups[0].Part)
}
