package server_test

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/internal/answers"
	"epitrope/internal/people"
	"epitrope/internal/server"
)

// What an apprentice did waits; somebody else stands for it, once, and then it holds. Nobody stands for their own.
func TestCountersigning(t *testing.T) {
	_, _, staff, who, id := staffed(t)
	at := "/api/jobs/" + id
	entries := func(subject, kind, text string) (string, server.ProofRecord) {
		e := uuid.NewString()
		var out server.ProofRecord
		require.Equal(t, 200, staff[people.Apprentice].ask("POST", at+"/proof", fmt.Sprintf(`[{"id":%q,"kind":%q,"subject":%q,"entry":%q,`+
			`"by":"The Owner","at":"2031-05-02T09:00:00Z"}]`, e, kind, subject, text), &out))
		return e, out
	}
	reading, record := entries("start-rest", "reading", "12.6 V")
	assert.True(t, record.Entries[0].Waits)
	assert.Equal(t, "Some apprentice", record.Entries[0].By, "whoever sends it, whatever it says")
	waiver, _ := entries("regulation", "waiver", "no time for a drive")
	tick, hold := uuid.NewString(), uuid.NewString()
	var ticks server.Ticks
	require.Equal(t, 200, staff[people.Apprentice].ask("POST", at+"/ticks", fmt.Sprintf(`[{"id":%q,"step":"in-hand","done":true,`+
		`"at":"2031-05-02T09:00:00Z"},{"id":%q,"step":"hold-cover","done":true,"at":"2031-05-02T09:00:00Z"}]`, tick, hold), &ticks))
	assert.False(t, ticks.Ticks[0].Waits, "a step that is no hold point waits for nobody")
	assert.True(t, ticks.Ticks[1].Waits)

	gate := func(id string) (out answers.Proven) {
		var record server.ProofRecord
		staff[people.Owner].ask("GET", at+"/proof", "", &record)
		body, err := json.Marshal(map[string]any{"document": json.RawMessage(provenJob), "entries": record.Entries,
			"done":    []string{"hold-cover"},
			"waiting": []string{id}, "photos": map[string]int{}})
		require.NoError(t, err)
		require.Equal(t, 200, staff[people.Owner].ask("POST", "/api/proof", string(body), &out))
		return out
	}
	said := gateSaid(gate("hold-cover"), "holds")
	assert.Contains(t, said, "Waits for a countersignature")

	countersign := func(r people.Role, of string) int {
		return staff[r].ask("POST", at+"/countersigns", fmt.Sprintf(`{"id":%q,"of":%q}`, uuid.NewString(), of), nil)
	}
	assert.Equal(t, 403, countersign(people.Apprentice, reading))
	assert.Equal(t, 403, countersign(people.Designer, reading))
	assert.Equal(t, 404, countersign(people.Installer, uuid.NewString()))
	assert.Equal(t, 404, countersign(people.Installer, tick), "it does not wait")
	// An apprentice who has become an installer does not stand for what they did before.
	require.Equal(t, 200, staff[people.Owner].ask("PUT", "/api/people/"+who[people.Apprentice].ID+"/role", `{"role":"installer"}`, nil))
	assert.Equal(t, 409, countersign(people.Apprentice, reading))
	for _, of := range []string{reading, waiver, hold, hold} {
		assert.Equal(t, 204, countersign(people.Installer, of))
	}
	var after server.ProofRecord
	require.Equal(t, 200, staff[people.Reader].ask("GET", at+"/proof", "", &after))
	for _, e := range after.Entries {
		assert.False(t, e.Waits)
		assert.Equal(t, "Some installer", e.Countersigned)
	}
	var waiting server.WaitingFor
	require.Equal(t, 200, staff[people.Reader].ask("GET", "/api/waiting", "", &waiting))
	assert.Empty(t, waiting.Countersigns)
}

func gateSaid(p answers.Proven, id string) string {
	for _, g := range p.Gates {
		if g.ID == id {
			return strings.Join(g.Open, " ")
		}
	}
	return ""
}

// A question is open until somebody answers it, and those whom it names are asked first.
func TestQuestions(t *testing.T) {
	_, _, staff, _, id := staffed(t)
	at := "/api/jobs/" + id + "/comments"
	thread := uuid.NewString()
	ask := fmt.Sprintf(`{"id":%q,"about":"part","subject":"c1","named":"C1","text":"@some FOREMAN which side?","asks":true}`, thread)
	var list []server.Comment
	for range 2 { // sent twice it counts once
		require.Equal(t, 200, staff[people.Apprentice].ask("POST", at, ask, &list))
	}
	require.Len(t, list, 1)
	var waiting server.WaitingFor
	require.Equal(t, 200, staff[people.Foreman].ask("GET", "/api/waiting", "", &waiting))
	require.Len(t, waiting.Questions, 1)
	assert.True(t, waiting.Questions[0].Mine)
	require.Equal(t, 200, staff[people.Owner].ask("GET", "/api/waiting", "", &waiting))
	assert.False(t, waiting.Questions[0].Mine)
	say := func(text string, answers bool) int {
		return staff[people.Foreman].ask("POST", at, fmt.Sprintf(`{"id":%q,"thread":%q,"about":"part","text":%q,"answers":%t}`,
			uuid.NewString(), thread,
			text, answers), nil)
	}
	require.Equal(t, 200, say("let me look", false))
	require.Equal(t, 200, staff[people.Foreman].ask("GET", "/api/waiting", "", &waiting))
	assert.Len(t, waiting.Questions, 1, "what does not answer leaves it open")
	require.Equal(t, 200, say("the left", true))
	require.Equal(t, 200, staff[people.Foreman].ask("GET", "/api/waiting", "", &waiting))
	assert.Empty(t, waiting.Questions)
	assert.Equal(t, 404, staff[people.Foreman].ask("POST", at, fmt.Sprintf(`{"id":%q,"thread":%q,"about":"part","text":"x"}`,
		uuid.NewString(),
		uuid.NewString()), nil))
	for _, bad := range []string{`"text":""`, `"text":"  "`, `"text":"a\u0000b"`, `"text":"x","about":"weather"`, `"text":"` +
		strings.Repeat("x", 2001) + `"`} {
		assert.Equal(t, 422, staff[people.Foreman].ask("POST", at, `{"id":"`+uuid.NewString()+`","about":"job",`+bad+`}`, nil), bad)
	}
}
