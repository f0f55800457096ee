package server_test

import (
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"epitrope/core/job"
	"epitrope/internal/dbtest"
	"epitrope/internal/door"
	"epitrope/internal/people"
	"epitrope/internal/server"
	"epitrope/internal/store"
)

// as is somebody at a server, by their cookie.
type as struct {
	t      *testing.T
	h      *httptest.Server
	cookie string
}

// ask sends a request and decodes the answer into out, if there is one.
func (a as) ask(method, path, body string, out any) int {
	a.t.Helper()
	req, err := http.NewRequest(method, a.h.URL+path, strings.NewReader(body))
	require.NoError(a.t, err)
	req.Header.Set("Cookie", a.cookie)
	if body != "" {
		req.Header.Set("Content-Type", "application/json")
	}
	res, err := http.DefaultClient.Do(req)
	require.NoError(a.t, err)
	defer res.Body.Close()
	data, err := io.ReadAll(res.Body)
	require.NoError(a.t, err)
	if out != nil {
		require.NoError(a.t, json.Unmarshal(data, out), string(data))
	}
	return res.StatusCode
}

// staffed is a workshop with one of each role, and a job.
func staffed(t *testing.T) (s *store.Store, h *httptest.Server, staff map[people.Role]as, who map[people.Role]people.Person, id string) {
	t.Helper()
	s = dbtest.Store(t)
	h = served(t, s)
	owner := dbtest.Begun(t, s, store.FirstWorkshop, "first")
	who = map[people.Role]people.Person{people.Owner: owner}
	for _, r := range people.Roles[1:] {
		who[r] = dbtest.Joined(t, s, owner, r, "Some "+string(r), "")
	}
	staff = map[people.Role]as{}
	for r, p := range who {
		staff[r] = as{t, h, signedIn(t, h, p)}
	}
	var made server.Opened
	require.Equal(t, 201, staff[people.Designer].ask("POST", "/api/jobs", provenJob, &made))
	return s, h, staff, who, made.ID
}

// Of each field of a document, who surveys may change what is there and nothing that is decided, and is told which it was.
func TestWhoSurveysDecidesNothing(t *testing.T) {
	_, _, staff, _, id := staffed(t)
	version := 1
	for field, allowed := range map[string]bool{`"aux":{"capacityAh":%d}`: true, `"routes":{"startM":%d}`: true,
		`"built":{"aux/capacityAh":"%d"}`: true,
		`"remarks":"seen %d"`:             true, `"title":"x%d"`: false, `"limits":{"chargerDrop":%d}`: false, `"day":{"days":%d}`: false} {
		for _, r := range []people.Role{people.Installer, people.Apprentice} {
			var opened server.Opened
			require.Equal(t, 200, staff[r].ask("GET", "/api/jobs/"+id, "", &opened))
			var doc map[string]any
			whole, err := json.Marshal(opened.Draft.Document)
			require.NoError(t, err)
			require.NoError(t, json.Unmarshal(whole, &doc))
			version++
			var change map[string]any
			require.NoError(t, json.Unmarshal([]byte("{"+fmt.Sprintf(field, version%5+6)+"}"), &change))
			for k, v := range change {
				if m, is := v.(map[string]any); is {
					if was, is := doc[k].(map[string]any); is {
						for k2, v2 := range m {
							was[k2] = v2
						}
						continue
					}
				}
				doc[k] = v
			}
			body, err := json.Marshal(map[string]any{"base": opened.Draft.Version, "document": doc})
			require.NoError(t, err)
			var refusal server.Refusal
			status := staff[r].ask("PUT", "/api/jobs/"+id+"/draft", string(body), &refusal)
			if allowed {
				assert.Equal(t, 200, status, "%s: %s: %s", r, field, refusal.Detail)
				continue
			}
			assert.Equal(t, 403, status, "%s: %s", r, field)
			require.NotEmpty(t, refusal.Problems, field)
			assert.Contains(t, refusal.Problems[0].Wrong, "decided by whoever designs")
		}
	}
	// Every field of the table is one or the other, by its part of the document.
	parts := people.SurveyedParts()
	for _, f := range job.Fields {
		head, _, _ := strings.Cut(f.Path, ".")
		assert.Equal(t, people.Surveyed(f.Path), contains(parts, head), f.Path)
	}
	for _, p := range parts {
		assert.True(t, containsField(p), "%s is a part of no document", p)
	}
}

func contains(list []string, s string) bool {
	for _, l := range list {
		if l == s {
			return true
		}
	}
	return false
}

// containsField says whether there is a field in a part of the document.
func containsField(part string) bool {
	for _, f := range job.Fields {
		if f.Path == part || strings.HasPrefix(f.Path, part+".") {
			return true
		}
	}
	return part == "built" || part == "known" // by the paths of the others
}

