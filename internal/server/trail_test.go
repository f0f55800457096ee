package server_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/internal/people"
	"epitrope/internal/server"
)

// Who did what stands in the trail under their name, with what an edit changed, beside the job and over the workshop; nothing in it can
// be changed.
func TestTheTrail(t *testing.T) {
	_, _, staff, who, id := staffed(t)
	at := "/api/jobs/" + id
	changed := strings.Replace(provenJob, `"dailyAh":20`, `"dailyAh":35`, 1)
	require.Equal(t, 200, staff[people.Foreman].ask("PUT", at+"/draft", `{"base":1,"document":`+changed+`}`, nil))
	require.Equal(t, 200, staff[people.Apprentice].ask("POST", at+"/ticks",
		fmt.Sprintf(`[{"id":%q,"step":"in-hand","done":true,"note":"all there",`+
			`"at":"2031-05-02T09:00:00Z"}]`, uuid.NewString()), nil))
	require.Equal(t, 200, staff[people.Installer].ask("POST", at+"/proof",
		fmt.Sprintf(`[{"id":%q,"kind":"reading","subject":"apart","entry":"0 A",`+
			`"at":"2031-05-02T09:00:00Z"}]`, uuid.NewString()), nil))
	require.Equal(t, 204, staff[people.Reader].ask("POST", at+"/taken", "", nil))
	require.Equal(t, 201, staff[people.Designer].ask("POST", at+"/revisions", `{"base":2}`, nil))
	require.Equal(t, 200, staff[people.Owner].ask("PUT", "/api/people/"+who[people.Apprentice].ID+"/role", `{"role":"installer"}`, nil))

	var trail server.Trailed
	require.Equal(t, 200, staff[people.Reader].ask("GET", at+"/trail", "", &trail))
	said := []string{}
	for _, l := range trail.Lines {
		said = append(said, l.By+" "+l.Did+" "+l.What)
		if l.Did == "changed one answer" {
			require.Len(t, l.Changes, 1)
			assert.Equal(t, "use.dailyAh", l.Changes[0].Path)
		}
	}
	assert.Equal(t, []string{"Some designer issued revision 1", "Some reader took away the job as a file",
		"Some installer read Into or out of the aux battery", "Some apprentice ticked Everything in hand",
		"Some foreman changed one answer ",
		"Some designer began the job "}, said)

	require.Equal(t, 200, staff[people.Foreman].ask("GET", "/api/trail", "", &trail))
	assert.Equal(t, "gave another role", trail.Lines[0].Did)
	assert.Equal(t, "Some apprentice: installer, was apprentice", trail.Lines[0].What)
	assert.Equal(t, 403, staff[people.Installer].ask("GET", "/api/trail", "", nil))
	for _, l := range trail.Lines {
		assert.NotEmpty(t, l.By, l.Did)
	}
}