// At the bay's tablet each entry stands under whoever switched to themselves: nobody sends what others entered, whoever had it before.
func TestWhoseItIsAtTheTablet(t *testing.T) {
	s, h, staff, who, id := staffed(t)
	d := door.New(s, door.Where{})
	t.Cleanup(d.Close)
	tablet := as{t, h, signedIn(t, h, who[people.Owner])}
	var me server.Me
	// The session's cookie is another after each step: one that was known before is of no use.
	step := func(method, path, body string) int {
		req, err := http.NewRequest(method, h.URL+path, strings.NewReader(body))
		require.NoError(t, err)
		req.Header.Set("Cookie", tablet.cookie)
		req.Header.Set("Content-Type", "application/json")
		res, err := http.DefaultClient.Do(req)
		require.NoError(t, err)
		defer res.Body.Close()
		if c := res.Cookies(); len(c) > 0 {
			tablet.cookie = c[0].Name + "=" + c[0].Value
		}
		require.NoError(t, json.NewDecoder(res.Body).Decode(&me))
		return res.StatusCode
	}
	before := tablet.cookie
	require.Equal(t, 200, step("POST", "/api/tablet", ""))
	assert.Equal(t, 401, as{t, h, before}.ask("GET", "/api/jobs", "", nil))
	assert.Nil(t, me.Person)
	for _, r := range []people.Role{people.Apprentice, people.Installer} {
		withPIN(t, s, who[r], "7302")
	}
	for _, r := range []people.Role{people.Apprentice, people.Installer} {
		require.Equal(t, 200, step("POST", "/api/tablet/switch", fmt.Sprintf(`{"person":%q,"pin":"7302"}`, who[r].ID)))
	}
	assert.Equal(t, who[people.Installer].ID, me.Person.ID)
	assert.NotContains(t, me.May, people.Sign, "what the bay does and no more")
	entry := func(person string) string {
		return fmt.Sprintf(`[{"id":%q,"kind":"reading","subject":"start-rest","entry":"12.6 V","person":%q,"at":"2031-05-02T09:00:00Z"}]`,
			uuid.NewString(),
			person)
	}
	var out server.ProofRecord
	require.Equal(t, 200, tablet.ask("POST", "/api/jobs/"+id+"/proof", entry(who[people.Installer].ID), &out))
	assert.Equal(t, "Some installer", out.Entries[0].By)
	assert.False(t, out.Entries[0].Waits)
	for _, r := range []people.Role{people.Apprentice, people.Foreman} { // the one had the tablet before, and is not back yet
		require.Equal(t, 200, tablet.ask("POST", "/api/jobs/"+id+"/proof", entry(who[r].ID), &out))
		require.Len(t, out.Refused, 1)
		assert.Equal(t, "person", out.Refused[0].Problems[0].Field)
	}
	require.Equal(t, 200, staff[people.Foreman].ask("POST", "/api/jobs/"+id+"/proof", entry(who[people.Apprentice].ID), &out))
	require.Len(t, out.Refused, 1, "a foreman does not sign for others either")
	assert.Equal(t, 403, tablet.ask("POST", "/api/jobs/"+id+"/signoffs", `{"id":"`+uuid.NewString()+`","version":1}`, nil))
}

// withPIN sets a PIN as its owner does.
func withPIN(t *testing.T, s *store.Store, p people.Person, pin string) {
	t.Helper()
	d := door.New(s, door.Where{})
	t.Cleanup(d.Close)
	token := door.Token()
	require.NoError(t, s.Door().ResetLink(t.Context(), store.PersonRow{ID: p.ID, WorkshopID: p.Workshop, Name: p.Name}, token, soon()))
	ctx, err := d.Session(t.Context(), "")
	require.NoError(t, err)
	require.NoError(t, d.Reset(ctx, token, "seven wet otters", door.From{}))
	require.NoError(t, d.SetPIN(t.Context(), p, "seven wet otters", pin))
}

// A foreman touches those below alone, and there stays an owner.
func TestWhoChangesWhom(t *testing.T) {
	_, _, staff, who, _ := staffed(t)
	role := func(by, of people.Role, to people.Role) int {
		return staff[by].ask("PUT", "/api/people/"+who[of].ID+"/role", fmt.Sprintf(`{"role":%q}`, to), nil)
	}
	assert.Equal(t, 403, role(people.Foreman, people.Owner, people.Reader))
	assert.Equal(t, 403, role(people.Foreman, people.Installer, people.Owner))
	assert.Equal(t, 403, role(people.Foreman, people.Installer, people.Foreman))
	assert.Equal(t, 403, role(people.Designer, people.Installer, people.Reader))
	assert.Equal(t, 200, role(people.Foreman, people.Apprentice, people.Installer))
	assert.Equal(t, 409, role(people.Owner, people.Owner, people.Reader), "the last owner stays one")
	assert.Equal(t, 403, staff[people.Foreman].ask("POST", "/api/people/invitations", `{"role":"owner"}`, nil))
	assert.Equal(t, 403, staff[people.Foreman].ask("POST", "/api/people/"+who[people.Owner].ID+"/reset", "", nil), "a reset is a way in")
	assert.Equal(t, 422, staff[people.Owner].ask("POST", "/api/people/invitations", `{"role":"king"}`, nil))
	require.Equal(t, 204, staff[people.Foreman].ask("DELETE", "/api/people/"+who[people.Designer].ID, "", nil))
	assert.Equal(t, 401, staff[people.Designer].ask("GET", "/api/jobs", "", nil))
	assert.Equal(t, 401, staff[people.Designer].ask("POST", "/api/plan", `{}`, nil), "nor is anything worked out for them")
	var staffed server.Workforce
	require.Equal(t, 200, staff[people.Reader].ask("GET", "/api/people", "", &staffed))
	for _, m := range staffed.People {
		assert.Equal(t, m.ID == who[people.Designer].ID, m.Left != nil, m.Name)
		assert.Equal(t, m.ID == who[people.Reader].ID, m.SignIn != "", "what others sign in with is not told")
	}
}
